import type { Check } from './check';

/** Longer ones are cut off by screen readers or tire their listeners. */
const LONGEST = 250;

export const altText: Check<{ length: number }> = {
  id: 'alt-text',
  title: 'Alternative text',
  measure: ({ alt }) => (alt === undefined ? null : { length: alt?.trim().length ?? 0 }),
  judge({ length }, slot) {
    const needed = slot.altText === 'required';
    const limit = `${needed ? '1' : '0'} to ${LONGEST} characters`;
    if (length > LONGEST)
      return {
        verdict: 'look',
        measured: `${length} characters`,
        limit,
        sentence: `The alternative text has ${length} characters; after ${LONGEST} few are heard. Shorten it.`,
      };
    if (length)
      return {
        verdict: 'pass',
        measured: `${length} characters`,
        limit,
        sentence: 'The picture has a text for those who cannot see it.',
      };
    return {
      verdict: needed ? 'stop' : 'look',
      measured: 'none',
      limit,
      sentence:
        'The picture has no alternative text. Write one for its shot; {title} and other values are filled in.',
    };
  },
};
