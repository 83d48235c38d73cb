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

export function openDatabase(url: string, connections = 8): { pool: pg.Pool; db: Database } {
  const pool = new pg.Pool({ connectionString: url, max: connections });
  // A connection lost while idle is replaced at its next use.
  pool.on('error', () => undefined);
  return { pool, db: drizzle(pool, { schema }) };
}

/** Brings the database's tables up to date; safe to call from several processes at once. */
export async function migrateDatabase(pool: pg.Pool, db: Database): Promise<void> {
  const lock = await pool.connect();
  try {
    await lock.query('select pg_advisory_lock(771001)');
    await migrate(db, { migrationsFolder: migrationsFolder() });
    await lock.query('select pg_advisory_unlock(771001)');
  } finally {
    lock.release();
  }
}

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
