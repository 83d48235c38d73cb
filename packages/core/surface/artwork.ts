import { parseHex } from '../raster/colour';
import type { Rgba } from '../raster/pixels';

/** Artwork ready to be warped: premultiplied, each level half the one before (Williams 1983, "Pyramidal parametrics"). */
export interface ArtworkLevels {
  /** The artwork's own size, in whose pixels places are given. */
  width: number;
  height: number;
  /** How often the artwork was halved for the first level kept; level n holds 2^(first + n) artwork pixels a pixel. */
  first: number;
  levels: { width: number; height: number; data: Uint8ClampedArray }[];
}

/**
 * The levels of an artwork.
 * @param ink everything in this colour, where it is given
 * @param knockOut how much of white behind the design turns clear, 0..1
 * @param first the finest level that is needed: 0 the artwork itself
 */
export function artworkLevels(
  artwork: Rgba,
  ink: string | null = null,
  knockOut = 0,
  first = 0,
): ArtworkLevels {
  const { width, height, data: src } = artwork;
  const most = Math.max(0, Math.floor(Math.log2(Math.min(width, height))));
  const begin = Math.min(first, most);
  const k = 2 ** begin;
  // Beyond its border the artwork is clear: a level's last pixels may reach over it.
  const w = Math.ceil(width / k);
  const h = Math.ceil(height / k);
  const data = new Uint8ClampedArray(w * h * 4);
  const one = ink ? parseHex(ink) : null;
  const share = 1 / (k * k);
  for (let y = 0, o = 0; y < h; y++)
    for (let x = 0; x < w; x++, o += 4) {
      let R = 0;
      let G = 0;
      let B = 0;
      let A = 0;
      const tall = Math.min(k, height - y * k);
      const wide = Math.min(k, width - x * k);
      for (let dy = 0; dy < tall; dy++) {
        let j = ((y * k + dy) * width + x * k) * 4;
        for (let dx = 0; dx < wide; dx++, j += 4) {
          let a = src[j + 3];
          if (a === 0) continue;
          let r = src[j];
          let g = src[j + 1];
          let b = src[j + 2];
          if (knockOut > 0) {
            // What white paper shows through is taken away; what is left is the ink that lay on it.
            const cover = 1 - Math.min(r, g, b) / 255;
            const kept = cover + (1 - cover) * (1 - knockOut);
            if (kept < 1 / 512) continue;
            const white = 255 * (1 - kept);
            r = (r - white) / kept;
            g = (g - white) / kept;
            b = (b - white) / kept;
            a *= kept;
          }
          R += r * a;
          G += g * a;
          B += b * a;
          A += a;
        }
      }
      const alpha = A * share;
      data[o] = one ? (one[0] * alpha) / 255 : (R * share) / 255;
      data[o + 1] = one ? (one[1] * alpha) / 255 : (G * share) / 255;
      data[o + 2] = one ? (one[2] * alpha) / 255 : (B * share) / 255;
      data[o + 3] = alpha;
    }
  const levels = [{ width: w, height: h, data }];
  while (levels[levels.length - 1].width > 1 || levels[levels.length - 1].height > 1)
    levels.push(halved(levels[levels.length - 1]));
  return { width, height, first: begin, levels };
}

function halved(from: { width: number; height: number; data: Uint8ClampedArray }) {
  const width = Math.ceil(from.width / 2);
  const height = Math.ceil(from.height / 2);
  const data = new Uint8ClampedArray(width * height * 4);
  const row = from.width * 4;
  for (let y = 0, o = 0; y < height; y++) {
    const below = 2 * y + 1 < from.height;
    let k = 2 * y * row;
    for (let x = 0; x < width; x++, o += 4, k += 8) {
      const beside = 2 * x + 1 < from.width;
      for (let c = k; c < k + 4; c++)
        data[o + c - k] =
          (from.data[c] +
            (beside ? from.data[c + 4] : 0) +
            (below ? from.data[c + row] + (beside ? from.data[c + row + 4] : 0) : 0)) /
          4;
    }
  }
  return { width, height, data };
}

/** Whether an artwork leaves nothing clear: it covers what it is printed on, as a label or a photo does. */
export function covers({ data }: Rgba): boolean {
  let clear = 0;
  for (let j = 3; j < data.length; j += 4) if (data[j] < 250) clear++;
  return clear <= data.length / 4 / 200;
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
