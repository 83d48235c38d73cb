import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { propagate } from './propagate';
import { spread } from './spread';

const [W, H] = [24, 16];

test('colours go on ring by ring, no farther than asked', () => {
  const colours = new Float32Array(W * H * 3);
  const known = new Uint8Array(W * H);
  for (let y = 0; y < H; y++) {
    known[y * W] = 1;
    colours.set([10, 20, 30], y * W * 3);
  }
  const todo = Int32Array.from({ length: W * H }, (_, i) => i).filter((i) => !known[i]);
  const rest = propagate(colours, known, todo, W, H, 5);
  expect(known[5]).toBe(1);
  expect(known[6]).toBe(0);
  expect(rest.length).toBe((W - 6) * H);
  expect([...colours.subarray(5 * 3, 5 * 3 + 3)]).toEqual([10, 20, 30]);
});

test('an island that is not asked for is not crossed', () => {
  const colours = new Float32Array(W * H * 3).fill(7);
  const known = new Uint8Array(W * H);
  known[0] = 1;
  // Column 3 is left out: beyond it nothing is reached.
  const todo = Int32Array.from({ length: W * H }, (_, i) => i).filter((i) => i % W !== 3 && i !== 0);
  const rest = propagate(colours, known, todo, W, H, 100);
  expect(rest.every((i) => i % W > 3)).toBe(true);
  expect(rest.length).toBe((W - 4) * H);
});

const seeds = fc.array(fc.record({ at: fc.nat(W * H - 1), value: fc.integer({ min: 0, max: 255 }) }), {
  minLength: 1,
  maxLength: 12,
});

test('no carried colour lies outside of those that were known', () => {
  fc.assert(
    fc.property(seeds, (list) => {
      const colours = new Float32Array(W * H * 3);
      const known = new Uint8Array(W * H);
      for (const { at, value } of list) {
        colours.fill(value, at * 3, at * 3 + 3);
        known[at] = 1;
      }
      const values = list.map(({ at }) => colours[at * 3]);
      const rest = propagate(
        colours,
        known,
        Int32Array.from({ length: W * H }, (_, i) => i),
        W,
        H,
        100,
      );
      expect(rest).toHaveLength(0);
      const carried = Array.from({ length: W * H }, (_, i) => colours[i * 3]);
      expect(Math.min(...carried)).toBeGreaterThanOrEqual(Math.min(...values) - 1e-3);
      expect(Math.max(...carried)).toBeLessThanOrEqual(Math.max(...values) + 1e-3);
    }),
    { numRuns: 40 },
  );
});

test('pull-push keeps what is known, fills all the rest, and stays within what was known', () => {
  fc.assert(
    fc.property(seeds, (list) => {
      const values = new Float32Array(W * H);
      const weight = new Float32Array(W * H);
      for (const { at, value } of list) {
        values[at] = value;
        weight[at] = 1;
      }
      const known = list.map(({ at }) => values[at]);
      const out = spread(values, weight, W, H, 1);
      for (const { at } of list) expect(out[at]).toBeCloseTo(values[at], 4);
      expect(Math.min(...out)).toBeGreaterThanOrEqual(Math.min(...known) - 1e-3);
      expect(Math.max(...out)).toBeLessThanOrEqual(Math.max(...known) + 1e-3);
    }),
    { numRuns: 40 },
  );
});

test('where nothing is known pull-push gives nothing', () => {
  expect(
    spread(new Float32Array(W * H).fill(9), new Float32Array(W * H), W, H, 1).every((v) => v === 0),
  ).toBe(true);
});
