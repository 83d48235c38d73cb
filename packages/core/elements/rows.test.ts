import fc from 'fast-check';
import { bestRows, type Row } from './rows';

/** As if every letter were half as wide as it is high: how large rows can be in a box, wide for its height by `shape`. */
const inBox =
  (shape: number) =>
  (rows: Row[]): number => {
    const longest = Math.max(...rows.map((r) => r.parts[0].text.length));
    return Math.min(shape / (longest / 2), 1 / rows.length);
  };
const lines = (rows: Row[]) => rows.map((r) => r.parts.map((p) => p.text).join(''));

test('words stay on one line where it is wide, and are broken where it is not', () => {
  expect(lines(bestRows('Season’s end', 'serif', 1, inBox(20)))).toEqual(['Season’s end']);
  expect(lines(bestRows('Season’s end', 'serif', 1, inBox(1)))).toEqual(['Season’s', 'end']);
});

test('lines are about as long as each other', () => {
  const rows = lines(bestRows('one two three four five six', 'serif', 1, inBox(2)));
  expect(rows.length).toBeGreaterThan(1);
  const lengths = rows.map((r) => r.length);
  expect(Math.max(...lengths) - Math.min(...lengths)).toBeLessThanOrEqual(6);
});

test('breaks that somebody wrote are kept, whatever would be larger', () => {
  expect(lines(bestRows('a\nvery long second line\nc', 'serif', 1, inBox(1)))).toEqual([
    'a',
    'very long second line',
    'c',
  ]);
});

const words = fc.array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 1, maxLength: 9 });

test('no word is lost, moved or cut, and there are at most four lines', () => {
  fc.assert(
    fc.property(words, fc.double({ min: 0.3, max: 12, noNaN: true }), (list, shape) => {
      const rows = lines(bestRows(list.join(' '), 'serif', 1, inBox(shape)));
      expect(rows.join(' ')).toBe(list.join(' '));
      expect(rows.length).toBeLessThanOrEqual(4);
    }),
  );
});

test('never smaller than on one line', () => {
  fc.assert(
    fc.property(words, fc.double({ min: 0.3, max: 12, noNaN: true }), (list, shape) => {
      const text = list.join(' ');
      const one: Row[] = [{ parts: [{ text, font: 'serif', scale: 1 }], gap: 0 }];
      expect(inBox(shape)(bestRows(text, 'serif', 1, inBox(shape)))).toBeGreaterThanOrEqual(
        inBox(shape)(one),
      );
    }),
  );
});

test('a line more must be worth it: a gain of a few hundredths breaks nothing', () => {
  const barely = (rows: Row[]) => 1 + (rows.length - 1) * 0.03;
  expect(bestRows('one two', 'serif', 1, barely)).toHaveLength(1);
  const clearly = (rows: Row[]) => 1 + (rows.length - 1) * 0.1;
  expect(bestRows('one two', 'serif', 1, clearly)).toHaveLength(2);
});

test('gaps follow the size of the words', () => {
  const [, second] = bestRows('one two', 'serif', 0.5, (rows) => rows.length);
  expect(second.gap).toBeCloseTo(0.16, 9);
  expect(second.parts[0].scale).toBe(0.5);
});
