import { boundsAbove, type Plane, type Rect } from '../../raster/pixels';
import type { Subject } from './check';

const found = new WeakMap<Plane, Rect | null>();

/** Where products are seen in the painted picture, in the slot's pixels; null when none are. */
export function productBounds({ products, width, height }: Subject) {
  let bounds = found.get(products);
  if (bounds === undefined) found.set(products, (bounds = boundsAbove(products, 0.1)));
  if (!bounds) return null;
  const kx = width / products.width;
  const ky = height / products.height;
  return { x: bounds.x * kx, y: bounds.y * ky, width: bounds.width * kx, height: bounds.height * ky };
}
