import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { toLinear } from '../raster/colour';
import { createPlane, createRgba } from '../raster/pixels';
import { covers } from './artwork';
import { layInk, type InkLayer } from './lay-ink';
import { splitLight } from './light-split';
import { usualOpacity } from './material';
import { makeOptions, takeOption } from './options';
import { areaPxPerMm, newPrint } from './print';
import { NO_WORK } from './print-item';
import { shadePicture, shadeStops, type ShadeStroke } from './shade';

const [W, H] = [40, 30];
const RECT = { x: 0, y: 0, width: W, height: H };

/** A blank of one grey, lit from left to right. */
function blank(from = 200, to = 200) {
  const picture = createRgba(W, H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const v = from + ((to - from) * x) / (W - 1);
      picture.data.set([v, v, v, 255], (y * W + x) * 4);
    }
  return picture;
}
const split = (picture = blank(), stock: 'light' | 'dark' = 'light') =>
  splitLight(picture, RECT, new Float32Array(W * H).fill(1), { stock, glossy: false });

/** A design of one colour with so much alpha, premultiplied as layers are. */
function layer(colour: [number, number, number], value: Partial<InkLayer> = {}, alpha = 255): InkLayer {
  const design = createRgba(W, H);
  for (let i = 0; i < W * H; i++) design.data.set([...colour.map((v) => (v * alpha) / 255), alpha], i * 4);
  return { design, lay: 'multiply', opacity: 1, grain: 1, gloss: 0, within: null, ...value };
}
const at = (picture: { data: Uint8ClampedArray }, x: number, y: number) => [
  ...picture.data.subarray((y * W + x) * 4, (y * W + x) * 4 + 3),
];

test('multiplied, white ink leaves the stock as it is and black hides it', () => {
  const picture = blank();
  layInk(picture, split(), [layer([255, 255, 255])]);
  expect(at(picture, 20, 15)).toEqual([200, 200, 200]);
  layInk(picture, split(), [layer([0, 0, 0])]);
  expect(Math.max(...at(picture, 20, 15))).toBeLessThan(3);
});

test('multiplied ink takes its share of each colour of light', () => {
  const picture = blank();
  layInk(picture, split(), [layer([188, 255, 99])]);
  const [r, g, b] = at(picture, 20, 15).map(toLinear);
  const stock = toLinear(200);
  expect(r).toBeCloseTo(stock * toLinear(188), 1);
  expect(g).toBeCloseTo(stock, 2);
  expect(b).toBeCloseTo(stock * toLinear(99), 1);
});

test('covering ink on a light stock has the colour of the light that falls there, and a saturated stock keeps its own cast to itself', () => {
  const printed = (stock: [number, number, number]) => {
    const picture = createRgba(W, H);
    for (let i = 0; i < W * H; i++) picture.data.set([...stock, 255], i * 4);
    const parts = splitLight(picture, RECT, new Float32Array(W * H).fill(1), {
      stock: 'light',
      glossy: false,
    });
    layInk(picture, parts, [layer([255, 255, 255], { lay: 'opaque' })]);
    return at(picture, 20, 15);
  };
  const [r, , b] = printed([222, 214, 205]);
  expect(r).toBeGreaterThan(230);
  expect(r - b).toBeGreaterThan(6);
  expect(r - b).toBeLessThan(222 - 205);
  const kraft = printed([222, 190, 120]);
  expect(Math.max(...kraft) - Math.min(...kraft)).toBeLessThan(4);
  // Brown paper so light is lit more than white could be shown: white on it rolls off below 255.
  expect(kraft[0]).toBeGreaterThan(240);
  expect(kraft[0]).toBeLessThan(255);
});

test('what leaves nothing clear is laid over white where it is placed, and hides all that it lies on', () => {
  const artwork = { hash: 'a'.repeat(64), width: 40, height: 30 };
  expect(newPrint('p', 'Photo', { ...artwork, covers: true }, AREA).lay).toBe('opaque');
  expect(newPrint('p', 'Leaf', artwork, AREA).lay).toBeNull();
  const photo = createRgba(20, 20);
  photo.data.fill(255);
  expect(covers(photo)).toBe(true);
  for (let i = 0; i < 20; i++) photo.data[i * 4 + 3] = 0;
  expect(covers(photo)).toBe(false);
  expect([usualOpacity('paper', 'opaque'), usualOpacity('paper', 'multiply') < 1]).toEqual([1, true]);
});

test('covering ink is as bright as its stock allows, whatever lies under it', () => {
  const dark = blank(40, 40);
  layInk(dark, split(blank(40, 40), 'dark'), [layer([255, 255, 255], { lay: 'opaque' })]);
  expect(at(dark, 20, 15)[0]).toBeGreaterThan(150);
});

test('no ink changes nothing: transparent, of no opacity, or outside of where it may lie', () => {
  for (const none of [
    layer([10, 20, 30], {}, 0),
    layer([10, 20, 30], { opacity: 0 }),
    layer([10, 20, 30], { within: new Float32Array(W * H) }),
  ]) {
    const picture = blank(120, 220);
    layInk(picture, split(blank(120, 220)), [none]);
    expect([...picture.data]).toEqual([...blank(120, 220).data]);
  }
});

test('ink is lit as its blank is lit: darker where that is darker, in the same proportion', () => {
  const picture = blank(120, 230);
  layInk(picture, split(blank(120, 230)), [layer([200, 60, 60])]);
  const before = blank(120, 230);
  const ratio = (x: number) => toLinear(at(picture, x, 15)[0]) / toLinear(at(before, x, 15)[0]);
  expect(ratio(8) / ratio(32)).toBeCloseTo(1, 1);
});

test('half the ink lies between none and all of it', () => {
  fc.assert(
    fc.property(
      fc.nat(255),
      fc.nat(255),
      fc.nat(255),
      fc.double({ min: 0.05, max: 0.95, noNaN: true }),
      (r, g, b, opacity) => {
        const with_ = (o: number) => {
          const picture = blank();
          layInk(picture, split(), [layer([r, g, b], { opacity: o })]);
          return at(picture, 20, 15);
        };
        const [some, all] = [with_(opacity), with_(1)];
        some.forEach((v, c) => {
          expect(v).toBeLessThanOrEqual(200 + 1);
          expect(v).toBeGreaterThanOrEqual(all[c] - 1);
        });
      },
    ),
    { numRuns: 30 },
  );
});

const stroke = (value: Partial<ShadeStroke>): ShadeStroke => ({
  id: 's',
  points: [[20, 15]],
  radius: 8,
  softness: 0.5,
  amount: -1,
  hidden: false,
  ...value,
});

test('strokes of shade add up in stops; hidden ones and those of no amount do nothing', () => {
  expect(shadeStops([stroke({ hidden: true }), stroke({ amount: 0 })], W, H, 1)).toBeNull();
  const one = shadeStops([stroke({})], W, H, 1)!.data[15 * W + 20];
  expect(one).toBeCloseTo(-1.6, 5);
  expect(shadeStops([stroke({}), stroke({})], W, H, 1)!.data[15 * W + 20]).toBeCloseTo(2 * one, 5);
  expect(shadeStops([stroke({})], W * 2, H * 2, 2)!.data[30 * W * 2 + 40]).toBeCloseTo(one, 1);
});

test('light rolls off before it clips, and shade keeps to the outline', () => {
  const picture = blank();
  const outline = createPlane(W, H);
  outline.data.fill(1, 0, (W * H) / 2);
  shadePicture(picture, createPlane(W, H, 0.8), outline);
  expect(at(picture, 5, 2)[0]).toBeGreaterThan(235);
  expect(at(picture, 5, 2)[0]).toBeLessThan(255);
  expect(at(picture, 5, 28)[0]).toBe(200);
});

const AREA = {
  id: 'front',
  title: 'Front',
  shape: 'flat',
  corners: [[10, 10], [110, 10], [110, 60], [10, 60]],
  edges: null,
  widthMm: 100,
  heightMm: 50,
  wrapDeg: null,
  bulgeMm: 0,
  material: 'paper',
  stock: 'light',
} as never; // prettier-ignore
const design = (n: number, width: number, height: number) => ({
  title: `Design ${n}`,
  hash: String(n).repeat(64).slice(0, 64),
  width,
  height,
  drawn: null,
  knockOut: 0,
  covers: n === 3,
});
const print = newPrint('p', 'Leaf', { hash: 'a'.repeat(64), width: 400, height: 200 }, AREA);
const work = { ...NO_WORK, prints: [print] };

test('options are every design in every ink on every colour, each with a name that tells it apart', () => {
  const options = makeOptions(work, 'p', {
    designs: [design(1, 100, 100), design(2, 300, 100)],
    inks: [null, '#203040'],
    colours: [null, '#aa0000', '#00aa00'],
  });
  expect(options).toHaveLength(12);
  expect(new Set(options.map((o) => o.title)).size).toBe(12);
  expect(new Set(options.map((o) => o.id)).size).toBe(12);
  expect(options[0].title).toBe('Design 1, own colours, item as it is');
});

test('a design of another shape keeps its middle and stays within the box of the one before', () => {
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 4000 }), fc.integer({ min: 10, max: 4000 }), (width, height) => {
      const [first] = makeOptions(work, 'p', {
        designs: [design(1, width, height), design(2, 9, 9)],
        inks: [],
        colours: [],
      });
      const { place } = first.prints[0];
      expect([place.x, place.y]).toEqual([print.place.x, print.place.y]);
      expect(place.width).toBeLessThanOrEqual(print.place.width + 1e-9);
      expect(place.height).toBeLessThanOrEqual(print.place.height + 1e-9);
      expect(place.height / place.width).toBeCloseTo(height / width, 6);
    }),
  );
});

test('an option with a design that leaves nothing clear lays it over white; others keep how the ink lies', () => {
  const designs = [design(1, 100, 100), design(3, 100, 100)];
  const lays = (lay: 'multiply' | null) =>
    makeOptions({ ...work, prints: [{ ...print, lay }] }, 'p', { designs, inks: [], colours: [] }).map(
      (o) => o.prints[0].lay,
    );
  expect(lays(null)).toEqual([null, 'opaque']);
  expect(lays('multiply')).toEqual(['multiply', 'opaque']);
});

test('options that are none, too many, or of no design are refused with a sentence', () => {
  const none = { designs: [], inks: [], colours: [] };
  expect(() => makeOptions(work, 'p', none)).toThrow(/at least two/);
  expect(() => makeOptions(work, 'gone', none)).toThrow(/Choose first/);
  const many = {
    designs: [],
    inks: Array.from({ length: 61 }, (_, i) => `#0000${(16 + i).toString(16)}`),
    colours: [],
  };
  expect(() => makeOptions(work, 'p', many)).toThrow(/up to 60/);
});

test('an option that is taken over changes the work and leaves the options; further ones get new ids', () => {
  const first = makeOptions(work, 'p', { designs: [], inks: [null, '#203040'], colours: [] });
  const before = { ...work, options: first };
  const taken = takeOption(before, first[1]);
  expect(taken.prints[0].ink).toBe('#203040');
  expect(taken.options).toBe(first);
  const more = makeOptions(before, 'p', { designs: [], inks: [], colours: [null, '#ff0000'] });
  expect(more.map((o) => o.id)).toEqual(['option-3', 'option-4']);
});

test('an area knows its pixels a millimetre', () => {
  expect(areaPxPerMm(AREA)).toBeCloseTo(1, 6);
});
