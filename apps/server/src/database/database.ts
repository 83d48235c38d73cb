import { fileURLToPath } from 'node:url';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** Injection tokens. */
export const DATABASE = Symbol('database');
export const POOL = Symbol('pool');

export function databaseUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url)
    throw new Error(
      'DATABASE_URL is not set. "npm start" sets it; a worker elsewhere needs it in its environment.',
    );
  return url;
}

/** Connections, each of which may be lost at any moment: what was asked on it fails, and nothing else. */
export function poolOf(url: string, connections: number): pg.Pool {
  const pool = new pg.Pool({ connectionString: url, max: connections });
  // One that is lost while idle is replaced at its next use.
  pool.on('error', () => undefined);
  // One that is lost between two statements of a transaction would end the process.
  pool.on('connect', (client) => client.on('error', () => undefined));
  return pool;
}

export function openDatabase(url: string, connections = 8): { pool: pg.Pool; db: Database } {
  const pool = poolOf(url, connections);
  return { pool, db: drizzle(pool, { schema }) };
}

const LOCKS = { tables: 771001, queues: 771002 } as const;

/** Does something that only one process may do at a time; others wait. Given up when the connection ends. */
export async function locked(
  pool: pg.Pool,
  what: keyof typeof LOCKS,
  work: () => Promise<void>,
): Promise<void> {
  const lock = await pool.connect();
  try {
    await lock.query('select pg_advisory_lock($1)', [LOCKS[what]]);
    try {
      await work();
    } finally {
      await lock.query('select pg_advisory_unlock($1)', [LOCKS[what]]);
    }
  } finally {
    lock.release();
  }
}

/** Brings the database's tables up to date; safe to call from several processes at once. */
export const migrateDatabase = (pool: pg.Pool, db: Database): Promise<void> =>
  locked(pool, 'tables', () => migrate(db, { migrationsFolder: migrationsFolder() }));

function migrationsFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'drizzle', 'meta'))) {
    const parent = dirname(folder);
    if (parent === folder) throw new Error('The folder with the database migrations (drizzle/) is missing.');
    folder = parent;
  }
  return join(folder, 'drizzle');
}

/** The one workspace of an installation without accounts. */
export const WORKSPACE = 'home';
