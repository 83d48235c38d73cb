import type { Enlarged } from '../../elements/base';
import { elementKind, type ShotElement } from '../../elements/index';
import { percent, round, type Check, type Subject } from './check';

function enlargedBy(element: ShotElement, sources: Subject['sources']): Enlarged[] {
  const kind = elementKind(element.kind);
  if (kind.enlarged) return kind.enlarged(element, sources);
  const { box, name } = element;
  return kind.needs(element).pictures.flatMap((hash) => {
    const source = sources.get(hash);
    return source ? [{ name, factor: Math.min(box.width / source.width, box.height / source.height) }] : [];
  });
}

export const enlargement: Check<Enlarged> = {
  id: 'enlargement',
  title: 'Source resolution',
  measure({ shot, sources }) {
    const found = shot?.elements.filter((e) => !e.hidden).flatMap((e) => enlargedBy(e, sources)) ?? [];
    if (!found.length) return null;
    const { name, factor } = found.reduce((a, b) => (b.factor > a.factor ? b : a));
    return { name, factor: round(factor) };
  },
  judge({ name, factor }, slot) {
    const over = factor > slot.maxEnlargement + 0.005;
    return {
      verdict: over ? (factor > slot.maxEnlargement * 1.5 ? 'stop' : 'look') : 'pass',
      measured: percent(factor),
      limit: `at most ${percent(slot.maxEnlargement)}`,
      sentence: over
        ? `"${name}" is enlarged to ${percent(factor)} of its own pixels and will look soft. Use a picture at least ${(factor / slot.maxEnlargement).toFixed(1)} times as large, or show it smaller.`
        : 'Every source has pixels enough for this size.',
    };
  },
};
