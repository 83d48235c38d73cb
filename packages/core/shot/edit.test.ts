import fc from 'fast-check';
import type { ShotElement } from '../elements/index';
import { emptyShot, type Shot } from './document';
import { makeBase, newId, ownValues, patchFit, resetFit } from './edit';
import { data, FRAME, ONE_OF_EACH } from './one-of-each.fixture';
import { resolveForSlot } from './resolve';
import { readSlot } from '../spec/slot';

const SLOT = readSlot({
  id: 'front',
  title: 'Front',
  width: 800,
  height: 800,
  formats: ['jpeg'],
  maxBytes: 1e6,
  background: { kind: 'any' },
  marginShare: 0.04,
  safeShare: 0.05,
});
const KEY = 'a/front';
const ALL: Shot = { ...emptyShot(FRAME.width, FRAME.height), elements: ONE_OF_EACH };
const elementOf = (shot: Shot, id: string) => shot.elements.find((e) => e.id === id)!;
const differing = (id: string, patch: Partial<ShotElement>) => patchFit(ALL, KEY, SLOT, id, patch);
const differenceOf = (shot: Shot, id: string) => shot.fits[KEY]?.elements[id];
const box = { x: 90, y: 80, width: 200, height: 100, rotation: 0 };

test('a new id is one that no element has', () => {
  expect(newId('text', ALL)).toBe('text-1');
  const taken = { ...ALL, elements: ALL.elements.map((e) => ({ ...e, id: `${e.kind}-1` })) };
  expect(newId('text', taken)).toBe('text-2');
});

test('one value of a slot follows the base again, the others stay', () => {
  const shot = differing('text', { box, opacity: 0.4, hidden: true });
  const left = resetFit(shot, KEY, 'text', 'opacity');
  expect(differenceOf(left, 'text')).toEqual({ box, hidden: true });
  expect(resetFit(resetFit(left, KEY, 'text', 'box'), KEY, 'text', 'hidden').fits).toEqual({});
  expect(shot.elements).toEqual(left.elements);
});

test('in whatever order they are taken back, the slot is the base again', () => {
  const patch = { box, opacity: 0.4, hidden: true, locked: true, blend: 'multiply', name: 'Other' } as const;
  const keys = Object.keys(patch);
  fc.assert(
    fc.property(fc.shuffledSubarray(keys, { minLength: keys.length }), (order) => {
      const end = order.reduce((s, key) => resetFit(s, KEY, 'badge', key), differing('badge', patch));
      expect(end).toEqual(ALL);
    }),
  );
});

test('a place goes with what it was measured by, and that is not named beside it', () => {
  const product = elementOf(ALL, 'product');
  const patch = { box, base: { x: 0.5, y: 0.9 }, millimetres: null } as unknown as Partial<ShotElement>;
  expect(ownValues(product, patch)).toEqual(['box']);
  expect(resetFit(differing('product', patch), KEY, 'product', 'box').fits).toEqual({});
});

test('a colour takes along the entry of the brand kit that it follows; entries of others stay', () => {
  const base = elementOf(ALL, 'badge');
  expect(base.brand).toMatchObject({ fill: 'accent', font: 'label' });
  const { fill: _, ...brand } = base.brand;
  const shot = differing('badge', { fill: '#112233', brand, opacity: 0.5 });
  expect(ownValues(base, differenceOf(shot, 'badge'))).toEqual(['fill', 'opacity']);
  const based = makeBase(shot, resolveForSlot(shot, KEY, SLOT, data), KEY, 'badge', 'fill');
  expect(elementOf(based, 'badge')).toMatchObject({ fill: '#112233', opacity: base.opacity, brand });
  expect(elementOf(based, 'badge').brand).not.toHaveProperty('fill');
  expect(differenceOf(based, 'badge')).toMatchObject({ opacity: 0.5 });
  const followed = resetFit(shot, KEY, 'badge', 'fill');
  expect(differenceOf(followed, 'badge')).toEqual({ opacity: 0.5, brand: base.brand });
});

test('made the base, a value looks the same in the slot as before', () => {
  const shot = differing('text', { text: 'Other', opacity: 0.3 });
  const seen = (s: Shot) => resolveForSlot(s, KEY, SLOT, data).elements.find((e) => e.id === 'text');
  const based = makeBase(shot, resolveForSlot(shot, KEY, SLOT, data), KEY, 'text', 'opacity');
  expect(seen(based)).toEqual(seen(shot));
  expect(elementOf(based, 'text')).toMatchObject({ opacity: 0.3 });
  expect(differenceOf(based, 'text')).toEqual({ text: 'Other' });
});
