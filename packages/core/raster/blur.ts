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

/** Running mean of side 2*radius+1 along each row; outside counts as zero. */
function boxRows(src: Float32Array, dst: Float32Array, width: number, height: number, radius: number): void {
  const norm = 1 / (2 * radius + 1);
  for (let y = 0; y < height; y++) {
    const o = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(radius, width); x++) sum += src[o + x];
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum += src[o + x + radius];
      if (x - radius - 1 >= 0) sum -= src[o + x - radius - 1];
      dst[o + x] = sum * norm;
    }
  }
}

/** The same along each column, taken row by row so that memory is read in order. */
function boxColumns(
  src: Float32Array,
  dst: Float32Array,
  width: number,
  height: number,
  radius: number,
): void {
  const norm = 1 / (2 * radius + 1);
  const sum = new Float32Array(width);
  for (let y = 0; y < Math.min(radius, height); y++)
    for (let x = 0, o = y * width; x < width; x++) sum[x] += src[o + x];
  for (let y = 0; y < height; y++) {
    const enter = y + radius < height ? (y + radius) * width : -1;
    const leave = y - radius - 1 >= 0 ? (y - radius - 1) * width : -1;
    const o = y * width;
    for (let x = 0; x < width; x++) {
      if (enter >= 0) sum[x] += src[enter + x];
      if (leave >= 0) sum[x] -= src[leave + x];
      dst[o + x] = sum[x] * norm;
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
    boxRows(a, b, width, height, radius);
    boxColumns(b, a, width, height, radius);
  }
  return { width, height, data: a };
}
