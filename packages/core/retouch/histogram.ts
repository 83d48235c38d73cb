import type { Rgba } from '../raster/pixels';

export interface Histogram {
  /** Shares of the pixels, 64 bins a channel from dark to light, the fullest bin of all channels being 1. */
  red: number[];
  green: number[];
  blue: number[];
  /** Share of pixels with a channel at its darkest or at its lightest value. */
  clippedDark: number;
  clippedLight: number;
}

/** Counts a picture's values; clear pixels are left out. */
export function histogram(image: Rgba): Histogram {
  const bins = [0, 1, 2].map(() => new Array<number>(64).fill(0));
  let dark = 0;
  let light = 0;
  let n = 0;
  for (let j = 0; j < image.data.length; j += 4) {
    if (image.data[j + 3] < 128) continue;
    n++;
    let low = false;
    let high = false;
    for (let c = 0; c < 3; c++) {
      const v = image.data[j + c];
      bins[c][v >> 2]++;
      if (v === 0) low = true;
      if (v === 255) high = true;
    }
    if (low) dark++;
    if (high) light++;
  }
  const most = Math.max(1, ...bins.flat());
  const [red, green, blue] = bins.map((b) => b.map((v) => v / most));
  return { red, green, blue, clippedDark: n ? dark / n : 0, clippedLight: n ? light / n : 0 };
}
