import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CELL_STATES, DIFFERENCES, FILTERS } from './cell-state';
import { between, cellAt, placeOf, withCells } from './choice';

const place = fc.tuple(fc.nat(40), fc.nat(40));

test('a cell’s name and place stand for each other', () => {
  fc.assert(fc.property(place, ([r, c]) => expect(placeOf(cellAt(r, c))).toEqual([r, c])));
});

test('a range holds every cell between its corners once, whichever corner comes first', () => {
  fc.assert(
    fc.property(place, place, (a, b) => {
      const cells = between(a, b);
      const size = (Math.abs(a[0] - b[0]) + 1) * (Math.abs(a[1] - b[1]) + 1);
      expect(cells).toHaveLength(size);
      expect(new Set(cells).size).toBe(size);
      expect(new Set(between(b, a))).toEqual(new Set(cells));
      expect(cells).toContain(cellAt(...a));
    }),
  );
});

test('cells are chosen anew, added, and let go where all of them were chosen', () => {
  const first = withCells(new Set(), between([0, 0], [1, 1]), false);
  expect(first.size).toBe(4);
  const more = withCells(first, between([1, 1], [2, 2]), true);
  expect(more.size).toBe(7);
  expect(withCells(more, between([1, 1], [2, 2]), true)).toEqual(new Set(['0:0', '0:1', '1:0']));
  expect(withCells(more, ['5:5'], false)).toEqual(new Set(['5:5']));
  expect(more.size).toBe(7);
});

test('every state of a cell can be found by one filter, and every difference has words', () => {
  for (const letter of Object.keys(CELL_STATES).filter((l) => l !== 'w'))
    expect(FILTERS.filter((f) => f.letters.includes(letter))).toHaveLength(1);
  expect(FILTERS.flatMap((f) => [...(f.differs ?? '')]).sort()).toEqual(Object.keys(DIFFERENCES).sort());
});
