import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pathBounds, type Point } from '../vector/outline';
import { BADGE_FORMS, badgeShape, CORNERS } from './badge/forms';
import { exitPoint, leaderPath } from './leader';
import type { ProductElement } from './product/model';
import { LEADERS, productOf, spotAt, spotOn } from './spot';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const length = fc.double({ min: 20, max: 2000, noNaN: true });
const place = fc.record({
  x: fc.double({ min: -500, max: 2500, noNaN: true }),
  y: fc.double({ min: -500, max: 2500, noNaN: true }),
});
const box = fc.record({ x: length, y: length, width: length, height: length });

const product = (value: object) => ({ kind: 'product', hidden: false, ...value }) as ProductElement;

test('a spot on a product is found again from its place, however the product is turned', () => {
  fc.assert(
    fc.property(box, fc.double({ min: -360, max: 360, noNaN: true }), share, share, (b, rotation, x, y) => {
      const on = product({ box: { ...b, rotation } });
      const back = spotAt(on, spotOn(on, { x, y }));
      expect(back.x).toBeCloseTo(x, 6);
      expect(back.y).toBeCloseTo(y, 6);
    }),
  );
});

test('the middle of a product stays where it is when that is turned; a corner goes round it', () => {
  const on = (rotation: number) => product({ box: { x: 100, y: 100, width: 200, height: 100, rotation } });
  expect(spotOn(on(37), { x: 0.5, y: 0.5 })).toEqual({ x: 200, y: 150 });
  const corner = spotOn(on(90), { x: 0, y: 0 });
  expect(corner.x).toBeCloseTo(250, 6);
  expect(corner.y).toBeCloseTo(50, 6);
});

test('what hangs on a product that is gone or hidden hangs on the first that is shown', () => {
  const [a, b] = [product({ id: 'a', hidden: true }), product({ id: 'b' })];
  expect(productOf('a', [a, b])?.id).toBe('b');
  expect(productOf('gone', [{ kind: 'text', id: 't' } as never, b])?.id).toBe('b');
  expect(productOf('b', [a])).toBeNull();
});

test('a leader begins and ends at its places, whatever its form; none draws nothing', () => {
  fc.assert(
    fc.property(place, place, fc.constantFrom(...LEADERS), (from, to, leader) => {
      const path = leaderPath(from, to, leader);
      if (leader === 'none') return expect(path).toEqual([]);
      const ends = path.filter((c): c is Extract<typeof c, Point> => 'x' in c);
      expect(ends[0]).toMatchObject(from);
      expect(ends[ends.length - 1]).toMatchObject(to);
    }),
  );
});

test('the way out of a box ends on its edge, towards the place; inside it, at the place itself', () => {
  fc.assert(
    fc.property(box, place, fc.boolean(), (b, to, round) => {
      const [cx, cy] = [b.x + b.width / 2, b.y + b.height / 2];
      const out = exitPoint(b, to, round);
      const far = (p: Point) =>
        round
          ? Math.hypot((p.x - cx) / (b.width / 2), (p.y - cy) / (b.height / 2))
          : Math.max(Math.abs(p.x - cx) / (b.width / 2), Math.abs(p.y - cy) / (b.height / 2));
      if (far(to) <= 1) expect(far(out)).toBeLessThanOrEqual(1 + 1e-6);
      else expect(far(out)).toBeCloseTo(1, 6);
      // On the line from the middle to the place.
      expect((out.x - cx) * (to.y - cy)).toBeCloseTo((out.y - cy) * (to.x - cx), 2);
    }),
  );
});

test('every form of badge lies in its box, its words and its ring inside of it', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...BADGE_FORMS),
      fc.constantFrom(...CORNERS),
      fc.record({ x: length, y: length, width: length, height: length }),
      fc.integer({ min: 5, max: 40 }),
      fc.double({ min: 0, max: 0.4, noNaN: true }),
      (form, corner, b, tips, depth) => {
        const shape = badgeShape(form, b, tips, depth, corner);
        const inside = (bounds: NonNullable<ReturnType<typeof pathBounds>>, of: typeof bounds) => {
          expect(bounds.x).toBeGreaterThanOrEqual(of.x - 0.5);
          expect(bounds.y).toBeGreaterThanOrEqual(of.y - 0.5);
          expect(bounds.x + bounds.width).toBeLessThanOrEqual(of.x + of.width + 0.5);
          expect(bounds.y + bounds.height).toBeLessThanOrEqual(of.y + of.height + 0.5);
        };
        inside(pathBounds(shape.outline)!, b);
        const inset = Math.min(b.width, b.height) * 0.03;
        inside(pathBounds(shape.ring(inset))!, pathBounds(shape.outline)!);
        // A long low pill has no room for words beside its round ends.
        if (form !== 'pill' || b.width > b.height) {
          expect(shape.inner.height).toBeGreaterThan(0);
          if (shape.turn === 0) inside(shape.inner, b);
        }
      },
    ),
  );
});

test('a band lies across the corner that is named, and its words run along it', () => {
  const b = { x: 0, y: 0, width: 100, height: 100 };
  const at = (corner: (typeof CORNERS)[number]) => badgeShape('corner', b, 0, 0, corner);
  for (const corner of CORNERS) {
    const { inner } = at(corner);
    const [mx, my] = [inner.x + inner.width / 2, inner.y + inner.height / 2];
    expect(mx < 50).toBe(corner.endsWith('left'));
    expect(my < 50).toBe(corner.startsWith('top'));
  }
  expect(at('top-left').turn).toBe(-45);
  expect(at('top-right').turn).toBe(45);
});
