import type { NextFunction, Request, Response } from 'express';
import { sql } from 'drizzle-orm';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { Database } from '../database/database';
import { livingWorkers } from '../jobs/workers';
import { countWork } from './work';

export const METRICS = Symbol('metrics');

/** What the server tells Prometheus. Source of the format: Prometheus, Exposition formats 0.0.4. */
export interface Metrics {
  text(): Promise<string>;
  contentType: string;
  /** Measures how long answers take, by route. */
  requests(request: Request, response: Response, next: NextFunction): void;
  /** Measures how long somebody waits for something to be painted or read. */
  timed<T>(what: 'paint' | 'decode', kind: string, work: Promise<T>): Promise<T>;
}

const SECONDS = [0.005, 0.02, 0.1, 0.5, 1, 2, 5, 10, 30, 60, 180];

export function createMetrics(db: Database, kills: () => number): Metrics {
  const registers = [new Registry()];
  const [register] = registers;
  collectDefaultMetrics({ register });
  const requests = new Histogram({
    name: 'scenograph_request_seconds',
    help: 'Time to the end of an answer, by route.',
    labelNames: ['method', 'route', 'status'],
    buckets: SECONDS,
    registers,
  });
  const works = new Histogram({
    name: 'scenograph_work_seconds',
    help: 'Time that somebody waited for a picture to be painted, or a file to be read.',
    labelNames: ['what', 'kind', 'outcome'],
    buckets: SECONDS,
    registers,
  });
  new Gauge({
    name: 'scenograph_sandbox_kills',
    help: 'Reading processes that were ended for what they read, since the start.',
    registers,
    collect() {
      this.set(kills());
    },
  });
  stored(db, registers);
  return {
    contentType: register.contentType,
    text: () => register.metrics(),
    requests(request, response, next) {
      // Limits, compression, log and streams each wait for the end of an answer.
      response.setMaxListeners(24);
      const end = requests.startTimer({ method: request.method });
      response.once('close', () => {
        const route = (request.route as { path?: string } | undefined)?.path;
        end({ route: route ?? 'pages', status: String(response.statusCode) });
      });
      next();
    },
    async timed(what, kind, work) {
      const end = works.startTimer({ what, kind });
      try {
        const result = await work;
        end({ outcome: 'done' });
        return result;
      } catch (error) {
        end({ outcome: 'failed' });
        throw error;
      }
    },
  };
}

/** What the database knows, read when it is asked for. */
function stored(db: Database, registers: Registry[]): void {
  new Gauge({
    name: 'scenograph_jobs_oldest_seconds',
    help: 'How long the oldest job that waits has waited.',
    labelNames: ['kind'],
    registers,
    async collect() {
      for (const { kind, oldestSeconds } of await countWork(db)) this.set({ kind }, oldestSeconds ?? 0);
    },
  });
  new Gauge({
    name: 'scenograph_jobs',
    help: 'Cutouts, steps of recipes and pictures of deliveries, by state.',
    labelNames: ['kind', 'state'],
    registers,
    async collect() {
      for (const { kind, waiting, working, failed } of await countWork(db)) {
        this.set({ kind, state: 'waiting' }, waiting);
        this.set({ kind, state: 'working' }, working);
        this.set({ kind, state: 'failed' }, failed);
      }
    },
  });
  new Gauge({
    name: 'scenograph_workers',
    help: 'Worker processes that live.',
    registers,
    async collect() {
      this.set((await livingWorkers(db)).length);
    },
  });
  const numbers = (name: string, help: string, query: ReturnType<typeof sql>) =>
    new Gauge({
      name,
      help,
      registers,
      async collect() {
        const { rows } = await db.execute<{ n: string | null }>(query);
        this.set(Number(rows[0].n ?? 0));
      },
    });
  numbers('scenograph_blobs', 'Stored files.', sql`select count(*) as n from blobs`);
  numbers('scenograph_blob_bytes', 'Bytes of stored files.', sql`select sum(size) as n from blobs`);
  numbers(
    'scenograph_painting_milliseconds',
    'Mean time that workers took for a picture, of those of the last hour.',
    sql`select avg(milliseconds) as n from paintings where state = 'done' and finished_at > now() - interval '1 hour'`,
  );
}
