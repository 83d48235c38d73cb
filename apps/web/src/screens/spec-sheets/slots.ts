import type { Slot } from '@scenograph/core/spec/slot';
import { msg } from '../../language/language';

/** An id like `stem` that no slot has yet. */
function freeId(slots: readonly Slot[], stem: string): string {
  const taken = new Set(slots.map((s) => s.id));
  let n = 2;
  while (taken.has(`${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}

/** With a new slot at the end, its rules those of `like`. */
export const withNew = (slots: readonly Slot[], like: Slot): Slot[] => [
  ...slots,
  { ...like, id: freeId(slots, 'slot'), title: msg('New slot'), count: 1 },
];

/** With a copy of a slot at the end. */
export const withCopy = (slots: readonly Slot[], slot: Slot): Slot[] => [
  ...slots,
  {
    ...slot,
    id: freeId(slots, slot.id.replace(/-\d+$/, '')),
    title: msg('{slot}, copy', { slot: slot.title }),
  },
];

/** With the slot at a place moved by so many; as they were where there is no such place. */
export function moved(slots: readonly Slot[], at: number, by: number): Slot[] {
  const next = [...slots];
  const to = at + by;
  if (to < 0 || to >= next.length) return next;
  [next[at], next[to]] = [next[to], next[at]];
  return next;
}
