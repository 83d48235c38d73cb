import { applyBrand, EMPTY_KIT, type BrandKit } from '../brand/kit';
import { plainPrice, priceParts, savingText } from '../elements/badge/price-rows';
import { lengthText } from '../elements/measure/paint';
import { DESIGNS } from '../templates/designs';
import { fillTemplate, makeTemplate, openPlaces, suggestedPlace } from '../templates/fill';
import { NO_PICTURE } from '../elements/base';
import { readSlot } from '../spec/slot';
import { bindText, parseAmount, type ProductData } from '../data/product-data';
import { emptyShot, readShot, type Shot } from './document';
import { makeBase, patchFit } from './edit';
import { freelyPlaced } from './free-place';
import { newBadge, newCallout, newInset, newMeasure, newPair, newStars } from './overlay-starters';
import { resolveBase, resolveForSlot } from './resolve';
import { snapBox } from './snap-box';
import { newBackdrop, newProduct, newText } from './starters';

const hash = (n: number) => n.toString(16).padStart(64, '0');
const data: ProductData = {
  title: 'Stoneware planter',
  variant: 'Teal',
  sku: 'P-1',
  price: 24.5,
  currency: 'GBP',
  widthMm: 162,
  heightMm: 148,
  depthMm: 162,
  fields: { was: '30', rating: '4.7', reviews: '1', origin: '' },
  cutout: { picture: hash(1), width: 1000, height: 900 },
};
const frame = { width: 1600, height: 1600 };
const slot = (width: number, height: number) =>
  readSlot({
    id: 's', title: 's', width, height, formats: ['jpeg'], maxBytes: 1e6, background: { kind: 'any' }, safeShare: 0.05, marginShare: 0.05,
  }); // prettier-ignore

test('texts take fields, plural and number forms; what is missing or empty is named and seen', () => {
  const text = '{title}: {rating} of 5, {reviews, plural, one {# review} other {# reviews}}';
  expect(bindText(text, data).text).toBe('Stoneware planter: 4.7 of 5, 1 review');
  expect(bindText('{amount, number, ::currency/GBP}', data).text).toBe('£24.50');
  const gone = bindText('From {origin} with {love}', data);
  expect(gone.missing).toEqual(['origin', 'love']);
  expect(gone.text).toBe('From ‹origin› with ‹love›');
});

test.each([
  ['24', 24],
  ['£24.50', 24.5],
  ['1,250', 1250],
  ['1.250,00 €', 1250],
  ['24,5', 24.5],
  ['0.999', 0.999],
  ['12,345.678', 12345.678],
  ['about 20', null],
  ['', null],
  ['12.3.4', null],
])('"%s" is read as the amount %p', (text, amount) => expect(parseAmount(text)).toBe(amount));

test('a price comes apart as its language writes it; a saving is never told larger than it is', () => {
  const pounds = { amount: 24.5, currency: 'GBP', locale: 'en-GB' };
  expect(priceParts(pounds, 'f', 1).map((p) => [p.text, p.raised])).toEqual([
    ['£', true],
    ['24', false],
    ['50', true],
  ]);
  expect(priceParts({ ...pounds, currency: 'EUR', locale: 'de-DE' }, 'f', 1).map((p) => p.text)).toEqual([
    '24',
    '50',
    '€',
  ]);
  expect(savingText(pounds, 30, 'percent')).toBe('−18%');
  expect(savingText(pounds, 30, 'amount')).toBe('£5.50');
  expect(() => plainPrice({ ...pounds, currency: 'POUND' })).toThrow(/no currency code/);
});

test('a badge says which price is missing or no number, and which former price makes no sense', () => {
  const missing = (patch: object) =>
    resolveBase(
      { ...emptyShot(1600, 1600), elements: [{ ...newBadge('b', frame, 'was-now'), ...patch }] },
      data,
    ).missing;
  expect(missing({})).toEqual([]);
  expect(missing({ amount: 'soon' })[0]).toMatch(/a number \("soon" is none\)/);
  expect(missing({ was: '20' })[0]).toMatch(/former price above/);
  expect(missing({ was: '{list}' })).toEqual(['list']);
});

test('a rating beyond its stars is told', () => {
  const shot = { ...emptyShot(1600, 1600), elements: [{ ...newStars('s', frame), rating: '7' }] };
  expect(resolveBase(shot, data).missing[0]).toMatch(/between 0 and 5/);
});

const kit: BrandKit = {
  ...EMPTY_KIT,
  title: 'Marrowby',
  colours: [{ id: 'accent', title: 'Accent', colour: '#123456' }],
  fonts: [{ id: 'label', title: 'Label', font: 'bitter-800' }],
  texts: [{ id: 'made', title: 'Made', text: 'Made by hand' }],
  logos: [{ id: 'main', title: 'Main', light: { picture: hash(8), width: 3, height: 1 }, dark: null }],
};

test('what an element takes from the brand kit follows it; what the kit lacks stays', () => {
  const badge = {
    ...newBadge('b', frame, 'words'),
    brand: { fill: 'accent', font: 'label', text: 'made', ink: 'gone' },
  };
  const shot: Shot = { ...emptyShot(1600, 1600), elements: [badge] };
  const [seen] = resolveBase(shot, { ...data, brand: kit }).elements;
  expect(seen).toMatchObject({ fill: '#123456', font: 'bitter-800', text: 'Made by hand', ink: '#ffffff' });
  const ringless = { ...badge, ring: null, brand: { 'ring.colour': 'accent' } };
  expect(applyBrand(ringless, kit).ring).toBeNull();
});

test('a dimension line reads the product that stands there and lies along it; unknown sizes are told', () => {
  const product = newProduct('p', data, frame, 'stand');
  const shot: Shot = { ...emptyShot(1600, 1600), elements: [product, newMeasure('m', frame, 'width')] };
  const [p, m] = resolveBase(shot, data).elements;
  expect(m).toMatchObject({ lengthMm: 162 });
  expect([m.box.x, m.box.width]).toEqual([p.box.x, p.box.width]);
  const small = {
    ...data,
    widthMm: 81,
    heightMm: 74,
    depthMm: 81,
    cutout: { ...data.cutout!, picture: hash(2) },
  };
  const [q, n] = resolveBase(shot, small).elements;
  expect(n).toMatchObject({ lengthMm: 81 });
  expect(n.box.width).toBeCloseTo(q.box.width, 6);
  expect(n.box.width).toBeLessThan(m.box.width);
  const bare = { ...shot, elements: [{ ...product, millimetres: null }, shot.elements[1]] };
  expect(resolveBase(bare, null).missing).toEqual(['width']);
  expect([
    lengthText(162, 'mm', 'en-GB'),
    lengthText(162, 'cm', 'de-DE'),
    lengthText(162, 'in', 'en-GB'),
  ]).toEqual(['162 mm', '16,2 cm', '6.4 in']);
});

test('a close-up and a callout point at the same spot of the product wherever it goes', () => {
  const product = newProduct('p', data, frame, 'stand');
  const inset = { ...newInset('i', frame, 'cutout'), spot: { x: 0.25, y: 0.5 }, across: 0.2 };
  const callout = { ...newCallout('c', frame), spot: { x: 0.25, y: 0.5 } };
  const shot: Shot = { ...emptyShot(1600, 1600), elements: [product, inset, callout] };
  for (const resolved of [resolveBase(shot, data), resolveForSlot(shot, 'a/b', slot(1200, 900), data)]) {
    const [p, i, c] = resolved.elements;
    const at = { x: p.box.x + p.box.width * 0.25, y: p.box.y + p.box.height * 0.5 };
    if (i.kind !== 'inset' || c.kind !== 'callout') throw new Error('other kinds');
    expect(c.target!.x).toBeCloseTo(at.x, 4);
    expect(i.target!.x + i.target!.width / 2).toBeCloseTo(at.x, 4);
    expect(i.target!.y + i.target!.height / 2).toBeCloseTo(at.y, 4);
    expect(i.times).toBeCloseTo(i.box.width / (p.box.width * 0.2), 6);
  }
});

test('a close-up of the photo shows the spot of the photo that the product was cut out of', () => {
  const photo = {
    picture: hash(9),
    width: 4000,
    height: 3000,
    cutout: { x: 1000, y: 500, width: 2000, height: 1800 },
  };
  const inset = { ...newInset('i', frame, 'photo'), spot: { x: 0.5, y: 0.5 }, across: 0.4 };
  const shot: Shot = { ...emptyShot(1600, 1600), elements: [newProduct('p', data, frame, 'stand'), inset] };
  const seen = resolveBase(shot, { ...data, photo }).elements[1];
  expect(seen).toMatchObject({ picture: hash(9), seen: { x: 0.5, across: 0.2 } });
  expect((seen as typeof inset).seen!.y).toBeCloseTo(1400 / 3000, 6);
});

test('both halves of a pair are cropped as the later one, where that is asked', () => {
  const pair = newPair('p', frame, true);
  const after = { ...pair.after, picture: hash(3), focus: { x: 0.2, y: 0.8 }, zoom: 2 };
  const shot = (sameCrop: boolean): Shot => ({
    ...emptyShot(1600, 1600),
    elements: [{ ...pair, sameCrop, before: { ...pair.before, picture: hash(4) }, after }],
  });
  expect(resolveBase(shot(true), null).elements[0]).toMatchObject({
    before: { focus: { x: 0.2, y: 0.8 }, zoom: 2 },
  });
  expect(resolveBase(shot(false), null).elements[0]).toMatchObject({ before: { zoom: 1 } });
});

test('every shipped design is a shot, has a place for a product or pictures, and is filled by one', () => {
  expect(DESIGNS.length).toBeGreaterThanOrEqual(14);
  for (const { id, document } of DESIGNS) {
    expect(() => readShot(JSON.parse(JSON.stringify(document)))).not.toThrow();
    expect([id, openPlaces(document).length > 0]).toEqual([id, true]);
    const filled = fillTemplate(document, data, 'stand');
    const open = openPlaces(filled).filter((e) => e.kind === 'product');
    expect([id, open]).toEqual([id, []]);
    for (const e of filled.elements)
      if (e.kind === 'product') {
        expect(e.picture).toBe(data.cutout!.picture);
        expect(e.box.width / e.box.height).toBeCloseTo(1000 / 900, 6);
      }
  }
});

test('a template of a finished shot keeps all but its places; another product fills the same room', () => {
  const product = newProduct('p', data, frame, 'stand');
  const title = newText('t', '{title}', frame);
  const shot: Shot = {
    ...emptyShot(1600, 1600),
    elements: [newBackdrop('g', frame, '#ffffff'), product, title],
  };
  const places = Object.fromEntries(shot.elements.map((e) => [e.id, suggestedPlace(e)]));
  const template = makeTemplate(shot, places);
  expect(template.elements[1]).toMatchObject({ picture: NO_PICTURE, hidden: true });
  expect(template.elements[2]).toMatchObject({ text: '{title}', box: title.box });
  const tall: ProductData = {
    ...data,
    title: 'Cloche',
    cutout: { picture: hash(5), width: 500, height: 1000 },
  };
  const filled = fillTemplate(template, tall, 'stand');
  const { box } = filled.elements[1];
  expect(box.y + box.height).toBeCloseTo(product.box.y + product.box.height, 6);
  expect(box.height).toBeLessThanOrEqual(product.box.height + 1e-6);
  expect(box.x + box.width / 2).toBeCloseTo(product.box.x + product.box.width / 2, 6);
  expect(resolveBase(filled, tall).elements[2]).toMatchObject({ text: 'Cloche' });
});

test('a difference of one slot becomes the base, and the slot follows it to the same place', () => {
  const shot: Shot = {
    ...emptyShot(1600, 1600),
    elements: [newBackdrop('g', frame, '#ffffff'), newText('t', 'Words', frame)],
  };
  const at = slot(800, 800);
  const moved = patchFit(shot, 'a/b', at, 't', {
    box: { x: 500, y: 620, width: 200, height: 60, rotation: 0 },
    text: 'Other',
  });
  const based = makeBase(moved, resolveForSlot(moved, 'a/b', at, null), 'a/b', 't');
  expect(based.fits).toEqual({});
  expect(based.elements[1]).toMatchObject({
    text: 'Other',
    box: { x: 1000, y: 1240, width: 400, height: 120 },
  });
  const again = resolveForSlot(based, 'a/b', at, null).elements[1].box;
  expect(again).toMatchObject({ x: 500, y: 620, width: 200, height: 60 });
});

test('what is least important is dropped first; the user’s order and what a slot wants shown go before the rule', () => {
  const texts = Array.from({ length: 7 }, (_, i) => ({
    ...newText(`t${i}`, `Line number ${i} of many words`, frame),
    size: 60,
    box: { x: 100, y: 100 + i * 190, width: 700, height: 90, rotation: 0 },
  }));
  const shot: Shot = { ...emptyShot(1600, 1600), elements: [newBackdrop('g', frame, '#ffffff'), ...texts] };
  const strip = slot(728, 60);
  const { dropped } = resolveForSlot(shot, 'a/b', strip, null);
  expect(dropped!.length).toBeGreaterThan(0);
  expect(dropped).not.toContain('t0');
  const ordered = { ...shot, importance: ['t6', 't5'] };
  const kept = resolveForSlot(ordered, 'a/b', strip, null).dropped!;
  expect(kept).not.toContain('t6');
  const shown = patchFit(ordered, 'a/b', strip, kept[0], { hidden: false });
  expect(resolveForSlot(shown, 'a/b', strip, null).dropped).not.toContain(kept[0]);
});

test('a box snaps to the middle, to edges of others, and to equal gaps', () => {
  const others = [
    { name: 'a', x: 100, y: 500, width: 200, height: 100 },
    { name: 'b', x: 400, y: 500, width: 200, height: 100 },
  ];
  const wide = { width: 2400, height: 1600 };
  const at = snapBox({ x: 696, y: 503, width: 200, height: 100 }, others, wide, 12);
  expect([at.x, at.y]).toEqual([700, 500]);
  expect(at.guides.map((g) => g.label)).toEqual(['equal gaps', 'a']);
  expect(snapBox({ x: 704, y: 900, width: 200, height: 100 }, [], frame, 12).x).toBe(700);
  expect(snapBox({ x: 650, y: 900, width: 200, height: 100 }, [], frame, 12)).toMatchObject({
    x: 650,
    guides: [],
  });
});

test('a new overlay goes where nothing is', () => {
  const busy = {
    ...newText('a', 'Words '.repeat(20), frame),
    size: 120,
    box: { x: 0, y: 0, width: 1600, height: 800, rotation: 0 },
  };
  const placed = freelyPlaced(newBadge('b', frame, 'words'), [busy], frame);
  expect(placed.box.y).toBeGreaterThan(800);
  expect(placed.box.y + placed.box.height).toBeLessThanOrEqual(1600 - 90);
});
