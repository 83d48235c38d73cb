import type { Edit } from './difference';

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

/** How one kind of document is stored. */
export interface DocumentKind<T extends object> {
  /** Its key in the outbox. */
  name: string;
  /** What one is called within a sentence. */
  word: string;
  /** The screen on which one is edited. */
  path(id: string): string;
  /**
   * Stores a document that is based on a revision; gives the new revision, and whatever else becomes known then.
   * @throws ServerRefusal of status 409 with what stands there instead
   */
  put(id: string, body: Stored<T>): Promise<{ revision: number; beside?: object }>;
  /** Reads that from the refusal. */
  theirs(detail: unknown): Stored<T>;
  /** What is to follow where it was stored after its screen was left. */
  storedLate?(id: string): Promise<unknown>;
  /** Stored as it is made; false where a person says when. */
  asMade?: boolean;
}
