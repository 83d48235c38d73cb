import type { Place } from '../elements/base';
import type { ShotElement } from '../elements/index';
import type { ProductElement } from '../elements/product/model';
import type { Pose } from '../stage/stand';
import type { ProductData } from '../data/product-data';
import type { Shot } from '../shot/document';
import { fitInArea } from '../shot/resolve';
import { newProduct } from '../shot/starters';

/** Stands for a product's picture while a template is empty. */
export const NO_PICTURE = '0'.repeat(64);

/**
 * A template with a product in its places: the first takes the product itself, further ones take `others` in turn, and
 * where there are none the product again. Texts are bound when the shot is resolved.
 */
export function fillTemplate(
  template: Shot,
  data: ProductData,
  pose: Pose,
  others: readonly ProductData[] = [],
): Shot {
  const ground = template.elements.filter((e) => e.kind === 'backdrop');
  let n = 0;
  const elements = template.elements.map((e): ShotElement => {
    if (e.kind !== 'product' || e.place?.expects !== 'product') return e;
    const first = n === 0;
    const own = first ? data : (others[(n - 1) % Math.max(1, others.length)] ?? data);
    n++;
    if (!own.cutout) return e;
    const made = newProduct(e.id, own, template.frame, pose, ground);
    return {
      ...made,
      name: first ? made.name : `${made.name}, ${n}`,
      followsVariant: first || own === data,
      place: e.place,
      effects: e.effects,
      shadow: e.shadow,
      box: fitInArea(own.cutout, e.place.area ?? e.box),
      hidden: false,
    };
  });
  return { ...template, elements };
}

/** Places of a shot that nothing has been put into yet. */
export function openPlaces(shot: Shot): ShotElement[] {
  return shot.elements.filter((e) => {
    if (!e.place) return false;
    if (e.kind === 'product') return e.picture === NO_PICTURE;
    if (e.kind === 'pair') return !e.before.picture || !e.after.picture;
    if (e.kind === 'inset') return e.source === 'picture' && !e.picture;
    return e.kind === 'text' && e.text.trim() === '';
  });
}

/** What each part of a shot would be as a place of a template; null for what stays. */
export function suggestedPlace(e: ShotElement): Place | null {
  if (e.kind === 'product' && e.followsVariant)
    return { expects: 'product', hint: 'The product', required: true, area: e.box };
  if (e.kind === 'text') return { expects: 'text', hint: e.name, required: false, area: null };
  if (e.kind === 'pair' || (e.kind === 'inset' && e.source === 'picture'))
    return { expects: 'picture', hint: e.name, required: true, area: null };
  return null;
}

/**
 * A template made from a finished shot: all of its layout stays, places are as given by element id (what is missing from
 * `places` stays as it is), products leave their places empty, and what slots do differently is kept.
 */
export function makeTemplate(shot: Shot, places: Readonly<Record<string, Place | null>>): Shot {
  return {
    ...shot,
    elements: shot.elements.map((e): ShotElement => {
      const place = places[e.id] ?? null;
      if (e.kind !== 'product' || !place) return { ...e, place };
      const emptied: Partial<ProductElement> = {
        picture: NO_PICTURE,
        hidden: true,
        millimetres: null,
        base: null,
        ownShadow: null,
        pack: null,
        followsVariant: true,
      };
      return { ...e, ...emptied, place } as ShotElement;
    }),
  };
}
