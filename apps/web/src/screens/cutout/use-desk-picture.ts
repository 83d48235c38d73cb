import { useEffect, useRef, type RefObject } from 'react';
import type { Remote } from 'comlink';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { DeskWorker, Shown } from '../../workers/desk.worker';
import type { Box, Camera } from './desk-canvas';

/** What the worker has sent for the part of the photo that is in view. */
export interface DeskPictureParts {
  shown: Shown | null;
  photo: { bitmap: ImageBitmap; view: Shown['view'] } | null;
}

interface Wanted {
  /** Filled here. */
  parts: RefObject<DeskPictureParts>;
  worker: Remote<DeskWorker>;
  recipe: CutoutRecipe;
  /** Counts up whenever the worker has solved anew or the photo was adjusted. */
  version: { solved: number; tidied: number };
  camera: Camera;
  box: Box;
  size: Box;
  density: number;
  edgeLine: boolean;
  /** Where the view says how it takes what comes with a solved recipe. */
  onSolved: RefObject<((shown: Shown, recipe: CutoutRecipe) => void) | null>;
  /** Called when there is something new to draw. */
  draw(): void;
  onShown(milliseconds: number): void;
}

/** The part of the photo that fills the view, at the view's own density; null where it is too small to be seen. */
function viewOf({ camera, box, size, density }: Wanted): Shown['view'] | null {
  const k = Math.max(1, 1 / (camera.zoom * density));
  const halfW = box.width / 2 / camera.zoom;
  const halfH = box.height / 2 / camera.zoom;
  const left = Math.max(0, Math.floor(camera.x - halfW));
  const top = Math.max(0, Math.floor(camera.y - halfH));
  const right = Math.min(size.width, Math.ceil(camera.x + halfW));
  const bottom = Math.min(size.height, Math.ceil(camera.y + halfH));
  if (right - left < 2 || bottom - top < 2) return null;
  return {
    left,
    top,
    k,
    width: Math.max(1, Math.floor((right - left) / k)),
    height: Math.max(1, Math.floor((bottom - top) / k)),
  };
}

function askedFor(key: string, edgeLine: boolean, recipe: CutoutRecipe): string {
  return `${key}:${edgeLine}:${JSON.stringify([recipe.edge, recipe.repairs, recipe.steps, recipe.automatic])}`;
}

/**
 * Asks the worker for what is in view: the newest request is answered as soon as the worker is free, those in between
 * are skipped. A picture that comes with a solved recipe is taken without asking.
 */
export function useDeskPicture(wanted: Wanted): void {
  const { parts, worker, recipe, version, edgeLine, onSolved, draw, onShown } = wanted;
  const request = useRef<(() => Promise<void>) | null>(null);
  const busy = useRef(false);
  const photoKey = useRef('');
  const lastAsked = useRef('');
  const drawNow = useRef(draw);
  useEffect(() => {
    drawNow.current = draw;
  }, [draw]);

  const view = viewOf(wanted);
  const viewKey = view && JSON.stringify(view);
  useEffect(() => {
    if (!version.solved || !viewKey) return;
    const part = JSON.parse(viewKey) as Shown['view'];
    const key = `${viewKey}:${version.tidied}`;
    const asked = askedFor(key, edgeLine, recipe);
    if (asked === lastAsked.current) return;
    lastAsked.current = asked;
    request.current = async () => {
      const started = performance.now();
      const next = await worker.view(part, recipe, { photo: photoKey.current !== key, rings: edgeLine });
      if (next.photo) {
        photoKey.current = key;
        parts.current.photo = { bitmap: next.photo, view: part };
      }
      parts.current.shown = next;
      onShown(performance.now() - started);
      drawNow.current();
    };
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      while (request.current) {
        const job = request.current;
        request.current = null;
        await job().catch((error: Error) => console.warn(error.message));
      }
      busy.current = false;
    };
    void work();
  }, [parts, worker, recipe, version, viewKey, edgeLine, onShown]);

  useEffect(() => {
    onSolved.current = (next, solvedRecipe) => {
      // The photo lies as it was when the view was asked for; a newer request is on its way otherwise.
      const key = `${JSON.stringify(next.view)}:${version.tidied}`;
      if (photoKey.current !== key) {
        lastAsked.current = '';
        return;
      }
      lastAsked.current = askedFor(key, edgeLine, solvedRecipe);
      parts.current.shown = next;
      drawNow.current();
    };
  }, [parts, onSolved, version.tidied, edgeLine]);
}
