import type { Box } from '@scenograph/core/vector/box';
import { uprightBounds } from '@scenograph/core/vector/box';

/** What of the frame is seen: screen pixels a frame pixel, and the frame's point in the middle of the room. */
export interface StageView {
  zoom: number;
  x: number;
  y: number;
}

interface Size {
  width: number;
  height: number;
}

/** The least and the most zoom; a frame too large for the least is fitted all the same. */
export const LEAST_ZOOM = 0.1;
export const MOST_ZOOM = 16;
/** Screen pixels left free around what is fitted. */
const PAD = 36;
/** A small frame is shown at most this wide unless one zooms in. */
const SMALL = 420;

const within = (least: number, value: number, most: number) => Math.min(most, Math.max(least, value));

/** Shows all of the frame. */
export function fitView(room: Size, frame: Size): StageView {
  const zoom = Math.min(
    (room.width - 2 * PAD) / frame.width,
    (room.height - 2 * PAD) / frame.height,
    Math.max(1, SMALL / frame.width),
  );
  return { zoom: Math.max(zoom, 1e-3), x: frame.width / 2, y: frame.height / 2 };
}

/** Shows a box of the frame as large as there is room. */
export function boxView(room: Size, box: Box): StageView {
  const { x, y, width, height } = uprightBounds(box);
  const zoom = Math.min((room.width - 2 * PAD) / width, (room.height - 2 * PAD) / height);
  return { zoom: within(LEAST_ZOOM, zoom, MOST_ZOOM), x: x + width / 2, y: y + height / 2 };
}

/** Zoomed by a factor; the point of the frame under `at`, in screen pixels from the room's middle, stays where it is. */
export function zoomedView(
  view: StageView,
  factor: number,
  at: { x: number; y: number },
  least = LEAST_ZOOM,
): StageView {
  const zoom = within(Math.min(least, LEAST_ZOOM), view.zoom * factor, MOST_ZOOM);
  const still = 1 / view.zoom - 1 / zoom;
  return { zoom, x: view.x + at.x * still, y: view.y + at.y * still };
}

/** Moved by so many screen pixels; the frame's own middle never leaves the room by more than half of it. */
export function movedView(view: StageView, dx: number, dy: number, frame: Size): StageView {
  return {
    zoom: view.zoom,
    x: within(0, view.x - dx / view.zoom, frame.width),
    y: within(0, view.y - dy / view.zoom, frame.height),
  };
}
