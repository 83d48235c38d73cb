import { elementKind } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import type { Rect } from '../../raster/pixels';
import { shareOf, type Check } from './check';

export const overlays: Check<{ name: string; where: Rect }[]> = {
  id: 'overlays',
  title: 'Text and logos',
  measure({ shot, width, height }) {
    if (!shot) return null;
    return shot.elements
      .filter((e) => elementKind(e.kind).role === 'overlay' && !e.hidden && e.opacity > 0)
      .map((e) => ({ name: e.name, where: shareOf(e.box, width, height) }));
  },
  judge(shown, slot) {
    const measured = `${shown.length} shown`;
    if (slot.overlays === 'allowed')
      return { verdict: 'pass', measured, limit: 'allowed', sentence: 'The slot takes text and logos.' };
    return {
      verdict: shown.length ? 'stop' : 'pass',
      measured,
      limit: 'none allowed',
      sentence: shown.length
        ? `The slot allows no text or logo; ${shown.map((e) => `"${e.name}"`).join(', ')} must be hidden in it.`
        : 'No text or logo is in the picture.',
      where: shown[0]?.where,
      fix: shown.length ? { title: 'Hide them in this slot' } : undefined,
    };
  },
  fix(shot, _resolved, slotKey, slot) {
    return shot.elements
      .filter((e) => elementKind(e.kind).role === 'overlay')
      .reduce((s, e) => patchFit(s, slotKey, slot, e.id, { hidden: true }), shot);
  },
};
