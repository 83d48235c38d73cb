import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { DeskWorker } from '../../workers/desk.worker';
import type { Gesture } from './desk-traces';
import type { ToolOptions } from './tools';

/** Where a traced edge would run from the points that are set to the pointer. */
export function useSnapped(
  worker: Remote<DeskWorker> | null,
  tool: Gesture['tool'],
  draft: Point[],
  pointer: Point | null,
): Point[] {
  const [path, setPath] = useState<Point[]>([]);
  const on = tool === 'trace' && draft.length > 0;
  useEffect(() => {
    if (!worker || !on || !pointer) return;
    let here = true;
    const timer = setTimeout(() => {
      worker
        .trace([...draft, pointer])
        .then((p) => here && setPath(p))
        .catch(() => undefined);
    }, 30);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [worker, on, draft, pointer]);
  return on ? path : [];
}

/** What a colour under the pointer would take, shown before the click; with a chosen step, its picks too. */
export function useColourPreview(
  worker: Remote<DeskWorker> | null,
  tool: Gesture['tool'],
  options: ToolOptions,
  pointer: Point | null,
  chosen: Step | null,
): ImageBitmap | null {
  const [preview, setPreview] = useState<ImageBitmap | null>(null);
  const on = tool === 'colour' && pointer !== null && chosen?.kind !== 'colour';
  const { tolerance, reach } = options;
  useEffect(() => {
    if (!worker || !on) return;
    let here = true;
    const timer = setTimeout(() => {
      worker
        .colourPreview({ seeds: [pointer], tolerance, reach })
        .then((p) => here && setPreview(p))
        .catch(() => undefined);
    }, 60);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [worker, on, pointer, tolerance, reach]);
  return on ? preview : null;
}

/** What the product is found to stand on, looked for when the base tool is taken up. */
export function useFoundBase(
  worker: Remote<DeskWorker> | null,
  tool: Gesture['tool'],
  recipe: CutoutRecipe,
  solved: number,
): DrawnBase | null {
  const [found, setFound] = useState<DrawnBase | null>(null);
  const on = tool === 'base' && recipe.base === null;
  useEffect(() => {
    if (!worker || !on || !solved) return;
    let here = true;
    worker
      .base(recipe)
      .then((b) => here && setFound(b))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [worker, on, recipe, solved]);
  return recipe.base ?? (on ? found : null);
}
