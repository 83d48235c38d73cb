import type { Bounds } from '../../vector/outline';

/** Rectangles of a frame. */

export type Frame = { width: number; height: number };

export function overlapArea(a: Bounds, b: Bounds): number {
  const w = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return w > 0 && h > 0 ? w * h : 0;
}

export const area = (b: Bounds) => b.width * b.height;

export const contains = (outer: Bounds, x: number, y: number) =>
  x >= outer.x && x <= outer.x + outer.width && y >= outer.y && y <= outer.y + outer.height;

export function union(list: readonly Bounds[]): Bounds {
  const x = Math.min(...list.map((b) => b.x));
  const y = Math.min(...list.map((b) => b.y));
  return {
    x,
    y,
    width: Math.max(...list.map((b) => b.x + b.width)) - x,
    height: Math.max(...list.map((b) => b.y + b.height)) - y,
  };
}

export function clamp(value: number, low: number, high: number): number {
  return Math.min(Math.max(value, low), high);
}

/** Like clamp, but the middle of the two where they leave no room. */
export function within(value: number, low: number, high: number): number {
  return low > high ? (low + high) / 2 : clamp(value, low, high);
}

/** The part of a rectangle that lies in the frame; empty where none does. */
export function cropped(b: Bounds, frame: { width: number; height: number }): Bounds {
  const [x, y] = [Math.max(0, b.x), Math.max(0, b.y)];
  return {
    x,
    y,
    width: Math.max(0, Math.min(frame.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(frame.height, b.y + b.height) - y),
  };
}
