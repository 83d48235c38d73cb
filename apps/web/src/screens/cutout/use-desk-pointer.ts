import { useEffect, useRef, useState, type PointerEvent } from 'react';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { Camera } from './desk-canvas';
import { baseHandles, type Gesture } from './desk-traces';

interface PointerOnPhoto {
  tool: Gesture['tool'];
  recipe: CutoutRecipe;
  chosen: Step | null;
  base: DrawnBase | null;
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

/** What the pointer does on the photo: moves the view, takes a point along, or draws with the tool in hand. */
export function useDeskPointer(given: PointerOnPhoto) {
  const { tool, cam, setCamera, toPhoto, onGesture, onPoint, onMovePoint } = given;
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const space = useSpaceHeld(() => setGesture(null));
  const panning = useRef<{ x: number; y: number; camera: Camera } | null>(null);
  const grabbed = useRef<Held | null>(null);

  const onPointerDown = (e: PointerEvent) => {
    if (e.button > 1) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    const at = toPhoto(e);
    if (e.button === 1 || space || tool === 'move')
      panning.current = { x: e.clientX, y: e.clientY, camera: cam };
    else if (!(grabbed.current = pointUnder(at, given)))
      setGesture({ tool, points: [at], shift: e.shiftKey });
  };
  const onPointerMove = (e: PointerEvent) => {
    const at = toPhoto(e);
    setPointer(at);
    onPoint(at);
    if (panning.current) {
      const { x, y, camera: from } = panning.current;
      setCamera({
        zoom: from.zoom,
        x: from.x - (e.clientX - x) / from.zoom,
        y: from.y - (e.clientY - y) / from.zoom,
      });
    } else if (grabbed.current) onMovePoint(grabbed.current.id, grabbed.current.index, at, false);
    else if (gesture) {
      const more = e.nativeEvent.getCoalescedEvents?.() ?? [];
      const added = (more.length ? more : [e.nativeEvent]).map(toPhoto);
      setGesture({ ...gesture, points: [...gesture.points, ...added] });
    }
  };
  const onPointerUp = (e: PointerEvent) => {
    panning.current = null;
    if (grabbed.current) onMovePoint(grabbed.current.id, grabbed.current.index, toPhoto(e), true);
    else if (gesture) onGesture(gesture);
    grabbed.current = null;
    setGesture(null);
  };
  const onPointerLeave = () => {
    setPointer(null);
    onPoint(null);
  };
  return {
    gesture,
    pointer,
    moving: space || tool === 'move',
    handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerLeave },
  };
}
