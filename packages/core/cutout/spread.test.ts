import fc from 'fast-check';
import { spread } from './spread';

const side = fc.integer({ min: 1, max: 33 });
const value = fc.double({ min: -50, max: 50, noNaN: true });
const picture = fc.tuple(side, side).chain(([width, height]) =>
  fc.record({
    width: fc.constant(width),
    height: fc.constant(height),
    values: fc.array(value, { minLength: width * height, maxLength: width * height }),
    known: fc.array(fc.boolean(), { minLength: width * height, maxLength: width * height }),
  }),
);

test('what is known stays, what is not lies between the least and the most of it', () => {
  fc.assert(
    fc.property(picture, ({ width, height, values, known }) => {
      const weight = Float32Array.from(known, (k) => (k ? 1 : 0));
      const given = Float32Array.from(values);
      const out = spread(given, weight, width, height, 1);
      const seen = [...given].filter((_, i) => known[i]);
      if (!seen.length) return;
      const [least, most] = [Math.min(...seen), Math.max(...seen)];
      out.forEach((v, i) => {
        if (known[i]) expect(v).toBeCloseTo(given[i], 4);
        expect(v).toBeGreaterThanOrEqual(least - 1e-3);
        expect(v).toBeLessThanOrEqual(most + 1e-3);
      });
    }),
  );
});

test('channels do not mix', () => {
  const n = 12 * 9;
  const values = new Float32Array(n * 3);
  const weight = new Float32Array(n);
  values.set([10, -20, 30], 40 * 3);
  weight[40] = 1;
  const out = spread(values, weight, 12, 9, 3);
  for (let i = 0; i < n; i++)
    expect([...out.subarray(i * 3, i * 3 + 3)]).toEqual([10, -20, 30].map((v) => expect.closeTo(v, 4)));
});

test('a gap between two sides is bridged smoothly', () => {
  const width = 64;
  const weight = Float32Array.from({ length: width }, (_, x) => (x < 8 || x >= 56 ? 1 : 0));
  const values = Float32Array.from({ length: width }, (_, x) => (x < 8 ? 0 : 1));
  const out = spread(values, weight, width, 1, 1);
  for (let x = 1; x < width; x++) {
    expect(out[x]).toBeGreaterThanOrEqual(out[x - 1] - 0.02);
    expect(out[x] - out[x - 1]).toBeLessThan(0.2);
  }
  expect(out[32]).toBeCloseTo(0.5, 1);
});

test('where nothing is known all is nought', () => {
  expect([...spread(new Float32Array(15).fill(7), new Float32Array(15), 5, 3, 1)].every((v) => v === 0)).toBe(
    true,
  );
});
