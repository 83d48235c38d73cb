import { createStore, del, get, set, values, type UseStore } from 'idb-keyval';
import type { Stored } from './document';

/** A document with changes that the server does not have yet. */
export interface Unsent<T = object> {
  kind: string;
  id: string;
  body: Stored<T>;
  /** When the last change was made, in milliseconds since 1970. */
  changedAt: number;
}

/** Made at its first use, so that a browser without it fails there and not on loading. */
let opened: UseStore | null = null;
const store = () => (opened ??= createStore('scenograph-outbox', 'unsent'));
const keyOf = (kind: string, id: string) => `${kind}/${id}`;

/** Where the browser keeps nothing (private windows, a full disk), changes last as long as the page: as a net, not a fault. */
const orElse = async <R>(run: () => Promise<R>, otherwise: R): Promise<R> => {
  try {
    return await run();
  } catch {
    return otherwise;
  }
};

/** Keeps a document until the server has it: over leaving its screen, a reload, a crash. */
export const keepUnsent = (entry: Unsent) =>
  orElse(() => set(keyOf(entry.kind, entry.id), entry, store()), undefined);

export const dropUnsent = (kind: string, id: string) =>
  orElse(() => del(keyOf(kind, id), store()), undefined);

export const unsentOf = <T>(kind: string, id: string) =>
  orElse(() => get<Unsent<T>>(keyOf(kind, id), store()), undefined);

export const allUnsent = () => orElse(() => values<Unsent>(store()), []);

/** Says to other windows that this one has a document open and will send it itself, until the answer is called. */
export function holdDocument(kind: string, id: string): () => void {
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  void locks()
    ?.request(keyOf(kind, id), { mode: 'shared' }, () => held)
    .catch(() => undefined);
  return letGo;
}

/** Runs where no window has the document open, and no other window does the same. */
export async function whenNobodyHolds(kind: string, id: string, run: () => Promise<void>): Promise<void> {
  const manager = locks();
  if (!manager) return run();
  await manager.request(keyOf(kind, id), { ifAvailable: true }, (lock) => (lock ? run() : undefined));
}

const locks = (): LockManager | undefined => globalThis.navigator?.locks;
