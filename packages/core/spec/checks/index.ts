import type { Shot } from '../../shot/document';
import type { ResolvedShot } from '../../shot/resolve';
import type { Slot } from '../slot';
import { background } from './background';
import type { Check, CheckResult, Subject, Verdict } from './check';
import { clearSpace } from './clear-space';
import { collision } from './collision';
import { coverage } from './coverage';
import { data } from './data';
import { enlargement } from './enlargement';
import { legibility } from './legibility';
import { letterSize } from './letter-size';
import { letters } from './letters';
import { margin } from './margin';
import { overlays } from './overlays';
import { pixelSize } from './pixel-size';
import { safeZone } from './safe-zone';

const CHECKS: readonly Check[] = [
  pixelSize,
  background,
  coverage,
  margin,
  enlargement,
  overlays,
  collision,
  legibility,
  letterSize,
  safeZone,
  letters,
  clearSpace,
  data,
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
];

/** All checks that the slot has a rule for, in the order in which they are shown. */
export function runChecks(subject: Subject): CheckResult[] {
  return run(CHECKS, subject);
}

/** What can be watched over without a specification, in the base. */
export function runWatch(subject: Subject): CheckResult[] {
  return run(WATCH, subject);
}

function run(checks: readonly Check[], subject: Subject): CheckResult[] {
  return checks.flatMap((check) => {
    const found = check.measure(subject) ?? [];
    const list = Array.isArray(found) ? found : [found];
    return list.map((finding) => ({ check: check.id, title: check.title, ...finding }));
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

export function worst(results: CheckResult[]): Verdict {
  if (results.some((r) => r.verdict === 'stop')) return 'stop';
  return results.some((r) => r.verdict === 'look') ? 'look' : 'pass';
}
