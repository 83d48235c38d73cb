import { expect, test } from '@jest/globals';
import { testServer } from './test-server';

const server = testServer();
const { call } = server;
const NOWHERE = '99999999-9999-4999-8999-999999999999';

interface Product {
  id: string;
  title: string;
  heightMm: number | null;
  count: number;
  variants: { id: string; photoId: string | null; data: { sku: string; fields?: Record<string, string> } }[];
}
const all = async (query = '') =>
  (await call('GET', `/api/products${query}`)).body as { total: number; products: Product[] };
const productOf = async (title: string) => {
  const found = (await all()).products.find((p) => p.title.startsWith(title))!;
  return (await call('GET', `/api/products/${found.id}`)).body as Product & {
    edits: { undo: string | null; redo: string | null };
  };
};
const skus = (p: Product) => p.variants.map((v) => v.data.sku);

test('products are found by name and by SKU, whatever the letters’ case, and counted beyond the limit', async () => {
  const everything = await all();
  expect(everything.total).toBe(everything.products.length);
  const [some] = everything.products;
  const [{ data }] = some.variants;
  for (const words of [some.title.toUpperCase(), data.sku.toLowerCase()]) {
    const { products } = await all(`?search=${encodeURIComponent(words)}`);
    expect(products.map((p) => p.id)).toContain(some.id);
  }
  const { products, total } = await all('?limit=1');
  expect([products.length, total]).toEqual([1, everything.total]);
  expect((await all('?search=%25')).products).toEqual([]);
  expect((await all('?search=_')).products).toEqual([]);
});

test('sizes are positive, names are not empty, and what is refused changes nothing', async () => {
  const product = await productOf('Soil scoop');
  const path = `/api/products/${product.id}`;
  for (const [body, words] of [
    [{ heightMm: -3 }, /heightMm/],
    [{ heightMm: 0 }, /heightMm/],
    [{ heightMm: 1e9 }, /heightMm/],
    [{ title: '   ' }, /title/],
    [{ pose: 'lying' }, /pose/],
    [{ colour: 'red' }, /colour/],
    [{}, /at least|must/],
  ] as const) {
    const refused = await call('PATCH', path, body);
    expect({ body, status: refused.status }).toEqual({ body, status: 400 });
    expect(refused.body.message).toMatch(words);
  }
  expect(await productOf('Soil scoop')).toEqual(product);
  expect((await call('PATCH', path, { heightMm: 287.5 })).body.heightMm).toBe(287.5);
  expect((await call('PATCH', path, { heightMm: null })).body.heightMm).toBeNull();
  expect((await call('PATCH', `/api/products/${NOWHERE}`, { heightMm: 5 })).status).toBe(404);
});

test('a SKU is taken once in a product; another product may have it', async () => {
  const product = await productOf('Stoneware planter');
  const path = `/api/products/${product.id}`;
  const [first] = skus(product);
  const twice = await call('POST', `${path}/variants`, { sku: first });
  expect([twice.status, twice.body.message]).toEqual([422, expect.stringContaining(first)]);
  const made = await call('POST', `${path}/variants`, { sku: 'NEW-1', title: 'Fresh' });
  expect(made.body).toMatchObject({ sku: 'NEW-1', title: 'Fresh', price: null, currency: 'GBP' });
  const renamed = await call('PATCH', `/api/variants/${made.body.id}`, { sku: first });
  expect(renamed.status).toBe(422);
  const other = await productOf('Soil scoop');
  expect((await call('POST', `/api/products/${other.id}/variants`, { sku: 'NEW-1' })).status).toBe(201);
});

test('every change of a variant can be undone in turn, and a new change forgets what was undone', async () => {
  const product = await productOf('Soil scoop');
  const path = `/api/products/${product.id}`;
  const [variant] = product.variants;
  const price = async () =>
    ((await call('GET', path)).body.variants as { id: string; data: { price: number } }[]).find(
      (v) => v.id === variant.id,
    )!.data.price;
  const start = await price();
  await call('PATCH', `/api/variants/${variant.id}`, { price: 5 });
  await call('PATCH', `/api/variants/${variant.id}`, { price: 6 });
  const turn = async (way: string) =>
    (await call('POST', `${path}/turn`, { way })).body.label as string | null;
  expect(await turn('undo')).not.toBeNull();
  expect(await price()).toBe(5);
  await turn('undo');
  expect(await price()).toBe(start);
  await turn('redo');
  expect(await price()).toBe(5);
  await call('PATCH', `/api/variants/${variant.id}`, { price: 9 });
  expect((await productOf('Soil scoop')).edits.redo).toBeNull();
  expect(await turn('redo')).toBeNull();
  expect(await price()).toBe(9);
});

test('a batch is all or nothing: a variant of another product, or one that is gone, stops it whole', async () => {
  const scoop = await productOf('Soil scoop');
  const other = (await all()).products.find((p) => p.id !== scoop.id)!;
  const path = `/api/products/${scoop.id}/variants/batch`;
  const before = await productOf('Soil scoop');
  for (const id of [other.variants[0].id, NOWHERE]) {
    const refused = await call('POST', path, {
      label: 'Wrong',
      set: [
        { id: scoop.variants[0].id, patch: { price: 77 } },
        { id, patch: { price: 77 } },
      ],
    });
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.body.message).toMatch(/[.?]$/);
  }
  expect((await productOf('Soil scoop')).variants).toEqual(before.variants);
});

test('a variant names a photo that is there, and its data shows the cutout', async () => {
  const scoop = await productOf('Soil scoop');
  const photos = (await call('GET', '/api/photos')).body as { id: string; cutout: { picture: string } }[];
  const made = await call('POST', `/api/products/${scoop.id}/variants`, {
    sku: 'P-1',
    photoId: photos[0].id,
  });
  expect(made.status).toBe(201);
  const read = (await productOf('Soil scoop')).variants.find((v) => v.id === made.body.id)!;
  expect(read).toMatchObject({
    photoId: photos[0].id,
    data: { cutout: { picture: photos[0].cutout.picture } },
  });
  const nowhere = await call('POST', `/api/products/${scoop.id}/variants`, { sku: 'P-2', photoId: NOWHERE });
  expect(nowhere.status).toBeGreaterThanOrEqual(400);
  expect(nowhere.status).toBeLessThan(500);
});

test('a table of the variants is a file that a spreadsheet cannot be tricked by', async () => {
  const scoop = await productOf('Soil scoop');
  await call('POST', `/api/products/${scoop.id}/variants`, {
    sku: 'T-1',
    title: '@SUM(A1)',
    fields: { note: 'a,"b"\nc' },
  });
  const answer = await fetch(`${server.base()}/api/products/${scoop.id}/table.csv`);
  expect(answer.headers.get('content-type')).toMatch(/^text\/csv/);
  expect(answer.headers.get('content-disposition')).toMatch(/attachment/);
  const text = await answer.text();
  expect(text).toContain(`T-1,'@SUM(A1)`);
  expect(text).toContain('"a,""b""\nc"');
});
