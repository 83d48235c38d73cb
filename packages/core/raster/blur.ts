import type { Plane } from './pixels';

/** Radii of three box passes whose sequence has the variance of a Gaussian (Kovesi 2010). */
function boxRadii(sigma: number): number[] {
  const n = 3;
  const ideal = Math.sqrt((12 * sigma * sigma) / n + 1);
  let lower = Math.floor(ideal);
  if (lower % 2 === 0) lower--;
  lower = Math.max(1, lower);
  const count = Math.round(
    (12 * sigma * sigma - n * lower * lower - 4 * n * lower - 3 * n) / (-4 * lower - 4),
  );
  return Array.from({ length: n }, (_, i) => ((i < count ? lower : lower + 2) - 1) / 2);
}

/** One running-sum pass along lines of `length` samples that lie `step` apart; outside counts as zero. */
function boxPass(
  src: Float32Array,
  dst: Float32Array,
  lines: number,
  lineStep: number,
  length: number,
  step: number,
  radius: number,
): void {
  const norm = 1 / (2 * radius + 1);
  for (let line = 0; line < lines; line++) {
    const o = line * lineStep;
    let sum = 0;
    for (let i = 0; i < Math.min(radius, length); i++) sum += src[o + i * step];
    for (let i = 0; i < length; i++) {
      const enter = i + radius;
      const leave = i - radius - 1;
      if (enter < length) sum += src[o + enter * step];
      if (leave >= 0) sum -= src[o + leave * step];
      dst[o + i * step] = sum * norm;
    }
  }
}

/**
 * Gaussian blur of `sigma` pixels by three box passes each way (Kovesi 2010, "Fast almost-Gaussian
 * filtering"); the surroundings of the plane count as zero. Below 0.3 pixel the plane is returned as it is.
 */
export function blur(plane: Plane, sigma: number): Plane {
  const { width, height } = plane;
  if (sigma < 0.3) return plane;
  const a = new Float32Array(plane.data);
  const b = new Float32Array(a.length);
  for (const radius of boxRadii(sigma)) {
    if (radius < 1) continue;
    boxPass(a, b, height, width, width, 1, radius);
    boxPass(b, a, width, 1, height, width, radius);
  }
  return { width, height, data: a };
}

/** Mean over a square window of side 2*radius+1, counting only samples inside the plane. */
export function boxMean(plane: Plane, radius: number): Plane {
  const { width, height, data } = plane;
  const tmp = new Float32Array(data.length);
  const out = new Float32Array(data.length);
  boxPass(data, tmp, height, width, width, 1, radius);
  boxPass(tmp, out, width, 1, height, width, radius);
  const full = 2 * radius + 1;
  const share = (i: number, n: number) => (Math.min(n - 1, i + radius) - Math.max(0, i - radius) + 1) / full;
  for (let y = 0; y < height; y++) {
    const sy = share(y, height);
    for (let x = 0; x < width; x++) out[y * width + x] /= sy * share(x, width);
  }
  return { width, height, data: out };
}
