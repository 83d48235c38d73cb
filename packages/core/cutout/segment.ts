import { components } from '../raster/components';
import { grow } from '../raster/distance';
import { fitBackground, type BackgroundModel } from './background';
import { fitColourModel, type ColourModel } from './colour-model';
import { minCut } from './min-cut';

export interface Segmentation {
  /** 1 where the product is, one byte a pixel. */
  product: Uint8Array;
  /** How far each pixel is from the (possibly shaded) backdrop, in noise units; large is surely product. */
  residual: Float32Array;
  model: BackgroundModel;
}

export interface SegmentOptions {
  /** Keep openings inside the product through which the backdrop shows. */
  holes: boolean;
  /** Treat soft shadows on the backdrop as backdrop. */
  shadows: boolean;
}

/** How dark a shadow may make the backdrop, as a factor on OKLab lightness (its cube is the factor on light). */
const DARKEST_SHADE = 0.4;
/** The same where no soft slope leads from the open backdrop to the dark place. */
const DARKEST_HARD_SHADE = 0.62;
/** Steepest lightness step from pixel to pixel that a shadow's slope may have. */
const SOFT_STEP = 0.045;

/**
 * Product against backdrop on a reduced picture: backdrop surface from the border, colour models of both
 * sides, minimum cut, then holes and specks. After Rother et al. 2004 ("GrabCut"), with the backdrop's place
 * dependent model in the stead of a user's rectangle.
 * @param lab OKLab floats, 3 a pixel
 */
export function segment(
  lab: Float32Array,
  width: number,
  height: number,
  options: SegmentOptions,
): Segmentation {
  const n = width * height;
  const border = borderStrip(width, height);
  const edge = edgeStrength(lab, width, height);
  let model = fitBackground(lab, border, width, height, 6);
  let residual = backdropResidual(lab, width, height, model, edge, options.shadows);
  let product: Uint8Array = Uint8Array.from(residual, (r) => (r > 4 ? 1 : 0));

  const weights = smoothness(lab, width, height);
  for (let round = 0; round < 3; round++) {
    const surelyProduct = new Uint8Array(n);
    const surelyBackdrop = new Uint8Array(n);
    const inner = grow(product, width, height, -1.5);
    const outer = grow(product, width, height, round === 0 ? 3 : 5);
    for (let i = 0; i < n; i++) {
      surelyProduct[i] = inner[i] && residual[i] > 3 ? 1 : 0;
      surelyBackdrop[i] = outer[i] ? 0 : 1;
    }
    const foreground = fitColourModel(lab, surelyProduct, 6);
    if (!foreground) return { product: new Uint8Array(n), residual, model };
    if (round > 0) {
      let backdropCount = 0;
      for (let i = 0; i < n; i++) backdropCount += surelyBackdrop[i];
      if (backdropCount > n * 0.04) {
        model = fitBackground(lab, surelyBackdrop, width, height, 10);
        residual = backdropResidual(lab, width, height, model, edge, options.shadows);
      }
    }
    product = cut(lab, width, height, residual, model, foreground, weights);
    product = tidy(product, residual, lab, width, height, model, options.holes);
  }
  return { product, residual, model };
}

function borderStrip(width: number, height: number): Uint8Array {
  const strip = new Uint8Array(width * height);
  const depth = Math.max(1, Math.round(Math.min(width, height) * 0.04));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (x < depth || y < depth || x >= width - depth || y >= height - depth) strip[y * width + x] = 1;
  return strip;
}

/** Lightness step across each pixel, the larger of the two ways. */
function edgeStrength(lab: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const across = lab[(x < width - 1 ? i + 1 : i) * 3] - lab[(x > 0 ? i - 1 : i) * 3];
      const along = lab[(i + down) * 3] - lab[(i + up) * 3];
      out[i] = Math.max(Math.abs(across), Math.abs(along));
    }
  }
  return out;
}

/**
 * Distance of each pixel to the backdrop in noise units. A shadow scales linear light, hence all three OKLab
 * values by one factor (its cube root): with `shadows`, the nearest shade of the backdrop counts. Shadows on
 * paper have slopes, product parts have edges: where a chain of small steps leads from the open backdrop to a
 * dark place, its shade is cheap; where only a hard edge does, it costs by its depth and hardness.
 */
function backdropResidual(
  lab: Float32Array,
  width: number,
  height: number,
  model: BackgroundModel,
  edge: Float32Array,
  shadows: boolean,
): Float32Array {
  const n = width * height;
  const out = new Float32Array(n);
  const deep = new Float32Array(n);
  const shade = new Float32Array(n);
  const b = new Float64Array(3);
  // Lightness varies more than hue across a sweep, so it counts less.
  const sl = Math.max(model.sigma[0], 0.006) * 1.6;
  const sa = Math.max(model.sigma[1], 0.0035);
  const sb = Math.max(model.sigma[2], 0.0035);
  const distance = (j: number, t: number): number => {
    // In shade the light from the surroundings has a colour of its own: a little more room.
    const room = 1 + Math.max(0, 1 - t);
    const dl = (lab[j] - t * b[0]) / sl;
    const da = (lab[j + 1] - t * b[1]) / (sa * room);
    const db = (lab[j + 2] - t * b[2]) / (sb * room);
    return Math.sqrt(dl * dl + da * da + db * db);
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const j = i * 3;
      model.at(x, y, b);
      if (!shadows) {
        out[i] = distance(j, 1);
        continue;
      }
      const nearest =
        (lab[j] * b[0] + lab[j + 1] * b[1] + lab[j + 2] * b[2]) / (b[0] * b[0] + b[1] * b[1] + b[2] * b[2]);
      const t = Math.min(1.02, Math.max(DARKEST_SHADE, nearest));
      deep[i] = distance(j, t);
      shade[i] = t;
      const hard = Math.max(DARKEST_HARD_SHADE, t);
      const depth = Math.max(0, 0.97 - hard) / 0.05;
      out[i] = distance(j, hard) + depth * (0.35 + 0.6 * Math.min(3, edge[i] / 0.03));
    }
  }
  if (!shadows) return out;
  const soft = softlyReached(lab, width, height, deep, shade);
  for (let i = 0; i < n; i++)
    if (soft[i]) out[i] = Math.min(out[i], deep[i] + (Math.max(0, 0.97 - shade[i]) / 0.05) * 0.3);
  return out;
}

/** Pixels that a chain of small lightness steps joins to the open, unshaded backdrop, all of them in the backdrop's hue. */
function softlyReached(
  lab: Float32Array,
  width: number,
  height: number,
  deep: Float32Array,
  shade: Float32Array,
): Uint8Array {
  const n = width * height;
  const reached = new Uint8Array(n);
  const stack = new Int32Array(n);
  let top = 0;
  for (let i = 0; i < n; i++) {
    if (shade[i] > 0.95 && deep[i] < 3) {
      reached[i] = 1;
      stack[top++] = i;
    }
  }
  while (top > 0) {
    const p = stack[--top];
    const x = p % width;
    for (let d = 0; d < 4; d++) {
      if ((d === 0 && x === 0) || (d === 1 && x === width - 1)) continue;
      const q = p + (d === 0 ? -1 : d === 1 ? 1 : d === 2 ? -width : width);
      if (q < 0 || q >= n || reached[q] || deep[q] > 3.5) continue;
      if (Math.abs(lab[q * 3] - lab[p * 3]) > SOFT_STEP) continue;
      reached[q] = 1;
      stack[top++] = q;
    }
  }
  return reached;
}

/** Price of separating neighbours: high within even areas, low across contrast. */
function smoothness(lab: Float32Array, width: number, height: number): Float32Array[] {
  const n = width * height;
  let sum = 0;
  let count = 0;
  const differences = [
    [1, 0],
    [0, 1],
    [1, 1],
    [-1, 1],
  ].map(([dx, dy]) => {
    const plane = new Float32Array(n);
    for (let y = 0; y < height - dy; y++) {
      for (let x = Math.max(0, -dx); x < width - Math.max(0, dx); x++) {
        const i = y * width + x;
        const a = i * 3;
        const b = (i + dy * width + dx) * 3;
        const d0 = lab[a] - lab[b];
        const d1 = lab[a + 1] - lab[b + 1];
        const d2 = lab[a + 2] - lab[b + 2];
        const d = d0 * d0 + 2 * (d1 * d1 + d2 * d2);
        plane[i] = d;
        sum += d;
      }
    }
    count += n;
    return plane;
  });
  const beta = 1 / (2 * Math.max(2e-5, sum / count));
  const strength = 3.2;
  return differences.map((plane, k) => {
    const reach = k < 2 ? strength : strength / Math.SQRT2;
    return plane.map((d) => reach * Math.exp(-beta * d) + 0.05);
  });
}

function cut(
  lab: Float32Array,
  width: number,
  height: number,
  residual: Float32Array,
  model: BackgroundModel,
  foreground: ColourModel,
  weights: Float32Array[],
): Uint8Array {
  const n = width * height;
  const source = new Float32Array(n);
  const sink = new Float32Array(n);
  const logNoise = Math.log(model.sigma[0] * model.sigma[1] * model.sigma[2] * 8);
  for (let i = 0; i < n; i++) {
    const r = residual[i];
    const j = i * 3;
    const asBackdrop = 0.5 * r * r + logNoise;
    const asProduct = foreground.cost(lab[j], lab[j + 1], lab[j + 2]);
    // Far from the backdrop nothing argues for it; near it, the product's own colours may still win.
    const lean = Math.max(-9, Math.min(9, (asBackdrop - asProduct) * 0.35 + (r - 3.2) * 0.9));
    if (lean > 0) source[i] = lean;
    else sink[i] = -lean;
  }
  const [east, south, southEast, southWest] = weights;
  return minCut({
    width,
    height,
    sourceCapacity: source,
    sinkCapacity: sink,
    east,
    south,
    southEast,
    southWest,
  });
}

/**
 * Drops specks, and fills enclosed openings that are highlights and not holes: a hole shows the backdrop at
 * about its own colour and evenness, a highlight on a curved glaze does not.
 */
function tidy(
  product: Uint8Array,
  residual: Float32Array,
  lab: Float32Array,
  width: number,
  height: number,
  model: BackgroundModel,
  holes: boolean,
): Uint8Array {
  const n = product.length;
  const out = Uint8Array.from(product);
  const { labels, list } = components(product, width, height);
  const largest = list.reduce((m, c) => Math.max(m, c.area), 0);
  for (let i = 0; i < n; i++) if (labels[i] && list[labels[i] - 1].area < largest * 0.004) out[i] = 0;

  const outside = components(
    out.map((v) => (v ? 0 : 1)),
    width,
    height,
  );
  const b = new Float64Array(3);
  const stats = outside.list.map(() => ({ n: 0, residual: 0, l: 0, l2: 0 }));
  for (let i = 0; i < n; i++) {
    const label = outside.labels[i];
    if (!label || outside.list[label - 1].touchesBorder) continue;
    const s = stats[label - 1];
    model.at(i % width, Math.floor(i / width), b);
    const ratio = lab[i * 3] / b[0];
    s.n++;
    s.residual += residual[i];
    s.l += ratio;
    s.l2 += ratio * ratio;
  }
  const minimum = Math.max(6, n * 0.00003);
  const real = stats.map((s) => {
    if (!holes || s.n < minimum) return false;
    const mean = s.l / s.n;
    const spread = Math.sqrt(Math.max(0, s.l2 / s.n - mean * mean));
    return s.residual / s.n < 5 && spread < 0.1 && mean > 0.45;
  });
  for (let i = 0; i < n; i++) {
    const label = outside.labels[i];
    if (label && !outside.list[label - 1].touchesBorder && !real[label - 1]) out[i] = 1;
  }
  return out;
}
