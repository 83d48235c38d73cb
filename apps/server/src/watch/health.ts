import { sql } from 'drizzle-orm';
import type { ResultOf } from '@scenograph/contract';
import type { Database } from '../database/database';
import { livingWorkers } from '../jobs/workers';

type Ready = ResultOf<'GET /api/health/ready'>;

/** Milliseconds after which a part that does not answer is taken to be down. */
const PATIENCE = 2000;

async function answers<T>(ask: Promise<T>): Promise<T | null> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<null>((resolve) => (timer = setTimeout(() => resolve(null), PATIENCE)));
  try {
    return await Promise.race([ask, late]);
  } catch {
    return null;
  } finally {
    clearTimeout(timer);
  }
}

/** What the server needs to do its work, and what of it is there. */
export async function readiness(db: Database): Promise<Ready> {
  const [database, queue, workers] = await Promise.all([
    answers(db.execute(sql`select 1`)),
    answers(db.execute(sql`select name from pgboss.queue`)),
    answers(livingWorkers(db)),
  ]);
  const missing = [
    ...(database ? [] : ['The database cannot be reached: nothing can be opened or stored.']),
    ...(database && !queue ? ['The list of jobs cannot be read: no cutout or recipe is begun.'] : []),
    ...(workers?.length === 0
      ? ['No worker is running: cutouts, recipes and deliveries wait until one is started.']
      : []),
  ];
  return {
    ready: !missing.length,
    database: !!database,
    queue: !!queue,
    workers: workers?.length ?? 0,
    missing,
  };
}
