import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { migrateDatabase, openDatabase } from '../database/database';
import { CUTOUT_QUEUE, openQueue, RECIPE_QUEUE } from './queue';

const CLUSTER = process.env.SCENOGRAPH_TEST_CLUSTER ?? '';

/** A database with nothing in it. */
async function emptyDatabase(): Promise<string> {
  const admin = new pg.Client({ connectionString: `${CLUSTER}/postgres` });
  await admin.connect();
  const name = `empty_${randomUUID().slice(0, 8)}`;
  await admin.query(`create database "${name}"`);
  await admin.end();
  return `${CLUSTER}/${name}`;
}

test('server and workers that start on an empty database at once do not wait for each other for ever', async () => {
  for (let round = 0; round < 3; round++) {
    const url = await emptyDatabase();
    const queues = await Promise.all(Array.from({ length: 6 }, () => openQueue(url)));
    for (const queue of queues) {
      const names = (await queue.boss.getQueues()).map((q) => q.name).sort();
      expect(names).toEqual(expect.arrayContaining([CUTOUT_QUEUE, RECIPE_QUEUE].sort()));
    }
    await Promise.all(queues.map((queue) => queue.stop()));
  }
});

test('a job that one process orders is fetched by another; one whose transaction fails was never ordered', async () => {
  const url = await emptyDatabase();
  const [orders, works] = await Promise.all([openQueue(url), openQueue(url)]);
  const { pool, db } = openDatabase(url, 1);
  const failing = db.transaction(async (tx) => {
    await orders.cutOut(tx, { photoId: 'never' });
    throw new Error('The rest failed.');
  });
  await expect(failing).rejects.toThrow('The rest failed.');
  await db.transaction((tx) => orders.cutOut(tx, { photoId: 'p1' }));
  const jobs = await works.boss.fetch<{ photoId: string }>(CUTOUT_QUEUE, { batchSize: 5 });
  expect(jobs.map((job) => job.data)).toEqual([{ photoId: 'p1' }]);
  await Promise.all([orders.stop(), works.stop(), pool.end()]);
});

test('tables are made once, however many make them at once', async () => {
  const url = await emptyDatabase();
  const opened = Array.from({ length: 4 }, () => openDatabase(url, 2));
  await Promise.all(opened.map(({ pool, db }) => migrateDatabase(pool, db)));
  const { rows } = await opened[0].pool.query<{ n: string }>(
    'select count(*) n from drizzle.__drizzle_migrations',
  );
  const { rows: tables } = await opened[0].pool.query(
    "select 1 from information_schema.tables where table_name = 'shots'",
  );
  expect(Number(rows[0].n)).toBeGreaterThan(0);
  expect(tables).toHaveLength(1);
  await Promise.all(opened.map(({ pool }) => pool.end()));
});
