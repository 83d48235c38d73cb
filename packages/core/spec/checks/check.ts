import type { WordLook } from '../../paint/look-at-words';
import type { Plane, Rect, Rgba } from '../../raster/pixels';
import type { ResolvedShot } from '../../shot/resolve';
import type { Shot } from '../../shot/document';
import type { Slot } from '../slot';

/** What a check may measure. `picture` and `products` are painted pixels, perhaps at less than the slot's size. */
export interface Subject {
  slot: Slot;
  slotKey: string;
  /** The picture's size as it is delivered. */
  width: number;
  height: number;
  picture: Rgba;
  /** Coverage of each pixel by products, 0..1, same size as `picture`. */
  products: Plane;
  /** The resolved shot, or null for a finished picture from elsewhere. */
  shot: ResolvedShot | null;
  /** Words and signs as they were seen while the picture was painted; null where nobody looked. */
  words: WordLook[] | null;
  /** Pixel size of each source picture by hash. */
  sources: ReadonlyMap<string, { width: number; height: number }>;
}

/** pass: meets the rule. look: judge it yourself. stop: breaks the rule. */
export type Verdict = 'pass' | 'look' | 'stop';

export interface CheckResult {
  check: string;
  title: string;
  verdict: Verdict;
  /** Measured value and limit as a person reads them, with units. */
  measured: string;
  limit: string;
  /** One sentence: what is wrong, by how much, what to do. */
  sentence: string;
  /** The place it was seen, as shares of the picture. */
  where?: Rect;
  /** Name of a fix that `applyFix` knows how to make for this slot. */
  fix?: { title: string };
  /** The element it is about, and what was measured there that the fix needs. */
  about?: { id: string; value?: number };
}

/** What a check has found, without its own name. */
export type Finding = Omit<CheckResult, 'check' | 'title'>;

/** A check is one file: it measures, compares and, where it can, mends. Null when the slot has no such rule. */
export interface Check {
  id: string;
  title: string;
  measure(subject: Subject): Finding | Finding[] | null;
  /** The shot with this check's fault mended: for the slot alone, or in the base where `slotKey` is BASE. */
  fix?(shot: Shot, resolved: ResolvedShot, slotKey: string, slot: Slot, about?: CheckResult['about']): Shot;
}

/** A rectangle of the picture as shares of it, held inside. */
export function shareOf(b: Rect, width: number, height: number): Rect {
  const x = Math.max(0, b.x / width);
  const y = Math.max(0, b.y / height);
  return {
    x,
    y,
    width: Math.max(0, Math.min(1, (b.x + b.width) / width) - x),
    height: Math.max(0, Math.min(1, (b.y + b.height) / height) - y),
  };
}

export function percent(share: number, digits = 0): string {
  return `${(share * 100).toFixed(digits)} %`;
}
