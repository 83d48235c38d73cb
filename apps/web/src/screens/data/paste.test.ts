import { expect, test } from '@jest/globals';
import type { Photo, Variant } from '../../api/client';
import { columnsOf } from './columns';
import { pastedBlock } from './paste';

const variant = (id: string, fields: Record<string, string> = {}) =>
  ({
    id,
    photoId: null,
    artworkId: null,
    data: { sku: `MB-${id}`, variant: id, price: 1, currency: 'GBP', ink: null, fields },
  }) as unknown as Variant;
const variants = [variant('a', { care: 'Wipe' }), variant('b'), variant('c')];
const columns = columnsOf(['care', 'was'], [{ id: 'p1', name: 'teal.jpg' }] as Photo[], []);
const at = (row: number, id: string) => ({ row, column: columns.findIndex((c) => c.id === id) });
const paste = (text: string, row: number, id: string) => pastedBlock(text, variants, columns, at(row, id));

test('a block fills the cells from the one it is pasted in', () => {
  expect(paste('12.50\tEUR\n13\tgbp', 1, 'price')).toEqual({
    label: 'Paste 2 x 2 values',
    set: [
      { id: 'b', patch: { price: 12.5, currency: 'EUR' } },
      { id: 'c', patch: { price: 13, currency: 'GBP' } },
    ],
  });
});

test('several fields of one variant are changed together, and its other fields stay', () => {
  expect(paste('Rinse\t30', 0, 'field-care')).toMatchObject({
    set: [{ id: 'a', patch: { fields: { care: 'Rinse', was: '30' } } }],
  });
  expect(paste('\t30', 0, 'field-care')).toMatchObject({ set: [{ patch: { fields: { was: '30' } } }] });
});

test('a block that does not fit, or holds a value that cannot be, changes nothing and says which', () => {
  expect(paste('1\n2\n3', 1, 'price')).toBe('The block has 3 rows; only 2 are left from here.');
  expect(paste('1\n2', 2, 'price')).toBe('The block has 2 rows; only 1 is left from here.');
  expect(paste('a\tb\tc', 0, 'field-care')).toMatch(/wider than the columns/);
  expect(paste('12\nmany', 0, 'price')).toMatch(/^Row 2 of the block: "many" is no price/);
  expect(paste('teal.jpg\nmoss.jpg', 0, 'photo')).toMatch(/^Row 2 .*no photo "moss.jpg"/);
});

test('a single value is left to the field', () => {
  expect(paste('12', 0, 'price')).toBeNull();
});
