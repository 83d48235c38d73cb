import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type pg from 'pg';
import type { Piscina } from 'piscina';
import type { Database } from '../database/database';
import { troubleOf, type DatabaseTrouble } from '../database/trouble';
import { announce } from '../events/events';
import type { PaintingOutcome } from '../jobs/paint-thread';
import {
  claimPaintings,
  deliveriesWaitingFor,
  endDeliveries,
  failPainting,
  finishPainting,
  givePaintingBack,
  LEASE_SECONDS,
  pauseAll,
  renewLeases,
  type PaintingOrder,
} from './paintings';

const IDLE = 300;
const TROUBLE = 1000;
/** Browsers hear of progress no more often than this. */
const ANNOUNCED = 700;

const DISK_FULL =
  'The disk of the database is full. Nothing half done was kept. Make room, then let the delivery go on.';

export interface PaintLoopContext {
  pool: pg.Pool;
  db: Database;
  threads: Piscina;
  threadCount: number;
}

/**
 * Paints whatever deliveries wait for, as many pictures at once as there are threads, until it is stopped. Losing the
 * database ends nothing: what was being painted is offered again when it is back, and taken if it is still wanted.
 */
export function startPaintLoop({ pool, db, threads, threadCount }: PaintLoopContext): {
  stop(): Promise<void>;
} {
  const worker = randomUUID();
  // One more than there are threads is at hand, so that none waits for the database between two pictures.
  const atOnce = threadCount + 1;
  const mine = new Set<string>();
  const running = new Set<Promise<void>>();
  let stopped = false;

  const touched = new Set<string>();
  let announcing: NodeJS.Timeout | null = null;
  const progressed = (key: string) => {
    touched.add(key);
    announcing ??= setTimeout(() => {
      announcing = null;
      const keys = [...touched];
      touched.clear();
      void deliveriesWaitingFor(db, keys)
        .then((ids) => Promise.all(ids.map((id) => announce(pool, { topic: 'delivery', id }))))
        .catch(() => undefined);
    }, ANNOUNCED);
  };

  const paintOne = async (order: PaintingOrder): Promise<void> => {
    const { key } = order;
    try {
      const outcome = (await threads.run({ task: 'painting', order })) as PaintingOutcome;
      await throughTrouble(async () => {
        if (outcome.ok) await finishPainting(db, worker, key, outcome.result);
        else if ('reason' in outcome) await failPainting(db, worker, key, outcome.reason);
        else await giveBack(key, outcome.trouble);
      });
    } catch (error) {
      if (stopped) return;
      const trouble = troubleOf(error);
      if (!trouble)
        console.error(`A picture could not be painted: ${String((error as Error).stack ?? error)}`);
      await throughTrouble(() => giveBack(key, trouble));
    } finally {
      mine.delete(key);
    }
    progressed(key);
    await end();
  };

  /** Unmade: to be taken again, and with everything standing still where there is no room for it. */
  const giveBack = async (key: string, trouble: DatabaseTrouble | null): Promise<void> => {
    await givePaintingBack(db, worker, [key], trouble === null);
    if (trouble === 'full')
      for (const id of await pauseAll(db, DISK_FULL)) await announce(pool, { topic: 'delivery', id });
    if (trouble) await pause(TROUBLE);
  };

  /** Tries again while the database is away: what was painted is not thrown away for that. */
  const throughTrouble = async (act: () => Promise<unknown>): Promise<void> => {
    for (;;) {
      try {
        await act();
        return;
      } catch (error) {
        if (stopped || troubleOf(error) !== 'gone') throw error;
        await pause(TROUBLE);
      }
    }
  };

  const end = async () => {
    try {
      for (const id of await endDeliveries(db)) await announce(pool, { topic: 'delivery', id });
    } catch {
      // The next one that ends, or the next idle turn, tries again.
    }
  };

  const loop = async () => {
    while (!stopped) {
      try {
        const free = atOnce - running.size;
        const orders = free > 0 ? await claimPaintings(db, worker, free) : [];
        for (const order of orders) {
          mine.add(order.key);
          const work = paintOne(order).catch(() => undefined);
          running.add(work);
          void work.then(() => running.delete(work));
        }
        if (running.size >= atOnce) await Promise.race(running);
        else if (!orders.length) {
          if (!running.size) await end();
          await Promise.race([pause(IDLE), ...running]);
        }
      } catch {
        // The database is away for now.
        await pause(TROUBLE);
      }
    }
  };
  const alive = setInterval(
    () => void renewLeases(db, worker, [...mine]).catch(() => undefined),
    (LEASE_SECONDS * 1000) / 4,
  );
  const looping = loop();
  return {
    async stop() {
      stopped = true;
      clearInterval(alive);
      if (announcing) clearTimeout(announcing);
      await givePaintingBack(db, worker, [...mine], false).catch(() => undefined);
      await Promise.race([looping, pause(500)]);
    },
  };
}
