import type { Box } from '@scenograph/core/vector/box';
import type { ShotElement } from '@scenograph/core/elements/index';

/** What the desk of an overlay is given. */
export interface OverlayDeskProps<E extends ShotElement = ShotElement> {
  /** As it is written in the base or the slot, with its placeholders, in the base's lengths, in the brand's colours. */
  element: E;
  /** Where it lies in the frame on the stage. */
  placed: Box;
  /** Everything on the stage, resolved. */
  elements: readonly ShotElement[];
  frame: { width: number; height: number };
  during(patch: Partial<ShotElement>): void;
  commit(label: string, patch: Partial<ShotElement>): void;
}
