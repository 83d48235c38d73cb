import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyPatches } from 'immer';
import { difference } from './difference';

const element = fc.record({
  id: fc.constantFrom('a', 'b', 'c', 'd'),
  box: fc.record({ x: fc.integer({ min: 0, max: 9 }), y: fc.integer({ min: 0, max: 9 }) }),
  text: fc.option(fc.constantFrom('one', 'two'), { nil: null }),
  points: fc.array(fc.tuple(fc.nat(5), fc.nat(5)), { maxLength: 3 }),
});
const document = fc.record(
  {
    frame: fc.record({ width: fc.nat(20) }),
    elements: fc.array(element, { maxLength: 4 }),
    fits: fc.dictionary(fc.constantFrom('k', 'l'), fc.record({ opacity: fc.nat(3) })),
    note: fc.string({ maxLength: 3 }),
  },
  { requiredKeys: ['frame', 'elements', 'fits'] },
);

test('the patches lead from one document to the other and back, whatever they are', () => {
  fc.assert(
    fc.property(document, document, (before, after) => {
      const [forward, inverse] = difference(before, after);
      expect(applyPatches(before, forward)).toEqual(after);
      expect(applyPatches(after, inverse)).toEqual(before);
    }),
    { numRuns: 1000 },
  );
});

test('a document is no different from its copy, and the patches of a small change are small', () => {
  fc.assert(
    fc.property(document, (before) => {
      expect(difference(before, structuredClone(before))[0]).toEqual([]);
    }),
  );
  const before = {
    elements: Array.from({ length: 200 }, (_, i) => ({
      id: `e${i}`,
      box: { x: i, y: 0 },
      text: 'long '.repeat(50),
    })),
  };
  const after = structuredClone(before);
  after.elements[120].box.x = 7;
  const [forward] = difference(before, after);
  expect(forward).toEqual([{ op: 'replace', path: ['elements', 120, 'box', 'x'], value: 7 }]);
});
