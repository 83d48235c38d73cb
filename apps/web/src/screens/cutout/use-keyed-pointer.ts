import { useRef, useState, type KeyboardEvent } from 'react';
import type { Point } from '@scenograph/core/cutout/recipe';
import type { Box, Camera } from './desk-canvas';
import type { Gesture } from './desk-traces';

/** Screen pixels that an arrow key moves the pointer by; with Shift so many times as far. */
const STEP = 4;
const FAR = 8;
/** How near to the view's border, in screen pixels, the view moves on. */
const BORDER = 48;

const ARROWS: Record<string, Point> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Tools that are used by a click; all others are drawn from press to release. */
const CLICKED = new Set<Gesture['tool']>(['point', 'colour', 'trace', 'pen', 'neutral']);
/** Of those, the ones that draw a path from click to click. */
const PATHS = new Set<Gesture['tool']>(['trace', 'pen', 'shape']);

export interface PointerMoves {
  press(at: Point, shift: boolean): void;
  moveTo(points: Point[]): void;
  release(at: Point): void;
  click(at: Point, shift: boolean): void;
}

/**
 * The pointer moved by arrow keys: Enter presses and releases it, or clicks with tools that are used by a click. Enter a
 * second time in the same place is left to whoever closes paths.
 */
export function useKeyedPointer(
  {
    tool,
    polygon,
    size,
    box,
    cam,
    setCamera,
    pointer,
    drawing,
  }: {
    tool: Gesture['tool'];
    /** The shape in hand is drawn corner by corner. */
    polygon: boolean;
    size: Box;
    /** The view's size in screen pixels. */
    box: Box;
    cam: Camera;
    setCamera(camera: Camera): void;
    pointer: Point | null;
    /** It is pressed. */
    drawing(): boolean;
  },
  { press, moveTo, release, click }: PointerMoves,
) {
  const [keyed, setKeyed] = useState(false);
  const clicked = useRef<Point | null>(null);

  const follow = ([x, y]: Point) => {
    const beyond = (at: number, middle: number, room: number) => {
      const free = Math.max(0, room / 2 - BORDER) / cam.zoom;
      return at > middle + free ? at - free : at < middle - free ? at + free : middle;
    };
    const [cx, cy] = [beyond(x, cam.x, box.width), beyond(y, cam.y, box.height)];
    if (cx !== cam.x || cy !== cam.y) setCamera({ ...cam, x: cx, y: cy });
  };
  const moveBy = ([dx, dy]: Point, far: boolean) => {
    const step = ((far ? FAR : 1) * STEP) / cam.zoom;
    if (tool === 'move') return setCamera({ ...cam, x: cam.x + dx * step * 4, y: cam.y + dy * step * 4 });
    const [x, y] = pointer ?? [cam.x, cam.y];
    const held = (v: number, most: number) => Math.min(most, Math.max(0, v));
    const to: Point = [held(x + dx * step, size.width), held(y + dy * step, size.height)];
    setKeyed(true);
    moveTo([to]);
    follow(to);
  };
  /** False where there was nothing to do. */
  const act = (shift: boolean): boolean => {
    if (!keyed || !pointer || tool === 'move') return false;
    if (drawing()) release(pointer);
    else if (CLICKED.has(tool) || (tool === 'shape' && polygon)) {
      const again = clicked.current?.[0] === pointer[0] && clicked.current[1] === pointer[1];
      if (again && PATHS.has(tool)) {
        clicked.current = null;
        return false;
      }
      clicked.current = pointer;
      click(pointer, shift);
    } else press(pointer, shift);
    return true;
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const by = ARROWS[e.key];
    if (by) moveBy(by, e.shiftKey);
    else if (e.key !== 'Enter' || !act(e.shiftKey)) return;
    e.preventDefault();
    e.stopPropagation();
  };
  return { keyed, onKeyDown, byHand: () => setKeyed(false) };
}
