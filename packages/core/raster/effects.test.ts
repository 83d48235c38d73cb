import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  effectLayers,
  effectsReach,
  effectsSchema,
  hasEffects,
  NO_EFFECTS,
  scaledEffects,
  type Effects,
} from './effects';
import { createRgba } from './pixels';

const SIZE = 80;
/** A black square from 30 to 50. */
function square() {
  const image = createRgba(SIZE, SIZE);
  for (let y = 30; y < 50; y++) for (let x = 30; x < 50; x++) image.data[(y * SIZE + x) * 4 + 3] = 255;
  return image;
}
const layers = (value: Partial<Effects>, k = 1) => effectLayers(square(), { ...NO_EFFECTS, ...value }, k);
const shadow = (value: object = {}) => ({ x: 0, y: 0, blur: 0, colour: '#102030', opacity: 1, ...value });
const alphaAt = (image: { data: Uint8ClampedArray } | null, x: number, y: number) =>
  image ? image.data[(y * SIZE + x) * 4 + 3] : 0;

test('nothing is laid where nothing is asked for, or with no opacity', () => {
  expect(hasEffects(NO_EFFECTS)).toBe(false);
  expect(layers({})).toEqual({ under: null, over: null });
  expect(layers({ glow: { size: 5, colour: '#ff0000', opacity: 0 } }).under).toBeNull();
});

test('a drop shadow is the shape moved, in its colour', () => {
  const { under, over } = layers({ dropShadow: shadow({ x: 12, y: -6 }) });
  expect(over).toBeNull();
  expect([...under!.data.subarray((30 * SIZE + 50) * 4, (30 * SIZE + 50) * 4 + 4)]).toEqual([
    16, 32, 48, 255,
  ]);
  expect(alphaAt(under, 33, 48)).toBe(0);
});

test('an outline is as wide as asked all around, and as wide again at twice the size', () => {
  const outline = { width: 4, colour: '#ffffff', opacity: 1 };
  const one = layers({ outline }).under;
  const two = layers({ outline }, 2).under;
  for (const [x, y] of [[27, 40], [40, 27], [52, 40], [40, 52]]) expect(alphaAt(one, x, y)).toBe(255); // prettier-ignore
  expect(alphaAt(one, 24, 40)).toBe(0);
  expect(alphaAt(two, 24, 40)).toBe(255);
  expect(alphaAt(two, 20, 40)).toBe(0);
});

test('a glow is full at the edge and fades outward', () => {
  const { under } = layers({ glow: { size: 10, colour: '#ffffff', opacity: 1 } });
  const along = [30, 27, 24, 20].map((x) => alphaAt(under, x, 40));
  expect(along[0]).toBeGreaterThan(220);
  for (let i = 1; i < along.length; i++) expect(along[i]).toBeLessThan(along[i - 1]);
});

test('an inner shadow lies over the shape alone, on the side from which it falls', () => {
  const { under, over } = layers({ innerShadow: shadow({ x: 5, y: 0 }) });
  expect(under).toBeNull();
  expect(alphaAt(over, 32, 40)).toBe(255);
  expect(alphaAt(over, 42, 40)).toBe(0);
  expect(alphaAt(over, 25, 40)).toBe(0);
});

const effects = fc.record({
  outline: fc.option(fc.record({ width: fc.double({ min: 0, max: 20, noNaN: true }), colour: fc.constant('#aa3300'), opacity: fc.constant(1) }), { nil: null }),
  glow: fc.option(fc.record({ size: fc.double({ min: 0, max: 14, noNaN: true }), colour: fc.constant('#00ff00'), opacity: fc.constant(1) }), { nil: null }),
  dropShadow: fc.option(
    fc.record({
      x: fc.double({ min: -12, max: 12, noNaN: true }),
      y: fc.double({ min: -12, max: 12, noNaN: true }),
      blur: fc.double({ min: 0, max: 8, noNaN: true }),
      colour: fc.constant('#000000'),
      opacity: fc.constant(1),
    }),
    { nil: null },
  ),
  innerShadow: fc.constant(null),
}); // prettier-ignore

test('effects stay within the reach that is told, and it grows with them', () => {
  fc.assert(
    fc.property(effects, (value) => {
      const reach = effectsReach(value);
      const { under } = effectLayers(square(), value, 1);
      let faintest = 0;
      for (let y = 0; y < SIZE; y++)
        for (let x = 0; x < SIZE; x++)
          if (x < 30 - reach - 1 || x > 50 + reach || y < 30 - reach - 1 || y > 50 + reach)
            faintest = Math.max(faintest, alphaAt(under, x, y));
      // What is fainter than 4 of 255 is not seen.
      expect(faintest).toBeLessThanOrEqual(4);
      expect(effectsReach(scaledEffects(value, 3))).toBeGreaterThanOrEqual(reach);
    }),
    { numRuns: 40 },
  );
});

test('what is scaled is still valid, and scaled back it is what it was', () => {
  fc.assert(
    fc.property(effects, (value) => {
      expect(effectsSchema.validate(scaledEffects(value, 2)).error).toBeUndefined();
      const back = scaledEffects(scaledEffects(value, 2), 0.5);
      expect(back).toEqual(value);
    }),
  );
});
