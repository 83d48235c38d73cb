import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import sharp from 'sharp';
import { sql } from 'drizzle-orm';
import { openDatabase } from '../database/database';
import { testServer } from '../test-server';
import { collect, storageByKind } from './collect';

/** After any history, what is named by anything is there, and what is named by nothing is gone. */
const server = testServer();
const { call } = server;

let opened: ReturnType<typeof openDatabase>;
beforeAll(() => {
  opened = openDatabase(server.url(), 3);
});
afterAll(() => opened.pool.end());

/** As if nothing had happened for two days. */
const age = () =>
  opened.db.execute(
    sql`update blobs set touched_at = now() - interval '2 days', created_at = now() - interval '2 days'`,
  );
const ageRest = async () => {
  await opened.db.execute(sql`update derived set created_at = now() - interval '2 days'`);
  await opened.db.execute(sql`update order_parts set touched_at = now() - interval '2 days'`);
  // What is written touches the files that it names: they come last.
  await age();
};

const stored = async () =>
  new Set(
    (await opened.db.execute<{ hash: string }>(sql`select hash from blobs`)).rows.map((row) => row.hash),
  );

/** Every content hash in any row of any table but those that hold the files: found without knowing what means what. */
async function named(without: string[] = []): Promise<Set<string>> {
  const { rows: tables } = await opened.db.execute<{ name: string }>(
    sql`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
  );
  const hashes = new Set<string>();
  for (const { name } of tables) {
    if (['blobs', 'blob_pieces', ...without].includes(name)) continue;
    const { rows } = await opened.db.execute<{ row: string }>(
      sql`select to_jsonb(t)::text as row from ${sql.identifier(name)} t`,
    );
    for (const { row } of rows) for (const [hash] of row.matchAll(/[0-9a-f]{64}/g)) hashes.add(hash);
  }
  return hashes;
}

const picture = (n: number) =>
  sharp({ create: { width: 24 + n, height: 24, channels: 3, background: { r: n, g: 40, b: 90 } } })
    .composite([
      { input: Buffer.from(`<svg width="9" height="9"><rect width="9" height="9" fill="#fff"/></svg>`) },
    ])
    .png()
    .toBuffer();

type Photo = { id: string; original: string; working: string };
const photos = async () => (await call('GET', '/api/photos')).body as Photo[];
const upload = async (n: number) =>
  (await call('POST', `/api/photos?name=p${n}.png`, await picture(n))).body as Photo;

/** What people do to files, each by a number that says to which. */
const ACTS: Record<string, (n: number) => Promise<unknown>> = {
  upload,
  async remove(n) {
    const list = await photos();
    return list.length > 4 && call('DELETE', `/api/photos/${list[n % list.length].id}`);
  },
  async replace(n) {
    const list = await photos();
    return call(
      'POST',
      `/api/photos/${list[n % list.length].id}/replace?name=r${n}.png`,
      await picture(n + 60),
    );
  },
  async bringBack() {
    const { rows } = await opened.db.execute<{ id: string }>(sql`select id from bin limit 1`);
    return rows[0] && call('POST', `/api/bin/${rows[0].id}/restore`);
  },
  async forget() {
    return opened.db.execute(sql`update bin set created_at = now() - interval '40 days'`);
  },
  async reduced(n) {
    const list = await photos();
    return fetch(`${server.base()}/api/blobs/${list[n % list.length].working}/reduced/160`);
  },
  // A shot names a picture, and then only its history does.
  async show(n) {
    const [listing] = (await call('GET', '/api/listings')).body;
    const { shots } = (await call('GET', `/api/listings/${listing.id}`)).body;
    const shot = (await call('GET', `/api/shots/${shots[0].id}`)).body;
    const list = await photos();
    const patch = {
      op: 'replace',
      path: ['note'],
      value: list[n % list.length].original,
    };
    const past = [{ label: 'Show', forward: [patch], inverse: [patch] }];
    const { revision, document } = shot;
    return call('PUT', `/api/shots/${shot.id}`, { revision, document, history: { past, future: [] } });
  },
  async library(n) {
    const { id } = (await call('POST', `/api/pictures?name=l${n}.png`, await picture(n + 120))).body;
    return n % 2 && call('DELETE', `/api/pictures/${id}`);
  },
};

test('over random histories nothing that is named is removed, and everything that is not is', async () => {
  const act = fc.tuple(fc.constantFrom(...Object.keys(ACTS)), fc.nat(50));
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 12 }), async (acts) => {
      for (const [name, n] of acts) await ACTS[name](n);
      await ageRest();
      const told = await collect(opened.db, { dry: true });
      const before = await stored();
      const must = await named(['derived', 'order_parts']);
      const done = await collect(opened.db);
      const after = await stored();
      expect(done).toEqual(told);
      expect(before.size - after.size).toBe(done.files);
      // The bin is emptied first: what only it named for too long is named no more.
      const still = await named(['derived', 'order_parts']);
      expect([...must].filter((hash) => before.has(hash) && still.has(hash) && !after.has(hash))).toEqual([]);
      const any = await named();
      const left = [...after].filter((hash) => !any.has(hash));
      expect(left).toEqual([]);
      const kinds = await storageByKind(opened.db);
      expect(kinds.reduce((sum, k) => sum + k.files, 0)).toBe(after.size);
      expect(kinds.find((k) => k.kind === 'unnamed')!.files).toBe(0);
    }),
    { numRuns: 25 },
  );
});

test('files that people store and name while it runs are never removed', async () => {
  let running = true;
  const collecting = (async () => {
    while (running) {
      await age();
      await collect(opened.db);
    }
  })();
  const kept: Photo[] = [];
  for (let n = 0; n < 25; n++) {
    const photo = await upload(200 + (n % 5));
    expect(photo.id).toBeDefined();
    if (n % 2) await call('DELETE', `/api/photos/${photo.id}`);
    else kept.push(photo);
    if (n % 6 === 5) await opened.db.execute(sql`delete from bin`);
  }
  running = false;
  await collecting;
  for (const { original, working } of kept)
    for (const hash of [original, working])
      expect((await fetch(`${server.base()}/api/blobs/${hash}`)).status).toBe(200);
});

test('a product with its listings, a delivery and a picture go and come back whole; what is delivered stays', async () => {
  const [listing] = (await call('GET', '/api/listings')).body;
  const detail = (await call('GET', `/api/listings/${listing.id}`)).body;
  const order = (await call('POST', `/api/listings/${listing.id}/deliveries`, { which: 'all' })).body;
  const look = async () => ({
    product: (await call('GET', `/api/products/${listing.productId}`)).body,
    listing: (await call('GET', `/api/listings/${listing.id}`)).body,
    delivery: (await call('GET', `/api/deliveries/${order.id}`)).body,
  });
  const before = await look();
  for (const path of [`/api/deliveries/${order.id}`, `/api/products/${listing.productId}`])
    expect((await call('DELETE', path)).status).toBe(200);
  expect((await call('GET', `/api/shots/${detail.shots[0].id}`)).status).toBe(404);
  await ageRest();
  await collect(opened.db, { cacheDays: 0 });
  expect((await call('POST', `/api/bin/${listing.productId}/restore`)).status).toBeLessThan(300);
  expect((await call('POST', `/api/bin/${order.id}/restore`)).status).toBeLessThan(300);
  expect(await look()).toEqual(before);
});
