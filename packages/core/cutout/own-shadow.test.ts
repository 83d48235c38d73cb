import { oklabPixels } from '../raster/colour';
import { createRgba } from '../raster/pixels';
import { fitBackground } from './background';
import { recoverOwnShadow } from './own-shadow';
import { shadingOf } from './shading';

const W = 160;
const H = 120;
const inBox = (x: number, y: number) => x >= 60 && x < 90 && y >= 40 && y < 80;

/** A box on pale paper, whose pixels are darkened by `dark`, 0..1. */
function scene(dark: (x: number, y: number) => number) {
  const small = createRgba(W, H);
  const product = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      product[i] = inBox(x, y) ? 1 : 0;
      const k = 1 - dark(x, y);
      small.data.set(product[i] ? [30, 90, 90, 255] : [230 * k, 228 * k, 222 * k, 255], i * 4);
    }
  const lab = oklabPixels(small);
  const open = Uint8Array.from(product, (v, i) => (v || dark(i % W, Math.floor(i / W)) > 0.01 ? 0 : 1));
  const model = fitBackground(lab, open, W, H, 6);
  return recoverOwnShadow({ model, shading: shadingOf(lab, W, H, model, true) }, product, small, 4);
}
/** A soft patch beside the box's foot. */
const beside = (x: number, y: number) => 0.4 * Math.exp(-(((x - 100) / 14) ** 2 + ((y - 76) / 8) ** 2));

test('the shadow beside a product is kept as black with as much alpha as it darkens the paper', () => {
  const shadow = scene(beside)!;
  expect(shadow.bounds.width / shadow.image.width).toBe(4);
  const at = (x: number, y: number) => {
    const i = (y - shadow.bounds.y / 4) * shadow.image.width + (x - shadow.bounds.x / 4);
    return [...shadow.image.data.subarray(i * 4, i * 4 + 4)];
  };
  const [r, g, b, alpha] = at(100, 76);
  expect([r, g, b]).toEqual([0, 0, 0]);
  expect(alpha / 255).toBeCloseTo(0.4, 1);
  expect(at(116, 76)[3]).toBeLessThan(at(106, 76)[3]);
});

test('it goes on under the product, so that another product can stand in it', () => {
  const shadow = scene(beside)!;
  const under = (76 - shadow.bounds.y / 4) * shadow.image.width + (86 - shadow.bounds.x / 4);
  expect(shadow.image.data[under * 4 + 3]).toBeGreaterThan(20);
});

test('what darkens the paper apart from the product is none of its shadow', () => {
  const stain = (x: number, y: number) => (Math.hypot(x - 20, y - 20) < 8 ? 0.3 : 0);
  const both = scene((x, y) => Math.max(beside(x, y), stain(x, y)))!;
  expect(both.bounds.x / 4).toBeGreaterThan(30);
  expect(scene(stain)).toBeNull();
});

test('paper without a shadow has none', () => {
  expect(scene(() => 0)).toBeNull();
});
