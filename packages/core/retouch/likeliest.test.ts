import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seededRandom } from '../raster/random';
import { extendInward } from './extend';
import { likeliest } from './likeliest';
import { depthOf } from './patch-match';

const [W, H] = [60, 50];
const inside = Uint8Array.from({ length: W * H }, (_, i) => {
  const [x, y] = [i % W, Math.floor(i / W)];
  return x >= 18 && x < 42 && y >= 14 && y < 36 ? 1 : 0;
});
const hole = { width: W, height: H, texture: new Float32Array(0), inside };
const painted = (of: (x: number, y: number) => number) =>
  Float32Array.from({ length: W * H * 3 }, (_, j) => of(Math.floor(j / 3) % W, Math.floor(j / 3 / W)));
const squares = (a: Float32Array, b: Float32Array) =>
  a.reduce((s, v, j) => s + (inside[Math.floor(j / 3)] ? (v - b[j]) ** 2 : 0), 0) /
  (3 * inside.reduce((s, v) => s + v, 0));

const stripes = painted((x) => (x % 10 < 5 ? 60 : 200));

/** Stripes with grain of its own in the hole for each seed. */
function grainy(seed: number, grain: number): Float32Array {
  const random = seededRandom(seed);
  return stripes.map((v, j) => v + (inside[Math.floor(j / 3)] ? (random() - 0.5) * 2 * grain : 0));
}

test('what all tries agree on stays as sharp as it is; their own grain goes', () => {
  const tries = [1, 2, 3].map((seed) => grainy(seed, 12));
  const { colour, disagreement } = likeliest(tries, inside, W, H);
  expect(squares(colour, stripes)).toBeLessThan(squares(tries[0], stripes) * 0.5);
  // The step from one stripe to the next is still there.
  expect(colour[(25 * W + 36) * 3] - colour[(25 * W + 33) * 3]).toBeGreaterThan(90);
  expect(disagreement[25 * W + 30]).toBeGreaterThan(5);
  expect(disagreement[0]).toBe(0);
});

test('where tries are at odds their smooth mean is likeliest: it errs less than any of them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9999 }), (seed) => {
      const noise = (n: number) => {
        const random = seededRandom(seed * 7 + n);
        return painted(() => 0).map((_, j) => (inside[Math.floor(j / 3)] ? 60 + 120 * random() : 120));
      };
      const truth = noise(0);
      const tries = [noise(1), noise(2), noise(3)];
      const { colour } = likeliest(tries, inside, W, H);
      for (const one of tries) expect(squares(colour, truth)).toBeLessThan(squares(one, truth) * 0.75);
    }),
    { numRuns: 15 },
  );
});

test('outside the hole nothing is changed', () => {
  const tries = [4, 5].map((seed) => grainy(seed, 30));
  const { colour } = likeliest(tries, inside, W, H);
  colour.forEach((v, j) => {
    if (!inside[Math.floor(j / 3)]) expect(v).toBe(stripes[j]);
  });
});

test('a slope is carried on inward from the border, and no pixel of the hole is left open', () => {
  const slope = painted((x, y) => 40 + x * 2 + y);
  const known = slope.map((v, j) => (inside[Math.floor(j / 3)] ? NaN : v));
  const out = extendInward(known, W, H, 3, depthOf(hole));
  for (let i = 0; i < inside.length; i++)
    for (let c = 0; c < 3; c++)
      if (inside[i]) expect(Math.abs(out[i * 3 + c] - slope[i * 3 + c])).toBeLessThan(30);
      else expect(out[i * 3 + c]).toBe(0);
  // Beside the border it is nearly what it was.
  const beside = 14 * W + 30;
  expect(Math.abs(out[beside * 3] - slope[beside * 3])).toBeLessThan(4);
});
