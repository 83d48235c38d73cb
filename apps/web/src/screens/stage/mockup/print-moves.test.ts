import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Print } from '@scenograph/core/surface/print';
import { keyedPrint, movedPrint, pinnedPrint, scaledPrint, turnedPrint } from './print-moves';

const print = (place: Partial<Print['place']> = {}, pins: Print['pins'] = null) =>
  ({ place: { x: 50, y: 40, width: 20, height: 10, turn: 0, slant: 0, ...place }, pins }) as Print;
const AREA = { widthMm: 200, heightMm: 100 };

test('a design snaps to the middle of its area, each way by itself', () => {
  const moved = movedPrint({ from: print(), began: [0, 0], now: [48.5, 5] }, AREA);
  expect(moved.place).toMatchObject({ x: 100, y: 45 });
  const free = movedPrint({ from: print(), began: [0, 0], now: [40, 8] }, AREA);
  expect(free.place).toMatchObject({ x: 90, y: 50 });
});

test('pins move together and never snap; one of them moves alone', () => {
  const from = print({}, [[0, 0], [10, 0], [10, 10], [0, 10]]); // prettier-ignore
  expect(movedPrint({ from, began: [0, 0], now: [95, 45.5] }, AREA).pins![2]).toEqual([105, 55.5]);
  expect(pinnedPrint({ from, began: [0, 0], now: [-3, 4] }, 1).pins).toEqual([[0, 0], [-3, 4], [10, 10], [0, 10]]); // prettier-ignore
});

test('scaling keeps the proportion unless both sides are set free', () => {
  const from = print();
  expect(scaledPrint({ from, began: [60, 45], now: [70, 50] }, false).place).toMatchObject({ width: 40, height: 20 }); // prettier-ignore
  expect(scaledPrint({ from, began: [60, 45], now: [70, 45] }, true).place).toMatchObject({ width: 40, height: 10 }); // prettier-ignore
  const turned = print({ turn: 90 });
  // Turned by a quarter, what lies along the area's width is the design's height.
  expect(scaledPrint({ from: turned, began: [55, 50], now: [60, 50] }, true).place).toMatchObject({ width: 20, height: 20 }); // prettier-ignore
});

test('turning is caught at quarter turns, or goes in steps of 15 degrees', () => {
  const at = (degrees: number, r = 30): [number, number] => [
    50 + r * Math.cos((degrees * Math.PI) / 180),
    40 + r * Math.sin((degrees * Math.PI) / 180),
  ];
  const turned = (degrees: number, steps: boolean) =>
    turnedPrint({ from: print(), began: at(0), now: at(degrees) }, steps).place.turn;
  expect(turned(89, false)).toBe(90);
  expect(turned(80, false)).toBe(80);
  expect(turned(80, true)).toBe(75);
});

test('a turn stays within half a turn to either side, and the same drag back undoes it', () => {
  const angle = fc.double({ min: -180, max: 180, noNaN: true });
  fc.assert(
    fc.property(angle, angle, angle, (turn, a, b) => {
      const at = (d: number): [number, number] => [
        50 + 30 * Math.cos((d * Math.PI) / 180),
        40 + 30 * Math.sin((d * Math.PI) / 180),
      ];
      const there = turnedPrint({ from: print({ turn }), began: at(a), now: at(b) }, false).place.turn;
      expect(Math.abs(there)).toBeLessThanOrEqual(180);
      const back = turnedPrint({ from: print({ turn: there }), began: at(b), now: at(a) }, false).place.turn;
      const off = Math.abs(((back - turn + 540) % 360) - 180);
      // Both ends may have been caught at a quarter turn.
      expect(Math.min(off, Math.abs(off - 360))).toBeLessThan(4.1);
    }),
  );
});

test('keys move a design by millimetres, scale and turn it; what one key does its opposite takes back', () => {
  expect(keyedPrint(print(), 'ArrowLeft', false)!.place).toMatchObject({ x: 49, y: 40 });
  expect(keyedPrint(print(), 'ArrowDown', true)!.place).toMatchObject({ x: 50, y: 50 });
  expect(keyedPrint(print(), '+', false)!.place).toMatchObject({ width: 21, height: 10.5, x: 50, y: 40 });
  expect(keyedPrint(print({ turn: 175 }), ']', true)!.place).toMatchObject({ turn: -175 });
  expect(keyedPrint(print(), 'x', false)).toBeNull();
  const opposites: [string, string][] = [
    ['ArrowLeft', 'ArrowRight'],
    ['ArrowUp', 'ArrowDown'],
    ['+', '-'],
    ['[', ']'],
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...opposites),
      fc.boolean(),
      fc.integer({ min: -170, max: 170 }),
      ([key, back], far, turn) => {
        const there = { ...print({ turn }), ...keyedPrint(print({ turn }), key, far) };
        const { place } = { ...there, ...keyedPrint(there, back, far) };
        for (const side of ['x', 'y', 'width', 'height', 'turn'] as const)
          expect(Math.abs(place[side] - print({ turn }).place[side])).toBeLessThan(0.011);
      },
    ),
  );
});

test('a pinned design moves by its pins, and is neither scaled nor turned by keys', () => {
  const from = print({}, [[0, 0], [10, 0], [10, 10], [0, 10]]); // prettier-ignore
  expect(keyedPrint(from, 'ArrowRight', true)).toEqual({ pins: [[10, 0], [20, 0], [20, 10], [10, 10]] }); // prettier-ignore
  expect(keyedPrint(from, '+', false)).toBeNull();
  expect(keyedPrint(from, ']', false)).toBeNull();
});
