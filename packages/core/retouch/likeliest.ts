import { blur } from '../raster/blur';
import type { Plane } from '../raster/pixels';

/** What the tries do not agree on is left as smooth as this, in pixels. */
const SMOOTH = 3;
/** Agreement is judged over so many pixels around a place. */
const AROUND = 4;
/** How much more than by chance the tries' mean must show of a detail for it to be kept. */
const STRICT = 9;

/**
 * The likeliest picture in a hole, by several fillings of it: where they agree it is as sharp as they are, where they do
 * not it is their smooth mean. The mean of what may be there errs least (the estimate of least squared error is the
 * posterior mean); of its detail so much is kept as is more than what is left of the tries' own disagreement (Wiener 1949).
 * @param tries three floats a pixel each, equal outside the hole
 * @param inside 1 in the hole
 * @returns the picture, and by how much the tries differ around each pixel of the hole (squared)
 */
export function likeliest(
  tries: readonly Float32Array[],
  inside: Uint8Array,
  width: number,
  height: number,
): { colour: Float32Array; disagreement: Float32Array } {
  const n = tries.length;
  const hole = { width, height, inside };
  const mean = tries[0].map((_, j) => tries.reduce((s, one) => s + one[j], 0) / n);
  const smooth = smoothInside(mean, hole, SMOOTH);
  const disagreement = localMean(hole, AROUND, (j) => {
    let sum = 0;
    for (const one of tries) sum += (one[j] - mean[j]) ** 2;
    return sum / Math.max(1, n - 1);
  });
  const detail = localMean(hole, AROUND, (j) => (mean[j] - smooth[j]) ** 2);
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    const kept = detail[i] > 0 ? Math.max(0, 1 - (STRICT * disagreement[i]) / n / detail[i]) : 0;
    for (let j = i * 3; j < i * 3 + 3; j++) mean[j] = smooth[j] + kept * (mean[j] - smooth[j]);
  }
  return { colour: mean, disagreement };
}

/** The part of a picture that is a hole. */
export interface Hole {
  width: number;
  height: number;
  inside: Uint8Array;
}

/** Three floats a pixel blurred within a hole, with what is known around it. */
function smoothInside(values: Float32Array, { width, height, inside }: Hole, sigma: number): Float32Array {
  const out = values.slice();
  for (let c = 0; c < 3; c++) {
    const plane: Plane = { width, height, data: new Float32Array(width * height) };
    for (let i = 0; i < plane.data.length; i++) plane.data[i] = values[i * 3 + c];
    const soft = blur(plane, sigma).data;
    for (let i = 0; i < inside.length; i++) if (inside[i]) out[i * 3 + c] = soft[i];
  }
  return out;
}

/** A measure's mean over a pixel's three channels and the hole's pixels around it. */
export function localMean(
  { width, height, inside }: Hole,
  sigma: number,
  of: (j: number) => number,
): Float32Array {
  const data = new Float32Array(inside.length);
  for (let i = 0; i < data.length; i++)
    if (inside[i]) data[i] = (of(i * 3) + of(i * 3 + 1) + of(i * 3 + 2)) / 3;
  const weight = blur({ width, height, data: Float32Array.from(inside) }, sigma).data;
  return blur({ width, height, data }, sigma).data.map((v, i) => (weight[i] > 1e-4 ? v / weight[i] : 0));
}
