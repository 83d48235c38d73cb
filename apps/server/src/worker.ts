import { cpus, setPriority } from 'node:os';
import 'reflect-metadata';
import { createBlobStore } from './blobs/blob-store';
import { BoardService } from './board/board.service';
import { DeliveriesService } from './deliveries/deliveries.service';
import { startRecipes } from './recipes/recipe-jobs';
import { databaseUrl, migrateDatabase, openDatabase } from './database/database';
import { outliveDatabase } from './database/outlive';
import { COLLECT_QUEUE, openQueue } from './jobs/queue';
import { collect } from './storage/collect';
import { signsOfLife } from './jobs/workers';
import { paintThreads } from './jobs/paint-threads';
import { startPaintLoop } from './paintings/paint-loop';
import { endInOrder } from './watch/ending';
import { startCutouts } from './photos/cutout-jobs';

/** The operating system's niceness; from -20 to 19, the server's is 0. */
const BACKGROUND = Number(process.env.SCENOGRAPH_NICENESS ?? 10);

/** A worker process: takes jobs from the database and paints in a pool of threads. Any number may run, on any machine. */
async function main(): Promise<void> {
  // Whoever waits for an answer comes before what is made in the background on the same machine.
  setPriority(BACKGROUND);
  outliveDatabase();
  const url = databaseUrl();
  const { pool, db } = openDatabase(url, 12);
  await migrateDatabase(pool, db);
  const threadCount = Math.max(1, Number(process.env.SCENOGRAPH_THREADS) || Math.min(4, cpus().length));
  const threads = paintThreads(threadCount);
  const queue = await openQueue(url);

  const cutouts = await startCutouts({ db, pool, threads, threadCount, queue });
  const store = createBlobStore(db);
  const boards = new BoardService(db, pool);
  const deliveries = new DeliveriesService(db, pool, store, boards);
  const recipes = await startRecipes({ db, pool, queue, boards, deliveries });
  const painting = startPaintLoop({ pool, db, threads, threadCount });
  await queue.boss.work(COLLECT_QUEUE, { pollingIntervalSeconds: 30 }, () =>
    collect(db).then(() => undefined),
  );
  const life = await signsOfLife(db, threadCount);

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await endInOrder([
      // What is begun and not done is handed back: another worker takes it up at once.
      () => Promise.allSettled([cutouts.stop(), recipes.stop(), painting.stop(), life.stop()]),
      () => queue.stop(),
      () => threads.destroy(),
      () => pool.end(),
    ]);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
  // Whoever started it is gone: nobody else would end it.
  process.once('disconnect', () => void stop());
  process.send?.('ready');
  console.log(`worker ready, ${threadCount} painting thread${threadCount > 1 ? 's' : ''}`);
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
