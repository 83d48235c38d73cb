import { differenceCiede2000 } from 'culori';
import type { Plane, Rgba } from '../raster/pixels';

export interface Fringe {
  /** Mean and worst difference on either ground, delta E 2000. */
  white: { mean: number; worst: number };
  black: { mean: number; worst: number };
  /** Around the product from the top clockwise, the larger of both grounds, 64 values (0 where there is no edge). */
  around: number[];
  /** The worst place, in pixels of the picture, or null when there is no edge. */
  worstAt: { x: number; y: number } | null;
}

const difference = differenceCiede2000();
const STEP = 2;

/**
 * How far the colours along the edge differ from the product's own just inside, as they are seen: each edge pixel
 * is laid on white and on black with its own colour and with the colour found a few pixels further in, and the
 * two are compared (CIEDE2000, Sharma, Wu and Dalal 2005). Nothing but fringe makes them differ.
 * @param colours the cutout's colours; `alpha` its matte, same size
 */
export function measureFringe(colours: Rgba, alpha: Plane): Fringe {
  const { width, height, data } = alpha;
  const places: { x: number; y: number; white: number; black: number }[] = [];
  const edge: number[] = [];
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const a = data[y * width + x];
      if (a > 0.1 && a < 0.9) edge.push(y * width + x);
    }
  const stride = Math.max(1, Math.floor(edge.length / 3000));
  for (let k = 0; k < edge.length; k += stride) {
    const p = edge[k];
    const x = p % width;
    const y = (p - x) / width;
    let gx = 0;
    let gy = 0;
    for (let d = -STEP; d <= STEP; d++) {
      gx += data[p + d * width + STEP] - data[p + d * width - STEP];
      gy += data[p + STEP * width + d] - data[p - STEP * width + d];
    }
    const length = Math.hypot(gx, gy);
    if (length < 0.2) continue;
    const inner = ownColour(colours, alpha, x, y, gx / length, gy / length);
    if (!inner) continue;
    const a = data[p];
    const own = [0, 1, 2].map((c) => colours.data[p * 4 + c]);
    const on = (ground: number) => difference(laid(own, a, ground), laid(inner, a, ground));
    places.push({ x, y, white: on(255), black: on(0) });
  }
  const around = new Array<number>(64).fill(0);
  if (!places.length)
    return { white: { mean: 0, worst: 0 }, black: { mean: 0, worst: 0 }, around, worstAt: null };
  const mean = (pick: (p: (typeof places)[number]) => number) =>
    places.reduce((s, p) => s + pick(p), 0) / places.length;
  const most = (pick: (p: (typeof places)[number]) => number) =>
    places.reduce((m, p) => Math.max(m, pick(p)), 0);
  const cx = mean((p) => p.x);
  const cy = mean((p) => p.y);
  const counts = new Array<number>(64).fill(0);
  let worst = places[0];
  for (const p of places) {
    const larger = Math.max(p.white, p.black);
    if (larger > Math.max(worst.white, worst.black)) worst = p;
    const turn = (Math.atan2(p.x - cx, cy - p.y) / (2 * Math.PI) + 1) % 1;
    const bin = Math.min(63, Math.floor(turn * 64));
    around[bin] += larger;
    counts[bin]++;
  }
  return {
    white: { mean: mean((p) => p.white), worst: most((p) => p.white) },
    black: { mean: mean((p) => p.black), worst: most((p) => p.black) },
    around: around.map((v, i) => (counts[i] ? v / counts[i] : 0)),
    worstAt: { x: worst.x, y: worst.y },
  };
}

function laid(colour: number[], alpha: number, ground: number) {
  const [r, g, b] = colour.map((v) => (v * alpha + ground * (1 - alpha)) / 255);
  return { mode: 'rgb' as const, r, g, b };
}

/** The product's colour a little inside an edge pixel: the first three whole pixels met going inward. */
function ownColour(
  colours: Rgba,
  alpha: Plane,
  x: number,
  y: number,
  dx: number,
  dy: number,
): number[] | null {
  const sum = [0, 0, 0];
  let n = 0;
  for (let step = 1; step <= 12 && n < 3; step++) {
    const px = Math.round(x + dx * step);
    const py = Math.round(y + dy * step);
    if (px < 0 || py < 0 || px >= alpha.width || py >= alpha.height) return null;
    const p = py * alpha.width + px;
    if (alpha.data[p] < 0.97) continue;
    for (let c = 0; c < 3; c++) sum[c] += colours.data[p * 4 + c];
    n++;
  }
  return n ? sum.map((v) => v / n) : null;
}
