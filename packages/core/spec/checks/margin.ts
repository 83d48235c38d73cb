import { recentreSubjects } from '../../shot/edit';
import type { Check } from './check';
import { productBounds } from './product-bounds';

export const margin: Check = {
  id: 'margin',
  title: 'Clear margin',
  measure(subject) {
    const { slot, width, height } = subject;
    const bounds = productBounds(subject);
    if (!bounds) return null;
    const wanted = Math.round(slot.marginShare * Math.min(slot.width, slot.height));
    const gaps = {
      left: bounds.x,
      top: bounds.y,
      right: width - bounds.x - bounds.width,
      bottom: height - bounds.y - bounds.height,
    };
    const [side, gap] = Object.entries(gaps).reduce((a, b) => (b[1] < a[1] ? b : a));
    const pixel = width / subject.products.width;
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
        fix: { title: 'Bring inside the margin' },
      };
    return {
      verdict: cutOff ? 'look' : 'pass',
      measured,
      limit,
      sentence: cutOff
        ? `The product touches the ${side} edge; see whether it is meant to be cropped there.`
        : 'The product is whole with its margin clear.',
      fix: cutOff ? { title: 'Bring inside the margin' } : undefined,
    };
  },
  fix: (shot, resolved, slotKey, slot) => recentreSubjects(shot, resolved, slotKey, slot),
};
