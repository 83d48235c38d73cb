import { readableSize } from '../../shot/fit/covered';
import { boxPatch, BASE, patchFit } from '../../shot/edit';
import { percent, shareOf, type Check, type Finding } from './check';
import { seenWords, type SeenWords } from './seen-words';

/** Letters may be touched by soft edges; more than this is covered. */
const MOST = 0.02;

export const collision: Check<SeenWords> = {
  id: 'collision',
  title: 'Words kept clear',
  keptAs: 'words',
  measure: seenWords,
  judge({ words, width, height }) {
    const faults = words.flatMap((w): Finding[] =>
      w.covered
        .filter((c) => c.share > MOST)
        .map((c) => ({
          verdict: c.share > 0.08 ? 'stop' : 'look',
          measured: `${percent(c.share)} covered`,
          limit: `at most ${percent(MOST)}`,
          sentence: `"${c.by}" covers ${percent(c.share)} of "${w.name}". Move one of them, or bring "${w.name}" forward.`,
          where: shareOf(w.bounds, width, height),
          fix: { title: `Bring "${w.name}" to the front` },
          about: { id: w.id },
        })),
    );
    const clear: Finding = {
      verdict: 'pass',
      measured: `${words.length} clear`,
      limit: `at most ${percent(MOST)} covered`,
      sentence: 'Nothing covers words or stars.',
    };
    return faults.length ? faults : clear;
  },
  fix(shot, resolved, slotKey, slot, about) {
    const element = resolved.elements.find((e) => e.id === about?.id);
    if (!element) return shot;
    // Depth is the base's; where words run into words the front does not help, so the slot moves them apart.
    const front = shot.elements.filter((e) => e.id !== element.id);
    const own = shot.elements.find((e) => e.id === element.id)!;
    if (slotKey === BASE || shot.elements.at(-1) !== own) return { ...shot, elements: [...front, own] };
    const step = readableSize(slot) * 2;
    const { box } = element;
    const y = box.y + box.height / 2 < slot.height / 2 ? box.y - step : box.y + step;
    const moved = { ...box, y: Math.min(slot.height - box.height, Math.max(0, y)) };
    return patchFit(shot, slotKey, slot, element.id, boxPatch(element, moved));
  },
};
