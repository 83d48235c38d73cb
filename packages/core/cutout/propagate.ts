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
// eslint-disable-next-line max-lines-per-function -- one loop over a front of pixels, in one piece for speed
export function propagate(
  colours: Float32Array,
  known: Uint8Array,
  todo: Int32Array,
  width: number,
  height: number,
  rings: number,
): Int32Array {
  // 0: not asked for, 1: waits, 2: in the ring at hand.
  const state = new Uint8Array(width * height);
  for (let k = 0; k < todo.length; k++) if (!known[todo[k]]) state[todo[k]] = 1;
  let ring = new Int32Array(todo.length);
  let next = new Int32Array(todo.length);
  let count = 0;
  for (let k = 0; k < todo.length; k++) {
    const p = todo[k];
    if (state[p] === 1 && touches(known, p, width, height)) {
      state[p] = 2;
      ring[count++] = p;
    }
  }
  const values = new Float32Array(todo.length * 3);
  for (let round = 0; round < rings && count; round++) {
    for (let k = 0; k < count; k++) {
      const p = ring[k];
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
      values[k * 3] = r / n;
      values[k * 3 + 1] = g / n;
      values[k * 3 + 2] = b / n;
    }
    for (let k = 0; k < count; k++) {
      const p = ring[k];
      known[p] = 1;
      state[p] = 0;
      colours[p * 3] = values[k * 3];
      colours[p * 3 + 1] = values[k * 3 + 1];
      colours[p * 3 + 2] = values[k * 3 + 2];
    }
    let more = 0;
    for (let k = 0; k < count; k++) {
      const p = ring[k];
      const x = p % width;
      const y = (p - x) / width;
      const x0 = x > 0 ? x - 1 : x;
      const x1 = x < width - 1 ? x + 1 : x;
      const y1 = y < height - 1 ? y + 1 : y;
      for (let yy = y > 0 ? y - 1 : y; yy <= y1; yy++)
        for (let q = yy * width + x0; q <= yy * width + x1; q++)
          if (state[q] === 1) {
            state[q] = 2;
            next[more++] = q;
          }
    }
    [ring, next] = [next, ring];
    count = more;
  }
  return todo.filter((p) => !known[p]);
}

function touches(known: Uint8Array, p: number, width: number, height: number): boolean {
  const x = p % width;
  const y = (p - x) / width;
  const x0 = x > 0 ? x - 1 : x;
  const x1 = x < width - 1 ? x + 1 : x;
  const y1 = y < height - 1 ? y + 1 : y;
  for (let yy = y > 0 ? y - 1 : y; yy <= y1; yy++)
    for (let q = yy * width + x0; q <= yy * width + x1; q++) if (known[q]) return true;
  return false;
}
