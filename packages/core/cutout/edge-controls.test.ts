import fc from 'fast-check';
import { createPlane, type Plane } from '../raster/pixels';
import { applyEdgeControls, edgeReach } from './edge-controls';
import type { EdgeControls } from './recipe';

const AS_FOUND: EdgeControls = { shift: 0, soften: 0, smooth: 0, crispness: 0, spill: 0 };
const SIZE = 41;

/** A disc of a radius about the middle, its edge one pixel wide. */
function disc(radius: number): Plane {
  const plane = createPlane(SIZE, SIZE);
  for (let y = 0; y < SIZE; y++)
    for (let x = 0; x < SIZE; x++) {
      const d = radius - Math.hypot(x - 20, y - 20) + 0.5;
      plane.data[y * SIZE + x] = Math.min(1, Math.max(0, d));
    }
  return plane;
}
const area = ({ data }: Plane) => data.reduce((sum, v) => sum + v, 0);
/** How far from the middle the matte is half transparent, to the right. */
function radiusOf({ data }: Plane): number {
  const row = data.subarray(20 * SIZE + 20, 21 * SIZE);
  const at = row.findIndex((v) => v < 0.5);
  return at - 1 + (row[at - 1] - 0.5) / (row[at - 1] - row[at]);
}
/** Pixels across the edge that are neither opaque nor transparent, to the right of the middle. */
const greyAcross = ({ data }: Plane) =>
  data.subarray(20 * SIZE + 20, 21 * SIZE).filter((v) => v > 0.02 && v < 0.98).length;

const controls = fc.record({
  shift: fc.double({ min: -4, max: 4, noNaN: true }),
  soften: fc.double({ min: 0, max: 4, noNaN: true }),
  smooth: fc.double({ min: 0, max: 6, noNaN: true }),
  crispness: fc.double({ min: 0, max: 1, noNaN: true }),
  spill: fc.constant(0),
});
const scale = fc.double({ min: 0.5, max: 4, noNaN: true });

test('left as found, a matte is left as it is', () => {
  const matte = disc(12);
  expect(applyEdgeControls(matte, AS_FOUND, 1)).toBe(matte);
});

test('whatever is set, the matte stays between transparent and opaque, and keeps its size', () => {
  fc.assert(
    fc.property(controls, scale, (edge, k) => {
      const out = applyEdgeControls(disc(11), edge, k);
      expect([out.width, out.height]).toEqual([SIZE, SIZE]);
      expect(out.data.every((v) => v >= 0 && v <= 1)).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('an empty matte and a full one have no edge to change', () => {
  fc.assert(
    fc.property(controls, scale, fc.constantFrom(0, 1), (edge, k, value) => {
      const out = applyEdgeControls(createPlane(24, 24, value), edge, k);
      expect(out.data.every((v) => Math.abs(v - value) < 1e-4)).toBe(true);
    }),
    { numRuns: 40 },
  );
});

test.each([-3, -1, -0.4, 0.4, 1, 2.5])('shifted by %p photo pixels the edge moves by as many', (shift) => {
  const moved = applyEdgeControls(disc(12), { ...AS_FOUND, shift }, 1);
  expect(radiusOf(moved) - radiusOf(disc(12))).toBeCloseTo(shift, 0);
  // On a matte at half the photo's size it moves by half as many.
  const half = applyEdgeControls(disc(12), { ...AS_FOUND, shift }, 2);
  expect(Math.abs(radiusOf(half) - radiusOf(disc(12)))).toBeLessThanOrEqual(Math.abs(shift) / 2 + 0.35);
});

test('further out is never less, anywhere', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: 0.1, max: 2, noNaN: true }),
      (a, by) => {
        const inner = applyEdgeControls(disc(11), { ...AS_FOUND, shift: a }, 1);
        const outer = applyEdgeControls(disc(11), { ...AS_FOUND, shift: a + by }, 1);
        expect(outer.data.every((v, i) => v >= inner.data[i] - 0.03)).toBe(true);
      },
    ),
    { numRuns: 40 },
  );
});

test('softened the edge is wider, crisp it is narrower; neither changes how much there is by much', () => {
  const found = disc(12);
  const soft = applyEdgeControls(found, { ...AS_FOUND, soften: 2 }, 1);
  const crisp = applyEdgeControls(soft, { ...AS_FOUND, crispness: 1 }, 1);
  expect(greyAcross(soft)).toBeGreaterThan(greyAcross(found) + 2);
  expect(greyAcross(crisp)).toBeLessThan(greyAcross(soft));
  expect(area(soft) / area(found)).toBeCloseTo(1, 1);
  expect(area(crisp) / area(found)).toBeCloseTo(1, 1);
});

test('smoothing takes a bump of one pixel off, and leaves a straight edge in its place', () => {
  const bumpy = createPlane(SIZE, SIZE);
  for (let y = 0; y < SIZE; y++) for (let x = 0; x < 20; x++) bumpy.data[y * SIZE + x] = 1;
  bumpy.data[20 * SIZE + 20] = 1;
  const out = applyEdgeControls(bumpy, { ...AS_FOUND, smooth: 5 }, 1);
  expect(out.data[20 * SIZE + 20]).toBeLessThan(0.5);
  expect(out.data[20 * SIZE + 17]).toBeGreaterThan(0.5);
  // Far from the bump the edge is where it was, and the border of the picture is no edge.
  expect(out.data[5 * SIZE + 17]).toBeGreaterThan(0.9);
  expect(out.data[5 * SIZE + 23]).toBeLessThan(0.1);
  expect(out.data[0]).toBeCloseTo(1, 3);
});

test('a view is asked for with as much around it as the controls can reach', () => {
  expect(edgeReach(AS_FOUND, 1)).toBe(2);
  expect(edgeReach({ shift: -3, soften: 2, smooth: 1, crispness: 1, spill: 0 }, 1)).toBe(14);
  expect(edgeReach({ shift: -3, soften: 2, smooth: 1, crispness: 1, spill: 0 }, 4)).toBe(5);
});

test('within a view with that much around it the edge is the same as in the whole', () => {
  fc.assert(
    fc.property(controls, (edge) => {
      const whole = applyEdgeControls(disc(12), edge, 1);
      const reach = edgeReach(edge, 1);
      // A view whose middle column is the one at the right edge of the disc.
      const [left, right] = [Math.max(0, 32 - reach), Math.min(SIZE, 33 + reach)];
      const part = createPlane(right - left, SIZE);
      for (let y = 0; y < SIZE; y++)
        part.data.set(disc(12).data.subarray(y * SIZE + left, y * SIZE + right), y * part.width);
      const seen = applyEdgeControls(part, edge, 1);
      for (let y = 0; y < SIZE; y++)
        expect(Math.abs(seen.data[y * part.width + 32 - left] - whole.data[y * SIZE + 32])).toBeLessThan(
          0.06,
        );
    }),
    { numRuns: 30 },
  );
});
