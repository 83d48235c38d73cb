import { scaledElement } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import { shareOf, type Check, type Finding } from './check';
import { seenWords, type SeenWords } from './seen-words';

/** A search-result thumbnail's longer side, and the least letters that can be read in it, in pixels. */
export const THUMBNAIL = 240;
const LEAST_IN_THUMBNAIL = 6.5;
/** Pictures whose shorter side is no longer than this are shown as they are, such as banners. */
const SHOWN_AS_IS = 600;
const LEAST = 8.5;

const shownAsIs = (width: number, height: number) => Math.min(width, height) <= SHOWN_AS_IS;

/** The least size of letters in a picture of so many pixels. */
export function leastLetters(width: number, height: number): number {
  if (shownAsIs(width, height)) return LEAST;
  return (LEAST_IN_THUMBNAIL * Math.max(width, height)) / THUMBNAIL;
}

export const letterSize: Check<SeenWords> = {
  id: 'letter-size',
  title: 'Size of letters',
  keptAs: 'words',
  measure: seenWords,
  judge({ words, width, height }) {
    const least = leastLetters(width, height);
    const shown = shownAsIs(width, height);
    const limit = `at least ${Math.round(least)} px`;
    const small = words
      .filter((w) => !w.sign && w.size < least - 0.25)
      .map((w): Finding => ({
        verdict: 'look',
        measured: `${w.size < 20 ? w.size.toFixed(1) : Math.round(w.size)} px`,
        limit,
        sentence: shown
          ? `"${w.name}" is set at ${w.size.toFixed(1)} px and cannot be read at this size. Make it larger or leave it out here.`
          : `"${w.name}" is set at ${Math.round(w.size)} px; in a search result ${THUMBNAIL} px wide that is ${((w.size * THUMBNAIL) / Math.max(width, height)).toFixed(1)} px. Make it larger, or do not count on it there.`,
        where: shareOf(w.bounds, width, height),
        fix: { title: `Enlarge "${w.name}"` },
        about: { id: w.id, value: least / w.size },
      }));
    const letters = words.filter((w) => !w.sign);
    if (!letters.length) return null;
    const smallest = Math.min(...letters.map((w) => w.size));
    const enough: Finding = {
      verdict: 'pass',
      measured: `${Math.round(smallest)} px`,
      limit,
      sentence: 'All words are large enough to be read.',
    };
    return small.length ? small : enough;
  },
  fix(shot, resolved, slotKey, slot, about) {
    const element = resolved.elements.find((e) => e.id === about?.id);
    if (!element) return shot;
    const k = Math.min(3, (about?.value ?? 1) * 1.05);
    const { box } = element;
    const [width, height] = [
      Math.min(slot.width * 0.94, box.width * k),
      Math.min(slot.height * 0.94, box.height * k),
    ];
    const x = Math.min(slot.width - width, Math.max(0, box.x + (box.width - width) / 2));
    const y = Math.min(slot.height - height, Math.max(0, box.y + (box.height - height) / 2));
    const { box: _, id: __, kind: ___, ...own } = scaledElement(element, k);
    const keys = ['size', 'smallest', 'plate', 'ring'].filter((key) => key in own);
    // In the base the lengths are the element's own; a slot's box scales them along.
    const lengths = Object.fromEntries(keys.map((key) => [key, (own as Record<string, unknown>)[key]]));
    const larger = { box: { ...box, x, y, width, height } };
    return patchFit(shot, slotKey, slot, element.id, slotKey === '' ? { ...lengths, ...larger } : larger);
  },
};
