import { useMemo } from 'react';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { CutoutDesk } from '../../api/client';
import { createDocumentStore } from '../../documents/document-store';
import { CUTOUTS, storedCutout } from '../../documents/kinds';
import { useOpened } from '../../documents/use-opened';

/** A photo's corrections as the server has them. */
interface Beside {
  inUse: boolean;
  /** The step whose points are shown and can be moved. */
  chosen: string | null;
  choose(id: string | null): void;
}

const store = createDocumentStore<CutoutRecipe, Beside>(CUTOUTS, (set) => ({
  inUse: true,
  chosen: null,
  choose: (chosen) => set({ chosen }),
}));

/** The recipe of the photo on the desk: every change is a step of history and is stored as it is made. */
export const useRecipe = store.use;

/** Stores the recipe; true when what is on the desk is what the server has. */
export const saveRecipe = store.save;

/** Opens a photo's corrections and follows what the server has of them. */
export function useOpenedDesk(photoId: string, desk: CutoutDesk | undefined): boolean {
  const stored = useMemo(() => desk && storedCutout(desk), [desk]);
  return useOpened(store, photoId, stored, () => ({ inUse: desk!.inUse, chosen: null }));
}

export function openDesk(photoId: string, desk: CutoutDesk): void {
  void store.open(photoId, storedCutout(desk), { inUse: desk.inUse, chosen: null });
}
