import { shareOf, type Check, type Finding } from './check';

export const letters: Check = {
  id: 'letters',
  title: 'Letters set',
  measure({ words, width, height }) {
    if (!words?.length) return null;
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
          about: { id: w.id },
        });
      if (w.unprintable.length)
        found.push({
          verdict: 'stop',
          measured: w.unprintable.slice(0, 6).join(' '),
          limit: 'in a font',
          sentence: `No font at hand has ${w.unprintable.slice(0, 12).join(' ')} of "${w.name}". Bring in a font that has ${w.unprintable.length > 1 ? 'them' : 'it'} under Brand kit, or change the words.`,
          where,
          about: { id: w.id },
        });
      return found;
    });
    return faults.length ? faults : null;
  },
};
