import { and, asc, desc, eq, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../database/database';
import { edits } from '../database/schema';

/** How many steps of one scope can be taken back. */
const KEPT = 200;

type Db = Database | Transaction;

/** Keeps a step to be taken back; steps that were undone are given up, as in any history. */
export async function keepEdit(
  db: Db,
  scope: string,
  label: string,
  before: unknown,
  after: unknown,
): Promise<void> {
  await db.delete(edits).where(and(eq(edits.scope, scope), eq(edits.undone, true)));
  await db.insert(edits).values({ scope, label, before, after });
  await db.execute(
    sql`delete from ${edits} where scope = ${scope} and n not in
      (select n from ${edits} where scope = ${scope} order by n desc limit ${KEPT})`,
  );
}

/** What can be undone and redone in a scope. */
export async function editState(
  db: Db,
  scope: string,
): Promise<{ undo: string | null; redo: string | null }> {
  const [[last], [next]] = await Promise.all([
    db
      .select({ label: edits.label })
      .from(edits)
      .where(and(eq(edits.scope, scope), eq(edits.undone, false)))
      .orderBy(desc(edits.n))
      .limit(1),
    db
      .select({ label: edits.label })
      .from(edits)
      .where(and(eq(edits.scope, scope), eq(edits.undone, true)))
      .orderBy(asc(edits.n))
      .limit(1),
  ]);
  return { undo: last?.label ?? null, redo: next?.label ?? null };
}

/**
 * Takes the last step back, or does the next undone one again: `apply` puts the state in place within the same
 * transaction.
 * @returns the step's label, or null where there is none
 */
export async function turnEdit(
  db: Database,
  scope: string,
  way: 'undo' | 'redo',
  apply: (tx: Transaction, state: unknown) => Promise<void>,
): Promise<string | null> {
  return db.transaction(async (tx) => {
    const undone = way === 'redo';
    const [step] = await tx
      .select()
      .from(edits)
      .where(and(eq(edits.scope, scope), eq(edits.undone, undone)))
      .orderBy(way === 'undo' ? desc(edits.n) : asc(edits.n))
      .limit(1)
      .for('update');
    if (!step) return null;
    await apply(tx, way === 'undo' ? step.before : step.after);
    await tx.update(edits).set({ undone: !undone }).where(eq(edits.n, step.n));
    return step.label;
  });
}
