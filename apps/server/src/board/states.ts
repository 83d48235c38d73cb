import { setImmediate } from 'node:timers/promises';
import type { CheckResult, Finding, Verdict } from '@scenograph/core/spec/checks/check';
import {
  judgeCutout,
  judgeMeasures,
  named,
  withWaivers,
  worst,
  type Waiver,
} from '@scenograph/core/spec/checks/index';
import { CUTOUT_DOUBT } from '@scenograph/core/spec/checks/cutout-doubt';
import { nameClashes } from '@scenograph/core/spec/checks/name-clash';
import { nearDuplicates } from '@scenograph/core/spec/checks/near-duplicate';
import type { Slot } from '@scenograph/core/spec/slot';
import { inArray, sql } from 'drizzle-orm';
import type { Database } from '../database/database';
import { madeCells, paintings, type PaintingState } from '../database/schema';
import { sha256 } from '../paintings/paintings';
import { cellId, type ListingPlan } from './plan';

/** A finished picture as the board needs it: judged by its slot's rules as they are now. */
interface Judged {
  faults: CheckResult[];
  hash: string | null;
  bytes: number;
}

/**
 * How a cell stands: missing (nothing fills it, or the cutout is missing), never made, out of date, waiting for a painter,
 * failed, or made with the verdict of its checks.
 */
export type CellState = 'no-shot' | 'no-cutout' | 'never' | 'stale' | 'waiting' | 'failed' | Verdict;

export interface CellStanding {
  variantId: string;
  slotKey: string;
  state: CellState;
  key: string | null;
  faults: CheckResult[];
  /** It shows an automatic cutout that may be wrong, and nobody has looked at it or waived that. */
  doubtful: boolean;
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

const DUPLICATE = { id: 'near-duplicate', title: 'Like another picture' };
const CLASH = { id: 'name-clash', title: 'File name' };

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
  const among = amongPictures(plan);
  return cells.map((row, v) => {
    const { id: variantId, cutoutConfidence } = variants[v];
    return row.map((cell, i): CellStanding => {
      const { slot } = slots[i];
      const { slotKey, key } = cell;
      const lastKey = lastOf.get(cellId(variantId, slotKey)) ?? null;
      const beyond = (among.get(cellId(variantId, slotKey)) ?? []).flatMap(({ check, finding }) => {
        const severity = slot.severity[check.id];
        return severity === 'off' ? [] : [named(check, finding, severity)];
      });
      const doubt =
        key && cell.shot
          ? judgeCutout(cell.shot.document.elements, cutoutConfidence, slot.severity[CUTOUT_DOUBT.id])
          : null;
      const others = withWaivers(doubt ? [...beyond, doubt] : beyond, waivers, slotKey, variantId);
      const base = {
        variantId,
        slotKey,
        key,
        last: lastKey,
        faults: [],
        doubtful: others.some((r) => r.check === CUTOUT_DOUBT.id && !r.waived),
        bytes: null,
        reason: null,
      };
      if (cell.missing) return { ...base, state: cell.missing };
      const state = painted.get(key!);
      if (state?.state === 'done') {
        const j = judged.get(`${key}:${digestOf(slot)}`);
        if (!j) return { ...base, state: 'waiting' };
        const faults = [...withWaivers(j.faults, waivers, slotKey, variantId), ...others];
        return { ...base, state: worst(faults), faults, bytes: j.bytes };
      }
      if (state?.wanted) return { ...base, state: 'waiting' };
      if (state?.state === 'failed') return { ...base, state: 'failed', reason: state.reason };
      return { ...base, state: lastKey ? 'stale' : 'never' };
    });
  });
}

type Among = { check: { id: string; title: string }; finding: Finding };

/**
 * What is found beyond single pictures, by cell: files of one name in a marketplace's folder, and pictures of one variant
 * that look alike on one marketplace.
 */
function amongPictures({ slots, cells }: ListingPlan): Map<string, Among[]> {
  const found = new Map<string, Among[]>();
  const say = (id: string, check: Among['check'], finding: Finding) =>
    found.set(id, [...(found.get(id) ?? []), { check, finding }]);
  const files = cells.flatMap((row) =>
    row.flatMap((c, i) =>
      c.key
        ? [{ key: cellId(c.variantId, c.slotKey), folder: slots[i].sheet.marketplace, name: c.fileName }]
        : [],
    ),
  );
  for (const [id, finding] of nameClashes(files)) say(id, CLASH, finding);
  for (const row of cells)
    for (const sheet of new Set(slots.map((s) => s.sheet))) {
      const pictures = row.flatMap((c, i) => {
        const { slot, sheet: own } = slots[i];
        const hash = own === sheet && c.key ? judged.get(`${c.key}:${digestOf(slot)}`)?.hash : null;
        return hash ? [{ key: cellId(c.variantId, c.slotKey), title: slot.title, hash }] : [];
      });
      for (const [id, finding] of nearDuplicates(pictures)) say(id, DUPLICATE, finding);
    }
  return found;
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
      })
      .from(paintings)
      .where(inArray(paintings.key, keys.slice(i, i + BATCH)));
    for (const { key, measures, bytes } of rows)
      for (const slot of open.get(key)!) {
        const faults = judgeMeasures(measures ?? {}, slot).filter((r) => r.verdict !== 'pass');
        const look = measures?.['near-duplicate'] as { hash: string } | undefined;
        judged.set(`${key}:${digestOf(slot)}`, {
          faults,
          hash: look?.hash ?? null,
          bytes: bytes ?? 0,
        });
      }
    while (judged.size > MOST_JUDGED) judged.delete(judged.keys().next().value!);
    await setImmediate();
  }
}
