import { createHash } from 'node:crypto';
import type { Encoding, FileWords } from '@scenograph/core/delivery/encoding';
import type { FileFacts } from '@scenograph/core/spec/checks/check';
import type { Measures } from '@scenograph/core/spec/checks/index';
import { inArray, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../database/database';
import { orderParts, paintings } from '../database/schema';

/**
 * The list of files to be painted, and of those that were. All SQL about who paints what is here. A worker takes a
 * painting for a while (a lease) and renews it; when it dies, its lease runs out and another takes the painting. What is
 * written at the end is written only while the lease is still its own, so nothing is made twice or half.
 */

export const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

/** How long a painting is a worker's without a sign of life, in seconds. */
export const LEASE_SECONDS = Number(process.env.SCENOGRAPH_LEASE_SECONDS) || 15;

/** A picture that was taken up so often without an end ends its workers; it is given up. */
const MOST_ATTEMPTS = 8;

export interface PaintingOrder {
  key: string;
  shotPart: string;
  slotPart: string;
  dataPart: string;
  brandPart: string;
  slotKey: string;
  encoding: Encoding;
  words: FileWords;
}

export interface PaintingResult {
  blob: string;
  format: string;
  quality: number | null;
  bytes: number;
  width: number;
  height: number;
  facts: FileFacts;
  measures: Measures;
  pictures: string[];
  milliseconds: number;
}

type Db = Database | Transaction;
const BATCH = 500;

function* batches<T>(list: readonly T[]): Generator<T[]> {
  for (let i = 0; i < list.length; i += BATCH) yield list.slice(i, i + BATCH);
}

/** JSON documents by the digest of their text, each made once for the same object. */
export function partsOf() {
  const known = new Map<object, string>();
  const bodies = new Map<string, string>();
  return {
    hash(value: object | null): string {
      if (value === null) return '';
      let hash = known.get(value);
      if (hash === undefined) {
        const body = JSON.stringify(value);
        hash = sha256(body);
        known.set(value, hash);
        bodies.set(hash, body);
      }
      return hash;
    },
    async store(db: Db): Promise<void> {
      const rows = [...bodies].map(([hash, body]) => ({ hash, body }));
      for (const some of batches(rows))
        await db
          .insert(orderParts)
          .values(some)
          .onConflictDoUpdate({ target: orderParts.hash, set: { touchedAt: sql`now()` } });
    },
  };
}

/** Puts paintings on the list; those that are there already, done or not, stay as they are. */
export async function orderPaintings(db: Db, orders: readonly PaintingOrder[]): Promise<void> {
  const distinct = [...new Map(orders.map((o) => [o.key, o])).values()];
  for (const some of batches(distinct)) {
    await db.insert(paintings).values(some).onConflictDoNothing();
    // What failed before is tried once more when it is ordered again.
    await db
      .update(paintings)
      .set({ state: 'waiting', attempts: 0, reason: null })
      .where(
        sql`${inArray(
          paintings.key,
          some.map((o) => o.key),
        )} and ${paintings.state} = 'failed'`,
      );
  }
}

/** Takes up to `count` paintings that a running delivery waits for, the most urgent first. */
export async function claimPaintings(db: Db, worker: string, count: number): Promise<PaintingOrder[]> {
  const found = await db.execute<{ key: string }>(sql`
    with given_up as (
      update paintings set state = 'failed', reason = 'It was taken up ' || attempts || ' times and never finished. Its pictures may be too large for the memory of the workers.', finished_at = now()
      where state = 'working' and lease_until < now() and attempts >= ${MOST_ATTEMPTS}
    ), wanted as (
      select p.key
      from paintings p
      join lateral (
        select d.priority, d.created_at, c.n
        from delivery_pictures c join deliveries d on d.id = c.delivery_id
        where c.key = p.key and d.state in ('queued', 'running')
        order by d.priority desc, d.created_at, c.n limit 1
      ) first on true
      where p.state = 'waiting' or (p.state = 'working' and p.lease_until < now() and p.attempts < ${MOST_ATTEMPTS})
      order by first.priority desc, first.created_at, first.n
      limit ${count}
      for update of p skip locked
    ), taken as (
      update paintings p set state = 'working', worker = ${worker}, attempts = attempts + 1,
        lease_until = now() + make_interval(secs => ${LEASE_SECONDS})
      from wanted where p.key = wanted.key
      returning p.key
    )
    select key from taken`);
  const keys = found.rows.map((r) => r.key);
  if (!keys.length) return [];
  // In a statement of its own: an update that depends on `taken` finds nothing where its row was changed meanwhile.
  await db.execute(sql`
    update deliveries set state = 'running'
    where state = 'queued' and id in (select delivery_id from delivery_pictures where key in ${keys})`);
  return db
    .select({
      key: paintings.key,
      shotPart: paintings.shotPart,
      slotPart: paintings.slotPart,
      dataPart: paintings.dataPart,
      brandPart: paintings.brandPart,
      slotKey: paintings.slotKey,
      encoding: paintings.encoding,
      words: paintings.words,
    })
    .from(paintings)
    .where(inArray(paintings.key, keys));
}

/** A worker's sign of life for what it is at. */
export async function renewLeases(db: Db, worker: string, keys: readonly string[]): Promise<void> {
  if (!keys.length) return;
  await db
    .update(paintings)
    .set({ leaseUntil: sql`now() + make_interval(secs => ${LEASE_SECONDS})` })
    .where(
      sql`${inArray(paintings.key, [...keys])} and ${paintings.worker} = ${worker} and ${paintings.state} = 'working'`,
    );
}

/**
 * Writes a finished painting and names it as the last of every cell that waits for it, both or neither.
 * @returns false where the lease was lost meanwhile: another has it now
 */
export async function finishPainting(
  db: Db,
  worker: string,
  key: string,
  result: PaintingResult,
): Promise<boolean> {
  const { facts, measures, pictures } = result;
  const done = await db.execute(sql`
    with done as (
      update paintings set state = 'done', worker = null, lease_until = null, reason = null, attempts = 0,
        blob = ${result.blob}, format = ${result.format}, quality = ${result.quality}, bytes = ${result.bytes},
        width = ${result.width}, height = ${result.height}, milliseconds = ${result.milliseconds},
        facts = ${JSON.stringify(facts)}::jsonb, measures = ${JSON.stringify(measures)}::jsonb,
        pictures = ${JSON.stringify(pictures)}::jsonb, finished_at = now()
      where key = ${key} and worker = ${worker} and state = 'working'
      returning key
    ), cells as (
      insert into made_cells (listing_id, variant_id, slot_key, key)
      select distinct c.listing_id, c.variant_id, c.slot_key, c.key
      from delivery_pictures c
      join done using (key)
      join listings l on l.id = c.listing_id
      order by 1, 2, 3
      on conflict (listing_id, variant_id, slot_key) do update set key = excluded.key, made_at = now()
    )
    select key from done`);
  return done.rows.length > 0;
}

/** A painting that cannot be made, with the reason in a sentence. */
export async function failPainting(db: Db, worker: string, key: string, reason: string): Promise<void> {
  await db.execute(sql`
    update paintings set state = 'failed', worker = null, lease_until = null, reason = ${reason}, finished_at = now()
    where key = ${key} and worker = ${worker} and state = 'working'`);
}

/** A painting is given back unmade, to be taken by anybody; `counts` holds the attempt against it. */
export async function givePaintingBack(
  db: Db,
  worker: string,
  keys: readonly string[],
  counts: boolean,
): Promise<void> {
  if (!keys.length) return;
  await db
    .update(paintings)
    .set({
      state: 'waiting',
      worker: null,
      leaseUntil: null,
      ...(counts ? {} : { attempts: sql`greatest(0, ${paintings.attempts} - 1)` }),
    })
    .where(
      sql`${inArray(paintings.key, [...keys])} and ${paintings.worker} = ${worker} and ${paintings.state} = 'working'`,
    );
}

/** Deliveries whose last picture is made come to their end. @returns their ids */
export async function endDeliveries(db: Db): Promise<string[]> {
  const ended = await db.execute<{ id: string }>(sql`
    update deliveries d set
      state = case when exists (
        select 1 from delivery_pictures c join paintings p using (key) where c.delivery_id = d.id and p.state = 'done'
      ) then 'done' else 'failed' end,
      error = case when exists (
        select 1 from delivery_pictures c join paintings p using (key) where c.delivery_id = d.id and p.state = 'done'
      ) then null else (
        select p.reason from delivery_pictures c join paintings p using (key) where c.delivery_id = d.id order by c.n limit 1
      ) end,
      finished_at = now()
    where d.state in ('queued', 'running') and not exists (
      select 1 from delivery_pictures c join paintings p using (key)
      where c.delivery_id = d.id and p.state in ('waiting', 'working')
    )
    returning d.id`);
  return ended.rows.map((r) => r.id);
}

/** Deliveries that wait for any of some paintings. */
export async function deliveriesWaitingFor(db: Db, keys: readonly string[]): Promise<string[]> {
  if (!keys.length) return [];
  const found = await db.execute<{ id: string }>(sql`
    select distinct c.delivery_id as id from delivery_pictures c join deliveries d on d.id = c.delivery_id
    where c.key in ${[...keys]} and d.state in ('queued', 'running', 'paused')`);
  return found.rows.map((r) => r.id);
}

/** All running deliveries stand still, with the reason, until a person lets them go on. */
export async function pauseAll(db: Db, reason: string): Promise<string[]> {
  const paused = await db.execute<{ id: string }>(sql`
    update deliveries set state = 'paused', error = ${reason} where state in ('queued', 'running') returning id`);
  return paused.rows.map((r) => r.id);
}

/** Mean milliseconds and bytes a megapixel of finished paintings, for estimates; null before there are any. */
export async function paintingRates(
  db: Db,
): Promise<{ millisecondsPerMegapixel: number; bytesPerMegapixel: number } | null> {
  const found = await db.execute<{ ms: number | null; bytes: number | null }>(sql`
    select sum(milliseconds) / nullif(sum(width::float8 * height / 1e6), 0) as ms,
           sum(bytes) / nullif(sum(width::float8 * height / 1e6), 0) as bytes
    from (select * from paintings where state = 'done' and milliseconds is not null order by finished_at desc limit 500) recent`);
  const [{ ms, bytes }] = found.rows;
  return ms === null || bytes === null
    ? null
    : { millisecondsPerMegapixel: Number(ms), bytesPerMegapixel: Number(bytes) };
}
