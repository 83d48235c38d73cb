/** Said when measures do not fit together; the message is fit to be shown. */
export class SurveyError extends Error {}

export type Pair = [number, number];

/**
 * The homography that carries four points to four others, as nine numbers in rows (direct linear transform,
 * Hartley and Zisserman 2004, 4.1). Throws SurveyError where three lie in a line.
 */
export function homography(from: readonly Pair[], to: readonly Pair[]): number[] {
  const rows: number[][] = [];
  const right: number[] = [];
  for (let i = 0; i < 4; i++) {
    const [x, y] = from[i];
    const [u, v] = to[i];
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push(u, v);
  }
  const solved = solveLinear(rows, right);
  if (!solved) throw new SurveyError('Three of these corners lie in a line. Drag them apart.');
  return [...solved, 1];
}

/** Where a homography carries a point; the third number is its projective weight. */
export function carry(h: readonly number[], x: number, y: number): [number, number, number] {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w, w];
}

/** The homography back (by its adjugate; scale does not matter). */
export function inverseHomography(h: readonly number[]): number[] {
  const [a, b, c, d, e, f, g, i, k] = h;
  return [
    e * k - f * i,
    c * i - b * k,
    b * f - c * e,
    f * g - d * k,
    a * k - c * g,
    c * d - a * f,
    d * i - e * g,
    b * g - a * i,
    a * e - b * d,
  ];
}

/** Gaussian elimination with partial pivoting; null where the equations do not hold apart. */
export function solveLinear(rows: readonly number[][], right: readonly number[]): number[] | null {
  const n = right.length;
  const m = rows.map((row, i) => [...row, right[i]]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(m[r][c]) > Math.abs(m[pivot][c])) pivot = r;
    if (Math.abs(m[pivot][c]) < 1e-9) return null;
    [m[c], m[pivot]] = [m[pivot], m[c]];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const k = m[r][c] / m[c][c];
      if (k) for (let j = c; j <= n; j++) m[r][j] -= k * m[c][j];
    }
  }
  return m.map((row, i) => row[n] / row[i]);
}
