import { elementKind, type ShotElement } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import { shareOf, type Check, type Finding } from './check';
import { seenWords, type SeenWords } from './seen-words';

export const letters: Check<SeenWords> = {
  id: 'letters',
  title: 'Letters set',
  keptAs: 'words',
  measure: seenWords,
  judge({ words, width, height }) {
    const faults = words.flatMap((w): Finding[] => {
      const found: Finding[] = [];
      const where = shareOf(w.bounds, width, height);
      if (w.cut > 0)
        found.push({
          verdict: 'stop',
          measured: `${w.cut} left out`,
          limit: 'all set',
          sentence: `"${w.name}" has ${w.cut} characters more than fit even at its smallest size. Shorten the words, enlarge the box, or allow smaller letters.`,
          where,
          fix: { title: `Shorten "${w.name}"` },
          about: { id: w.id, value: w.cut },
        });
      if (w.unprintable.length)
        found.push({
          verdict: 'stop',
          measured: w.unprintable.slice(0, 6).join(' '),
          limit: 'in a font',
          sentence: `No font at hand has ${w.unprintable.slice(0, 12).join(' ')} of "${w.name}". Import a font that has ${w.unprintable.length > 1 ? 'them' : 'it'} under Brand kit, or change the words.`,
          where,
          about: { id: w.id },
        });
      return found;
    });
    return faults.length ? faults : null;
  },
  fix(shot, resolved, slotKey, slot, about) {
    const written = shot.elements.find((e) => e.id === about?.id);
    const element = resolved.elements.find((e) => e.id === about?.id);
    const change =
      written &&
      element &&
      elementKind(element.kind).shortened?.(written, element, lengthOf(element) - (about?.value ?? 0));
    return change ? patchFit(shot, slotKey, slot, element.id, change as Partial<ShotElement>) : shot;
  },
};

const lengthOf = (element: ShotElement) => ('text' in element ? String(element.text).length : 0);
