import fc from 'fast-check';
import { resizedBox, uprightBounds, type Box } from './box';

const box = fc.record({
  x: fc.integer({ min: -2000, max: 2000 }),
  y: fc.integer({ min: -2000, max: 2000 }),
  width: fc.integer({ min: 1, max: 3000 }),
  height: fc.integer({ min: 1, max: 3000 }),
  rotation: fc.integer({ min: -360, max: 360 }),
});
const share = fc.constantFrom(0, 0.5, 1);
const side = fc.integer({ min: 1, max: 3000 });

/** Where a point of a turned box lies in the frame. */
function pointOf({ x, y, width, height, rotation }: Box, u: number, v: number) {
  const a = (rotation * Math.PI) / 180;
  const [dx, dy] = [(u - 0.5) * width, (v - 0.5) * height];
  return [
    x + width / 2 + dx * Math.cos(a) - dy * Math.sin(a),
    y + height / 2 + dx * Math.sin(a) + dy * Math.cos(a),
  ];
}

test('in another size the point that is to stay put does, however the box is turned', () => {
  fc.assert(
    fc.property(box, side, side, share, share, (from, width, height, x, y) => {
      const to = resizedBox(from, width, height, { x, y });
      expect([to.width, to.height, to.rotation]).toEqual([width, height, from.rotation]);
      const [before, after] = [pointOf(from, x, y), pointOf(to, x, y)];
      expect(after).toEqual(before.map((v) => expect.closeTo(v, 6)));
    }),
  );
});

test('in its own size a box is what it was', () => {
  fc.assert(
    fc.property(box, share, share, (b, x, y) => {
      const same = resizedBox(b, b.width, b.height, { x, y });
      expect([same.x, same.y]).toEqual([expect.closeTo(b.x, 6), expect.closeTo(b.y, 6)]);
    }),
  );
});

test('the upright rectangle around a turned box has all its corners within, and touches them', () => {
  fc.assert(
    fc.property(box, (b) => {
      const r = uprightBounds(b);
      const corners = [pointOf(b, 0, 0), pointOf(b, 1, 0), pointOf(b, 0, 1), pointOf(b, 1, 1)];
      const [xs, ys] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
      expect(r.x).toBeCloseTo(Math.min(...xs), 5);
      expect(r.y).toBeCloseTo(Math.min(...ys), 5);
      expect(r.x + r.width).toBeCloseTo(Math.max(...xs), 5);
      expect(r.y + r.height).toBeCloseTo(Math.max(...ys), 5);
    }),
  );
});
