import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import Papa from 'papaparse';
import { readBlock } from './read-block';

test('rows are lines and cells stand between tabs, whatever line ends the spreadsheet writes', () => {
  expect(readBlock('a\tb\nc\td\n')).toEqual([
    ['a', 'b'],
    ['c', 'd'],
  ]);
  expect(readBlock('a\tb\r\nc\t\r\n')).toEqual([
    ['a', 'b'],
    ['c', ''],
  ]);
});

test('one cell is a text and no block', () => {
  expect([readBlock('only'), readBlock('only\n'), readBlock('')]).toEqual([null, null, null]);
});

test('a quoted value keeps its line breaks; a measure in inches keeps its mark', () => {
  expect(readBlock('"two\nlines"\tb')).toEqual([['two\nlines', 'b']]);
  expect(readBlock('pot, 12"\t6"\nx\ty')).toEqual([
    ['pot, 12"', '6"'],
    ['x', 'y'],
  ]);
});

test('what a spreadsheet writes is read back', () => {
  const cell = fc.string({ unit: fc.constantFrom('a', '"', '\t', '\n', ' ', 'ü'), maxLength: 5 });
  fc.assert(
    fc.property(
      fc
        .integer({ min: 2, max: 4 })
        .chain((n) =>
          fc.array(fc.array(cell, { minLength: n, maxLength: n }), { minLength: 1, maxLength: 5 }),
        ),
      (rows) => {
        const written = Papa.unparse(rows, { delimiter: '\t', newline: '\n', quotes: true });
        expect(readBlock(written)).toEqual(rows);
      },
    ),
  );
});
