import { recentreSubjects } from '../../shot/edit';
import { round, type Check } from './check';
import { productBounds } from './product-bounds';

interface Gaps {
  /** Clear pixels between products and each edge of the delivered picture. */
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** The measure's own grain, in delivered pixels. */
  pixel: number;
}

export const margin: Check<Gaps> = {
  id: 'margin',
  title: 'Clear margin',
  measure(subject) {
    const { width, height } = subject;
    const bounds = productBounds(subject);
    if (!bounds) return null;
    return {
      left: round(bounds.x, 1),
      top: round(bounds.y, 1),
      right: round(width - bounds.x - bounds.width, 1),
      bottom: round(height - bounds.y - bounds.height, 1),
      pixel: round(width / subject.products.width, 3),
    };
  },
  judge({ pixel, ...gaps }, slot) {
    const wanted = Math.round(slot.marginShare * Math.min(slot.width, slot.height));
    const [side, gap] = Object.entries(gaps).reduce((a, b) => (b[1] < a[1] ? b : a));
    const touching = gap < pixel * 0.5;
    // The painted preview may be smaller than the slot: one of its pixels is the measure's own grain.
    const short = gap < wanted - Math.max(1.5, pixel);
    const cutOff = touching && slot.marginShare === 0;
    const measured = `${Math.round(gap)} px ${side}`;
    const limit = wanted ? `at least ${wanted} px` : 'product whole';
    if (short)
      return {
        verdict: 'stop',
        measured,
        limit,
        sentence: touching
          ? `The product runs into the ${side} edge; the slot wants it whole with ${wanted} px around it.`
          : `The product is ${Math.round(gap)} px from the ${side} edge; the slot wants ${wanted} px.`,
        fix: { title: 'Move inside the margin' },
      };
    return {
      verdict: cutOff ? 'look' : 'pass',
      measured,
      limit,
      sentence: cutOff
        ? `The product touches the ${side} edge; see whether it is meant to be cropped there.`
        : 'The product is whole with its margin clear.',
      fix: cutOff ? { title: 'Move inside the margin' } : undefined,
    };
  },
  fix: (shot, resolved, slotKey, slot) => recentreSubjects(shot, resolved, slotKey, slot),
};
