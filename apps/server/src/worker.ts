import { fileURLToPath } from 'node:url';
import { cpus } from 'node:os';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { and, eq, inArray } from 'drizzle-orm';
import { Piscina } from 'piscina';
import { createBlobStore } from './blobs/blob-store';
import { databaseUrl, migrateDatabase, openDatabase } from './database/database';
import { deliveries, photos } from './database/schema';
import { announce } from './events/events';
import type { CutoutOutcome } from './jobs/paint-thread';
import { CUTOUT_QUEUE, DELIVERY_QUEUE, openQueue, type CutoutJob, type DeliveryJob } from './jobs/queue';
import { runDelivery, type DeliveryRunner } from './jobs/run-delivery';

/** A worker process: takes jobs from the database and paints in a pool of threads. Any number may run, on any machine. */
async function main(): Promise<void> {
  const url = databaseUrl();
  const { pool, db } = openDatabase(url, 12);
  await migrateDatabase(pool, db);
  const threadCount = Math.max(1, Number(process.env.SCENOGRAPH_THREADS) || Math.min(4, cpus().length));
  const threads = new Piscina({
    filename: fileURLToPath(new URL('./paint-thread.mjs', import.meta.url)),
    minThreads: 1,
    maxThreads: threadCount,
    idleTimeout: 60_000,
  });
  const runner: DeliveryRunner = { pool, db, store: createBlobStore(db), threads };
  const queue = await openQueue(url);

  const cutOut = async ({ photoId }: CutoutJob): Promise<void> => {
    // Cancelled, or taken up by another worker meanwhile: nothing to do.
    const [photo] = await db
      .update(photos)
      .set({ cutoutState: 'working' })
      .where(and(eq(photos.id, photoId), inArray(photos.cutoutState, ['waiting', 'working'])))
      .returning();
    if (!photo) return;
    await announce(pool, { topic: 'photo', id: photoId });
    const outcome = (await threads.run({
      task: 'cutout',
      working: photo.working,
      recipe: photo.recipe ?? PLAIN_RECIPE,
    })) as CutoutOutcome;
    await db
      .update(photos)
      .set(
        outcome.ok
          ? { cutoutState: 'done', cutout: outcome.cutout, cutoutError: null }
          : { cutoutState: 'failed', cutoutError: outcome.reason },
      )
      .where(and(eq(photos.id, photoId), eq(photos.working, photo.working)));
    await announce(pool, { topic: 'photo', id: photoId });
  };

  for (let i = 0; i < threadCount; i++)
    await queue.boss.work<CutoutJob>(CUTOUT_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) =>
      cutOut(job.data),
    );
  await queue.boss.work<DeliveryJob>(DELIVERY_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) => {
    await runDelivery(job.data.deliveryId, runner);
  });

  // Deliveries whose worker died are taken up again: their lock is free, though they are not finished.
  let sweeping = false;
  const sweep = setInterval(async () => {
    if (sweeping) return;
    sweeping = true;
    try {
      const open = await db
        .select({ id: deliveries.id })
        .from(deliveries)
        .where(inArray(deliveries.state, ['running', 'queued']));
      for (const { id } of open) await runDelivery(id, runner);
    } catch {
      // The next sweep tries again.
    } finally {
      sweeping = false;
    }
  }, 3000);

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    clearInterval(sweep);
    await queue.stop().catch(() => undefined);
    await threads.destroy().catch(() => undefined);
    await pool.end().catch(() => undefined);
    process.exit(0);
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  process.send?.('ready');
  console.log(`worker ready, ${threadCount} painting thread${threadCount > 1 ? 's' : ''}`);
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
