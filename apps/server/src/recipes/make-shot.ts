import { suggestedAlt } from '@scenograph/core/delivery/encoding';
import type { RecipeStep } from '@scenograph/core/recipe/recipe';
import type { Shot } from '@scenograph/core/shot/document';
import { mockupShot, sceneShot, whiteShot } from '@scenograph/core/shot/starters';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { and, asc, count, eq, sql } from 'drizzle-orm';
import type pg from 'pg';
import { WORKSPACE, type Database, type Transaction } from '../database/database';
import { listings, products, shots } from '../database/schema';
import { announce, type ServerEvent } from '../events/events';
import type { RecipeJob } from '../jobs/queue';
import { variantsOf } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { remember, stepAt } from './step-claims';
import { sceneOf, templateOf } from './takes';

/** What came of a step: what it made, and what is said of it. */
export interface Done {
  made: Record<string, string>;
  says: string;
}

/** Said to the person when a step cannot be done; nothing of the step was kept. */
export class StepRefusal extends Error {}

/** The product's listing: its first, or a new one made for the sheets that the recipe fits. */
export async function listingFor(db: Database, steps: readonly RecipeStep[], productId: string) {
  return db.transaction(async (tx) => {
    // Of two runs that find none, one makes it.
    const [product] = await tx.select().from(products).where(eq(products.id, productId)).for('update');
    if (!product) throw new StepRefusal('This product is not here any more.');
    const [present] = await tx
      .select()
      .from(listings)
      .where(eq(listings.productId, productId))
      .orderBy(asc(listings.createdAt))
      .limit(1);
    if (present) return present;
    const wanted = [...new Set(steps.flatMap((s) => (s.kind === 'fit' ? s.sheets : [])))];
    const [made] = await tx
      .insert(listings)
      .values({
        workspaceId: WORKSPACE,
        title: product.title,
        productId,
        sheets: wanted.length ? wanted : (await allSheets(tx)).map((s) => s.id),
      })
      .returning();
    return made;
  });
}

/** By which a shot names the step that made it. */
export const madeBy = (recipeId: string, step: string) => `${recipeId}/${step}`;

type ShotStep = Extract<RecipeStep, { kind: 'white' | 'stage' | 'template' }>;

/**
 * Makes a step's shot, or makes it again. The shot and what the step remembers of it are written together: a worker that
 * dies in between leaves no second shot behind.
 */
export async function makeShot(
  step: ShotStep,
  steps: readonly RecipeStep[],
  run: RecipeJob,
  { db, pool }: { db: Database; pool: pg.Pool },
): Promise<Done> {
  const { document, title } = await shotOf(db, step, run.productId);
  const listing = await listingFor(db, steps, run.productId);
  const by = madeBy(run.recipeId, step.id);
  const { done, event } = await db.transaction(async (tx) => {
    const at = { ...run, step: step.id };
    const before = (await stepAt(tx, at))?.made ?? {};
    const [old] = await tx
      .select()
      .from(shots)
      .where(and(eq(shots.listingId, listing.id), eq(shots.madeBy, by)))
      .for('update');
    // What was changed by hand since is kept, and a new one is made beside it.
    const touched = old && old.revision !== Number(before.revision ?? 1);
    if (touched) await tx.update(shots).set({ madeBy: null }).where(eq(shots.id, old.id));
    const again = old && !touched;
    const next = again
      ? await replaceShot(tx, old.id, document)
      : await addShot(tx, { listingId: listing.id, title, madeBy: by, document });
    const made = { listing: listing.id, shot: next.id, revision: String(next.revision) };
    await remember(tx, at, made);
    const says = touched
      ? `"${title}" was changed by hand and is kept; a new one stands beside it.`
      : again
        ? `"${title}" made again.`
        : `"${title}" made.`;
    const event: ServerEvent = again
      ? { topic: 'shot', id: old.id, revision: next.revision }
      : { topic: 'listing', id: listing.id };
    return { done: { made, says }, event };
  });
  await announce(pool, event);
  return done;
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

async function replaceShot(db: Transaction, id: string, document: Shot) {
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
  db: Transaction,
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
