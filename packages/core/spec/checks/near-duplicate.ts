import type { Check, Finding } from './check';
import { hashDistance, pictureHash } from './picture-hash';

/** Pictures that differ in no more bits are taken for the same view. */
const ALIKE = 5;

/** Measured on each picture; judged among the pictures of one variant, by `nearDuplicates`. */
export const pictureLook: Check<{ hash: string }> = {
  id: 'near-duplicate',
  title: 'Like another picture',
  measure: ({ picture }) => ({ hash: pictureHash(picture) }),
  judge: () => null,
};

/**
 * Pictures of one variant on one marketplace that look like another of them: a listing that shows the same view twice
 * wastes a slot. The later of two is named.
 * @param pictures in the order of their slots
 * @returns findings by the key of the picture
 */
export function nearDuplicates(
  pictures: { key: string; title: string; hash: string }[],
): Map<string, Finding> {
  const found = new Map<string, Finding>();
  pictures.forEach((p, i) => {
    for (const earlier of pictures.slice(0, i)) {
      const distance = hashDistance(p.hash, earlier.hash);
      if (distance > ALIKE) continue;
      found.set(p.key, {
        verdict: 'look',
        measured: `${distance} of 64 bits`,
        limit: `more than ${ALIKE} bits`,
        sentence: `It looks like "${earlier.title}" (${distance} of 64 bits of their perceptual hashes differ). Show another view or crop.`,
      });
      return;
    }
  });
  return found;
}
