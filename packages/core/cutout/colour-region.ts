/**
 * Pixels whose colour is like one of the seeds': within `tolerance` (OKLab distance times 100). Touching: only
 * those that a seed reaches through others like it; anywhere: all. Seeds outside the picture count for nothing.
 * @param lab OKLab floats, 3 a pixel; seeds in its pixels
 */
export function colourRegion(
  lab: Float32Array,
  width: number,
  height: number,
  seeds: readonly (readonly [number, number])[],
  tolerance: number,
  reach: 'touching' | 'anywhere',
): Uint8Array {
  const out = new Uint8Array(width * height);
  const limit = (tolerance / 100) ** 2;
  const starts = seeds
    .filter(([x, y]) => x >= 0 && y >= 0 && x < width && y < height)
    .map(([x, y]) => Math.floor(y) * width + Math.floor(x));
  const like = (p: number, s: number) =>
    (lab[p * 3] - lab[s * 3]) ** 2 +
      (lab[p * 3 + 1] - lab[s * 3 + 1]) ** 2 +
      (lab[p * 3 + 2] - lab[s * 3 + 2]) ** 2 <=
    limit;
  if (reach === 'anywhere') {
    for (let p = 0; p < out.length; p++) if (starts.some((s) => like(p, s))) out[p] = 1;
    return out;
  }
  for (const s of starts) {
    const stack = [s];
    out[s] = 1;
    while (stack.length) {
      const p = stack.pop()!;
      const x = p % width;
      for (const q of [p - 1, p + 1, p - width, p + width]) {
        if (q < 0 || q >= out.length || out[q] || Math.abs((q % width) - x) > 1 || !like(q, s)) continue;
        out[q] = 1;
        stack.push(q);
      }
    }
  }
  return out;
}
