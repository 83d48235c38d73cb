import { expect, test } from '@jest/globals';
import { NO_EFFECTS } from '@scenograph/core/raster/effects';
import pg from 'pg';
import sharp from 'sharp';
import { testServer } from './test-server';

const server = testServer();
const { call } = server;
const NOWHERE = '99999999-9999-4999-8999-999999999999';

const listed = async (path: string) => (await call('GET', path)).body as { id: string; title: string }[];
/** Removes something, holds that it is gone, brings it back, and gives both states. */
async function thereAndBack(path: string, id: string) {
  const before = (await call('GET', path)).body as unknown;
  expect((await call('DELETE', `${path}/${id}`)).body).toMatchObject({ removed: id });
  expect((await listed(path)).some((x) => x.id === id)).toBe(false);
  const back = await call('POST', `/api/bin/${id}/restore`);
  expect(back).toMatchObject({ status: 200, body: { restored: id } });
  return { before, after: (await call('GET', path)).body as unknown };
}

test('a scene, a recipe, effects and a template come back as they were, in their places', async () => {
  const [scene] = await listed('/api/scenes');
  const effects = await call('POST', '/api/effects', { title: 'Soft', effects: NO_EFFECTS });
  const recipe = await call('POST', '/api/recipes', {
    title: 'Night run',
    steps: [{ id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] }],
  });
  const shot = await demoShot();
  const template = await call('POST', '/api/templates', {
    title: 'Ours',
    purpose: null,
    season: null,
    document: shot.document,
  });
  for (const [path, id] of [
    ['/api/scenes', scene.id],
    ['/api/effects', effects.body.id],
    ['/api/recipes', recipe.body.id],
    ['/api/templates', template.body.id],
  ]) {
    const { before, after } = await thereAndBack(path, id as string);
    expect(after).toEqual(before);
  }
});

async function demoShot() {
  const [listing] = await listed('/api/listings');
  return (await call('GET', `/api/listings/${listing.id}`)).body.shots[0] as {
    id: string;
    listingId: string;
    document: object;
    feeds: string[];
  };
}

test('a photo comes back with its outlines, and its variant shows it again', async () => {
  const { products } = (await call('GET', '/api/products')).body as {
    products: { id: string; variants: { id: string; photoId: string | null; data: { cutout: unknown } }[] }[];
  };
  const product = products.find((p) => p.variants.some((v) => v.photoId))!;
  const variant = product.variants.find((v) => v.photoId)!;
  const read = async () =>
    (await call('GET', `/api/products/${product.id}`)).body.variants.find(
      (v: { id: string }) => v.id === variant.id,
    );
  const { before, after } = await thereAndBack('/api/photos', variant.photoId!);
  expect(after).toEqual(before);
  expect(await read()).toEqual(variant);
});

test('a variant that was given another photo meanwhile keeps that one', async () => {
  const photos = await listed('/api/photos');
  const { products } = (await call('GET', '/api/products')).body as {
    products: { variants: { id: string; photoId: string | null }[] }[];
  };
  const variant = products.flatMap((p) => p.variants).find((v) => v.photoId)!;
  const other = photos.find((p) => p.id !== variant.photoId)!;
  await call('DELETE', `/api/photos/${variant.photoId}`);
  await call('PATCH', `/api/variants/${variant.id}`, { photoId: other.id });
  await call('POST', `/api/bin/${variant.photoId}/restore`);
  expect((await call('PATCH', `/api/variants/${variant.id}`, { title: 'Same' })).body.photoId).toBe(other.id);
});

test('a shot comes back with its history, what it fills and the cells that it was given', async () => {
  const shot = await demoShot();
  const detail = async () => (await call('GET', `/api/listings/${shot.listingId}`)).body;
  const { variants, sheets } = await detail();
  const slotKey = `${sheets[0].id}/${sheets[0].slots.at(-1).id}`;
  const cells = [{ variantId: variants[0].id, slotKey }];
  await call('PUT', `/api/listings/${shot.listingId}/cells`, { cells, shotId: shot.id });
  const before = await detail();
  const whole = (await call('GET', `/api/shots/${shot.id}`)).body;
  await call('DELETE', `/api/shots/${shot.id}`);
  expect((await call('GET', `/api/shots/${shot.id}`)).status).toBe(404);
  expect((await detail()).cellFeeds).not.toEqual(before.cellFeeds);
  await call('POST', `/api/bin/${shot.id}/restore`);
  expect(await detail()).toEqual(before);
  expect((await call('GET', `/api/shots/${shot.id}`)).body).toEqual(whole);
});

test('a kept outline is removed from its own photo alone, and comes back', async () => {
  const [photo, other] = (await call('GET', '/api/photos')).body as {
    id: string;
    width: number;
    height: number;
  }[];
  const png = await sharp({
    create: { width: photo.width, height: photo.height, channels: 3, background: '#ffffff' },
  })
    .png()
    .toBuffer();
  const outlines = async () => (await call('GET', `/api/photos/${photo.id}/desk`)).body.outlines as object[];
  const others = await outlines();
  const kept = (await call('POST', `/api/photos/${photo.id}/outlines?name=o.png&title=Whole`, png)).body;
  expect((await call('DELETE', `/api/photos/${other.id}/outlines/${kept.id}`)).status).toBe(404);
  expect(await outlines()).toEqual([kept, ...others]);
  await call('DELETE', `/api/photos/${photo.id}/outlines/${kept.id}`);
  expect(await outlines()).toEqual(others);
  await call('POST', `/api/bin/${kept.id}/restore`);
  expect(await outlines()).toEqual([kept, ...others]);
});

test('what was brought back once, or was never removed, says that it is not kept', async () => {
  const [scene] = await listed('/api/scenes');
  await call('DELETE', `/api/scenes/${scene.id}`);
  await call('POST', `/api/bin/${scene.id}/restore`);
  for (const id of [scene.id, NOWHERE]) {
    const again = await call('POST', `/api/bin/${id}/restore`);
    expect(again.status).toBe(404);
    expect(again.body.message).toBe('This is not kept any more, so it cannot be brought back.');
  }
});

test('a spec sheet comes back with every version of it', async () => {
  const [sheet] = (await call('GET', '/api/spec-sheets')).body as { marketplace: string }[];
  const made = (await call('POST', '/api/spec-sheets', { ...sheet, marketplace: 'Own Market' })).body;
  const path = `/api/spec-sheets/${made.id}`;
  await call('PUT', path, { version: made.version, sheet: { ...made, about: 'Second' } });
  const whole = (await call('GET', path)).body;
  expect(whole.versions).toHaveLength(2);
  expect((await call('DELETE', path)).body).toEqual({ removed: made.id });
  expect((await call('GET', path)).status).toBe(404);
  const back = await call('POST', `/api/bin/${made.id}/restore`);
  expect(back.body).toEqual({ restored: made.id, kind: 'spec sheet' });
  expect((await call('GET', path)).body).toEqual(whole);
});

test('what is not there cannot be removed, and leaves nothing behind', async () => {
  for (const path of ['photos', 'scenes', 'recipes', 'templates', 'artwork', 'effects', 'shots']) {
    const gone = await call('DELETE', `/api/${path}/${NOWHERE}`);
    expect({ path, status: gone.status }).toEqual({ path, status: 404 });
    expect(gone.body.message).toMatch(/is not here/);
  }
});

test('what belonged to something that is gone says so, and stays kept', async () => {
  const shot = await demoShot();
  await call('DELETE', `/api/shots/${shot.id}`);
  const client = new pg.Client({ connectionString: server.url() });
  await client.connect();
  const asIf = (to: string) =>
    client.query(
      `update bin set rows = jsonb_set(rows, '{0,rows,0,listing_id}', to_jsonb($1::text)) where id = $2`,
      [to, shot.id],
    );
  await asIf(NOWHERE);
  const refused = await call('POST', `/api/bin/${shot.id}/restore`);
  expect(refused.status).toBe(409);
  expect(refused.body.message).toMatch(/what it belonged to was removed meanwhile/);
  await asIf(shot.listingId);
  expect((await call('POST', `/api/bin/${shot.id}/restore`)).status).toBe(200);
  await client.end();
});

test('what was removed long ago is forgotten when something else is removed', async () => {
  const [first, second] = await listed('/api/scenes');
  await call('DELETE', `/api/scenes/${first.id}`);
  const client = new pg.Client({ connectionString: server.url() });
  await client.connect();
  await client.query(`update bin set created_at = now() - interval '31 days' where id = $1`, [first.id]);
  await client.end();
  await call('DELETE', `/api/scenes/${second.id}`);
  expect((await call('POST', `/api/bin/${first.id}/restore`)).status).toBe(404);
  expect((await call('POST', `/api/bin/${second.id}/restore`)).status).toBe(200);
});
