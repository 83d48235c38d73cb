import type { Plane } from '../raster/pixels';
import type { ProductBase } from './base';

/** One level of a body: an interval across, swept to a shape as deep as the body is there. Millimetres. */
export interface Layer {
  z: number;
  left: number;
  right: number;
  halfDepth: number;
  /** The share of the light that it keeps; all of it where left out. */
  opacity?: number;
}

/** A box that stands turned: by how much (radians from the right, away), and its half sides as shares of a level's half width. */
export interface Turn {
  angle: number;
  along: number;
  across: number;
}

/**
 * A product as a stack of thin levels, made from its silhouette: x to the right of the base's middle, y away from
 * the camera, z up. `round` levels are ellipses, others rectangles,
 * which may be turned.
 */
export interface Body {
  layers: Layer[];
  /** Levels that are seen through, as glass is: they throw shadows and are nothing else. */
  clear?: Layer[];
  round: boolean;
  /** For a box that is seen over a corner. */
  turn: Turn | null;
  height: number;
  /** The base that touches the plane. */
  foot: { halfWidth: number; halfDepth: number };
}

/** Levels into which a body is cut. */
const LEVELS = 56;
/** What covers less is no part of a product; what covers more is all there. */
const CLEAR = 0.06;
const SOLID = 0.9;

/**
 * The body behind a silhouette: each row above the base's middle is a level at its real height (the camera looked
 * down by the base's pitch), as deep for its width as the whole is. What lies below the base's middle is the
 * base's front, what lies above the real height is the top's far rim; neither is height.
 * @param alpha the cutout's matte 0..1, trimmed, any size
 * @param pxPerMm pixels of `alpha` a millimetre
 * @param depthMm the product's real depth; null takes the base's
 */
export function bodyOf(
  alpha: Plane,
  base: ProductBase,
  pxPerMm: number,
  depthMm: number | null,
  pitchDeg = base.pitchDeg,
): Body {
  const { width: w, height: h, data } = alpha;
  const pitch = (pitchDeg * Math.PI) / 180;
  const [sin, cos] = [Math.sin(pitch), Math.max(0.2, Math.cos(pitch))];
  const middle = base.x * w;
  const foot = base.y * w;
  const height = Math.max(0.5, (foot - base.topDepth * w) / (pxPerMm * cos));
  const rows: { z: number; runs: [number, number, number][]; clear: [number, number, number] | null }[] = [];
  const step = height / LEVELS;
  let widest = 0;
  for (let level = 0; level <= LEVELS; level++) {
    const z = level * step;
    const y = Math.min(h - 1, Math.max(0, Math.round(foot - z * pxPerMm * cos)));
    const row = data.subarray(y * w, (y + 1) * w);
    const mm = ([from, to, opacity]: [number, number, number]): [number, number, number] => [
      (from - middle) / pxPerMm,
      (to - middle) / pxPerMm,
      opacity,
    ];
    const runs = solidRuns(row).map(mm);
    const glass = clearRun(row);
    for (const [a, b] of runs) widest = Math.max(widest, b - a);
    rows.push({ z, runs, clear: glass && mm(glass) });
  }
  const footWidth = (base.halfWidth * w) / pxPerMm;
  const seenDepth = sin > 0.06 ? (base.halfDepth * w) / (pxPerMm * sin) : 0;
  const turn = turnOf(base);
  const deep = turn
    ? 2 * seenDepth
    : (depthMm ?? (seenDepth > footWidth * 0.15 ? 2 * Math.min(seenDepth, footWidth * 1.6) : widest));
  const share = widest > 0 ? Math.min(1.6, deep / widest) : 1;
  // A straight lower edge under a camera that looks down is the front of a box.
  const round = !turn && !(base.confidence > 0.5 && sin < 0.06 && base.halfDepth < 0.012);
  return {
    round,
    turn,
    height,
    foot: {
      halfWidth: footWidth,
      halfDepth: seenDepth > footWidth * 0.15 ? Math.min(seenDepth, footWidth * 1.6) : footWidth * share,
    },
    layers: rows.flatMap(({ z, runs }) => runs.map((run) => levelOf(z, run, share))),
    clear: rows.flatMap(({ z, clear }) => (clear ? [levelOf(z, clear, share)] : [])),
  };
}

function levelOf(z: number, [left, right, opacity]: [number, number, number], share: number): Layer {
  return { z, left, right, halfDepth: ((right - left) / 2) * share, ...(opacity < SOLID && { opacity }) };
}

/** From where to where a row of a matte is more there than not, and how much of it is there away from its ends. */
function solidRuns(row: Float32Array): [number, number, number][] {
  const runs: [number, number, number][] = [];
  for (let x = 0, start = -1; x <= row.length; x++) {
    const inside = x < row.length && row[x] > 0.5;
    if (inside && start < 0) start = x;
    if (inside || start < 0) continue;
    runs.push([start, x, x - start > 4 ? meanOf(row.subarray(start + 2, x - 2)) : 1]);
    start = -1;
  }
  return runs;
}

/** The whole of a row that is largely seen through, and what its clear part keeps of the light; null for any other. */
function clearRun(row: Float32Array): [number, number, number] | null {
  const clear = row.filter((v) => v > CLEAR && v <= 0.5);
  if (clear.length < row.length * 0.08) return null;
  const from = row.findIndex((v) => v > CLEAR);
  const to = row.findLastIndex((v) => v > CLEAR) + 1;
  return clear.length < (to - from) * 0.2 ? null : [from, to, meanOf(clear)];
}

const meanOf = (values: Float32Array) => values.reduce((sum, v) => sum + v, 0) / values.length;

/** How a base that is seen over a corner is turned, and its sides; null for all others. */
function turnOf({ corner, x, halfWidth, pitchDeg }: ProductBase): Turn | null {
  if (!corner) return null;
  const sine = Math.max(0.05, Math.sin((pitchDeg * Math.PI) / 180));
  const angle = Math.atan2(corner.right, sine);
  const [cos, sin] = [Math.max(0.05, Math.cos(angle)), Math.max(0.05, Math.sin(angle))];
  return {
    angle,
    along: (x + halfWidth - corner.x) / cos / 2 / halfWidth,
    across: (corner.x - x + halfWidth) / sin / 2 / halfWidth,
  };
}

/**
 * Where a level reaches from and to along a line across it at `y` from its middle; null where the line misses it.
 * @returns from and to, from the level's middle
 */
export function spanAt(
  body: Pick<Body, 'round' | 'turn'>,
  layer: Layer,
  y: number,
  least = 0,
): [number, number] | null {
  const half = (layer.right - layer.left) / 2;
  const { turn } = body;
  if (turn) {
    const [cos, sin] = [Math.cos(turn.angle), Math.sin(turn.angle)];
    const a = Math.max(least, turn.along * half);
    const b = Math.max(least, turn.across * half);
    // Between two pairs of parallel sides.
    const first: [number, number] = [(-a - y * sin) / cos, (a - y * sin) / cos];
    const second: [number, number] = [(y * cos - b) / sin, (y * cos + b) / sin];
    const from = Math.max(first[0], second[0]);
    const to = Math.min(first[1], second[1]);
    return to > from ? [from, to] : null;
  }
  const t = y / Math.max(layer.halfDepth, least, 1e-9);
  if (Math.abs(t) > 1) return null;
  const reach = body.round ? half * Math.sqrt(1 - t * t) : half;
  return [-reach, reach];
}

/** Whether a place lies within a level; from the level's middle. */
export function isWithin(body: Pick<Body, 'round' | 'turn'>, layer: Layer, x: number, y: number): boolean {
  const span = spanAt(body, layer, y, 0.5);
  return span !== null && x >= span[0] && x <= span[1];
}

/** The same body in other units: every length times `k`. */
export function scaledBody(body: Body, k: number): Body {
  if (Math.abs(k - 1) < 1e-6) return body;
  const scaled = (l: Layer): Layer => ({
    ...l,
    z: l.z * k,
    left: l.left * k,
    right: l.right * k,
    halfDepth: l.halfDepth * k,
  });
  return {
    ...body,
    height: body.height * k,
    foot: { halfWidth: body.foot.halfWidth * k, halfDepth: body.foot.halfDepth * k },
    layers: body.layers.map(scaled),
    clear: body.clear?.map(scaled),
  };
}

/** A box, for what is known by its measures alone. */
export function boxBody(width: number, height: number, depth: number): Body {
  return {
    round: false,
    turn: null,
    height,
    foot: { halfWidth: width / 2, halfDepth: depth / 2 },
    layers: Array.from({ length: LEVELS + 1 }, (_, i) => ({
      z: (i * height) / LEVELS,
      left: -width / 2,
      right: width / 2,
      halfDepth: depth / 2,
    })),
  };
}
