import { isBackdrop } from '../../elements/backdrop/model';
import type { Box } from '../../vector/box';
import { elementKind, scaledElement, type ShotElement } from '../../elements/index';
import { elementBounds } from '../../elements/product/pack';
import type { SlotFrame } from './slot-frame';
import { groundOf } from '../../elements/ground-of';
import type { Shot } from '../document';
import { clamp, union } from './bounds';
import { anchorOverlay, placeOverlays } from './overlays';
import { groupMove, placedGroup, subjectZone, zoneMove } from './subjects';

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
export function fitToSlot(shot: Shot, slot: SlotFrame, pinned: ReadonlySet<string> = new Set()): Fitted {
  const scene = shot.elements.find((e) => isBackdrop(e) && e.fill.type === 'scene' && !e.hidden);
  const subjects = shot.elements.filter((e) => elementKind(e.kind).role === 'subject' && !e.hidden);
  const ground = groundOf(shot.elements);
  const group = subjects.length ? union(subjects.map((e) => elementBounds(e, ground, shot.frame))) : null;
  const sceneBox =
    scene && isBackdrop(scene) && scene.fill.type === 'scene'
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
  const arranged = placeOverlays({
    ...{ shot, overlays, group, product, slot, pinned },
    scale: overlayScale,
  });

  const elements = shot.elements.map((element) => {
    const { role } = elementKind(element.kind);
    if (isBackdrop(element)) {
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

function moveBox(box: Box, k: number, x: number, y: number): Box {
  return { ...box, x: box.x * k + x, y: box.y * k + y, width: box.width * k, height: box.height * k };
}
