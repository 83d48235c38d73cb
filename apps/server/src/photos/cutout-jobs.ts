import { storedRecipe } from '@scenograph/core/cutout/recipe';
import { and, eq, inArray, lt, or, sql } from 'drizzle-orm';
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
const isOpen = inArray(photos.cutoutState, ['waiting', 'working']);
const isLeft = and(
  eq(photos.cutoutState, 'working'),
  or(sql`${photos.cutoutLease} is null`, lt(photos.cutoutLease, sql`now()`)),
);

/** Makes the cutouts that wait, and takes up those whose worker has died or whose job was lost. */
export async function startCutouts(context: Context): Promise<{ stop(): void }> {
  const { queue, threadCount } = context;
  for (let i = 0; i < threadCount; i++)
    await queue.boss.work<CutoutJob>(CUTOUT_QUEUE, { pollingIntervalSeconds: 0.5 }, async ([job]) =>
      cutOut(context, job.data.photoId),
    );
  const sweeping = setInterval(() => void sweep(context).catch(() => undefined), (LEASE_SECONDS * 1000) / 3);
  return { stop: () => clearInterval(sweeping) };
}

async function cutOut({ db, pool, threads }: Context, photoId: string): Promise<void> {
  // Cancelled, or another worker is at it: nothing to do.
  const [photo] = await db
    .update(photos)
    .set({ cutoutState: 'working', cutoutLease: lease, cutoutTries: sql`${photos.cutoutTries} + 1` })
    .where(and(eq(photos.id, photoId), or(eq(photos.cutoutState, 'waiting'), isLeft)))
    .returning();
  if (!photo) return;
  const here = and(eq(photos.id, photoId), eq(photos.working, photo.working));
  const tell = () => announce(pool, { topic: 'photo', id: photoId });
  await tell();
  if (photo.cutoutTries > MOST_TRIES) {
    await db
      .update(photos)
      .set({ cutoutState: 'failed', cutoutError: GIVEN_UP, cutoutLease: null })
      .where(here);
    return tell();
  }
  const renewing = setInterval(
    () =>
      void db
        .update(photos)
        .set({ cutoutLease: lease })
        .where(and(here, isOpen))
        .catch(() => undefined),
    (LEASE_SECONDS * 1000) / 4,
  );
  try {
    const task = { task: 'cutout', working: photo.working, recipe: storedRecipe(photo.recipe) };
    const outcome = (await threads.run(task)) as CutoutOutcome;
    await db
      .update(photos)
      .set({
        cutoutLease: null,
        cutoutTries: 0,
        ...(outcome.ok
          ? { cutoutState: 'done' as const, cutout: outcome.cutout, cutoutError: null }
          : { cutoutState: 'failed' as const, cutoutError: outcome.reason }),
      })
      .where(here);
    await tell();
  } catch (error) {
    // With the database away the lease ends by itself; the sweep takes it up when it is back.
    if (!troubleOf(error)) await db.update(photos).set({ cutoutLease: null }).where(here);
    throw error;
  } finally {
    clearInterval(renewing);
  }
}

/** Photos whose worker is gone, and those that wait without a job, are queued anew. */
export async function sweep({ db, queue }: Pick<Context, 'db' | 'queue'>): Promise<number> {
  const left = await db
    .update(photos)
    .set({ cutoutState: 'waiting', cutoutLease: null })
    .where(isLeft)
    .returning({ id: photos.id });
  const lost = await db
    .select({ id: photos.id })
    .from(photos)
    .where(
      and(
        eq(photos.cutoutState, 'waiting'),
        sql`not exists (select from pgboss.job j where j.name = ${CUTOUT_QUEUE} and j.state in ('created', 'retry') and j.data ->> 'photoId' = ${photos.id}::text)`,
      ),
    );
  const ids = new Set([...left, ...lost].map((photo) => photo.id));
  for (const photoId of ids) await queue.cutOut({ photoId });
  return ids.size;
}
