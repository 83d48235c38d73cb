import type { Remote } from 'comlink';
import { useCallback, useState } from 'react';
import {
  mapRecipe,
  type CutoutRecipe,
  type Mode,
  type Point,
  type RepairPiece,
  type Step,
} from '@scenograph/core/cutout/recipe';
import { tidyMap, type Tidy } from '@scenograph/core/retouch/tidy';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { DeskWorker } from '../../workers/desk.worker';
import type { Gesture } from './desk-traces';
import { useRecipe } from './recipe-store';
import { stepOf, thinned } from './step-of-gesture';
import { isBrush, type ToolOptions } from './tools';

const distance = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Adds a step under a name that counts up, so that steps can be told apart. */
export function addStep(label: string, step: Step): Step {
  const { document: recipe } = useRecipe.getState();
  const same = recipe?.steps.filter((s) => s.name.startsWith(label)).length ?? 0;
  const named = { ...step, name: same ? `${label} ${same + 1}` : label };
  useRecipe.getState().edit(label, (r) => ({ ...r, steps: [...r.steps, named] }));
  return named;
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
  const { edit, choose } = useRecipe.getState();

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
      const base = { id: crypto.randomUUID(), name: '', on: true, mode };
      const made =
        tool === 'trace'
          ? addStep('Edge traced', { ...base, kind: 'trace', points })
          : tool === 'pen'
            ? addStep('Pen path', { ...base, kind: 'shape', shape: 'curve', points, snap: 0 })
            : addStep('Polygon', { ...base, kind: 'shape', shape: 'polygon', points, snap: options.snap });
      useRecipe.getState().choose(made.id);
    });
  }, [draft, modeAt, options.snap, tool]);

  const tidyWith = (label: string, value: Partial<Tidy>) =>
    useRecipe.getState().finish(label, (r) => withTidy(r, value, photo));
  const tidyDuring = (value: Partial<Tidy>) => useRecipe.getState().during((r) => withTidy(r, value, photo));

  const addPiece = async (points: Point[], start: Point, end: Point) => {
    if (points.length < 3 || distance(start, end) < 2) {
      if (options.piece !== 'path' || points.length < 8) return;
    }
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
    edit('Draw a repair piece', (r) => ({ ...r, repairs: [...r.repairs, piece] }));
  };

  const onGesture = (gesture: Gesture) => {
    const { points } = gesture;
    const [start] = points;
    const end = points[points.length - 1];
    const held = ([x, y]: Point): Point => [
      Math.min(size.width, Math.max(0, x)),
      Math.min(size.height, Math.max(0, y)),
    ];
    const [a, b] = [held(start), held(end)];
    const corner = { x: Math.min(a[0], b[0]), y: Math.min(a[1], b[1]) };
    const drawn = { width: Math.abs(b[0] - a[0]), height: Math.abs(b[1] - a[1]) };
    switch (gesture.tool) {
      case 'box':
        if (drawn.width < 4 || drawn.height < 4) return;
        edit('Box round the product', (r) => ({
          ...r,
          automatic: { ...r.automatic, on: true, box: { ...corner, ...drawn } },
        }));
        return;
      case 'point':
        edit('Point at the product', (r) => ({
          ...r,
          automatic: { ...r.automatic, on: true, at: [...r.automatic.at, start] },
        }));
        return;
      case 'trace':
        setDraft((d) => [...d, end]);
        return;
      case 'pen':
        setDraft((d) =>
          distance(start, end) < 2
            ? [...d, start, start, start]
            : [...d, [2 * start[0] - end[0], 2 * start[1] - end[1]], start, end],
        );
        return;
      case 'shape':
        if (options.shape === 'polygon') {
          setDraft((d) => [...d, end]);
          return;
        }
        break;
      case 'repair':
        void addPiece(points, start, end);
        return;
      case 'neutral':
        void worker?.colourAt(...start).then((neutral) => {
          if (neutral) tidyWith('White balance', { neutral });
          onToolDone(false);
        });
        return;
      case 'straighten': {
        // The nearer of level and upright is meant.
        const angle = (Math.atan2(end[1] - start[1], end[0] - start[0]) * 180) / Math.PI;
        const off = ((((angle + 45) % 90) + 90) % 90) - 45;
        const now = useRecipe.getState().document?.tidy.straighten ?? 0;
        if (distance(start, end) > 8)
          tidyWith('Straighten', {
            straighten: Math.max(-45, Math.min(45, Math.round((now - off) * 10) / 10)),
          });
        onToolDone(false);
        return;
      }
      case 'crop': {
        const before = useRecipe.getState().document?.tidy.crop;
        const x = Math.max(0, Math.round(corner.x)) + (before?.x ?? 0);
        const y = Math.max(0, Math.round(corner.y)) + (before?.y ?? 0);
        const width = Math.min(size.width, Math.round(drawn.width));
        const height = Math.min(size.height, Math.round(drawn.height));
        if (width >= 8 && height >= 8) tidyWith('Crop', { crop: { x, y, width, height } });
        onToolDone(true);
        return;
      }
      default:
        break;
    }
    if (gesture.tool === 'colour' && gesture.shift) {
      const { document: recipe, chosen } = useRecipe.getState();
      const step = recipe?.steps.find((s) => s.id === chosen);
      if (step?.kind === 'colour') {
        edit('Pick another colour', (r) => ({
          ...r,
          steps: r.steps.map((s) => (s.id === step.id ? { ...step, seeds: [...step.seeds, start] } : s)),
        }));
        return;
      }
    }
    const finish = (mode: Mode) => {
      const made = stepOf(gesture, options, mode);
      if (!made) return;
      const step = addStep(made.label, made.step);
      // Shapes and colours are looked at and changed at once; strokes go on.
      if (step.kind === 'shape' || step.kind === 'colour') choose(step.id);
    };
    if (isBrush(gesture.tool)) finish('add');
    else void modeAt(gesture.tool === 'shape' ? middleOf([start, end]) : start).then(finish);
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
