import { and, asc, eq, inArray } from 'drizzle-orm';
import { WORKSPACE, type Transaction } from '../database/database';
import { photos } from '../database/schema';
import type { Queue } from '../jobs/queue';

/**
 * Has photos cut out anew, by their corrections as they stand: their state and their jobs, both or neither. A worker
 * that is at one of them has lost it.
 * @returns the ids of those that are there
 */
export async function queueCutouts(tx: Transaction, queue: Queue, ids: readonly string[]): Promise<string[]> {
  // In one order, so that two who ask for some of the same do not wait for each other.
  const there = await tx
    .select({ id: photos.id })
    .from(photos)
    .where(and(inArray(photos.id, [...ids]), eq(photos.workspaceId, WORKSPACE)))
    .orderBy(asc(photos.id))
    .for('update');
  const found = there.map((p) => p.id);
  if (!found.length) return [];
  await tx
    .update(photos)
    .set({
      cutoutState: 'waiting',
      cutoutError: null,
      cutoutTries: 0,
      cutoutLease: null,
      cutoutClaim: null,
    })
    .where(inArray(photos.id, found));
  for (const photoId of found) await queue.cutOut(tx, { photoId });
  return found;
}
