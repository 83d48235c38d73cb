import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seededRandom } from '../raster/random';
import { fitBackground } from './background';

const [W, H] = [60, 40];
type Surface = (u: number, v: number) => [number, number, number];

/** A sweep as `of` says, u and v from -1 to 1, with grain; `use` is its border, six pixels wide. */
function sweep(of: Surface, grain = 0.002, seed = 1) {
  const random = seededRandom(seed);
  const lab = new Float32Array(W * H * 3);
  const use = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      of((x / W) * 2 - 1, (y / H) * 2 - 1).forEach((v, c) => {
        lab[i * 3 + c] = v + (random() - 0.5) * 2 * grain;
      });
      if (x < 6 || y < 6 || x >= W - 6 || y >= H - 6) use[i] = 1;
    }
  return { lab, use };
}

/** The largest difference of a fitted surface from what was made, all pixels, all channels. */
function worst(surface: Float32Array, of: Surface): number {
  let most = 0;
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++)
      of((x / W) * 2 - 1, (y / H) * 2 - 1).forEach((v, c) => {
        most = Math.max(most, Math.abs(surface[(y * W + x) * 3 + c] - v));
      });
  return most;
}

const gradient: Surface = (u, v) => [0.8 - 0.06 * u + 0.05 * v * v, 0.01 + 0.004 * u, 0.02 - 0.006 * v];

test('the border alone tells the surface behind the product', () => {
  const { lab, use } = sweep(gradient);
  const model = fitBackground(lab, use, W, H, 6);
  expect(worst(model.surface(), gradient)).toBeLessThan(0.003);
});

test('a product that touches the border is ignored', () => {
  const { lab, use } = sweep(gradient);
  for (let y = 10; y < H; y++) for (let x = 20; x < 32; x++) lab.set([0.3, 0.1, 0.08], (y * W + x) * 3);
  const model = fitBackground(lab, use, W, H, 6);
  expect(worst(model.surface(), gradient)).toBeLessThan(0.005);
});

test('the noise is that of the backdrop, and never so small that everything stands off', () => {
  const noise = (grain: number) => {
    const { lab, use } = sweep(() => [0.8, 0, 0], grain);
    return fitBackground(lab, use, W, H, 3).sigma[0];
  };
  // Evenly spread over +-0.02: a robust deviation is 1.4826 times half of that.
  expect(noise(0.02)).toBeCloseTo(0.0148, 3);
  expect(noise(0)).toBe(0.0018);
});

test('at() and surface() tell the same', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -0.1, max: 0.1, noNaN: true }), { minLength: 10, maxLength: 10 }),
      fc.constantFrom<3 | 6 | 10>(3, 6, 10),
      fc.nat(W - 1),
      fc.nat(H - 1),
      (k, terms, x, y) => {
        const of: Surface = (u, v) => [
          0.7 + k[0] * u + k[1] * v + k[2] * u * v + k[3] * u ** 3,
          k[4] * u,
          k[5] * v,
        ];
        const { lab, use } = sweep(of, 0);
        const model = fitBackground(lab, use, W, H, terms);
        const out = new Float64Array(3);
        model.at(x, y, out);
        const there = model.surface().subarray((y * W + x) * 3, (y * W + x) * 3 + 3);
        for (let c = 0; c < 3; c++) expect(there[c]).toBeCloseTo(out[c], 5);
      },
    ),
    { numRuns: 30 },
  );
});
