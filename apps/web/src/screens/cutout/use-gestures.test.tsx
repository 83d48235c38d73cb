import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, jest, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { PLAIN_RECIPE, type Point } from '@scenograph/core/cutout/recipe';
import { server } from '../../../test/server';
import type { Gesture } from './desk-traces';
import { openDesk, useRecipe } from './recipe-store';
import type { ToolOptions } from './tools';
import { useGestures, withBaseMoved, withPointMoved } from './use-gestures';

const SIZE = { width: 800, height: 600 };
const OPTIONS: ToolOptions = {
  radii: { keep: 6, drop: 6, 'paint-keep': 6, 'paint-drop': 6, fibre: 12 },
  softness: 0.5,
  tolerance: 6,
  reach: 'touching',
  mode: 'add',
  shape: 'ellipse',
  snap: 12,
  piece: 'ellipse',
  fill: '#336699',
  corner: 5,
};
const recipe = () => useRecipe.getState().document!;
const lastStep = () => recipe().steps[recipe().steps.length - 1];

function hand(tool: Gesture['tool'], options: Partial<ToolOptions> = {}) {
  const onToolDone = jest.fn();
  const worker = { keptAt: () => Promise.resolve(true), colourAt: () => Promise.resolve('#808080') };
  const { result } = renderHook(() =>
    useGestures({
      worker: worker as never,
      photo: SIZE,
      size: SIZE,
      options: { ...OPTIONS, ...options },
      tool,
      onToolDone,
    }),
  );
  const draw = (points: Point[], shift = false) =>
    act(async () => {
      result.current.onGesture({ tool, points, shift });
      await Promise.resolve();
    });
  return { result, draw, onToolDone };
}

beforeEach(() => {
  server.use(http.put('*/api/photos/p1/recipe', () => HttpResponse.json({ revision: 4 })));
  openDesk('p1', {
    recipe: PLAIN_RECIPE,
    history: { past: [], future: [] },
    revision: 3,
    outlines: [],
    inUse: true,
    standsIn: [],
  });
});

test('a box is held within the photo whatever corner it is drawn from; a tiny one is none', async () => {
  const { draw } = hand('box');
  await draw([[300, 200], [302, 201]]); // prettier-ignore
  expect(recipe().automatic.box).toBeNull();
  await draw([[900, 500], [-40, 100]]); // prettier-ignore
  expect(recipe().automatic.box).toEqual({ x: 0, y: 100, width: 800, height: 400 });
});

test('clicks on the product add up', async () => {
  const { draw } = hand('point');
  await draw([[10, 20]]);
  await draw([[30, 40]]);
  expect(recipe().automatic.at).toEqual([[10, 20], [30, 40]]); // prettier-ignore
});

test('a second crop is a part of the first', async () => {
  const { draw, onToolDone } = hand('crop');
  await draw([[100, 50], [700, 550]]); // prettier-ignore
  await draw([[10, 20], [110, 220]]); // prettier-ignore
  expect(recipe().tidy.crop).toEqual({ x: 110, y: 70, width: 100, height: 200 });
  expect(onToolDone).toHaveBeenLastCalledWith(true);
});

test.each([
  { line: [[0, 0], [100, 5]] as Point[], turned: -2.9 }, // prettier-ignore
  { line: [[0, 0], [5, 100]] as Point[], turned: 2.9 }, // prettier-ignore
  { line: [[100, 5], [0, 0]] as Point[], turned: -2.9 }, // prettier-ignore
])('a line is made level or upright, whichever is nearer: $turned degrees', async ({ line, turned }) => {
  const { draw } = hand('straighten');
  await draw(line);
  expect(recipe().tidy.straighten).toBeCloseTo(turned, 5);
});

test('strokes go on; a shape is chosen at once to be changed', async () => {
  await hand('keep').draw([[10, 10], [20, 20]]); // prettier-ignore
  expect(useRecipe.getState().chosen).toBeNull();
  await hand('shape').draw([[10, 10], [120, 80]]); // prettier-ignore
  expect(useRecipe.getState().chosen).toBe(lastStep().id);
});

test('by place subtracts what is kept where the gesture began', async () => {
  await hand('shape', { mode: 'auto' }).draw([[10, 10], [120, 80]]); // prettier-ignore
  expect(lastStep()).toMatchObject({ kind: 'shape', mode: 'take' });
});

test('with Shift a colour joins the chosen step, and begins one where none is chosen', async () => {
  const { draw } = hand('colour');
  await draw([[50, 50]], true);
  await draw([[90, 90]], true);
  expect(recipe().steps).toHaveLength(1);
  expect(lastStep()).toMatchObject({ kind: 'colour', seeds: [[50, 50], [90, 90]] }); // prettier-ignore
});

test('a pen path needs three nodes; steps of one kind are counted', async () => {
  const { draw, result } = hand('pen');
  await draw([[10, 10]]);
  await draw([[100, 10], [120, 10]]); // prettier-ignore
  act(() => result.current.closePath());
  expect(recipe().steps).toHaveLength(0);
  expect(result.current.draft).toHaveLength(0);
  for (let i = 0; i < 2; i++) {
    for (const p of [[10, 10], [100, 10], [60, 90]] as Point[]) await draw([p]); // prettier-ignore
    await act(async () => {
      result.current.closePath();
      await Promise.resolve();
    });
  }
  expect(recipe().steps.map((s) => s.name)).toEqual(['Pen path', 'Pen path 2']);
  expect(lastStep()).toMatchObject({ shape: 'curve', snap: 0 });
});

test('a repair piece takes the colour that was chosen, else the one under it', async () => {
  await hand('repair').draw([[10, 10], [20, 20], [60, 50]]); // prettier-ignore
  await hand('repair', { fill: null }).draw([[10, 10], [20, 20], [60, 50]]); // prettier-ignore
  expect(recipe().repairs.map((p) => p.fill)).toEqual(['#336699', '#808080']);
});

test('a node of a curve takes its handles along; a handle moves alone', () => {
  const points: Point[] = [[0, 0], [10, 0], [20, 0]]; // prettier-ignore
  const curve = {
    ...PLAIN_RECIPE,
    steps: [
      { id: 'c', name: 'c', on: true, kind: 'shape', mode: 'add', shape: 'curve', points, snap: 0 } as const,
    ],
  };
  const moved = (index: number) => {
    const [step] = withPointMoved(curve, 'c', index, [10, 5]).steps;
    return 'points' in step ? step.points : [];
  };
  expect(moved(1)).toEqual([[0, 5], [10, 5], [20, 5]]); // prettier-ignore
  expect(moved(0)).toEqual([[10, 5], [10, 0], [20, 0]]); // prettier-ignore
});

test('a base never becomes deeper than wide, nor inside out', () => {
  const base = { x: 100, y: 100, halfWidth: 40, halfDepth: 10 };
  expect(withBaseMoved(base, 1, [70, 100]).halfWidth).toBe(30);
  expect(withBaseMoved(base, 1, [100, 100]).halfWidth).toBe(2);
  expect(withBaseMoved(base, 2, [100, 190]).halfDepth).toBe(40);
  expect(withBaseMoved(base, 0, [5, 6])).toEqual({ ...base, x: 5, y: 6 });
});
