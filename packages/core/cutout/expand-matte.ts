import { createPlane, type Plane, type Rgba } from '../raster/pixels';
import { samplePlane } from '../raster/resample';
import { BACKDROP, EDGE, PRODUCT, type FineMatte } from './fine-matte';

/** Where a picture lies on the fine matte: the middle of its pixel (x, y) is at fine place ((x + 0.5) * k + left, ...). */
export interface Place {
  left: number;
  top: number;
  kx: number;
  ky: number;
}

export interface Expanded {
  alpha: Plane;
  /** The picture with the backdrop taken out of its edge colours; alpha is not in it. */
  colours: Rgba;
}

/**
 * Carries a fine matte to a picture of any size and part of the photo: the full size, or what a screen shows.
 * Each EDGE pixel is placed between the two colours read from the fine matte, so that the detail of the larger
 * picture decides; where these are too alike, the fine matte's own value does. The product's colour follows from
 * the compositing equation.
 * @param spill 0 keeps the photo's colours, 1 takes all of the backdrop's light out of the edge
 */
// eslint-disable-next-line max-lines-per-function -- one loop over pixels, in one piece for speed
export function expandMatte(picture: Rgba, place: Place, fine: FineMatte, spill = 1): Expanded {
  const { width, height, data } = picture;
  const { zone, front, back, noise } = fine;
  const alpha = createPlane(width, height);
  const colours: Rgba = { width, height, data: new Uint8ClampedArray(data) };
  const same = place.kx === 1 && place.ky === 1;
  const f = new Float64Array(3);
  const b = new Float64Array(3);
  const nearX = new Int32Array(width);
  for (let x = 0; x < width; x++)
    nearX[x] = Math.min(fine.width - 1, Math.max(0, Math.floor((x + 0.5) * place.kx + place.left)));
  for (let y = 0; y < height; y++) {
    const cy = (y + 0.5) * place.ky + place.top - 0.5;
    const ny = Math.min(fine.height - 1, Math.max(0, Math.floor(cy + 0.5)));
    const y0 = Math.min(fine.height - 1, Math.max(0, Math.floor(cy)));
    const y1 = Math.min(fine.height - 1, y0 + 1);
    const fy = Math.min(1, Math.max(0, cy - y0));
    for (let x = 0; x < width; x++) {
      const near = ny * fine.width + nearX[x];
      const z = zone[near];
      const p = y * width + x;
      if (z === BACKDROP) continue;
      const j = p * 4;
      const own = data[j + 3] / 255;
      if (z === PRODUCT) {
        alpha.data[p] = own;
        continue;
      }
      const cx = (x + 0.5) * place.kx + place.left - 0.5;
      const x0 = Math.min(fine.width - 1, Math.max(0, Math.floor(cx)));
      const x1 = Math.min(fine.width - 1, x0 + 1);
      const fx = Math.min(1, Math.max(0, cx - x0));
      const i00 = y0 * fine.width + x0;
      const i10 = y0 * fine.width + x1;
      const i01 = y1 * fine.width + x0;
      const i11 = y1 * fine.width + x1;
      // Only EDGE pixels and their ring hold colours: the others are passed over.
      let w00 = (1 - fx) * (1 - fy);
      let w10 = fx * (1 - fy);
      let w01 = (1 - fx) * fy;
      let w11 = fx * fy;
      const smooth =
        fine.alpha[i00] * w00 + fine.alpha[i10] * w10 + fine.alpha[i01] * w01 + fine.alpha[i11] * w11;
      if (zone[i00] !== EDGE) w00 *= 0.001;
      if (zone[i10] !== EDGE) w10 *= 0.001;
      if (zone[i01] !== EDGE) w01 *= 0.001;
      if (zone[i11] !== EDGE) w11 *= 0.001;
      const total = 1 / (w00 + w10 + w01 + w11);
      let dot = 0;
      let length2 = 0;
      for (let c = 0; c < 3; c++) {
        f[c] =
          (front[i00 * 3 + c] * w00 + front[i10 * 3 + c] * w10 + front[i01 * 3 + c] * w01 + front[i11 * 3 + c] * w11) * total; // prettier-ignore
        b[c] =
          (back[i00 * 3 + c] * w00 + back[i10 * 3 + c] * w10 + back[i01 * 3 + c] * w01 + back[i11 * 3 + c] * w11) * total; // prettier-ignore
        const d = f[c] - b[c];
        dot += (data[j + c] - b[c]) * d;
        length2 += d * d;
      }
      let a = fine.alpha[near];
      if (!same) {
        const trust = length2 / (length2 + 22 * noise * noise);
        const raw = length2 > 1 ? Math.min(1, Math.max(0, dot / length2)) : smooth;
        a = trust * raw + (1 - trust) * smooth;
      }
      a = denoised(a) * own;
      alpha.data[p] = a;
      if (a > 0 && a < 1 && spill > 0) {
        const certain = a * a;
        for (let c = 0; c < 3; c++) {
          const unmixed = Math.min(255, Math.max(0, (data[j + c] - (1 - a) * b[c]) / a));
          const clean = certain * unmixed + (1 - certain) * f[c];
          colours.data[j + c] = data[j + c] + (clean - data[j + c]) * spill;
        }
      }
    }
  }
  if (place.kx < 0.8) agreeWithFine(alpha, place, fine);
  return { alpha, colours };
}

/** The last few hundredths are noise on either side. */
function denoised(a: number): number {
  const v = (a - 0.03) / 0.94;
  return v < 0 ? 0 : v > 1 ? 1 : v;
}

/**
 * Brings the mean of the enlarged matte over each fine pixel to that pixel's own value, in place, so that the full size
 * is what its preview was: one round of iterative back-projection (Irani and Peleg 1991).
 */
function agreeWithFine(alpha: Plane, place: Place, fine: FineMatte): void {
  const { width, height, data } = alpha;
  const left = Math.max(0, Math.floor(place.left));
  const top = Math.max(0, Math.floor(place.top));
  const w = Math.min(fine.width - left, Math.ceil(width * place.kx) + 2);
  const h = Math.min(fine.height - top, Math.ceil(height * place.ky) + 2);
  const off: Plane = createPlane(w, h);
  const count = new Float32Array(w * h);
  const column = Int32Array.from(
    { length: width },
    (_, x) => Math.floor((x + 0.5) * place.kx + place.left) - left,
  );
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y + 0.5) * place.ky + place.top) - top;
    if (row >= h) break;
    for (let x = 0; x < width; x++) {
      const i = row * w + column[x];
      off.data[i] += data[y * width + x];
      count[i]++;
    }
  }
  const whole = (0.6 / place.kx) * (1 / place.ky);
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i++) {
      const f = (y + top) * fine.width + x + left;
      off.data[i] =
        fine.zone[f] === EDGE && count[i] >= whole ? denoised(fine.alpha[f]) - off.data[i] / count[i] : 0;
    }
  for (let y = 0; y < height; y++) {
    const cy = (y + 0.5) * place.ky + place.top - 0.5 - top;
    const row = Math.min(h - 1, Math.floor((y + 0.5) * place.ky + place.top) - top);
    for (let x = 0; x < width; x++) {
      if (fine.zone[(row + top) * fine.width + column[x] + left] !== EDGE) continue;
      const p = y * width + x;
      const v = data[p] + samplePlane(off, (x + 0.5) * place.kx + place.left - 0.5 - left, cy);
      data[p] = v < 0 ? 0 : v > 1 ? 1 : v;
    }
  }
}
