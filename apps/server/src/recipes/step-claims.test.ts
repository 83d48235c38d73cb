import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { openDatabase } from '../database/database';
import { recipeResults } from '../database/schema';
import { testServer } from '../test-server';
import { stepClaims, type Step, type StepClaims } from './step-claims';

/** Who is at a step: one at a time, and nobody for ever. */
const server = testServer();
const { call } = server;
/** Seconds of a lease, in place of fifteen. */
const LEASE = 1;

let opened: ReturnType<typeof openDatabase>;
let step: Step;
let away = false;
/** Two workers; the database can be away for the first. */
let one: StepClaims;
let two: StepClaims;

beforeAll(async () => {
  opened = openDatabase(server.url(), 3);
  const unreachable = new Proxy(opened.db, {
    get(db, key) {
      if (away && key === 'update') throw Object.assign(new Error('away'), { code: 'ECONNREFUSED' });
      const value: unknown = Reflect.get(db, key);
      return typeof value === 'function' ? (value.bind(db) as unknown) : value;
    },
  });
  one = stepClaims(unreachable, LEASE);
  two = stepClaims(opened.db, LEASE);
});
afterAll(async () => {
  one.stop();
  two.stop();
  await opened.pool.end();
});

beforeEach(async () => {
  const steps = [{ id: 'a', kind: 'arrange', title: 'Stand', after: [], pose: 'stand' }];
  const recipe = (await call('POST', '/api/recipes', { title: 'R', steps })).body;
  const [product] = (await call('GET', '/api/products')).body.products;
  step = { recipeId: recipe.id, productId: product.id, step: 'a' };
  await opened.db.insert(recipeResults).values({ ...step, state: 'waiting' });
});

const row = async () =>
  (await opened.db.select().from(recipeResults).where(eq(recipeResults.recipeId, step.recipeId)))[0];
const seconds = (n: number) => new Promise((done) => setTimeout(done, n * 1000));

test('of two workers one has a step, for as long as it lives', async () => {
  const claim = await one.begin(step);
  expect(claim!.tries).toBe(1);
  await seconds(2 * LEASE);
  expect(await two.begin(step)).toBeNull();
  await claim!.end({ state: 'done', says: 'It stands.' });
  expect(await row()).toMatchObject({ state: 'done', says: 'It stands.', worker: null, tries: 0 });
});

test('one that is let go is another’s at once, and that it was begun does not count', async () => {
  await (await one.begin(step))!.letGo();
  expect(await row()).toMatchObject({ state: 'waiting', worker: null, tries: 0 });
  expect((await two.begin(step))!.tries).toBe(1);
});

test('one that its worker cannot even let go of is another’s when its lease has ended', async () => {
  const claim = await one.begin(step);
  away = true;
  await expect(claim!.letGo()).rejects.toThrow('away');
  away = false;
  await seconds(2 * LEASE);
  const taken = await two.begin(step);
  expect(taken!.tries).toBe(2);
  // What the first has to say of it by now is not heard.
  await claim!.end({ state: 'failed', says: 'Too late.' });
  expect(await row()).toMatchObject({ state: 'working', says: null });
  await taken!.end({ state: 'done' });
});
