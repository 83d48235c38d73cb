import pg from 'pg';
import PgBoss from 'pg-boss';
import { locked } from '../database/database';

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
  cutOut(job: CutoutJob): Promise<void>;
  runRecipe(job: RecipeJob): Promise<void>;
  boss: PgBoss;
  stop(): Promise<void>;
}

export const CUTOUT_QUEUE = 'cutout';
export const RECIPE_QUEUE = 'recipe';

/** Opens the queues and makes what they need in the database; safe to call from several processes at once. */
export async function openQueue(url: string): Promise<Queue> {
  const boss = new PgBoss({ connectionString: url, max: 4 });
  boss.on('error', () => undefined);
  const pool = new pg.Pool({ connectionString: url, max: 1 });
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
        expireInSeconds: 1800,
      });
    });
  } finally {
    await pool.end();
  }
  return {
    boss,
    async cutOut(job) {
      await boss.send(CUTOUT_QUEUE, job);
    },
    async runRecipe(job) {
      await boss.send(RECIPE_QUEUE, job);
    },
    stop: () => boss.stop({ graceful: false, wait: false }),
  };
}
