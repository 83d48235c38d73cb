import { isBackdrop } from '../elements/backdrop/model';
import { elementKind, scaledElement, type ShotElement } from '../elements/index';
import type { Shot } from './document';
import { fitToSlot } from './fit/fit-to-slot';
import type { SlotFrame } from './fit/slot-frame';
import { groundBox } from './resolve';

interface Frame {
  width: number;
  height: number;
}

/** What becomes of a shot's content when its picture gets another size. */
export const RESIZINGS = ['keep', 'scale', 'arrange'] as const;
export type Resizing = (typeof RESIZINGS)[number];

/**
 * The shot in another frame. `keep` leaves everything at its size about the middle, `scale` grows or shrinks it with the
 * picture, `arrange` places it anew as for a slot. A scene covers either frame, and products stay where they stand in it.
 * What slots do differently stays as it is; guides keep their share of the picture.
 */
export function resizedShot(shot: Shot, frame: Frame, how: Resizing): Shot {
  const kx = frame.width / shot.frame.width;
  const ky = frame.height / shot.frame.height;
  if (kx === 1 && ky === 1) return shot;
  const guides = shot.guides?.map(({ axis, at }) => ({ axis, at: at * (axis === 'x' ? kx : ky) }));
  const elements = how === 'arrange' ? fitToSlot(shot, anySlot(frame)).elements : moved(shot, frame, how);
  return { ...shot, frame, elements, ...(guides && { guides }) };
}

const anySlot = (frame: Frame): SlotFrame => ({
  ...frame,
  background: { kind: 'any' },
  coverage: { min: null, max: null, wanted: null },
  marginShare: 0.03,
  safeShare: 0.04,
});

function moved(shot: Shot, frame: Frame, how: 'keep' | 'scale'): ShotElement[] {
  const plain = moveBy(
    shot.frame,
    frame,
    how === 'keep' ? 1 : Math.min(frame.width / shot.frame.width, frame.height / shot.frame.height),
  );
  const scene = shot.elements.find((e) => isBackdrop(e) && e.fill.type === 'scene' && !e.hidden);
  const withScene =
    scene && isBackdrop(scene)
      ? between(
          groundBox(scene, shot.frame.width, shot.frame.height),
          groundBox(scene, frame.width, frame.height),
        )
      : plain;
  return shot.elements.map((element) => {
    if (isBackdrop(element)) return { ...element, box: groundBox(element, frame.width, frame.height) };
    const { k, x, y } = elementKind(element.kind).role === 'subject' ? withScene : plain;
    const { box } = element;
    return {
      ...scaledElement(element, k),
      box: { ...box, x: box.x * k + x, y: box.y * k + y, width: box.width * k, height: box.height * k },
    };
  });
}

/** A scaling about the middles of two frames. */
const moveBy = (from: Frame, to: Frame, k: number) => ({
  k,
  x: (to.width - from.width * k) / 2,
  y: (to.height - from.height * k) / 2,
});

/** The scaling that takes one rectangle to another of its shape. */
function between(from: Frame & { x: number; y: number }, to: Frame & { x: number; y: number }) {
  const k = to.width / from.width;
  return { k, x: to.x - from.x * k, y: to.y - from.y * k };
}
