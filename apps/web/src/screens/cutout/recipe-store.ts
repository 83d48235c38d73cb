import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { type CutoutDesk, call } from '../../api/client';
import { createDocumentStore } from '../../documents/document-store';

/** A photo's corrections as the server has them. */
interface Beside {
  inUse: boolean;
  /** The step whose points are shown and can be moved. */
  chosen: string | null;
  choose(id: string | null): void;
}

const stored = ({ recipe, history, revision }: CutoutDesk) => ({ document: recipe, history, revision });

const store = createDocumentStore<CutoutRecipe, Beside>({
  async put(id, { revision, document, history }) {
    const saved = await call('PUT /api/photos/:id/recipe', {
      params: { id },
      body: {
        revision,
        recipe: document,
        history,
      },
    });
    return { revision: saved.revision, extra: { inUse: saved.inUse } };
  },
  theirs: (detail) => stored(detail as CutoutDesk),
  extra: (set) => ({
    inUse: true,
    chosen: null,
    choose: (chosen) => set({ chosen }),
  }),
});

/** The recipe of the photo on the desk: every change is a step of history and is stored as it is made. */
export const useRecipe = store.use;

/** Stores the recipe; true when what is on the desk is what the server has. */
export const saveRecipe = store.save;

export function openDesk(photoId: string, desk: CutoutDesk): void {
  store.open(photoId, stored(desk), { inUse: desk.inUse, chosen: null });
}
