import type { Rgba } from '../../raster/pixels';

/** Sides of the reduced picture and of its low frequencies that count. */
const SIDE = 32;
const LOW = 8;
/** Pixels a cell, each way, that are looked at. */
const SAMPLES = 8;

const COSINES = Float64Array.from({ length: LOW * SIDE }, (_, i) =>
  Math.cos(((2 * (i % SIDE) + 1) * Math.floor(i / SIDE) * Math.PI) / (2 * SIDE)),
);

/**
 * A perceptual hash: 64 bits, as 16 hexadecimal digits, that tell which low frequencies of the picture's lightness
 * (discrete cosine transform) lie above their median. Pictures that look alike differ in few bits, whatever their size
 * or format. (Zauner 2010, "Implementation and benchmarking of perceptual image hash functions".)
 */
export function pictureHash(picture: Rgba): string {
  const luma = cellMeans(picture);
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

/** Mean lightness of the picture's cells, on white where it is clear; each from a grid of its pixels. */
function cellMeans({ width, height, data }: Rgba): Float64Array {
  const luma = new Float64Array(SIDE * SIDE);
  for (let cy = 0; cy < SIDE; cy++)
    for (let cx = 0; cx < SIDE; cx++) {
      let sum = 0;
      for (let sy = 0; sy < SAMPLES; sy++)
        for (let sx = 0; sx < SAMPLES; sx++) {
          const x = Math.min(width - 1, Math.floor(((cx + (sx + 0.5) / SAMPLES) / SIDE) * width));
          const y = Math.min(height - 1, Math.floor(((cy + (sy + 0.5) / SAMPLES) / SIDE) * height));
          const j = (y * width + x) * 4;
          const a = data[j + 3] / 255;
          sum += (0.299 * data[j] + 0.587 * data[j + 1] + 0.114 * data[j + 2]) * a + 255 * (1 - a);
        }
      luma[cy * SIDE + cx] = sum / SAMPLES ** 2;
    }
  return luma;
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
