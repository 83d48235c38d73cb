import { isProduct } from '../../elements/product/model';
import type { Shot } from '../../shot/document';
import type { ResolvedShot } from '../../shot/resolve';
import type { Slot } from '../slot';
import { altText } from './alt-text';
import { background } from './background';
import type { Check, CheckResult, Finding, Subject, Verdict } from './check';
import { clearSpace } from './clear-space';
import { collision } from './collision';
import { colourDrift } from './colour-drift';
import { coverage } from './coverage';
import { cutOff } from './cut-off';
import { CUTOUT_DOUBT, cutoutDoubt } from './cutout-doubt';
import { data } from './data';
import { enlargement } from './enlargement';
import { fileFormat } from './file-format';
import { fileSize } from './file-size';
import { legibility } from './legibility';
import { letterSize } from './letter-size';
import { letters } from './letters';
import { margin } from './margin';
import { pictureLook } from './near-duplicate';
import { overlays } from './overlays';
import { pixelSize } from './pixel-size';
import { safeZone } from './safe-zone';
import { sharpness } from './sharpness';
import { textShare } from './text-share';
import { unknownElement } from './unknown-element';
import { watermark } from './watermark';

/** In the order in which they are shown. */
export const CHECKS: readonly Check[] = [
  pixelSize,
  fileSize,
  fileFormat,
  background,
  coverage,
  margin,
  cutOff,
  enlargement,
  sharpness,
  colourDrift,
  overlays,
  watermark,
  textShare,
  collision,
  legibility,
  letterSize,
  safeZone,
  letters,
  clearSpace,
  data,
  altText,
  unknownElement,
  pictureLook,
];

/** Checks that need no specification: they watch over the base too. */
const WATCH: readonly Check[] = [
  collision,
  legibility,
  letterSize,
  safeZone,
  letters,
  clearSpace,
  enlargement,
  data,
  unknownElement,
];

/** Id and title of every check, those among several pictures with them. */
export const CHECK_TITLES: readonly { id: string; title: string }[] = [
  ...CHECKS.map(({ id, title }) => ({ id, title })),
  { id: 'name-clash', title: 'File name' },
  CUTOUT_DOUBT,
];

/** What all checks measured on one picture, by check: plain JSON, to be judged by any slot's rules later. */
export type Measures = Record<string, unknown>;

export function measureAll(subject: Subject, checks = CHECKS): Measures {
  const measures: Measures = {};
  for (const check of checks) {
    const key = check.keptAs ?? check.id;
    if (key in measures) continue;
    const measured = check.measure(subject);
    if (measured !== null) measures[key] = measured;
  }
  return measures;
}

/** What was measured, judged by a slot's rules and by the severity that the slot gives each check. */
export function judgeMeasures(measures: Measures, slot: Slot, checks = CHECKS): CheckResult[] {
  return checks.flatMap((check) => {
    const severity = slot.severity[check.id];
    const key = check.keptAs ?? check.id;
    if (!(key in measures) || severity === 'off') return [];
    const found = check.judge(measures[key], slot) ?? [];
    const list = Array.isArray(found) ? found : [found];
    return list.map((finding) => named(check, finding, severity));
  });
}

/** A finding under its check's name, with the slot's severity. */
export function named(
  check: { id: string; title: string },
  finding: Finding,
  severity: Slot['severity'][string] | undefined,
): CheckResult {
  const verdict = finding.verdict === 'pass' || !severity || severity === 'off' ? finding.verdict : severity;
  return { check: check.id, title: check.title, ...finding, verdict };
}

/**
 * What is said of a picture whose product's automatic cutout may be wrong, with the slot's severity; null where no
 * product is among the elements, the cutout looks right, or the slot does not ask.
 * @param confidence probability that the cutout is right, 0..1; null where a person vouches for it
 */
export function judgeCutout(
  elements: readonly { kind: string }[],
  confidence: number | null,
  severity: Slot['severity'][string] | undefined,
): CheckResult | null {
  const doubt = confidence === null || severity === 'off' ? null : cutoutDoubt(confidence);
  return doubt && elements.some(isProduct) ? named(CUTOUT_DOUBT, doubt, severity) : null;
}

/** All checks that the slot has a rule for, in the order in which they are shown. */
export function runChecks(subject: Subject): CheckResult[] {
  return judgeMeasures(measureAll(subject), subject.slot);
}

/** What can be watched over without a specification, in the base. */
export function runWatch(subject: Subject): CheckResult[] {
  return judgeMeasures(measureAll(subject, WATCH), subject.slot, WATCH);
}

/** A person's decision to let a fault pass in one slot: of one variant, or of all where `variantId` is null. */
export interface Waiver {
  slotKey: string;
  variantId: string | null;
  check: string;
  reason: string;
}

/** Results with those waived that a person has given a reason for. */
export function withWaivers(
  results: CheckResult[],
  waivers: readonly Waiver[],
  slotKey: string,
  variantId: string,
): CheckResult[] {
  return results.map((r) => {
    if (r.verdict === 'pass') return r;
    const waiver = waivers.find(
      (w) =>
        w.check === r.check && w.slotKey === slotKey && (w.variantId === null || w.variantId === variantId),
    );
    return waiver ? { ...r, waived: waiver.reason } : r;
  });
}

/** The shot with one check's fault mended for one slot, as a difference of that slot. */
export function applyFix(
  id: string,
  shot: Shot,
  resolved: ResolvedShot,
  slotKey: string,
  slot: Slot,
  about?: CheckResult['about'],
): Shot {
  const check = CHECKS.find((c) => c.id === id);
  if (!check?.fix) throw new Error(`The check "${id}" has no fix.`);
  return check.fix(shot, resolved, slotKey, slot, about);
}

/** The worst verdict that was not waived. */
export function worst(results: CheckResult[]): Verdict {
  const open = results.filter((r) => !r.waived);
  if (open.some((r) => r.verdict === 'stop')) return 'stop';
  return open.some((r) => r.verdict === 'look') ? 'look' : 'pass';
}
