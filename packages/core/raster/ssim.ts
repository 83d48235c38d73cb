import type { Rgba } from './pixels';

/** Side of the windows that are compared, and their distance. */
const WINDOW = 8;
const STEP = 4;

/**
 * Structural similarity of two pictures of one size on their luma (Wang, Bovik, Sheikh and Simoncelli 2004, "Image
 * quality assessment: from error visibility to structural similarity", with square windows): 1 is alike.
 * @param counts which pixels' windows count (1), for comparing a part; all where it is left out
 */
export function ssim(a: Rgba, b: Rgba, counts?: ArrayLike<number>): number {
  const { width, height } = a;
  if (b.width !== width || b.height !== height)
    throw new Error(
      `Pictures of ${width} x ${height} and ${b.width} x ${b.height} pixels cannot be compared.`,
    );
  const luma = ({ data }: Rgba) => {
    const out = new Float32Array(width * height);
    for (let i = 0, j = 0; i < out.length; i++, j += 4)
      out[i] = 0.299 * data[j] + 0.587 * data[j + 1] + 0.114 * data[j + 2];
    return out;
  };
  const [p, q] = [luma(a), luma(b)];
  const c1 = (0.01 * 255) ** 2;
  const c2 = (0.03 * 255) ** 2;
  const n = WINDOW * WINDOW;
  let sum = 0;
  let windows = 0;
  for (let y = 0; y + WINDOW <= height; y += STEP)
    for (let x = 0; x + WINDOW <= width; x += STEP) {
      if (counts && !counts[(y + WINDOW / 2) * width + x + WINDOW / 2]) continue;
      let [sp, sq, spp, sqq, spq] = [0, 0, 0, 0, 0];
      for (let dy = 0; dy < WINDOW; dy++)
        for (let dx = 0, i = (y + dy) * width + x; dx < WINDOW; dx++, i++) {
          sp += p[i];
          sq += q[i];
          spp += p[i] * p[i];
          sqq += q[i] * q[i];
          spq += p[i] * q[i];
        }
      const [mp, mq] = [sp / n, sq / n];
      const [vp, vq, cov] = [spp / n - mp * mp, sqq / n - mq * mq, spq / n - mp * mq];
      sum += ((2 * mp * mq + c1) * (2 * cov + c2)) / ((mp * mp + mq * mq + c1) * (vp + vq + c2));
      windows++;
    }
  return windows ? sum / windows : 1;
}
