import { components } from '../raster/components';
import { oklabOf } from '../raster/colour';
import type { Rect, Rgba } from '../raster/pixels';
import type { Analysis } from './segment';

/** Only where the model's probability lies between these is the fine picture asked. */
const DOUBT_FROM = 0.12;
const DOUBT_TO = 0.75;
/** Distances to the backdrop, in noise units: nearer is backdrop, farther is product. */
const BACKDROP_WITHIN = 2.6;
const PRODUCT_BEYOND = 7;
/** Fewest pixels of a detail; fewer are grain. */
const LEAST = 5;
/** The largest share of the picture of an opening, and of a wire: anything larger the reduced outline has seen. */
const LARGEST = { opening: 0.004, part: 0.02 };

/**
 * Openings and thin parts that the reduced outline is too coarse for, decided on the fine picture, in place: where the
 * model is in doubt, a pixel in a shade of the backdrop's own colour is an opening, one that is far from every shade of
 * it is the product's. Nothing is done before a patterned backdrop, whose colours tell too little of single pixels.
 * @param labels 1 inside, of the part `part` of the fine picture; `scale` reduced pixels a fine pixel
 */
export function settleDetail(
  picture: Rgba,
  labels: Uint8Array,
  analysis: Analysis,
  part: Rect,
  scale: number,
  openings: boolean,
): void {
  const { shape, model, patterned } = analysis;
  if (!shape || patterned) return;
  const { width, height, data } = picture;
  const turned = new Uint8Array(labels.length);
  const lab = new Float64Array(3);
  const ground = new Float64Array(3);
  const sl = 1 / (Math.max(model.sigma[0], 0.006) * 1.6);
  const sa = 1 / Math.max(model.sigma[1], 0.0035);
  const sb = 1 / Math.max(model.sigma[2], 0.0035);
  for (let y = 0, i = 0; y < height; y++) {
    const sy = (y + part.y + 0.5) * scale - 0.5;
    const row = Math.min(analysis.height - 1, Math.max(0, Math.round(sy))) * analysis.width;
    for (let x = 0; x < width; x++, i++) {
      const sx = (x + part.x + 0.5) * scale - 0.5;
      const p = shape[row + Math.min(analysis.width - 1, Math.max(0, Math.round(sx)))];
      if (p < DOUBT_FROM || p > DOUBT_TO || (labels[i] && !openings)) continue;
      oklabOf(data[i * 4], data[i * 4 + 1], data[i * 4 + 2], lab);
      model.at(sx, sy, ground);
      const dot = lab[0] * ground[0] + lab[1] * ground[1] + lab[2] * ground[2];
      const t = Math.min(1.02, Math.max(0.45, dot / (ground[0] ** 2 + ground[1] ** 2 + ground[2] ** 2)));
      const distance = Math.hypot(
        (lab[0] - t * ground[0]) * sl,
        (lab[1] - t * ground[1]) * sa,
        (lab[2] - t * ground[2]) * sb,
      );
      if (labels[i] ? distance < BACKDROP_WITHIN : distance > PRODUCT_BEYOND) turned[i] = labels[i] ? 1 : 2;
    }
  }
  const whole = (analysis.width * analysis.height) / scale ** 2;
  for (const kind of [1, 2]) {
    const most = kind === 1 ? LARGEST.opening : LARGEST.part;
    const set = turned.map((v) => (v === kind ? 1 : 0));
    const groups = components(set, width, height);
    const isDetail = groups.list.map((c) => c.area >= LEAST && c.area <= most * whole);
    for (let i = 0; i < set.length; i++)
      if (groups.labels[i] && isDetail[groups.labels[i] - 1]) labels[i] = kind === 1 ? 0 : 1;
  }
}
