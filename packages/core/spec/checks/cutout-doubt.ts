import { LOOKS_RIGHT, verdictOf } from '../../cutout/confidence';
import type { Finding } from './check';

export const CUTOUT_DOUBT = { id: 'cutout', title: 'Cutout' };

/**
 * A warning for a picture that shows an automatic cutout which may be wrong and which nobody has looked at; one that
 * needs a hand fails. Null where the cutout looks right.
 * @param confidence probability that the cutout is right, 0..1
 */
export function cutoutDoubt(confidence: number): Finding | null {
  if (confidence >= LOOKS_RIGHT) return null;
  const verdict = verdictOf(confidence);
  return {
    verdict: verdict === 'needs a hand' ? 'stop' : 'look',
    measured: verdict,
    limit: 'looks right, corrected or accepted',
    sentence:
      verdict === 'needs a hand'
        ? 'The automatic cutout is probably wrong. Open the photo, draw a box round the product or correct the edge, then accept it.'
        : 'Nobody has looked at this automatic cutout, and it may be wrong in places. Look at it and accept it, or correct it.',
  };
}
