import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { testServer, until } from '../test-server';

/** Cutouts whose worker dies, whose job is lost, or that end whoever begins them: none waits for ever. */
const server = testServer();
const { call, end, startWorker } = server;

const bytes = readFileSync(join(__dirname, '../../../../demo/assets/products/trowel.jpg'));
const take = async (name: string) =>
  (await call('POST', `/api/photos?name=${name}`, bytes)).body.id as string;
const photo = async (id: string) => (await call('GET', `/api/photos/${id}`)).body;
const reaches = (id: string, state: string, seconds = 90) =>
  until(
    () => photo(id),
    (p) => p.cutoutState === state,
    seconds,
  );

async function rows(text: string, ...values: unknown[]): Promise<unknown[]> {
  const database = new pg.Client({ connectionString: server.url() });
  await database.connect();
  const found = await database.query(text, values);
  await database.end();
  return found.rows;
}

test('a killed worker’s cutout is taken up by another when its lease has ended', async () => {
  const first = (await startWorker()).child;
  const id = await take('killed.jpg');
  await reaches(id, 'working');
  await end(first, 'SIGKILL');
  expect((await photo(id)).cutoutState).toBe('working');
  const second = (await startWorker()).child;
  // Its job would be offered again after five minutes.
  const done = await reaches(id, 'done');
  expect(done.cutout.picture).toMatch(/^[0-9a-f]{64}$/);
  await end(second, 'SIGTERM');
});

test('a photo that waits without a job is found; one that ends its workers is given up, and can be tried again', async () => {
  const [lost, deadly] = [await take('lost.jpg'), await take('deadly.jpg')];
  await rows(`delete from pgboss.job where data ->> 'photoId' = $1`, lost);
  // As three workers left it that did not live to its end.
  await rows(
    `update photos set cutout_tries = 3, cutout_state = 'working', cutout_lease = now() - interval '1 s' where id = $1`,
    deadly,
  );
  const worker = (await startWorker()).child;
  await reaches(lost, 'done');
  const given = await reaches(deadly, 'failed');
  expect(given.cutoutError).toMatch(/^It could not be cut out, though it was tried three times[.] Try again/);
  await call('POST', '/api/photos/cutouts', { ids: [deadly] });
  await reaches(deadly, 'done');
  await end(worker, 'SIGTERM');
});

test('a worker that is told to end hands back what it is at, and that counts as no try', async () => {
  const first = (await startWorker()).child;
  const id = await take('handed-back.jpg');
  await reaches(id, 'working');
  await end(first, 'SIGTERM');
  expect((await photo(id)).cutoutState).toBe('waiting');
  expect(await rows('select cutout_tries, cutout_claim from photos where id = $1', id)).toEqual([
    { cutout_tries: 0, cutout_claim: null },
  ]);
  const second = (await startWorker()).child;
  await reaches(id, 'done');
  await end(second, 'SIGTERM');
});

test('what a worker has made of a photo that was changed meanwhile is not kept', async () => {
  const worker = (await startWorker()).child;
  const id = await take('changed.jpg');
  await reaches(id, 'working');
  const { revision, recipe, history } = (await call('GET', `/api/photos/${id}/desk`)).body;
  const tidy = { ...recipe.tidy, exposure: 1 };
  const saved = await call('PUT', `/api/photos/${id}/recipe`, {
    revision,
    recipe: { ...recipe, tidy },
    history,
  });
  expect(saved.status).toBe(200);
  await call('POST', '/api/photos/cutouts', { ids: [id] });
  expect((await reaches(id, 'done')).inUse).toBe(true);
  await end(worker, 'SIGTERM');
});
