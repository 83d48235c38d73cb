import { showsOwnShadow } from './model';
import { elementsOfProducts } from './others';
import type { ElementBase } from '../base';
import { groundOf } from '../ground-of';
import { STUDIO_LIGHT } from '../../stage/ground';
import { shadowFalls } from '../../stage/light';
import { groundPlacement } from '../../stage/stand';

/**
 * Whose shadow falls on whom, by id: the names of the products that stand where a product's shadow runs, taken as
 * a strip as wide as the product and as long as its height throws it.
 */
export function whatCastsOnWhat(shot: {
  width: number;
  height: number;
  elements: readonly ElementBase[];
}): Map<string, string[]> {
  const ground = groundOf(shot.elements);
  const list = elementsOfProducts(shot.elements).flatMap((element) => {
    const standing = groundPlacement(element, ground, shot);
    if (!standing || element.pose === 'flat') return [];
    const half = element.box.width / standing.scale / 2;
    return [{ element, standing, half }];
  });
  const casts = new Map<string, string[]>();
  for (const caster of list) {
    const { element, standing } = caster;
    if (element.shadow.strength <= 0 || showsOwnShadow(element)) continue;
    const light = element.shadow.light ?? ground?.light ?? STUDIO_LIGHT;
    const [fall] = shadowFalls({ ...light, softness: 0 }, 1, element.shadow.length);
    const r = standing.camera.rotation;
    const forward = Math.atan2(r[7], r[6]);
    const [c, s] = [Math.cos(forward), Math.sin(forward)];
    const height = standing.heightMm * (standing.ratio ?? 1);
    // The shadow's end on the plane, as right and away of the camera.
    const end = { X: (fall.x * s + fall.y * c) * height, Y: (-fall.x * c + fall.y * s) * height };
    const long = Math.hypot(end.X, end.Y);
    for (const other of list) {
      if (other === caster || long < 1) continue;
      const dX = other.standing.stand.X - standing.stand.X;
      const dY = other.standing.stand.Y - standing.stand.Y;
      const along = (dX * end.X + dY * end.Y) / long;
      const aside = Math.abs(dX * end.Y - dY * end.X) / long;
      if (along > 0 && along < long + other.half && aside < (caster.half + other.half) * 0.9)
        casts.set(element.id, [...(casts.get(element.id) ?? []), other.element.name || 'a product']);
    }
  }
  return casts;
}
