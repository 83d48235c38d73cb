import { uprightBounds, type Box } from '../elements/element';
import { elementKind, scaledElement, type ShotElement } from '../elements/index';
import { elementBounds } from '../elements/product/pack';
import type { Slot } from '../spec/slot';
import { groundOf } from '../stage/ground';
import type { Shot } from './document';

interface Bounds {
  x: number;
  y: number;
  width: number;
  height: number;
}

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

/**
 * Places a shot's elements in a slot's frame by rule:
 * grounds cover the frame; products and a scene move as one, so that a product stays where it stands, at the
 * slot's wanted coverage and whole inside its margins; overlays keep to their nearest edge or corner, inside
 * the safe margin. Where a scene cannot both cover the frame and hold the product whole, the product alone is
 * made smaller on its base.
 */
export function fitToSlot(shot: Shot, slot: Slot): ShotElement[] {
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
  const move = groupMove(shot.frame, group, sceneBox, slot);
  const overlayScale = Math.sqrt((slot.width * slot.height) / (shot.frame.width * shot.frame.height));

  return shot.elements.map((element) => {
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
    return anchorOverlay(element, shot.frame, slot, overlayScale);
  });
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
