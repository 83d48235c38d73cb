import { applyPatches } from 'immer';
import { create } from 'zustand';
import type { Shot } from '@scenograph/core/shot/document';
import { request, ServerRefusal } from '../../api/client';
import { isMockup } from './mockup/editing';
import { difference, KEPT_STEPS, type Edit } from '../../undo/difference';

export interface StoredShot {
  id: string;
  listingId: string;
  title: string;
  document: Shot;
  history: { past: Edit[]; future: Edit[] };
  revision: number;
  feeds: string[];
}

export type Saving = 'saved' | 'waiting' | 'saving' | 'offline' | 'conflict';

interface Conflict {
  message: string;
  revision: number;
  document: Shot;
  history: StoredShot['history'];
}

interface StageState {
  shotId: string;
  document: Shot | null;
  past: Edit[];
  future: Edit[];
  revision: number;
  saving: Saving;
  savedAt: Date | null;
  conflict: Conflict | null;
  selected: string | null;
  /** Others that are chosen with it, for aligning and linking. */
  also: string[];
  /** The slot whose fit is on the stage; null shows the base. */
  slot: string | null;
  /** While a gesture goes on: the document it began with. */
  gestureBase: Shot | null;

  open(shot: StoredShot): void;
  select(id: string | null): void;
  /** Adds to what is chosen, or lets go of it. */
  choose(id: string): void;
  showSlot(key: string | null): void;
  /** One finished change. The recipe gets the document and gives the new one. */
  edit(label: string, change: (shot: Shot) => Shot): void;
  /** A change while dragging: shown at once, one step of history when it ends. */
  during(change: (shot: Shot) => Shot): void;
  finish(label: string, change?: (shot: Shot) => Shot): void;
  abandon(): void;
  undo(): void;
  redo(): void;
  keepMine(): void;
  takeTheirs(): void;
}

export const useStage = create<StageState>((set, get) => {
  let timer: ReturnType<typeof setTimeout> | null = null;

  const later = (wait = 500) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), wait);
  };

  const commit = (label: string, before: Shot, after: Shot) => {
    const [forward, inverse] = difference(before, after);
    set({ gestureBase: null, document: after });
    if (!forward.length) return;
    set((s) => ({
      past: [...s.past, { label, forward, inverse }].slice(-KEPT_STEPS),
      future: [],
      saving: s.saving === 'conflict' ? 'conflict' : 'waiting',
    }));
    later();
  };

  return {
    shotId: '',
    document: null,
    past: [],
    future: [],
    revision: 0,
    saving: 'saved',
    savedAt: null,
    conflict: null,
    selected: null,
    also: [],
    slot: null,
    gestureBase: null,

    open(shot) {
      set({
        shotId: shot.id,
        document: shot.document,
        past: shot.history.past,
        future: shot.history.future,
        revision: shot.revision,
        saving: 'saved',
        savedAt: null,
        conflict: null,
        selected:
          (shot.document.elements.find((e) => e.kind === 'product') ?? shot.document.elements.find(isMockup))
            ?.id ?? null,
        also: [],
        slot: null,
        gestureBase: null,
      });
    },
    select: (selected) => set({ selected, also: [] }),
    choose(id) {
      const { selected, also } = get();
      if (!selected) set({ selected: id });
      else if (id === selected) set({ selected: also[0] ?? null, also: also.slice(1) });
      else set({ also: also.includes(id) ? also.filter((a) => a !== id) : [...also, id] });
    },
    showSlot: (slot) => set({ slot }),
    edit(label, change) {
      const before = get().document;
      if (before) commit(label, before, change(before));
    },
    during(change) {
      const { document, gestureBase } = get();
      if (!document) return;
      const base = gestureBase ?? document;
      set({ gestureBase: base, document: change(base) });
    },
    finish(label, change) {
      const { document, gestureBase } = get();
      if (!document) return;
      const base = gestureBase ?? document;
      commit(label, base, change ? change(base) : document);
    },
    abandon() {
      const { gestureBase } = get();
      if (gestureBase) set({ document: gestureBase, gestureBase: null });
    },
    undo() {
      const { past, document } = get();
      const step = past[past.length - 1];
      if (!step || !document) return;
      set((s) => ({
        document: applyPatches(document, step.inverse),
        past: past.slice(0, -1),
        future: [step, ...s.future],
        saving: 'waiting',
      }));
      later();
    },
    redo() {
      const { future, document } = get();
      const [step] = future;
      if (!step || !document) return;
      set((s) => ({
        document: applyPatches(document, step.forward),
        past: [...s.past, step],
        future: future.slice(1),
        saving: 'waiting',
      }));
      later();
    },
    keepMine() {
      const { conflict } = get();
      if (!conflict) return;
      set({ revision: conflict.revision, conflict: null, saving: 'waiting' });
      later(0);
    },
    takeTheirs() {
      const { conflict } = get();
      if (!conflict) return;
      set({
        document: conflict.document,
        past: conflict.history.past,
        future: conflict.history.future,
        revision: conflict.revision,
        conflict: null,
        saving: 'saved',
      });
    },
  };
});

let running: Promise<void> | null = null;

/** Stores what is on the stage; resolves when it is stored, rejects when it could not be. */
export async function saveNow(): Promise<void> {
  if (running) await running.catch(() => undefined);
  const { shotId, document, past, future, revision, saving, gestureBase } = useStage.getState();
  if (!document || (saving !== 'waiting' && saving !== 'offline')) return;
  useStage.setState({ saving: 'saving' });
  running = (async () => {
    try {
      const saved = await request<{ revision: number }>('PUT', `/api/shots/${shotId}`, {
        revision,
        document: gestureBase ?? document,
        history: { past, future },
      });
      const now = useStage.getState();
      if (now.shotId !== shotId) return;
      const moved = now.past !== past || now.future !== future;
      useStage.setState({
        revision: saved.revision,
        saving: moved ? 'waiting' : 'saved',
        savedAt: new Date(),
      });
    } catch (error) {
      if (useStage.getState().shotId !== shotId) return;
      if (error instanceof ServerRefusal && error.status === 409) {
        const detail = error.detail as Omit<Conflict, 'message'>;
        useStage.setState({ saving: 'conflict', conflict: { message: error.message, ...detail } });
      } else {
        // Nothing is lost: it stays here and is tried again.
        useStage.setState({ saving: 'offline' });
        setTimeout(() => void saveNow().catch(() => undefined), 3000);
      }
      throw error;
    }
  })();
  const mine = running;
  try {
    await mine;
  } catch {
    // Told through the state.
  } finally {
    if (running === mine) running = null;
  }
  if (useStage.getState().saving === 'waiting') await saveNow();
}

/** True when everything on the stage is stored. */
export const isSaved = () => useStage.getState().saving === 'saved';
