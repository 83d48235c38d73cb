import { elementKind } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import type { Check } from './check';

export const overlays: Check = {
  id: 'overlays',
  title: 'Text and logos',
  measure({ shot, slot, width, height }) {
    if (!shot) return null;
    const shown = shot.elements.filter(
      (e) => elementKind(e.kind).role === 'overlay' && !e.hidden && e.opacity > 0,
    );
    if (slot.overlays === 'allowed')
      return {
        verdict: 'pass',
        measured: `${shown.length} shown`,
        limit: 'allowed',
        sentence: 'The slot takes text and logos.',
      };
    const first = shown[0];
    return {
      verdict: shown.length ? 'stop' : 'pass',
      measured: `${shown.length} shown`,
      limit: 'none allowed',
      sentence: shown.length
        ? `The slot allows no text or logo; ${shown.map((e) => `"${e.name}"`).join(', ')} must be hidden in it.`
        : 'No text or logo is in the picture.',
      where: first && {
        x: first.box.x / width,
        y: first.box.y / height,
        width: first.box.width / width,
        height: first.box.height / height,
      },
      fix: shown.length ? { title: 'Hide them in this slot' } : undefined,
    };
  },
  fix(shot, _resolved, slotKey, slot) {
    return shot.elements
      .filter((e) => elementKind(e.kind).role === 'overlay')
      .reduce((s, e) => patchFit(s, slotKey, slot, e.id, { hidden: true }), shot);
  },
};
