import { elementKind, type ShotElement } from '../elements/index';
import { elementPainter } from '../elements/painters';

/** One element in the order of painting, and what is painted with it. */
export interface PaintStep {
  element: ShotElement;
  /** Shadows and reflections of all subjects lie on the ground, under the first of them. */
  shadowsBefore: readonly ShotElement[];
  /** The ground whose foreground lies over the last subject that goes behind it. */
  foregroundAfter: ShotElement | null;
}

/** What is to be seen of a shot, from back to front. */
export function paintOrder(elements: readonly ShotElement[]): {
  steps: PaintStep[];
  subjects: ShotElement[];
} {
  const visible = elements.filter((e) => !e.hidden && e.opacity > 0);
  const subjects = visible.filter((e) => elementKind(e.kind).role === 'subject');
  const lastBehind = subjects.filter((e) => elementKind(e.kind).behindForeground?.(e) ?? true).at(-1);
  const ground = visible.find((e) => elementPainter(e.kind).paintForeground) ?? null;
  const steps = visible.map((element) => ({
    element,
    shadowsBefore: element === subjects[0] ? subjects : [],
    foregroundAfter: element === lastBehind ? ground : null,
  }));
  return { steps, subjects };
}
