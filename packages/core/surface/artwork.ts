import { parseHex } from '../raster/colour';
import type { Rgba } from '../raster/pixels';

/** Artwork ready to be warped: premultiplied, each level half the one before (Williams 1983, "Pyramidal parametrics"). */
export interface ArtworkLevels {
  width: number;
  height: number;
  levels: { width: number; height: number; data: Uint8ClampedArray }[];
}

/**
 * The levels of an artwork.
 * @param ink everything in this colour, where it is given
 * @param knockOut how much of white behind the design turns clear, 0..1
 */
export function artworkLevels(artwork: Rgba, ink: string | null = null, knockOut = 0): ArtworkLevels {
  const { width, height } = artwork;
  const data = new Uint8ClampedArray(artwork.data.length);
  const one = ink ? parseHex(ink) : null;
  const src = artwork.data;
  for (let j = 0; j < data.length; j += 4) {
    let a = src[j + 3] / 255;
    let [r, g, b] = [src[j], src[j + 1], src[j + 2]];
    if (knockOut > 0 && a > 0) {
      // What white paper shows through is taken away; what is left is the ink that lay on it.
      const cover = 1 - Math.min(r, g, b) / 255;
      const kept = cover + (1 - cover) * (1 - knockOut);
      if (kept < 1 / 512) a = 0;
      else {
        const white = 255 * (1 - kept);
        r = (r - white) / kept;
        g = (g - white) / kept;
        b = (b - white) / kept;
        a *= kept;
      }
    }
    if (one) [r, g, b] = one;
    data[j] = r * a;
    data[j + 1] = g * a;
    data[j + 2] = b * a;
    data[j + 3] = a * 255;
  }
  const levels = [{ width, height, data }];
  while (levels[levels.length - 1].width > 1 || levels[levels.length - 1].height > 1)
    levels.push(halved(levels[levels.length - 1]));
  return { width, height, levels };
}

function halved(from: { width: number; height: number; data: Uint8ClampedArray }) {
  const width = Math.max(1, from.width >> 1);
  const height = Math.max(1, from.height >> 1);
  const data = new Uint8ClampedArray(width * height * 4);
  const right = from.width > 1 ? 4 : 0;
  const down = from.height > 1 ? from.width * 4 : 0;
  for (let y = 0, o = 0; y < height; y++) {
    let k = y * (down ? 2 : 1) * from.width * 4;
    for (let x = 0; x < width; x++, o += 4, k += right * 2) {
      for (let c = 0; c < 4; c++)
        data[o + c] =
          (from.data[k + c] +
            from.data[k + right + c] +
            from.data[k + down + c] +
            from.data[k + right + down + c]) /
          4;
    }
  }
  return { width, height, data };
}

/** Whether an artwork has a white ground that could be knocked out: opaque, and white along most of its border. */
export function hasWhiteGround({ width, height, data }: Rgba): boolean {
  let white = 0;
  let all = 0;
  const look = (x: number, y: number) => {
    const j = (y * width + x) * 4;
    all++;
    if (data[j + 3] > 250 && Math.min(data[j], data[j + 1], data[j + 2]) > 240) white++;
  };
  for (let x = 0; x < width; x++) [0, height - 1].forEach((y) => look(x, y));
  for (let y = 0; y < height; y++) [0, width - 1].forEach((x) => look(x, y));
  return white > all * 0.9;
}
