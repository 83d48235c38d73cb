import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Slot } from '@scenograph/core/spec/slot';
import { moved, withCopy, withNew } from './slots';

const slot = (id: string, value: Partial<Slot> = {}) =>
  ({ id, title: id, count: 3, width: 900, ...value }) as Slot;
const ids = (slots: readonly Slot[]) => slots.map((s) => s.id);

test('a new slot has the rules of another, an id of its own and stands once', () => {
  const [, made] = withNew([slot('main')], slot('main', { width: 1200 }));
  expect(made).toMatchObject({ id: 'slot-2', title: 'New slot', width: 1200, count: 1 });
});

test('copies of copies count on', () => {
  const first = slot('view');
  const two = withCopy([first], first);
  const three = withCopy(two, two[1]);
  expect(ids(three)).toEqual(['view', 'view-2', 'view-3']);
  expect(three[1].title).toBe('view, copy');
});

test('ids stay different however often slots are made and copied', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(9), { maxLength: 12 }), (picks) => {
      let slots: Slot[] = [slot('main'), slot('view-2')];
      for (const pick of picks)
        slots = pick % 2 ? withCopy(slots, slots[pick % slots.length]) : withNew(slots, slots[0]);
      expect(new Set(ids(slots)).size).toBe(slots.length);
    }),
  );
});

test('a slot moves by its places, and stays where there is none', () => {
  const slots = ['a', 'b', 'c'].map((id) => slot(id));
  expect(ids(moved(slots, 0, 1))).toEqual(['b', 'a', 'c']);
  expect(ids(moved(slots, 0, -1))).toEqual(['a', 'b', 'c']);
  expect(ids(moved(slots, 2, 1))).toEqual(['a', 'b', 'c']);
  expect(ids(slots)).toEqual(['a', 'b', 'c']);
});
