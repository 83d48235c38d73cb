import { create, type StoreApi, type UseBoundStore } from 'zustand';
import { ServerRefusal } from '../api/client';
import { difference } from './difference';
import type { DocumentKind, History, Stored } from './document';
import { stepsOf, type Steps } from './steps';
import { setRevision } from './open-revisions';
import { dropUnsent, holdDocument, keepUnsent, unsentOf } from './outbox';
import { msg, writeTime } from '../language/language';

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
  return new OutboxStore(kind, extra);
}

/** A document and the history it was sent with. */
type Sent<T> = History & { document: T };

/** Where nothing of a document is unsaved, refused or in conflict. */
const SETTLED = {
  saving: 'saved',
  reason: null,
  conflict: null,
  gestureBase: null,
} as const;

const channel = () => {
  const windows =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('scenograph-documents');
  // In Node an open channel would keep the process alive.
  (windows as { unref?(): void } | null)?.unref?.();
  return windows;
};

class OutboxStore<T extends object, Extra extends object> implements DocumentStore<T, Extra> {
  readonly use: UseBoundStore<StoreApi<DocumentState<T> & Extra>>;
  /** A draft is kept here until a person stores it; all else is stored as it is made. */
  private readonly asMade: boolean;
  private readonly windows = channel();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;
  private failures = 0;
  private letGo: (() => void) | null = null;
  /** Documents that were sent and not answered: the server may have stored them all the same. */
  private unanswered: T[] = [];

  constructor(
    private readonly kind: DocumentKind<T>,
    extra: (
      set: (value: Partial<DocumentState<T> & Extra>) => void,
      get: () => DocumentState<T> & Extra,
    ) => Extra,
  ) {
    this.asMade = kind.asMade !== false;
    this.use = create<DocumentState<T> & Extra>((set, get) => ({ ...this.begin(get), ...extra(set, get) }));
    this.use.subscribe(({ id, revision }) => setRevision(kind.name, id, revision));
    this.windows?.addEventListener('message', ({ data }: MessageEvent<StoredElsewhere<T>>) => {
      if (data.kind === kind.name) this.arrived(data.id, data.stored);
    });
    globalThis.addEventListener?.('online', () => {
      if (this.use.getState().saving === 'offline') this.storeLater(0);
    });
  }

  open = async (id: string, stored: Stored<T>, more?: Partial<Extra>): Promise<void> => {
    if (this.timer) clearTimeout(this.timer);
    this.letGo?.();
    this.letGo = holdDocument(this.kind.name, id);
    this.failures = 0;
    this.unanswered = [];
    const { document, history, revision } = stored;
    this.set({ ...SETTLED, id, document, ...history, revision, savedAt: null }, more);
    await this.takeUp(id, stored);
  };

  arrived = (id: string, { document, history, revision }: Stored<T>): void => {
    const now = this.use.getState();
    if (now.id !== id || now.saving !== 'saved' || now.gestureBase || revision <= now.revision) return;
    this.set({ document, ...history, revision });
  };

  save = async (): Promise<boolean> => {
    while (this.running) await this.running;
    const { document, saving } = this.use.getState();
    if (!document || saving === 'saved' || saving === 'conflict' || saving === 'saving')
      return saving === 'saved';
    this.running = this.store().finally(() => (this.running = null));
    await this.running;
    // What was changed meanwhile is stored too; what failed is tried again by the clock.
    const now = this.use.getState().saving;
    return now === 'waiting' ? this.save() : now === 'saved';
  };

  leave = (): void => {
    if (this.asMade) void this.save();
  };

  private set(value: Partial<DocumentState<T>>, beside: object = {}) {
    this.use.setState({ ...beside, ...value } as Partial<DocumentState<T> & Extra>);
  }

  /** The state of a store that has no document yet, and what can be done to one. */
  private begin(get: () => DocumentState<T>): DocumentState<T> {
    const steps = stepsOf<T>(
      get,
      (value) => this.set(value),
      () => {
        this.set({ saving: this.unsaved() });
        this.changed();
      },
    );
    return {
      ...SETTLED,
      id: '',
      document: null,
      past: [],
      future: [],
      revision: 0,
      savedAt: null,
      ...steps,
      keepMine: () => this.keepMine(),
      takeTheirs: () => this.takeTheirs(),
    };
  }

  private keepMine() {
    const { conflict } = this.use.getState();
    if (!conflict) return;
    this.set({ revision: conflict.revision, conflict: null, reason: null });
    this.set({ saving: this.unsaved() });
    this.changed(0);
  }

  private takeTheirs() {
    const { conflict, id } = this.use.getState();
    if (!conflict) return;
    const { document, history, revision } = conflict;
    this.set({ ...SETTLED, document, ...history, revision });
    void dropUnsent(this.kind.name, id);
  }

  /** What is changed and not stored is called; a conflict stays one until a person has chosen. */
  private unsaved(): Saving {
    if (this.use.getState().conflict) return 'conflict';
    return this.asMade ? 'waiting' : 'draft';
  }

  private storeLater(wait = WAIT) {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), wait);
  }

  /** What is finished and not stored goes to the outbox, and to the server in a moment. */
  private changed(wait = WAIT) {
    this.keep();
    if (this.asMade) this.storeLater(wait);
  }

  private keep() {
    const { id, document, gestureBase, past, future, revision } = this.use.getState();
    const body = { revision, document: gestureBase ?? document!, history: { past, future } };
    void keepUnsent({ kind: this.kind.name, id, body, changedAt: Date.now() });
  }

  private async store(): Promise<void> {
    const { id, document, gestureBase, past, future, revision } = this.use.getState();
    this.set({ saving: 'saving' });
    // A gesture that goes on is not stored: it may yet be given up.
    const sent = { document: gestureBase ?? document!, past, future };
    const stillOpen = () => this.use.getState().id === id;
    try {
      const body = { revision, document: sent.document, history: { past, future } };
      const saved = await this.kind.put(id, body);
      if (stillOpen()) this.taken(id, sent, saved.revision, saved.beside);
      else void dropUnsent(this.kind.name, id);
    } catch (error) {
      if (stillOpen()) this.failed(error, sent);
    }
  }

  /** The server has this revision of what is here, or of what was here when it was sent. */
  private taken(id: string, sent: Sent<T>, revision: number, beside?: object) {
    this.failures = 0;
    this.unanswered = [];
    const { past, future } = this.use.getState();
    const moved = past !== sent.past || future !== sent.future;
    const saving = !moved ? 'saved' : this.asMade ? 'waiting' : 'draft';
    this.set({ revision, saving, reason: null, savedAt: new Date() }, beside);
    if (moved) this.keep();
    else void dropUnsent(this.kind.name, id);
    const stored = { document: sent.document, history: { past: sent.past, future: sent.future }, revision };
    this.windows?.postMessage({ kind: this.kind.name, id, stored } satisfies StoredElsewhere<T>);
  }

  private failed(error: unknown, sent: Sent<T>) {
    const reason = (error as Error).message;
    if (error instanceof ServerRefusal && error.status === 409) this.collided(error, sent);
    else if (error instanceof ServerRefusal && isFinal(error.status)) this.set({ saving: 'refused', reason });
    else {
      // Nothing is lost: it stays here and in the outbox, and is tried again.
      this.unanswered.push(sent.document);
      this.set({ saving: 'offline', reason });
      this.storeLater(Math.min(LONGEST, AGAIN * 2 ** this.failures++));
    }
  }

  /** Something else stands on the server, or what was sent does and its answer was lost. */
  private collided({ message, detail }: ServerRefusal, sent: Sent<T>) {
    const stands = this.kind.theirs(detail);
    const own = [sent.document, ...this.unanswered].find((d) => sameDocument(d, stands.document));
    if (own === sent.document) this.taken(this.use.getState().id, sent, stands.revision);
    else if (own) {
      this.set({ revision: stands.revision, saving: 'waiting' });
      this.keep();
    } else this.set({ saving: 'conflict', reason: message, conflict: { message, ...stands } });
  }

  /** Changes of an earlier visit that the server never took. */
  private async takeUp(id: string, stored: Stored<T>) {
    const kept = await unsentOf<T>(this.kind.name, id);
    const now = this.use.getState();
    const untouched =
      now.id === id && now.saving === 'saved' && !now.gestureBase && now.revision === stored.revision;
    if (!kept || !untouched) return;
    if (sameDocument(kept.body.document, stored.document)) return void dropUnsent(this.kind.name, id);
    const { document, history, revision } = kept.body;
    this.set({ document, ...history });
    if (revision === stored.revision) {
      this.set({ saving: this.unsaved() });
      if (this.asMade) this.storeLater(0);
      return;
    }
    const at = writeTime(kept.changedAt);
    const message = msg(
      'Changes that were made here at {at} were never stored, and this {word} was changed elsewhere since. Nothing was saved over it.',
      { at, word: this.kind.word },
    );
    this.set({ saving: 'conflict', reason: message, conflict: { message, ...stored } });
  }
}

/** Sent again it would be refused again; a time-out (408) or too many requests (429) pass. */
const isFinal = (status: number) => status >= 400 && status < 500 && status !== 408 && status !== 429;
