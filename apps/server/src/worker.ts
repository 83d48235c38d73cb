import { cpus } from 'node:os';
import { storedRecipe } from '@scenograph/core/cutout/recipe';
import { and, eq, inArray } from 'drizzle-orm';
import 'reflect-metadata';
import { createBlobStore } from './blobs/blob-store';
import { BoardService } from './board/board.service';
import { DeliveriesService } from './deliveries/deliveries.service';
import { runRecipe } from './recipes/run-recipe';
import { databaseUrl, migrateDatabase, openDatabase } from './database/database';
import { photos } from './database/schema';
import { announce } from './events/events';
import type { CutoutOutcome } from './jobs/paint-thread';
import { CUTOUT_QUEUE, openQueue, RECIPE_QUEUE, type CutoutJob, type RecipeJob } from './jobs/queue';
import { paintThreads } from './jobs/paint-threads';
import { startPaintLoop } from './paintings/paint-loop';

/** A worker process: takes jobs from the database and paints in a pool of threads. Any number may run, on any machine. */
async function main(): Promise<void> {
  const url = databaseUrl();
  const { pool, db } = openDatabase(url, 12);
  await migrateDatabase(pool, db);
  const threadCount = Math.max(1, Number(process.env.SCENOGRAPH_THREADS) || Math.min(4, cpus().length));
  const threads = paintThreads(threadCount);
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
      recipe: storedRecipe(photo.recipe),
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
  const store = createBlobStore(db);
  const boards = new BoardService(db, pool);
  const deliveries = new DeliveriesService(db, pool, store, boards);
  await queue.boss.work<RecipeJob>(RECIPE_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) =>
    runRecipe(job.data, { db, pool, queue, boards, deliveries }),
  );
  const painting = startPaintLoop({ pool, db, threads, threadCount });

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await painting.stop();
    await queue.stop().catch(() => undefined);
    await threads.destroy().catch(() => undefined);
    await pool.end().catch(() => undefined);
    process.exit(0);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
  process.send?.('ready');
  console.log(`worker ready, ${threadCount} painting thread${threadCount > 1 ? 's' : ''}`);
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
