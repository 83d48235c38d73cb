import type { Rgba } from './pixels';

/**
 * A change of colour as a cubic table of `side` steps a channel (18, for steps of whole bytes): `change` writes the
 * bytes for r, g, b.
 */
export function colourTable(
  side: number,
  change: (r: number, g: number, b: number, out: Float64Array) => void,
): Float32Array {
  const table = new Float32Array(side * side * side * 3);
  const out = new Float64Array(3);
  const step = 255 / (side - 1);
  let i = 0;
  for (let r = 0; r < side; r++)
    for (let g = 0; g < side; g++)
      for (let b = 0; b < side; b++) {
        change(r * step, g * step, b * step, out);
        table[i++] = out[0];
        table[i++] = out[1];
        table[i++] = out[2];
      }
  return table;
}

/** A picture's colours carried through a cubic table with trilinear interpolation; alpha is kept. */
export function throughTable(picture: Rgba, table: Float32Array, side: number): Rgba {
  const { width, height, data: from } = picture;
  const to = new Uint8ClampedArray(from.length);
  const k = (side - 1) / 255;
  for (let j = 0; j < from.length; j += 4) {
    to[j + 3] = from[j + 3];
    if (!from[j + 3]) continue;
    const r = from[j] * k;
    const g = from[j + 1] * k;
    const b = from[j + 2] * k;
    const r0 = r | 0;
    const g0 = g | 0;
    const b0 = b | 0;
    const fr = r - r0;
    const fg = g - g0;
    const fb = b - b0;
    const i = ((r0 * side + g0) * side + b0) * 3;
    const dr = r0 < side - 1 ? side * side * 3 : 0;
    const dg = g0 < side - 1 ? side * 3 : 0;
    const db = b0 < side - 1 ? 3 : 0;
    for (let c = 0; c < 3; c++) {
      const v00 = table[i + c] + (table[i + db + c] - table[i + c]) * fb;
      const v01 = table[i + dg + c] + (table[i + dg + db + c] - table[i + dg + c]) * fb;
      const v10 = table[i + dr + c] + (table[i + dr + db + c] - table[i + dr + c]) * fb;
      const v11 = table[i + dr + dg + c] + (table[i + dr + dg + db + c] - table[i + dr + dg + c]) * fb;
      const v0 = v00 + (v01 - v00) * fg;
      const v1 = v10 + (v11 - v10) * fg;
      to[j + c] = v0 + (v1 - v0) * fr;
    }
  }
  return { width, height, data: to };
}
