import { expect, test } from '@jest/globals';
import { createPlane } from '../raster/pixels';
import { applyExactSteps } from './exact-steps';
import { PLAIN_RECIPE, type Point, type Step } from './recipe';

const SIZE = { width: 60, height: 40 };
const VIEW = { ...SIZE, left: 0, top: 0, k: 1 };
const none = { outline: () => undefined, trace: (points: readonly Point[]) => [...points] };

/** A solved matte whose left half is kept, after the steps. */
function after(
  steps: (Partial<Step> & Pick<Step, 'kind'>)[],
  sources: Parameters<typeof applyExactSteps>[4] = none,
) {
  const alpha = createPlane(SIZE.width, SIZE.height);
  for (let i = 0; i < alpha.data.length; i++) alpha.data[i] = i % SIZE.width < 30 ? 1 : 0;
  const full = steps.map((s, i) => ({ id: `${i}`, name: '', on: true, ...s }) as Step);
  applyExactSteps(alpha, VIEW, { ...PLAIN_RECIPE, steps: full }, SIZE, sources);
  return (x: number, y: number) => alpha.data[y * SIZE.width + x];
}
const paint = (side: 'keep' | 'drop', points: Point[], softness = 0) =>
  ({ kind: 'paint', side, points, radius: 6, softness }) as const;
const box = (mode: 'add' | 'take' | 'overlap') =>
  ({ kind: 'shape', shape: 'rectangle', mode, snap: 0, points: [[20, 10], [50, 30]] as Point[] }) as const; // prettier-ignore

test('painting is exact; what it does not touch stays', () => {
  const at = after([paint('keep', [[45, 20]]), paint('drop', [[10, 20]])]);
  expect([at(45, 20), at(10, 20)]).toEqual([1, 0]);
  expect([at(55, 20), at(10, 5), at(25, 5)]).toEqual([0, 1, 1]);
});

test('the later of two paintings wins where they cross', () => {
  expect(after([paint('keep', [[45, 20]]), paint('drop', [[45, 20]])])(45, 20)).toBe(0);
  expect(after([paint('drop', [[45, 20]]), paint('keep', [[45, 20]])])(45, 20)).toBe(1);
});

test('soft painting is less towards its rim', () => {
  const at = after([paint('keep', [[45, 20]], 1)]);
  const along = [45, 47, 49, 50].map((x) => at(x, 20));
  for (let i = 1; i < along.length; i++) expect(along[i]).toBeLessThanOrEqual(along[i - 1]);
  expect(along[2]).toBeGreaterThan(0);
  expect(along[2]).toBeLessThan(1);
});

test('a shape as drawn adds, subtracts, or keeps only what lies in both', () => {
  expect([after([box('add')])(45, 20), after([box('add')])(5, 20)]).toEqual([1, 1]);
  expect([after([box('take')])(25, 20), after([box('take')])(5, 20)]).toEqual([0, 1]);
  const both = after([box('overlap')]);
  expect([both(25, 20), both(45, 20), both(5, 20)]).toEqual([1, 0, 0]);
});

test('a step that is switched off does nothing, and a shape that snaps is left to the cut', () => {
  expect(after([{ ...paint('keep', [[45, 20]]), on: false }])(45, 20)).toBe(0);
  expect(after([{ ...box('add'), snap: 12 }])(45, 20)).toBe(0);
});

test('a stroke over an exact step puts back what the cut found there, and keeps its word', () => {
  const stroke = { kind: 'stroke', side: 'drop', points: [[45, 20]] as Point[], radius: 4 } as const;
  const at = after([box('add'), stroke]);
  expect(at(45, 20)).toBe(0);
  expect(at(35, 14)).toBe(1);
});

test('a saved outline of another size lies over the whole photo; one that is gone is passed over', () => {
  const matte = createPlane(6, 4);
  for (let i = 0; i < matte.data.length; i++) matte.data[i] = i % 6 >= 3 ? 1 : 0;
  const outline = { kind: 'outline', matte: 'x', mode: 'replace' } as const;
  const at = after([outline], { ...none, outline: () => matte });
  expect([at(10, 20), at(50, 20)]).toEqual([0, 1]);
  const gone = after([outline]);
  expect([gone(10, 20), gone(50, 20)]).toEqual([1, 0]);
});

test('a part of the photo, seen at half its size, is as the whole', () => {
  const alpha = createPlane(15, 10);
  const recipe = { ...PLAIN_RECIPE, steps: [{ id: 'a', name: '', on: true, ...box('add') } as Step] };
  applyExactSteps(alpha, { width: 15, height: 10, left: 30, top: 20, k: 2 }, recipe, SIZE, none);
  // Its middle is at 45, 30 of the photo, its first pixel at 31, 21.
  expect(alpha.data[0]).toBe(1);
  expect(alpha.data[9 * 15 + 14]).toBe(0);
});
