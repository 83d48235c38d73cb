import { blur } from '../raster/blur';
import type { Plane } from '../raster/pixels';

export interface MatteError {
  /** Sum of absolute differences, in thousands of pixels. */
  sad: number;
  /** Mean squared error over the picture, mattes in 0..1. */
  mse: number;
  /** Sum of squared differences of gradient magnitudes of the smoothed mattes, in thousands. */
  gradient: number;
}

/** Errors of a matte against the true one as used in the alpha-matting literature (Rhemann et al. 2009); gradient at sigma 1.4. */
export function matteError(matte: Plane, truth: Plane): MatteError {
  if (matte.width !== truth.width || matte.height !== truth.height)
    throw new Error(
      `The mattes differ in size: ${matte.width}x${matte.height} and ${truth.width}x${truth.height} pixels.`,
    );
  let sad = 0;
  let squares = 0;
  for (let i = 0; i < matte.data.length; i++) {
    const d = matte.data[i] - truth.data[i];
    sad += Math.abs(d);
    squares += d * d;
  }
  const a = gradientMagnitude(blur(matte, 1.4));
  const b = gradientMagnitude(blur(truth, 1.4));
  let gradient = 0;
  for (let i = 0; i < a.length; i++) gradient += (a[i] - b[i]) ** 2;
  return { sad: sad / 1000, mse: squares / matte.data.length, gradient: gradient / 1000 };
}

function gradientMagnitude(plane: Plane): Float32Array {
  const { width, height, data } = plane;
  const out = new Float32Array(data.length);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      out[i] = Math.hypot(data[i + 1] - data[i - 1], data[i + width] - data[i - width]) / 2;
    }
  }
  return out;
}
