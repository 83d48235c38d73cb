import type { Plane, Rgba } from '../raster/pixels';
import type { Point } from './recipe';

/** What an edge costs more where the model is sure that it is not the outer one. */
const INNER = 0.6;

/**
 * What it costs to pass each pixel: little on strong edges, much on even ground; 0.02..1. Where the model's
 * probabilities are given, edges inside the product and in the backdrop cost more than the outer edge.
 */
export function edgeCost(image: Rgba, shape: Plane | null = null): Float32Array {
  const { width, height, data } = image;
  const out = new Float32Array(width * height).fill(1);
  let most = 1;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      let strongest = 0;
      for (let c = 0; c < 3; c++) {
        const at = (q: number) => data[q * 4 + c];
        const gx =
          at(i - width + 1) + 2 * at(i + 1) + at(i + width + 1) - at(i - width - 1) - 2 * at(i - 1) - at(i + width - 1); // prettier-ignore
        const gy =
          at(i + width - 1) + 2 * at(i + width) + at(i + width + 1) - at(i - width - 1) - 2 * at(i - width) - at(i - width + 1); // prettier-ignore
        strongest = Math.max(strongest, Math.hypot(gx, gy));
      }
      out[i] = strongest;
      if (strongest > most) most = strongest;
    }
  }
  const full = Math.min(most, 420);
  for (let i = 0; i < out.length; i++) {
    let cost = (1 - Math.min(1, out[i] / full)) ** 2;
    if (shape) {
      const p = shape.data[i];
      cost = Math.min(1, cost + INNER * (1 - 4 * p * (1 - p)));
    }
    out[i] = 0.02 + 0.98 * cost;
  }
  return out;
}

/**
 * The path that follows the strongest edges from point to point and back to the first: the cheapest way over
 * the edge costs between neighbours (Mortensen and Barrett 1995, "Intelligent scissors", by Dijkstra's
 * algorithm), looked for in a corridor around the straight line, so that a gap in an edge is bridged and not run
 * around. Points outside the picture are held inside.
 * @param points in pixels of the picture the costs are of; `closed` leads the path back to the first of them
 */
export function traceEdge(
  cost: Float32Array,
  width: number,
  height: number,
  points: readonly Point[],
  closed = true,
): Point[] {
  const held = points.map(([x, y]): Point => [
    Math.min(width - 1, Math.max(0, Math.round(x - 0.5))),
    Math.min(height - 1, Math.max(0, Math.round(y - 0.5))),
  ]);
  return (closed ? held : held.slice(0, -1)).flatMap((from, i) => {
    const path = cheapestPath(cost, width, height, from, held[(i + 1) % held.length]);
    return path.slice(0, -1).map(([x, y]): Point => [x + 0.5, y + 0.5]);
  });
}

function cheapestPath(cost: Float32Array, width: number, height: number, a: Point, b: Point): Point[] {
  const span = Math.hypot(a[0] - b[0], a[1] - b[1]);
  const margin = Math.ceil(8 + span * 0.35);
  const x0 = Math.max(0, Math.min(a[0], b[0]) - margin);
  const x1 = Math.min(width - 1, Math.max(a[0], b[0]) + margin);
  const y0 = Math.max(0, Math.min(a[1], b[1]) - margin);
  const y1 = Math.min(height - 1, Math.max(a[1], b[1]) + margin);
  const w = x1 - x0 + 1;
  const h = y1 - y0 + 1;
  const distance = new Float32Array(w * h).fill(Infinity);
  const came = new Int32Array(w * h).fill(-1);
  const done = new Uint8Array(w * h);
  const start = (a[1] - y0) * w + a[0] - x0;
  const goal = (b[1] - y0) * w + b[0] - x0;
  // Costs are small and bounded: a circle of buckets holds the front (Dial 1969).
  const UNIT = 0.01;
  const buckets: number[][] = Array.from({ length: 256 }, () => []);
  distance[start] = 0;
  buckets[0].push(start);
  for (let at = 0, idle = 0; idle < buckets.length; at++) {
    const bucket = buckets[at % buckets.length];
    if (!bucket.length) {
      idle++;
      continue;
    }
    idle = 0;
    while (bucket.length) {
      const p = bucket.pop()!;
      if (done[p]) continue;
      done[p] = 1;
      if (p === goal) return walkBack(came, goal, start, w, x0, y0);
      const px = p % w;
      const py = (p - px) / w;
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const [x, y] = [px + dx, py + dy];
          if ((!dx && !dy) || x < 0 || y < 0 || x >= w || y >= h) continue;
          const q = y * w + x;
          if (done[q]) continue;
          const next = distance[p] + cost[(y + y0) * width + x + x0] * (dx && dy ? Math.SQRT2 : 1);
          if (next >= distance[q]) continue;
          distance[q] = next;
          came[q] = p;
          buckets[Math.floor(next / UNIT) % buckets.length].push(q);
        }
    }
  }
  return [a, b];
}

function walkBack(came: Int32Array, goal: number, start: number, w: number, x0: number, y0: number): Point[] {
  const path: Point[] = [];
  for (let p = goal; p >= 0; p = p === start ? -1 : came[p])
    path.push([(p % w) + x0, Math.floor(p / w) + y0]);
  return path.reverse();
}
