import { expect, test } from '@jest/globals';
import { fitBackground } from './background';
import { shadingOf } from './shading';

const [W, H] = [64, 48];

/** Paper of one colour, changed by `at`, as OKLab; its model is fitted on what `at` leaves as it is. */
function paper(
  colour: [number, number, number],
  at: (x: number, y: number) => [number, number, number] | null,
) {
  const lab = new Float32Array(W * H * 3);
  const use = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      const other = at(x, y);
      lab.set(other ?? colour, i * 3);
      if (!other) use[i] = 1;
    }
  return { lab, model: fitBackground(lab, use, W, H, 3) };
}
const PAPER: [number, number, number] = [0.9, 0.004, 0.012];
const shaded = (t: number) => PAPER.map((v) => v * t) as [number, number, number];
const middle = (H >> 1) * W + (W >> 1);
const inMiddle = (x: number, y: number) => x >= 24 && x < 40 && y >= 16 && y < 32;

test('a soft shadow is near the backdrop, a thing as dark with a hard edge is not', () => {
  const slope = (x: number, y: number) => {
    const far = Math.hypot(x - 32, y - 24);
    return far > 22 ? null : shaded(1 - 0.3 * (1 - far / 22));
  };
  const soft = paper(PAPER, slope);
  const hard = paper(PAPER, (x, y) => (inMiddle(x, y) ? shaded(0.7) : null));
  const inShadow = shadingOf(soft.lab, W, H, soft.model, true).residual;
  const inThing = shadingOf(hard.lab, W, H, hard.model, true).residual;
  const edge = 24 * W + 24;
  expect(inShadow[middle]).toBeLessThan(2);
  expect(inShadow[edge]).toBeLessThan(2);
  expect(inThing[edge]).toBeGreaterThan(8);
});

test('where shadows count as product, both stand off alike', () => {
  const { lab, model } = paper(PAPER, (x, y) => (inMiddle(x, y) ? shaded(0.7) : null));
  const { residual, shade } = shadingOf(lab, W, H, model, false);
  expect(residual[middle]).toBeGreaterThan(10);
  expect(shade[middle]).toBe(1);
});

test('another hue stands off however light it is', () => {
  const { lab, model } = paper(PAPER, (x, y) => (inMiddle(x, y) ? [0.9, 0.05, 0.05] : null));
  expect(shadingOf(lab, W, H, model, true).residual[middle]).toBeGreaterThan(10);
});

test('on coloured paper a hard sun shadow of its hue stays near, on grey paper it may be a thing', () => {
  const BLUE: [number, number, number] = [0.6, -0.03, -0.12];
  const GREY: [number, number, number] = [0.6, 0, 0];
  const residual = (colour: [number, number, number]) => {
    const dark = colour.map((v) => v * 0.7) as [number, number, number];
    const { lab, model } = paper(colour, (x, y) => (inMiddle(x, y) ? dark : null));
    return shadingOf(lab, W, H, model, true).residual[middle];
  };
  expect(residual(BLUE)).toBeLessThan(residual(GREY) * 0.6);
});

test('the open backdrop itself is near, in full light', () => {
  const { lab, model } = paper(PAPER, (x, y) => (inMiddle(x, y) ? [0.4, 0.1, 0.1] : null));
  const { residual, shade } = shadingOf(lab, W, H, model, true);
  for (const i of [0, W - 1, W * (H - 1)]) {
    expect(residual[i]).toBeLessThan(0.1);
    expect(shade[i]).toBeCloseTo(1, 3);
  }
});
