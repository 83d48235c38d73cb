import { ConflictException, Inject, Injectable, NotFoundException } from '@nestjs/common';
import { readSteps, type RecipeStep } from '@scenograph/core/recipe/recipe';
import type { By, CallOf, ResultOf } from '@scenograph/contract';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type pg from 'pg';
import { remove } from '../bin/bin';
import { DATABASE, POOL, WORKSPACE, type Database } from '../database/database';
import { shown } from '../database/rows';
import { photos, products, recipeResults, recipes } from '../database/schema';
import { announce } from '../events/events';
import { QUEUE, type Queue } from '../jobs/queue';
import { slotsOf } from '../listings/slots-of';
import { paintingRates } from '../paintings/paintings';
import { variantsOf } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { keysOf } from './takes';
import { refusalOf } from '../http/refusals';

/** A cutout's share of the estimate before any was timed, in milliseconds. */
const CUTOUT_MS = 3000;

@Injectable()
export class RecipesService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(QUEUE) private readonly queue: Queue,
  ) {}

  list() {
    return this.db
      .select()
      .from(recipes)
      .where(eq(recipes.workspaceId, WORKSPACE))
      .orderBy(desc(recipes.createdAt));
  }

  /** A recipe with what it has made of each product so far. */
  async one(id: string) {
    const recipe = await this.recipe(id);
    const results = await this.db
      .select({ result: recipeResults, product: products.title })
      .from(recipeResults)
      .innerJoin(products, eq(products.id, recipeResults.productId))
      .where(eq(recipeResults.recipeId, id))
      .orderBy(products.title);
    const byProduct = new Map<string, ResultOf<'GET /api/recipes/:id'>['products'][number]>();
    for (const { result, product } of results) {
      const entry = byProduct.get(result.productId) ?? { productId: result.productId, product, steps: {} };
      const { state, made, says, updatedAt } = result;
      entry.steps[result.step] = { state, made, says, updatedAt };
      byProduct.set(result.productId, entry);
    }
    return { ...recipe, products: [...byProduct.values()] };
  }

  async add(body: { title: string; steps: unknown }) {
    const [made] = await this.db
      .insert(recipes)
      .values({ workspaceId: WORKSPACE, title: body.title, steps: this.read(body.steps) })
      .returning();
    return made;
  }

  async save(id: string, body: CallOf<'PUT /api/recipes/:id'>['body']) {
    const steps = this.read(body.steps);
    const [saved] = await this.db
      .update(recipes)
      .set({ title: body.title, steps, history: body.history, revision: sql`${recipes.revision} + 1` })
      .where(and(eq(recipes.id, id), eq(recipes.workspaceId, WORKSPACE), eq(recipes.revision, body.revision)))
      .returning();
    if (saved) return saved;
    const stored = shown(await this.recipe(id));
    throw new ConflictException({
      message: `"${stored.title}" was changed elsewhere since you opened it. Nothing was saved over it.`,
      detail: stored,
    });
  }

  remove = (id: string, { revision }: By) => remove(this.db, 'recipe', id, revision);

  /** What running a recipe for some products would do and cost: steps, cutouts, pictures, seconds. */
  async estimate(id: string, productIds: string[]) {
    const { steps } = await this.recipe(id);
    const sheets = await allSheets(this.db);
    const rates = await paintingRates(this.db);
    let cutouts = 0;
    let pictures = 0;
    let megapixels = 0;
    let toRun = 0;
    let unchanged = 0;
    for (const productId of productIds) {
      const open = await this.open(id, steps, productId);
      toRun += open.length;
      unchanged += steps.length - open.length;
      const own = await variantsOf(this.db, [productId]);
      if (open.some((s) => s.kind === 'cut-out' || s.kind === 'tidy')) {
        const ids = own.flatMap((v) => (v.photoId ? [v.photoId] : []));
        const waiting = ids.length
          ? await this.db
              .select({ id: photos.id, state: photos.cutoutState })
              .from(photos)
              .where(inArray(photos.id, ids))
          : [];
        cutouts += open.some((s) => s.kind === 'tidy')
          ? waiting.length
          : waiting.filter((p) => p.state !== 'done').length;
      }
      if (open.some((s) => s.kind === 'deliver')) {
        const wanted = slotsOf(
          [...new Set(steps.flatMap((s) => (s.kind === 'fit' ? s.sheets : [])))],
          sheets,
        );
        pictures += wanted.length * own.length;
        megapixels +=
          own.length * wanted.reduce((sum, { slot }) => sum + (slot.width * slot.height) / 1e6, 0);
      }
    }
    const [timed] = await this.db
      .select({ ms: sql<number | null>`avg((${photos.cutout}->>'milliseconds')::float8)` })
      .from(photos);
    const perMegapixel = rates?.millisecondsPerMegapixel ?? 120;
    return {
      products: productIds.length,
      steps: toRun,
      unchanged,
      cutouts,
      pictures,
      seconds: (cutouts * (Number(timed?.ms) || CUTOUT_MS) + megapixels * perMegapixel) / 1000,
    };
  }

  /** Has the recipe run for some products: only what has not run, has failed, or has changed. */
  async run(id: string, productIds: string[]) {
    const { steps } = await this.recipe(id);
    const found = await this.db
      .select({ id: products.id })
      .from(products)
      .where(inArray(products.id, productIds));
    if (found.length < productIds.length)
      throw new NotFoundException('A chosen product is not here any more.');
    let ordered = 0;
    for (const productId of productIds) {
      const open = await this.open(id, steps, productId);
      if (!open.length) continue;
      ordered++;
      await this.db.transaction(async (tx) => {
        for (const step of open)
          await tx
            .insert(recipeResults)
            .values({ recipeId: id, productId, step: step.id, state: 'waiting' })
            .onConflictDoUpdate({
              target: [recipeResults.recipeId, recipeResults.productId, recipeResults.step],
              set: { state: 'waiting', says: null, tries: 0, worker: null, updatedAt: sql`now()` },
              // What a worker is at is left to it.
              setWhere: sql`${recipeResults.state} <> 'working'`,
            });
        await this.queue.runRecipe(tx, { recipeId: id, productId });
      });
    }
    await announce(this.pool, { topic: 'recipe', id });
    return { ordered, unchanged: productIds.length - ordered };
  }

  async cancel(id: string) {
    await this.db
      .update(recipeResults)
      .set({ state: 'cancelled', says: 'Cancelled before it was begun.', updatedAt: sql`now()` })
      .where(and(eq(recipeResults.recipeId, id), eq(recipeResults.state, 'waiting')));
    await announce(this.pool, { topic: 'recipe', id });
    return this.one(id);
  }

  /** Steps of a recipe that a product still needs. */
  private async open(id: string, steps: RecipeStep[], productId: string): Promise<RecipeStep[]> {
    const keys = await keysOf(this.db, steps, productId);
    const done = await this.db
      .select()
      .from(recipeResults)
      .where(and(eq(recipeResults.recipeId, id), eq(recipeResults.productId, productId)));
    return steps.filter((s) => {
      const r = done.find((d) => d.step === s.id);
      return !(r?.state === 'done' && r.key === keys.get(s.id));
    });
  }

  private async recipe(id: string) {
    const [found] = await this.db
      .select()
      .from(recipes)
      .where(and(eq(recipes.id, id), eq(recipes.workspaceId, WORKSPACE)));
    if (!found) throw new NotFoundException('This recipe is not here any more.');
    return found;
  }

  private read(value: unknown): RecipeStep[] {
    try {
      return readSteps(value);
    } catch (error) {
      throw refusalOf(error, 'The recipe');
    }
  }
}
