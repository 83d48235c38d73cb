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
}

/** A check is one file: it measures, compares and, where it can, mends. Null when the slot has no such rule. */
export interface Check {
  id: string;
  title: string;
  measure(subject: Subject): Omit<CheckResult, 'check' | 'title'> | null;
  /** The shot with this check's fault mended for the slot alone. */
  fix?(shot: Shot, resolved: ResolvedShot, slotKey: string, slot: Slot): Shot;
}

export function percent(share: number, digits = 0): string {
  return `${(share * 100).toFixed(digits)} %`;
}
