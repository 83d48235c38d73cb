/** Neighbours that a pixel takes its colour from, so far away. */
const REACH = 5;
/** What neighbours across the way inward count at least, against 1 of those along it. */
const ACROSS = 0.1;

/** Everything about the neighbours within reach that is the same for all pixels. */
const NEIGHBOURS = (() => {
  const found: { dx: number; dy: number; far: number }[] = [];
  for (let dy = -REACH; dy <= REACH; dy++)
    for (let dx = -REACH; dx <= REACH; dx++) {
      const far = dx * dx + dy * dy;
      if (far && far <= REACH * REACH) found.push({ dx, dy, far });
    }
  return {
    count: found.length,
    dx: Int32Array.from(found, (n) => n.dx),
    dy: Int32Array.from(found, (n) => n.dy),
    weight: Float32Array.from(found, (n) => 1 / n.far),
    unit: Float32Array.from(found, (n) => 1 / Math.sqrt(n.far)),
  };
})();

/**
 * A hole closed by carrying on what lies along its border, pixel by pixel inward: each takes the mean of what is known
 * around it by then, the nearer and the more along the way inward the more (after the fast marching inpainting of Telea
 * 2004, without its extrapolation by gradients). Near the border this is hard to better; deep inside it is smooth.
 * @param values floats a pixel, `stride` apart; the first three channels count
 * @param depth pixels from the border, inward; 0 where known
 * @returns three floats a pixel of the hole, 0 elsewhere
 */
export function extendInward(
  values: Float32Array,
  width: number,
  height: number,
  stride: number,
  depth: Float32Array,
): Float32Array {
  const out = new Float32Array(width * height * 3);
  const hole: number[] = [];
  for (let i = 0; i < depth.length; i++) if (depth[i] > 0) hole.push(i);
  hole.sort((a, b) => depth[a] - depth[b] || a - b);
  const done = new Uint8Array(width * height);
  const { count, dx, dy, weight, unit } = NEIGHBOURS;
  for (const i of hole) {
    const x = i % width;
    const y = (i - x) / width;
    const nx = depth[x + 1 < width ? i + 1 : i] - depth[x > 0 ? i - 1 : i];
    const ny = depth[y + 1 < height ? i + width : i] - depth[y > 0 ? i - width : i];
    const long = Math.sqrt(nx * nx + ny * ny) || 1;
    let [r, g, b, sum] = [0, 0, 0, 0];
    for (let k = 0; k < count; k++) {
      const px = x + dx[k];
      const py = y + dy[k];
      if (px < 0 || py < 0 || px >= width || py >= height) continue;
      const j = py * width + px;
      const known = depth[j] === 0;
      if (!known && !done[j]) continue;
      const w = weight[k] * (ACROSS + (Math.abs(dx[k] * nx + dy[k] * ny) * unit[k]) / long);
      const from = known ? values : out;
      const o = known ? j * stride : j * 3;
      r += w * from[o];
      g += w * from[o + 1];
      b += w * from[o + 2];
      sum += w;
    }
    if (sum > 0) {
      out[i * 3] = r / sum;
      out[i * 3 + 1] = g / sum;
      out[i * 3 + 2] = b / sum;
    }
    done[i] = 1;
  }
  return out;
}
