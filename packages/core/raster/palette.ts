import { fromOklab, oklabOf } from './colour';
import type { Rgba } from './pixels';

/**
 * The colours that make up a picture, the most frequent first, as `#rrggbb`: k-means in OKLab from seeds that lie
 * far apart (k-means++ with the farthest point, Arthur and Vassilvitskii 2007), like ones joined. Clear pixels do
 * not count.
 */
export function paletteOf(picture: Rgba, count = 5): string[] {
  const { data } = picture;
  const n = data.length / 4;
  const stride = Math.max(1, Math.floor(n / 6000));
  const points: number[][] = [];
  const lab = new Float64Array(3);
  for (let i = 0; i < n; i += stride) {
    if (data[i * 4 + 3] < 200) continue;
    oklabOf(data[i * 4], data[i * 4 + 1], data[i * 4 + 2], lab);
    points.push([lab[0], lab[1], lab[2]]);
  }
  if (!points.length) return [];
  const far = (a: number[], b: number[]) =>
    (a[0] - b[0]) ** 2 + 3 * ((a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2);
  const centres = [points[points.length >> 1]];
  const nearest = new Float64Array(points.length).fill(Infinity);
  while (centres.length < count) {
    let best = 0;
    let most = -1;
    points.forEach((p, i) => {
      nearest[i] = Math.min(nearest[i], far(p, centres[centres.length - 1]));
      if (nearest[i] > most) [most, best] = [nearest[i], i];
    });
    if (most < 1e-4) break;
    centres.push(points[best]);
  }
  let sizes: number[] = [];
  for (let round = 0; round < 8; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    for (const p of points) {
      let c = 0;
      for (let k = 1; k < centres.length; k++) if (far(p, centres[k]) < far(p, centres[c])) c = k;
      for (let j = 0; j < 3; j++) sums[c][j] += p[j];
      sums[c][3]++;
    }
    sizes = sums.map((s) => s[3]);
    sums.forEach((s, k) => {
      if (s[3]) centres[k] = [s[0] / s[3], s[1] / s[3], s[2] / s[3]];
    });
  }
  const rgb = new Float64Array(3);
  return centres
    .map((c, k) => ({ c, size: sizes[k] }))
    .filter(({ size }) => size > 0)
    .sort((a, b) => b.size - a.size)
    .map(({ c }) => {
      fromOklab(c[0], c[1], c[2], rgb);
      return `#${[...rgb].map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;
    });
}
