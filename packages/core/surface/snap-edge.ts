import { samplePlane } from '../raster/resample';
import type { Plane } from '../raster/pixels';
import type { Pair } from './homography';

/** Places tried to either side of an edge's point. */
const STEPS = 16;
/** What a step from one point to the next costs, against the strength of the strongest change. */
const BENDING = 0.08;
/** What lying as far off as is looked costs, against the same: where nothing much changes a point stays. */
const LEAVING = 0.15;
/** A change of so many levels of 0..255 is an edge; less is grain. */
const VISIBLE = 8;

/**
 * An area's edge drawn to what the picture shows beside it: every point but the first and the last moves across the
 * edge to where the picture changes most, neighbours staying together (dynamic programming over offsets; Amini, Weymouth
 * and Jain 1990, "Using dynamic programming for solving variational problems in vision"). An edge beside which nothing
 * changes stays as it is.
 * @param luma the picture's brightness, 0..255
 * @param reach how far to either side it is looked, in pixels
 */
export function snapEdge(luma: Plane, edge: readonly Pair[], reach: number): Pair[] {
  const last = edge.length - 1;
  const normals = edge.map((_, i): Pair => {
    const [a, b] = [edge[Math.max(0, i - 1)], edge[Math.min(last, i + 1)]];
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [-(b[1] - a[1]) / long, (b[0] - a[0]) / long];
  });
  const offsets = Array.from({ length: 2 * STEPS + 1 }, (_, k) => ((k - STEPS) / STEPS) * reach);
  const changes = edge.map((at, i) =>
    offsets.map((offset) => Math.abs(acrossAt(luma, edge, i, at, normals[i], offset))),
  );
  const most = Math.max(...changes.slice(1, last).flat());
  if (!(most > VISIBLE)) return [...edge];
  const chosen = smoothest(changes, most);
  return edge.map(([x, y], i): Pair => {
    if (i === 0 || i === last) return [x, y];
    const offset = offsets[chosen[i]];
    return [x + normals[i][0] * offset, y + normals[i][1] * offset];
  });
}

/** How much brighter one side of a place is than the other, along a short stretch of the edge. */
function acrossAt(
  luma: Plane,
  edge: readonly Pair[],
  i: number,
  [x, y]: Pair,
  [nx, ny]: Pair,
  offset: number,
): number {
  const next = edge[Math.min(edge.length - 1, i + 1)];
  const before = edge[Math.max(0, i - 1)];
  const [tx, ty] = [(next[0] - before[0]) / 16, (next[1] - before[1]) / 16];
  let sum = 0;
  for (let s = -2; s <= 2; s++) {
    const [px, py] = [x + nx * offset + tx * s - 0.5, y + ny * offset + ty * s - 0.5];
    sum += samplePlane(luma, px + nx * 1.5, py + ny * 1.5) - samplePlane(luma, px - nx * 1.5, py - ny * 1.5);
  }
  return sum / 5;
}

/** For every point the number of its offset, so that changes are strong and offsets change little from point to point. */
function smoothest(changes: readonly (readonly number[])[], most: number): number[] {
  const last = changes.length - 1;
  const count = changes[0].length;
  const middle = (count - 1) / 2;
  const step = (a: number, b: number) => BENDING * most * ((a - b) / (count / 8)) ** 2;
  // The ends are held: a corner is where it was put.
  let costs: number[] = Array.from({ length: count }, (_, k) => (k === middle ? 0 : Infinity));
  const from: number[][] = [];
  for (let i = 1; i <= last; i++) {
    const back: number[] = [];
    const next = Array.from({ length: count }, (_, k) => {
      let best = 0;
      let least = Infinity;
      for (let j = 0; j < count; j++) {
        const cost = costs[j] + step(j, k);
        if (cost < least) [best, least] = [j, cost];
      }
      back.push(best);
      if (i === last) return k === middle ? least : Infinity;
      return least - changes[i][k] + LEAVING * most * ((k - middle) / middle) ** 2;
    });
    from.push(back);
    costs = next;
  }
  const chosen = new Array<number>(changes.length).fill(middle);
  let at = middle;
  for (let i = last; i > 0; i--) {
    chosen[i] = at;
    at = from[i - 1][at];
  }
  return chosen;
}
