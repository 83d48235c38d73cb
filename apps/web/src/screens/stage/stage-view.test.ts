import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boxView, fitView, LEAST_ZOOM, MOST_ZOOM, movedView, zoomedView, type StageView } from './stage-view';

const room = fc.record({
  width: fc.integer({ min: 200, max: 3000 }),
  height: fc.integer({ min: 200, max: 2000 }),
});
const frame = fc.record({
  width: fc.integer({ min: 16, max: 12000 }),
  height: fc.integer({ min: 16, max: 12000 }),
});
const share = fc.double({ min: -0.5, max: 0.5, noNaN: true });

/** Where in the room a point of the frame is seen, from its middle. */
const seen = (view: StageView, x: number, y: number) => [(x - view.x) * view.zoom, (y - view.y) * view.zoom];

test('fitted, all of any frame is in the room, its middle in the middle', () => {
  fc.assert(
    fc.property(room, frame, (r, f) => {
      const view = fitView(r, f);
      const [x, y] = seen(view, 0, 0);
      expect(-x).toBeLessThanOrEqual(r.width / 2 - 35);
      expect(-y).toBeLessThanOrEqual(r.height / 2 - 35);
      expect(seen(view, f.width / 2, f.height / 2)).toEqual([0, 0]);
    }),
  );
});

test('a small frame is not blown up to fill the room', () => {
  expect(fitView({ width: 1000, height: 1000 }, { width: 100, height: 100 }).zoom).toBe(4.2);
  expect(fitView({ width: 1000, height: 1000 }, { width: 500, height: 500 }).zoom).toBe(1);
});

test('while one zooms, what is under the pointer stays there, and the zoom keeps within its bounds', () => {
  fc.assert(
    fc.property(
      room,
      frame,
      share,
      share,
      fc.array(fc.double({ min: 0.2, max: 5, noNaN: true }), { maxLength: 12 }),
      (r, f, ax, ay, factors) => {
        const at = { x: ax * r.width, y: ay * r.height };
        const fit = fitView(r, f);
        let view = fit;
        const under = { x: view.x + at.x / view.zoom, y: view.y + at.y / view.zoom };
        for (const factor of factors) {
          view = zoomedView(view, factor, at, fit.zoom);
          const [x, y] = seen(view, under.x, under.y);
          expect([x, y]).toEqual([expect.closeTo(at.x, 3), expect.closeTo(at.y, 3)]);
          expect(view.zoom).toBeGreaterThanOrEqual(Math.min(LEAST_ZOOM, fit.zoom));
          expect(view.zoom).toBeLessThanOrEqual(MOST_ZOOM);
        }
      },
    ),
  );
});

test('a box that is fitted is seen whole, turned or not, unless it is too small or too large for the bounds', () => {
  const r = { width: 800, height: 600 };
  const turned = boxView(r, { x: 100, y: 100, width: 400, height: 10, rotation: 90 });
  expect(turned).toEqual({
    zoom: expect.closeTo(528 / 400, 6),
    x: expect.closeTo(300, 6),
    y: expect.closeTo(105, 6),
  });
  expect(boxView(r, { x: 0, y: 0, width: 1, height: 1, rotation: 0 }).zoom).toBe(MOST_ZOOM);
  expect(boxView(r, { x: 0, y: 0, width: 90000, height: 1, rotation: 0 }).zoom).toBe(LEAST_ZOOM);
});

test('moved, the picture follows the hand, and is never lost', () => {
  const f = { width: 1000, height: 500 };
  const view = { zoom: 2, x: 400, y: 300 };
  expect(movedView(view, 100, -50, f)).toEqual({ zoom: 2, x: 350, y: 325 });
  fc.assert(
    fc.property(fc.integer(), fc.integer(), (dx, dy) => {
      const { x, y } = movedView(view, dx, dy, f);
      expect(x >= 0 && x <= f.width && y >= 0 && y <= f.height).toBe(true);
    }),
  );
});
