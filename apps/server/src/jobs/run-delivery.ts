import { createHash } from 'node:crypto';
import { manifestRows, type Manifest } from '@scenograph/core/delivery/manifest';
import { worst } from '@scenograph/core/spec/checks/index';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import Papa from 'papaparse';
import type pg from 'pg';
import type { Piscina } from 'piscina';
import yazl from 'yazl';
import type { BlobStore } from '../blobs/blob-store';
import type { Database } from '../database/database';
import { deliveries, deliveryCells, listings } from '../database/schema';
import { announce } from '../events/events';
import type { CellOutcome } from './paint-thread';

export interface DeliveryRunner {
  pool: pg.Pool;
  db: Database;
  store: BlobStore;
  threads: Piscina;
}

/** A number for PostgreSQL's advisory locks from an id. */
function lockNumber(id: string): string {
  return createHash('sha256').update(`delivery:${id}`).digest().readBigInt64BE(0).toString();
}

/**
 * Paints what a delivery still lacks, then writes its ZIP. Whoever runs it holds a lock that ends with its
 * connection: a runner that dies leaves finished pictures behind, and the next one goes on from there. The ZIP
 * and the closing state are written together, so there is never half a file.
 * @returns false when another worker is at it or it is finished already
 */
export async function runDelivery(id: string, runner: DeliveryRunner): Promise<boolean> {
  const { pool, db, threads } = runner;
  const lock = await pool.connect();
  let lost = false;
  lock.on('error', () => (lost = true));
  try {
    const got = await lock.query('select pg_try_advisory_lock($1) as ok', [lockNumber(id)]);
    if (!got.rows[0].ok) return false;
    const started = await db
      .update(deliveries)
      .set({ state: 'running' })
      .where(and(eq(deliveries.id, id), inArray(deliveries.state, ['queued', 'running'])))
      .returning();
    if (!started.length) return false;
    await announce(pool, { topic: 'delivery', id });

    const waiting = await db
      .select()
      .from(deliveryCells)
      .where(and(eq(deliveryCells.deliveryId, id), eq(deliveryCells.state, 'waiting')))
      .orderBy(asc(deliveryCells.n));
    let cancelled = false;
    const next = async (): Promise<void> => {
      for (let cell = waiting.shift(); cell; cell = waiting.shift()) {
        const [now] = await db.select().from(deliveries).where(eq(deliveries.id, id));
        if (!now || now.cancelAsked) {
          cancelled = true;
          return;
        }
        if (lost) throw new Error('The connection that holds the delivery was lost.');
        const outcome = (await threads.run({
          task: 'cell',
          order: cell.order,
          slotKey: cell.slotKey,
        })) as CellOutcome;
        await db
          .update(deliveryCells)
          .set(
            outcome.ok
              ? {
                  state: 'done',
                  blob: outcome.blob,
                  bytes: outcome.bytes,
                  format: outcome.format,
                  quality: outcome.quality,
                  checks: outcome.checks,
                }
              : { state: 'failed', reason: outcome.reason },
          )
          .where(eq(deliveryCells.id, cell.id));
        await announce(pool, { topic: 'delivery', id });
      }
    };
    await Promise.all(Array.from({ length: threads.options.maxThreads }, next));
    if (cancelled) {
      await db
        .update(deliveries)
        .set({ state: 'cancelled', finishedAt: new Date() })
        .where(eq(deliveries.id, id));
    } else {
      await finish(id, runner);
    }
    await announce(pool, { topic: 'delivery', id });
    return true;
  } finally {
    await lock.query('select pg_advisory_unlock_all()').catch(() => undefined);
    lock.release(lost);
  }
}

async function finish(id: string, { db, store }: DeliveryRunner): Promise<void> {
  const [delivery] = await db
    .select({ delivery: deliveries, listing: listings.title })
    .from(deliveries)
    .innerJoin(listings, eq(listings.id, deliveries.listingId))
    .where(eq(deliveries.id, id));
  if (!delivery) return;
  const cells = await db
    .select()
    .from(deliveryCells)
    .where(eq(deliveryCells.deliveryId, id))
    .orderBy(asc(deliveryCells.n));
  const done = cells.filter((c) => c.state === 'done');
  const failed = cells.filter((c) => c.state === 'failed');
  if (!done.length) {
    await db
      .update(deliveries)
      .set({ state: 'failed', error: failed[0]?.reason ?? 'Nothing was to be made.', finishedAt: new Date() })
      .where(eq(deliveries.id, id));
    return;
  }
  const made = delivery.delivery.createdAt;
  const manifest: Manifest = {
    manifest: 'scenograph-delivery',
    version: 1,
    delivery: id,
    listing: delivery.listing,
    made: made.toISOString(),
    pictures: done.map((c) => ({
      file: `${c.fileName}.${c.format === 'jpeg' ? 'jpg' : c.format}`,
      sku: c.sku,
      variant: c.variant,
      marketplace: c.marketplace,
      slot: c.slotKey,
      shot: c.shotTitle,
      width: c.order.slot.width,
      height: c.order.slot.height,
      format: c.format!,
      quality: c.quality,
      bytes: c.bytes!,
      sha256: c.blob!,
      verdict: worst(c.checks ?? []),
      checks: (c.checks ?? []).map(({ check, verdict, measured, limit }) => ({
        check,
        verdict,
        measured,
        limit,
      })),
    })),
    failed: failed.map((c) => ({
      sku: c.sku,
      marketplace: c.marketplace,
      slot: c.slotKey,
      reason: c.reason ?? '',
    })),
  };
  const zip = new yazl.ZipFile();
  for (const [i, cell] of done.entries())
    // Pictures are compressed already: they are stored as they are, and read from the database one at a time.
    zip.addReadStreamLazy(
      manifest.pictures[i].file,
      { compress: false, mtime: made, size: cell.bytes! },
      (cb) => cb(null, store.stream(cell.blob!)),
    );
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 2)), 'manifest.json', { mtime: made });
  zip.addBuffer(
    Buffer.from(`${Papa.unparse(manifestRows(manifest), { newline: '\r\n' })}\r\n`),
    'manifest.csv',
    {
      mtime: made,
    },
  );
  zip.end();
  const { hash, size } = await store.putStream(
    zip.outputStream as AsyncIterable<Uint8Array>,
    'application/zip',
  );
  await db
    .update(deliveries)
    .set({ state: 'done', zip: hash, zipBytes: size, finishedAt: sql`now()` })
    .where(eq(deliveries.id, id));
}
