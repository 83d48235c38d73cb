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
    if (written?.kind !== 'text' || element?.kind !== 'text') return shot;
    // Words that come from the product's data are not cut for one product: they may be set smaller here.
    if (written.text.includes('{'))
      return patchFit(shot, slotKey, slot, element.id, { smallest: written.smallest * 0.6 });
    return patchFit(shot, slotKey, slot, element.id, {
      text: shortened(element.text, element.text.length - (about?.value ?? 0)),
    });
  },
};

/** A text of so many characters at most, cut between words, with an ellipsis. */
function shortened(text: string, most: number): string {
  const kept = text.slice(0, Math.max(1, most - 1));
  const whole = kept.replace(/\s+\S*$/, '');
  return `${(whole || kept).trimEnd()}…`;
}
