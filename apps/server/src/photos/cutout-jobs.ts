import { randomUUID } from 'node:crypto';
import { storedRecipe } from '@scenograph/core/cutout/recipe';
import { and, eq, inArray, lt, or, sql } from 'drizzle-orm';
import type { PgUpdateSetSource } from 'drizzle-orm/pg-core';
import type pg from 'pg';
import type { Piscina } from 'piscina';
import type { Database } from '../database/database';
import { photos } from '../database/schema';
import { troubleOf } from '../database/trouble';
import { announce } from '../events/events';
import type { CutoutOutcome } from '../jobs/paint-thread';
import { CUTOUT_QUEUE, type CutoutJob, type Queue } from '../jobs/queue';
import { LEASE_SECONDS } from '../paintings/paintings';

/** A cutout that was begun so often without an end is given up: it is what ends its workers. */
const MOST_TRIES = 3;
const GIVEN_UP =
  'It could not be cut out, though it was tried three times. Try again, or replace the photo by another export of it.';

interface Context {
  db: Database;
  pool: pg.Pool;
  threads: Piscina;
  threadCount: number;
  queue: Queue;
}

const lease = sql`now() + make_interval(secs => ${LEASE_SECONDS})`;
const isLeft = and(
  eq(photos.cutoutState, 'working'),
  or(sql`${photos.cutoutLease} is null`, lt(photos.cutoutLease, sql`now()`)),
);
/** No worker's. */
const FREE = { cutoutLease: null, cutoutClaim: null };

/** The database went away while a photo was cut out in a thread. */
class DatabaseAway extends Error {}

/** Makes the cutouts that wait, and takes up those whose worker has died or whose job was lost. */
export async function startCutouts(context: Context): Promise<{ stop(): Promise<void> }> {
  const { queue, threadCount } = context;
  const cutouts = new Cutouts(context);
  for (let i = 0; i < threadCount; i++)
    await queue.boss.work<CutoutJob>(CUTOUT_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) =>
      cutouts.cutOut(job.data.photoId),
    );
  const sweeping = setInterval(() => void sweep(context).catch(() => undefined), (LEASE_SECONDS * 1000) / 3);
  return {
    async stop() {
      clearInterval(sweeping);
      await cutouts.handBack().catch(() => undefined);
    },
  };
}

class Cutouts {
  /** Claims of the photos that are being cut out here. */
  private readonly claims = new Set<string>();
  private stopped = false;

  constructor(private readonly context: Context) {}

  async cutOut(photoId: string): Promise<void> {
    const { db, pool } = this.context;
    if (this.stopped) throw new Error('This worker is ending.');
    const claim = randomUUID();
    // Cancelled, or another worker is at it: nothing to do.
    const [photo] = await db
      .update(photos)
      .set({
        cutoutState: 'working',
        cutoutLease: lease,
        cutoutClaim: claim,
        cutoutTries: sql`${photos.cutoutTries} + 1`,
      })
      .where(and(eq(photos.id, photoId), or(eq(photos.cutoutState, 'waiting'), isLeft)))
      .returning();
    if (!photo) return;
    this.claims.add(claim);
    const tell = () => announce(pool, { topic: 'photo', id: photoId });
    const renewing = setInterval(
      () => void this.write(claim, { cutoutLease: lease }).catch(() => undefined),
      (LEASE_SECONDS * 1000) / 4,
    );
    try {
      await tell();
      await this.write(claim, { ...(await this.outcome(photo)), ...FREE });
      await tell();
    } catch (error) {
      if (this.stopped) throw error;
      // A try that the database ended does not count; where it is still away, the lease ends by itself.
      const away = error instanceof DatabaseAway || troubleOf(error) !== null;
      await this.write(claim, { cutoutLease: null, ...(away ? { cutoutTries: photo.cutoutTries - 1 } : {}) });
      throw error;
    } finally {
      clearInterval(renewing);
      this.claims.delete(claim);
    }
  }

  /** What is begun and not done is anybody's again; that it was begun does not count against it. */
  async handBack(): Promise<void> {
    this.stopped = true;
    const { db, pool, queue } = this.context;
    const claims = [...this.claims];
    if (!claims.length) return;
    const back = await db.transaction(async (tx) => {
      const rows = await tx
        .update(photos)
        .set({ cutoutState: 'waiting', ...FREE, cutoutTries: sql`greatest(0, ${photos.cutoutTries} - 1)` })
        .where(inArray(photos.cutoutClaim, claims))
        .returning({ id: photos.id });
      for (const { id } of rows) await queue.cutOut(tx, { photoId: id });
      return rows;
    });
    for (const { id } of back) await announce(pool, { topic: 'photo', id });
  }

  private async outcome({ cutoutTries, working, recipe }: typeof photos.$inferSelect) {
    if (cutoutTries > MOST_TRIES) return { cutoutState: 'failed' as const, cutoutError: GIVEN_UP };
    const task = { task: 'cutout', working, recipe: storedRecipe(recipe) };
    const outcome = (await this.context.threads.run(task)) as CutoutOutcome;
    if ('trouble' in outcome) throw new DatabaseAway();
    return outcome.ok
      ? { cutoutState: 'done' as const, cutout: outcome.cutout, cutoutError: null, cutoutTries: 0 }
      : { cutoutState: 'failed' as const, cutoutError: outcome.reason, cutoutTries: 0 };
  }

  /** Written only while the photo is still this claim's: another may have it by now, or wants it otherwise. */
  private async write(claim: string, values: PgUpdateSetSource<typeof photos>): Promise<void> {
    await this.context.db.update(photos).set(values).where(eq(photos.cutoutClaim, claim));
  }
}

/** Photos whose worker is gone, and those that wait without a job, are queued anew. */
export async function sweep({ db, queue }: Pick<Context, 'db' | 'queue'>): Promise<number> {
  return db.transaction(async (tx) => {
    const left = await tx
      .update(photos)
      .set({ cutoutState: 'waiting', ...FREE })
      .where(isLeft)
      .returning({ id: photos.id });
    const lost = await tx
      .select({ id: photos.id })
      .from(photos)
      .where(
        and(
          eq(photos.cutoutState, 'waiting'),
          sql`not exists (select from pgboss.job j where j.name = ${CUTOUT_QUEUE} and j.state in ('created', 'retry') and j.data ->> 'photoId' = ${photos.id}::text)`,
        ),
      )
      .for('update', { skipLocked: true });
    const ids = new Set([...left, ...lost].map((photo) => photo.id));
    for (const photoId of ids) await queue.cutOut(tx, { photoId });
    return ids.size;
  });
}
