import type { Remote } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Fringe } from '@scenograph/core/cutout/fringe';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { blobUrl, reducedUrl, type Photo, type Scene } from '../../api/client';
import { say } from '../../ui/notices';
import type { DeskWorker, Opened, Shown, SolvedNote } from '../../workers/desk.worker';
import { startDesk } from '../../workers/painters';
import { useRecipe } from './recipe-store';

/** Milliseconds after which a hand is taken to rest: the matte is solved at its full fineness then. */
const RESTS = 900;

/** The worker with the photo open; why it is not, where it could not be opened or broke down, and a way to try again. */
function useDeskWorker(working: string) {
  const [worker, setWorker] = useState<Remote<DeskWorker> | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    const { remote: desk, stopped, end } = startDesk();
    let here = true;
    const failed = (e: Error) => {
      if (!here) return;
      setWorker(null);
      setTrouble(e);
    };
    Promise.race([desk.load(blobUrl(working)), stopped])
      .then(() => here && setWorker(() => desk))
      .catch(failed);
    // It may break down at any time later too.
    stopped.catch(failed);
    return () => {
      here = false;
      end();
    };
  }, [working, tries]);
  const tryAgain = () => {
    setTrouble(null);
    setTries((n) => n + 1);
  };
  return { worker, trouble, tryAgain };
}

type OnSolved = (shown: Shown, recipe: CutoutRecipe) => void;

/** Has a worker carry out recipes one after the other, the newest that is wanted next; when the hand rests, finely. */
class Solving {
  private wish: CutoutRecipe | null = null;
  private busy = false;
  private tidied = '';
  private rest: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly worker: Remote<DeskWorker>,
    private readonly tell: {
      opened(opened: Opened): void;
      solved(told: SolvedNote & { shown: Shown | null }, recipe: CutoutRecipe): void;
      solvedFully(shown: Shown | null, recipe: CutoutRecipe): void;
    },
  ) {}

  want(recipe: CutoutRecipe): void {
    this.wish = recipe;
    void this.work();
  }

  end(): void {
    if (this.rest) clearTimeout(this.rest);
    this.wish = null;
  }

  private async work(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    while (this.wish) {
      const next = this.wish;
      this.wish = null;
      await this.tried(async () => {
        const key = JSON.stringify(next.tidy);
        if (key !== this.tidied) {
          this.tell.opened(await this.worker.tidy(next.tidy));
          this.tidied = key;
        }
        this.tell.solved(await this.worker.solve(next, true), next);
      });
    }
    this.busy = false;
    if (this.rest) clearTimeout(this.rest);
    this.rest = setTimeout(() => void this.fully(), RESTS);
  }

  private async fully(): Promise<void> {
    const now = useRecipe.getState().document;
    if (this.busy || this.wish || !now) return;
    this.busy = true;
    await this.tried(async () => this.tell.solvedFully((await this.worker.solve(now, false)).shown, now));
    this.busy = false;
    if (this.wish) void this.work();
  }

  private async tried(job: () => Promise<void>): Promise<void> {
    try {
      await job();
    } catch (e) {
      say('stop', (e as Error).message);
    }
  }
}

/** The worker with the photo open, and the newest recipe carried out. */
export function useDesk(photo: Photo, recipe: CutoutRecipe) {
  /** The view takes what came with a solved recipe at once, before React has rendered. */
  const onSolved = useRef<OnSolved | null>(null);
  const { worker, trouble, tryAgain } = useDeskWorker(photo.working);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [note, setNote] = useState<SolvedNote | null>(null);
  const [version, setVersion] = useState({ solved: 0, tidied: 0, full: 0 });
  const [solvedRecipe, setSolvedRecipe] = useState<CutoutRecipe | null>(null);
  const [solving, setSolving] = useState<Solving | null>(null);
  useEffect(() => {
    if (!worker) return;
    const begun = new Solving(worker, {
      opened(now) {
        setOpened(now);
        setVersion((v) => ({ ...v, tidied: v.tidied + 1 }));
      },
      solved({ shown, ...told }, of) {
        if (shown) onSolved.current?.(shown, of);
        setNote(told);
        setSolvedRecipe(of);
        setVersion((v) => ({ ...v, solved: v.solved + 1 }));
      },
      solvedFully(shown, of) {
        if (shown) onSolved.current?.(shown, of);
        setVersion((v) => ({ ...v, solved: v.solved + 1, full: v.full + 1 }));
      },
    });
    setSolving(begun);
    return () => {
      begun.end();
      setSolving(null);
    };
  }, [worker]);
  // Edge controls, repairs and painting act on the solved matte: they ask for no new cut.
  const cutKey = useMemo(() => cutKeyOf(recipe), [recipe]);
  const latest = useRef(recipe);
  latest.current = recipe;
  useEffect(() => {
    solving?.want(useRecipe.getState().document ?? latest.current);
  }, [solving, cutKey]);
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
      .then((b) => here && setBitmap(b))
      // The cutout is seen on plain grounds without it.
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [picture]);
  return { scene, bitmap };
}
