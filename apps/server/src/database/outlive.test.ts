import { expect, test } from '@jest/globals';
import { sql } from 'drizzle-orm';
import { testServer, until } from '../test-server';
import { openDatabase } from './database';
import { troubleOf } from './trouble';

/** Connections that are cut at any moment end no process, and what was asked on them fails as the database being away. */
const server = testServer();
const { call, end, startWorker } = server;

const cutAll = async () => {
  const { pool } = openDatabase(server.url(), 1);
  // The database's own processes (a vacuum) are nobody's to end.
  await pool.query(
    `select pg_terminate_backend(pid) from pg_stat_activity
     where datname = current_database() and pid <> pg_backend_pid() and backend_type = 'client backend'`,
  );
  await pool.end();
};

test('a connection that is cut between two statements of a transaction fails that transaction and nothing else', async () => {
  const { pool, db } = openDatabase(server.url(), 2);
  const cut = db.transaction(async (tx) => {
    await tx.execute(sql`select 1`);
    await cutAll();
    await new Promise((done) => setTimeout(done, 200));
    await tx.execute(sql`select 2`);
  });
  const error = await cut.then(
    () => null,
    (e: unknown) => e,
  );
  expect(troubleOf(error)).toBe('gone');
  expect((await db.execute(sql`select 3 as n`)).rows).toEqual([{ n: 3 }]);
  await pool.end();
});

test('server and worker outlive their connections, cut again and again while they work', async () => {
  const worker = (await startWorker()).child;
  const [photo] = (await call('GET', '/api/photos')).body;
  await call('POST', '/api/photos/cutouts', { ids: [photo.id] });
  for (let n = 0; n < 12; n++) {
    await cutAll();
    await new Promise((done) => setTimeout(done, 150));
    const { status } = await call('GET', '/api/listings');
    // For a moment it may be away; then it says so.
    expect([200, 503]).toContain(status);
  }
  const done = await until(
    () => call('GET', `/api/photos/${photo.id}`),
    ({ body }) => body.cutoutState === 'done',
    90,
  );
  expect(done.status).toBe(200);
  expect(worker.exitCode).toBeNull();
  await end(worker, 'SIGTERM');
});
