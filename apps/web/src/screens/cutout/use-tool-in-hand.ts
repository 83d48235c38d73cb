import type { Remote } from 'comlink';
import { useCallback, useState } from 'react';
import type { CutoutRecipe, Point } from '@scenograph/core/cutout/recipe';
import type { DeskWorker } from '../../workers/desk.worker';
import type { Box } from './desk-canvas';
import type { Gesture } from './desk-traces';
import { useRecipe } from './recipe-store';
import { isBrush, type BrushId, type ToolId, type ToolOptions } from './tools';
import { useGestures, withBaseMoved, withPointMoved } from './use-gestures';
import { useColourPreview, useFoundBase, useSnapped } from './use-pointer-help';
import { msg } from '../../language/language';

/** Brushes begin at a width that suits the photo. */
function firstOptions(photo: Box): ToolOptions {
  const usual = Math.max(3, Math.round(Math.max(photo.width, photo.height) / 160));
  return {
    radii: { keep: usual, drop: usual, 'paint-keep': usual, 'paint-drop': usual, fibre: usual * 2 },
    softness: 0.5,
    tolerance: 6,
    reach: 'touching',
    mode: 'auto',
    shape: 'ellipse',
    snap: 12,
    piece: 'ellipse',
    fill: null,
    corner: Math.round(Math.max(photo.width, photo.height) / 160),
  };
}

function withRadius(options: ToolOptions, tool: BrushId, factor: number): ToolOptions {
  const radius = Math.max(0.5, Math.min(1000, options.radii[tool] * factor));
  return { ...options, radii: { ...options.radii, [tool]: radius } };
}

/** The tool in hand with its choices, where it points, and what it shows and does there. */
export function useToolInHand({
  worker,
  photo,
  size,
  recipe,
  solved,
  onCropped,
}: {
  worker: Remote<DeskWorker> | null;
  photo: Box;
  /** The adjusted photo's size. */
  size: Box;
  recipe: CutoutRecipe;
  /** Counts up whenever the worker has solved anew. */
  solved: number;
  onCropped(): void;
}) {
  const [tool, setTool] = useState<Gesture['tool']>('keep');
  const [options, setOptions] = useState(() => firstOptions(photo));
  const [pointer, setPointer] = useState<Point | null>(null);
  const chosenId = useRecipe((s) => s.chosen);
  const chosen = recipe.steps.find((s) => s.id === chosenId) ?? null;
  const gestures = useGestures({
    ...{ worker, photo, size, options, tool },
    onToolDone(cropped) {
      if (cropped) onCropped();
      setTool('keep');
    },
  });
  const { draft, setDraft } = gestures;
  const snapped = useSnapped(worker, tool, draft, pointer);
  const preview = useColourPreview(worker, tool, options, pointer, chosen);
  const base = useFoundBase(worker, tool, recipe, solved);
  const onMovePoint = (id: string, index: number, to: Point, done: boolean) => {
    const change = (r: CutoutRecipe) =>
      id === 'base' && base
        ? { ...r, base: withBaseMoved(r.base ?? base, index, to) }
        : withPointMoved(r, id, index, to);
    const { finish, during } = useRecipe.getState();
    if (done) finish(id === 'base' ? msg('Set the base') : msg('Move a point'), change);
    else during(change);
  };
  const choose = useCallback(
    (id: ToolId) => {
      setTool(id);
      setDraft([]);
      // A new tool begins something new: what was chosen lets go of the pointer.
      useRecipe.getState().choose(null);
    },
    [setDraft],
  );
  return {
    ...gestures,
    pointer,
    setTool,
    choose,
    change: (value: Partial<ToolOptions>) => setOptions((o) => ({ ...o, ...value })),
    brushBy: (factor: number) => setOptions((o) => (isBrush(tool) ? withRadius(o, tool, factor) : o)),
    /** All that the view over the photo needs of it. */
    inView: {
      ...{ tool, options, chosen, draft, snapped, preview, base },
      onGesture: gestures.onGesture,
      onPoint: setPointer,
      onMovePoint,
    },
  };
}

/** Removes the chosen step or, of a traced edge, the point under the pointer. */
export function removeChosen(pointer: Point | null, zoom: number): void {
  const { document: recipe, chosen: id, edit } = useRecipe.getState();
  const step = recipe?.steps.find((s) => s.id === id);
  if (!step) return;
  const near =
    step.kind === 'trace' && pointer && step.points.length > 3
      ? step.points.findIndex((p) => Math.hypot(p[0] - pointer[0], p[1] - pointer[1]) * zoom < 10)
      : -1;
  if (near < 0) {
    edit(msg('Delete {step}', { step: step.name }), (r) => ({
      ...r,
      steps: r.steps.filter((s) => s.id !== id),
    }));
    return;
  }
  const shorter = (points: Point[]) => points.filter((_, i) => i !== near);
  edit(msg('Remove a point'), (r) => ({
    ...r,
    steps: r.steps.map((s) => (s.id === id && s.kind === 'trace' ? { ...s, points: shorter(s.points) } : s)),
  }));
}
