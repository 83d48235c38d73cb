import type { Box } from '../vector/box';
import { elementKind, scaledElement, type ShotElement } from '../elements/index';
import { elementBounds } from '../elements/product/pack';
import type { SlotFrame } from './fit/slot-frame';
import { groundOf } from '../elements/ground-of';
import type { Shot } from './document';
import { rescaledFit } from './rescaled-fit';
import type { ResolvedShot } from './resolve';

/** Edits are plain functions: a shot in, a new shot out. */

/** Stands for the base where a slot's key is asked for. */
export const BASE = '';

/** An id that no element of the shot has. */
export function newId(kind: string, shot: Shot): string {
  for (let n = 1; ; n++) if (!shot.elements.some((e) => e.id === `${kind}-${n}`)) return `${kind}-${n}`;
}

/** The shot with some keys of one element changed for one slot alone, or in the base where the key is BASE. */
export function patchFit(
  shot: Shot,
  slotKey: string,
  slot: Pick<SlotFrame, 'width' | 'height'>,
  elementId: string,
  patch: Partial<ShotElement>,
): Shot {
  if (slotKey === BASE)
    return {
      ...shot,
      elements: shot.elements.map((e) => (e.id === elementId ? ({ ...e, ...patch } as ShotElement) : e)),
    };
  const frame = { width: slot.width, height: slot.height };
  const old = shot.fits[slotKey];
  const kept = old ? rescaledFit(old, frame) : {};
  return {
    ...shot,
    fits: {
      ...shot.fits,
      [slotKey]: {
        frame,
        elements: { ...kept, [elementId]: { ...kept[elementId], ...patch } as Partial<ShotElement> },
      },
    },
  };
}

/** What a new box changes of an element: with it goes what the box was measured by, so that it holds for all variants. */
export const boxPatch = (seen: ShotElement, box: Box): Partial<ShotElement> =>
  ({ ...elementKind(seen.kind).placedBy?.(seen), box }) as Partial<ShotElement>;

/** The shot with one slot's differences taken back: all of them, those of one element, or one value of it. */
export function resetFit(shot: Shot, slotKey: string, elementId?: string, key?: string): Shot {
  const fit = shot.fits[slotKey];
  if (!fit) return shot;
  const fits = { ...shot.fits };
  const elements = { ...fit.elements };
  if (elementId) {
    const base = shot.elements.find((e) => e.id === elementId);
    const rest = key && base ? withoutValue(base, elements[elementId] ?? {}, key).rest : {};
    if (Object.keys(rest).length) elements[elementId] = rest;
    else delete elements[elementId];
  }
  if (!elementId || !Object.keys(elements).length) delete fits[slotKey];
  else fits[slotKey] = { ...fit, elements };
  return { ...shot, fits };
}

/** The values that a slot has of its own of an element, by key: what goes with another value goes without saying. */
export function ownValues(base: ShotElement, difference: Partial<ShotElement>): string[] {
  const measures = difference.box ? Object.keys(elementKind(base.kind).placedBy?.(base) ?? {}) : [];
  return Object.keys(difference).filter((key) => key !== 'brand' && !measures.includes(key));
}

/**
 * A difference parted in one value and the rest. A box takes along what it was measured by, a value what of the brand kit
 * it follows.
 */
function withoutValue(base: ShotElement, difference: Partial<ShotElement>, key: string) {
  const measures = key === 'box' ? Object.keys(elementKind(base.kind).placedBy?.(base) ?? {}) : [];
  const mine = new Set([key, ...measures]);
  const part = (own: boolean) =>
    Object.fromEntries(Object.entries(difference).filter(([k]) => k !== 'brand' && mine.has(k) === own));
  const value: Partial<ShotElement> = part(true);
  const rest: Partial<ShotElement> = part(false);
  const { brand } = difference;
  if (brand) {
    const of = (entries: Record<string, string>, own: boolean) =>
      Object.entries(entries).filter(([path]) => mine.has(path.split('.')[0]) === own);
    value.brand = Object.fromEntries([...of(base.brand, false), ...of(brand, true)]);
    const left = Object.fromEntries([...of(brand, false), ...of(base.brand, true)]);
    if (Object.keys(rest).length) rest.brand = left;
  }
  return { value, rest };
}

/**
 * What one slot does differently with an element, or one value of that, becomes the base's, and the slot follows it again.
 * Places are carried over as shares of the frame; an overlay keeps its size in proportion to the frames' areas.
 */
export function makeBase(
  shot: Shot,
  resolved: ResolvedShot,
  slotKey: string,
  elementId: string,
  key?: string,
): Shot {
  const difference = shot.fits[slotKey]?.elements[elementId];
  const base = shot.elements.find((e) => e.id === elementId);
  const placed = resolved.elements.find((e) => e.id === elementId);
  if (!difference || !base || !placed) return shot;
  const { box: moved, ...own } = key ? withoutValue(base, difference, key).value : difference;
  const { frame } = shot;
  const k = Math.sqrt((frame.width * frame.height) / (resolved.width * resolved.height));
  const elements = shot.elements.map((e): ShotElement => {
    if (e.id !== elementId) return e;
    const next = { ...e, ...own } as ShotElement;
    if (!moved) return next;
    const { box } = placed;
    const [width, height] = [box.width * k, box.height * k];
    const x = ((box.x + box.width / 2) / resolved.width) * frame.width - width / 2;
    const y = ((box.y + box.height / 2) / resolved.height) * frame.height - height / 2;
    const scaled = scaledElement(next, width / next.box.width);
    return { ...scaled, box: { x, y, width, height, rotation: box.rotation } };
  });
  return resetFit({ ...shot, elements }, slotKey, elementId, key);
}

/** Products scaled about their common middle so that they take `target` of the slot's frame, kept inside its margins. */
export function scaleSubjects(
  shot: Shot,
  resolved: ResolvedShot,
  slotKey: string,
  slot: SlotFrame,
  target: number,
): Shot {
  const subjects = visibleSubjects(resolved);
  const bounds = unionBounds(subjects, resolved);
  if (!bounds) return shot;
  const k = target / Math.max(bounds.width / slot.width, bounds.height / slot.height);
  const cx = bounds.x + bounds.width / 2;
  const cy = bounds.y + bounds.height / 2;
  const scaled = subjects.map((e) => ({
    ...e,
    box: {
      ...e.box,
      x: cx + (e.box.x - cx) * k,
      y: cy + (e.box.y - cy) * k,
      width: e.box.width * k,
      height: e.box.height * k,
    },
  }));
  return keepInside(shot, scaled, resolved, slotKey, slot);
}

/** Products moved, and made smaller only if they must be, until they lie inside the slot's margins. */
export function recentreSubjects(shot: Shot, resolved: ResolvedShot, slotKey: string, slot: SlotFrame): Shot {
  return keepInside(shot, visibleSubjects(resolved), resolved, slotKey, slot);
}

function keepInside(
  shot: Shot,
  subjects: ShotElement[],
  resolved: ResolvedShot,
  slotKey: string,
  slot: SlotFrame,
): Shot {
  const bounds = unionBounds(subjects, resolved);
  if (!bounds) return shot;
  const margin = slot.marginShare * Math.min(slot.width, slot.height) + 1;
  const k = Math.min(1, (slot.width - 2 * margin) / bounds.width, (slot.height - 2 * margin) / bounds.height);
  const width = bounds.width * k;
  const height = bounds.height * k;
  const x = Math.min(Math.max(bounds.x + (bounds.width - width) / 2, margin), slot.width - margin - width);
  const y = Math.min(
    Math.max(bounds.y + (bounds.height - height) / 2, margin),
    slot.height - margin - height,
  );
  return subjects.reduce((s, e) => {
    const box: Box = {
      ...e.box,
      x: x + (e.box.x - bounds.x) * k,
      y: y + (e.box.y - bounds.y) * k,
      width: e.box.width * k,
      height: e.box.height * k,
    };
    return patchFit(s, slotKey, slot, e.id, boxPatch(e, box));
  }, shot);
}

function visibleSubjects(resolved: ResolvedShot): ShotElement[] {
  return resolved.elements.filter((e) => elementKind(e.kind).role === 'subject' && !e.hidden);
}

function unionBounds(elements: ShotElement[], resolved: ResolvedShot) {
  if (!elements.length) return null;
  const ground = groundOf(resolved.elements);
  const frame = { width: resolved.width, height: resolved.height };
  const list = elements.map((e) => elementBounds(e, ground, frame));
  const x = Math.min(...list.map((b) => b.x));
  const y = Math.min(...list.map((b) => b.y));
  return {
    x,
    y,
    width: Math.max(...list.map((b) => b.x + b.width)) - x,
    height: Math.max(...list.map((b) => b.y + b.height)) - y,
  };
}
