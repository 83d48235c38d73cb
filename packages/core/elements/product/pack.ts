import { movedOnGround, basePoint, scaledOnBase, groundPlacement, trueSizeBox } from '../../stage/stand';
import { placesOf } from '../../stage/arrange';
import type { Ground } from '../../stage/ground';
import { fromStand } from '../../stage/stand-frame';
import { project } from '../../stage/camera';
import { uprightBounds } from '../../vector/box';
import type { ShotElement } from '../index';
import { isProduct, type ProductElement } from './model';

/**
 * A pack's copies as products of their own, back to front: on a ground each stands on its own place of the plane at
 * its own perspective, before a plain backdrop they stand in the picture.
 */
export function packCopies(
  element: ProductElement,
  ground: Ground | null,
  frame: { width: number; height: number },
): ProductElement[] {
  const { pack } = element;
  if (!pack) return [element];
  const places = placesOf(pack);
  const standing = groundPlacement(element, ground, frame);
  const at = basePoint(element);
  const kinds = pack.others.length + 1;
  const copies = places.map((place, i): ProductElement & { away: number } => {
    const other = pack.others[(i % kinds) - 1];
    const own: ProductElement = other
      ? {
          ...element,
          picture: other.picture,
          base: null,
          ownShadow: null,
          millimetres: null,
          box: otherBox(element, other),
        }
      : element;
    const id = i === 0 ? element.id : `${element.id}#${i + 1}`;
    const made = { ...own, id, pack: null, away: place.away };
    const across = place.x * element.box.width;
    const up = place.up * element.box.height;
    if (ground && standing && element.pose !== 'flat') {
      const step = element.box.width / standing.scale;
      const to = project(standing.camera, fromStand(standing.stand, place.x * step, place.away * step));
      const here = project(standing.camera, fromStand(standing.stand, 0, 0));
      if (to && here) {
        const target = { x: at.x + to.x - here.x, y: at.y + to.y - here.y - up };
        const from = basePoint(made);
        const shifted = {
          ...made,
          box: { ...made.box, x: made.box.x + at.x - from.x, y: made.box.y + at.y - from.y },
        };
        return { ...shifted, box: movedOnGround(shifted, target, ground, frame) };
      }
    }
    // Without a plane what is further away stands a little higher and is a little smaller.
    const depth = place.away * element.box.width;
    const pitch = Math.sin(((standing?.photoPitch ?? 15) * Math.PI) / 180);
    const smaller = 1 / (1 + Math.max(-0.4, place.away * 0.055));
    const from = basePoint(made);
    const box = scaledOnBase(made, smaller);
    return {
      ...made,
      box: {
        ...box,
        x: box.x + at.x - from.x + across * smaller,
        y: box.y + at.y - from.y - depth * pitch - up,
      },
    };
  });
  // Those further away are painted first; of the same depth the front one last.
  const order = copies.map((copy, i) => ({ copy, i }));
  const sign = pack.front === 'first' ? -1 : 1;
  order.sort((a, b) => b.copy.away - a.copy.away || sign * (a.i - b.i));
  return order.map(({ copy }) => {
    const { away: _, ...product } = copy;
    return product;
  });
}

function otherBox(element: ProductElement, other: { width: number; aspect: number }): ProductElement['box'] {
  const width = element.box.width * other.width;
  return { ...element.box, width, height: width * other.aspect };
}

/** All elements with every pack spread out. */
export function spreadPacks(
  elements: readonly ShotElement[],
  ground: Ground | null,
  frame: { width: number; height: number },
): ShotElement[] {
  return elements.flatMap((e) => (isProduct(e) && e.pack ? packCopies(e, ground, frame) : [e]));
}

/** The upright rectangle around an element, with all copies of a pack. */
export function elementBounds(
  element: ShotElement,
  ground: Ground | null,
  frame: { width: number; height: number },
): { x: number; y: number; width: number; height: number } {
  if (!isProduct(element) || !element.pack) return uprightBounds(element.box);
  const all = packCopies(element, ground, frame).map((c) => uprightBounds(c.box));
  const x = Math.min(...all.map((b) => b.x));
  const y = Math.min(...all.map((b) => b.y));
  return {
    x,
    y,
    width: Math.max(...all.map((b) => b.x + b.width)) - x,
    height: Math.max(...all.map((b) => b.y + b.height)) - y,
  };
}

/** The share of the frame that a pack may take. */
const ROOM = 0.88;

/**
 * The box at which a pack fits the frame, base where it was or moved just so far that the pack lies inside. On a
 * ground where products know their size it stays, or comes back to, true size where there is room for that; else it
 * takes all the room there is.
 */
export function fitPack(
  element: ProductElement,
  ground: Ground | null,
  frame: { width: number; height: number },
): ProductElement['box'] {
  let next = { ...element, box: trueSizeBox(element, ground, frame) ?? element.box };
  const sized = ground !== null && groundPlacement(element, ground, frame)?.ratio != null;
  // Perspective makes the extent grow otherwise than the product: a few rounds settle it.
  for (let i = 0; i < 4; i++) {
    const b = elementBounds(next, ground, frame);
    const k = ROOM / Math.max(b.width / frame.width, b.height / frame.height);
    if (k < 0.999 || (!sized && k > 1.001)) next = { ...next, box: scaledOnBase(next, k) };
    const now = elementBounds(next, ground, frame);
    const inside = (start: number, size: number, room: number) =>
      size > room ? (room - size) / 2 - start : Math.min(Math.max(0, start), room - size) - start;
    const dx = inside(now.x, now.width, frame.width);
    const dy = inside(now.y, now.height, frame.height);
    next = { ...next, box: { ...next.box, x: next.box.x + dx, y: next.box.y + dy } };
  }
  return next.box;
}
