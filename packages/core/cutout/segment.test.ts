import { expect, test } from '@jest/globals';
import { seededRandom } from '../raster/random';
import { analyse } from './segment';

const [W, H] = [101, 75];
const OPTIONS = { holes: true, shadows: true };
const inside = (x: number, y: number) => Math.hypot(x - 50, y - 37) < 20;

/** A dark disc on a pale sweep with a little grain. */
function disc() {
  const random = seededRandom(4);
  const lab = new Float32Array(W * H * 3);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const grain = (random() - 0.5) * 0.01;
      lab.set(
        inside(x, y) ? [0.4 + grain, 0.08, 0.05] : [0.9 - x * 0.0004 + grain, 0, 0.01],
        (y * W + x) * 3,
      );
    }
  return lab;
}

const share = (of: ArrayLike<number>, test: (i: number, x: number, y: number) => boolean) => {
  let n = 0;
  for (let i = 0; i < of.length; i++) if (test(i, i % W, Math.floor(i / W))) n++;
  return n / of.length;
};

test('where model and colours agree the outline is theirs', () => {
  const data = Float32Array.from({ length: W * H }, (_, i) => (inside(i % W, Math.floor(i / W)) ? 0.9 : 0.1));
  const seen = { width: W, height: H, data: new Float32Array(W * H) };
  const { product } = analyse(disc(), W, H, OPTIONS, {
    shape: { width: W, height: H, data },
    seen,
    agreement: 1,
  });
  expect(share(product, (i, x, y) => (product[i] === 1) !== inside(x, y))).toBeLessThan(0.002);
});

test('without a model, colour stands alone at the whole size', () => {
  const analysis = analyse(disc(), W, H, OPTIONS);
  expect(analysis.shape).toBeNull();
  expect(analysis.product).toBe(analysis.byColour.product);
  expect(share(analysis.product, (i, x, y) => (analysis.product[i] === 1) !== inside(x, y))).toBeLessThan(
    0.01,
  );
});
