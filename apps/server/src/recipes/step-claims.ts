import { randomUUID } from 'node:crypto';
import { and, eq, inArray, lt, or, sql } from 'drizzle-orm';
import type { PgUpdateSetSource } from 'drizzle-orm/pg-core';
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

/** A step that was taken, until it is at its end or let go. */
export interface Claim {
  /** How often the step was begun by now. */
  tries: number;
  /** Writes what came of it, while it is still this claim's. */
  end(result: Partial<Pick<Row, 'state' | 'key' | 'made' | 'says'>>): Promise<void>;
  /** It could not be done for now, through no fault of its own: anybody may take it. */
  letGo(): Promise<void>;
}

export interface StepClaims {
  /** Takes a step; null where it is another's, or is not wanted any more. */
  begin(step: Step): Promise<Claim | null>;
  /** Renews nothing any more. */
  stop(): void;
  /** What is begun and not done is anybody's again; that it was begun does not count against it. */
  handBack(queue: Queue): Promise<void>;
}

const NOT_COUNTED = { ...FREE, tries: sql`greatest(0, ${recipeResults.tries} - 1)` };

/** One worker's claims. @param seconds how long a lease lasts */
export function stepClaims(db: Database, seconds = LEASE_SECONDS): StepClaims {
  const lease = sql`now() + make_interval(secs => ${seconds})`;
  const claims = new Set<string>();
  const mine = () => and(inArray(recipeResults.worker, [...claims]), eq(recipeResults.state, 'working'));
  const renew = () => {
    if (claims.size)
      void db
        .update(recipeResults)
        .set({ leaseUntil: lease })
        .where(mine())
        .catch(() => undefined);
  };
  const renewing = setInterval(renew, (seconds * 1000) / 4);
  const write = async (worker: string, values: PgUpdateSetSource<typeof recipeResults>) => {
    // Whatever becomes of the writing: what is not written is another's once its lease has ended.
    claims.delete(worker);
    await db.update(recipeResults).set(values).where(eq(recipeResults.worker, worker));
  };
  return {
    async begin(step) {
      const worker = randomUUID();
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
      claims.add(worker);
      return {
        tries: row.tries,
        async end(result) {
          await write(worker, { ...result, ...FREE, tries: 0, updatedAt: sql`now()` });
        },
        async letGo() {
          await write(worker, { state: 'waiting', ...NOT_COUNTED, updatedAt: sql`now()` });
        },
      };
    },
    stop: () => clearInterval(renewing),
    async handBack(queue) {
      clearInterval(renewing);
      if (!claims.size) return;
      await db.transaction(async (tx) => {
        const rows = await tx
          .update(recipeResults)
          .set({ state: 'waiting', ...NOT_COUNTED })
          .where(mine())
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
