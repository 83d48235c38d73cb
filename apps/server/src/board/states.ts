import { setImmediate } from 'node:timers/promises';
import type { CheckResult, Finding, Verdict } from '@scenograph/core/spec/checks/check';
import {
  judgeMeasures,
  named,
  withWaivers,
  worst,
  type Measures,
  type Waiver,
} from '@scenograph/core/spec/checks/index';
import { nameClashes } from '@scenograph/core/spec/checks/name-clash';
import { nearDuplicates } from '@scenograph/core/spec/checks/near-duplicate';
import type { Slot } from '@scenograph/core/spec/slot';
import { inArray, sql } from 'drizzle-orm';
import type { Database } from '../database/database';
import { madeCells, paintings, type PaintingState } from '../database/schema';
import { sha256 } from '../paintings/paintings';
import { cellId, type ListingPlan } from './plan';

/** A finished picture as the board needs it: judged by its slot's rules as they are now. */
export interface Judged {
  verdict: Verdict;
  faults: CheckResult[];
  passed: number;
  hash: string | null;
  bytes: number;
  format: string;
}

/**
 * How a cell stands: owed (nothing feeds it, or the cutout is missing), never made, out of date, waiting for a painter,
 * failed, or made with the verdict of its checks.
 */
export type CellState = 'no-shot' | 'no-cutout' | 'never' | 'stale' | 'waiting' | 'failed' | Verdict;

export interface CellStanding {
  variantId: string;
  slotKey: string;
  state: CellState;
  key: string | null;
  faults: CheckResult[];
  passed: number;
  bytes: number | null;
  /** The last finished picture, though it may be out of date. */
  last: string | null;
  reason: string | null;
}

const judged = new Map<string, Judged>();
const MOST_JUDGED = 60_000;
const BATCH = 400;

const digests = new WeakMap<Slot, string>();
function digestOf(slot: Slot): string {
  let known = digests.get(slot);
  if (!known) digests.set(slot, (known = sha256(JSON.stringify(slot))));
  return known;
}

const duplicate = { id: 'near-duplicate', title: 'Like another picture' };
const clash = { id: 'name-clash', title: 'File name' };

/** How every cell of a planned listing stands, in the plan's order. */
export async function standings(
  db: Database,
  plan: ListingPlan,
  waivers: readonly Waiver[],
): Promise<CellStanding[][]> {
  const { listing, slots, cells, variants } = plan;
  const keys = [...new Set(cells.flat().flatMap((c) => (c.key ? [c.key] : [])))];
  const [painted, last] = await Promise.all([
    paintingStates(db, keys),
    db
      .select({
        variantId: madeCells.variantId,
        slotKey: madeCells.slotKey,
        key: madeCells.key,
      })
      .from(madeCells)
      .where(sql`${madeCells.listingId} = ${listing.id}`),
  ]);
  const lastOf = new Map(last.map((m) => [cellId(m.variantId, m.slotKey), m.key]));
  await judge(db, plan, painted);
  const sheets = [...new Set(slots.map((s) => s.sheet))];
  return cells.map((row, v) => {
    const { id: variantId } = variants[v];
    const among = amongPictures(plan, row, sheets);
    return row.map((cell, i): CellStanding => {
      const { slot } = slots[i];
      const { slotKey, key } = cell;
      const lastKey = lastOf.get(cellId(variantId, slotKey)) ?? null;
      const base = {
        variantId,
        slotKey,
        key,
        last: lastKey,
        faults: [],
        passed: 0,
        bytes: null,
        reason: null,
      };
      if (cell.owed) return { ...base, state: cell.owed };
      const state = painted.get(key!);
      if (state?.state === 'done') {
        const j = judged.get(`${key}:${digestOf(slot)}`);
        if (!j) return { ...base, state: 'waiting' };
        const others = among(slotKey).map(([check, finding]) =>
          named(check, finding, slot.severity[check.id]),
        );
        const faults = withWaivers([...j.faults, ...others], waivers, slotKey, variantId);
        return { ...base, state: worst(faults), faults, passed: j.passed, bytes: j.bytes };
      }
      if (state?.wanted) return { ...base, state: 'waiting' };
      if (state?.state === 'failed') return { ...base, state: 'failed', reason: state.reason };
      return { ...base, state: lastKey ? 'stale' : 'never' };
    });
  });
}

/** What is found among the pictures of one variant: names that clash, pictures that look alike on one marketplace. */
function amongPictures(
  { slots }: ListingPlan,
  row: ListingPlan['cells'][number],
  sheets: ListingPlan['slots'][number]['sheet'][],
): (slotKey: string) => [{ id: string; title: string }, Finding][] {
  const clashes = nameClashes(
    row.flatMap((c, i) =>
      c.key ? [{ key: c.slotKey, folder: slots[i].sheet.marketplace, name: c.fileName }] : [],
    ),
  );
  const alike = sheets.map((sheet) =>
    nearDuplicates(
      row.flatMap((c, i) => {
        const { slot, sheet: own } = slots[i];
        const hash = own === sheet && c.key ? judged.get(`${c.key}:${digestOf(slot)}`)?.hash : null;
        return hash ? [{ key: c.slotKey, title: slot.title, hash }] : [];
      }),
    ),
  );
  return (slotKey) => {
    const twin = alike.find((m) => m.has(slotKey))?.get(slotKey);
    const name = clashes.get(slotKey);
    return [
      ...(twin ? [[duplicate, twin] as [typeof duplicate, Finding]] : []),
      ...(name ? [[clash, name] as [typeof clash, Finding]] : []),
    ];
  };
}

async function paintingStates(db: Database, keys: string[]) {
  const found = new Map<string, { state: PaintingState; reason: string | null; wanted: boolean }>();
  for (let i = 0; i < keys.length; i += 5000) {
    const rows = await db
      .select({
        key: paintings.key,
        state: paintings.state,
        reason: paintings.reason,
        wanted: sql<boolean>`${paintings.state} in ('waiting', 'working') and exists (
          select 1 from delivery_pictures c join deliveries d on d.id = c.delivery_id
          where c.key = ${paintings.key} and d.state in ('queued', 'running', 'paused'))`,
      })
      .from(paintings)
      .where(inArray(paintings.key, keys.slice(i, i + 5000)));
    for (const { key, ...state } of rows) found.set(key, state);
  }
  return found;
}

/** Judges finished pictures that were not judged by their slot's present rules before. */
async function judge(
  db: Database,
  { cells, slots }: ListingPlan,
  painted: Map<string, { state: PaintingState }>,
): Promise<void> {
  const open = new Map<string, Slot[]>();
  for (const row of cells)
    row.forEach(({ key }, i) => {
      if (!key || painted.get(key)?.state !== 'done') return;
      const { slot } = slots[i];
      if (judged.has(`${key}:${digestOf(slot)}`)) return;
      open.set(key, [...(open.get(key) ?? []), slot]);
    });
  const keys = [...open.keys()];
  for (let i = 0; i < keys.length; i += BATCH) {
    const rows = await db
      .select({
        key: paintings.key,
        measures: paintings.measures,
        bytes: paintings.bytes,
        format: paintings.format,
      })
      .from(paintings)
      .where(inArray(paintings.key, keys.slice(i, i + BATCH)));
    for (const { key, measures, bytes, format } of rows)
      for (const slot of open.get(key)!) {
        const all = judgeMeasures(measures ?? {}, slot);
        const faults = all.filter((r) => r.verdict !== 'pass');
        const look = (measures as Measures | null)?.['near-duplicate'] as { hash: string } | undefined;
        judged.set(`${key}:${digestOf(slot)}`, {
          verdict: worst(faults),
          faults,
          passed: all.length - faults.length,
          hash: look?.hash ?? null,
          bytes: bytes ?? 0,
          format: format ?? '',
        });
      }
    while (judged.size > MOST_JUDGED) judged.delete(judged.keys().next().value!);
    await setImmediate();
  }
}
