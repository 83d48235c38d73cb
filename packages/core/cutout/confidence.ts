import { components } from '../raster/components';
import { grow } from '../raster/distance';
import { CONFIDENCE } from './model/confidence';

/** What an automatic cutout is judged by; every measure is 0 where nothing speaks against it. */
export interface CutoutMeasures {
  /** 1 minus the overlap (intersection over union) of the model's look at the whole and its closer look. */
  looksDiffer: number;
  /** 1 minus the overlap of the final outline and what the model holds for likely. */
  outlineDiffers: number;
  /** Mean entropy of the model's probabilities over the product and what might be, in bits. */
  doubt: number;
  /** Share of the product's area that lies off the edge and in doubt. */
  doubtOffEdge: number;
  /** Share of the outline along which both sides look alike. */
  faintEdge: number;
  /** Share of the outline that lies on the photo's border. */
  onBorder: number;
  /** Share of the area that the ground shows through. */
  seenThrough: number;
  /** How far the product is from a usual size in the photo, as the logarithm of its share of the area. */
  small: number;
  /** Separate parts beyond the first, as a logarithm. */
  parts: number;
  /** Share of the photo's pixels that the probabilities expect to be on the wrong side of the outline. */
  likelyWrong: number;
}

/** A place that the automatic cutout is not sure of, in pixels of the reduced picture. */
export interface Doubt {
  x: number;
  y: number;
  radius: number;
}

/** From here on a cutout is said to look right; below the second limit it needs a hand. */
export const LOOKS_RIGHT = 0.9;
const NEEDS_A_HAND = 0.5;

export type CutoutVerdict = 'looks right' | 'look at it' | 'needs a hand';

/** What is said of a cutout with this confidence. */
export function verdictOf(confidence: number): CutoutVerdict {
  if (confidence >= LOOKS_RIGHT) return 'looks right';
  return confidence < NEEDS_A_HAND ? 'needs a hand' : 'look at it';
}

/**
 * Probability that a cutout with these measures is right (matte error at most 0.005): logistic regression on
 * their logarithms, brought to true shares by isotonic regression on pictures that neither has seen (`training/calibrate.py`).
 */
export function confidenceFrom(measures: CutoutMeasures): number {
  let odds = CONFIDENCE.intercept;
  const { weights, floors } = CONFIDENCE;
  for (const name of Object.keys(weights) as (keyof typeof weights)[])
    odds += weights[name] * Math.log(measures[name] + floors[name]);
  const raw = 1 / (1 + Math.exp(-odds));
  const { from, to } = CONFIDENCE.calibration;
  let k = 1;
  while (k < from.length - 1 && from[k] < raw) k++;
  const t = Math.min(1, Math.max(0, (raw - from[k - 1]) / Math.max(1e-9, from[k] - from[k - 1])));
  return to[k - 1] + (to[k] - to[k - 1]) * t;
}

/** What a cutout is judged by; planes have one value a pixel. */
export interface CutoutToMeasure {
  /** The final outline, 1 inside. */
  product: Uint8Array;
  /** The model's probabilities, and those by model and colours together. */
  shape: Float32Array;
  chance: Float32Array;
  /** How far the ground shows through. */
  seen: Float32Array;
  /** Distance of each pixel from the backdrop in noise units. */
  residual: Float32Array;
  /** How far the model's looks agree, 0..1. */
  agreement: number;
  width: number;
  height: number;
}

export function measureCutout(cutout: CutoutToMeasure): CutoutMeasures {
  const { product, shape, chance, seen, residual, agreement, width, height } = cutout;
  const off = offEdge(product, shape, width, height);
  let [area, both, either, entropy, within, doubtful, through, wrong] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < product.length; i++) {
    const p = shape[i];
    const is = product[i] === 1;
    if (is) {
      area++;
      through += seen[i];
    }
    wrong += is ? 1 - chance[i] : chance[i];
    if (is && p > 0.5) both++;
    if (is || p > 0.5) either++;
    if (off[i]) doubtful++;
    if (is || p > 0.05) {
      const q = Math.min(0.999, Math.max(0.001, p));
      entropy -= q * Math.log2(q) + (1 - q) * Math.log2(1 - q);
      within++;
    }
  }
  const edge = edgeMeasures(product, residual, width);
  const parts = components(product, width, height).list.filter((c) => c.area > area * 0.02).length;
  return {
    looksDiffer: 1 - agreement,
    outlineDiffers: either ? 1 - both / either : 1,
    doubt: within ? entropy / within : 1,
    doubtOffEdge: area ? Math.min(2, doubtful / area) : 2,
    faintEdge: edge.faint,
    onBorder: edge.onBorder,
    seenThrough: area ? through / area : 0,
    small: Math.max(0, -Math.log(Math.max(1e-4, area / product.length) / 0.15)),
    parts: Math.log(Math.max(1, parts)),
    likelyWrong: wrong / product.length,
  };
}

/** Pixels that are in doubt, or decided against the model, away from the outline's own band. */
function offEdge(product: Uint8Array, shape: Float32Array, width: number, height: number): Uint8Array {
  const inner = grow(product, width, height, -2.5);
  const outer = grow(product, width, height, 2.5);
  return Uint8Array.from(shape, (p, i) => ((inner[i] && p < 0.85) || (!outer[i] && p > 0.15) ? 1 : 0));
}

/** Where a hand should look first: the largest areas in doubt, at most six. */
export function doubtsOf(product: Uint8Array, shape: Float32Array, width: number, height: number): Doubt[] {
  const { labels, list } = components(offEdge(product, shape, width, height), width, height);
  const sums = list.map((c) => ({ x: 0, y: 0, area: c.area }));
  labels.forEach((l, i) => {
    if (!l) return;
    sums[l - 1].x += i % width;
    sums[l - 1].y += Math.floor(i / width);
  });
  return sums
    .filter((s) => s.area >= Math.max(6, product.length * 0.0002))
    .sort((a, b) => b.area - a.area)
    .slice(0, 6)
    .map((s) => ({ x: s.x / s.area, y: s.y / s.area, radius: Math.sqrt(s.area / Math.PI) + 3 }));
}

/** Along the outline: the share where product and backdrop look alike, and the share on the photo's border. */
function edgeMeasures(
  product: Uint8Array,
  residual: Float32Array,
  width: number,
): { faint: number; onBorder: number } {
  let edge = 0;
  let border = 0;
  let clear = 0;
  const inward = [-2, 2, -2 * width, 2 * width];
  for (let i = 0; i < product.length; i++) {
    if (!product[i]) continue;
    const x = i % width;
    const atBorder = x === 0 || x === width - 1 || i < width || i >= product.length - width;
    if (!atBorder && product[i - 1] && product[i + 1] && product[i - width] && product[i + width]) continue;
    edge++;
    if (atBorder) {
      border++;
      continue;
    }
    // Look two pixels inward, past the mixed pixels.
    let best = 0;
    for (const step of inward) {
      const q = i + step;
      if (q >= 0 && q < product.length && product[q] && residual[q] > best) best = residual[q];
    }
    clear += Math.min(1, best / 6);
  }
  return edge
    ? { faint: 1 - clear / Math.max(1, edge - border), onBorder: border / edge }
    : { faint: 1, onBorder: 0 };
}
