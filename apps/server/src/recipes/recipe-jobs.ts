import { RECIPE_QUEUE, type RecipeJob } from '../jobs/queue';
import { LEASE_SECONDS } from '../paintings/paintings';
import { runRecipe, type RecipeContext } from './run-recipe';
import { stepClaims, sweepRecipes } from './step-claims';

/** Runs the recipes that wait, and takes up those whose worker has died or whose job was lost. */
export async function startRecipes(
  context: Omit<RecipeContext, 'claims'>,
): Promise<{ stop(): Promise<void> }> {
  const { db, queue } = context;
  const claims = stepClaims(db);
  let stopped = false;
  await queue.boss.work<RecipeJob>(RECIPE_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) => {
    if (stopped) throw new Error('This worker is ending.');
    await runRecipe(job.data, { ...context, claims });
  });
  const sweeping = setInterval(
    () => void sweepRecipes(db, queue).catch(() => undefined),
    (LEASE_SECONDS * 1000) / 3,
  );
  return {
    async stop() {
      stopped = true;
      clearInterval(sweeping);
      await claims.handBack(queue).catch(() => undefined);
    },
  };
}
