import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Remote } from 'comlink';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { DeskWorker, Shown } from '../../workers/desk.worker';
import { cleared, drawPicture, type Camera } from './desk-canvas';
import { baseHandles, drawTraces, type Gesture } from './desk-traces';
import { isBrush, type Sight, type ToolOptions } from './tools';
import { useDeskPicture, type DeskPictureParts } from './use-desk-picture';

export const MOST_ZOOM = 16;

/** The photo being worked on: the newest cutout as the worker gives it, the tools' traces over it. */
export function DeskView({
  worker,
  size,
  recipe,
  version,
  onSolved,
  sight,
  ground,
  tint,
  scene,
  edgeLine,
  tool,
  options,
  chosen,
  paths,
  camera,
  setCamera,
  onGesture,
  onPoint,
  onMovePoint,
  onShown,
  draft,
  snapped,
  preview,
  doubts,
  base,
}: {
  worker: Remote<DeskWorker>;
  size: { width: number; height: number };
  recipe: CutoutRecipe;
  /** Counts up whenever the worker has solved anew or the photo was tidied. */
  version: { solved: number; tidied: number };
  /** Where the view says how it takes what comes with a solved recipe. */
  onSolved: React.RefObject<((shown: Shown, recipe: CutoutRecipe) => void) | null>;
  sight: Sight;
  ground: string;
  tint: string;
  scene: ImageBitmap | null;
  edgeLine: boolean;
  tool: Gesture['tool'];
  options: ToolOptions;
  chosen: Step | null;
  paths: Record<string, Point[]>;
  camera: Camera | null;
  setCamera(camera: Camera): void;
  onGesture(gesture: Gesture): void;
  onPoint(at: Point | null): void;
  /** `id` is a step's or a repair piece's. */
  onMovePoint(id: string, index: number, to: Point, done: boolean): void;
  onShown(milliseconds: number): void;
  /** Points of a path that is not closed yet; three a node with the pen. */
  draft: Point[];
  /** Where the traced edge runs from those points to the pointer. */
  snapped: Point[];
  /** What a picked colour would take, over the whole photo. */
  preview: ImageBitmap | null;
  /** What the product stands on, drawn or found; shown with the base tool. */
  base: DrawnBase | null;
  /** Places that the automatic cutout is not sure of. */
  doubts: readonly Doubt[];
}) {
  const room = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const over = useRef<HTMLCanvasElement>(null);
  const [box, setBox] = useState({ width: 800, height: 600 });
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const [space, setSpace] = useState(false);
  const panning = useRef<{ x: number; y: number; camera: Camera } | null>(null);
  /** The point of a step or a repair piece that follows the pointer. */
  const grabbed = useRef<{ id: string; index: number } | null>(null);
  const density = window.devicePixelRatio || 1;

  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) =>
      setBox({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    observer.observe(room.current!);
    return () => observer.disconnect();
  }, []);

  // Room for the tools on the left, what is seen above, and the tool's own choices below.
  const fit = Math.min((box.width - 152) / size.width, (box.height - 124) / size.height);
  const cam = camera ?? { zoom: fit, x: size.width / 2 - 56 / fit, y: size.height / 2 + 2 / fit };
  const toScreen = useCallback(
    ([x, y]: Point): Point => [
      (x - cam.x) * cam.zoom + box.width / 2,
      (y - cam.y) * cam.zoom + box.height / 2,
    ],
    [cam.x, cam.y, cam.zoom, box],
  );
  const toPhoto = (event: { clientX: number; clientY: number }): Point => {
    const r = room.current!.getBoundingClientRect();
    return [
      (event.clientX - r.left - box.width / 2) / cam.zoom + cam.x,
      (event.clientY - r.top - box.height / 2) / cam.zoom + cam.y,
    ];
  };

  const parts = useRef<DeskPictureParts>({ shown: null, photo: null });
  const draw = useCallback(() => {
    const target = canvas.current;
    if (!target) return;
    const c = cleared(target, box, density);
    const { shown, photo } = parts.current;
    if (!shown) return;
    drawPicture(c, {
      box,
      density,
      zoom: cam.zoom,
      toScreen,
      size,
      shown,
      photo,
      sight,
      ground,
      tint,
      scene,
      edgeLine,
    });
  }, [box, cam.zoom, density, edgeLine, ground, scene, sight, size, tint, toScreen]);
  const drawNew = useCallback(() => {
    draw();
    // Counted for whoever waits for a new picture.
    if (canvas.current) canvas.current.dataset.shown = String(Number(canvas.current.dataset.shown ?? 0) + 1);
  }, [draw]);
  useEffect(draw, [draw]);
  useDeskPicture({
    parts,
    worker,
    recipe,
    version,
    camera: cam,
    box,
    size,
    density,
    edgeLine,
    onSolved,
    draw: drawNew,
    onShown,
  });

  const brush = isBrush(tool);
  useEffect(() => {
    if (!over.current) return;
    drawTraces(cleared(over.current, box, density), {
      toScreen,
      zoom: cam.zoom,
      size,
      tool,
      options,
      recipe,
      chosen,
      paths,
      preview,
      doubts,
      base,
      draft,
      snapped,
      gesture,
      pointer,
    });
  }, [
    box,
    cam.zoom,
    chosen,
    density,
    draft,
    gesture,
    options,
    paths,
    pointer,
    preview,
    doubts,
    snapped,
    size,
    recipe,
    base,
    toScreen,
    tool,
  ]);

  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      if (e.key === ' ' && !(e.target as HTMLElement).closest('input, textarea, button, [role="slider"]')) {
        e.preventDefault();
        setSpace(true);
      }
      if (e.key === 'Escape') setGesture(null);
    };
    const up = (e: KeyboardEvent) => e.key === ' ' && setSpace(false);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  }, []);

  useEffect(() => {
    const target = room.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const at = toPhoto(e);
      const zoom = Math.min(MOST_ZOOM, Math.max(fit * 0.5, cam.zoom * Math.exp(-e.deltaY * 0.0016)));
      const share = cam.zoom / zoom;
      setCamera({ zoom, x: at[0] + (cam.x - at[0]) * share, y: at[1] + (cam.y - at[1]) * share });
    };
    target.addEventListener('wheel', wheel, { passive: false });
    return () => target.removeEventListener('wheel', wheel);
  });

  /** The point under the pointer: of the chosen step or, with the repair tool, of any piece. */
  const pointUnder = (at: Point): { id: string; index: number } | null => {
    const movable: { id: string; points: Point[] }[] =
      tool === 'repair'
        ? recipe.repairs
        : tool === 'base' && base
          ? [{ id: 'base', points: baseHandles(base) }]
          : [];
    const all =
      chosen?.kind === 'trace' || (chosen?.kind === 'shape' && chosen.shape !== 'freehand')
        ? [...movable, chosen]
        : movable;
    for (const { id, points } of all) {
      const index = points.findIndex((p) => Math.hypot(p[0] - at[0], p[1] - at[1]) * cam.zoom < 9);
      if (index >= 0) return { id, index };
    }
    return null;
  };

  return (
    <div
      ref={room}
      role="application"
      aria-label="Photo with its cutout; tools are chosen by their letters"
      tabIndex={0}
      data-frame={JSON.stringify({
        x: toScreen([0, 0])[0],
        y: toScreen([0, 0])[1],
        width: size.width * cam.zoom,
        height: size.height * cam.zoom,
      })}
      className={`absolute inset-0 touch-none overflow-hidden ${space || tool === 'move' ? 'cursor-grab' : brush ? 'cursor-none' : 'cursor-crosshair'}`}
      style={{ background: 'var(--stage)' }}
      onPointerDown={(e) => {
        if (e.button > 1) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        const at = toPhoto(e);
        if (e.button === 1 || space || tool === 'move') {
          panning.current = { x: e.clientX, y: e.clientY, camera: cam };
          return;
        }
        const point = pointUnder(at);
        if (point !== null) {
          grabbed.current = point;
          return;
        }
        setGesture({ tool, points: [at], shift: e.shiftKey });
      }}
      onPointerMove={(e) => {
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
          return;
        }
        if (grabbed.current) {
          onMovePoint(grabbed.current.id, grabbed.current.index, at, false);
          return;
        }
        if (!gesture) return;
        const more = e.nativeEvent.getCoalescedEvents?.() ?? [];
        const added = (more.length ? more : [e.nativeEvent]).map(toPhoto);
        setGesture({ ...gesture, points: [...gesture.points, ...added] });
      }}
      onPointerUp={(e) => {
        panning.current = null;
        if (grabbed.current) {
          onMovePoint(grabbed.current.id, grabbed.current.index, toPhoto(e), true);
          grabbed.current = null;
          return;
        }
        if (gesture) onGesture(gesture);
        setGesture(null);
      }}
      onPointerLeave={() => {
        setPointer(null);
        onPoint(null);
      }}
    >
      <canvas
        ref={canvas}
        data-testid="desk-picture"
        role="img"
        aria-label="The photo and its cutout"
        className="absolute inset-0 h-full w-full"
      />
      <canvas ref={over} aria-hidden className="absolute inset-0 h-full w-full" />
      <p className="measure bg-card/95 absolute top-3 left-3 rounded-sm px-2 py-1">
        {Math.round(cam.zoom * 100)} %
      </p>
    </div>
  );
}
