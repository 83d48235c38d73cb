import { expect, test } from '@jest/globals';
import { createRgba } from '../raster/pixels';
import { solveClosedForm } from './closed-form';

const [W, H] = [40, 24];
const FRONT = [200, 60, 40];
const BACK = [240, 240, 236];

/** A product on the left with an edge `soft` pixels wide at x = 20: the picture and the true matte. */
function softEdge(soft: number) {
  const image = createRgba(W, H);
  const truth = new Float32Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      const a = Math.min(1, Math.max(0, 0.5 - (x - 20) / soft));
      truth[i] = a;
      for (let c = 0; c < 3; c++) image.data[i * 4 + c] = a * FRONT[c] + (1 - a) * BACK[c];
      image.data[i * 4 + 3] = 255;
    }
  return { image, truth };
}

test('a band of unknown pixels takes the colours own slope, whatever it began with', () => {
  const { image, truth } = softEdge(8);
  const alpha = Float32Array.from(truth);
  const unknown: number[] = [];
  for (let i = 0; i < W * H; i++) if (Math.abs((i % W) - 20) < 7) unknown.push(i);
  for (const p of unknown) alpha[p] = 0.5;
  const wish = new Float32Array(unknown.length).fill(0.5);
  solveClosedForm(image, alpha, Int32Array.from(unknown), wish, new Float32Array(unknown.length), 400);
  for (let x = 13; x < 28; x++) expect(alpha[12 * W + x]).toBeCloseTo(truth[12 * W + x], 1);
});

test('only what is asked for changes, and it stays within 0 and 1', () => {
  const { image } = softEdge(2);
  const alpha = new Float32Array(W * H).map((_, i) => (i % W < 20 ? 1 : 0));
  const before = Float32Array.from(alpha);
  const unknown = Int32Array.from([10 * W + 19, 10 * W + 20, 11 * W + 20]);
  solveClosedForm(image, alpha, unknown, new Float32Array([5, -4, 9]), new Float32Array(3).fill(0.9), 20);
  alpha.forEach((v, i) => {
    if (!unknown.includes(i)) expect(v).toBe(before[i]);
    expect(v).toBeGreaterThanOrEqual(0);
    expect(v).toBeLessThanOrEqual(1);
  });
});

test('a wish of great weight is fulfilled', () => {
  const { image, truth } = softEdge(6);
  const alpha = Float32Array.from(truth);
  const p = 12 * W + 20;
  solveClosedForm(image, alpha, Int32Array.of(p), Float32Array.of(0.9), Float32Array.of(1e4), 30);
  expect(alpha[p]).toBeCloseTo(0.9, 2);
});

test('pictures too small for a window, and nothing unknown, are left as they are', () => {
  const alpha = Float32Array.of(0.2, 0.7);
  solveClosedForm(
    createRgba(2, 1),
    alpha,
    Int32Array.of(0, 1),
    Float32Array.of(1, 1),
    Float32Array.of(1, 1),
    5,
  );
  expect([...alpha].map((v) => v.toFixed(1))).toEqual(['0.2', '0.7']);
});
