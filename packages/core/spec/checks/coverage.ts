import { scaleSubjects } from '../../shot/edit';
import { percent, type Check } from './check';
import { productBounds } from './product-bounds';

export const coverage: Check = {
  id: 'coverage',
  title: 'Product coverage',
  measure(subject) {
    const { min, max } = subject.slot.coverage;
    if (min === null && max === null) return null;
    const limit =
      min !== null && max !== null
        ? `${percent(min)} to ${percent(max)}`
        : min !== null
          ? `at least ${percent(min)}`
          : `at most ${percent(max!)}`;
    const bounds = productBounds(subject);
    if (!bounds)
      return {
        verdict: 'stop',
        measured: 'no product',
        limit,
        sentence: 'No product is to be seen in this picture. Add one to the shot.',
      };
    const share = Math.max(bounds.width / subject.width, bounds.height / subject.height);
    // Painting rounds to pixels: half a percent of the frame is not held against the picture.
    const small = min !== null && share < min - 0.005;
    const large = max !== null && share > max + 0.005;
    return {
      verdict: small || large ? 'stop' : 'pass',
      measured: percent(share, 1),
      limit,
      sentence: small
        ? `The product takes ${percent(share)} of the frame; the slot asks for at least ${percent(min!)}. Make it ${(min! / share).toFixed(2)} times as large.`
        : large
          ? `The product takes ${percent(share)} of the frame; the slot allows ${percent(max!)}. Make it ${(share / max!).toFixed(2)} times smaller.`
          : 'The product fills the frame as the slot asks.',
      where: {
        x: bounds.x / subject.width,
        y: bounds.y / subject.height,
        width: bounds.width / subject.width,
        height: bounds.height / subject.height,
      },
      fix: small || large ? { title: 'Scale to coverage' } : undefined,
    };
  },
  fix(shot, resolved, slotKey, slot) {
    const { min, max, wanted } = slot.coverage;
    const target = wanted ?? (min !== null ? Math.min(min + 0.02, max ?? 1) : max! - 0.02);
    return scaleSubjects(shot, resolved, slotKey, slot, target);
  },
};
