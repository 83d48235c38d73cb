import { describe, expect, test } from '@jest/globals';
import { LINEAR, fromLinear } from '../raster/colour';
import { createRgba, type Rgba } from '../raster/pixels';
import type { BodyNormals } from './body-normals';
import { findWindows, mirrored, surroundings, withGloss } from './gloss';
import { relit, type LightChange } from './relight';
import { sceneLight, type Linear } from './scene-light';

const SIDE = 80;

/** A round thing of one paint, brighter toward its left as a photo's light makes it. */
function ball(
  paint: [number, number, number],
  draw: (x: number, y: number) => Linear | null = () => null,
): Rgba {
  const out = createRgba(SIDE, SIDE);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const [u, v] = [(x + 0.5) / 40 - 1, (y + 0.5) / 40 - 1];
      if (u * u + v * v > 0.95) continue;
      const lit = 0.9 - 0.25 * u;
      const own = paint.map((c) => c * lit);
      const drawn = draw(x, y);
      const linear = drawn ?? own;
      const i = (y * SIDE + x) * 4;
      linear.forEach((c, k) => (out.data[i + k] = Math.round(fromLinear(Math.min(1, c)))));
      out.data[i + 3] = 255;
    }
  return out;
}

const roundNormals: BodyNormals = (() => {
  const data = new Float32Array(SIDE * SIDE * 3);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const [u, v] = [(x + 0.5) / 40 - 1, (y + 0.5) / 40 - 1];
      const rest = 1 - u * u - v * v;
      if (rest > 0.05) data.set([u, -Math.sqrt(rest), -v], (y * SIDE + x) * 3);
    }
  return { width: SIDE, height: SIDE, data, kind: 'inflated' };
})();

const TEAL: [number, number, number] = [0.03, 0.22, 0.22];
const inWindow = (x: number, y: number) => x >= 24 && x < 32 && y >= 22 && y < 28;
/** What glaze shows of a studio's window: its own paint, and white light on it. */
const window = (x: number, y: number): Linear | null =>
  inWindow(x, y) ? [TEAL[0] + 0.4, TEAL[1] + 0.4, TEAL[2] + 0.4] : null;
const at = (picture: Rgba, x: number, y: number) =>
  [0, 1, 2].map((c) => LINEAR[picture.data[(y * SIDE + x) * 4 + c]]);
const unchanged = (): LightChange => ({
  width: SIDE,
  height: SIDE,
  data: new Float32Array(SIDE * SIDE * 3).fill(1),
});

describe('windows of the studio', () => {
  test('white light on coloured paint is found, with the paint under it', () => {
    const found = findWindows(ball(TEAL, window))!;
    const i = 25 * SIDE + 28;
    expect(found.near[i]).toBe(1);
    expect(found.near[50 * SIDE + 50]).toBe(0);
    expect(found.paint[i * 3 + 1]).toBeGreaterThan(0.17);
    expect(found.paint[i * 3 + 1]).toBeLessThan(0.28);
  });

  test('the paint under one is what lies around it, brighter toward where the photo’s light comes from', () => {
    const { near, paint } = findWindows(ball(TEAL, window))!;
    const bare = ball(TEAL);
    for (const [x, y] of [
      [24, 22],
      [28, 25],
      [31, 27],
      [33, 25],
    ]) {
      expect(near[y * SIDE + x]).toBe(1);
      for (let c = 0; c < 3; c++)
        expect(Math.abs(paint[(y * SIDE + x) * 3 + c] / at(bare, x, y)[c] - 1)).toBeLessThan(0.05);
    }
  });

  test.each([
    ['a matte thing', ball(TEAL)],
    [
      'a cream label',
      ball(TEAL, (x, y) => (y > 30 && y < 55 && x > 10 && x < 70 ? [0.8, 0.72, 0.55] : null)),
    ],
    ['a small yellow print', ball(TEAL, (x, y) => (inWindow(x, y) ? [0.8, 0.6, 0.1] : null))],
    [
      'white print, which lacks the paint',
      ball([0.02, 0.3, 0.3], (x, y) => (inWindow(x, y) ? [0.5, 0.5, 0.5] : null)),
    ],
    [
      'a white thing with a bright spot',
      ball([0.5, 0.5, 0.5], (x, y) => (inWindow(x, y) ? [0.95, 0.95, 0.95] : null)),
    ],
    ['a thing that is half white', ball(TEAL, (x) => (x > 40 ? [0.5, 0.7, 0.7] : null))],
  ])('%s has none', (_, seen) => {
    expect(findWindows(seen)).toBeNull();
  });
});

describe('what a shiny product mirrors', () => {
  const grey = createRgba(120, 90);
  for (let i = 0; i < 120 * 90; i++)
    grey.data.set(i % 120 < 60 ? [20, 20, 20, 255] : [230, 60, 60, 255], i * 4);
  const ground: Linear = [0.2, 0.2, 0.2];
  const light = (azimuthDeg: number) =>
    sceneLight({ azimuthDeg, elevationDeg: 35, softness: 0.3 }, ground, null);
  const around = (azimuthDeg = -60) => surroundings(grey, ground, light(azimuthDeg), 12, 1.4);

  test('more is mirrored the more it is seen from the side, within bounds', () => {
    for (let k = 1; k <= 20; k++) expect(mirrored(k / 20)).toBeLessThanOrEqual(mirrored((k - 1) / 20));
    expect(mirrored(1)).toBeCloseTo(0.04);
    expect(mirrored(-1)).toBeLessThan(0.5);
  });

  const comes = (from: ReturnType<typeof around>, to: readonly number[], shine: number) => {
    const out = new Float64Array(3);
    from.from(to[0], to[1], to[2], shine, out);
    return out;
  };

  test('behind is the picture, below the ground, toward the light the light', () => {
    const red = comes(around(), [0.25, 0.96, 0.02], 0);
    expect(red[0]).toBeGreaterThan(2 * red[1]);
    expect(comes(around(), [0, 0.2, -0.98], 0)[0]).toBeCloseTo(0.2, 1);
    const to = light(-60).to;
    expect(comes(around(), to, 1)[1]).toBeGreaterThan(comes(around(), to, 0)[1] + 5);
    expect(comes(around(), [-to[0], to[1], to[2]], 1)[1]).toBeLessThan(1);
  });

  test('a window of the studio goes, its paint comes back; strength 0 leaves all as it was', () => {
    const seen = ball(TEAL, window);
    const windows = findWindows(seen);
    const result = (strength: number) =>
      relit(seen, withGloss(unchanged(), roundNormals, around(120), windows, 0, strength));
    expect(at(result(0), 28, 25)).toEqual(at(relit(seen, unchanged()), 28, 25));
    const [r, g] = at(result(1), 28, 25);
    expect(g).toBeLessThan(0.35);
    expect(r).toBeLessThan(0.5 * g);
    expect(at(result(0.5), 28, 25)[1]).toBeGreaterThan(g + 0.1);
  });

  test('a light from the left shines on the left, and moves as it is moved', () => {
    const seen = ball(TEAL);
    const brightest = (azimuth: number) => {
      const picture = relit(seen, withGloss(unchanged(), roundNormals, around(azimuth), null, 0, 1));
      let [best, x0] = [0, 0];
      for (let x = 12; x < 68; x++)
        for (let y = 12; y < 68; y++) {
          const gain = at(picture, x, y)[0] - at(seen, x, y)[0];
          if (gain > best) [best, x0] = [gain, x];
        }
      return x0;
    };
    expect(brightest(-60)).toBeLessThan(36);
    expect(brightest(60)).toBeGreaterThan(44);
  });

  test('matte paint beside the shiny one mirrors nothing', () => {
    const clay = (x: number, y: number): Linear | null => (y > 52 ? [0.5, 0.2, 0.1] : window(x, y));
    const seen = ball(TEAL, clay);
    const made = withGloss(unchanged(), roundNormals, around(-60), findWindows(seen), 0, 1);
    const i = (62 * SIDE + 40) * 3;
    expect(Math.abs(made.added![i])).toBeLessThan(0.002);
    const j = (40 * SIDE + 12) * 3;
    expect(Math.abs(made.added![j])).toBeGreaterThan(0.002);
  });
});
