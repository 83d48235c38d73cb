import { applyPatches } from 'immer';
import { create, type StoreApi, type UseBoundStore } from 'zustand';
import { ServerRefusal } from '../api/client';
import { difference, KEPT_STEPS, type Edit } from './difference';

/** `waiting` is about to be stored; `offline` could not be and is tried again; `conflict` waits for a person. */
export type Saving = 'saved' | 'waiting' | 'saving' | 'offline' | 'conflict';

export interface History {
  past: Edit[];
  future: Edit[];
}

/** A document as the server has it. */
export interface Stored<T> {
  document: T;
  history: History;
  revision: number;
}

/** A document that is edited, undone and stored as it is made. */
export interface DocumentState<T> extends History {
  /** Whose document it is; '' before one is open. */
  id: string;
  document: T | null;
  /** The server's revision that it is based on. */
  revision: number;
  saving: Saving;
  savedAt: Date | null;
  /** What stands on the server where another window has stored something else. */
  conflict: (Stored<T> & { message: string }) | null;
  /** While a gesture goes on: the document that it began with. */
  gestureBase: T | null;

  /** One finished change. */
  edit(label: string, change: (document: T) => T): void;
  /** A change while dragging: shown at once, from the document that the gesture began with. */
  during(change: (document: T) => T): void;
  /** Ends a gesture as one step of history. */
  finish(label: string, change?: (document: T) => T): void;
  /** Ends a gesture with nothing changed. */
  abandon(): void;
  undo(): void;
  redo(): void;
  keepMine(): void;
  takeTheirs(): void;
}

export interface DocumentStore<T, Extra> {
  use: UseBoundStore<StoreApi<DocumentState<T> & Extra>>;
  /** Begins with a document; what was open before is let go. */
  open(id: string, stored: Stored<T>, extra?: Partial<Extra>): void;
  /** Stores what is not stored yet; true when all of it is. */
  save(): Promise<boolean>;
}

/** Milliseconds after which a change is stored, and after which a failed attempt is made again. */
const WAIT = 450;
const AGAIN = 3000;

/**
 * A store for one kind of document.
 * @param put stores a document that is based on a revision; gives the new revision, and whatever else becomes known then.
 *   Throws a ServerRefusal of status 409 with what stands there instead.
 * @param theirs reads that from the refusal
 * @param extra state and actions beside the document
 */
export function createDocumentStore<T extends object, Extra extends object>({
  put,
  theirs,
  extra,
}: {
  put(id: string, body: Stored<T>): Promise<{ revision: number; extra?: Partial<Extra> }>;
  theirs(detail: unknown): Stored<T>;
  extra(set: (value: Partial<DocumentState<T> & Extra>) => void, get: () => DocumentState<T> & Extra): Extra;
}): DocumentStore<T, Extra> {
  type State = DocumentState<T> & Extra;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<void> | null = null;

  const later = (wait = WAIT) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void save(), wait);
  };

  const use = create<State>((set, get) => {
    const change = (value: Partial<DocumentState<T>>) => set(value as Partial<State>);
    /** A conflict stays one until a person has chosen. */
    const unsaved = (): Saving => (get().conflict ? 'conflict' : 'waiting');
    const commit = (label: string, before: T, after: T) => {
      const [forward, inverse] = difference(before, after);
      change({ gestureBase: null, document: after });
      if (!forward.length) return;
      const past = [...get().past, { label, forward, inverse }].slice(-KEPT_STEPS);
      change({ past, future: [], saving: unsaved() });
      later();
    };
    const walk = (from: 'past' | 'future') => {
      const { document, gestureBase, past, future } = get();
      const step = from === 'past' ? past[past.length - 1] : future[0];
      // A gesture that goes on is given up: steps are of finished changes.
      const base = gestureBase ?? document;
      if (!step || !base) return;
      change({
        document: applyPatches(base, from === 'past' ? step.inverse : step.forward),
        gestureBase: null,
        past: from === 'past' ? past.slice(0, -1) : [...past, step],
        future: from === 'past' ? [step, ...future] : future.slice(1),
        saving: unsaved(),
      });
      later();
    };
    const documentState: DocumentState<T> = {
      id: '',
      document: null,
      past: [],
      future: [],
      revision: 0,
      saving: 'saved',
      savedAt: null,
      conflict: null,
      gestureBase: null,
      edit(label, make) {
        const { document, gestureBase } = get();
        const base = gestureBase ?? document;
        if (base) commit(label, base, make(base));
      },
      during(make) {
        const { document, gestureBase } = get();
        const base = gestureBase ?? document;
        if (base) change({ gestureBase: base, document: make(base) });
      },
      finish(label, make) {
        const { document, gestureBase } = get();
        const base = gestureBase ?? document;
        if (base) commit(label, base, make ? make(base) : document!);
      },
      abandon() {
        const { gestureBase } = get();
        if (gestureBase) change({ document: gestureBase, gestureBase: null });
      },
      undo: () => walk('past'),
      redo: () => walk('future'),
      keepMine() {
        const { conflict } = get();
        if (!conflict) return;
        change({ revision: conflict.revision, conflict: null, saving: 'waiting' });
        later(0);
      },
      takeTheirs() {
        const { conflict } = get();
        if (!conflict) return;
        const { document, history, revision } = conflict;
        change({ document, ...history, revision, conflict: null, gestureBase: null, saving: 'saved' });
      },
    };
    return { ...documentState, ...extra(set as (value: Partial<State>) => void, get) };
  });
  const set = (value: Partial<DocumentState<T>>) => use.setState(value as Partial<State>);

  async function store(): Promise<void> {
    const { id, document, gestureBase, past, future, revision } = use.getState();
    set({ saving: 'saving' });
    try {
      // A gesture that goes on is not stored: it may yet be given up.
      const body = { revision, document: gestureBase ?? document!, history: { past, future } };
      const saved = await put(id, body);
      const now = use.getState();
      if (now.id !== id) return;
      const moved = now.past !== past || now.future !== future;
      use.setState({
        ...saved.extra,
        revision: saved.revision,
        saving: moved ? 'waiting' : 'saved',
        savedAt: new Date(),
      } as Partial<State>);
    } catch (error) {
      if (use.getState().id !== id) return;
      if (error instanceof ServerRefusal && error.status === 409)
        set({ saving: 'conflict', conflict: { message: error.message, ...theirs(error.detail) } });
      else {
        // Nothing is lost: it stays here and is tried again.
        set({ saving: 'offline' });
        later(AGAIN);
      }
    }
  }

  async function save(): Promise<boolean> {
    while (running) await running;
    const { document, saving } = use.getState();
    if (!document || (saving !== 'waiting' && saving !== 'offline')) return saving === 'saved';
    running = store().finally(() => (running = null));
    await running;
    // What was changed meanwhile is stored too; what failed is tried again by the clock.
    return use.getState().saving === 'waiting' ? save() : use.getState().saving === 'saved';
  }

  return {
    use,
    save,
    open(id, { document, history, revision }, more) {
      use.setState({
        id,
        document,
        ...history,
        revision,
        saving: 'saved',
        savedAt: null,
        conflict: null,
        gestureBase: null,
        ...more,
      } as Partial<State>);
    },
  };
}
