import { uprightBounds, type Box } from '../elements/element';
import { elementKind, scaledElement, type ShotElement } from '../elements/index';
import { elementBounds } from '../elements/product/pack';
import type { Slot } from '../spec/slot';
import { groundOf } from '../stage/ground';
import type { Bounds } from '../vector/outline';
import {
  arrangeUnits,
  clashes,
  coveredBounds,
  homeOf,
  importanceOrder,
  overlapArea,
  roomsBeside,
  unitsOf,
  type Arranged,
} from './arrange-overlays';
import type { Shot } from './document';

/** A picture placed so that it covers a frame, with its focus as near to the same share of the frame as can be. */
export function coverBox(
  pictureWidth: number,
  pictureHeight: number,
  focus: { x: number; y: number },
  width: number,
  height: number,
  zoom = 1,
): Box {
  const k = Math.max(width / pictureWidth, height / pictureHeight) * zoom;
  const w = pictureWidth * k;
  const h = pictureHeight * k;
  const x = clamp(width / 2 - focus.x * w, width - w, 0);
  const y = clamp(height / 2 - focus.y * h, height - h, 0);
  return { x, y, width: w, height: h, rotation: 0 };
}

export interface Fitted {
  elements: ShotElement[];
  /** Ids of overlays that the rules left out for want of room. */
  dropped: string[];
}

/**
 * Places a shot's elements in a slot's frame by rule:
 * grounds cover the frame; products and a scene move as one, so that a product stays where it stands, at the
 * slot's wanted coverage and whole inside its margins; overlays keep to their nearest edge or corner, inside
 * the safe margin. Where a scene cannot both cover the frame and hold the product whole, the product alone is
 * made smaller on its base. Where overlays would get in each other's or the product's way, or could not be read, they
 * are arranged anew beside the product and the least important are dropped.
 * @param pinned ids that the slot places itself or wants to be shown
 */
export function fitToSlot(shot: Shot, slot: Slot, pinned: ReadonlySet<string> = new Set()): Fitted {
  const scene = shot.elements.find((e) => e.kind === 'backdrop' && e.fill.type === 'scene' && !e.hidden);
  const subjects = shot.elements.filter((e) => elementKind(e.kind).role === 'subject' && !e.hidden);
  const ground = groundOf(shot.elements);
  const group = union(subjects.map((e) => elementBounds(e, ground, shot.frame)));
  const sceneBox =
    scene?.kind === 'backdrop' && scene.fill.type === 'scene'
      ? coverBox(
          scene.fill.survey.width,
          scene.fill.survey.height,
          scene.fill.focus,
          shot.frame.width,
          shot.frame.height,
          scene.fill.zoom,
        )
      : null;
  const overlays = shot.elements.filter((e) => elementKind(e.kind).role === 'overlay' && !e.hidden);
  const zone = sceneBox ? null : subjectZone(shot, overlays, group, slot);
  const move =
    zone && group ? zoneMove(zone, group, shot.frame, slot) : groupMove(shot.frame, group, sceneBox, slot);
  const overlayScale = Math.sqrt((slot.width * slot.height) / (shot.frame.width * shot.frame.height));
  const product = group && placedGroup(group, move);
  const arranged = placeOverlays(shot, overlays, group, product, slot, overlayScale, pinned);

  const elements = shot.elements.map((element) => {
    const { role } = elementKind(element.kind);
    if (element.kind === 'backdrop') {
      if (element.fill.type !== 'scene' || !sceneBox)
        return { ...element, box: { x: 0, y: 0, width: slot.width, height: slot.height, rotation: 0 } };
      return { ...element, box: moveBox(sceneBox, move.k, move.x, move.y) };
    }
    if (role === 'subject') {
      const box = moveBox(element.box, move.k, move.x, move.y);
      const scaled = scaledElement(element, move.k * move.shrink);
      if (move.shrink === 1) return { ...scaled, box };
      const base = { x: move.baseX, y: move.baseY };
      return {
        ...scaled,
        box: {
          ...box,
          x: base.x + (box.x - base.x) * move.shrink + move.shiftX,
          y: base.y + (box.y - base.y) * move.shrink + move.shiftY,
          width: box.width * move.shrink,
          height: box.height * move.shrink,
        },
      };
    }
    if (arranged.dropped.includes(element.id)) return { ...element, hidden: true };
    return arranged.elements.get(element.id) ?? anchorOverlay(element, shot.frame, slot, overlayScale);
  });
  return { elements, dropped: arranged.dropped };
}

/** Where the products' bounds come to. */
function placedGroup(group: Bounds, m: GroupMove): Bounds {
  const at = { x: group.x * m.k + m.x, y: group.y * m.k + m.y };
  const size = { width: group.width * m.k, height: group.height * m.k };
  if (m.shrink === 1) return { ...at, ...size };
  return {
    x: m.baseX + (at.x - m.baseX) * m.shrink + m.shiftX,
    y: m.baseY + (at.y - m.baseY) * m.shrink + m.shiftY,
    width: size.width * m.shrink,
    height: size.height * m.shrink,
  };
}

/** Panels that stretch with the frame and divide it, without those that cover nearly all or nearly nothing of it. */
function dividers(overlays: readonly ShotElement[], frame: { width: number; height: number }): ShotElement[] {
  return overlays.filter((e) => {
    const share = (e.box.width * e.box.height) / (frame.width * frame.height);
    return e.spread && e.kind === 'shape' && e.form === 'panel' && share > 0.12 && share < 0.88;
  });
}

/**
 * The part of a slot that products are given where no scene says where they stand: the part that stretching panels
 * leave them, or one side of a strip. Null where the whole frame is theirs.
 */
function subjectZone(
  shot: Shot,
  overlays: readonly ShotElement[],
  group: Bounds | null,
  slot: Slot,
): { from: Bounds; to: Bounds } | null {
  if (!group || slot.coverage.min !== null) return null;
  const { frame } = shot;
  const whole = { x: 0, y: 0, ...frame };
  const panels = dividers(overlays, frame);
  if (panels.length) {
    const boxes = panels.map((p) => cropped(uprightBounds(p.box), frame));
    const home = homeOf(group, boxes);
    const from = home >= 0 ? boxes[home] : roomsBeside(whole, boxes, 0)[0];
    if (!from) return null;
    const to = stretched(from, frame, slot, turnsOver(panels, frame, slot));
    const words = overlays.some((e) => !e.spread && e.kind === 'text' && homeOf(e.box, [from]) === 0);
    // Words that share the products' part stand beside them where it is wide.
    if (!words || to.width < to.height * 1.7) return { from, to };
    return { from, to: { ...to, x: to.x + to.width * 0.45, width: to.width * 0.55 } };
  }
  const moving = overlays.filter((e) => !e.spread && !elementKind(e.kind).clings?.(e));
  const shape = slot.width / slot.height / (frame.width / frame.height);
  if (!moving.length || (shape < 1.9 && shape > 1 / 1.9)) return null;
  const margin = Math.max(slot.marginShare, slot.safeShare) * Math.min(slot.width, slot.height);
  const mass = union(moving.map(coveredBounds))!;
  const middle = (b: Bounds) => ({ x: b.x + b.width / 2, y: b.y + b.height / 2 });
  const wide = shape >= 1.9;
  if (wide) {
    const width = Math.min(slot.width * 0.42, ((slot.height - 2 * margin) * group.width) / group.height);
    // The product keeps to its side of the words; a middle one goes to the right of them.
    const right = middle(group).x >= middle(mass).x - frame.width * 0.06;
    const x = right ? slot.width - margin - width : margin;
    return { from: group, to: { x, y: margin, width, height: slot.height - 2 * margin } };
  }
  const height = Math.min(slot.height * 0.44, ((slot.width - 2 * margin) * group.height) / group.width);
  const below = middle(group).y >= middle(mass).y - frame.height * 0.06;
  const y = below ? slot.height - margin - height : margin;
  return { from: group, to: { x: margin, y, width: slot.width - 2 * margin, height } };
}

/** The products take the same share of their part of the frame as in the base, at the same place of it. */
function zoneMove(
  { from, to }: { from: Bounds; to: Bounds },
  group: Bounds,
  frame: { width: number; height: number },
  slot: Slot,
): GroupMove {
  const share = Math.max(group.width / from.width, group.height / from.height);
  const margin = slot.marginShare * Math.min(slot.width, slot.height);
  // What is whole in the base is whole in the slot.
  const whole = Math.min((slot.width - 2 * margin) / group.width, (slot.height - 2 * margin) / group.height);
  const inBase =
    group.x >= 0 &&
    group.y >= 0 &&
    group.x + group.width <= frame.width &&
    group.y + group.height <= frame.height;
  const wanted = Math.min((to.width * share) / group.width, (to.height * share) / group.height);
  const k = inBase ? Math.min(wanted, whole) : wanted;
  const along = (start: number, size: number, a: number, length: number, b: number, room: number) => {
    const spare = length - size;
    const at = spare > 1 ? Math.min(1, Math.max(0, (start - a) / spare)) : 0.5;
    return b + at * (room - size * k);
  };
  let x = along(group.x, group.width, from.x, from.width, to.x, to.width);
  let y = along(group.y, group.height, from.y, from.height, to.y, to.height);
  if (inBase) {
    x = within(x, margin, slot.width - margin - group.width * k);
    y = within(y, margin, slot.height - margin - group.height * k);
  }
  return {
    k, x: x - group.x * k, y: y - group.y * k, shrink: 1, baseX: 0, baseY: 0, shiftX: 0, shiftY: 0,
  }; // prettier-ignore
}

/**
 * Whether panels that divide a frame side by side divide the slot one over the other, or the other way round: in a slot
 * far taller, or far wider, than the base.
 */
function turnsOver(
  panels: readonly ShotElement[],
  frame: { width: number; height: number },
  slot: Slot,
): boolean {
  const shape = slot.width / slot.height / (frame.width / frame.height);
  const sideBySide = panels.some((p) => p.box.height > 0.9 * frame.height);
  return panels.length > 0 && (sideBySide ? shape < 1 / 1.6 : shape > 1.9);
}

/** The part of a rectangle that lies in the frame. */
function cropped(b: Bounds, frame: { width: number; height: number }): Bounds {
  const [x, y] = [Math.max(0, b.x), Math.max(0, b.y)];
  return {
    x,
    y,
    width: Math.min(frame.width, b.x + b.width) - x,
    height: Math.min(frame.height, b.y + b.height) - y,
  };
}

function stretched(b: Bounds, frame: { width: number; height: number }, slot: Slot, over = false): Bounds {
  if (over) {
    const [kx, ky] = [slot.width / frame.height, slot.height / frame.width];
    return { x: b.y * kx, y: b.x * ky, width: b.height * kx, height: b.width * ky };
  }
  const [kx, ky] = [slot.width / frame.width, slot.height / frame.height];
  return { x: b.x * kx, y: b.y * ky, width: b.width * kx, height: b.height * ky };
}

/** Overlays in the slot: stretched, clinging to the product, at their corners, or arranged anew. */
function placeOverlays(
  shot: Shot,
  overlays: readonly ShotElement[],
  group: Bounds | null,
  product: Bounds | null,
  slot: Slot,
  scale: number,
  pinned: ReadonlySet<string>,
): Arranged {
  const { frame } = shot;
  const elements = new Map<string, ShotElement>();
  const dropped: string[] = [];
  const panels = dividers(overlays, frame);
  const over = turnsOver(panels, frame, slot);
  for (const e of shot.elements)
    if (e.spread && elementKind(e.kind).role === 'overlay')
      elements.set(e.id, {
        ...scaledElement(e, scale),
        box: { ...e.box, ...stretched(e.box, frame, slot, over && panels.includes(e)) },
      });
  const free = overlays.filter((e) => !e.spread);
  const backing = group && product ? free.filter((e) => backs(e, shot.elements, group)) : [];
  for (const e of backing) elements.set(e.id, withProduct(e, group!, product!));
  const clinging = free.filter((e) => elementKind(e.kind).clings?.(e));
  const ornaments = free.filter((e) => e.kind === 'shape' && e.form === 'decoration' && !backing.includes(e));
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
      const region = inner(
        panels.length
          ? stretched(home, frame, slot, over)
          : { x: 0, y: 0, width: slot.width, height: slot.height },
        safe,
      );
      const gap = Math.min(slot.width, slot.height) * 0.05;
      const strip = shape > 1.9 || shape < 1 / 1.9;
      const behind = strip ? [] : backing.map((e) => elements.get(e.id)!.box);
      const rooms = roomsBeside(region, product ? [product, ...behind] : [], gap);
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
    const follows = !!elementKind(e.kind).attached && e.kind === 'measure';
    if (!pinned.has(e.id) && (small || (anew && hides && !follows))) dropped.push(e.id);
    else elements.set(e.id, placed);
  });
  return { elements, dropped };
}

/** A shape behind the product that it stands before, such as an arch. */
function backs(e: ShotElement, elements: readonly ShotElement[], group: Bounds): boolean {
  if (e.kind !== 'shape' || e.form === 'line' || e.form === 'arrow' || e.form === 'icon') return false;
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
  slot: Slot,
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

function inner(b: Bounds, by: number): Bounds {
  return {
    x: b.x + by,
    y: b.y + by,
    width: Math.max(1, b.width - 2 * by),
    height: Math.max(1, b.height - 2 * by),
  };
}

interface GroupMove {
  k: number;
  x: number;
  y: number;
  /** What products shrink by, about their base, where the scene leaves no other way. */
  shrink: number;
  baseX: number;
  baseY: number;
  shiftX: number;
  shiftY: number;
}

function groupMove(
  frame: { width: number; height: number },
  group: Bounds | null,
  scene: Box | null,
  slot: Slot,
): GroupMove {
  const { width: W, height: H } = slot;
  const still = { shrink: 1, baseX: 0, baseY: 0, shiftX: 0, shiftY: 0 };
  const cover = scene ? Math.max(W / scene.width, H / scene.height) : 0;
  // How the base would come out with nothing asked for: cropped to the slot with a scene, whole without one.
  const natural = scene
    ? Math.max(W / frame.width, H / frame.height)
    : Math.min(W / frame.width, H / frame.height);
  if (!group) {
    const k = Math.max(natural, cover);
    return { k, x: (W - frame.width * k) / 2, y: (H - frame.height * k) / 2, ...still };
  }
  const margin = slot.marginShare * Math.min(W, H);
  const extent = Math.max(group.width / W, group.height / H);
  const { min, max, wanted } = slot.coverage;
  let k = wanted && !scene ? wanted / extent : natural;
  if (min) k = Math.max(k, min / extent);
  if (max) k = Math.min(k, max / extent);
  const whole = Math.min((W - 2 * margin) / group.width, (H - 2 * margin) / group.height);
  k = Math.max(Math.min(k, whole), cover);

  // Keep the group's middle at the same share of the frame, then inside the margins, then the scene over the frame.
  const middleX = group.x + group.width / 2;
  const middleY = group.y + group.height / 2;
  let x = (middleX / frame.width) * W - middleX * k;
  let y = (middleY / frame.height) * H - middleY * k;
  x = within(x, margin - group.x * k, W - margin - (group.x + group.width) * k);
  y = within(y, margin - group.y * k, H - margin - (group.y + group.height) * k);
  if (scene) {
    x = clamp(x, W - (scene.x + scene.width) * k, -scene.x * k);
    y = clamp(y, H - (scene.y + scene.height) * k, -scene.y * k);
  }
  const left = group.x * k + x;
  const top = group.y * k + y;
  const right = left + group.width * k;
  const bottom = top + group.height * k;
  const shrink = Math.min(1, whole / k);
  const baseX = (left + right) / 2;
  const baseY = bottom;
  const halfWidth = ((right - left) * shrink) / 2;
  const newTop = bottom - (bottom - top) * shrink;
  const shiftX = within(0, margin - (baseX - halfWidth), W - margin - (baseX + halfWidth));
  const shiftY = within(0, margin - newTop, H - margin - bottom);
  const off = shrink < 1 || Math.abs(shiftX) > 0.5 || Math.abs(shiftY) > 0.5;
  if (!off) return { k, x, y, ...still };
  // Half a thousandth less marks the group as placed apart even where only a shift was needed.
  return { k, x, y, shrink: Math.min(shrink, 0.9995), baseX, baseY, shiftX, shiftY };
}

/** An overlay keeps its distance to the edge, corner or middle line it is nearest to, inside the safe margin. */
function anchorOverlay(
  element: ShotElement,
  frame: { width: number; height: number },
  slot: Slot,
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

function moveBox(box: Box, k: number, x: number, y: number): Box {
  return { ...box, x: box.x * k + x, y: box.y * k + y, width: box.width * k, height: box.height * k };
}

function union(list: Bounds[]): Bounds | null {
  if (!list.length) return null;
  const x = Math.min(...list.map((b) => b.x));
  const y = Math.min(...list.map((b) => b.y));
  const right = Math.max(...list.map((b) => b.x + b.width));
  const bottom = Math.max(...list.map((b) => b.y + b.height));
  return { x, y, width: right - x, height: bottom - y };
}

function clamp(value: number, low: number, high: number): number {
  return Math.min(Math.max(value, low), high);
}

/** Like clamp, but the middle of the two where they leave no room. */
function within(value: number, low: number, high: number): number {
  return low > high ? (low + high) / 2 : clamp(value, low, high);
}
