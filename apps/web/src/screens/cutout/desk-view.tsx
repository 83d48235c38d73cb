import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Remote } from 'comlink';
import { shapePoints } from '@scenograph/core/cutout/compile';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import { curveOutline } from '@scenograph/core/cutout/footprint';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import { pieceOutline } from '@scenograph/core/cutout/repair';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { DeskWorker, Shown } from '../../workers/desk.worker';
import { isBrush, type Sight, type ToolId, type ToolOptions } from './tools';

/** Where the view is: screen pixels a photo pixel, and the photo place at the view's middle. */
export interface Camera {
  zoom: number;
  x: number;
  y: number;
}

export interface Gesture {
  tool: ToolId | 'neutral' | 'straighten' | 'crop';
  points: Point[];
  shift: boolean;
}

export const MOST_ZOOM = 16;

/** The photo under the hand: the newest cutout as the worker gives it, the tools' traces over it. */
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
  const shown = useRef<Shown | null>(null);
  const photo = useRef<{ bitmap: ImageBitmap; view: Shown['view'] } | null>(null);
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

  const draw = useCallback(() => {
    const target = canvas.current;
    const now = shown.current;
    if (!target) return;
    const c = cleared(target, box, density);
    if (!now) return;
    const [left, top] = toScreen([0, 0]);
    const [right, bottom] = toScreen([size.width, size.height]);
    const place = (bitmap: ImageBitmap, view: Shown['view']) => {
      const [x, y] = toScreen([view.left, view.top]);
      c.imageSmoothingEnabled = cam.zoom * density < 1.5;
      c.drawImage(bitmap, x, y, view.width * view.k * cam.zoom, view.height * view.k * cam.zoom);
    };
    c.save();
    c.beginPath();
    c.rect(left, top, right - left, bottom - top);
    c.clip();
    const under = photo.current;
    if (sight === 'photo' && under) place(under.bitmap, under.view);
    else if (sight === 'tint' && under) {
      place(under.bitmap, under.view);
      // The tint lies over all; what is kept lies on it, with its cleaned edge and its repairs.
      c.globalAlpha = 0.62;
      c.fillStyle = tint;
      c.fillRect(0, 0, box.width, box.height);
      c.globalAlpha = 1;
      place(now.cut, now.view);
    } else {
      if (sight === 'clear') checkers(c, box);
      else if (sight === 'scene' && scene) {
        const k = Math.max((right - left) / scene.width, (bottom - top) / scene.height);
        c.drawImage(
          scene,
          (left + right - scene.width * k) / 2,
          (top + bottom - scene.height * k) / 2,
          scene.width * k,
          scene.height * k,
        );
      } else {
        c.fillStyle = sight === 'matte' ? '#000000' : ground;
        c.fillRect(0, 0, box.width, box.height);
      }
      if (sight === 'matte') c.filter = 'brightness(0) invert(1)';
      place(now.cut, now.view);
      c.filter = 'none';
    }
    if (edgeLine) {
      c.beginPath();
      for (const ring of now.rings) {
        ring.forEach((p, i) => (i ? c.lineTo(...toScreen(p)) : c.moveTo(...toScreen(p))));
        c.closePath();
      }
      c.lineJoin = 'round';
      c.lineWidth = 2.5;
      c.strokeStyle = '#171b19';
      c.stroke();
      c.lineWidth = 1.2;
      c.strokeStyle = '#d3f04a';
      c.setLineDash([5, 4]);
      c.stroke();
    }
    c.restore();
  }, [box, cam.zoom, density, edgeLine, ground, scene, sight, size, tint, toScreen]);

  useEffect(draw, [draw]);

  // The newest wish is shown as soon as the worker is free; those in between are skipped.
  const wish = useRef<(() => Promise<void>) | null>(null);
  const busy = useRef(false);
  const photoKey = useRef('');
  const lastAsked = useRef('');
  useEffect(() => {
    if (!version.solved) return;
    const k = Math.max(1, 1 / (cam.zoom * density));
    const halfW = box.width / 2 / cam.zoom;
    const halfH = box.height / 2 / cam.zoom;
    const left = Math.max(0, Math.floor(cam.x - halfW));
    const top = Math.max(0, Math.floor(cam.y - halfH));
    const right = Math.min(size.width, Math.ceil(cam.x + halfW));
    const bottom = Math.min(size.height, Math.ceil(cam.y + halfH));
    if (right - left < 2 || bottom - top < 2) return;
    const view = {
      left,
      top,
      k,
      width: Math.max(1, Math.floor((right - left) / k)),
      height: Math.max(1, Math.floor((bottom - top) / k)),
    };
    const key = `${JSON.stringify(view)}:${version.tidied}`;
    const asked = askedFor(key, edgeLine, recipe);
    if (asked === lastAsked.current) return;
    lastAsked.current = asked;
    wish.current = async () => {
      const started = performance.now();
      const next = await worker.view(view, recipe, { photo: photoKey.current !== key, rings: edgeLine });
      if (next.photo) {
        photoKey.current = key;
        photo.current = { bitmap: next.photo, view };
      }
      shown.current = next;
      if (canvas.current)
        canvas.current.dataset.shown = String(Number(canvas.current.dataset.shown ?? 0) + 1);
      onShown(performance.now() - started);
      drawNow.current();
    };
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      while (wish.current) {
        const job = wish.current;
        wish.current = null;
        await job().catch((error: Error) => console.warn(error.message));
      }
      busy.current = false;
    };
    void work();
  }, [worker, recipe, version, cam.zoom, cam.x, cam.y, box, size, edgeLine, density, onShown]);
  useEffect(() => {
    onSolved.current = (next, solvedRecipe) => {
      // The photo lies as it was when the view was asked for; a newer wish is on its way otherwise.
      const key = `${JSON.stringify(next.view)}:${version.tidied}`;
      if (photoKey.current !== key) {
        lastAsked.current = '';
        return;
      }
      lastAsked.current = askedFor(key, edgeLine, solvedRecipe);
      shown.current = next;
      if (canvas.current)
        canvas.current.dataset.shown = String(Number(canvas.current.dataset.shown ?? 0) + 1);
      drawNow.current();
    };
  }, [onSolved, version.tidied, edgeLine]);
  const drawNow = useRef(draw);
  useEffect(() => {
    drawNow.current = draw;
  }, [draw]);

  // Traces of the tools.
  const brush = isBrush(tool);
  const radius = brush ? options.radii[tool] : 0;
  useEffect(() => {
    const target = over.current;
    if (!target) return;
    const c = cleared(target, box, density);
    const twoTone = (line: () => void, dashed = false) => {
      c.beginPath();
      line();
      c.lineWidth = 3;
      c.strokeStyle = '#171b19cc';
      c.setLineDash([]);
      c.stroke();
      c.lineWidth = 1.4;
      c.strokeStyle = '#ffffff';
      if (dashed) c.setLineDash([4, 4]);
      c.stroke();
      c.setLineDash([]);
    };
    const path = (points: readonly Point[], closed: boolean) => {
      points.forEach((p, i) => (i ? c.lineTo(...toScreen(p)) : c.moveTo(...toScreen(p))));
      if (closed) c.closePath();
    };
    const dots = (points: readonly Point[]) => {
      for (const p of points) {
        const [x, y] = toScreen(p);
        c.beginPath();
        c.arc(x, y, 4.5, 0, 7);
        c.fillStyle = '#ffffff';
        c.fill();
        c.lineWidth = 1.5;
        c.strokeStyle = '#12463a';
        c.stroke();
      }
    };
    /** The handles of a curve's nodes. */
    const handles = (points: readonly Point[]) => {
      c.lineWidth = 1;
      c.strokeStyle = '#12463a';
      for (let i = 0; i + 2 < points.length; i += 3) {
        c.beginPath();
        path(points.slice(i, i + 3), false);
        c.stroke();
      }
    };
    if (preview) {
      const [x, y] = toScreen([0, 0]);
      c.imageSmoothingEnabled = false;
      c.drawImage(preview, x, y, size.width * cam.zoom, size.height * cam.zoom);
    }
    for (const d of doubts) {
      const [x, y] = toScreen([d.x, d.y]);
      c.beginPath();
      c.arc(x, y, Math.max(9, d.radius * cam.zoom), 0, 7);
      c.lineWidth = 4;
      c.strokeStyle = '#171b19aa';
      c.stroke();
      c.lineWidth = 2;
      c.strokeStyle = '#f0b23c';
      c.stroke();
    }
    const { box: drawn, at: clicks } = recipe.automatic;
    if (tool === 'box' && drawn)
      twoTone(
        () =>
          path(
            shapePoints({
              shape: 'rectangle',
              points: [[drawn.x, drawn.y], [drawn.x + drawn.width, drawn.y + drawn.height]], // prettier-ignore
            }),
            true,
          ),
        true,
      );
    if (tool === 'point') dots(clicks);
    if (tool === 'base' && base) {
      const [x, y] = toScreen([base.x, base.y]);
      twoTone(
        () => c.ellipse(x, y, base.halfWidth * cam.zoom, Math.max(1, base.halfDepth * cam.zoom), 0, 0, 7),
        recipe.base === null,
      );
      dots(baseHandles(base));
    }
    if (chosen) {
      if (chosen.kind === 'trace') {
        twoTone(() => path(paths[chosen.id] ?? chosen.points, true), true);
        dots(chosen.points);
      } else if (chosen.kind === 'shape') {
        // Dashed where it may move to the edge, whole where it is cut as drawn.
        twoTone(() => path(shapePoints(chosen), true), chosen.snap > 0);
        if (chosen.shape === 'curve') handles(chosen.points);
        if (chosen.shape !== 'freehand') dots(chosen.points);
      } else if (chosen.kind === 'colour') dots(chosen.seeds);
      else if ('points' in chosen) {
        c.lineCap = c.lineJoin = 'round';
        c.globalAlpha = 0.35;
        c.strokeStyle = '#d3f04a';
        c.lineWidth = chosen.radius * 2 * cam.zoom;
        c.beginPath();
        path(chosen.points.length > 1 ? chosen.points : [chosen.points[0], chosen.points[0]], false);
        c.stroke();
        c.globalAlpha = 1;
      }
    }
    if (tool === 'repair')
      for (const piece of recipe.repairs) {
        twoTone(() => path(pieceOutline(piece), true), true);
        dots(piece.points);
      }
    if (draft.length) {
      if (tool === 'pen') {
        const open = pointer ? [...draft, pointer, pointer, pointer] : draft;
        const closing = curveOutline(open);
        const last = open[open.length - 2];
        const end = closing.findIndex((p) => p[0] === last[0] && p[1] === last[1]);
        twoTone(() => path(end > 0 ? closing.slice(0, end + 1) : closing, false));
        handles(draft);
      } else twoTone(() => path(snapped.length ? snapped : pointer ? [...draft, pointer] : draft, false));
      dots(draft);
    }
    if (gesture && gesture.points.length) {
      const [first] = gesture.points;
      const last = gesture.points[gesture.points.length - 1];
      if (brush) {
        c.lineCap = c.lineJoin = 'round';
        c.globalAlpha = 0.45;
        c.strokeStyle =
          tool === 'drop' || tool === 'paint-drop' ? '#d9472f' : tool === 'fibre' ? '#b87503' : '#12463a';
        c.lineWidth = radius * 2 * cam.zoom;
        c.beginPath();
        path(gesture.points.length > 1 ? gesture.points : [first, first], false);
        c.stroke();
        c.globalAlpha = 1;
      } else if (tool === 'straighten') twoTone(() => path([first, last], false));
      else if (tool === 'pen') {
        handles([[2 * first[0] - last[0], 2 * first[1] - last[1]], first, last]);
        dots([first, last]);
      } else if (tool === 'crop' || tool === 'box')
        twoTone(() => path(shapePoints({ shape: 'rectangle', points: [first, last] }), true));
      else if (tool === 'shape' || tool === 'repair') {
        const kind = tool === 'shape' ? options.shape : options.piece;
        twoTone(() =>
          kind === 'freehand' || kind === 'path'
            ? path(gesture.points, false)
            : path(
                shapePoints({ shape: kind === 'ellipse' ? 'ellipse' : 'rectangle', points: [first, last] }),
                true,
              ),
        );
      }
    }
    if (brush && pointer) {
      const [x, y] = toScreen(pointer);
      twoTone(() => c.arc(x, y, Math.max(1.5, radius * cam.zoom), 0, 7));
      c.font = '11px "Spline Sans Mono Variable", monospace';
      const words = `${Math.round(radius * 2)} px`;
      const at = x + radius * cam.zoom + 6;
      c.lineWidth = 3;
      c.strokeStyle = '#ffffff';
      c.strokeText(words, at, y + 4);
      c.fillStyle = '#171b19';
      c.fillText(words, at, y + 4);
    }
  }, [
    box,
    brush,
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
    radius,
    size,
    recipe.automatic,
    recipe.base,
    base,
    recipe.repairs,
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

/** The middle of a base, its right end and its front. */
function baseHandles({ x, y, halfWidth, halfDepth }: DrawnBase): Point[] {
  return [
    [x, y],
    [x + halfWidth, y],
    [x, y + halfDepth],
  ];
}

function askedFor(key: string, edgeLine: boolean, recipe: CutoutRecipe): string {
  return `${key}:${edgeLine}:${JSON.stringify([recipe.edge, recipe.repairs, recipe.steps, recipe.automatic])}`;
}

/** A canvas empty and in CSS pixels; it is made anew only when its size changes, which costs more than a frame. */
function cleared(
  canvas: HTMLCanvasElement,
  box: { width: number; height: number },
  density: number,
): CanvasRenderingContext2D {
  const [width, height] = [Math.round(box.width * density), Math.round(box.height * density)];
  if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
  const c = canvas.getContext('2d')!;
  c.setTransform(density, 0, 0, density, 0, 0);
  c.clearRect(0, 0, box.width, box.height);
  return c;
}

function checkers(c: CanvasRenderingContext2D, box: { width: number; height: number }): void {
  c.fillStyle = '#f4f4f4';
  c.fillRect(0, 0, box.width, box.height);
  c.fillStyle = '#d9d9d9';
  for (let y = 0; y < box.height; y += 7)
    for (let x = (y / 7) % 2 ? 7 : 0; x < box.width; x += 14) c.fillRect(x, y, 7, 7);
}
