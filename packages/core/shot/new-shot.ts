import type { ProductData } from '../data/product-data';
import type { Fill } from '../elements/backdrop/model';
import type { Pose } from '../stage/stand';
import { resizedBox } from '../vector/box';
import { emptyShot, type Shot } from './document';
import { newBackdrop, newProduct } from './starters';
import { frameOf, safeRect, type TrimmedSize } from './trim';

/**
 * A new picture of a size, on a ground, with a product within its safe margins or without one.
 * @throws with a sentence where the size cannot be made
 */
export function newShot(
  size: TrimmedSize,
  fill: Extract<Fill, { type: 'colour' | 'transparent' }>,
  product: { data: ProductData; pose: Pose } | null,
): Shot {
  const { unit, dpi, bleedMm, safeMm } = size;
  const trim = { unit, dpi, bleedMm, safeMm };
  const shot: Shot = { ...emptyShot(...sidesOf(size)), trim };
  const backdrop = { ...newBackdrop('backdrop', shot.frame, '#ffffff'), fill };
  if (!product?.data.cutout) return { ...shot, elements: [backdrop] };
  const made = newProduct('product', product.data, shot.frame, product.pose);
  const room = safeRect(shot.frame, trim);
  const k = Math.min(1, room.width / made.box.width, room.height / made.box.height);
  const box = resizedBox(made.box, made.box.width * k, made.box.height * k, { x: 0.5, y: 0.5 });
  return { ...shot, elements: [backdrop, { ...made, box }] };
}

function sidesOf(size: TrimmedSize): [width: number, height: number] {
  const { width, height } = frameOf(size);
  return [width, height];
}
