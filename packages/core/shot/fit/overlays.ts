import { isShape } from '../../elements/shape/model';
import { isMeasure } from '../../elements/measure/model';
import { uprightBounds } from '../../vector/box';
import { elementKind, scaledElement, type ShotElement } from '../../elements/index';
import type { SlotFrame } from './slot-frame';
import { shrunk, type Bounds } from '../../vector/outline';
import type { Shot } from '../document';
import { arrangeUnits, unitsOf, type Arranged } from './arrange-units';
import { cropped, overlapArea, within } from './bounds';
import { clashes, coveredBounds } from './covered';
import { dividers, stretched, changesOrientation } from './divide';
import { importanceOrder } from './importance';
import { homeOf, roomsBeside } from './rooms';

/** Overlays in the slot: stretched, clinging to the product, at their corners, or arranged anew. */
export function placeOverlays(
  shot: Shot,
  overlays: readonly ShotElement[],
  group: Bounds | null,
  product: Bounds | null,
  slot: SlotFrame,
  scale: number,
  pinned: ReadonlySet<string>,
): Arranged {
  const { frame } = shot;
  const elements = new Map<string, ShotElement>();
  const dropped: string[] = [];
  const panels = dividers(overlays, frame);
  const over = changesOrientation(panels, frame, slot);
  for (const e of shot.elements)
    if (e.spread && elementKind(e.kind).role === 'overlay')
      elements.set(e.id, {
        ...scaledElement(e, scale),
        box: { ...e.box, ...stretched(e.box, frame, slot, over && panels.includes(e)) },
      });
  const free = overlays.filter((e) => !e.spread);
  const backing = group && product ? free.filter((e) => backs(e, shot.elements, group)) : [];
  for (const e of backing) elements.set(e.id, withProduct(e, group!, product!));
  const clinging = free.filter((e) => elementKind(e.kind).pointsAtProduct?.(e));
  const ornaments = free.filter((e) => isShape(e) && e.form === 'decoration' && !backing.includes(e));
  for (const e of ornaments) elements.set(e.id, anchorOverlay(e, frame, slot, scale));
  const moving = free.filter(
    (e) => !clinging.includes(e) && !backing.includes(e) && !ornaments.includes(e) && !pinned.has(e.id),
  );
  const natural = moving.map((e) => anchorOverlay(e, frame, slot, scale));
  const shape = slot.width / slot.height / (frame.width / frame.height);
  // Panels carry what lies on them along, whatever the shape.
  const anew =
    (moving.length > 1 && (shape > 1.9 || shape < 1 / 1.9)) ||
    (panels.length > 0 && (shape > 1.15 || shape < 1 / 1.15)) ||
    clashes(moving, natural, group, product, slot);
  if (!anew) natural.forEach((e) => elements.set(e.id, e));
  else {
    const order = importanceOrder(shot.elements, shot.importance);
    const safe = Math.max(slot.safeShare, 0.02) * Math.min(slot.width, slot.height);
    const bases = panels.map((p) => cropped(uprightBounds(p.box), frame));
    const outside = roomsBeside({ x: 0, y: 0, ...frame }, bases, 0)[0] ?? { x: 0, y: 0, ...frame };
    const homes = [...bases, outside];
    const belongs = moving.map((e) => {
      const home = homeOf(e.box, bases);
      return home < 0 ? bases.length : home;
    });
    homes.forEach((home, i) => {
      const units = unitsOf(
        moving.filter((_, n) => belongs[n] === i),
        order,
      );
      if (!units.length) return;
      const region = shrunk(
        panels.length
          ? stretched(home, frame, slot, over)
          : { x: 0, y: 0, width: slot.width, height: slot.height },
        safe,
      );
      const gap = Math.min(slot.width, slot.height) * 0.05;
      const strip = shape > 1.9 || shape < 1 / 1.9;
      const behind = strip ? [] : backing.map((e) => elements.get(e.id)!.box);
      const rooms = roomsBeside(region, product ? [product, ...behind] : [], gap);
      if (!rooms.length) {
        // A product that takes all of its part leaves no room beside it: overlays keep to their corners on it.
        natural.forEach((e, n) => belongs[n] === i && elements.set(e.id, e));
        return;
      }
      const found = arrangeUnits(units, rooms, scale, slot, pinned, panels.length === 0);
      for (const [id, e] of found.elements) elements.set(id, e);
      dropped.push(...found.dropped);
    });
  }
  if (anew)
    for (const e of ornaments) {
      const placed = elements.get(e.id)!;
      const was = moving.reduce((sum, m) => sum + overlapArea(coveredBounds(m), e.box), 0);
      const over = moving.some((m) => {
        const now = elements.get(m.id);
        if (!now || now.hidden) return false;
        const b = coveredBounds(now);
        return overlapArea(b, placed.box) > 0.02 * b.width * b.height;
      });
      // An ornament that runs into words it was clear of in the base is left out.
      if (over && was === 0 && !pinned.has(e.id)) dropped.push(e.id);
    }
  clinging.forEach((e) => {
    const placed = clingTo(e, group, product, frame, slot, scale);
    const small = Math.min(slot.width, slot.height) < 420 || !product;
    const hides = [...elements.values()].some(
      (o) =>
        !o.hidden &&
        !o.spread &&
        overlapArea(coveredBounds(o), placed.box) > 0.1 * placed.box.width * placed.box.height,
    );
    const follows = !!elementKind(e.kind).attached && isMeasure(e);
    if (!pinned.has(e.id) && (small || (anew && hides && !follows))) dropped.push(e.id);
    else elements.set(e.id, placed);
  });
  return { elements, dropped };
}

/** A shape behind the product that it stands before, such as an arch. */
function backs(e: ShotElement, elements: readonly ShotElement[], group: Bounds): boolean {
  if (!isShape(e) || e.form === 'line' || e.form === 'arrow' || e.form === 'icon') return false;
  const first = elements.findIndex((o) => elementKind(o.kind).role === 'subject' && !o.hidden);
  if (elements.indexOf(e) > first) return false;
  return overlapArea(e.box, group) > 0.55 * group.width * group.height;
}

/** Moved and scaled as the product is. */
function withProduct(e: ShotElement, group: Bounds, product: Bounds): ShotElement {
  const k = product.width / group.width;
  return {
    ...scaledElement(e, k),
    box: {
      ...e.box,
      x: product.x + (e.box.x - group.x) * k,
      y: product.y + (e.box.y - group.y) * k,
      width: e.box.width * k,
      height: e.box.height * k,
    },
  };
}

/** What points at the product keeps its distance from it, inside the frame. */
function clingTo(
  e: ShotElement,
  group: Bounds | null,
  product: Bounds | null,
  frame: { width: number; height: number },
  slot: SlotFrame,
  scale: number,
): ShotElement {
  if (!group || !product) return anchorOverlay(e, frame, slot, scale);
  const safe = slot.safeShare * Math.min(slot.width, slot.height);
  const k = Math.min(product.width / group.width, product.height / group.height, scale * 1.3);
  const [width, height] = [e.box.width * k, e.box.height * k];
  const kp = product.width / group.width;
  // Its middle moves with the products' middle.
  const cx = product.x + product.width / 2 + (e.box.x + e.box.width / 2 - group.x - group.width / 2) * kp;
  const cy = product.y + product.height / 2 + (e.box.y + e.box.height / 2 - group.y - group.height / 2) * kp;
  return {
    ...scaledElement(e, k),
    box: {
      ...e.box,
      x: within(cx - width / 2, safe, slot.width - safe - width),
      y: within(cy - height / 2, safe, slot.height - safe - height),
      width,
      height,
    },
  };
}

/** An overlay keeps its distance to the edge, corner or middle line it is nearest to, inside the safe margin. */
export function anchorOverlay(
  element: ShotElement,
  frame: { width: number; height: number },
  slot: SlotFrame,
  scale: number,
): ShotElement {
  const bounds = uprightBounds(element.box);
  const safe = slot.safeShare * Math.min(slot.width, slot.height);
  const k = Math.min(scale, (slot.width - 2 * safe) / bounds.width, (slot.height - 2 * safe) / bounds.height);
  const along = (start: number, size: number, frameSize: number, slotSize: number): number => {
    const middle = (start + size / 2) / frameSize;
    const far = frameSize - start - size;
    let at: number;
    if (middle < 0.36) at = start * k;
    else if (middle > 0.64) at = slotSize - (far + size) * k;
    else at = middle * slotSize - (size * k) / 2;
    return within(at, safe, slotSize - safe - size * k);
  };
  const x = along(bounds.x, bounds.width, frame.width, slot.width);
  const y = along(bounds.y, bounds.height, frame.height, slot.height);
  const scaled = scaledElement(element, k);
  const width = element.box.width * k;
  const height = element.box.height * k;
  return {
    ...scaled,
    box: {
      ...element.box,
      x: x + (bounds.width * k - width) / 2,
      y: y + (bounds.height * k - height) / 2,
      width,
      height,
    },
  };
}
