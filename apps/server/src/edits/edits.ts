import { ConflictException } from '@nestjs/common';
import type { By } from '@scenograph/contract';
import { and, asc, desc, eq, gt, isNull, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../database/database';
import { edits, scopeChanges, scopes } from '../database/schema';
import { differences, turned, type Pieces } from './pieces';

/** How many steps of one scope can be taken back, and of how many changes it is known what they touched. */
const KEPT = 200;
const KNOWN = 1000;

type Db = Database | Transaction;

/** The server itself, which changes what stands there. */
export const NOBODY: By = { editor: null, revision: null };

/** Something that several people change piece by piece, every change a step that can be taken back. */
export interface Scope {
  /** `data:<product>` or `board:<listing>`. */
  name: string;
  /** What it is called to a person. */
  word: string;
  read(tx: Transaction): Promise<Pieces>;
  /** Puts pieces in place; `keys` names those that are others than before. What they name and is gone is left out. */
  write(tx: Transaction, next: Pieces, keys: ReadonlySet<string>): Promise<void>;
}

/** How often a scope was changed, from 1. */
export async function revisionOf(db: Db, scope: string): Promise<number> {
  const [row] = await db.select({ revision: scopes.revision }).from(scopes).where(eq(scopes.scope, scope));
  return row?.revision ?? 1;
}

/** The scope's revision; nobody else changes it until the transaction ends. */
async function locked(tx: Transaction, scope: string): Promise<number> {
  await tx.insert(scopes).values({ scope }).onConflictDoNothing();
  const [row] = await tx.select().from(scopes).where(eq(scopes.scope, scope)).for('update');
  return row.revision;
}

/**
 * Changes a scope, all of it or nothing. Pieces that were changed since the revision that the change is based on are not
 * changed over: a change of others goes through.
 * @returns the scope's revision then
 * @throws ConflictException with what was changed since
 */
export async function change(
  db: Database,
  scope: Scope,
  by: By,
  label: string,
  make: (now: Pieces, tx: Transaction) => Pieces | Promise<Pieces>,
): Promise<number> {
  return db.transaction(async (tx) => {
    const revision = await locked(tx, scope.name);
    const now = await scope.read(tx);
    const next = await make(now, tx);
    const pieces = differences(now, next);
    if (!pieces.length) return revision;
    const keys = new Set(pieces.map((p) => p.key));
    await refuseOverOthers(tx, scope, by, revision, keys);
    await scope.write(tx, next, keys);
    const { editor } = by;
    await tx.delete(edits).where(and(isOf(scope.name, editor), eq(edits.undone, true)));
    const after = await noted(tx, scope.name, by, label, keys);
    await tx.insert(edits).values({ scope: scope.name, revision: after, editor, label, pieces });
    await tx.execute(
      sql`delete from ${edits} where scope = ${scope.name} and n not in
        (select n from ${edits} where scope = ${scope.name} order by n desc limit ${KEPT})`,
    );
    return after;
  });
}

/** Tells that pieces of a scope were changed from elsewhere; that is no step of its own. */
export async function changedBeside(
  tx: Transaction,
  scope: string,
  label: string,
  keys: ReadonlySet<string>,
): Promise<void> {
  if (!keys.size) return;
  await locked(tx, scope);
  await noted(tx, scope, NOBODY, label, keys);
}

async function noted(
  tx: Transaction,
  scope: string,
  { editor }: By,
  label: string,
  keys: ReadonlySet<string>,
): Promise<number> {
  const [{ revision }] = await tx
    .update(scopes)
    .set({ revision: sql`${scopes.revision} + 1` })
    .where(eq(scopes.scope, scope))
    .returning();
  await tx.insert(scopeChanges).values({ scope, revision, editor, label, keys: [...keys] });
  await tx
    .delete(scopeChanges)
    .where(and(eq(scopeChanges.scope, scope), sql`${scopeChanges.revision} <= ${revision - KNOWN}`));
  return revision;
}

async function refuseOverOthers(
  tx: Transaction,
  scope: Scope,
  { revision: based }: By,
  revision: number,
  keys: ReadonlySet<string>,
): Promise<void> {
  if (based === null || based === revision) return;
  const since = await tx
    .select()
    .from(scopeChanges)
    .where(and(eq(scopeChanges.scope, scope.name), gt(scopeChanges.revision, based)))
    .orderBy(asc(scopeChanges.revision));
  // Of what is too long ago, or never was, it is not known what it touched.
  const known = based < revision && since.length === revision - based;
  const over = known ? since.filter((c) => c.keys.some((key) => keys.has(key))) : since;
  if (known && !over.length) return;
  const labels = [...new Set(over.map((c) => c.label))];
  throw new ConflictException({
    message: `This was changed elsewhere since you saw it${labels.length ? ` (${labels.join(', ')})` : ''}. Nothing was saved over it: look at what stands in the ${scope.word} now, then change it again.`,
    detail: {
      revision,
      changed: over.map(({ revision, label, keys, createdAt }) => ({ revision, label, keys, at: createdAt })),
    },
  });
}

/** Pieces that somebody else has changed since a revision, be it back again. */
async function changedByOthers(
  tx: Transaction,
  scope: string,
  revision: number,
  { editor }: By,
): Promise<Set<string>> {
  const since = await tx
    .select({ keys: scopeChanges.keys })
    .from(scopeChanges)
    .where(
      and(
        eq(scopeChanges.scope, scope),
        gt(scopeChanges.revision, revision),
        sql`${scopeChanges.editor} is distinct from ${editor}`,
      ),
    );
  return new Set(since.flatMap((c) => c.keys));
}

const isOf = (scope: string, editor: string | null) =>
  and(eq(edits.scope, scope), editor === null ? isNull(edits.editor) : eq(edits.editor, editor));

/** What an editor can take back and do again in a scope: steps of their own. */
export async function editState(
  db: Db,
  scope: string,
  editor: string | null,
): Promise<{ undo: string | null; redo: string | null }> {
  const next = (undone: boolean) =>
    db
      .select({ label: edits.label })
      .from(edits)
      .where(and(isOf(scope, editor), eq(edits.undone, undone)))
      .orderBy(undone ? asc(edits.n) : desc(edits.n))
      .limit(1);
  const [[last], [first]] = await Promise.all([next(false), next(true)]);
  return { undo: last?.label ?? null, redo: first?.label ?? null };
}

/**
 * Takes an editor's own last step back, or does the next undone one again. What of it somebody changed again since stays.
 * @returns the step's label, or null where there is none; how many of its pieces were turned and how many left; and the
 *   scope's revision then
 */
export async function turn(
  db: Database,
  scope: Scope,
  by: By,
  way: 'undo' | 'redo',
): Promise<{ label: string | null; done: number; left: number; revision: number }> {
  return db.transaction(async (tx) => {
    const revision = await locked(tx, scope.name);
    const undone = way === 'redo';
    const [step] = await tx
      .select()
      .from(edits)
      .where(and(isOf(scope.name, by.editor), eq(edits.undone, undone)))
      .orderBy(undone ? asc(edits.n) : desc(edits.n))
      .limit(1);
    if (!step) return { label: null, done: 0, left: 0, revision };
    const now = await scope.read(tx);
    const since = await changedByOthers(tx, scope.name, step.revision, by);
    const own = step.pieces.filter((p) => !since.has(p.key));
    const { next, left: others } = turned(now, own, way);
    const left = others + step.pieces.length - own.length;
    const keys = new Set(differences(now, next).map((p) => p.key));
    if (keys.size) await scope.write(tx, next, keys);
    const after = keys.size ? await noted(tx, scope.name, by, step.label, keys) : revision;
    await tx.update(edits).set({ undone: !undone, revision: after }).where(eq(edits.n, step.n));
    return { label: step.label, done: keys.size, left, revision: after };
  });
}
