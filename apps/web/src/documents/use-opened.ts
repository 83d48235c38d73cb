import { useEffect, useRef, useState } from 'react';
import type { Stored } from './document';
import type { DocumentStore } from './document-store';

/**
 * Opens a document once it has been fetched, and follows what the server has later on.
 * @returns whether the store holds this document
 */
export function useOpened<T extends object, Extra extends object>(
  store: DocumentStore<T, Extra>,
  id: string,
  stored: Stored<T> | undefined,
  /** What stands beside the document when it is opened. */
  beside?: () => Partial<Extra>,
): boolean {
  const first = useRef(beside);
  first.current = beside;
  const [opened, setOpened] = useState<string | null>(null);
  const here = opened === id;
  useEffect(() => {
    if (!stored) return;
    if (here) return store.arrived(id, stored);
    void store.open(id, stored, first.current?.());
    setOpened(id);
    // Only what was fetched anew is news.
  }, [store, id, stored, here]);
  // What could not be stored before the screen is left stays in the outbox and is sent from there.
  useEffect(() => store.leave, [store, id]);
  return here;
}
