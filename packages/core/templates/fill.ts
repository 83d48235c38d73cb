import { isProduct } from '../elements/product/model';
import type { Place } from '../elements/base';
import { elementKind, isGround, type ShotElement } from '../elements/index';
import type { Pose } from '../stage/stand';
import type { ProductData } from '../data/product-data';
import type { Shot } from '../shot/document';
import { fitInArea } from '../shot/resolve';
import { newProduct } from '../shot/starters';

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
  const ground = template.elements.filter(isGround);
  let n = 0;
  const elements = template.elements.map((e): ShotElement => {
    if (!isProduct(e) || e.place?.expects !== 'product') return e;
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
  return shot.elements.filter((e) => e.place && elementKind(e.kind).isOpen?.(e));
}

/** What each part of a shot would be as a place of a template; null for what stays. */
export function suggestedPlace(e: ShotElement): Place | null {
  return elementKind(e.kind).asPlace?.(e) ?? null;
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
      return { ...e, ...(place && elementKind(e.kind).emptied?.(e)), place } as ShotElement;
    }),
  };
}
