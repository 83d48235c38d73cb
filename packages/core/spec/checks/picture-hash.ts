import { reduceTo, resize } from '../../raster/resample';
import type { Rgba } from '../../raster/pixels';

/** Sides of the reduced picture and of its low frequencies that count. */
const SIDE = 32;
const LOW = 8;

const COSINES = Float64Array.from({ length: LOW * SIDE }, (_, i) =>
  Math.cos(((2 * (i % SIDE) + 1) * Math.floor(i / SIDE) * Math.PI) / (2 * SIDE)),
);

/**
 * A perceptual hash: 64 bits, as 16 hexadecimal digits, that tell which low frequencies of the picture's lightness
 * (discrete cosine transform) lie above their median. Pictures that look alike differ in few bits, whatever their size
 * or format. (Zauner 2010, "Implementation and benchmarking of perceptual image hash functions".)
 */
export function pictureHash(picture: Rgba): string {
  const small = resize(reduceTo(picture, 256), SIDE, SIDE);
  const luma = new Float64Array(SIDE * SIDE);
  for (let i = 0, j = 0; i < luma.length; i++, j += 4) {
    const a = small.data[j + 3] / 255;
    const l = 0.299 * small.data[j] + 0.587 * small.data[j + 1] + 0.114 * small.data[j + 2];
    luma[i] = l * a + 255 * (1 - a);
  }
  const rows = new Float64Array(LOW * SIDE);
  for (let u = 0; u < LOW; u++)
    for (let y = 0; y < SIDE; y++)
      for (let x = 0; x < SIDE; x++) rows[u * SIDE + y] += luma[y * SIDE + x] * COSINES[u * SIDE + x];
  const values: number[] = [];
  for (let v = 0; v < LOW; v++)
    for (let u = 0; u < LOW; u++) {
      let sum = 0;
      for (let y = 0; y < SIDE; y++) sum += rows[u * SIDE + y] * COSINES[v * SIDE + y];
      values.push(sum);
    }
  const median = [...values.slice(1)].sort((a, b) => a - b)[31];
  let hash = '';
  for (let i = 0; i < 64; i += 4)
    hash += [0, 1, 2, 3].reduce((n, k) => n * 2 + (values[i + k] > median ? 1 : 0), 0).toString(16);
  return hash;
}

/** Bits in which two hashes differ, 0..64. */
export function hashDistance(a: string, b: string): number {
  let bits = 0;
  for (let i = 0; i < 16; i++) {
    let x = parseInt(a[i], 16) ^ parseInt(b[i], 16);
    for (; x; x &= x - 1) bits++;
  }
  return bits;
}
