import { squaredDistance } from '../raster/distance';
import type { Rgba } from '../raster/pixels';

/** The rim that a mark's border is grown by where it still holds something of what is to go; pixels. */
const MIXED = 2;
/** Pixels beside a mark that differ so many times more from those farther out than these do among themselves are mixed. */
const UNLIKE = 1.5;
/** Distances from the mark that are compared: beside it, farther out, and farther out again. */
const RINGS = [1, 4, 7];

/**
 * How far a mark has to be grown: its border may hold a mixture of what is to go and what stays (a soft edge, a lens, a
 * compression), or be exact, so that what lies beside it is as good as all else.
 * @param marked 1 where something is to go, at the picture's size
 */
export function rimOf({ width, height, data }: Rgba, marked: Uint8Array): number {
  const away = squaredDistance(marked, width, height);
  const grey = (i: number) => 0.299 * data[i * 4] + 0.587 * data[i * 4 + 1] + 0.114 * data[i * 4 + 2];
  let [beside, beyond, count] = [0, 0, 0];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const far = Math.sqrt(away[i]);
      if (marked[i] || Math.round(far) !== RINGS[0]) continue;
      // Outward: the way in which the distance grows.
      const [gx, gy] = [away[i + 1] - away[i - 1], away[i + width] - away[i - width]];
      const long = Math.hypot(gx, gy) || 1;
      const out = RINGS.map((ring) => {
        const px = Math.round(x + (gx / long) * (ring - RINGS[0]));
        const py = Math.round(y + (gy / long) * (ring - RINGS[0]));
        return px >= 0 && py >= 0 && px < width && py < height ? py * width + px : -1;
      });
      if (out.some((j) => j < 0 || marked[j])) continue;
      const [a, b, c] = out.map(grey);
      beside += Math.abs(a - b);
      beyond += Math.abs(b - c);
      count++;
    }
  // An even ground has nothing to compare with: a level and a half is its grain.
  return count && beside > UNLIKE * Math.max(beyond, 1.5 * count) ? MIXED : 0;
}
