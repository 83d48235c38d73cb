import { blur } from '../raster/blur';
import { fromOklab } from '../raster/colour';
import { components } from '../raster/components';
import { grow } from '../raster/distance';
import { boundsAbove, createPlane, createRgba, crop, type Rect, type Rgba } from '../raster/pixels';
import type { ColourHypothesis } from './colour-hypothesis';
import { spread } from './spread';

export interface OwnShadow {
  /** Black with alpha: laid over a ground it darkens it as the photo's backdrop was darkened. */
  image: Rgba;
  /** Where it lies in the tidied photo, in its pixels; may reach beyond the cutout. */
  bounds: Rect;
}

/**
 * The shadow that the camera saw on plain paper, as a soft layer that multiplies: how much darker each backdrop
 * pixel is than the empty backdrop's surface, carried on under the product by pull-push, freed of grain, and
 * kept where it hangs together with the product. Null where the backdrop is a pattern or no shadow is found.
 * @param product the product's outline at the analysis size; `k` photo pixels per pixel of it
 */
export function recoverOwnShadow(
  backdrop: Pick<ColourHypothesis, 'model' | 'shading'>,
  product: Uint8Array,
  small: Rgba,
  k: number,
): OwnShadow | null {
  const { width, height } = small;
  const { model, shading } = backdrop;
  const n = width * height;
  const surface = model.surface();
  const near = grow(product, width, height, 2);
  const density = new Float32Array(n);
  const known = new Float32Array(n);
  const b = new Float64Array(3);
  for (let i = 0; i < n; i++) {
    if (near[i]) continue;
    known[i] = 1;
    if (shading.deep[i] > 6) continue;
    fromOklab(surface[i * 3], surface[i * 3 + 1], surface[i * 3 + 2], b);
    let ratio = 0;
    for (let c = 0; c < 3; c++) ratio += small.data[i * 4 + c] / Math.max(1, b[c]) / 3;
    density[i] = Math.max(0, 1 - ratio);
  }
  const whole = spread(density, known, width, height, 1);
  const soft = blur({ width, height, data: whole }, 1.2);
  // Below this the paper's own unevenness begins.
  const floor = Math.max(0.015, model.sigma[0] * 3.5);
  const set = new Uint8Array(n);
  for (let i = 0; i < n; i++) {
    soft.data[i] = Math.max(0, (soft.data[i] - floor) / (1 - floor));
    set[i] = soft.data[i] > 0.004 || product[i] ? 1 : 0;
  }
  const { labels, list } = components(set, width, height);
  const ours = new Uint8Array(list.length + 1);
  for (let i = 0; i < n; i++) if (product[i]) ours[labels[i]] = 1;
  const plane = createPlane(width, height);
  let most = 0;
  for (let i = 0; i < n; i++)
    if (ours[labels[i]]) {
      plane.data[i] = Math.min(0.95, soft.data[i]);
      if (!product[i] && plane.data[i] > most) most = plane.data[i];
    }
  if (most < 0.03) return null;
  const bounds = boundsAbove(plane, 0.004);
  if (!bounds) return null;
  const image = createRgba(width, height);
  for (let i = 0; i < n; i++) image.data[i * 4 + 3] = plane.data[i] * 255;
  return {
    image: crop(image, bounds),
    bounds: { x: bounds.x * k, y: bounds.y * k, width: bounds.width * k, height: bounds.height * k },
  };
}
