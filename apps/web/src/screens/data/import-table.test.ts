import { expect, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import type { ImportPlan } from '@scenograph/core/table/plan-import';
import { server } from '../../../test/server';
import type { Artwork, Photo, Variant } from '../../api/client';
import { contextOf, importPictures, storeTable } from './import-table';

const photos = [{ id: 'p1', name: 'teal.jpg' }] as Photo[];
const artworks = [{ id: 'a1', title: 'Fern' }] as Artwork[];
const variant = {
  id: 'v1',
  photoId: 'p1',
  artworkId: 'gone',
  data: { sku: 'MB-1', variant: 'Teal', price: 24.5, currency: 'GBP', ink: undefined, fields: undefined },
} as unknown as Variant;

test('variants are compared as rows, with photos and artwork by name', () => {
  expect(contextOf([variant], photos, artworks, ['b.png'])).toEqual({
    variants: new Map([
      [
        'MB-1',
        {
          id: 'v1',
          row: {
            sku: 'MB-1',
            title: 'Teal',
            price: 24.5,
            currency: 'GBP',
            photo: 'teal.jpg',
            artwork: null,
            ink: null,
            fields: {},
          },
        },
      ],
    ]),
    photos: ['teal.jpg'],
    artworks: ['Fern'],
    pictures: ['b.png'],
  });
});

const pictures = new Map(
  ['set/a.png', 'b.png'].map((n) => [n, () => Promise.resolve(new Blob([n]))] as const),
);

test('pictures are imported by their file name alone, and found again by the name in the table', async () => {
  const taken: string[] = [];
  server.use(
    http.post('*/api/photos', ({ request }) => {
      const name = new URL(request.url).searchParams.get('name')!;
      taken.push(name);
      return HttpResponse.json({ id: `id of ${name}` });
    }),
  );
  const says: string[] = [];
  const ids = await importPictures(['set/a.png', 'b.png'], pictures, new AbortController().signal, (p) =>
    says.push(p.says),
  );
  expect(taken).toEqual(['a.png', 'b.png']);
  expect(ids).toEqual(
    new Map([
      ['set/a.png', 'id of a.png'],
      ['b.png', 'id of b.png'],
    ]),
  );
  expect(says).toEqual(['set/a.png (1 of 2)', 'b.png (2 of 2)']);
});

test('an import that is stopped says what was imported and what was not', async () => {
  const stop = new AbortController();
  let taken = 0;
  server.use(
    http.post('*/api/photos', () => {
      // During the last picture too: the table is not stored then.
      if (++taken === 2) stop.abort();
      return HttpResponse.json({ id: 'x' });
    }),
  );
  const importing = importPictures(['set/a.png', 'b.png'], pictures, stop.signal, () => undefined);
  await expect(importing).rejects.toThrow(/Stopped/);
});

test('a table is stored as one step: changes by id, new rows by SKU, pictures and artwork by theirs', async () => {
  let body: unknown;
  server.use(
    http.post('*/api/products/:id/variants/batch', async ({ request }) => {
      body = await request.json();
      return HttpResponse.json({});
    }),
  );
  const plan = {
    changes: [
      { id: 'v1', sku: 'MB-1', set: { price: 5, photo: 'b.png', artwork: null } },
      { id: null, sku: 'MB-2', set: { title: 'Moss', artwork: 'Fern' } },
    ],
  } as unknown as ImportPlan;
  await storeTable('p', 'prices.csv', plan, new Map([['b.png', 'p2']]), new Map([['Fern', 'a1']]));
  expect(body).toEqual({
    label: 'Import prices.csv',
    set: [{ id: 'v1', patch: { price: 5, photoId: 'p2', artworkId: null } }],
    add: [{ sku: 'MB-2', title: 'Moss', artworkId: 'a1' }],
  });
});
