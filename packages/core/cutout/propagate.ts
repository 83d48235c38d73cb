/**
 * Carries colours from known pixels into unknown ones, ring by ring: each unknown pixel takes the mean of its
 * known 8-neighbours, all pixels of a ring at once. Near an edge this is what lies just on that side of it,
 * carrying gradients and shadows along.
 * @param colours 3 floats a pixel; written where `todo` is reached
 * @param known 1 where the colour counts; grows with each ring
 * @param todo indices of the unknown pixels
 * @param rings at most so many; the rest stays as it was
 * @returns the pixels that were not reached
 */
export function propagate(
  colours: Float32Array,
  known: Uint8Array,
  todo: Int32Array,
  width: number,
  height: number,
  rings: number,
): Int32Array {
  const waiting = Int32Array.from(todo);
  let waits = waiting.length;
  const reached = new Int32Array(waits);
  const values = new Float32Array(waits * 3);
  for (let ring = 0; ring < rings && waits; ring++) {
    let got = 0;
    let left = 0;
    for (let k = 0; k < waits; k++) {
      const p = waiting[k];
      const x = p % width;
      const y = (p - x) / width;
      let r = 0;
      let g = 0;
      let b = 0;
      let n = 0;
      const x0 = x > 0 ? x - 1 : x;
      const x1 = x < width - 1 ? x + 1 : x;
      const y1 = y < height - 1 ? y + 1 : y;
      for (let yy = y > 0 ? y - 1 : y; yy <= y1; yy++) {
        for (let q = yy * width + x0; q <= yy * width + x1; q++) {
          if (!known[q]) continue;
          r += colours[q * 3];
          g += colours[q * 3 + 1];
          b += colours[q * 3 + 2];
          n++;
        }
      }
      if (n) {
        values[got * 3] = r / n;
        values[got * 3 + 1] = g / n;
        values[got * 3 + 2] = b / n;
        reached[got++] = p;
      } else waiting[left++] = p;
    }
    if (!got) break;
    for (let k = 0; k < got; k++) {
      const p = reached[k];
      known[p] = 1;
      colours[p * 3] = values[k * 3];
      colours[p * 3 + 1] = values[k * 3 + 1];
      colours[p * 3 + 2] = values[k * 3 + 2];
    }
    waits = left;
  }
  return waiting.subarray(0, waits);
}
