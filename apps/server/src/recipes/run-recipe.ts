import { setTimeout as pause } from 'node:timers/promises';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { MAKES_SHOT, readSteps, stepsBefore, type RecipeStep } from '@scenograph/core/recipe/recipe';
import { feedByRule } from '@scenograph/core/spec/feed-by-rule';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type pg from 'pg';
import type { BoardService } from '../board/board.service';
import type { Database } from '../database/database';
import { photos, products, recipes, shots } from '../database/schema';
import type { DeliveriesService } from '../deliveries/deliveries.service';
import { change, NOBODY } from '../edits/edits';
import { dataScope, withProduct } from '../products/data-scope';
import { announce } from '../events/events';
import { troubleOf } from '../database/trouble';
import type { Queue, RecipeJob } from '../jobs/queue';
import { slotsOf } from '../listings/slots-of';
import { variantsOf } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { queueCutouts } from '../photos/queue-cutouts';
import { listingFor, madeBy, makeShot, StepRefusal, type Done } from './make-shot';
import { failStep, stepAt, type StepClaims } from './step-claims';
import { keysOf } from './takes';

export interface RecipeContext {
  db: Database;
  pool: pg.Pool;
  queue: Queue;
  claims: StepClaims;
  boards: BoardService;
  deliveries: DeliveriesService;
}

/** A step that was begun so often without an end is given up: it is what ends its workers. */
const MOST_TRIES = 3;
const GIVEN_UP =
  'It was tried three times and never came to its end. Run the recipe again, or for fewer products at once.';

/**
 * Runs a recipe for one product: each step that waits is done when those before it are, unless it was done from the same
 * inputs before. A step that fails stops those after it and no others. Running it again after a crash goes on where it
 * was; of two who run it at once, the second leaves it to the first.
 */
export async function runRecipe({ recipeId, productId }: RecipeJob, context: RecipeContext): Promise<void> {
  const { db, pool, claims } = context;
  const [recipe] = await db.select().from(recipes).where(eq(recipes.id, recipeId));
  const [product] = await db.select().from(products).where(eq(products.id, productId));
  if (!recipe || !product) return;
  const steps = readSteps(recipe.steps);
  const tell = () => announce(pool, { topic: 'recipe', id: recipeId });
  const failed = new Set<string>();
  for (const step of steps) {
    const at = { recipeId, productId, step: step.id };
    const row = await stepAt(db, at);
    if (!row || row.state === 'cancelled') continue;
    if (step.after.some((a) => failed.has(a))) {
      failed.add(step.id);
      if (row.state === 'waiting') await failStep(db, at, 'A step before it failed.');
      await tell();
      continue;
    }
    // Keys are read anew for each: a cutout made meanwhile is an input of what comes after.
    const key = (await keysOf(db, steps, productId)).get(step.id)!;
    if (row.state === 'done' && row.key === key) continue;
    if (row.state !== 'waiting' && row.state !== 'working') continue;
    const claim = await claims.begin(at);
    if (!claim) return;
    try {
      await tell();
      if (claim.tries > MOST_TRIES) throw new StepRefusal(GIVEN_UP);
      const { made, says } = await carryOut(step, steps, recipeId, productId, row.made, context);
      await claim.end({ state: 'done', key, made, says });
    } catch (error) {
      const says = toldOf(error);
      if (says === null) {
        await claim.letGo();
        throw error;
      }
      failed.add(step.id);
      await claim.end({ state: 'failed', says });
    }
    await tell();
  }
}

/** Said of a step that cannot be done; null where the database is away and the step is tried again. */
function toldOf(error: unknown): string | null {
  if (error instanceof StepRefusal || (error as { status?: number }).status) return (error as Error).message;
  if (troubleOf(error)) return null;
  console.error(`A recipe's step could not be done: ${String((error as Error).stack ?? error)}`);
  return 'Something went wrong on the server while this step was done. Run the recipe again.';
}

async function carryOut(
  step: RecipeStep,
  steps: readonly RecipeStep[],
  recipeId: string,
  productId: string,
  before: Record<string, string>,
  context: RecipeContext,
): Promise<Done> {
  const { db } = context;
  switch (step.kind) {
    case 'tidy':
      return tidyPhotos(step.tidy, productId, context);
    case 'cut-out':
      return cutOut(productId, context);
    case 'arrange':
      await change(db, dataScope(productId), NOBODY, 'Arranged by recipe', (now) =>
        withProduct(now, { pose: step.pose }),
      );
      await announce(context.pool, { topic: 'product', id: productId });
      return { made: {}, says: `It ${{ stand: 'stands', float: 'floats', flat: 'lies flat' }[step.pose]}.` };
    case 'white':
    case 'stage':
    case 'template':
      return makeShot(step, steps, { recipeId, productId }, context);
    case 'fit':
      return fitSlots(step, steps, recipeId, productId, context);
    case 'deliver': {
      const listingId = (await listingFor(db, steps, productId)).id;
      const { made: earlier } = { made: before };
      const estimate = await context.deliveries.estimate({
        listingIds: [listingId],
        which: 'changed',
        priority: 0,
      });
      if (!estimate.pictures)
        return { made: { listing: listingId, ...earlier }, says: 'Every picture is up to date.' };
      const order = await context.deliveries.order({
        listingIds: [listingId],
        which: 'changed',
        priority: 0,
      });
      return {
        made: { listing: listingId, delivery: order.id },
        says: `${order.total} picture${order.total === 1 ? '' : 's'} ordered.`,
      };
    }
  }
}

async function photosOf(db: Database, productId: string) {
  const own = await variantsOf(db, [productId]);
  const ids = own.flatMap((v) => (v.photoId ? [v.photoId] : []));
  if (!ids.length) throw new StepRefusal('No variant of this product has a photo. Give them photos first.');
  return db.select().from(photos).where(inArray(photos.id, ids));
}

async function tidyPhotos(
  tidy: Extract<RecipeStep, { kind: 'tidy' }>['tidy'],
  productId: string,
  { db, pool, queue }: RecipeContext,
): Promise<Done> {
  const changed: string[] = [];
  for (const photo of await photosOf(db, productId)) {
    const recipe = photo.recipe ?? PLAIN_RECIPE;
    if (JSON.stringify(recipe.tidy) === JSON.stringify(tidy)) continue;
    await db.transaction(async (tx) => {
      const [saved] = await tx
        .update(photos)
        .set({ recipe: { ...recipe, tidy }, recipeRevision: sql`${photos.recipeRevision} + 1` })
        .where(and(eq(photos.id, photo.id), eq(photos.recipeRevision, photo.recipeRevision)))
        .returning({ id: photos.id });
      if (!saved)
        throw new StepRefusal(`"${photo.name}" was changed by hand while this ran. Run the recipe again.`);
      changed.push(...(await queueCutouts(tx, queue, [photo.id])));
    });
    await announce(pool, { topic: 'photo', id: photo.id });
  }
  return { made: {}, says: `${changed.length} photo${changed.length === 1 ? '' : 's'} tidied.` };
}

const LOOK = 400;

/** Has what is not cut out yet cut out by whoever is free, and waits for it. */
async function cutOut(productId: string, { db, queue, pool }: RecipeContext): Promise<Done> {
  const list = await photosOf(db, productId);
  const open = list.filter((p) => p.cutoutState !== 'done');
  // Those that wait or are being made already are left to it.
  const begun = open.filter((p) => p.cutoutState === 'failed' || p.cutoutState === 'cancelled');
  const ids = begun.map((p) => p.id);
  for (const id of await db.transaction((tx) => queueCutouts(tx, queue, ids)))
    await announce(pool, { topic: 'photo', id });
  for (;;) {
    const now = await photosOf(db, productId);
    if (now.every((p) => p.cutoutState !== 'waiting' && p.cutoutState !== 'working')) {
      const bad = now.find((p) => p.cutoutState !== 'done');
      if (bad)
        throw new StepRefusal(
          `"${bad.name}" could not be cut out: ${bad.cutoutError ?? 'it was cancelled.'}`,
        );
      return { made: {}, says: open.length ? `${open.length} cut out.` : 'All cutouts were there.' };
    }
    await pause(LOOK);
  }
}

/** Slots of the step's sheets go to the shots that the recipe made, by their rules. */
async function fitSlots(
  step: Extract<RecipeStep, { kind: 'fit' }>,
  steps: readonly RecipeStep[],
  recipeId: string,
  productId: string,
  { db, boards }: RecipeContext,
): Promise<Done> {
  const listing = await listingFor(db, steps, productId);
  const sheets = await allSheets(db);
  const known = step.sheets.filter((id) => sheets.some((s) => s.id === id));
  const missing = known.filter((id) => !listing.sheets.includes(id));
  if (missing.length) await boards.describe(listing.id, { sheets: [...listing.sheets, ...missing] }, NOBODY);
  const by = stepsBefore(steps, step.id)
    .filter((s) => MAKES_SHOT.has(s.kind))
    .map((s) => madeBy(recipeId, s.id));
  const feeders = by.length
    ? await db
        .select()
        .from(shots)
        .where(and(eq(shots.listingId, listing.id), inArray(shots.madeBy, by)))
        .orderBy(asc(shots.position))
    : [];
  const slots = slotsOf(known, sheets);
  const chosen = feedByRule(slots, feeders);
  await boards.feedAll(listing.id, chosen, 'Fit by recipe', NOBODY);
  const left = slots.length - chosen.size;
  return {
    made: { listing: listing.id },
    says: `${chosen.size} slots filled${left ? `, ${left} that no shot of the recipe suits are left as they were` : ''}.`,
  };
}
