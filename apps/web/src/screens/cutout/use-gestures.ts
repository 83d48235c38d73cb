import type { Remote } from 'comlink';
import { useCallback, useState } from 'react';
import {
  mapRecipe,
  type CutoutRecipe,
  type Mode,
  type Point,
  type Step,
} from '@scenograph/core/cutout/recipe';
import { tidyMap, type Tidy } from '@scenograph/core/retouch/tidy';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { DeskWorker } from '../../workers/desk.worker';
import type { Gesture } from './desk-traces';
import { useRecipe } from './recipe-store';
import { stepOf } from './step-of-gesture';
import { addCorner, pickAnotherColour, TOOL_GESTURES } from './tool-gestures';
import { isBrush, type ToolOptions } from './tools';
import { msg } from '../../language/language';

/** Adds a step under a name that counts up, so that steps can be told apart. */
export function addStep(label: string, step: Step): Step {
  const { document: recipe } = useRecipe.getState();
  const same = recipe?.steps.filter((s) => s.name.startsWith(label)).length ?? 0;
  const named = { ...step, name: same ? `${label} ${same + 1}` : label };
  useRecipe.getState().edit(label, (r) => ({ ...r, steps: [...r.steps, named] }));
  return named;
}

/** The step that a closed path makes, by the tool that it was drawn with. */
function stepOfPath(
  tool: Gesture['tool'],
  points: Point[],
  mode: Mode,
  snap: number,
): { label: string; step: Step } {
  const base = { id: crypto.randomUUID(), name: '', on: true, mode };
  if (tool === 'trace') return { label: msg('Edge traced'), step: { ...base, kind: 'trace', points } };
  return tool === 'pen'
    ? { label: msg('Pen path'), step: { ...base, kind: 'shape', shape: 'curve', points, snap: 0 } }
    : { label: msg('Polygon'), step: { ...base, kind: 'shape', shape: 'polygon', points, snap } };
}

/** What finished gestures on the photo do to the recipe, and the path that is being drawn. */
export function useGestures({
  worker,
  photo,
  size,
  options,
  tool,
  onToolDone,
}: {
  worker: Remote<DeskWorker> | null;
  /** The photo as it was taken, and as it is tidied. */
  photo: { width: number; height: number };
  size: { width: number; height: number };
  options: ToolOptions;
  tool: Gesture['tool'];
  /** A tool that is used once has been used. */
  onToolDone(cropped: boolean): void;
}) {
  const [draft, setDraft] = useState<Point[]>([]);

  /** 'By place' subtracts what is kept where the gesture began, and adds what is not. */
  const modeAt = useCallback(
    async (at: Point): Promise<Mode> => {
      if (options.mode !== 'auto') return options.mode;
      return (await worker?.keptAt(at)) ? 'take' : 'add';
    },
    [options.mode, worker],
  );

  const closePath = useCallback(() => {
    const points = draft;
    setDraft([]);
    const corners = tool === 'pen' ? points.length / 3 : points.length;
    if (corners < 3) return;
    void modeAt(middleOf(points)).then((mode) => {
      const { label, step } = stepOfPath(tool, points, mode, options.snap);
      useRecipe.getState().choose(addStep(label, step).id);
    });
  }, [draft, modeAt, options.snap, tool]);

  const tidyWith = (label: string, value: Partial<Tidy>) =>
    useRecipe.getState().finish(label, (r) => withTidy(r, value, photo));
  const tidyDuring = (value: Partial<Tidy>) => useRecipe.getState().during((r) => withTidy(r, value, photo));

  const onGesture = (gesture: Gesture) => {
    const { points, tool: used } = gesture;
    const drawn = { ...gesture, start: points[0], end: points[points.length - 1] };
    const hand = { worker, size, options, setDraft, tidyWith, onToolDone };
    const polygon = used === 'shape' && options.shape === 'polygon';
    const act = polygon ? addCorner : TOOL_GESTURES[used];
    if (act) return void act(drawn, hand);
    if (used === 'colour' && gesture.shift && pickAnotherColour(drawn)) return;
    const finish = (mode: Mode) => {
      const made = stepOf(gesture, options, mode);
      if (!made) return;
      const step = addStep(made.label, made.step);
      // Shapes and colours are looked at and changed at once; strokes go on.
      if (step.kind === 'shape' || step.kind === 'colour') useRecipe.getState().choose(step.id);
    };
    if (isBrush(used)) finish('add');
    else void modeAt(used === 'shape' ? middleOf([drawn.start, drawn.end]) : drawn.start).then(finish);
  };

  return { draft, setDraft, closePath, onGesture, tidyWith, tidyDuring };
}

function middleOf(points: readonly Point[]): Point {
  const sum = points.reduce(([x, y], p): Point => [x + p[0], y + p[1]], [0, 0] as Point);
  return [sum[0] / points.length, sum[1] / points.length];
}

/** A changed tidy; where it turns or crops the photo, every step keeps its place on the product. */
function withTidy(
  recipe: CutoutRecipe,
  value: Partial<Tidy>,
  photo: { width: number; height: number },
): CutoutRecipe {
  const tidy = { ...recipe.tidy, ...value };
  if (tidy.straighten === recipe.tidy.straighten && tidy.crop === recipe.tidy.crop)
    return { ...recipe, tidy };
  const from = tidyMap(photo.width, photo.height, recipe.tidy);
  const to = tidyMap(photo.width, photo.height, tidy);
  return { ...mapRecipe(recipe, (x, y) => to.toTidied(...from.toPhoto(x, y)), 1), tidy };
}

/** A base with its middle (0), its right end (1) or its front (2) moved. */
export function withBaseMoved(base: DrawnBase, index: number, [x, y]: Point): DrawnBase {
  if (index === 0) return { ...base, x, y };
  return index === 1
    ? { ...base, halfWidth: Math.max(2, Math.abs(x - base.x)) }
    : { ...base, halfDepth: Math.max(0, Math.min(base.halfWidth, Math.abs(y - base.y))) };
}

/** The recipe with one point of a step or a repair piece moved; a curve's node takes its handles along. */
export function withPointMoved(recipe: CutoutRecipe, id: string, index: number, to: Point): CutoutRecipe {
  const moved = (points: Point[], curve: boolean) => {
    const next = points.map((p, i) => (i === index ? to : p));
    if (!curve) return next;
    const [dx, dy] = [to[0] - points[index][0], to[1] - points[index][1]];
    if (index % 3 === 1)
      for (const i of [index - 1, index + 1]) next[i] = [points[i][0] + dx, points[i][1] + dy];
    return next;
  };
  return {
    ...recipe,
    steps: recipe.steps.map((s) =>
      s.id === id && 'points' in s
        ? { ...s, points: moved(s.points, s.kind === 'shape' && s.shape === 'curve') }
        : s,
    ),
    repairs: recipe.repairs.map((p) => (p.id === id ? { ...p, points: moved(p.points, false) } : p)),
  };
}
