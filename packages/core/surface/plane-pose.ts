/** How a plane lies before a pinhole camera: x = focal (X r1 + Y r2 + t), r3 its normal. */
export interface PlanePose {
  focal: number;
  r1: number[];
  r2: number[];
  r3: number[];
  t: [number, number, number];
}

/** Focal length in long sides of the picture where nothing tells it: about 46 degrees across. */
export const USUAL_FOCAL = 1.18;

/**
 * The pose from a plane's homography (its own lengths to pixels about the picture's middle). The focal length follows
 * from the orthogonality and equal length of the first two rotation columns (Zhang 2000, "A flexible new technique
 * for camera calibration", one view, principal point in the middle of the picture); where the picture shows no
 * convergence it is taken as usual, or as given.
 * @param at a place of the plane that lies before the camera
 * @param side the picture's longer side in pixels
 */
export function planePose(
  h: readonly number[],
  at: readonly [number, number],
  side: number,
  known: number | null = null,
): PlanePose {
  const [a1, a2, a3, b1, b2, b3, c1, c2, c3] = h;
  const p1 = a1 * a2 + b1 * b2;
  const p2 = a1 * a1 + b1 * b1 - a2 * a2 - b2 * b2;
  const q = -(p1 * c1 * c2 + p2 * (c1 * c1 - c2 * c2)) / (p1 * p1 + p2 * p2);
  let focal = known ?? (q > 0 ? 1 / Math.sqrt(q) : Infinity);
  if (!(focal > side * 0.25 && focal < side * 12)) focal = side * USUAL_FOCAL;
  let r1 = [a1 / focal, b1 / focal, c1];
  let r2 = [a2 / focal, b2 / focal, c2];
  // The plane must lie before the camera.
  const sign = Math.sign(c3 + c1 * at[0] + c2 * at[1]) || 1;
  const scale = (sign * 2) / (Math.hypot(...r1) + Math.hypot(...r2));
  r1 = unit(r1.map((v) => v * scale));
  r2 = unit(r2.map((v) => v * scale));
  // Of both axes the same small turn is taken, so that they stand at right angles.
  const overlap = dot(r1, r2) / 2;
  const [u1, u2] = [r1.map((v, i) => v - overlap * r2[i]), r2.map((v, i) => v - overlap * r1[i])];
  r1 = unit(u1);
  r2 = unit(u2.map((v, i) => v - dot(u2, r1) * r1[i]));
  const r3 = cross(r1, r2);
  return { focal, r1, r2, r3, t: [(a3 / focal) * scale, (b3 / focal) * scale, c3 * scale] };
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, v, i) => s + v * b[i], 0);
const unit = (a: readonly number[]) => {
  const l = Math.hypot(...a);
  return a.map((v) => v / l);
};
const cross = (a: readonly number[], b: readonly number[]) => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
