import { createHash } from 'node:crypto';
import fc from 'fast-check';
import type { ProductData } from '../data/product-data';
import { addGuide } from '../shot/guides';
import { resolveForSlot } from '../shot/resolve';
import { newText, whiteShot } from '../shot/starters';
import { readSlot, type Slot } from '../spec/slot';
import { cellKeys } from './cell-key';
import { formatsFor, PLAIN_ENCODING } from './encoding';

const digest = (text: string) => createHash('sha256').update(text).digest('hex');
const data: ProductData = {
  id: 'v',
  title: 'Planter',
  variant: 'Teal',
  sku: 'MB-1',
  price: 24,
  currency: 'GBP',
  widthMm: 120,
  heightMm: 160,
  depthMm: null,
  cutout: { picture: 'a'.repeat(64), width: 600, height: 800 },
};
const words = { alt: null, copyright: null, title: null };
const base = whiteShot(data, 'stand');
const shot = { ...base, elements: [...base.elements, newText('price', '{price}', base.frame)] };
const plain = readSlot({
  id: 's',
  title: 'Slot',
  width: 1000,
  height: 800,
  formats: ['jpeg', 'png'],
  maxBytes: 500_000,
  background: { kind: 'any' },
});

const keyOf = (slot: Slot, of = shot) =>
  cellKeys(digest).of({ shot: of, slotKey: 'k', slot, data, encoding: PLAIN_ENCODING, words });
/** Everything of a picture that a slot decides: where its elements lie, and how the file may be written. */
const pictureOf = (slot: Slot) =>
  JSON.stringify([
    resolveForSlot(shot, 'k', slot, data),
    formatsFor(slot, PLAIN_ENCODING).filter((f) => f !== 'jpeg' || slot.background.kind !== 'transparent'),
    [slot.maxBytes, slot.density, slot.colourSpace],
  ]);

const share = fc.double({ min: 0, max: 0.4, noNaN: true });
const someShare = fc.option(fc.double({ min: 0.1, max: 1, noNaN: true }), { nil: null });
/** One change of a slot, of every field that it has. */
const change: fc.Arbitrary<Partial<Slot>> = fc.oneof(
  fc.record({ width: fc.integer({ min: 100, max: 4000 }) }),
  fc.record({ height: fc.integer({ min: 100, max: 4000 }) }),
  fc.record({ formats: fc.constantFrom<Slot['formats']>(['png'], ['webp', 'jpeg'], ['png', 'jpeg']) }),
  fc.record({ maxBytes: fc.integer({ min: 2000, max: 900_000 }) }),
  fc.record({ colourSpace: fc.constantFrom<Slot['colourSpace']>('p3', 'any') }),
  fc.record({ density: fc.integer({ min: 72, max: 600 }) }),
  fc.record({
    background: fc.record({
      kind: fc.constantFrom<Slot['background']['kind']>('white', 'transparent', 'any'),
      tolerance: fc.integer({ min: 0, max: 64 }),
      minShare: share,
    }),
  }),
  fc.record({ coverage: fc.record({ min: someShare, max: someShare, wanted: someShare }) }),
  fc.record({ marginShare: share }),
  fc.record({ safeShare: share }),
  fc.record({ whole: fc.boolean() }),
  fc.record({ overlays: fc.constantFrom<Slot['overlays']>('allowed', 'forbidden') }),
  fc.record({ watermark: fc.constantFrom<Slot['watermark']>('allowed', 'forbidden') }),
  fc.record({ altText: fc.constantFrom<Slot['altText']>('required', 'optional') }),
  fc.record({ maxTextShare: someShare }),
  fc.record({ maxEnlargement: fc.double({ min: 0.1, max: 10, noNaN: true }) }),
  fc.record({ required: fc.boolean() }),
  fc.record({ count: fc.integer({ min: 1, max: 20 }) }),
  fc.record({ title: fc.string({ minLength: 1 }) }),
  fc.record({
    safeZones: fc.constant<Slot['safeZones']>([{ title: 'Badge', x: 0, y: 0, width: 0.3, height: 0.2 }]),
  }),
);

test('whenever a changed slot makes another picture or another file, the key is another', () => {
  fc.assert(
    fc.property(change, (changed) => {
      const slot = { ...plain, ...changed };
      if (pictureOf(slot) !== pictureOf(plain)) expect(keyOf(slot)).not.toBe(keyOf(plain));
    }),
    { numRuns: 400 },
  );
});

test('a ground that must be white or transparent is another file than one that may be any', () => {
  const kinds = (['any', 'white', 'transparent'] as const).map((kind) =>
    keyOf({ ...plain, background: { ...plain.background, kind } }),
  );
  expect(new Set(kinds).size).toBe(3);
});

test('what is only judged by changes no key', () => {
  for (const judged of [{ required: false }, { altText: 'required' }, { maxEnlargement: 2 }, { title: 'X' }])
    expect(keyOf({ ...plain, ...judged } as Slot)).toBe(keyOf(plain));
});

test('guides are in no picture: they change no key', () => {
  const withGuide = addGuide(shot, { axis: 'x', at: 300 });
  expect(withGuide.guides).toHaveLength(1);
  expect(keyOf(plain, withGuide)).toBe(keyOf(plain));
});

test('every change of an element that can be seen changes the key', () => {
  const before = keyOf(plain);
  shot.elements.forEach((element, i) => {
    const moved = { box: { ...element.box, x: element.box.x + 1 } };
    // A backdrop fills the frame wherever its box lies.
    const seen: object[] = [
      { opacity: 0.5 },
      { hidden: true },
      ...(element.kind === 'backdrop' ? [] : [moved]),
    ];
    for (const changed of seen) {
      const elements = shot.elements.map((e, k) => (k === i ? { ...e, ...changed } : e));
      expect(keyOf(plain, { ...shot, elements })).not.toBe(before);
    }
  });
});
