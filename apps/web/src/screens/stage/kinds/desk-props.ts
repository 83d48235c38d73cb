import type { ShotElement } from '@scenograph/core/elements/index';

/** What a kind's own part of the desk is given. */
export interface KindDeskProps<E extends ShotElement> {
  element: E;
  /** While dragging: shown at once, one step of history when it ends. */
  during(patch: Partial<E>): void;
  commit(label: string, patch: Partial<E>): void;
}
