import { create, type StoreApi, type UseBoundStore } from 'zustand';
import { ServerRefusal } from '../api/client';
import { difference } from './difference';
import type { DocumentKind, History, Stored } from './document';
import { stepsOf, type Steps } from './steps';
import { setRevision } from './open-revisions';
import { dropUnsent, holdDocument, keepUnsent, unsentOf } from './outbox';

/**
 * `waiting` is about to be stored; `offline` could not be and is tried again; `refused` was refused and waits for a change;
 * `conflict` waits for a person's choice; `draft` is kept here until a person stores it.
 */
export type Saving = 'saved' | 'waiting' | 'saving' | 'offline' | 'refused' | 'conflict' | 'draft';

/** A document that is edited, undone and stored as it is made. */
export interface DocumentState<T> extends Steps<T> {
  /** Whose document it is; '' before one is open. */
  id: string;
  /** The server's revision that it is based on. */
  revision: number;
  saving: Saving;
  /** Why it is not stored, as a sentence; null where nothing is wrong. */
  reason: string | null;
  savedAt: Date | null;
  /** What stands on the server where another window has stored something else. */
  conflict: (Stored<T> & { message: string }) | null;

  // What they do stands in steps.ts.
  edit(label: string, change: (document: T) => T): void;
  repeat(label: string, change: (document: T) => T): void;
  during(change: (document: T) => T): void;
  finish(label: string, change?: (document: T) => T): void;
  abandon(): void;
  undo(): void;
  redo(): void;
  keepMine(): void;
  takeTheirs(): void;
}

export interface DocumentStore<T, Extra> {
  use: UseBoundStore<StoreApi<DocumentState<T> & Extra>>;
  /** Begins with a document; changes to it that were never stored are taken up again from the outbox. */
  open(id: string, stored: Stored<T>, extra?: Partial<Extra>): Promise<void>;
  /** What the server has by now: shown where it is newer and nothing here is unsaved. */
  arrived(id: string, stored: Stored<T>): void;
  /** Stores what is not stored yet; true when all of it is. */
  save(): Promise<boolean>;
  /** Its screen is left: what is stored as it is made is stored now, a draft stays one. */
  leave(): void;
}

/** Milliseconds after which a change is stored; and the first wait after a failure, doubled up to the longest. */
const WAIT = 450;
const AGAIN = 3000;
const LONGEST = 30_000;

const sameDocument = (a: object, b: object) => difference(a, b)[0].length === 0;

/** A document that another window of this browser has just stored. */
interface StoredElsewhere<T> {
  kind: string;
  id: string;
  stored: Stored<T>;
}

/**
 * A store for one kind of document. What is changed goes to the outbox at once and from there to the server, again and
 * again until it is taken; other windows of the browser that show the same document follow.
 * @param kind how it is stored
 * @param extra state and actions beside the document
 */
export function createDocumentStore<T extends object, Extra extends object>(
  kind: DocumentKind<T>,
  extra: (
    set: (value: Partial<DocumentState<T> & Extra>) => void,
    get: () => DocumentState<T> & Extra,
  ) => Extra,
): DocumentStore<T, Extra> {
  type State = DocumentState<T> & Extra;
  const asMade = kind.asMade !== false;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<void> | null = null;
  let failures = 0;
  let letGo: (() => void) | null = null;
  /** Documents that were sent and not answered: the server may have stored them all the same. */
  let unanswered: T[] = [];
  const windows =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('scenograph-documents');
  (windows as { unref?(): void } | null)?.unref?.();

  const later = (wait = WAIT) => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void save(), wait);
  };
  /** What is finished and not stored goes to the outbox, and to the server in a moment. */
  const changed = () => {
    keep();
    if (asMade) later();
  };
  function keep() {
    const { id, document, gestureBase, past, future, revision } = use.getState();
    const body = { revision, document: gestureBase ?? document!, history: { past, future } };
    void keepUnsent({ kind: kind.name, id, body, changedAt: Date.now() });
  }

  const use = create<State>((set, get) => {
    const change = (value: Partial<DocumentState<T>>) => set(value as Partial<State>);
    /** A conflict stays one until a person has chosen. */
    const unsaved = (): Saving => (get().conflict ? 'conflict' : asMade ? 'waiting' : 'draft');
    const steps = stepsOf<T>(get, change, () => {
      change({ saving: unsaved() });
      changed();
    });
    const documentState: DocumentState<T> = {
      id: '',
      document: null,
      past: [],
      future: [],
      revision: 0,
      saving: 'saved',
      reason: null,
      savedAt: null,
      conflict: null,
      gestureBase: null,
      ...steps,
      keepMine() {
        const { conflict } = get();
        if (!conflict) return;
        change({ revision: conflict.revision, conflict: null, reason: null });
        change({ saving: unsaved() });
        keep();
        if (asMade) later(0);
      },
      takeTheirs() {
        const { conflict } = get();
        if (!conflict) return;
        const { document, history, revision } = conflict;
        change({
          document,
          ...history,
          revision,
          conflict: null,
          reason: null,
          gestureBase: null,
          saving: 'saved',
        });
        void dropUnsent(kind.name, get().id);
      },
    };
    return { ...documentState, ...extra(set, get) };
  });
  const set = (value: Partial<DocumentState<T>>) => use.setState(value as Partial<State>);

  /** The server has this revision of what is here, or of what was here when it was sent. */
  function taken(id: string, sent: History & { document: T }, revision: number, beside?: object) {
    failures = 0;
    unanswered = [];
    const { past, future } = use.getState();
    const moved = past !== sent.past || future !== sent.future;
    use.setState({
      ...beside,
      revision,
      saving: moved ? (asMade ? 'waiting' : 'draft') : 'saved',
      reason: null,
      savedAt: new Date(),
    } as Partial<State>);
    if (moved) keep();
    else void dropUnsent(kind.name, id);
    const stored = { document: sent.document, history: { past: sent.past, future: sent.future }, revision };
    windows?.postMessage({ kind: kind.name, id, stored } satisfies StoredElsewhere<T>);
  }

  function failed(error: unknown, sent: History & { document: T }) {
    const refusal = error instanceof ServerRefusal ? error : null;
    const reason = (error as Error).message;
    const { id } = use.getState();
    if (refusal?.status === 409) {
      const stands = kind.theirs(refusal.detail);
      // An answer that was lost: what stands there is what was sent.
      const own = [sent.document, ...unanswered].find((d) => sameDocument(d, stands.document));
      if (own === sent.document) return taken(id, sent, stands.revision);
      if (own) {
        set({ revision: stands.revision, saving: 'waiting' });
        keep();
      } else set({ saving: 'conflict', reason, conflict: { message: reason, ...stands } });
    } else if (
      refusal &&
      refusal.status >= 400 &&
      refusal.status < 500 &&
      refusal.status !== 408 &&
      refusal.status !== 429
    ) {
      set({ saving: 'refused', reason });
    } else {
      // Nothing is lost: it stays here and in the outbox, and is tried again.
      unanswered.push(sent.document);
      set({ saving: 'offline', reason });
      later(Math.min(LONGEST, AGAIN * 2 ** failures++));
    }
  }

  async function store(): Promise<void> {
    const { id, document, gestureBase, past, future, revision } = use.getState();
    set({ saving: 'saving' });
    // A gesture that goes on is not stored: it may yet be given up.
    const sent = { document: gestureBase ?? document!, past, future };
    try {
      const body = { revision, document: sent.document, history: { past, future } };
      const saved = await kind.put(id, body);
      if (use.getState().id === id) taken(id, sent, saved.revision, saved.beside);
      else void dropUnsent(kind.name, id);
    } catch (error) {
      if (use.getState().id === id) failed(error, sent);
    }
  }

  async function save(): Promise<boolean> {
    while (running) await running;
    const { document, saving } = use.getState();
    if (!document || saving === 'saved' || saving === 'conflict' || saving === 'saving')
      return saving === 'saved';
    running = store().finally(() => (running = null));
    await running;
    // What was changed meanwhile is stored too; what failed is tried again by the clock.
    return use.getState().saving === 'waiting' ? save() : use.getState().saving === 'saved';
  }

  function arrived(id: string, { document, history, revision }: Stored<T>) {
    const now = use.getState();
    if (now.id !== id || now.saving !== 'saved' || now.gestureBase || revision <= now.revision) return;
    set({ document, ...history, revision });
  }

  /** Changes of an earlier visit that the server never took. */
  async function takeUp(id: string, stored: Stored<T>) {
    const kept = await unsentOf<T>(kind.name, id);
    const now = use.getState();
    if (
      !kept ||
      now.id !== id ||
      now.saving !== 'saved' ||
      now.gestureBase ||
      now.revision !== stored.revision
    )
      return;
    if (sameDocument(kept.body.document, stored.document)) return void dropUnsent(kind.name, id);
    const { document, history, revision } = kept.body;
    set({ document, ...history });
    if (revision === stored.revision) {
      set({ saving: asMade ? 'waiting' : 'draft' });
      if (asMade) later(0);
      return;
    }
    const at = new Date(kept.changedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
    const message = `Changes that were made here at ${at} were never stored, and this ${kind.word} was changed elsewhere since. Nothing was saved over it.`;
    set({ saving: 'conflict', reason: message, conflict: { message, ...stored } });
  }

  use.subscribe(({ id, revision }) => setRevision(kind.name, id, revision));
  windows?.addEventListener('message', ({ data }: MessageEvent<StoredElsewhere<T>>) => {
    if (data.kind === kind.name) arrived(data.id, data.stored);
  });
  globalThis.addEventListener?.('online', () => {
    if (use.getState().saving === 'offline') later(0);
  });

  return {
    use,
    save,
    leave: () => void (asMade && save()),
    arrived,
    async open(id, stored, more) {
      if (timer) clearTimeout(timer);
      letGo?.();
      letGo = holdDocument(kind.name, id);
      failures = 0;
      unanswered = [];
      use.setState({
        id,
        document: stored.document,
        ...stored.history,
        revision: stored.revision,
        saving: 'saved',
        reason: null,
        savedAt: null,
        conflict: null,
        gestureBase: null,
        ...more,
      } as Partial<State>);
      await takeUp(id, stored);
    },
  };
}
