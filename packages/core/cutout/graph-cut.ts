import { grow } from '../raster/distance';
import { changedPart, grownRect } from './matte-parts';
import { minCut } from './min-cut';

/** No more is ever said for or against a pixel, in log-odds: beyond it nothing could turn it. */
export const SURE_ODDS = 9;

/** What a cut was made from and what it gave, before openings and specks were seen to. */
export interface CutState {
  odds: Float32Array;
  labels: Uint8Array;
}

/** Price of separating neighbours: high within even areas, low across contrast. */
export function smoothness(lab: Float32Array, width: number, height: number): Float32Array[] {
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
  for (const [k, plane] of differences.entries()) {
    const reach = k < 2 ? strength : strength / Math.SQRT2;
    for (let i = 0; i < n; i++) plane[i] = reach * Math.exp(-beta * plane[i]) + 0.05;
  }
  return differences;
}

/** Log-odds from which on a pixel says its side firmly, and how deep among its like nothing can turn it any more. */
const FIRM = 3;
const DEEP = 4;
/** Pixels around what has changed that are cut again with it. */
const ROOM = 28;

/**
 * The minimum cut by odds and contrast. Deep inside an area that firmly says one side nothing could turn a pixel: to
 * move the outline there costs more (FIRM for each of DEEP pixels, on either side) than an outline can save, which is
 * at most what one pixel of it costs. Only the others, and a ring of the settled ones, take part.
 */
export function graphCut(
  odds: Float32Array,
  weights: Float32Array[],
  width: number,
  height: number,
  before: CutState | null,
): Uint8Array {
  const n = odds.length;
  const changed = before && changedPart(before.odds, odds, width, height, 0.05);
  if (before && !changed) return before.labels;
  const part = changed && grownRect(changed, 1, ROOM, { x: 0, y: 0, width, height });
  const settled = deepAmongLike(odds, 1, width, height);
  const against = deepAmongLike(odds, -1, width, height);
  for (let i = 0; i < n; i++) if (against[i]) settled[i] = 1;
  const last = part ? part.width - 1 : 0;
  const lowest = part ? part.height - 1 : 0;
  const source = new Float32Array(n);
  const sink = new Float32Array(n);
  const labels = new Uint8Array(n);
  const active = new Int32Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    const x = i % width;
    if (part) {
      const fromLeft = x - part.x;
      const fromTop = (i - x) / width - part.y;
      if (fromLeft < 0 || fromLeft > last || fromTop < 0 || fromTop > lowest) {
        labels[i] = before.labels[i];
        continue;
      }
      // The rim of the part holds on to what was there.
      if (!fromLeft || fromLeft === last || !fromTop || fromTop === lowest) {
        active[count++] = i;
        if (before.labels[i]) source[i] = 1e4;
        else sink[i] = 1e4;
        continue;
      }
    }
    if (settled[i]) {
      const free =
        (x > 0 && !settled[i - 1]) ||
        (x < width - 1 && !settled[i + 1]) ||
        (i >= width && !settled[i - width]) ||
        (i + width < n && !settled[i + width]);
      if (odds[i] > 0) labels[i] = 1;
      if (!free) continue;
    }
    active[count++] = i;
    if (odds[i] > 0) source[i] = settled[i] ? 1e4 : odds[i];
    else sink[i] = settled[i] ? 1e4 : -odds[i];
  }
  const [east, south, southEast, southWest] = weights;
  const chosen = minCut({
    width,
    height,
    sourceCapacity: source,
    sinkCapacity: sink,
    east,
    south,
    southEast,
    southWest,
    active: active.subarray(0, count),
  });
  for (let k = 0; k < count; k++) labels[active[k]] = chosen[active[k]];
  return labels;
}

/** Where all pixels within DEEP say `side` firmly. */
function deepAmongLike(odds: Float32Array, side: 1 | -1, width: number, height: number): Uint8Array {
  const firm = new Uint8Array(odds.length);
  for (let i = 0; i < firm.length; i++) if (odds[i] * side >= FIRM) firm[i] = 1;
  return grow(firm, width, height, -DEEP);
}
