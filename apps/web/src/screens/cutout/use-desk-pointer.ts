import { useEffect, useRef, useState, type PointerEvent } from 'react';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { Box, Camera } from './desk-canvas';
import { baseHandles, type Gesture } from './desk-traces';
import { useKeyedPointer } from './use-keyed-pointer';

interface PointerOnPhoto {
  tool: Gesture['tool'];
  recipe: CutoutRecipe;
  chosen: Step | null;
  base: DrawnBase | null;
  /** The shape in hand is drawn corner by corner. */
  polygon: boolean;
  size: Box;
  /** The view's size in screen pixels. */
  box: Box;
  cam: Camera;
  setCamera(camera: Camera): void;
  toPhoto(event: { clientX: number; clientY: number }): Point;
  onGesture(gesture: Gesture): void;
  onPoint(at: Point | null): void;
  /** `id` is a step's or a repair piece's. */
  onMovePoint(id: string, index: number, to: Point, done: boolean): void;
}

/** A point that can be taken hold of: whose it is, and which. */
interface Held {
  id: string;
  index: number;
}

/** The point under the pointer: of the chosen step or, with the repair or base tool, of what that has drawn. */
function pointUnder(at: Point, { tool, recipe, chosen, base, cam }: PointerOnPhoto): Held | null {
  const movable: { id: string; points: Point[] }[] = [];
  if (tool === 'repair') movable.push(...recipe.repairs);
  if (tool === 'base' && base) movable.push({ id: 'base', points: baseHandles(base) });
  if (chosen?.kind === 'trace' || (chosen?.kind === 'shape' && chosen.shape !== 'freehand'))
    movable.push(chosen);
  for (const { id, points } of movable) {
    const index = points.findIndex((p) => Math.hypot(p[0] - at[0], p[1] - at[1]) * cam.zoom < 9);
    if (index >= 0) return { id, index };
  }
  return null;
}

/** Whether the space bar is held; Escape calls `onEscape`. */
function useSpaceHeld(onEscape: () => void): boolean {
  const [space, setSpace] = useState(false);
  const escape = useRef(onEscape);
  useEffect(() => {
    escape.current = onEscape;
  });
  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      if (e.key === ' ' && !(e.target as HTMLElement).closest('input, textarea, button, [role="slider"]')) {
        e.preventDefault();
        setSpace(true);
      }
      if (e.key === 'Escape') escape.current();
    };
    const up = (e: KeyboardEvent) => e.key === ' ' && setSpace(false);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  }, []);
  return space;
}

/** What is drawn or taken along from where the pointer is pressed to where it is released. */
function useDrawing(given: PointerOnPhoto) {
  const { tool, onGesture, onPoint, onMovePoint } = given;
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const grabbed = useRef<Held | null>(null);
  const press = (at: Point, shift: boolean) => {
    grabbed.current = pointUnder(at, given);
    if (!grabbed.current) setGesture({ tool, points: [at], shift });
  };
  return {
    gesture,
    pointer,
    press,
    /** The pointer is there, and nothing else. */
    rest(at: Point | null) {
      setPointer(at);
      onPoint(at);
    },
    moveTo(points: Point[]) {
      const at = points[points.length - 1];
      setPointer(at);
      onPoint(at);
      if (grabbed.current) onMovePoint(grabbed.current.id, grabbed.current.index, at, false);
      else if (gesture) setGesture({ ...gesture, points: [...gesture.points, ...points] });
    },
    release(at: Point) {
      if (grabbed.current) onMovePoint(grabbed.current.id, grabbed.current.index, at, true);
      else if (gesture) onGesture(gesture);
      grabbed.current = null;
      setGesture(null);
    },
    click(at: Point, shift: boolean) {
      // A point that lies there is taken hold of, and let go by the next one.
      if (pointUnder(at, given)) press(at, shift);
      else onGesture({ tool, points: [at], shift });
    },
    drawing: () => gesture !== null || grabbed.current !== null,
    giveUp: () => setGesture(null),
  };
}

/**
 * What the pointer does on the photo, moved by hand or by arrow keys: moves the view, takes a point along, or draws with the
 * tool in hand.
 */
export function useDeskPointer(given: PointerOnPhoto) {
  const { tool, cam, setCamera, toPhoto } = given;
  const drawn = useDrawing(given);
  const { gesture, pointer } = drawn;
  const space = useSpaceHeld(drawn.giveUp);
  const panning = useRef<{ x: number; y: number; camera: Camera } | null>(null);
  const keys = useKeyedPointer({ ...given, pointer, drawing: drawn.drawing }, drawn);

  const onPointerDown = (e: PointerEvent) => {
    if (e.button > 1) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    if (e.button === 1 || space || tool === 'move')
      panning.current = { x: e.clientX, y: e.clientY, camera: cam };
    else drawn.press(toPhoto(e), e.shiftKey);
  };
  const onPointerMove = (e: PointerEvent) => {
    keys.byHand();
    if (panning.current) {
      const { x, y, camera: from } = panning.current;
      drawn.rest(toPhoto(e));
      setCamera({
        zoom: from.zoom,
        x: from.x - (e.clientX - x) / from.zoom,
        y: from.y - (e.clientY - y) / from.zoom,
      });
      return;
    }
    const more = e.nativeEvent.getCoalescedEvents?.() ?? [];
    drawn.moveTo((more.length ? more : [e.nativeEvent]).map(toPhoto));
  };
  const onPointerUp = (e: PointerEvent) => {
    panning.current = null;
    drawn.release(toPhoto(e));
  };
  const onPointerLeave = () => drawn.rest(null);
  return {
    gesture,
    pointer,
    keyed: keys.keyed,
    moving: space || tool === 'move',
    handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerLeave, onKeyDown: keys.onKeyDown },
  };
}
