/**
 * Squared Euclidean distance of every pixel to the nearest set pixel, in pixels squared (Felzenszwalb and
 * Huttenlocher 2012, "Distance transforms of sampled functions"). Infinity where nothing is set.
 */
export function squaredDistance(set: Uint8Array, width: number, height: number): Float64Array {
  const INF = 1e20;
  const grid = new Float64Array(width * height);
  for (let i = 0; i < grid.length; i++) grid[i] = set[i] ? 0 : INF;
  const longest = Math.max(width, height);
  const f = new Float64Array(longest);
  const v = new Int32Array(longest);
  const z = new Float64Array(longest + 1);

  const line = (offset: number, step: number, n: number) => {
    for (let q = 0; q < n; q++) f[q] = grid[offset + q * step];
    let k = 0;
    v[0] = 0;
    z[0] = -INF;
    z[1] = INF;
    for (let q = 1; q < n; q++) {
      let s: number;
      do {
        const r = v[k];
        s = (f[q] - f[r] + q * q - r * r) / (q - r) / 2;
      } while (s <= z[k] && --k > -1);
      k++;
      v[k] = q;
      z[k] = s;
      z[k + 1] = INF;
    }
    k = 0;
    for (let q = 0; q < n; q++) {
      while (z[k + 1] < q) k++;
      const r = v[k];
      grid[offset + q * step] = f[r] + (q - r) * (q - r);
    }
  };
  for (let x = 0; x < width; x++) line(x, width, height);
  for (let y = 0; y < height; y++) line(y * width, 1, width);
  for (let i = 0; i < grid.length; i++) if (grid[i] >= INF) grid[i] = Infinity;
  return grid;
}

/**
 * The set grown by `radius` pixels (round); a negative radius shrinks it. Outside the picture counts as unset
 * when growing and as set when shrinking. Made for small radii: work is pixels times radius.
 */
export function grow(set: Uint8Array, width: number, height: number, radius: number): Uint8Array {
  const out = new Uint8Array(set.length);
  const target = radius >= 0 ? 1 : 0;
  const r = Math.abs(radius);
  const reach = Math.floor(r);
  const far = reach + 1;
  // Distance along the row to the nearest target pixel, capped just past the reach.
  const across = new Uint16Array(set.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let d = far;
    for (let x = 0; x < width; x++) {
      d = set[row + x] === target ? 0 : d < far ? d + 1 : far;
      across[row + x] = d;
    }
    d = far;
    for (let x = width - 1; x >= 0; x--) {
      d = set[row + x] === target ? 0 : d < far ? d + 1 : far;
      if (d < across[row + x]) across[row + x] = d;
    }
  }
  for (let y = 0; y < height; y++) {
    const first = Math.max(0, y - reach);
    const last = Math.min(height - 1, y + reach);
    for (let x = 0; x < width; x++) {
      let hit = 0;
      for (let yy = first; yy <= last; yy++) {
        const d = across[yy * width + x];
        if (d <= reach && d * d + (yy - y) * (yy - y) <= r * r) {
          hit = 1;
          break;
        }
      }
      out[y * width + x] = hit ? target : 1 - target;
    }
  }
  return out;
}
