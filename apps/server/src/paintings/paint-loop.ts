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
export function startPaintLoop(context: PaintLoopContext): { stop(): Promise<void> } {
  return new PaintLoop(context);
}

class PaintLoop {
  private readonly worker = randomUUID();
  /** Keys of paintings that this loop has claimed. */
  private readonly claimed = new Set<string>();
  private readonly running = new Set<Promise<void>>();
  private readonly touched = new Set<string>();
  private announcing: NodeJS.Timeout | null = null;
  private stopped = false;
  private readonly renewing: NodeJS.Timeout;
  private readonly looping: Promise<void>;

  constructor(private readonly context: PaintLoopContext) {
    this.renewing = setInterval(
      () => void renewLeases(context.db, this.worker, [...this.claimed]).catch(() => undefined),
      (LEASE_SECONDS * 1000) / 4,
    );
    this.looping = this.loop();
  }

  async stop(): Promise<void> {
    this.stopped = true;
    clearInterval(this.renewing);
    if (this.announcing) clearTimeout(this.announcing);
    await givePaintingBack(this.context.db, this.worker, [...this.claimed], false).catch(() => undefined);
    await Promise.race([this.looping, pause(500)]);
  }

  private async loop(): Promise<void> {
    while (!this.stopped) {
      try {
        await this.turn();
      } catch {
        // The database is away for now.
        await pause(TROUBLE);
      }
    }
  }

  /** Claims as many paintings as can be begun, and waits until something is done or may have come. */
  private async turn(): Promise<void> {
    const { db, threadCount } = this.context;
    // One more than there are threads is at hand, so that none waits for the database between two pictures.
    const atOnce = threadCount + 1;
    const free = atOnce - this.running.size;
    const orders = free > 0 ? await claimPaintings(db, this.worker, free) : [];
    for (const order of orders) {
      this.claimed.add(order.key);
      const work = this.paintOne(order).catch(() => undefined);
      this.running.add(work);
      void work.then(() => this.running.delete(work));
    }
    if (this.running.size >= atOnce) await Promise.race(this.running);
    else if (!orders.length) {
      if (!this.running.size) await this.end();
      await Promise.race([pause(IDLE), ...this.running]);
    }
  }

  private async paintOne(order: PaintingOrder): Promise<void> {
    const { threads } = this.context;
    const { key } = order;
    try {
      const outcome = (await threads.run({ task: 'painting', order })) as PaintingOutcome;
      await this.throughTrouble(() => this.record(key, outcome));
    } catch (error) {
      if (this.stopped) return;
      const trouble = troubleOf(error);
      if (!trouble)
        console.error(`A picture could not be painted: ${String((error as Error).stack ?? error)}`);
      await this.throughTrouble(() => this.giveBack(key, trouble));
    } finally {
      this.claimed.delete(key);
    }
    this.progressed(key);
    await this.end();
  }

  private async record(key: string, outcome: PaintingOutcome): Promise<void> {
    const { db } = this.context;
    if (outcome.ok) await finishPainting(db, this.worker, key, outcome.result);
    else if ('reason' in outcome) await failPainting(db, this.worker, key, outcome.reason);
    else await this.giveBack(key, outcome.trouble);
  }

  /** Unmade: to be taken again, and with everything standing still where there is no room for it. */
  private async giveBack(key: string, trouble: DatabaseTrouble | null): Promise<void> {
    const { db, pool } = this.context;
    await givePaintingBack(db, this.worker, [key], trouble === null);
    if (trouble === 'full')
      for (const id of await pauseAll(db, DISK_FULL)) await announce(pool, { topic: 'delivery', id });
    if (trouble) await pause(TROUBLE);
  }

  /** Tries again while the database is away: what was painted is not thrown away for that. */
  private async throughTrouble(act: () => Promise<unknown>): Promise<void> {
    for (;;) {
      try {
        await act();
        return;
      } catch (error) {
        if (this.stopped || troubleOf(error) !== 'gone') throw error;
        await pause(TROUBLE);
      }
    }
  }

  private async end(): Promise<void> {
    const { db, pool } = this.context;
    try {
      for (const id of await endDeliveries(db)) await announce(pool, { topic: 'delivery', id });
    } catch {
      // The next one that ends, or the next idle turn, tries again.
    }
  }

  /** Tells browsers of what was painted, a good deal of it at once. */
  private progressed(key: string): void {
    const { db, pool } = this.context;
    this.touched.add(key);
    this.announcing ??= setTimeout(() => {
      this.announcing = null;
      const keys = [...this.touched];
      this.touched.clear();
      void deliveriesWaitingFor(db, keys)
        .then((ids) => Promise.all(ids.map((id) => announce(pool, { topic: 'delivery', id }))))
        .catch(() => undefined);
    }, ANNOUNCED);
  }
}
