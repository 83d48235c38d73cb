import { blur } from '../raster/blur';
import { createPlane, type Plane } from '../raster/pixels';

/** Steps at a seam are told apart from grain by their mean over so many pixels along it. */
const ALONG = 3;
/** How far inward a step is taken up, in pixels: what belongs to the border alone stays there. */
const FADES = 10;

/**
 * Takes the step at the border of a filled part away: what known neighbours have more or less than the filled pixels
 * beside them is carried inward by a membrane (Perez, Gangnet and Blake 2003, "Poisson image editing"), interpolated
 * by push and pull (Gortler et al. 1996).
 * @param depth pixels from the border, inward
 * @param values floats a pixel, `stride` apart; the first three channels are changed where `inside` is 1
 */
export function evenSeam(
  values: Float32Array,
  inside: Uint8Array,
  width: number,
  height: number,
  stride: number,
  depth: Float32Array,
): void {
  const ring = createPlane(width, height);
  const steps = [0, 1, 2].map(() => createPlane(width, height));
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (!inside[i]) continue;
      const around = [
        x > 0 ? i - 1 : -1,
        x + 1 < width ? i + 1 : -1,
        y > 0 ? i - width : -1,
        y + 1 < height ? i + width : -1,
      ].filter((k) => k >= 0 && !inside[k]);
      if (!around.length) continue;
      ring.data[i] = 1;
      for (let c = 0; c < 3; c++)
        steps[c].data[i] =
          around.reduce((s, k) => s + values[k * stride + c], 0) / around.length - values[i * stride + c];
    }
  const weight = blur(ring, ALONG);
  for (let c = 0; c < 3; c++) {
    const mean = blur(steps[c], ALONG);
    const smooth = createPlane(width, height);
    for (let i = 0; i < ring.data.length; i++)
      if (ring.data[i]) smooth.data[i] = mean.data[i] / Math.max(1e-4, weight.data[i]);
    const across = pushPull(smooth, ring);
    for (let i = 0; i < inside.length; i++)
      if (inside[i]) values[i * stride + c] += across.data[i] * Math.exp(-depth[i] / FADES);
  }
}

/** Values known where `weight` is 1, interpolated everywhere else. */
function pushPull(values: Plane, weight: Plane): Plane {
  const { width, height } = values;
  if (width <= 1 && height <= 1) return values;
  const w = Math.ceil(width / 2);
  const h = Math.ceil(height / 2);
  const sum = createPlane(w, h);
  const count = createPlane(w, h);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const o = (y >> 1) * w + (x >> 1);
      sum.data[o] += values.data[i] * weight.data[i];
      count.data[o] += weight.data[i];
    }
  const known = createPlane(w, h);
  for (let o = 0; o < sum.data.length; o++)
    if (count.data[o] > 0) {
      sum.data[o] /= count.data[o];
      known.data[o] = Math.min(1, count.data[o]);
    }
  const coarse = pushPull(sum, known);
  const out = createPlane(width, height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const a = weight.data[i];
      const sx = Math.min(w - 1, Math.max(0, (x + 0.5) / 2 - 0.5));
      const sy = Math.min(h - 1, Math.max(0, (y + 0.5) / 2 - 0.5));
      const x0 = Math.floor(sx);
      const y0 = Math.floor(sy);
      const x1 = Math.min(w - 1, x0 + 1);
      const y1 = Math.min(h - 1, y0 + 1);
      const [fx, fy] = [sx - x0, sy - y0];
      const low =
        (coarse.data[y0 * w + x0] * (1 - fx) + coarse.data[y0 * w + x1] * fx) * (1 - fy) +
        (coarse.data[y1 * w + x0] * (1 - fx) + coarse.data[y1 * w + x1] * fx) * fy;
      out.data[i] = values.data[i] * a + low * (1 - a);
    }
  return out;
}
