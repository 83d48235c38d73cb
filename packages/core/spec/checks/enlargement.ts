import type { Enlarged } from '../../elements/element';
import { elementKind, type ShotElement } from '../../elements/index';
import { percent, type Check, type Subject } from './check';

function enlargedBy(element: ShotElement, sources: Subject['sources']): Enlarged[] {
  const kind = elementKind(element.kind);
  if (kind.enlarged) return kind.enlarged(element, sources);
  const { box, name } = element;
  return kind.needs(element).pictures.flatMap((hash) => {
    const source = sources.get(hash);
    return source ? [{ name, factor: Math.min(box.width / source.width, box.height / source.height) }] : [];
  });
}

export const enlargement: Check = {
  id: 'enlargement',
  title: 'Source resolution',
  measure({ shot, slot, sources }) {
    if (!shot) return null;
    let largest = 0;
    let name = '';
    for (const element of shot.elements) {
      if (element.hidden) continue;
      for (const found of enlargedBy(element, sources))
        if (found.factor > largest) {
          largest = found.factor;
          name = found.name;
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
