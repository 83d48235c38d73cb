/**
 * Fills a picture's unknown pixels from its known ones by pull-push through a pyramid (Gortler et al. 1996,
 * "The lumigraph", section 3.4): known pixels keep their value, unknown ones take a smooth blend of the
 * nearest known ones. `values` holds `channels` floats a pixel; `weight` is 0 (unknown) to 1 (known).
 * Where nothing at all is known the result is zero.
 */
export function spread(
  values: Float32Array,
  weight: Float32Array,
  width: number,
  height: number,
  channels: number,
): Float32Array {
  if (width <= 1 && height <= 1) return values.slice();
  const w2 = (width + 1) >> 1;
  const h2 = (height + 1) >> 1;
  const v2 = new Float32Array(w2 * h2 * channels);
  const a2 = new Float32Array(w2 * h2);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const a = weight[i];
      if (a === 0) continue;
      const k = (y >> 1) * w2 + (x >> 1);
      a2[k] += a;
      for (let c = 0; c < channels; c++) v2[k * channels + c] += a * values[i * channels + c];
    }
  }
  for (let k = 0; k < a2.length; k++) {
    if (a2[k] === 0) continue;
    for (let c = 0; c < channels; c++) v2[k * channels + c] /= a2[k];
    if (a2[k] > 1) a2[k] = 1;
  }
  const coarse = spread(v2, a2, w2, h2, channels);
  const out = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const sy = Math.max(0, Math.min(h2 - 1, (y - 0.5) / 2));
    const y0 = Math.floor(sy);
    const y1 = Math.min(h2 - 1, y0 + 1);
    const fy = sy - y0;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const a = weight[i];
      const sx = Math.max(0, Math.min(w2 - 1, (x - 0.5) / 2));
      const x0 = Math.floor(sx);
      const x1 = Math.min(w2 - 1, x0 + 1);
      const fx = sx - x0;
      for (let c = 0; c < channels; c++) {
        const top =
          coarse[(y0 * w2 + x0) * channels + c] * (1 - fx) + coarse[(y0 * w2 + x1) * channels + c] * fx;
        const low =
          coarse[(y1 * w2 + x0) * channels + c] * (1 - fx) + coarse[(y1 * w2 + x1) * channels + c] * fx;
        out[i * channels + c] = a * values[i * channels + c] + (1 - a) * (top * (1 - fy) + low * fy);
      }
    }
  }
  return out;
}
