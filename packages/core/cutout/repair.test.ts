import { expect, test } from '@jest/globals';
import { createPlane, createRgba } from '../raster/pixels';
import type { RepairPiece } from './recipe';
import { addRepairs } from './repair';

const SIZE = 60;
const VIEW = { width: SIZE, height: SIZE, left: 0, top: 0, k: 1 };
const piece = (value: Partial<RepairPiece>): RepairPiece => ({
  id: 'p',
  shape: 'rounded',
  points: [
    [20, 20],
    [40, 40],
  ],
  corner: 0,
  fill: '#204060',
  outline: null,
  softness: 0.5,
  place: 'front',
  on: true,
  ...value,
});

/** A white product on the left half; what the pieces make of it. */
function repaired(...pieces: RepairPiece[]) {
  const colours = createRgba(SIZE, SIZE);
  const alpha = createPlane(SIZE, SIZE);
  for (let i = 0; i < SIZE * SIZE; i++) {
    colours.data.set([255, 255, 255, 255], i * 4);
    alpha.data[i] = i % SIZE < 30 ? 1 : 0;
  }
  addRepairs(colours, alpha, VIEW, pieces);
  const at = (x: number, y: number) => {
    const i = y * SIZE + x;
    return { colour: [...colours.data.subarray(i * 4, i * 4 + 3)], alpha: alpha.data[i] };
  };
  return at;
}

test('a piece in front covers the product and adds to it beside', () => {
  const at = repaired(piece({}));
  expect(at(25, 30)).toEqual({ colour: [32, 64, 96], alpha: 1 });
  expect(at(36, 30)).toEqual({ colour: [32, 64, 96], alpha: 1 });
  expect(at(10, 30)).toEqual({ colour: [255, 255, 255], alpha: 1 });
  expect(at(50, 30).alpha).toBe(0);
});

test('a piece behind shows only where the product is not', () => {
  const at = repaired(piece({ place: 'behind' }));
  expect(at(25, 30).colour).toEqual([255, 255, 255]);
  expect(at(36, 30)).toEqual({ colour: [32, 64, 96], alpha: 1 });
});

test('a piece that is switched off does nothing, and one without a fill is its outline alone', () => {
  expect(repaired(piece({ on: false }))(25, 30).colour).toEqual([255, 255, 255]);
  const at = repaired(piece({ fill: null, outline: { colour: '#ff0000', width: 4 } }));
  expect(at(40, 30).colour).toEqual([255, 0, 0]);
  expect(at(35, 30).alpha).toBe(0);
});

test('softness spreads the edge over as many pixels of the photo', () => {
  const hard = repaired(piece({ softness: 0 }));
  const soft = repaired(piece({ softness: 8 }));
  expect(hard(42, 30).alpha).toBeLessThan(0.02);
  expect(soft(42, 30).alpha).toBeGreaterThan(0.1);
  expect(soft(38, 30).alpha).toBeLessThan(hard(38, 30).alpha);
});
