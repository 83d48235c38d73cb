import type { Remote } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Fringe } from '@scenograph/core/cutout/fringe';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { blobUrl, reducedUrl, type Photo, type Scene } from '../../api/client';
import { say } from '../../ui/notices';
import type { DeskWorker, Opened, Shown, SolvedNote } from '../../workers/desk.worker';
import { startDesk } from '../../workers/painters';
import { useRecipe } from './recipe-store';

/** The worker with the photo open, and the newest recipe carried out. */
export function useDesk(photo: Photo, recipe: CutoutRecipe) {
  /** The view takes what came with a solved recipe at once, before React has rendered. */
  const onSolved = useRef<((shown: Shown, recipe: CutoutRecipe) => void) | null>(null);
  const [worker, setWorker] = useState<Remote<DeskWorker> | null>(null);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [note, setNote] = useState<SolvedNote | null>(null);
  const [version, setVersion] = useState({ solved: 0, tidied: 0, full: 0 });
  const [solvedRecipe, setSolvedRecipe] = useState<CutoutRecipe | null>(null);
  const tidiedKey = useRef('');
  const [trouble, setTrouble] = useState<Error | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    const { remote: desk, stopped, end } = startDesk();
    let here = true;
    const failed = (e: Error) => {
      if (!here) return;
      setWorker(null);
      setOpened(null);
      setTrouble(e);
    };
    Promise.race([desk.load(blobUrl(photo.working)), stopped])
      .then(() => here && setWorker(() => desk))
      .catch(failed);
    // It may break down at any time later too.
    stopped.catch(failed);
    return () => {
      here = false;
      end();
    };
  }, [photo.working, tries]);
  const tryAgain = () => {
    setTrouble(null);
    tidiedKey.current = '';
    busy.current = false;
    setTries((n) => n + 1);
  };
  const wish = useRef<CutoutRecipe | null>(null);
  const busy = useRef(false);
  const rest = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => void (rest.current && clearTimeout(rest.current)), []);
  // Edge controls, repairs and painting act on the solved matte: they ask for no new cut.
  const cutKey = useMemo(() => cutKeyOf(recipe), [recipe]);
  useEffect(() => {
    if (!worker) return;
    wish.current = useRecipe.getState().document ?? recipe;
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      while (wish.current) {
        const next = wish.current;
        wish.current = null;
        try {
          const key = JSON.stringify(next.tidy);
          if (key !== tidiedKey.current) {
            setOpened(await worker.tidy(next.tidy));
            tidiedKey.current = key;
            setVersion((v) => ({ ...v, tidied: v.tidied + 1 }));
          }
          const { shown, ...told } = await worker.solve(next, true);
          if (shown) onSolved.current?.(shown, next);
          setNote(told);
          setSolvedRecipe(next);
          setVersion((v) => ({ ...v, solved: v.solved + 1 }));
        } catch (e) {
          say('stop', (e as Error).message);
        }
      }
      busy.current = false;
      // When the hand rests, the matte is solved at its full fineness.
      if (rest.current) clearTimeout(rest.current);
      rest.current = setTimeout(() => void solveFully(), 900);
    };
    const solveFully = async () => {
      const now = useRecipe.getState().document;
      if (busy.current || wish.current || !now) return;
      busy.current = true;
      try {
        const { shown } = await worker.solve(now, false);
        if (shown) onSolved.current?.(shown, now);
        setVersion((v) => ({ ...v, solved: v.solved + 1, full: v.full + 1 }));
      } catch (e) {
        say('stop', (e as Error).message);
      }
      busy.current = false;
      if (wish.current) void work();
    };
    void work();
  }, [worker, cutKey]);
  return { worker, opened, note, version, solvedRecipe, onSolved, trouble, tryAgain };
}

/** The parts of a recipe that ask for a new cut. */
export function cutKeyOf(recipe: CutoutRecipe): string {
  return JSON.stringify([recipe.tidy, recipe.automatic, recipe.steps.filter((s) => s.kind !== 'paint')]);
}

export function useFringe(
  worker: Remote<DeskWorker> | null,
  recipe: CutoutRecipe,
  solved: number,
): Fringe | null {
  const [fringe, setFringe] = useState<Fringe | null>(null);
  useEffect(() => {
    if (!worker || !solved) return;
    let here = true;
    const timer = setTimeout(() => {
      worker
        .fringe(recipe)
        .then((f) => here && setFringe(f))
        .catch(() => undefined);
    }, 600);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [worker, recipe, solved]);
  return fringe;
}

/** The scene that was chosen, else one that the product stands in, else any. */
export function useScene(scenes: Scene[] | undefined, id: string | null, standsIn: string[]) {
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null);
  const scene =
    scenes?.find((s) => s.id === id) ?? scenes?.find((s) => s.picture === standsIn[0]) ?? scenes?.[0];
  const picture = scene?.picture;
  useEffect(() => {
    if (!picture) return;
    let here = true;
    void fetch(reducedUrl(picture, 1024))
      .then((r) => r.blob())
      .then((b) => createImageBitmap(b))
      .then((b) => here && setBitmap(b));
    return () => {
      here = false;
    };
  }, [picture]);
  return { scene, bitmap };
}
