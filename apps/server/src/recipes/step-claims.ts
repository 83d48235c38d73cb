import { randomUUID } from 'node:crypto';
import { and, eq, lt, or, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../database/database';
import { recipeResults } from '../database/schema';
import { RECIPE_QUEUE, type Queue } from '../jobs/queue';
import { LEASE_SECONDS } from '../paintings/paintings';

/**
 * Who is at which step of a recipe. A worker takes a step for a while (a lease) and renews it; when it dies, its lease
 * runs out and another takes the step. What comes of it is written only while the step is still the worker's own.
 */
export interface Step {
  recipeId: string;
  productId: string;
  step: string;
}

type Row = typeof recipeResults.$inferSelect;

const at = ({ recipeId, productId, step }: Step) =>
  and(
    eq(recipeResults.recipeId, recipeId),
    eq(recipeResults.productId, productId),
    eq(recipeResults.step, step),
  );
const lease = sql`now() + make_interval(secs => ${LEASE_SECONDS})`;
const isLeft = and(
  eq(recipeResults.state, 'working'),
  or(sql`${recipeResults.leaseUntil} is null`, lt(recipeResults.leaseUntil, sql`now()`)),
);
/** No worker's. */
const FREE = { worker: null, leaseUntil: null };

export async function stepAt(db: Database | Transaction, step: Step): Promise<Row | undefined> {
  const [row] = await db.select().from(recipeResults).where(at(step));
  return row;
}

/** What a step has made so far, before it is at its end. */
export async function remember(tx: Transaction, step: Step, made: Row['made']): Promise<void> {
  await tx.update(recipeResults).set({ made }).where(at(step));
}

/** A step that is not begun, because of another. */
export async function failStep(db: Database, step: Step, says: string): Promise<void> {
  await db
    .update(recipeResults)
    .set({ state: 'failed', says, updatedAt: sql`now()` })
    .where(and(at(step), eq(recipeResults.state, 'waiting')));
}

export interface StepClaims {
  /** Takes a step. @returns how often it was begun by now; null where it is another's, or is not wanted any more */
  begin(step: Step): Promise<number | null>;
  /** Writes what came of a step that was taken. */
  end(step: Step, result: Partial<Pick<Row, 'state' | 'key' | 'made' | 'says'>>): Promise<void>;
  /** What is begun and not done is anybody's again; that it was begun does not count against it. */
  handBack(queue: Queue): Promise<void>;
}

/** One worker's claims. */
export function stepClaims(db: Database): StepClaims {
  const worker = randomUUID();
  let open = 0;
  let renewing: NodeJS.Timeout | null = null;
  const mine = and(eq(recipeResults.worker, worker), eq(recipeResults.state, 'working'));
  const renew = () =>
    void db
      .update(recipeResults)
      .set({ leaseUntil: lease })
      .where(mine)
      .catch(() => undefined);
  return {
    async begin(step) {
      const [row] = await db
        .update(recipeResults)
        .set({
          state: 'working',
          worker,
          leaseUntil: lease,
          tries: sql`${recipeResults.tries} + 1`,
          updatedAt: sql`now()`,
        })
        .where(and(at(step), or(eq(recipeResults.state, 'waiting'), isLeft)))
        .returning({ tries: recipeResults.tries });
      if (!row) return null;
      open++;
      renewing ??= setInterval(renew, (LEASE_SECONDS * 1000) / 4);
      return row.tries;
    },
    async end(step, result) {
      if (--open === 0 && renewing) {
        clearInterval(renewing);
        renewing = null;
      }
      await db
        .update(recipeResults)
        .set({ ...result, ...FREE, tries: 0, updatedAt: sql`now()` })
        .where(and(at(step), mine));
    },
    async handBack(queue) {
      if (renewing) clearInterval(renewing);
      await db.transaction(async (tx) => {
        const rows = await tx
          .update(recipeResults)
          .set({ state: 'waiting', ...FREE, tries: sql`greatest(0, ${recipeResults.tries} - 1)` })
          .where(mine)
          .returning();
        for (const { recipeId, productId } of rows) await queue.runRecipe(tx, { recipeId, productId });
      });
    },
  };
}

/** Runs whose worker is gone, and those that wait without a job, are queued anew. @returns how many */
export async function sweepRecipes(db: Database, queue: Queue): Promise<number> {
  return db.transaction(async (tx) => {
    const left = await tx
      .update(recipeResults)
      .set({ state: 'waiting', ...FREE })
      .where(isLeft)
      .returning({ recipeId: recipeResults.recipeId, productId: recipeResults.productId });
    const lost = await tx
      .selectDistinct({ recipeId: recipeResults.recipeId, productId: recipeResults.productId })
      .from(recipeResults)
      .where(
        and(
          eq(recipeResults.state, 'waiting'),
          // A moment's grace: between two steps of a run none is being worked at.
          lt(recipeResults.updatedAt, sql`now() - make_interval(secs => ${LEASE_SECONDS})`),
          sql`not exists (select from recipe_results r where r.recipe_id = ${recipeResults.recipeId}
            and r.product_id = ${recipeResults.productId} and r.state = 'working')`,
          sql`not exists (select from pgboss.job j where j.name = ${RECIPE_QUEUE} and j.state in ('created', 'retry')
            and j.data ->> 'recipeId' = ${recipeResults.recipeId}::text and j.data ->> 'productId' = ${recipeResults.productId}::text)`,
        ),
      );
    const runs = new Map([...left, ...lost].map((run) => [`${run.recipeId}/${run.productId}`, run]));
    for (const run of runs.values()) await queue.runRecipe(tx, run);
    return runs.size;
  });
}
