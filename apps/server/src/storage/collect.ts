import { STORAGE_KINDS } from '@scenograph/contract/routes/system';
import { sql, type SQL } from 'drizzle-orm';
import type { Database, Transaction } from '../database/database';

/**
 * What is not named by anything any more is removed, by rule: a file lives as long as a document, an undo step, a delivery,
 * the bin or a cache names it, and for a while after that. Safe against concurrent writers: whatever is written touches
 * the files that it names within its own transaction (a trigger), and a file is removed only while it was not touched
 * since, which PostgreSQL looks at again once it has the row.
 */

/** How long what is named by nothing is kept, in hours; what is under way may yet be named. */
export const GRACE_HOURS = 24;
/** How long pictures that were painted for no delivery or board any more are kept, in case they are ordered again, in days. */
export const CACHE_DAYS = 30;
/** How long what was removed can be brought back, in days. */
export const BIN_DAYS = 30;
const BATCH = 200;

export type StorageKind = (typeof STORAGE_KINDS)[number];

/** Content hashes in a row, wherever they stand in it. */
const hashesIn = (kind: StorageKind, from: SQL, row: SQL = sql`to_jsonb(t)::text`): SQL =>
  sql`select ${kind}::text as kind, m[1] as hash from ${from}, regexp_matches(${row}, '[0-9a-f]{64}', 'g') m`;

/** Everything that names files, except reduced copies; what stands first says of which kind a file is. */
const NAMES: SQL[] = [
  sql`select 'originals'::text as kind, original as hash from photos`,
  sql`select 'photos'::text, working from photos`,
  hashesIn('cutouts', sql`photos t`),
  hashesIn('cutouts', sql`outlines t`),
  hashesIn('library', sql`pictures t`),
  hashesIn('library', sql`artworks t`),
  hashesIn('library', sql`scenes t`),
  hashesIn('library', sql`fonts t`),
  hashesIn('library', sql`brand_kits t`),
  hashesIn('library', sql`templates t`),
  hashesIn('library', sql`effect_settings t`),
  hashesIn('library', sql`recipes t`),
  hashesIn('shots', sql`shots t`),
  hashesIn('shots', sql`edits t`),
  sql`select 'deliveries'::text, blob from paintings where blob is not null`,
  // What is painted needs its sources no more; what waits does.
  hashesIn(
    'deliveries',
    sql`(select distinct o.hash, o.body from order_parts o join (
      select unnest(array[shot_part, data_part, brand_part]) as hash from paintings where state <> 'done') w using (hash)) t`,
    sql`t.body`,
  ),
  hashesIn('bin', sql`bin t`),
];

const HASHES = '[0-9a-f]{64}';
const UUIDS = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
/** What the rows in the bin name. */
const inBin = (pattern: string): SQL =>
  sql`select m[1] as key from bin t, regexp_matches(t.rows::text, ${`(${pattern})`}, 'g') m`;

const all = (parts: SQL[]) => sql.join(parts, sql` union all `);

export interface Collected {
  /** Files, and bytes in them, that were removed; or would be. */
  files: number;
  bytes: number;
  paintings: number;
  orderParts: number;
  reduced: number;
  forgotten: number;
}

/**
 * Removes what nothing names, in batches.
 * @param dry nothing is removed; the answer says what would be
 * @param ages for how many hours or days things are kept; shorter in tests
 */
export async function collect(
  db: Database,
  { dry = false, graceHours = GRACE_HOURS, cacheDays = CACHE_DAYS, binDays = BIN_DAYS } = {},
): Promise<Collected> {
  if (dry)
    return db
      .transaction(async (tx) => {
        const found = await sweepAll(tx, { graceHours, cacheDays, binDays });
        throw new DryRun(found);
      })
      .catch((error: unknown) => {
        if (error instanceof DryRun) return error.found;
        throw error;
      });
  return sweepAll(db, { graceHours, cacheDays, binDays });
}

/** Ends the transaction of a dry run, so that all of it is undone. */
class DryRun extends Error {
  constructor(readonly found: Collected) {
    super('Nothing is removed in a dry run.');
  }
}

type Ages = { graceHours: number; cacheDays: number; binDays: number };

async function sweepAll(db: Database | Transaction, ages: Ages): Promise<Collected> {
  const { graceHours, cacheDays, binDays } = ages;
  const grace = sql`now() - make_interval(hours => ${graceHours})`;
  const cached = sql`now() - make_interval(days => ${cacheDays})`;
  const forgotten = await gone(
    db,
    sql`delete from bin where created_at < now() - make_interval(days => ${binDays})`,
  );
  await gone(
    db,
    sql`delete from scopes s where not exists (
      select from products p where s.scope = 'data:' || p.id) and not exists (
      select from listings l where s.scope = 'board:' || l.id) and not exists (
      select from (${inBin(UUIDS)}) b where b.key = split_part(s.scope, ':', 2))`,
  );
  const paintings = await inBatches(
    db,
    sql`select key from paintings p where coalesce(finished_at, created_at) < ${cached}
      and not exists (select from delivery_pictures d where d.key = p.key)
      and not exists (select from made_cells c where c.key = p.key)
      and not exists (select from (${inBin(HASHES)}) b where b.key = p.key)`,
    (keys) => sql`delete from paintings p where key in ${keys}
      and not exists (select from delivery_pictures d where d.key = p.key)
      and not exists (select from made_cells c where c.key = p.key)`,
  );
  const orderParts = await inBatches(
    db,
    sql`select hash as key from order_parts o where touched_at < ${grace} and not exists (
      select from (select unnest(array[shot_part, slot_part, data_part, brand_part]) as hash from paintings
        union all select slot_part from delivery_pictures) p where p.hash = o.hash) and not exists (
      select from (${inBin(HASHES)}) b where b.key = o.hash)`,
    (keys) => sql`delete from order_parts where hash in ${keys} and touched_at < ${grace}`,
  );
  const named = all(NAMES);
  const reduced = await inBatches(
    db,
    sql`select key from derived d where created_at < ${grace} and not exists (
      select from (${named}) n where n.hash = split_part(d.key, ':', 3))`,
    (keys) => sql`delete from derived where key in ${keys}`,
  );
  const before = await bytesOf(db);
  const files = await inBatches(
    db,
    sql`select hash as key from blobs b where touched_at < ${grace} and not exists (
      select from (${named} union all select 'reduced'::text, hash from derived) n where n.hash = b.hash)`,
    (keys) => sql`delete from blobs where hash in ${keys} and touched_at < ${grace}
      and not exists (select from derived d where d.hash = blobs.hash)`,
  );
  const bytes = before - (await bytesOf(db));
  return { files, bytes, paintings, orderParts, reduced, forgotten };
}

async function bytesOf(db: Database | Transaction): Promise<number> {
  const { rows } = await db.execute<{ bytes: string }>(
    sql`select coalesce(sum(size), 0) as bytes from blobs`,
  );
  return Number(rows[0].bytes);
}

async function gone(db: Database | Transaction, statement: SQL): Promise<number> {
  return (await db.execute(statement)).rowCount ?? 0;
}

/** Finds all at once, and removes them some at a time: each batch is short, and looks again at what it removes. */
async function inBatches(
  db: Database | Transaction,
  find: SQL,
  remove: (keys: string[]) => SQL,
): Promise<number> {
  const { rows } = await db.execute<{ key: string }>(find);
  let removed = 0;
  for (let i = 0; i < rows.length; i += BATCH)
    removed += await gone(db, remove(rows.slice(i, i + BATCH).map((r) => r.key))).catch((error: unknown) => {
      // Named by something that was written meanwhile: this batch waits for the next night.
      const { code } = ((error as Error).cause ?? error) as { code?: string };
      if (code === '23503') return 0;
      throw error;
    });
  return removed;
}

export interface StorageShare {
  kind: StorageKind;
  files: number;
  bytes: number;
}

/** How many files of which size there are for what. */
export async function storageByKind(db: Database): Promise<StorageShare[]> {
  const order = sql.join(
    STORAGE_KINDS.map((kind, i) => sql`when ${kind} then ${i}`),
    sql` `,
  );
  const { rows } = await db.execute<{ kind: StorageKind; files: number; bytes: number }>(sql`
    select coalesce(n.kind, 'unnamed') as kind, count(*)::int as files, sum(b.size)::float8 as bytes
    from blobs b left join (
      select distinct on (hash) hash, kind from (
        ${all(NAMES)} union all select 'reduced'::text, hash from derived) every
      order by hash, case kind ${order} end
    ) n using (hash)
    group by 1`);
  const found = new Map(rows.map((row) => [row.kind, row]));
  return STORAGE_KINDS.map((kind) => found.get(kind) ?? { kind, files: 0, bytes: 0 });
}
