import PgBoss from 'pg-boss';

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

export async function openQueue(url: string): Promise<Queue> {
  const boss = new PgBoss({ connectionString: url, max: 4 });
  boss.on('error', () => undefined);
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
