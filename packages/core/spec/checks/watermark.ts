import { elementKind } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import type { Check } from './check';

export const watermark: Check<string[]> = {
  id: 'watermark',
  title: 'Watermark',
  measure: ({ shot }) =>
    shot?.elements.filter((e) => elementKind(e.kind).mark && !e.hidden && e.opacity > 0).map((e) => e.name) ??
    null,
  judge(names, slot) {
    if (slot.watermark === 'allowed') return null;
    return {
      verdict: names.length ? 'stop' : 'pass',
      measured: names.length ? `${names.length} shown` : 'none',
      limit: 'none allowed',
      sentence: names.length
        ? `The slot takes no watermark; ${names.map((n) => `"${n}"`).join(', ')} must be hidden in it.`
        : 'No watermark is in the picture.',
      fix: names.length ? { title: 'Hide the watermark here' } : undefined,
    };
  },
  fix: (shot, _resolved, slotKey, slot) =>
    shot.elements
      .filter((e) => elementKind(e.kind).mark)
      .reduce((s, e) => patchFit(s, slotKey, slot, e.id, { hidden: true }), shot),
};
