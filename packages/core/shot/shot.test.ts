import { NO_ITEM } from '../stage/survey';
import { readFileSync } from 'node:fs';
import { uprightBounds } from '../vector/box';
import { readSlot, type Slot } from '../spec/slot';
import { bindText, type ProductData } from '../data/product-data';
import { readKnownShot, readShot, type Shot } from './document';
import { patchFit, resetFit } from './edit';
import { migrate } from './migrations';
import { resolveBase, resolveForSlot } from './resolve';
import { whatCastsOnWhat } from '../elements/product/casts';
import { groundOf } from '../elements/ground-of';
import { readSceneFile } from '../stage/scene-file';
import { basePoint, movedOnGround, scaledOnBase, groundPlacement, trueSizeBox } from '../stage/stand';
import { elementBounds, fitPack, spreadPacks } from '../elements/product/pack';
import { alignMoves, distributeMoves } from './align';
import type { ProductElement } from '../elements/product/model';
import { newText, sceneShot, whiteShot } from './starters';

const hash = (c: string) => c.repeat(64);
const data: ProductData = {
  title: 'Planter',
  variant: 'Teal',
  sku: 'MB-1',
  price: 24.5,
  currency: 'GBP',
  widthMm: 160,
  heightMm: 150,
  depthMm: 160,
  cutout: { picture: hash('a'), width: 1200, height: 1100 },
};
const survey = {
  width: 2000,
  height: 1500,
  horizonY: 250,
  plane: null,
  known: null,
  gloss: 0,
  occluder: null,
  spots: [{ id: 'centre', x: 1000, y: 1100, pxPerMm: 3 }],
  light: { azimuthDeg: -60, elevationDeg: 35, softness: 0.5 },
  ...NO_ITEM,
};
const scene = { title: 'Sill', picture: hash('b'), survey };

function slot(width: number, height: number, more: Partial<Slot> = {}): Slot {
  return readSlot({
    id: 's',
    title: 'S',
    width,
    height,
    formats: ['jpeg'],
    maxBytes: 1e6,
    background: { kind: 'any' },
    marginShare: 0.04,
    safeShare: 0.05,
    ...more,
  });
}

const SHAPES = [
  [2000, 2000],
  [2400, 1800],
  [1080, 1920],
  [300, 250],
  [728, 90],
  [160, 600],
  [1200, 628],
];

test.each(SHAPES)('at %i x %i the product is whole inside the margin and the scene covers', (w, h) => {
  const shot = sceneShot(data, 'stand', scene);
  const at = slot(w, h);
  const { elements } = resolveForSlot(shot, 'm/s', at, data);
  const [ground, product] = elements.map((e) => e.box);
  const margin = 0.04 * Math.min(w, h);
  expect(product.x).toBeGreaterThanOrEqual(margin - 0.01);
  expect(product.y).toBeGreaterThanOrEqual(margin - 0.01);
  expect(product.x + product.width).toBeLessThanOrEqual(w - margin + 0.01);
  expect(product.y + product.height).toBeLessThanOrEqual(h - margin + 0.01);
  expect(ground.x).toBeLessThanOrEqual(0.01);
  expect(ground.y).toBeLessThanOrEqual(0.01);
  expect(ground.x + ground.width).toBeGreaterThanOrEqual(w - 0.01);
  expect(ground.y + ground.height).toBeGreaterThanOrEqual(h - 0.01);
  expect(product.width / product.height).toBeCloseTo(1200 / 1100, 5);
});

test('in a scene the product stays where it stands when the slot has room', () => {
  const shot = sceneShot(data, 'stand', scene);
  const base = resolveBase(shot, data).elements.map((e) => e.box);
  const fitted = resolveForSlot(shot, 'm/s', slot(1500, 1500), data).elements.map((e) => e.box);
  const share = ([g, p]: typeof base) => [
    (p.x - g.x) / g.width,
    (p.y + p.height - g.y) / g.height,
    p.width / g.width,
  ];
  share(fitted).forEach((v, i) => expect(v).toBeCloseTo(share(base)[i], 6));
});

test('on a plain ground the product takes the coverage the slot wants', () => {
  const at = slot(1600, 1200, { coverage: { min: 0.8, max: 0.95, wanted: 0.88 }, marginShare: 0.01 });
  const [, product] = resolveForSlot(whiteShot(data, 'stand'), 'm/s', at, data).elements;
  expect(Math.max(product.box.width / 1600, product.box.height / 1200)).toBeCloseTo(0.88, 5);
});

test.each(SHAPES)('at %i x %i an overlay keeps its corner and the safe margin', (w, h) => {
  const shot = sceneShot(data, 'stand', scene);
  const text = newText('t', 'Words', shot.frame);
  shot.elements.push({ ...text, box: { x: 1500, y: 60, width: 440, height: 120, rotation: 8 } });
  const placed = resolveForSlot(shot, 'm/s', slot(w, h), data).elements[2];
  const b = uprightBounds(placed.box);
  const safe = 0.05 * Math.min(w, h);
  expect(b.x).toBeGreaterThanOrEqual(safe - 0.01);
  expect(b.y).toBeGreaterThanOrEqual(safe - 0.01);
  expect(b.x + b.width).toBeLessThanOrEqual(w - safe + 0.01);
  expect(b.y + b.height).toBeLessThanOrEqual(h - safe + 0.01);
  expect(w - b.x - b.width).toBeLessThan(Math.max(b.x, safe * 1.01 + 1));
  expect(placed.kind === 'text' && placed.size / text.size).toBeCloseTo(placed.box.width / 440, 5);
});

test('a place kept for one slot stays with it, follows its size, and can be reset', () => {
  let shot: Shot = sceneShot(data, 'stand', scene);
  const at = slot(1000, 1000);
  const before = resolveForSlot(shot, 'm/s', at, data);
  const box = { x: 100, y: 200, width: 300, height: 275, rotation: 0 };
  shot = patchFit(shot, 'm/s', at, 'product', { box });
  expect(resolveForSlot(shot, 'm/s', at, data).elements[1].box).toEqual(box);
  expect(resolveForSlot(shot, 'm/s', slot(500, 500), data).elements[1].box).toEqual({
    x: 50,
    y: 100,
    width: 150,
    height: 137.5,
    rotation: 0,
  });
  expect(resolveForSlot(shot, 'm/other', at, data)).toEqual(before);
  expect(resolveForSlot(resetFit(shot, 'm/s', 'product'), 'm/s', at, data)).toEqual(before);
});

test('another variant takes the same place, base on the same point, sized by its own millimetres', () => {
  const shot = sceneShot(data, 'stand', scene);
  const wide = { ...data, widthMm: 320, cutout: { picture: hash('c'), width: 1000, height: 500 } };
  const a = resolveBase(shot, data).elements[1].box;
  const swapped = resolveBase(shot, wide).elements[1];
  expect(swapped.kind === 'product' && swapped.picture).toBe(hash('c'));
  expect(swapped.box.width).toBeCloseTo(a.width * 2, 6);
  const before = resolveBase(shot, data).elements[1];
  if (before.kind !== 'product' || swapped.kind !== 'product') throw new Error('no product');
  const [from, to] = [basePoint(before), basePoint(swapped)];
  expect([to.x, to.y]).toEqual([expect.closeTo(from.x, 6), expect.closeTo(from.y, 6)]);
});

test('texts are bound to data; what is missing stays to be seen', () => {
  expect(bindText('{title}, {variant}: {price}', data)).toEqual({
    text: 'Planter, Teal: £24.50',
    missing: [],
  });
  expect(bindText('{price} {sku}', { ...data, price: null })).toEqual({
    text: '‹price› MB-1',
    missing: ['price'],
  });
  expect(bindText('{amount, plural, one {# pound} other {# pounds}}', data).text).toBe('24.5 pounds');
  expect(bindText('{amount, number', data).missing).toEqual(['amount']);
});

test('shots of the first version open; newer and foreign ones are refused with a sentence', () => {
  const now = sceneShot(data, 'stand', scene);
  const old = JSON.parse(JSON.stringify(now));
  old.version = 1;
  for (const key of ['focus', 'zoom', 'item']) delete old.elements[0].fill[key];
  delete old.elements[1].followsVariant;
  for (const element of old.elements) {
    delete element.link;
    delete element.effects;
  }
  for (const key of ['plane', 'known', 'gloss', 'occluder', 'areas', 'outline', 'mends', 'mended'])
    delete old.elements[0].fill.survey[key];
  for (const key of ['adjust', 'edges']) delete old.elements[0][key];
  const product = old.elements[1];
  for (const key of ['base', 'pitchDeg', 'liftMm', 'behind', 'reflection', 'tone', 'pack'])
    delete product[key];
  const { strength, contact } = product.shadow;
  product.shadow = { strength, contact, light: survey.light };
  const read = readShot(old);
  const [ground, stood] = read.elements;
  expect(ground).toEqual(now.elements[0]);
  // What older shots did not have begins as it was: no tone, no reflection, no haze; shadows by the scene's light, which does not fall on it,
  // in the shade that was usual then.
  expect(stood).toEqual({
    ...now.elements[1],
    tone: { strength: 0, limit: 6 },
    relight: 0,
    gloss: 0,
    blur: 0,
    haze: 0,
    shadow: { ...(now.elements[1] as ProductElement).shadow, tint: '#1c1712' },
  });
  const radial = {
    ...old.elements[0],
    fill: {
      type: 'radial',
      x: 0.5,
      y: 0.4,
      radius: 0.5,
      stops: [
        { at: 0, colour: '#ffffff' },
        { at: 1, colour: '#000000' },
      ],
    },
  };
  const [gradient] = readShot({ ...old, version: 3, elements: [radial] }).elements;
  expect(gradient.kind === 'backdrop' && gradient.fill).toMatchObject({
    form: 'radial',
    from: { x: 0.5, y: 0.4 },
  });
  expect(() => migrate({ version: 99 })).toThrow(/newer Scenograph/);
  expect(() => readShot([])).toThrow(/JSON object/);
  expect(() => readShot({ ...now, elements: [{ ...now.elements[1], opacity: 3 }] })).toThrow(/opacity/);
  expect(() => readKnownShot({ ...now, elements: [{ ...now.elements[1], kind: 'sound' }] })).toThrow(
    /kinds are backdrop/,
  );
  const fits = { 'm/s': { frame: { width: 100, height: 100 }, elements: { product: { opacity: 'no' } } } };
  expect(() => readShot({ ...now, fits })).toThrow(/difference kept for m\/s/);
});

const surveyed = readSceneFile(
  readFileSync(`${__dirname}/../../../demo/assets/scenes/potting-bench.json`, 'utf8'),
).survey;

test('a product moved along the ground follows the perspective, and keeps its share of true size when it leaves it', () => {
  const shot = sceneShot(data, 'stand', { ...scene, survey: surveyed });
  const { elements } = resolveBase(shot, data);
  const product = elements[1];
  if (product.kind !== 'product') throw new Error('no product');
  const ground = groundOf(elements);
  const frame = { width: 2000, height: 1500 };
  const ratio = (p: typeof product) => groundPlacement(p, ground, frame)!.ratio!;
  expect(ratio(product)).toBeCloseTo(1, 3);
  const near = { ...product, box: movedOnGround(product, { x: 900, y: 1350 }, ground, frame) };
  expect(near.box.width).toBeGreaterThan(product.box.width * 1.15);
  expect(ratio(near)).toBeCloseTo(1, 3);
  const large = { ...product, box: scaledOnBase(product, 1.38) };
  expect(ratio(large)).toBeCloseTo(1.38, 1);
  const moved = { ...large, box: movedOnGround(large, { x: 600, y: 1000 }, ground, frame) };
  expect(ratio(moved) / ratio(large)).toBeCloseTo(1, 2);
  expect(basePoint(moved)).toEqual({ x: expect.closeTo(600, 4), y: expect.closeTo(1000, 4) });
  const back = { ...moved, box: trueSizeBox(moved, ground, frame)! };
  expect(ratio(back)).toBeCloseTo(1, 2);
  // Above the horizon nothing stands: the size stays.
  expect(movedOnGround(product, { x: 600, y: 100 }, ground, frame).width).toBe(product.box.width);
});

test('a pack fits the slot as one, its copies stand on the ground, and another count fits again', () => {
  const at = slot(1600, 1600, { coverage: { min: 0.8, max: 0.95, wanted: 0.88 }, marginShare: 0.01 });
  const packed = (count: number): Shot => {
    const shot = whiteShot(data, 'stand');
    const pack = { form: 'row' as const, count, gap: 10, front: 'first' as const, others: [] };
    return {
      ...shot,
      elements: [shot.elements[0], { ...shot.elements[1], pack } as Shot['elements'][number]],
    };
  };
  for (const count of [2, 5]) {
    const { elements } = resolveForSlot(packed(count), 'm/s', at, data);
    const bounds = elementBounds(elements[1], null, at);
    expect(Math.max(bounds.width, bounds.height) / 1600).toBeCloseTo(0.88, 2);
    expect(spreadPacks(elements, null, at)).toHaveLength(count + 1);
  }
  // In the frame itself too: of any count it lies inside and takes its room.
  for (const count of [2, 6]) {
    const [, element] = packed(count).elements;
    if (element.kind !== 'product') throw new Error('no product');
    const frame = { width: 2000, height: 2000 };
    const b = elementBounds({ ...element, box: fitPack(element, null, frame) }, null, frame);
    expect(Math.max(b.width, b.height) / 2000).toBeCloseTo(0.88, 2);
    expect([b.x >= -0.5, b.y >= -0.5, b.x + b.width <= 2000.5, b.y + b.height <= 2000.5]).not.toContain(
      false,
    );
  }
  const shot = sceneShot(data, 'stand', { ...scene, survey: surveyed });
  const { elements } = resolveBase(shot, data);
  const ground = groundOf(elements);
  const pack = { form: 'staggered' as const, count: 5, gap: 0, front: 'first' as const, others: [] };
  const copies = spreadPacks([{ ...elements[1], pack } as Shot['elements'][number]], ground, shot.frame);
  const widths = copies.map((c) => c.box.width);
  // Painted from the back: those behind are smaller.
  expect(widths[0]).toBeLessThan(widths[4] * 0.95);
  for (const copy of copies)
    expect(copy.kind === 'product' && groundPlacement(copy, ground, shot.frame)!.ratio).toBeCloseTo(1, 1);
});

test('alignment and distribution move what was chosen, the first stays', () => {
  const at = (id: string, x: number, width: number) => ({
    ...newText(id, id, { width: 2000, height: 1000 }),
    box: { x, y: x / 2, width, height: 50, rotation: 0 },
  });
  const three = [at('a', 100, 100), at('b', 300, 50), at('c', 900, 200)];
  expect(alignMoves(three, 'right').get('b')).toEqual({ x: -150, y: 0 });
  expect(alignMoves(three, 'top').get('c')).toEqual({ x: 0, y: -400 });
  expect(alignMoves(three, 'left').get('a')).toEqual({ x: 0, y: 0 });
  const moves = distributeMoves(three, 'x');
  expect([moves.get('a')!.x, moves.get('b')!.x, moves.get('c')!.x]).toEqual([0, 225, 0]);
});

test('a shadow is told to fall on who stands in its way', () => {
  const shot = sceneShot(data, 'stand', { ...scene, survey: surveyed });
  const [ground, product] = resolveBase(shot, data).elements;
  if (product.kind !== 'product') throw new Error('no product');
  const frame = { width: 2000, height: 1500 };
  const plane = groundOf([ground]);
  const [, left] = surveyed.spots;
  const pot = (id: string, spot: typeof left) => ({
    ...product,
    id,
    name: id,
    box: movedOnGround(scaledTo(product, 0.8), { x: spot.x, y: spot.y }, plane, frame),
  });
  const casts = whatCastsOnWhat({
    ...frame,
    elements: [ground, pot('west', left), pot('middle', surveyed.spots[0])],
  });
  // The light comes from the left.
  expect(casts.get('west')).toEqual(['middle']);
  expect(casts.get('middle')).toBeUndefined();
});

const scaledTo = <P extends Parameters<typeof scaledOnBase>[0]>(product: P, k: number): P => ({
  ...product,
  box: scaledOnBase(product, k),
});
