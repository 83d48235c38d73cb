import { isText } from '../../elements/text/model';
import { uprightBounds, type Box } from '../../vector/box';
import { elementKind, type ShotElement } from '../../elements/index';
import type { SlotFrame } from './slot-frame';
import type { Bounds } from '../../vector/outline';
import type { Shot } from '../document';
import { clamp, cropped, union, within } from './bounds';
import { coveredBounds } from './covered';
import { dividers, stretched, changesOrientation } from './divide';
import { homeOf, roomsBeside } from './rooms';

export interface GroupMove {
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

export function groupMove(
  frame: { width: number; height: number },
  group: Bounds | null,
  scene: Box | null,
  slot: SlotFrame,
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

/** Where the products' bounds come to. */
export function placedGroup(group: Bounds, m: GroupMove): Bounds {
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

/**
 * The part of a slot that products are given where no scene says where they stand: the part that stretching panels
 * leave them, or one side of a strip. Null where the whole frame is theirs.
 */
export function subjectZone(
  shot: Shot,
  overlays: readonly ShotElement[],
  group: Bounds | null,
  slot: SlotFrame,
): { from: Bounds; to: Bounds } | null {
  if (!group || slot.background.kind === 'white') return null;
  const { frame } = shot;
  const whole = { x: 0, y: 0, ...frame };
  const panels = dividers(overlays, frame);
  if (panels.length) {
    const boxes = panels.map((p) => cropped(uprightBounds(p.box), frame));
    const home = homeOf(group, boxes);
    const from = home >= 0 ? boxes[home] : roomsBeside(whole, boxes, 0)[0];
    if (!from) return null;
    const to = stretched(from, frame, slot, changesOrientation(panels, frame, slot));
    const words = overlays.some((e) => !e.spread && isText(e) && homeOf(e.box, [from]) === 0);
    // Words that share the products' part stand beside them where it is wide.
    if (!words || to.width < to.height * 1.7) return { from, to };
    return { from, to: { ...to, x: to.x + to.width * 0.45, width: to.width * 0.55 } };
  }
  const moving = overlays.filter((e) => !e.spread && !elementKind(e.kind).pointsAtProduct?.(e));
  const shape = slot.width / slot.height / (frame.width / frame.height);
  if (!moving.length || (shape < 1.9 && shape > 1 / 1.9)) return null;
  const margin = Math.max(slot.marginShare, slot.safeShare) * Math.min(slot.width, slot.height);
  const mass = union(moving.map(coveredBounds));
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
export function zoneMove(
  { from, to }: { from: Bounds; to: Bounds },
  group: Bounds,
  frame: { width: number; height: number },
  slot: SlotFrame,
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
  // The slot's own coverage goes before the share that the base gives it.
  const extent = Math.max(group.width / slot.width, group.height / slot.height);
  const { min, max } = slot.coverage;
  const covered = Math.min(Math.max(wanted, (min ?? 0) / extent), (max ?? Infinity) / extent);
  const k = inBase ? Math.min(covered, whole) : covered;
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
