import type { LegibilityReport } from '../../paint/legibility-report';
import type { Plane, Rect, Rgba } from '../../raster/pixels';
import type { ResolvedShot } from '../../shot/resolve';
import type { Shot } from '../../shot/document';
import type { Slot } from '../slot';

/** What was written for a picture. */
export interface FileFacts {
  format: string;
  bytes: number;
  /** Pixels an inch that are written in it; null where none are. */
  density: number | null;
  profile: 'srgb' | 'p3' | 'none';
}

/** What may be measured. `picture` and `products` are painted pixels, each perhaps at less than the delivered size. */
export interface Subject {
  slot: Slot;
  slotKey: string;
  /** The picture's size as it is delivered. */
  width: number;
  height: number;
  picture: Rgba;
  /** Coverage of each pixel by products, 0..1; at most the size of `picture`. */
  products: Plane;
  /** Products painted alone in their own colours, same size as `products`; null where that was not done. */
  neutral?: Rgba | null;
  /** The resolved shot, or null for a finished picture from elsewhere. */
  shot: ResolvedShot | null;
  /** Words and signs as they were seen while the picture was painted; null where nobody looked. */
  words: LegibilityReport[] | null;
  /** Pixel size of each source picture by hash. */
  sources: ReadonlyMap<string, { width: number; height: number }>;
  /** What the picture says to those who cannot see it; undefined where that is not known here. */
  alt?: string | null;
  file?: FileFacts | null;
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
  /** The reason for which a person lets it pass all the same. */
  waived?: string;
}

/** What a check has found, without its own name. */
export type Finding = Omit<CheckResult, 'check' | 'title' | 'waived'>;

/**
 * A check is one file: it measures once, judges what it measured by a slot's rules as often as those change, and mends
 * where it can. What is measured is plain JSON, kept with a finished picture. Null where there is nothing to measure,
 * or the slot has no such rule.
 */
export interface Check<M = unknown> {
  id: string;
  title: string;
  /** Name under which its measure is kept, where several checks judge the same; its id otherwise. */
  keptAs?: string;
  measure(subject: Subject): M | null;
  judge(measured: M, slot: Slot): Finding | Finding[] | null;
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

export const round = (value: number, digits = 4) => Number(value.toFixed(digits));
