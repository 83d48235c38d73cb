import fc from 'fast-check';
import { createPlane, createRgba } from '../raster/pixels';
import { oklabPixels } from '../raster/colour';
import { baseOfCutout, drawnOn, withDrawnBase } from '../stage/base';
import { colourRegion } from './colour-region';
import { fineConstraints } from './compile';
import { curveOutline, polygonCover, strokeCover, underStroke, type View } from '../raster/footprint';
import { mapRecipe, PLAIN_RECIPE, readRecipe, type CutoutRecipe, type Point, type Step } from './recipe';
import { DROP, FREE, KEEP } from './segment';
import { edgeCost, traceEdge } from './trace';

const view = (width: number, height: number, k = 1): View => ({ width, height, left: 0, top: 0, k });
const area = (points: readonly Point[]) =>
  Math.abs(
    points.reduce((s, [x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length];
      return s + (x * ny - nx * y) / 2;
    }, 0),
  );
const step = (value: Partial<Step> & { kind: Step['kind'] }): Step =>
  ({ id: 'a', name: '', on: true, ...value }) as Step;
const withSteps = (...steps: Step[]): CutoutRecipe => ({ ...PLAIN_RECIPE, steps });

test('a polygon covers as much as its area says, wherever it lies', () => {
  const place = fc.tuple(
    fc.double({ min: 2, max: 58, noNaN: true }),
    fc.double({ min: 2, max: 38, noNaN: true }),
  );
  fc.assert(
    fc.property(place, place, place, (a, b, c) => {
      const cover = polygonCover(view(60, 40), [a, b, c]).data.reduce((s, v) => s + v, 0);
      // Four lines a pixel, in the middles of their quarters: off by a quarter of the widest row at most.
      const span = Math.max(a[0], b[0], c[0]) - Math.min(a[0], b[0], c[0]);
      expect(Math.abs(cover - area([a, b, c]))).toBeLessThanOrEqual(span / 4 + 0.01);
    }),
  );
});

test('a stroke covers a capsule; twice the view is a quarter of the pixels', () => {
  const points: Point[] = [[20, 20], [60, 20]]; // prettier-ignore
  const sum = (v: View) => strokeCover(v, points, 6).data.reduce((s, c) => s + c, 0);
  expect(sum(view(90, 40))).toBeCloseTo(40 * 12 + Math.PI * 36, -1);
  expect(sum(view(45, 20, 2)) * 4).toBeCloseTo(sum(view(90, 40)), -1.5);
});

test('a pen path of corners is its polygon; a circle of four curved nodes is round', () => {
  const corners: Point[] = [[10, 10], [50, 10], [50, 30], [10, 30]]; // prettier-ignore
  const path = curveOutline(corners.flatMap((p) => [p, p, p]));
  expect(area(path)).toBeCloseTo(800, 6);
  const k = 0.5523 * 20;
  const round = curveOutline([
    [30 - k, 10], [30, 10], [30 + k, 10],
    [50, 30 - k], [50, 30], [50, 30 + k],
    [30 + k, 50], [30, 50], [30 - k, 50],
    [10, 30 + k], [10, 30], [10, 30 - k],
  ]); // prettier-ignore
  for (const [x, y] of round) expect(Math.hypot(x - 30, y - 30)).toBeCloseTo(20, 1);
  expect(curveOutline([])).toEqual([]);
});

test('anywhere means anywhere: colours are found at the fine size, far from the pick and in single pixels', () => {
  const photo = createRgba(80, 60);
  photo.data.fill(240);
  const blue = [[5, 5], [70, 50], [40, 30]]; // prettier-ignore
  for (const [x, y] of blue) photo.data.set([30, 60, 200, 255], (y * 80 + x) * 4);
  const lab = oklabPixels(photo);
  const anywhere = colourRegion(lab, 80, 60, [[5.5, 5.5]], 6, 'anywhere');
  expect(blue.map(([x, y]) => anywhere[y * 80 + x])).toEqual([1, 1, 1]);
  expect(anywhere.reduce((s, v) => s + v, 0)).toBe(3);
  const touching = colourRegion(lab, 80, 60, [[5.5, 5.5]], 6, 'touching');
  expect(touching.reduce((s, v) => s + v, 0)).toBe(1);
  const pick = step({ kind: 'colour', mode: 'take', seeds: [[11, 11]], tolerance: 6, reach: 'anywhere' });
  const said = fineConstraints(withSteps(pick), 80, 60, 2, () => lab)!;
  expect(blue.map(([x, y]) => said[y * 80 + x])).toEqual([DROP, DROP, DROP]);
});

test('at the fine size the later of two strokes wins, and what no stroke touches is free', () => {
  const keep = step({ kind: 'stroke', side: 'keep', points: [[20, 20], [60, 20]], radius: 6 }); // prettier-ignore
  const drop = step({ kind: 'stroke', side: 'drop', points: [[40, 10], [40, 40]], radius: 2 }); // prettier-ignore
  const said = fineConstraints(withSteps(keep, drop), 50, 40, 2, () => new Float32Array(0))!;
  expect([said[10 * 50 + 12], said[10 * 50 + 20], said[30 * 50 + 5]]).toEqual([KEEP, DROP, FREE]);
  expect(fineConstraints(PLAIN_RECIPE, 50, 40, 2, () => new Float32Array(0))).toBeNull();
});

test('tracing prefers the outer edge that the model knows to a stronger one inside', () => {
  const photo = createRgba(100, 60);
  // The outer edge at x = 50 is weak, a printed line at x = 60 is strong.
  for (let i = 0; i < 6000; i++) {
    const x = i % 100;
    const v = x < 50 ? 150 : x >= 60 && x < 63 ? 20 : 190;
    photo.data.set([v, v, v, 255], i * 4);
  }
  const shape = createPlane(100, 60);
  for (let i = 0; i < 6000; i++) shape.data[i] = 1 / (1 + Math.exp(-((i % 100) - 49.5)));
  const between: Point[] = [[54, 3], [54, 56]]; // prettier-ignore
  const middle = (cost: Float32Array) => {
    const path = traceEdge(cost, 100, 60, between, false);
    return path.find(([, y]) => Math.abs(y - 30) < 1)![0];
  };
  expect(middle(edgeCost(photo))).toBeGreaterThan(56);
  expect(Math.abs(middle(edgeCost(photo, shape)) - 50)).toBeLessThan(2.5);
});

test('a base drawn by hand lies where it was drawn, tells the pitch, and is trusted', () => {
  const pot = createRgba(200, 160);
  for (let y = 0; y < 160; y++)
    for (let x = 0; x < 200; x++) {
      const foot = Math.hypot((x - 100) / 70, (y - 130) / 22) < 1;
      if (foot || (Math.abs(x - 100) < 70 && y < 130)) pot.data.set([90, 60, 40, 255], (y * 200 + x) * 4);
    }
  const bounds = { x: 400, y: 300, width: 200 };
  const found = baseOfCutout(pot);
  const drawn = { x: 510, y: 424, halfWidth: 60, halfDepth: 30 };
  const base = withDrawnBase(found, drawn, bounds);
  const back = drawnOn(base, bounds);
  for (const key of ['x', 'y', 'halfWidth', 'halfDepth'] as const)
    expect(back[key]).toBeCloseTo(drawn[key], 6);
  expect(base.pitchDeg).toBeCloseTo(30, 6);
  expect(base.confidence).toBe(1);
});

test('box, clicks and base go with the photo when it is taken at another size, and are checked at the door', () => {
  const recipe: CutoutRecipe = {
    ...PLAIN_RECIPE,
    automatic: { ...PLAIN_RECIPE.automatic, box: { x: 10, y: 20, width: 30, height: 40 }, at: [[15, 25]] },
    base: { x: 20, y: 50, halfWidth: 8, halfDepth: 3 },
  };
  const twice = mapRecipe(recipe, (x, y) => [x * 2, y * 2], 2);
  expect(twice.automatic.box).toEqual({ x: 20, y: 40, width: 60, height: 80 });
  expect(twice.automatic.at).toEqual([[30, 50]]);
  expect(twice.base).toEqual({ x: 40, y: 100, halfWidth: 16, halfDepth: 6 });
  expect(readRecipe(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
  const bad = { ...recipe, automatic: { ...recipe.automatic, box: { x: 1, y: 2, width: 0, height: 4 } } };
  expect(() => readRecipe(bad)).toThrow(/box\.width/);
  expect(() => readRecipe({ ...recipe, base: { x: 1 } })).toThrow(/base/);
});

test('every pixel under a stroke is visited once, wherever the view lies', () => {
  const points: [number, number][] = [
    [30, 20],
    [80, 55],
    [62, 90],
    [30, 20],
  ];
  for (const view of [
    { width: 100, height: 100, left: 0, top: 0, k: 1 },
    { width: 33, height: 41, left: 21.5, top: 8.25, k: 1.7 },
    { width: 60, height: 20, left: 55, top: 50, k: 0.5 },
    { width: 10, height: 10, left: 300, top: 300, k: 1 },
  ]) {
    const seen = new Map<number, number>();
    underStroke(view, points, 7, 0.4, (i, cover) => {
      expect(seen.has(i)).toBe(false);
      seen.set(i, cover);
    });
    strokeCover(view, points, 7, 0.4).data.forEach((cover, i) =>
      expect(seen.get(i) ?? 0).toBeCloseTo(cover, 4),
    );
  }
});
