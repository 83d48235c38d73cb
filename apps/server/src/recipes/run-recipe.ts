import { setTimeout as pause } from 'node:timers/promises';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { suggestedAlt } from '@scenograph/core/delivery/encoding';
import { MAKES_SHOT, readSteps, stepsBefore, type RecipeStep } from '@scenograph/core/recipe/recipe';
import type { Shot } from '@scenograph/core/shot/document';
import { sceneShot, mockupShot, whiteShot } from '@scenograph/core/shot/starters';
import { feedByRule } from '@scenograph/core/spec/feed-by-rule';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { and, asc, count, eq, inArray, sql } from 'drizzle-orm';
import type pg from 'pg';
import type { BoardService } from '../board/board.service';
import { WORKSPACE, type Database } from '../database/database';
import { listings, photos, products, recipeResults, recipes, shots } from '../database/schema';
import type { DeliveriesService } from '../deliveries/deliveries.service';
import { announce } from '../events/events';
import type { Queue } from '../jobs/queue';
import { slotsOf } from '../listings/slots-of';
import { variantsOf } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { keysOf, sceneOf, templateOf } from './takes';

export interface RecipeContext {
  db: Database;
  pool: pg.Pool;
  queue: Queue;
  boards: BoardService;
  deliveries: DeliveriesService;
}

interface Done {
  made: Record<string, string>;
  says: string;
}

/** Said to the person when a step cannot be done; nothing of the step was kept. */
class StepRefusal extends Error {}

/**
 * Runs a recipe for one product: each step that waits is done when those before it are, unless it was done from the same
 * inputs before. A step that fails stops those after it and no others. Running it again after a crash goes on where it
 * was.
 */
export async function runRecipe(
  { recipeId, productId }: { recipeId: string; productId: string },
  context: RecipeContext,
): Promise<void> {
  const { db, pool } = context;
  const [recipe] = await db.select().from(recipes).where(eq(recipes.id, recipeId));
  const [product] = await db.select().from(products).where(eq(products.id, productId));
  if (!recipe || !product) return;
  const steps = readSteps(recipe.steps);
  const mine = and(eq(recipeResults.recipeId, recipeId), eq(recipeResults.productId, productId));
  const set = async (step: string, patch: Partial<typeof recipeResults.$inferInsert>) => {
    await db
      .update(recipeResults)
      .set({ ...patch, updatedAt: sql`now()` })
      .where(and(mine, eq(recipeResults.step, step)));
    await announce(pool, { topic: 'recipe', id: recipeId });
  };
  const failed = new Set<string>();
  for (const step of steps) {
    const [row] = await db
      .select()
      .from(recipeResults)
      .where(and(mine, eq(recipeResults.step, step.id)));
    if (!row || row.state === 'cancelled') continue;
    if (step.after.some((a) => failed.has(a))) {
      failed.add(step.id);
      if (row.state === 'waiting' || row.state === 'working')
        await set(step.id, { state: 'failed', says: 'A step before it failed.' });
      continue;
    }
    // Keys are read anew for each: a cutout made meanwhile is an input of what comes after.
    const key = (await keysOf(db, steps, productId)).get(step.id)!;
    if (row.state === 'done' && row.key === key) continue;
    if (row.state !== 'waiting' && row.state !== 'working') continue;
    await set(step.id, { state: 'working' });
    try {
      const { made, says } = await carryOut(step, steps, recipeId, productId, row.made, context);
      await set(step.id, { state: 'done', key, made, says });
    } catch (error) {
      const told = error instanceof StepRefusal || (error as { status?: number }).status;
      if (!told) throw error;
      failed.add(step.id);
      await set(step.id, { state: 'failed', says: (error as Error).message });
    }
  }
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
      await db.update(products).set({ pose: step.pose }).where(eq(products.id, productId));
      return { made: {}, says: `It ${{ stand: 'stands', float: 'floats', flat: 'lies flat' }[step.pose]}.` };
    case 'white':
    case 'stage':
    case 'template':
      return makeShot(step, steps, recipeId, productId, before, context);
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
  { db, pool }: RecipeContext,
): Promise<Done> {
  let changed = 0;
  for (const photo of await photosOf(db, productId)) {
    const recipe = photo.recipe ?? PLAIN_RECIPE;
    if (JSON.stringify(recipe.tidy) === JSON.stringify(tidy)) continue;
    changed++;
    await db
      .update(photos)
      .set({
        recipe: { ...recipe, tidy },
        recipeRevision: sql`${photos.recipeRevision} + 1`,
        cutoutState: 'waiting',
      })
      .where(eq(photos.id, photo.id));
    await announce(pool, { topic: 'photo', id: photo.id });
  }
  return { made: {}, says: `${changed} photo${changed === 1 ? '' : 's'} tidied.` };
}

const LOOK = 400;

/** Has what is not cut out yet cut out by whoever is free, and waits for it. */
async function cutOut(productId: string, { db, queue, pool }: RecipeContext): Promise<Done> {
  const list = await photosOf(db, productId);
  const open = list.filter((p) => p.cutoutState !== 'done');
  for (const photo of open) {
    await db
      .update(photos)
      .set({ cutoutState: 'waiting', cutoutError: null, cutoutTries: 0 })
      .where(eq(photos.id, photo.id));
    await queue.cutOut({ photoId: photo.id });
    await announce(pool, { topic: 'photo', id: photo.id });
  }
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

/** The product's listing: its first, or a new one made for the sheets that the recipe fits. */
async function listingFor(db: Database, steps: readonly RecipeStep[], productId: string) {
  const [present] = await db
    .select()
    .from(listings)
    .where(eq(listings.productId, productId))
    .orderBy(asc(listings.createdAt))
    .limit(1);
  if (present) return present;
  const [product] = await db.select().from(products).where(eq(products.id, productId));
  const wanted = [...new Set(steps.flatMap((s) => (s.kind === 'fit' ? s.sheets : [])))];
  const [made] = await db
    .insert(listings)
    .values({
      workspaceId: WORKSPACE,
      title: product.title,
      productId,
      sheets: wanted.length ? wanted : (await allSheets(db)).map((s) => s.id),
    })
    .returning();
  return made;
}

const madeBy = (recipeId: string, step: string) => `${recipeId}/${step}`;

type ShotStep = Extract<RecipeStep, { kind: 'white' | 'stage' | 'template' }>;

async function makeShot(
  step: ShotStep,
  steps: readonly RecipeStep[],
  recipeId: string,
  productId: string,
  before: Record<string, string>,
  { db, pool }: RecipeContext,
): Promise<Done> {
  const { document, title } = await shotOf(db, step, productId);
  const listing = await listingFor(db, steps, productId);
  const by = madeBy(recipeId, step.id);
  const [old] = await db
    .select()
    .from(shots)
    .where(and(eq(shots.listingId, listing.id), eq(shots.madeBy, by)));
  // What was changed by hand since is kept, and a new one is made beside it.
  const touched = old && old.revision !== Number(before.revision ?? 1);
  if (old && !touched) {
    const next = await replaceShot(db, old.id, document);
    await announce(pool, { topic: 'shot', id: old.id, revision: next.revision });
    return {
      made: { listing: listing.id, shot: next.id, revision: String(next.revision) },
      says: `"${title}" made again.`,
    };
  }
  if (touched) await db.update(shots).set({ madeBy: null }).where(eq(shots.id, old.id));
  const made = await addShot(db, { listingId: listing.id, title, madeBy: by, document });
  await announce(pool, { topic: 'listing', id: listing.id });
  return {
    made: { listing: listing.id, shot: made.id, revision: '1' },
    says: touched
      ? `"${title}" was changed by hand and is kept; a new one stands beside it.`
      : `"${title}" made.`,
  };
}

/** The shot that a step makes of a product, and its title. */
async function shotOf(
  db: Database,
  step: ShotStep,
  productId: string,
): Promise<{ document: Shot; title: string }> {
  const first = (await variantsOf(db, [productId])).find((v) => v.data.cutout);
  if (!first)
    throw new StepRefusal(
      'No variant of this product has a cutout. Put a step that cuts out before this one.',
    );
  const { data, pose } = first;
  if (step.kind === 'white') return { document: whiteShot(data, pose), title: 'On white' };
  if (step.kind === 'stage') {
    const scene = await sceneOf(db, step.scene);
    const document = scene.survey.areas.length ? mockupShot(scene) : sceneShot(data, pose, scene);
    return { document, title: scene.title };
  }
  const template = await templateOf(db, step.template);
  return { document: fillTemplate(template.document, data, pose), title: template.title };
}

async function replaceShot(db: Database, id: string, document: Shot) {
  const [next] = await db
    .update(shots)
    .set({
      document,
      history: { past: [], future: [] },
      revision: sql`${shots.revision} + 1`,
      updatedAt: sql`now()`,
    })
    .where(eq(shots.id, id))
    .returning();
  return next;
}

/** A new shot at the end of its listing. */
async function addShot(
  db: Database,
  shot: { listingId: string; title: string; madeBy: string; document: Shot },
) {
  const [{ n }] = await db.select({ n: count() }).from(shots).where(eq(shots.listingId, shot.listingId));
  const [made] = await db
    .insert(shots)
    .values({
      ...shot,
      workspaceId: WORKSPACE,
      alt: suggestedAlt(shot.title),
      history: { past: [], future: [] },
      feeds: [],
      position: n,
    })
    .returning();
  return made;
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
  if (missing.length)
    await db
      .update(listings)
      .set({ sheets: [...listing.sheets, ...missing] })
      .where(eq(listings.id, listing.id));
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
  await boards.feedAll(listing.id, chosen, 'Fit by recipe');
  const left = slots.length - chosen.size;
  return {
    made: { listing: listing.id },
    says: `${chosen.size} slots filled${left ? `, ${left} that no shot of the recipe suits are left as they were` : ''}.`,
  };
}
