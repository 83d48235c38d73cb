import type { PaintEnvironment } from './environment';
import { linearOf } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import type { Bounds } from '../vector/outline';

/** Relative luminance (WCAG 2.2) of a painted area, 0..1; clear ground counts as white. */
export function meanLuminance({ data }: Rgba): number {
  let sum = 0;
  const step = 4 * Math.max(1, Math.floor(data.length / 4 / 4000));
  let n = 0;
  for (let i = 0; i < data.length; i += step, n++) {
    const a = data[i + 3] / 255;
    const over = (v: number) => linearOf(v * a + 255 * (1 - a));
    sum += 0.2126 * over(data[i]) + 0.7152 * over(data[i + 1]) + 0.0722 * over(data[i + 2]);
  }
  return n ? sum / n : 1;
}

/** At this luminance black and white stand out alike. */
const MIDDLE = 0.179;

/** Whether what is painted there so far is dark, so that light signs stand out better on it. */
export function isDarkBeneath(bounds: Bounds, environment: PaintEnvironment): boolean {
  const pixels = environment.beneath(bounds);
  return pixels !== null && meanLuminance(pixels) < MIDDLE;
}
