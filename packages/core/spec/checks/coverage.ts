import type { Rect } from '../../raster/pixels';
import { scaleSubjects } from '../../shot/edit';
import { percent, round, shareOf, type Check } from './check';
import { productBounds } from './product-bounds';

/** Where products are seen, in shares of the picture; null when none are. */
export const coverage: Check<{ bounds: Rect | null }> = {
  id: 'coverage',
  title: 'Product coverage',
  measure(subject) {
    const bounds = productBounds(subject);
    if (!bounds) return { bounds: null };
    const b = shareOf(bounds, subject.width, subject.height);
    return { bounds: { x: round(b.x), y: round(b.y), width: round(b.width), height: round(b.height) } };
  },
  judge({ bounds }, { coverage: { min, max } }) {
    if (min === null && max === null) return null;
    const limit =
      min !== null && max !== null
        ? `${percent(min)} to ${percent(max)}`
        : min !== null
          ? `at least ${percent(min)}`
          : `at most ${percent(max!)}`;
    if (!bounds)
      return {
        verdict: 'stop',
        measured: 'no product',
        limit,
        sentence: 'No product is to be seen in this picture. Add one to the shot.',
      };
    const share = Math.max(bounds.width, bounds.height);
    // Painting rounds to pixels: half a percent of the frame is not held against the picture.
    const small = min !== null && share < min - 0.005;
    const large = max !== null && share > max + 0.005;
    return {
      verdict: small || large ? 'stop' : 'pass',
      measured: percent(share, 1),
      limit,
      sentence: small
        ? `The product takes ${percent(share)} of the frame; the slot asks for at least ${percent(min)}. Make it ${(min / share).toFixed(2)} times as large.`
        : large
          ? `The product takes ${percent(share)} of the frame; the slot allows ${percent(max)}. Make it ${(share / max).toFixed(2)} times smaller.`
          : 'The product fills the frame as the slot asks.',
      where: bounds,
      fix: small || large ? { title: 'Scale to coverage' } : undefined,
    };
  },
  fix(shot, resolved, slotKey, slot) {
    const { min, max, wanted } = slot.coverage;
    const target = wanted ?? (min !== null ? Math.min(min + 0.02, max ?? 1) : max! - 0.02);
    return scaleSubjects(shot, resolved, slotKey, slot, target);
  },
};
