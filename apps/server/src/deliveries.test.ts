import { expect, test } from '@jest/globals';
import pg from 'pg';
import { testServer } from './test-server';

/** Ordering deliveries: what they would cost, and what can be done with them before a worker begins. */
const server = testServer();
const { call } = server;
const NOWHERE = '99999999-9999-4999-8999-999999999999';

interface Summary {
  id: string;
  title: string;
}
const listings = async () => (await call('GET', '/api/listings')).body as Summary[];
const change = (id: string, body: object) => call('POST', `/api/deliveries/${id}/change`, body);

test('an estimate counts pictures without making any; of several listings it is their sum', async () => {
  const before = (await call('GET', '/api/deliveries')).body as unknown[];
  const [a, b] = await listings();
  const one = (await call('POST', `/api/listings/${a.id}/deliveries/estimate`, {})).body;
  const two = (await call('POST', `/api/listings/${b.id}/deliveries/estimate`, {})).body;
  const both = (await call('POST', '/api/deliveries/estimate', { listingIds: [a.id, b.id] })).body;
  expect(one.pictures).toBeGreaterThan(0);
  expect(both.pictures).toBe(one.pictures + two.pictures);
  expect(both.toPaint + both.unchanged).toBe(both.pictures);
  expect(new Set(both.names).size).toBe(both.names.length);
  expect((await call('GET', '/api/deliveries')).body).toHaveLength(before.length);
});

test('cutouts in doubt are told before anything is made, in pictures that show them', async () => {
  const [{ id }] = await listings();
  const { variants } = (await call('GET', `/api/listings/${id}`)).body;
  const estimate = async () => (await call('POST', `/api/listings/${id}/deliveries/estimate`, {})).body;
  const { doubtful, pictures } = await estimate();
  expect(doubtful).toBe(0);
  const database = new pg.Client({ connectionString: server.url() });
  await database.connect();
  await database.query(
    `update photos set accepted = false, cutout = jsonb_set(cutout, '{confidence}', '0.3') where id = $1`,
    [variants[0].photoId],
  );
  await database.end();
  const now = await estimate();
  expect(now.pictures).toBe(pictures);
  expect(now.doubtful).toBeGreaterThan(0);
  expect(now.doubtful).toBeLessThan(pictures);
  await call('POST', '/api/photos/accepted', { ids: [variants[0].photoId], accepted: true });
  expect((await estimate()).doubtful).toBe(0);
});

test('fewer slots and variants are fewer pictures', async () => {
  const [{ id }] = await listings();
  const { variants, sheets } = (await call('GET', `/api/listings/${id}`)).body;
  const all = (await call('POST', `/api/listings/${id}/deliveries/estimate`, {})).body.pictures as number;
  const slots = [`${sheets[0].id}/${sheets[0].slots[0].id}`];
  const some = await call('POST', `/api/listings/${id}/deliveries/estimate`, {
    slots,
    variants: [variants[0].id],
  });
  expect(some.body.pictures).toBeLessThan(all);
  expect(some.body.pictures).toBeLessThanOrEqual(1);
});

test('an order waits for a worker; it is paused, goes on, changes its place and is cancelled', async () => {
  const list = await listings();
  const made = await call('POST', '/api/deliveries', {
    listingIds: list.slice(0, 2).map((l) => l.id),
    priority: 2,
  });
  expect(made.status).toBeLessThan(300);
  const { id } = made.body;
  expect(made.body).toMatchObject({ made: 0, failed: 0, priority: 2 });
  expect(made.body.total).toBeGreaterThan(0);
  expect(((await call('GET', '/api/deliveries')).body as Summary[]).map((d) => d.id)).toContain(id);
  const cells = (await call('GET', `/api/deliveries/${id}/cells?limit=3`)).body as {
    n: number;
    state: string;
  }[];
  expect(cells).toHaveLength(3);
  expect(cells.every((c) => c.state === 'waiting')).toBe(true);
  const next = (await call('GET', `/api/deliveries/${id}/cells?from=3&limit=3`)).body as { n: number }[];
  expect(next[0].n).toBeGreaterThan(cells[2].n);

  expect((await change(id, { act: 'pause' })).body.state).toBe('paused');
  expect((await change(id, { act: 'go-on' })).body.state).not.toBe('paused');
  expect((await change(id, { priority: -4 })).body.priority).toBe(-4);
  expect((await call('POST', `/api/deliveries/${id}/cancel`)).body.state).toBe('cancelled');
  expect((await call('GET', `/api/deliveries/${id}`)).body.state).toBe('cancelled');
});

test('what makes no sense is refused and orders nothing', async () => {
  const before = (await call('GET', '/api/deliveries')).body as unknown[];
  const [{ id }] = await listings();
  for (const [path, body, status] of [
    ['/api/deliveries', { listingIds: [] }, 400],
    ['/api/deliveries', { listingIds: [NOWHERE] }, 404],
    ['/api/deliveries', { listingIds: [id, id] }, 400],
    ['/api/deliveries', { listingIds: [id], priority: 99 }, 400],
    [`/api/listings/${id}/deliveries`, { which: 'some' }, 400],
    [`/api/listings/${id}/deliveries`, { variants: [NOWHERE] }, 422],
  ] as const)
    expect([path, body, (await call('POST', path, body)).status]).toEqual([path, body, status]);
  expect((await change(NOWHERE, { act: 'pause' })).status).toBe(404);
  expect((await call('GET', '/api/deliveries')).body).toHaveLength(before.length);
});

test('a recipe is costed, ordered for some products and cancelled', async () => {
  const steps = [{ id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] }];
  const { id } = (await call('POST', '/api/recipes', { title: 'Cut them out', steps })).body;
  const products = ((await call('GET', '/api/products')).body.products as Summary[]).slice(0, 2);
  const productIds = products.map((p) => p.id);
  const cost = await call('POST', `/api/recipes/${id}/estimate`, { productIds });
  expect(cost.status).toBeLessThan(300);
  expect(cost.body.products).toBe(2);
  expect(cost.body.steps).toBeGreaterThan(0);
  const run = await call('POST', `/api/recipes/${id}/run`, { productIds });
  expect(run.body.ordered + run.body.unchanged).toBeGreaterThan(0);
  expect((await call('POST', `/api/recipes/${id}/cancel`)).status).toBeLessThan(300);
  expect((await call('POST', `/api/recipes/${NOWHERE}/estimate`, { productIds })).status).toBe(404);
});
