import { oklabOf } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import type { BackgroundModel } from './background';
import { grow } from '../raster/distance';
import { discsAround, scaleLabels } from './fine-labels';

/** A backdrop's surface as a fine picture sees it: `scale` of its pixels a fine pixel, the picture beginning at left, top (fine pixels). */
export interface BackdropAt {
  model: BackgroundModel;
  scale: number;
  left: number;
  top: number;
  /** Long side of the whole fine picture. */
  side: number;
}

/** How far from the outline fibres are looked for, as a share of the long side. */
const REACH = 0.028;

/**
 * Pixels near the product that the outline left out and that no shade of the backdrop explains, joined to the
 * product by others like them: fibres, fringes, fine tips, each with one pixel around. What counts as different
 * is measured on the open backdrop farther out, so that noise and paper grain stay backdrop.
 */
// eslint-disable-next-line max-lines-per-function -- the steps of one method in their order
export function strayFibres(
  fine: Rgba,
  labels: Uint8Array,
  inBand: Uint8Array,
  { model, scale, left, top, side }: BackdropAt,
): Int32Array {
  const { width, height, data } = fine;
  const reach = Math.max(4, Math.round(side * REACH));
  // Where to look is found on a quarter of the size, which is fine enough for a reach.
  const [w4, h4] = [Math.ceil(width / 4), Math.ceil(height / 4)];
  const rough = grow(scaleLabels(labels, width, height, w4, h4), w4, h4, reach / 4);
  const distance = new Float32Array(width * height);
  const b = new Float64Array(3);
  const rims: number[] = [];
  const lab = new Float64Array(3);
  const [s0, s1, s2] = [
    Math.max(model.sigma[0], 0.006) * 1.6,
    Math.max(model.sigma[1], 0.0035),
    Math.max(model.sigma[2], 0.0035),
  ];
  const usual: number[] = [];
  for (let p = 0; p < labels.length; p++) {
    if (labels[p]) continue;
    const x = p % width;
    if (!rough[(((p - x) / width) >> 2) * w4 + (x >> 2)]) continue;
    if (inBand[p]) {
      rims.push(p);
      continue;
    }
    model.at((x + left) * scale, ((p - x) / width + top) * scale, b);
    oklabOf(data[p * 4], data[p * 4 + 1], data[p * 4 + 2], lab);
    const t = Math.min(
      1.02,
      Math.max(
        0.4,
        (lab[0] * b[0] + lab[1] * b[1] + lab[2] * b[2]) / (b[0] * b[0] + b[1] * b[1] + b[2] * b[2]),
      ),
    );
    const room = 1 + Math.max(0, 1 - t);
    const hue = Math.hypot((lab[1] - t * b[1]) / (s1 * room), (lab[2] - t * b[2]) / (s2 * room));
    // A fibre is a sudden change: the backdrop beside it tells a thin dark line from a shadow's slope.
    const west = p - (x > 3 ? 4 : x);
    const east = p + (x < width - 4 ? 4 : width - 1 - x);
    const up = p >= width * 4 ? p - width * 4 : p;
    const down = p + width * 4 < width * height ? p + width * 4 : p;
    const green = data[p * 4 + 1];
    const across = Math.min(Math.abs(green - data[west * 4 + 1]), Math.abs(green - data[east * 4 + 1]));
    const along = Math.min(Math.abs(green - data[up * 4 + 1]), Math.abs(green - data[down * 4 + 1]));
    const line = Math.max(across, along) / 255 / (s0 * 1.3);
    distance[p] = Math.hypot(hue, line);
    if (p % 5 === 0) usual.push(distance[p]);
  }
  if (usual.length < 50) return new Int32Array(0);
  usual.sort((u, v) => u - v);
  // Fibres are few: most of what lies around the product is open backdrop.
  const threshold = Math.max(3.2, usual[Math.floor(usual.length * 0.6)] * 2.6);
  const stack: number[] = [];
  const taken = new Uint8Array(width * height);
  const found: number[] = [];
  const takeAround = (p: number, radius: number) => {
    const x = p % width;
    const y = (p - x) / width;
    const [x0, x1] = [Math.max(0, x - radius), Math.min(width - 1, x + radius)];
    const y1 = Math.min(height - 1, y + radius);
    for (let yy = Math.max(0, y - radius); yy <= y1; yy++)
      for (let q = yy * width + x0; q <= yy * width + x1; q++)
        if (!taken[q] && distance[q] > threshold) {
          taken[q] = 1;
          stack.push(q);
        }
  };
  for (const p of rims) takeAround(p, 1);
  while (stack.length) {
    const p = stack.pop()!;
    found.push(p);
    takeAround(p, 2);
  }
  if (found.length < 6) return new Int32Array(0);
  const away = new Uint8Array(labels.length);
  for (let i = 0; i < away.length; i++) away[i] = inBand[i] | labels[i];
  return discsAround(found, width, height, 1.5, away);
}
