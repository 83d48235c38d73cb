import { elementBounds } from '../../elements/product/pack';
import { elementKind } from '../../elements/index';
import { recentreSubjects } from '../../shot/edit';
import { groundOf } from '../../elements/ground-of';
import type { Rect } from '../../raster/pixels';
import { percent, round, shareOf, type Check, type Finding } from './check';

interface Cut {
  id: string;
  name: string;
  /** Share of the product's own rectangle that lies outside the frame. */
  outside: number;
  where: Rect;
}

/** Soft edges and rounding may lie outside. */
const MOST = 0.004;

export const cutOff: Check<Cut[]> = {
  id: 'cut-off',
  title: 'Product whole',
  measure({ shot }) {
    if (!shot) return null;
    const ground = groundOf(shot.elements);
    const frame = { width: shot.width, height: shot.height };
    const subjects = shot.elements.filter(
      (e) => elementKind(e.kind).role === 'subject' && !e.hidden && e.opacity > 0,
    );
    if (!subjects.length) return null;
    return subjects.map((e) => {
      const b = elementBounds(e, ground, frame);
      const inside =
        Math.max(0, Math.min(frame.width, b.x + b.width) - Math.max(0, b.x)) *
        Math.max(0, Math.min(frame.height, b.y + b.height) - Math.max(0, b.y));
      return {
        id: e.id,
        name: e.name,
        outside: round(1 - inside / (b.width * b.height)),
        where: shareOf(b, frame.width, frame.height),
      };
    });
  },
  judge(cuts, slot) {
    const faults = cuts
      .filter((c) => c.outside > MOST)
      .map((c): Finding => ({
        verdict: slot.whole ? 'stop' : 'look',
        measured: `${percent(c.outside)} outside`,
        limit: slot.whole ? 'whole' : 'meant to be cropped',
        sentence: slot.whole
          ? `${percent(c.outside)} of "${c.name}" lies outside the frame; the slot wants the whole product.`
          : `${percent(c.outside)} of "${c.name}" lies outside the frame; see whether it is meant to be cropped there.`,
        where: c.where,
        fix: { title: 'Bring the product inside' },
        about: { id: c.id },
      }));
    if (faults.length) return faults;
    return {
      verdict: 'pass',
      measured: 'whole',
      limit: slot.whole ? 'whole' : 'whole, or meant to be cropped',
      sentence: 'The whole product is to be seen.',
    };
  },
  fix: (shot, resolved, slotKey, slot) => recentreSubjects(shot, resolved, slotKey, slot),
};
