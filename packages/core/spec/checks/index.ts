import type { Shot } from '../../shot/document';
import type { ResolvedShot } from '../../shot/resolve';
import type { Slot } from '../slot';
import { background } from './background';
import type { Check, CheckResult, Subject, Verdict } from './check';
import { coverage } from './coverage';
import { data } from './data';
import { enlargement } from './enlargement';
import { margin } from './margin';
import { overlays } from './overlays';
import { pixelSize } from './pixel-size';

const CHECKS: readonly Check[] = [pixelSize, background, coverage, margin, enlargement, overlays, data];

/** All checks that the slot has a rule for, in the order in which they are shown. */
export function runChecks(subject: Subject): CheckResult[] {
  const results: CheckResult[] = [];
  for (const check of CHECKS) {
    const result = check.measure(subject);
    if (result) results.push({ check: check.id, title: check.title, ...result });
  }
  return results;
}

/** The shot with one check's fault mended for one slot, as a difference of that slot. */
export function applyFix(id: string, shot: Shot, resolved: ResolvedShot, slotKey: string, slot: Slot): Shot {
  const check = CHECKS.find((c) => c.id === id);
  if (!check?.fix) throw new Error(`The check "${id}" has no fix.`);
  return check.fix(shot, resolved, slotKey, slot);
}

export function worst(results: CheckResult[]): Verdict {
  if (results.some((r) => r.verdict === 'stop')) return 'stop';
  return results.some((r) => r.verdict === 'look') ? 'look' : 'pass';
}
