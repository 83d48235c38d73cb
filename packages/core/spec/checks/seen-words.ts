import type { LegibilityReport } from '../../paint/legibility-report';
import type { Subject } from './check';

/** Words and signs of a picture as they were seen, with the size of the frame that their lengths are measured in. */
export interface SeenWords {
  width: number;
  height: number;
  words: LegibilityReport[];
}

/** What all checks of words judge; null where there are none. */
export function seenWords({ words, width, height }: Subject): SeenWords | null {
  return words?.length ? { width, height, words } : null;
}
