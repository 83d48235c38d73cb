import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { eq, lt, sql } from 'drizzle-orm';
import type { Database } from '../database/database';
import { workers } from '../database/schema';
import { LEASE_SECONDS } from '../paintings/paintings';

/** Seconds after which a worker that gave no sign of life is taken to be dead. */
const DEAD_AFTER = Math.max(20, LEASE_SECONDS);

/** Writes a worker down, and that it lives, until it is stopped. */
export async function signsOfLife(db: Database, threads: number): Promise<{ stop(): Promise<void> }> {
  const id = randomUUID();
  const beat = () =>
    db
      .insert(workers)
      .values({ id, host: hostname(), threads })
      .onConflictDoUpdate({ target: workers.id, set: { seenAt: sql`now()` } });
  await db.delete(workers).where(lt(workers.seenAt, sql`now() - interval '1 day'`));
  await beat();
  const beating = setInterval(() => void beat().catch(() => undefined), (DEAD_AFTER * 1000) / 4);
  return {
    async stop() {
      clearInterval(beating);
      await db
        .delete(workers)
        .where(eq(workers.id, id))
        .catch(() => undefined);
    },
  };
}

/** The workers that live. */
export const livingWorkers = (db: Database) =>
  db
    .select()
    .from(workers)
    .where(sql`${workers.seenAt} > now() - make_interval(secs => ${DEAD_AFTER})`);
