import { elementKind, isGround, type ShotElement } from '@scenograph/core/elements/index';
import type { Box } from '@scenograph/core/vector/box';
import { boxPatch, patchFit } from '@scenograph/core/shot/edit';
import type { Shot } from '@scenograph/core/shot/document';
import type { Slot } from '@scenograph/core/spec/slot';

/** Where an edit goes: the base (null), or one slot's differences. */
export interface SlotTarget {
  key: string;
  slot: Slot;
}

/** The shot with some keys of one element changed, in the base or for one slot alone. */
export function patchElement(
  shot: Shot,
  id: string,
  patch: Partial<ShotElement>,
  target: SlotTarget | null,
): Shot {
  if (target) return patchFit(shot, target.key, target.slot, id, patch);
  return {
    ...shot,
    elements: shot.elements.map((e) => (e.id === id ? ({ ...e, ...patch } as ShotElement) : e)),
  };
}

/**
 * The shot with an element put into a new box. In the base, lengths of the element's own (a text's size) grow
 * with its width when it is scaled in proportion.
 * @param seen the element as it is on the stage, by which the box was measured
 */
export function placeElement(
  shot: Shot,
  element: ShotElement,
  box: Box,
  target: SlotTarget | null,
  proportional: boolean,
  seen: ShotElement = element,
): Shot {
  const rounded: Box = {
    x: round(box.x),
    y: round(box.y),
    width: Math.max(4, round(box.width)),
    height: Math.max(4, round(box.height)),
    rotation: round(box.rotation),
  };
  if (target || !proportional) return patchElement(shot, element.id, boxPatch(seen, rounded), target);
  const scaled = elementKind(element.kind).scaled(element, rounded.width / element.box.width) as ShotElement;
  return {
    ...shot,
    elements: shot.elements.map((e) =>
      e.id === element.id ? ({ ...scaled, ...boxPatch(seen, rounded) } as ShotElement) : e,
    ),
  };
}

const round = (v: number) => Math.round(v * 100) / 100;

export function addElement(shot: Shot, element: ShotElement): Shot {
  return { ...shot, elements: [...shot.elements, element] };
}

export function removeElement(shot: Shot, id: string): Shot {
  const fits = Object.fromEntries(
    Object.entries(shot.fits).flatMap(([key, fit]) => {
      const { [id]: _, ...elements } = fit.elements;
      return Object.keys(elements).length ? [[key, { ...fit, elements }]] : [];
    }),
  );
  return { ...shot, elements: shot.elements.filter((e) => e.id !== id), fits };
}

/** The shot with one element moved to another depth (0 is the back); a ground stays under everything else. */
export function moveDepth(shot: Shot, id: string, to: number): Shot {
  const from = shot.elements.findIndex((e) => e.id === id);
  if (from < 0) return shot;
  const elements = [...shot.elements];
  const [element] = elements.splice(from, 1);
  // A ground lies under everything: nothing goes behind it, and it comes before nothing.
  const grounds = elements.filter(isGround).length;
  const [lowest, highest] = isGround(element) ? [0, grounds] : [grounds, elements.length];
  elements.splice(Math.min(highest, Math.max(lowest, to)), 0, element);
  return { ...shot, elements };
}
