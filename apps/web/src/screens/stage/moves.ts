import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { isProduct } from '@scenograph/core/elements/product/model';
import type { Shot } from '@scenograph/core/shot/document';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { snapBox } from '@scenograph/core/shot/snap-box';
import { snapBase, type Guide } from '@scenograph/core/stage/snap';
import { basePoint, movedOnGround } from '@scenograph/core/stage/stand';
import { uprightBounds, type Box } from '@scenograph/core/vector/box';
import { patchElement, placeElement, type SlotTarget } from './editing';

/** An element with all that move with it; it comes first. */
export function linkedWith(from: ResolvedShot, id: string): ShotElement[] {
  const element = from.elements.find((e) => e.id === id);
  if (!element) return [];
  const others = element.link
    ? from.elements.filter((e) => e.link === element.link && e.id !== id && !e.locked)
    : [];
  return [element, ...others];
}

/** The element to scale from: in the base as it is written, in a slot as it is placed there. */
export function baseLike(
  shot: { elements: ShotElement[] },
  at: ShotElement,
  target: SlotTarget | null,
): ShotElement {
  if (target) return at;
  return shot.elements.find((e) => e.id === at.id) ?? at;
}

function movedTogether(from: ResolvedShot, id: string, dx: number, dy: number): [ShotElement, Box][] {
  const ground = groundOf(from.elements);
  return linkedWith(from, id).map((element) => {
    const { box } = element;
    if (!isProduct(element)) return [element, { ...box, x: box.x + dx, y: box.y + dy }];
    const at = basePoint(element);
    return [element, movedOnGround(element, { x: at.x + dx, y: at.y + dy }, ground, from)];
  });
}

/** Moves an element and all linked with it, in frame pixels; products on a ground keep their share of true size. */
export const movedBy =
  (from: ResolvedShot, id: string, dx: number, dy: number, target: SlotTarget | null) =>
  (shot: Shot): Shot =>
    movedTogether(from, id, dx, dy).reduce((s, [element, box]) => {
      const own = elementKind(element.kind).moved?.(element, dx, dy);
      return own
        ? patchElement(s, element.id, own as Partial<ShotElement>, target)
        : placeElement(s, baseLike(s, element, target), box, target, false, element);
    }, shot);

/** A move with what it was caught by. */
interface Snapped {
  dx: number;
  dy: number;
  guides: Guide[];
}

/** A product's move by its base: on spots, beside other bases, on the frame's middle. */
function snappedBase(
  from: ResolvedShot,
  element: ShotElement,
  dx: number,
  dy: number,
  reach: number,
  drawn: readonly Guide[],
): Snapped {
  if (!isProduct(element)) return { dx, dy, guides: [] };
  const at = basePoint(element);
  const linked = new Set(linkedWith(from, element.id).map((e) => e.id));
  const bases = from.elements.flatMap((e) =>
    isProduct(e) && !e.hidden && !linked.has(e.id) ? [{ name: e.name, ...basePoint(e) }] : [],
  );
  const spots = groundOf(from.elements)?.spots ?? [];
  const to = snapBase({ x: at.x + dx, y: at.y + dy }, { frame: from, spots, bases, guides: drawn }, reach);
  return { dx: to.x - at.x, dy: to.y - at.y, guides: to.guides };
}

/** An overlay's move by its box: to edges and middles of others and of the frame. */
function snappedBox(
  from: ResolvedShot,
  element: ShotElement,
  dx: number,
  dy: number,
  reach: number,
  drawn: readonly Guide[],
): Snapped {
  const linked = new Set(linkedWith(from, element.id).map((e) => e.id));
  const others = from.elements.filter(
    (e) => !e.hidden && !e.spread && !linked.has(e.id) && elementKind(e.kind).role !== 'ground',
  );
  const b = uprightBounds(element.box);
  const to = snapBox(
    { ...b, x: b.x + dx, y: b.y + dy },
    others.map((e) => ({ name: e.name, ...uprightBounds(e.box) })),
    from,
    reach,
    drawn,
  );
  return { dx: to.x - b.x, dy: to.y - b.y, guides: to.guides };
}

/**
 * A move caught by what is near.
 * @param reach in frame pixels; 0 catches nothing
 * @param drawn guides of the shot, as lines of the frame
 */
export function snapped(
  from: ResolvedShot,
  element: ShotElement,
  dx: number,
  dy: number,
  reach: number,
  drawn: readonly Guide[] = [],
): Snapped {
  const { role, moved } = elementKind(element.kind);
  if (reach > 0 && isProduct(element)) return snappedBase(from, element, dx, dy, reach, drawn);
  if (reach > 0 && role === 'overlay' && !moved) return snappedBox(from, element, dx, dy, reach, drawn);
  return { dx, dy, guides: [] };
}

/** Puts an element into a box as it is written; what is linked moves by as much where it was only moved. */
export const placed =
  (now: ResolvedShot, element: ShotElement, box: Box, proportional: boolean, target: SlotTarget | null) =>
  (shot: Shot): Shot => {
    const { x, y, width, height, rotation } = element.box;
    const still = box.width === width && box.height === height && box.rotation === rotation;
    const others = still ? linkedWith(now, element.id).slice(1) : [];
    const first = placeElement(shot, baseLike(shot, element, target), box, target, proportional, element);
    return others.reduce((s, other) => {
      const to = { ...other.box, x: other.box.x + box.x - x, y: other.box.y + box.y - y };
      return placeElement(s, baseLike(s, other, target), to, target, false, other);
    }, first);
  };
