import { elementKind, type ShotElement } from '../../elements/index';

/** Ids from the most to the least important: the user's order first, then by kind, larger words before smaller. */
export function importanceOrder(elements: readonly ShotElement[], importance: readonly string[]): string[] {
  const weight = (e: ShotElement) => {
    const { weight: own } = elementKind(e.kind);
    const words = elementKind(e.kind).wraps?.(e);
    return own + (words ? Math.min(1.9, words.size / 200) : 0);
  };
  const named = importance.filter((id) => elements.some((e) => e.id === id));
  const others = elements.filter((e) => !named.includes(e.id)).sort((a, b) => weight(b) - weight(a));
  return [...named, ...others.map((e) => e.id)];
}
