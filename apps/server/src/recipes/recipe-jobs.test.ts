import { expect, test } from '@jest/globals';
import pg from 'pg';
import { testServer, until } from '../test-server';

/** Recipes whose worker dies, is told to end, or whose job is lost: each run goes on, and nothing is made twice. */
const server = testServer();
const { call, end, startWorker } = server;

async function rows<T>(text: string, ...values: unknown[]): Promise<T[]> {
  const database = new pg.Client({ connectionString: server.url() });
  await database.connect();
  const found = await database.query(text, values);
  await database.end();
  return found.rows as T[];
}

const steps = [
  { id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] },
  { id: 'white', kind: 'white', title: 'White', after: ['cut'] },
];

/** A recipe that waits for a cutout, run for a product with one photo. */
async function waiting(): Promise<{ id: string; productId: string; photoId: string }> {
  const { products } = (await call('GET', '/api/products')).body;
  const product = products.find((p: { variants: { photoId: string | null }[] }) => p.variants[0]?.photoId);
  const { photoId } = product.variants[0];
  // Its cutout is said to be under way, so that the recipe waits until it is told otherwise.
  await rows(
    `update photos set cutout_state = 'working', cutout_lease = now() + interval '1 h' where id = $1`,
    photoId,
  );
  const { id } = (await call('POST', '/api/recipes', { title: 'On white', steps })).body;
  await call('POST', `/api/recipes/${id}/run`, { productIds: [product.id] });
  return { id, productId: product.id, photoId };
}

const results = async (id: string) => (await call('GET', `/api/recipes/${id}`)).body.products[0].steps;
const reaches = (id: string, step: string, state: string) =>
  until(
    () => results(id),
    (s) => s[step].state === state,
    30,
  );
const cutoutIsDone = (photoId: string) =>
  rows(`update photos set cutout_state = 'done', cutout_lease = null where id = $1`, photoId);
const shotsMade = (id: string) => rows('select id, document from shots where made_by = $1', `${id}/white`);

test('a recipe goes on in another worker when its own is killed, and makes its shot once', async () => {
  const first = (await startWorker()).child;
  const { id, photoId } = await waiting();
  await reaches(id, 'cut', 'working');
  await end(first, 'SIGKILL');
  const second = (await startWorker()).child;
  await cutoutIsDone(photoId);
  await reaches(id, 'white', 'done');
  expect(await shotsMade(id)).toHaveLength(1);
  // As a worker left it that died after the shot was made and before that was written down.
  await rows(
    `update recipe_results set state = 'working', lease_until = now(), worker = null, tries = 1 where recipe_id = $1 and step = 'white'`,
    id,
  );
  await reaches(id, 'white', 'done');
  expect(await shotsMade(id)).toHaveLength(1);
  await end(second, 'SIGTERM');
});

test('a worker that is told to end hands its recipe back; a lost job is found; what ends its workers is given up', async () => {
  const first = (await startWorker()).child;
  const { id, photoId } = await waiting();
  await reaches(id, 'cut', 'working');
  await end(first, 'SIGTERM');
  expect((await results(id)).cut.state).toBe('waiting');
  await rows(`delete from pgboss.job where data ->> 'recipeId' = $1`, id);
  await rows(`update recipe_results set updated_at = now() - interval '1 min' where recipe_id = $1`, id);
  await cutoutIsDone(photoId);
  const second = (await startWorker()).child;
  await reaches(id, 'white', 'done');
  await rows(
    `update recipe_results set state = 'working', lease_until = now(), tries = 3 where recipe_id = $1 and step = 'white'`,
    id,
  );
  expect((await reaches(id, 'white', 'failed')).white.says).toMatch(/^It was tried three times/);
  await end(second, 'SIGTERM');
});
