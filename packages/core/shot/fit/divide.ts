import { isShape } from '../../elements/shape/model';
import type { ShotElement } from '../../elements/index';
import type { SlotFrame } from './slot-frame';
import type { Bounds } from '../../vector/outline';

/** Panels that stretch with the frame and divide it, without those that cover nearly all or nearly nothing of it. */
export function dividers(
  overlays: readonly ShotElement[],
  frame: { width: number; height: number },
): ShotElement[] {
  return overlays.filter((e) => {
    const share = (e.box.width * e.box.height) / (frame.width * frame.height);
    return e.spread && isShape(e) && e.form === 'panel' && share > 0.12 && share < 0.88;
  });
}

/**
 * Whether panels that divide a frame side by side divide the slot one over the other, or the other way round: in a slot
 * far taller, or far wider, than the base.
 */
export function changesOrientation(
  panels: readonly ShotElement[],
  frame: { width: number; height: number },
  slot: SlotFrame,
): boolean {
  const shape = slot.width / slot.height / (frame.width / frame.height);
  const sideBySide = panels.some((p) => p.box.height > 0.9 * frame.height);
  return panels.length > 0 && (sideBySide ? shape < 1 / 1.6 : shape > 1.9);
}

export function stretched(
  b: Bounds,
  frame: { width: number; height: number },
  slot: SlotFrame,
  over = false,
): Bounds {
  if (over) {
    const [kx, ky] = [slot.width / frame.height, slot.height / frame.width];
    return { x: b.y * kx, y: b.x * ky, width: b.height * kx, height: b.width * ky };
  }
  const [kx, ky] = [slot.width / frame.width, slot.height / frame.height];
  return { x: b.x * kx, y: b.y * ky, width: b.width * kx, height: b.height * ky };
}
