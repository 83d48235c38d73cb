import { createRgba, type Rgba } from '../raster/pixels';
import type { ProductBase } from './base';

export interface ReflectionOptions {
  /** 0..1 at the base. */
  strength: number;
  /** How soon it is gone: 0 reaches as far as the product is tall, 1 a tenth of that. */
  fade: number;
  /** 0 a mirror, 1 so rough that only a glimmer is left. */
  roughness: number;
}

/**
 * A product mirrored in the surface it stands on. Every column is mirrored at its own base line: the base's front
 * curve where the product touches, the base's middle where it hangs over; so round and tilted bases meet their
 * mirror image. The further a part is above the base, the fainter (Fresnel falls and the surface scatters) and the
 * more blurred across and along it is.
 * @param picture the cutout, trimmed, at most a few hundred pixels
 * @returns a picture as wide, from the picture's top; `below` rows longer than it
 */
export function reflect(
  picture: Rgba,
  base: ProductBase,
  options: ReflectionOptions,
): { picture: Rgba; below: number } {
  const { width: w, height: h, data } = picture;
  const middle = Math.min(h, base.y * w);
  const reach = Math.max(2, Math.round(middle * (1 - 0.9 * options.fade)));
  const lower = baseLine(picture, base);
  const lowest = Math.max(...lower);
  const below = Math.max(1, Math.ceil(lowest + reach - h));
  const out = createRgba(w, h + below);
  for (let x = 0; x < w; x++) {
    const line = lower[x];
    for (let t = 0; t < reach; t++) {
      const to = Math.floor(line + t);
      const from = Math.floor(line - t - 1);
      if (to < 0 || to >= out.height || from < 0) continue;
      if (from >= h) continue;
      const j = (from * w + x) * 4;
      if (!data[j + 3]) continue;
      const k = (to * w + x) * 4;
      const away = t / reach;
      out.data[k] = data[j];
      out.data[k + 1] = data[j + 1];
      out.data[k + 2] = data[j + 2];
      out.data[k + 3] = data[j + 3] * options.strength * (1 - away) ** (1.2 + 1.6 * options.roughness);
    }
  }
  return { picture: options.roughness > 0.01 ? scattered(out, lower, reach, options.roughness) : out, below };
}

/** The row at which each column is mirrored. */
function baseLine({ width: w, height: h, data }: Rgba, base: ProductBase): Float64Array {
  const line = new Float64Array(w);
  const middle = base.y * w;
  for (let x = 0; x < w; x++) {
    const u = ((x + 0.5) / w - base.x) / base.halfWidth;
    line[x] = Math.abs(u) < 1 ? middle + base.halfDepth * w * Math.sqrt(1 - u * u) : middle;
    // Where the real lower edge lies close to the curve it is what touches.
    for (let y = h - 1; y >= 0; y--)
      if (data[(y * w + x) * 4 + 3] > 127) {
        if (Math.abs(y + 1 - line[x]) < w * 0.02) line[x] = y + 1;
        break;
      }
  }
  return line;
}

/** Blurred by an amount that grows with the distance below the base line; on premultiplied colour. */
function scattered(image: Rgba, line: Float64Array, reach: number, roughness: number): Rgba {
  const { width: w, height: h, data } = image;
  const out = createRgba(w, h);
  // Sums over columns of rows and then over rows make any box's mean cost four reads.
  const W = w + 1;
  const sums = [0, 1, 2, 3].map(() => new Float64Array(W * (h + 1)));
  for (let y = 0; y < h; y++) {
    const row = [0, 0, 0, 0];
    for (let x = 0; x < w; x++) {
      const j = (y * w + x) * 4;
      const a = data[j + 3];
      row[0] += data[j] * a;
      row[1] += data[j + 1] * a;
      row[2] += data[j + 2] * a;
      row[3] += a;
      for (let c = 0; c < 4; c++) sums[c][(y + 1) * W + x + 1] = sums[c][y * W + x + 1] + row[c];
    }
  }
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const t = y - line[x];
      if (t < -2) continue;
      const radius = Math.max(0, t / reach) * roughness * w * 0.09 + roughness * w * 0.004;
      const rx = Math.max(0, Math.round(radius));
      const ry = Math.max(0, Math.round(radius * 1.6));
      // Nothing is mirrored above the line: the box stops there.
      const y0 = Math.max(0, Math.max(Math.floor(line[x]), y - ry));
      const [x0, x1] = [Math.max(0, x - rx), Math.min(w, x + rx + 1)];
      const y1 = Math.min(h, y + ry + 1);
      if (y1 <= y0) continue;
      const [a, b, c, d] = [y1 * W + x1, y0 * W + x1, y1 * W + x0, y0 * W + x0];
      const mean = sums.map((s) => s[a] - s[b] - s[c] + s[d]);
      if (mean[3] <= 0) continue;
      const j = (y * w + x) * 4;
      out.data[j] = mean[0] / mean[3];
      out.data[j + 1] = mean[1] / mean[3];
      out.data[j + 2] = mean[2] / mean[3];
      out.data[j + 3] = mean[3] / ((2 * rx + 1) * (2 * ry + 1));
    }
  return out;
}
