import { useCallback, useEffect, useRef } from 'react';
import type { Remote } from 'comlink';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { DeskWorker, Shown } from '../../workers/desk.worker';
import { cleared, drawPicture, type Box, type Camera } from './desk-canvas';
import { drawTraces, type DeskTraces, type Gesture } from './desk-traces';
import { isBrush, type Sight, type ToolOptions } from './tools';
import { useDeskPicture, type DeskPictureParts } from './use-desk-picture';
import { useDeskPointer } from './use-desk-pointer';
import { useViewCamera } from './use-view-camera';
import { msg } from '../../language/language';

/** How the picture is looked at. */
export interface DeskSight {
  sight: Sight;
  ground: string;
  tint: string;
  scene: ImageBitmap | null;
  edgeLine: boolean;
}

/** What the tools show over the photo, and what they are told. */
interface DeskTools {
  tool: Gesture['tool'];
  options: ToolOptions;
  chosen: Step | null;
  paths: Record<string, Point[]>;
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
  onGesture(gesture: Gesture): void;
  onPoint(at: Point | null): void;
  /** `id` is a step's or a repair piece's. */
  onMovePoint(id: string, index: number, to: Point, done: boolean): void;
}

interface DeskViewProps extends DeskTools {
  worker: Remote<DeskWorker>;
  size: Box;
  recipe: CutoutRecipe;
  /** Counts up whenever the worker has solved anew or the photo was tidied. */
  version: { solved: number; tidied: number };
  /** Where the view says how it takes what comes with a solved recipe. */
  onSolved: React.RefObject<((shown: Shown, recipe: CutoutRecipe) => void) | null>;
  look: DeskSight;
  camera: Camera | null;
  setCamera(camera: Camera): void;
  onShown(milliseconds: number): void;
}

/** The photo being worked on: the newest cutout as the worker gives it, the tools' traces over it. */
export function DeskView(props: DeskViewProps) {
  const { size, recipe, tool, options, chosen, paths, preview, doubts, base, draft, snapped } = props;
  const { room, box, cam, toScreen, toPhoto } = useViewCamera(size, props.camera, props.setCamera);
  const polygon = options.shape === 'polygon';
  const { gesture, pointer, keyed, moving, handlers } = useDeskPointer({
    ...props,
    ...{ cam, toPhoto, box, polygon },
  });
  const [left, top] = toScreen([0, 0]);
  const traces: DeskTraces = {
    ...{ toScreen, zoom: cam.zoom, size, tool, options, recipe, chosen, paths },
    ...{ preview, doubts, base, draft, snapped, gesture, pointer, keyed },
  };
  return (
    <div
      ref={room}
      role="application"
      aria-label={msg('Photo with its cutout; tools are chosen by their letters')}
      tabIndex={0}
      data-frame={JSON.stringify({
        x: left,
        y: top,
        width: size.width * cam.zoom,
        height: size.height * cam.zoom,
      })}
      className={`absolute inset-0 touch-none overflow-hidden ${moving ? 'cursor-grab' : isBrush(tool) ? 'cursor-none' : 'cursor-crosshair'}`}
      style={{ background: 'var(--stage)' }}
      {...handlers}
    >
      <Picture {...props} box={box} cam={cam} toScreen={toScreen} />
      <Traces box={box} traces={traces} />
      {keyed && pointer && (
        <p className="sr-only" aria-live="polite">
          {msg('{across} px across, {down} px down', {
            across: Math.round(pointer[0]),
            down: Math.round(pointer[1]),
          })}
        </p>
      )}
      <p className="measure bg-card/95 absolute top-3 left-3 rounded-sm px-2 py-1">
        {Math.round(cam.zoom * 100)} %
      </p>
    </div>
  );
}

/** The photo and its cutout, drawn whenever the worker has sent a new one or it is looked at otherwise. */
function Picture({
  worker,
  size,
  recipe,
  version,
  onSolved,
  look,
  onShown,
  box,
  cam,
  toScreen,
}: DeskViewProps & { box: Box; cam: Camera; toScreen(point: Point): Point }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const density = window.devicePixelRatio || 1;
  const { sight, ground, tint, scene, edgeLine } = look;
  const parts = useRef<DeskPictureParts>({ shown: null, photo: null });
  const draw = useCallback(() => {
    const target = canvas.current;
    if (!target) return;
    const c = cleared(target, box, density);
    const { shown, photo } = parts.current;
    if (!shown) return;
    const seen = { sight, ground, tint, scene, edgeLine };
    drawPicture(c, { box, density, zoom: cam.zoom, toScreen, size, shown, photo, ...seen });
  }, [box, cam.zoom, density, edgeLine, ground, scene, sight, size, tint, toScreen]);
  const drawNew = useCallback(() => {
    draw();
    // Counted for whoever waits for a new picture.
    if (canvas.current) canvas.current.dataset.shown = String(Number(canvas.current.dataset.shown ?? 0) + 1);
  }, [draw]);
  useEffect(draw, [draw]);
  useDeskPicture({
    ...{ parts, worker, recipe, version, camera: cam, box, size, density, edgeLine, onSolved },
    draw: drawNew,
    onShown,
  });
  return (
    <canvas
      ref={canvas}
      data-testid="desk-picture"
      role="img"
      aria-label={msg('The photo and its cutout')}
      className="absolute inset-0 h-full w-full"
    />
  );
}

/** What the tools show over the photo. */
function Traces({ box, traces }: { box: Box; traces: DeskTraces }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (canvas.current) drawTraces(cleared(canvas.current, box, window.devicePixelRatio || 1), traces);
  });
  return <canvas ref={canvas} aria-hidden className="absolute inset-0 h-full w-full" />;
}
