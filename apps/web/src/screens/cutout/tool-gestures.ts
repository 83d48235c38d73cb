import type { Remote } from 'comlink';
import type { Point, RepairPiece } from '@scenograph/core/cutout/recipe';
import type { Tidy } from '@scenograph/core/retouch/tidy';
import type { DeskWorker } from '../../workers/desk.worker';
import type { Box } from './desk-canvas';
import type { Gesture } from './desk-traces';
import { useRecipe } from './recipe-store';
import { thinned } from './step-of-gesture';
import type { ToolOptions } from './tools';
import { msg } from '../../language/language';

/** Whose hand it is that has drawn: what it works on, and what it may change. */
export interface Hand {
  worker: Remote<DeskWorker> | null;
  /** The adjusted photo's size. */
  size: Box;
  options: ToolOptions;
  /** Changes the path that is being drawn. */
  setDraft(change: (draft: Point[]) => Point[]): void;
  tidyWith(label: string, value: Partial<Tidy>): void;
  /** A tool that is used once has been used. */
  onToolDone(cropped: boolean): void;
}

/** A finished gesture with its two ends. */
export interface Drawn extends Gesture {
  start: Point;
  end: Point;
}

export const distance = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** The rectangle between both ends, held within the photo. */
function rectangleOf({ start, end }: Drawn, size: Box) {
  const held = ([x, y]: Point): Point => [
    Math.min(size.width, Math.max(0, x)),
    Math.min(size.height, Math.max(0, y)),
  ];
  const [a, b] = [held(start), held(end)];
  return {
    x: Math.min(a[0], b[0]),
    y: Math.min(a[1], b[1]),
    width: Math.abs(b[0] - a[0]),
    height: Math.abs(b[1] - a[1]),
  };
}

function drawBox(drawn: Drawn, { size }: Hand): void {
  const box = rectangleOf(drawn, size);
  if (box.width < 4 || box.height < 4) return;
  useRecipe
    .getState()
    .edit(msg('Box round the product'), (r) => ({ ...r, automatic: { ...r.automatic, on: true, box } }));
}

function pointAt({ start }: Drawn): void {
  useRecipe.getState().edit(msg('Point at the product'), (r) => ({
    ...r,
    automatic: { ...r.automatic, on: true, at: [...r.automatic.at, start] },
  }));
}

export function addCorner({ end }: Drawn, { setDraft }: Hand): void {
  setDraft((d) => [...d, end]);
}

/** A node of three points: a click makes a corner, dragging pulls its handles out. */
function addNode({ start, end }: Drawn, { setDraft }: Hand): void {
  const node: Point[] =
    distance(start, end) < 2
      ? [start, start, start]
      : [[2 * start[0] - end[0], 2 * start[1] - end[1]], start, end];
  setDraft((d) => [...d, ...node]);
}

async function addPiece({ points, start, end }: Drawn, { worker, options }: Hand): Promise<void> {
  const tiny = points.length < 3 || distance(start, end) < 2;
  // A free path may end where it began.
  if (tiny && (options.piece !== 'path' || points.length < 8)) return;
  const fill = options.fill ?? (await worker?.colourAt(...start)) ?? '#888888';
  const piece: RepairPiece = {
    id: crypto.randomUUID(),
    shape: options.piece,
    points: options.piece === 'path' ? thinned(points, 1.5) : [start, end],
    corner: options.corner,
    fill,
    outline: null,
    softness: 1,
    place: 'front',
    on: true,
  };
  useRecipe.getState().edit(msg('Draw a repair piece'), (r) => ({ ...r, repairs: [...r.repairs, piece] }));
}

async function pickNeutral({ start }: Drawn, { worker, tidyWith, onToolDone }: Hand): Promise<void> {
  const neutral = await worker?.colourAt(...start);
  if (neutral) tidyWith(msg('White balance'), { neutral });
  onToolDone(false);
}

/** Turns the photo so that the drawn line is level or upright, whichever is nearer. */
function straighten({ start, end }: Drawn, { tidyWith, onToolDone }: Hand): void {
  const angle = (Math.atan2(end[1] - start[1], end[0] - start[0]) * 180) / Math.PI;
  const off = ((((angle + 45) % 90) + 90) % 90) - 45;
  const now = useRecipe.getState().document?.tidy.straighten ?? 0;
  const turned = Math.round((now - off) * 10) / 10;
  if (distance(start, end) > 8)
    tidyWith(msg('Straighten'), { straighten: Math.max(-45, Math.min(45, turned)) });
  onToolDone(false);
}

function crop(drawn: Drawn, { size, tidyWith, onToolDone }: Hand): void {
  const before = useRecipe.getState().document?.tidy.crop;
  const rectangle = rectangleOf(drawn, size);
  const x = Math.round(rectangle.x) + (before?.x ?? 0);
  const y = Math.round(rectangle.y) + (before?.y ?? 0);
  const [width, height] = [Math.round(rectangle.width), Math.round(rectangle.height)];
  if (width >= 8 && height >= 8) tidyWith(msg('Crop'), { crop: { x, y, width, height } });
  onToolDone(true);
}

/** Adds a colour to the chosen step by colour; false where no such step is chosen. */
export function pickAnotherColour({ start }: Drawn): boolean {
  const { document: recipe, chosen, edit } = useRecipe.getState();
  const step = recipe?.steps.find((s) => s.id === chosen);
  if (step?.kind !== 'colour') return false;
  edit(msg('Pick another colour'), (r) => ({
    ...r,
    steps: r.steps.map((s) => (s.id === step.id ? { ...step, seeds: [...step.seeds, start] } : s)),
  }));
  return true;
}

/** What a finished gesture does with a tool that makes no step of its own. */
export const TOOL_GESTURES: Partial<
  Record<Gesture['tool'], (drawn: Drawn, hand: Hand) => void | Promise<void>>
> = {
  box: drawBox,
  point: pointAt,
  trace: addCorner,
  pen: addNode,
  repair: addPiece,
  neutral: pickNeutral,
  straighten,
  crop,
};
