import { createHash } from 'node:crypto';
import type { ProductData } from '../data/product-data';
import type { Shot } from '../shot/document';
import { patchFit } from '../shot/edit';
import { cellFitKey, resolveForSlot } from '../shot/resolve';
import { newText, whiteShot } from '../shot/starters';
import { readSlot, type Slot } from '../spec/slot';
import { PLAIN_ENCODING } from './encoding';
import { planner, type PlannedCell } from './plan';

const digest = (text: string) => createHash('sha256').update(text).digest('hex');

const data = (id: string, change: Partial<ProductData> = {}): ProductData => ({
  id,
  title: 'Planter',
  variant: id,
  sku: `MB-${id}`,
  price: 24,
  currency: 'GBP',
  widthMm: null,
  heightMm: null,
  depthMm: null,
  fields: { material: 'clay' },
  cutout: { picture: id.repeat(64).slice(0, 64), width: 600, height: 800 },
  ...change,
});

const slot = (id: string, change: object = {}): Slot =>
  readSlot({
    id,
    title: id,
    width: 1000,
    height: 1000,
    formats: ['jpeg'],
    maxBytes: 500_000,
    background: { kind: 'any' },
    ...change,
  });

const withPrice = (): Shot => {
  const shot = whiteShot(data('a'), 'stand');
  return { ...shot, elements: [...shot.elements, newText('price', '{price}', shot.frame)] };
};

/** Keys by variant and slot. */
function keys(
  variants: ProductData[],
  shots: Record<string, Shot>,
  slots: Record<string, Slot>,
  change: { alt?: string; encodings?: object } = {},
): Record<string, string | null> {
  const plan = planner({
    listing: 'L',
    slots: Object.entries(slots).map(([key, s]) => ({ key, slot: s, sheet: { marketplace: 'K' } })),
    shotFor: (key) =>
      shots[key] ? { id: key, title: key, alt: change.alt ?? '{title}', document: shots[key] } : null,
    encodings: (change.encodings ?? {}) as never,
    digest,
  });
  const cells: PlannedCell[] = variants.flatMap((d) => plan({ id: d.id!, data: d }));
  return Object.fromEntries(cells.map((c) => [`${c.variantId} ${c.slotKey}`, c.key]));
}

const differing = (a: Record<string, unknown>, b: Record<string, unknown>) =>
  Object.keys(a).filter((k) => a[k] !== b[k]);

test("a changed price changes the keys of its own variant's cells that show it, and no others", () => {
  const shots = { plain: whiteShot(data('a'), 'stand'), priced: withPrice() };
  const slots = { plain: slot('plain'), priced: slot('priced') };
  const before = keys([data('a'), data('b')], shots, slots);
  expect(new Set(Object.values(before)).size).toBe(4);
  const dearer = keys([data('a'), data('b', { price: 30 })], shots, slots);
  expect(differing(before, dearer)).toEqual(['b priced']);
  const renamed = keys([data('a'), data('b', { fields: { material: 'iron' } })], shots, slots);
  expect(differing(before, renamed)).toEqual([]);
  // The name of a layer paints nothing.
  const named = {
    ...shots,
    plain: { ...shots.plain, elements: shots.plain.elements.map((e) => ({ ...e, name: 'X' })) },
  };
  expect(differing(before, keys([data('a'), data('b')], named, slots))).toEqual([]);
});

test('cells that would be the same file have one key; size, bytes, encoding and words tell them apart', () => {
  const shot = whiteShot(data('a'), 'stand');
  const same = keys(
    [data('a')],
    { one: shot, two: shot },
    { one: slot('one'), two: slot('two', { required: false }) },
  );
  expect(same['a one']).toBe(same['a two']);
  for (const [other, change] of [
    [{ width: 1200 }, {}],
    [{ maxBytes: 90_000 }, {}],
    [{ colourSpace: 'p3' }, {}],
    [{ coverage: { wanted: 0.5 } }, {}],
    [{}, { encodings: { two: { ...PLAIN_ENCODING, quality: 70 } } }],
  ] as const) {
    const k = keys(
      [data('a')],
      { one: shot, two: shot },
      { one: slot('one'), two: slot('two', other) },
      change,
    );
    expect(k['a one']).not.toBe(k['a two']);
  }
  const [plain, told] = ['{title}', 'Another text'].map(
    (alt) => keys([data('a')], { one: shot }, { one: slot('one') }, { alt })['a one'],
  );
  expect(plain).not.toBe(told);
});

test("a cell's own difference stays its own, and the base reaches every cell that has not said otherwise", () => {
  const base = withPrice();
  const s = slot('main');
  const own = patchFit(base, cellFitKey('main', 'b'), s, 'price', { hidden: true });
  const [before, after] = [base, own].map((shot) =>
    keys([data('a'), data('b')], { main: shot }, { main: s }),
  );
  expect(differing(before, after)).toEqual(['b main']);
  const hidden = (shot: Shot, id: string) =>
    resolveForSlot(shot, 'main', s, data(id)).elements.find((e) => e.id === 'price')!.hidden;
  expect([hidden(own, 'a'), hidden(own, 'b')]).toEqual([false, true]);
  const slotWide = patchFit(own, 'main', s, 'price', { opacity: 0.5 });
  const opacity = (id: string) =>
    resolveForSlot(slotWide, 'main', s, data(id)).elements.find((e) => e.id === 'price')!.opacity;
  expect([opacity('a'), opacity('b')]).toEqual([0.5, 0.5]);
  expect(hidden(slotWide, 'b')).toBe(true);
});

test('cells that nothing fills, or whose cutout is missing, are missing; names follow their pattern', () => {
  const shot = whiteShot(data('a'), 'stand');
  const plan = planner({
    listing: 'L',
    slots: [
      { key: 'm', slot: slot('m', { fileName: '{sku}/{slot}_{n}' }), sheet: { marketplace: 'K' } },
      { key: 'x', slot: slot('x'), sheet: { marketplace: 'K' } },
    ],
    shotFor: (key) => (key === 'm' ? { id: 's', title: 'S', alt: '{material}', document: shot } : null),
    encodings: {},
    digest,
  });
  const [made, empty] = plan({ id: 'a', data: data('a') });
  expect([made.fileName, made.words.alt, made.missing]).toEqual(['MB-a/m_1', 'clay', null]);
  expect([empty.key, empty.missing]).toEqual([null, 'no-shot']);
  const [bare] = plan({ id: 'b', data: data('b', { cutout: null, fields: {} }) });
  expect([bare.missing, bare.key]).toEqual(['no-cutout', null]);
  const [unsaid] = plan({ id: 'c', data: data('c', { fields: {} }) });
  expect(unsaid.words.alt).toBeNull();
});

test('twenty thousand cells have keys of their own', () => {
  const shots = Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`s${i}`, withPrice()]));
  const slots = Object.fromEntries(
    Array.from({ length: 40 }, (_, i) => [`s${i}`, slot(`s${i}`, { width: 800 + i * 10 })]),
  );
  const variants = Array.from({ length: 500 }, (_, i) => data(`v${i}`, { price: i }));
  const all = keys(variants, shots, slots);
  expect(new Set(Object.values(all)).size).toBe(20_000);
});
