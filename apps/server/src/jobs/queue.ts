import PgBoss from 'pg-boss';
import { sql } from 'drizzle-orm';
import { locked, poolOf, type Transaction } from '../database/database';

export const QUEUE = Symbol('queue');

export interface CutoutJob {
  photoId: string;
}

export interface RecipeJob {
  recipeId: string;
  productId: string;
}

/** Work that is done by worker processes, kept in the same database. */
export interface Queue {
  /** Orders work within a transaction: with what it is about, or not at all. */
  cutOut(tx: Transaction, job: CutoutJob): Promise<void>;
  runRecipe(tx: Transaction, job: RecipeJob): Promise<void>;
  boss: PgBoss;
  stop(): Promise<void>;
}

export const CUTOUT_QUEUE = 'cutout';
export const RECIPE_QUEUE = 'recipe';
export const COLLECT_QUEUE = 'collect';
/** Every night at three; cron. */
const NIGHTLY = '0 3 * * *';

/** Opens the queues and makes what they need in the database; safe to call from several processes at once. */
export async function openQueue(url: string): Promise<Queue> {
  const boss = new PgBoss({ connectionString: url, max: 4 });
  boss.on('error', () => undefined);
  const pool = poolOf(url, 1);
  try {
    // Two that make the tables of their jobs at the same time can wait for each other for ever.
    await locked(pool, 'queues', async () => {
      await boss.start();
      await boss.createQueue(CUTOUT_QUEUE, {
        name: CUTOUT_QUEUE,
        retryLimit: 2,
        retryDelay: 2,
        expireInSeconds: 300,
      });
      await boss.createQueue(RECIPE_QUEUE, {
        name: RECIPE_QUEUE,
        retryLimit: 3,
        retryDelay: 2,
        // Longer than any lasts: a dead worker's is taken up by the lease of its step.
        expireInSeconds: 6 * 3600,
      });
      await boss.createQueue(COLLECT_QUEUE, { name: COLLECT_QUEUE, retryLimit: 1, expireInSeconds: 3600 });
      await boss.schedule(COLLECT_QUEUE, NIGHTLY);
    });
  } finally {
    await pool.end();
  }
  return {
    boss,
    async cutOut(tx, job) {
      await boss.send(CUTOUT_QUEUE, job, { db: within(tx) });
    },
    async runRecipe(tx, job) {
      await boss.send(RECIPE_QUEUE, job, { db: within(tx) });
    },
    stop: () => boss.stop({ graceful: false, wait: false }),
  };
}

/** pg-boss's statements, carried out in a transaction of ours. */
const within = (tx: Transaction): PgBoss.Db => ({
  executeSql: (text, values = []) =>
    tx.execute(
      sql.join(
        text.split(/\$(\d+)/).map((part, i) => (i % 2 ? sql.param(values[Number(part) - 1]) : sql.raw(part))),
      ),
    ),
});
