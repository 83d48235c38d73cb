import { isProduct } from '@scenograph/core/elements/product/model';
import type { Shot } from '@scenograph/core/shot/document';
import type { ShotWithHistory } from '../../api/client';
import { createDocumentStore } from '../../documents/document-store';
import { SHOTS } from '../../documents/kinds';
import { useOpened } from '../../documents/use-opened';
import { isMockup } from './mockup/editing';
import { msg } from '../../language/language';

interface Chosen {
  selected: string | null;
  /** Others that are chosen with it, for aligning and linking. */
  also: string[];
  /** The slot whose fit is on the stage; null shows the base. */
  slot: string | null;
  /** The element whose content is worked on, gone into by a double click or Enter; null where none is. */
  inside: string | null;
  select(id: string | null): void;
  /** Adds to what is chosen, or lets go of it. */
  choose(id: string): void;
  showSlot(key: string | null): void;
  goInside(id: string | null): void;
}

const store = createDocumentStore<Shot, Chosen>(SHOTS, (set, get) => ({
  selected: null,
  also: [],
  slot: null,
  inside: null,
  select: (selected) => set({ selected, also: [], inside: null }),
  choose(id) {
    const { selected, also } = get();
    if (!selected) set({ selected: id });
    else if (id === selected) set({ selected: also[0] ?? null, also: also.slice(1) });
    else set({ also: also.includes(id) ? also.filter((a) => a !== id) : [...also, id] });
  },
  showSlot: (slot) => set({ slot, inside: null }),
  goInside: (inside) => set(inside ? { inside, selected: inside, also: [] } : { inside }),
}));

/** The shot on the stage, and what of it is chosen. */
export const useStage = store.use;

/** Stores what is on the stage; what could not be stored is told through the state. */
export const trySave = store.save;

/** Stores what is on the stage before something is made of it. Throws a sentence where it cannot be stored. */
export async function saveNow(): Promise<void> {
  if (!(await store.save()))
    throw new Error(
      msg('The newest changes could not be stored yet, so nothing was made of them. Try again in a moment.'),
    );
}

/** Opens a shot and follows what the server has of it; its product, or the mockup that is printed on, is chosen. */
export function useOpenedShot(id: string, shot: ShotWithHistory | undefined): boolean {
  return useOpened(store, id, shot, () => {
    const { elements } = shot!.document;
    const first = elements.find(isProduct) ?? elements.find(isMockup);
    return { selected: first?.id ?? null, also: [], slot: null, inside: null };
  });
}
