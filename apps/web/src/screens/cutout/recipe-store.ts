import { applyPatches } from 'immer';
import { create } from 'zustand';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { request, ServerRefusal, type Outline } from '../../api/client';
import { difference, KEPT_STEPS, type Edit } from '../../undo/difference';

export interface StoredDesk {
  recipe: CutoutRecipe;
  history: { past: Edit[]; future: Edit[] };
  revision: number;
  outlines: Outline[];
  /** The full-size cutout was made by this recipe. */
  inUse: boolean;
  /** Pictures of the scenes that the product stands in. */
  standsIn: string[];
}

interface RecipeState {
  photoId: string;
  recipe: CutoutRecipe | null;
  past: Edit[];
  future: Edit[];
  revision: number;
  inUse: boolean;
  saving: 'saved' | 'waiting' | 'saving' | 'offline';
  /** Another window has changed this cutout: what stands on the server. */
  conflict: StoredDesk | null;
  /** The step whose points are shown and can be moved. */
  chosen: string | null;
  gestureBase: CutoutRecipe | null;

  open(photoId: string, desk: StoredDesk): void;
  choose(id: string | null): void;
  edit(label: string, change: (recipe: CutoutRecipe) => CutoutRecipe): void;
  during(change: (recipe: CutoutRecipe) => CutoutRecipe): void;
  finish(label: string, change: (recipe: CutoutRecipe) => CutoutRecipe): void;
  undo(): void;
  redo(): void;
  settle(mine: boolean): void;
}

/** The recipe being edited: every change is a step of history and is stored as it is made. */
export const useRecipe = create<RecipeState>((set, get) => {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const later = (wait = 400) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void saveRecipe(), wait);
  };
  const commit = (label: string, before: CutoutRecipe, after: CutoutRecipe) => {
    const [forward, inverse] = difference(before, after);
    set({ gestureBase: null, recipe: after });
    if (!forward.length) return;
    set((s) => ({
      past: [...s.past, { label, forward, inverse }].slice(-KEPT_STEPS),
      future: [],
      saving: 'waiting',
    }));
    later();
  };
  const walk = (from: 'past' | 'future') => {
    const { recipe, past, future } = get();
    const step = from === 'past' ? past[past.length - 1] : future[0];
    if (!step || !recipe) return;
    set({
      recipe: applyPatches(recipe, from === 'past' ? step.inverse : step.forward),
      past: from === 'past' ? past.slice(0, -1) : [...past, step],
      future: from === 'past' ? [step, ...future] : future.slice(1),
      saving: 'waiting',
      gestureBase: null,
    });
    later();
  };
  return {
    photoId: '',
    recipe: null,
    past: [],
    future: [],
    revision: 0,
    inUse: true,
    saving: 'saved',
    conflict: null,
    chosen: null,
    gestureBase: null,
    open(photoId, desk) {
      set({
        photoId,
        recipe: desk.recipe,
        past: desk.history.past,
        future: desk.history.future,
        revision: desk.revision,
        inUse: desk.inUse,
        saving: 'saved',
        conflict: null,
        chosen: null,
        gestureBase: null,
      });
    },
    choose: (chosen) => set({ chosen }),
    edit(label, change) {
      const { recipe } = get();
      if (recipe) commit(label, recipe, change(recipe));
    },
    during(change) {
      const { recipe, gestureBase } = get();
      if (!recipe) return;
      const base = gestureBase ?? recipe;
      set({ gestureBase: base, recipe: change(base) });
    },
    finish(label, change) {
      const { recipe, gestureBase } = get();
      const base = gestureBase ?? recipe;
      if (base) commit(label, base, change(base));
    },
    undo: () => walk('past'),
    redo: () => walk('future'),
    settle(mine) {
      const { conflict, photoId } = get();
      if (!conflict) return;
      if (!mine) return get().open(photoId, conflict);
      set({ revision: conflict.revision, conflict: null, saving: 'waiting' });
      later(0);
    },
  };
});

let running: Promise<void> | null = null;

/** Stores the recipe; true when what is on the desk is what the server has. */
export async function saveRecipe(): Promise<boolean> {
  await running;
  const { photoId, recipe, gestureBase, past, future, revision, saving, conflict } = useRecipe.getState();
  if (!recipe || conflict) return false;
  if (saving === 'saved') return true;
  useRecipe.setState({ saving: 'saving' });
  running = (async () => {
    try {
      const saved = await request<{ revision: number; inUse: boolean }>(
        'PUT',
        `/api/photos/${photoId}/recipe`,
        {
          revision,
          recipe: gestureBase ?? recipe,
          history: { past, future },
        },
      );
      const now = useRecipe.getState();
      if (now.photoId !== photoId) return;
      const moved = now.past !== past || now.future !== future;
      useRecipe.setState({
        revision: saved.revision,
        inUse: saved.inUse,
        saving: moved ? 'waiting' : 'saved',
      });
    } catch (error) {
      if (useRecipe.getState().photoId !== photoId) return;
      if (error instanceof ServerRefusal && error.status === 409)
        useRecipe.setState({ saving: 'waiting', conflict: error.detail as StoredDesk });
      else {
        // Nothing is lost: it stays here and is tried again.
        useRecipe.setState({ saving: 'offline' });
        setTimeout(() => void saveRecipe(), 3000);
      }
    }
  })();
  await running;
  running = null;
  if (useRecipe.getState().saving === 'waiting' && !useRecipe.getState().conflict) return saveRecipe();
  return useRecipe.getState().saving === 'saved';
}
