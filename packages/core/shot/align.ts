import { isProduct } from '../elements/product/model';
import type { Rect } from '../raster/pixels';
import { uprightBounds, type Box } from '../vector/box';
import { isGround, type ShotElement } from '../elements/index';
import { basePoint, scaledOnBase } from '../stage/stand';

export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom', 'bases'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** How far each element must move so that all are aligned with the first; by its id. */
export function alignMoves(
  elements: readonly ShotElement[],
  how: Alignment,
): Map<string, { x: number; y: number }> {
  const moves = new Map<string, { x: number; y: number }>();
  const [first] = elements;
  if (!first) return moves;
  const edge = (e: ShotElement): number => {
    const b = uprightBounds(e.box);
    switch (how) {
      case 'left':
        return b.x;
      case 'centre':
        return b.x + b.width / 2;
      case 'right':
        return b.x + b.width;
      case 'top':
        return b.y;
      case 'middle':
        return b.y + b.height / 2;
      case 'bottom':
        return b.y + b.height;
      case 'bases':
        return isProduct(e) ? basePoint(e).y : b.y + b.height;
    }
  };
  const across = how === 'left' || how === 'centre' || how === 'right';
  for (const e of elements) {
    const by = edge(first) - edge(e);
    moves.set(e.id, across ? { x: by, y: 0 } : { x: 0, y: by });
  }
  return moves;
}

/** Each element's box at the first one's width or height, in its own proportions: on its base, or about its middle. */
export function sameSizeBoxes(elements: readonly ShotElement[], side: 'width' | 'height'): Map<string, Box> {
  const boxes = new Map<string, Box>();
  for (const e of elements.slice(1)) {
    const k = elements[0].box[side] / e.box[side];
    const { x, y, width, height, rotation } = e.box;
    boxes.set(
      e.id,
      isProduct(e)
        ? scaledOnBase(e, k)
        : {
            x: x + (width * (1 - k)) / 2,
            y: y + (height * (1 - k)) / 2,
            width: width * k,
            height: height * k,
            rotation,
          },
    );
  }
  return boxes;
}

/** The elements that a frame touches, back to front: what a rectangle drawn over them chooses. */
export function touchedBy(elements: readonly ShotElement[], frame: Rect): string[] {
  return elements
    .filter((e) => {
      if (e.hidden || e.locked || isGround(e)) return false;
      const b = uprightBounds(e.box);
      return (
        b.x < frame.x + frame.width &&
        b.x + b.width > frame.x &&
        b.y < frame.y + frame.height &&
        b.y + b.height > frame.y
      );
    })
    .map((e) => e.id);
}

/** How far each must move so that the gaps between them are equal; the outermost two stay. */
export function distributeMoves(
  elements: readonly ShotElement[],
  axis: 'x' | 'y',
): Map<string, { x: number; y: number }> {
  const size = axis === 'x' ? 'width' : 'height';
  const list = elements
    .map((e) => ({ id: e.id, b: uprightBounds(e.box) }))
    .sort((p, q) => p.b[axis] + p.b[size] / 2 - (q.b[axis] + q.b[size] / 2));
  const moves = new Map<string, { x: number; y: number }>();
  if (list.length < 3) return moves;
  const first = list[0].b;
  const last = list[list.length - 1].b;
  const room = last[axis] + last[size] - first[axis];
  const gap = (room - list.reduce((s, { b }) => s + b[size], 0)) / (list.length - 1);
  let at = first[axis];
  for (const { id, b } of list) {
    const by = at - b[axis];
    moves.set(id, axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by });
    at += b[size] + gap;
  }
  return moves;
}
