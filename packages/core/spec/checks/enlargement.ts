import { elementKind } from '../../elements/index';
import { percent, type Check } from './check';

export const enlargement: Check = {
  id: 'enlargement',
  title: 'Source resolution',
  measure({ shot, slot, sources }) {
    if (!shot) return null;
    let largest = 0;
    let name = '';
    for (const element of shot.elements) {
      if (element.hidden) continue;
      for (const hash of elementKind(element.kind).needs(element).pictures) {
        const source = sources.get(hash);
        if (!source) continue;
        const factor = Math.min(element.box.width / source.width, element.box.height / source.height);
        if (factor > largest) {
          largest = factor;
          name = element.name;
        }
      }
    }
    if (largest === 0) return null;
    const limit = `at most ${percent(slot.maxEnlargement)}`;
    const over = largest > slot.maxEnlargement + 0.005;
    return {
      verdict: over ? (largest > slot.maxEnlargement * 1.5 ? 'stop' : 'look') : 'pass',
      measured: percent(largest),
      limit,
      sentence: over
        ? `"${name}" is enlarged to ${percent(largest)} of its own pixels and will look soft. Use a picture at least ${(largest / slot.maxEnlargement).toFixed(1)} times as large, or show it smaller.`
        : 'Every source has pixels enough for this size.',
    };
  },
};
