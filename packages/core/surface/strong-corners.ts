import { blur } from '../raster/blur';
import { createPlane, type Plane } from '../raster/pixels';
import type { Pair } from './homography';

/** A corner of what a picture shows. */
export interface Corner {
  at: Pair;
  /** 0..1: how strong it is against the strongest. */
  strength: number;
}

/** Brightness changes are gathered over so many pixels. */
const SIGMA = 1.5;
/** Corners weaker than this share of the strongest are noise. */
const WEAKEST = 0.01;

/**
 * The places of a picture at which it changes in two directions, strongest first (Shi and Tomasi 1994, "Good features to
 * track": the smaller eigenvalue of the structure tensor), each drawn to where the edges about it meet (Forstner and
 * Gulch 1987, "A fast operator for detection and precise location of distinct points").
 * @param apart no two lie closer than this, in pixels
 * @param most so many at most
 */
export function strongCorners(luma: Plane, { apart = 8, most = 400 } = {}): Corner[] {
  const { width, height } = luma;
  const strength = cornerStrength(luma);
  const found: { i: number; value: number }[] = [];
  let top = 0;
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      const value = strength.data[i];
      top = Math.max(top, value);
      if (value > 0 && isPeak(strength, x, y)) found.push({ i, value });
    }
  found.sort((a, b) => b.value - a.value);
  const kept: Corner[] = [];
  for (const { i, value } of found) {
    if (kept.length >= most || value < top * WEAKEST) break;
    const at = whereEdgesMeet(luma, i);
    if (kept.every((c) => Math.hypot(c.at[0] - at[0], c.at[1] - at[1]) >= apart))
      kept.push({ at, strength: value / top });
  }
  return kept;
}

/** The corner nearest to a place, within so many pixels; null where there is none. */
export function nearestCorner(corners: readonly Corner[], [x, y]: Pair, within: number): Pair | null {
  let best: Pair | null = null;
  let least = within;
  for (const { at } of corners) {
    const d = Math.hypot(at[0] - x, at[1] - y);
    if (d <= least) [best, least] = [at, d];
  }
  return best;
}

function cornerStrength({ width, height, data }: Plane): Plane {
  const [xx, xy, yy] = [0, 1, 2].map(() => createPlane(width, height));
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const [dx, dy] = [data[i + 1] - data[i - 1], data[i + width] - data[i - width]];
      xx.data[i] = dx * dx;
      xy.data[i] = dx * dy;
      yy.data[i] = dy * dy;
    }
  const [a, b, c] = [xx, xy, yy].map((plane) => blur(plane, SIGMA).data);
  const out = createPlane(width, height);
  for (let i = 0; i < out.data.length; i++)
    out.data[i] = (a[i] + c[i]) / 2 - Math.sqrt(((a[i] - c[i]) / 2) ** 2 + b[i] * b[i]);
  return out;
}

function isPeak({ width, data }: Plane, x: number, y: number): boolean {
  const i = y * width + x;
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const j = i + dy * width + dx;
      // Of equals the first one counts.
      if (j !== i && (data[j] > data[i] || (data[j] === data[i] && j < i))) return false;
    }
  return true;
}

/** The window about a corner whose edges are made to meet, and how far that may move it; pixels. */
const WINDOW = 4;
const FARTHEST = 4;

/** The place to which the brightness changes about a pixel all stand at right angles; pixel middles lie at .5. */
function whereEdgesMeet({ width, height, data }: Plane, i: number): Pair {
  const [x0, y0] = [i % width, Math.floor(i / width)];
  let [x, y] = [x0, y0];
  for (let round = 0; round < 3; round++) {
    let [a, b, c, p, q] = [0, 0, 0, 0, 0];
    for (let dy = -WINDOW; dy <= WINDOW; dy++)
      for (let dx = -WINDOW; dx <= WINDOW; dx++) {
        const [px, py] = [Math.round(x) + dx, Math.round(y) + dy];
        if (px < 1 || py < 1 || px >= width - 1 || py >= height - 1) continue;
        const j = py * width + px;
        const [gx, gy] = [data[j + 1] - data[j - 1], data[j + width] - data[j - width]];
        a += gx * gx;
        b += gx * gy;
        c += gy * gy;
        p += gx * gx * px + gx * gy * py;
        q += gx * gy * px + gy * gy * py;
      }
    const det = a * c - b * b;
    if (!(det > 1e-9 * (a + c) ** 2)) break;
    const [nx, ny] = [(c * p - b * q) / det, (a * q - b * p) / det];
    if (Math.hypot(nx - x0, ny - y0) > FARTHEST) break;
    [x, y] = [nx, ny];
  }
  return [x + 0.5, y + 0.5];
}
