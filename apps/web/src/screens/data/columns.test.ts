import { describe, expect, test } from '@jest/globals';
import type { Artwork, Photo, Variant } from '../../api/client';
import { columnsOf } from './columns';

const photos = [
  { id: 'p1', name: 'Teal front.jpg' },
  { id: 'p2', name: 'moss.png' },
] as Photo[];
const artworks = [{ id: 'a1', title: 'Fern' }] as Artwork[];
const variant = {
  id: 'v',
  photoId: 'p1',
  artworkId: null,
  data: {
    sku: 'MB-1',
    variant: 'Teal',
    price: 24.5,
    currency: 'GBP',
    ink: null,
    fields: { was: '30', care: 'Wipe' },
  },
} as unknown as Variant;
const columns = columnsOf(['care', 'was'], photos, artworks);
const column = (id: string) => columns.find((c) => c.id === id)!;
const read = (id: string, text: string) => column(id).read(text, variant);

test('columns are those of every product, then its own fields in order', () => {
  expect(columns.map((c) => c.id)).toEqual([
    'sku',
    'title',
    'price',
    'currency',
    'photo',
    'artwork',
    'ink',
    'field-care',
    'field-was',
  ]);
  expect(columns.filter((c) => c.field).map((c) => c.title)).toEqual(['care', 'was']);
});

test('cells show what is there, and nothing where nothing is', () => {
  expect(columns.map((c) => c.text(variant))).toEqual([
    'MB-1',
    'Teal',
    '24.5',
    'GBP',
    'Teal front.jpg',
    '',
    '',
    'Wipe',
    '30',
  ]);
  const bare = {
    ...variant,
    photoId: 'gone',
    data: { ...variant.data, price: null, fields: undefined },
  } as Variant;
  expect([column('photo').text(bare), column('price').text(bare), column('field-was').text(bare)]).toEqual([
    '',
    '',
    '',
  ]);
});

test('what a cell shows is what it reads: nothing changes by entering and leaving it', () => {
  expect(columns.map((c) => c.read(c.text(variant), variant))).toEqual([
    { sku: 'MB-1' },
    { title: 'Teal' },
    { price: 24.5 },
    { currency: 'GBP' },
    { photoId: 'p1' },
    { artworkId: null },
    { ink: null },
    { fields: variant.data.fields },
    { fields: variant.data.fields },
  ]);
});

describe('written values', () => {
  test('prices and currencies are read as people write them, and refused with an example', () => {
    expect(read('price', '£1,234.50')).toEqual({ price: 1234.5 });
    expect(read('price', ' ')).toEqual({ price: null });
    expect(read('price', 'cheap')).toContain('12.50');
    expect(read('currency', ' eur ')).toEqual({ currency: 'EUR' });
    expect(read('currency', 'euro')).toContain('GBP');
  });

  test('photos and artwork are found by name, whatever its case, and emptied', () => {
    expect(read('photo', 'MOSS.PNG')).toEqual({ photoId: 'p2' });
    expect(read('photo', '')).toEqual({ photoId: null });
    expect(read('photo', 'rose.jpg')).toContain('no photo "rose.jpg"');
    expect(read('artwork', 'fern')).toEqual({ artworkId: 'a1' });
    expect(read('artwork', 'oak')).toContain('no artwork "oak"');
  });

  test('a SKU is needed, an ink is a colour', () => {
    expect(read('sku', '  ')).toBe('A variant needs a SKU.');
    expect(read('ink', '#12463A')).toEqual({ ink: '#12463a' });
    expect(read('ink', 'green')).toContain('#rrggbb');
  });

  test('a field keeps the others, and is taken away where it is emptied', () => {
    expect(read('field-was', '35')).toEqual({ fields: { was: '35', care: 'Wipe' } });
    expect(read('field-was', '')).toEqual({ fields: { care: 'Wipe' } });
  });
});
