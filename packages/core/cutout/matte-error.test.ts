import fc from 'fast-check';
import { createPlane, type Plane } from '../raster/pixels';
import { matteError } from './matte-error';

const plane = fc
  .integer({ min: 4, max: 24 })
  .chain((side) =>
    fc
      .array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: side * side, maxLength: side * side })
      .map((values): Plane => ({ width: side, height: side, data: Float32Array.from(values) })),
  );
const edgeAt = (x: number): Plane => {
  const p = createPlane(40, 40);
  for (let i = 0; i < p.data.length; i++) p.data[i] = i % 40 < x ? 1 : 0;
  return p;
};

test('a matte has no error against itself, and its opposite the greatest', () => {
  fc.assert(
    fc.property(plane, (p) => {
      expect(matteError(p, p)).toEqual({ sad: 0, mse: 0, gradient: 0 });
      const other = { ...p, data: p.data.map((v) => 1 - Math.round(v)) };
      const whole = { ...p, data: p.data.map((v) => Math.round(v)) };
      expect(matteError(whole, other).mse).toBe(1);
    }),
  );
});

test('errors are the same either way round', () => {
  fc.assert(
    fc.property(plane, plane, (a, b) => {
      if (a.width !== b.width) return;
      const [there, back] = [matteError(a, b), matteError(b, a)];
      for (const key of ['sad', 'mse', 'gradient'] as const) expect(there[key]).toBeCloseTo(back[key], 9);
    }),
  );
});

test('are in the units that the literature gives: shares of pixels, thousands of pixels', () => {
  const error = matteError(edgeAt(20), edgeAt(22));
  expect(error.mse).toBeCloseTo(80 / 1600, 9);
  expect(error.sad).toBeCloseTo(80 / 1000, 9);
});

test('the gradient tells a soft edge in the right place from a steep one', () => {
  const soft = edgeAt(20);
  for (let y = 0; y < 40; y++) for (let x = 14; x < 26; x++) soft.data[y * 40 + x] = (26 - x) / 12;
  expect(matteError(soft, edgeAt(20)).gradient).toBeGreaterThan(0.002);
});

test('mattes of different sizes are refused with both sizes', () => {
  expect(() => matteError(createPlane(3, 4), createPlane(4, 3))).toThrow('3x4 and 4x3 pixels');
});
