import type { Rgba } from './pixels';

/** Peak signal-to-noise ratio of two equal-sized pictures over red, green and blue, in dB; Infinity when identical. */
export function psnr(a: Rgba, b: Rgba): number {
  if (a.width !== b.width || a.height !== b.height)
    throw new Error(
      `Pictures of ${a.width}x${a.height} and ${b.width}x${b.height} pixels cannot be compared.`,
    );
  let sum = 0;
  for (let j = 0; j < a.data.length; j += 4)
    for (let c = 0; c < 3; c++) sum += (a.data[j + c] - b.data[j + c]) ** 2;
  const mse = sum / (a.width * a.height * 3);
  return mse === 0 ? Infinity : 10 * Math.log10((255 * 255) / mse);
}
