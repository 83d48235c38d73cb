import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { differences, turned, withPieces, type Pieces } from './pieces';

const keys = ['title', 'price', 'cell:a', 'cell:b', '__proto__', 'constructor'];
const value = fc.oneof(fc.integer({ min: 0, max: 3 }), fc.constant(null), fc.constant(['a']));
const pieces = fc
  .uniqueArray(fc.tuple(fc.constantFrom(...keys), value), { selector: ([key]) => key })
  .map((list) => Object.fromEntries(list) as Pieces);

test('what differs, put in place, makes the one of the other', () => {
  fc.assert(
    fc.property(pieces, pieces, (before, after) => {
      const step = differences(before, after);
      const done = withPieces(
        before,
        step.map((p) => [p.key, p.after]),
      );
      expect(differences(done, after)).toEqual([]);
    }),
  );
});

test('a step that nobody touched since is taken back whole, and done again whole', () => {
  fc.assert(
    fc.property(pieces, pieces, (before, after) => {
      const step = differences(before, after);
      const back = turned(after, step, 'undo');
      expect([differences(back.next, before), back.left]).toEqual([[], 0]);
      const again = turned(back.next, step, 'redo');
      expect([differences(again.next, after), again.left]).toEqual([[], 0]);
    }),
  );
});

test('taking a step back never changes what somebody else has changed since', () => {
  fc.assert(
    fc.property(pieces, pieces, pieces, (before, after, theirs) => {
      const step = differences(before, after);
      const since = new Set(differences(after, theirs).map((p) => p.key));
      const { next, left } = turned(theirs, step, 'undo');
      const changed = differences(theirs, next).map((p) => p.key);
      expect(changed.filter((key) => since.has(key))).toEqual([]);
      expect(left).toBe(step.filter((p) => since.has(p.key)).length);
    }),
  );
});
