import fc from 'fast-check';
import { createPlane, type Plane } from '../raster/pixels';
import { contours } from '../raster/contours';
import { outlineToSvg } from './outline-path';
import type { Point } from './recipe';

const matteOf = (width: number, height: number, of: (x: number, y: number) => number): Plane => {
  const plane = createPlane(width, height);
  for (let i = 0; i < plane.data.length; i++) plane.data[i] = of(i % width, Math.floor(i / width));
  return plane;
};
/** Signed area: openings count against the rings around them. */
const area = (ring: Point[]) =>
  ring.reduce((s, [x, y], i) => {
    const [u, v] = ring[(i + 1) % ring.length];
    return s + (x * v - u * y) / 2;
  }, 0);
const disc = (cx: number, cy: number, r: number) => (x: number, y: number) =>
  Math.min(1, Math.max(0, r + 0.5 - Math.hypot(x + 0.5 - cx, y + 0.5 - cy)));

test('a disc becomes one ring on its edge, to a fraction of a pixel', () => {
  const [ring, ...others] = contours(matteOf(64, 48, disc(30, 22, 15)));
  expect(others).toEqual([]);
  for (const [x, y] of ring) expect(Math.abs(Math.hypot(x - 30, y - 22) - 15)).toBeLessThan(0.3);
  // Simplified, a ring cuts its curves a little short.
  const share = Math.abs(area(ring)) / (Math.PI * 225);
  expect(share).toBeGreaterThan(0.97);
  expect(share).toBeLessThan(1.01);
});

test('an opening is a ring of its own, turned the other way round', () => {
  const outer = disc(32, 32, 24);
  const inner = disc(32, 32, 10);
  const rings = contours(matteOf(64, 64, (x, y) => outer(x, y) * (1 - inner(x, y))));
  expect(rings).toHaveLength(2);
  expect(Math.sign(area(rings[0]))).toBe(-Math.sign(area(rings[1])));
  const share = Math.abs(area(rings[0]) + area(rings[1])) / (Math.PI * (24 ** 2 - 10 ** 2));
  expect(share).toBeGreaterThan(0.98);
  expect(share).toBeLessThan(1.01);
});

test('whatever the matte, every ring is closed, lies on the picture and keeps to the half-way contour', () => {
  const sides = fc.integer({ min: 1, max: 9 });
  fc.assert(
    fc.property(sides, sides, fc.infiniteStream(fc.boolean()), (width, height, bits) => {
      const matte = matteOf(width, height, () => (bits.next().value ? 1 : 0));
      const covered = matte.data.reduce((s, v) => s + v, 0);
      const rings = contours(matte, 0);
      if (!covered) return expect(rings).toEqual([]);
      for (const ring of rings)
        for (const [x, y] of ring) {
          expect(x >= 0 && x <= width && y >= 0 && y <= height).toBe(true);
          // Between two pixels of which one is inside: half-way in one direction, in the middle in the other.
          expect([x % 0.5, y % 0.5]).toEqual([0, 0]);
        }
      // Corners are cut, those inwards filled: by an eighth of a pixel each, and a pixel has four.
      const enclosed = Math.abs(rings.reduce((s, r) => s + area(r), 0));
      expect(enclosed).toBeLessThanOrEqual(covered * 1.5 + 1e-9);
      expect(enclosed).toBeGreaterThanOrEqual(covered / 2 - 1e-9);
    }),
  );
});

test('simplified, a ring has fewer points and stays within the tolerance', () => {
  const matte = matteOf(200, 200, disc(100, 100, 80));
  const [fine] = contours(matte, 0.01);
  const [rough] = contours(matte, 1);
  expect(rough.length).toBeLessThan(fine.length / 3);
  for (const [x, y] of rough) expect(Math.abs(Math.hypot(x - 100, y - 100) - 80)).toBeLessThan(1);
});

test('the SVG has the size of the photo, one path and its openings by the even-odd rule', () => {
  const svg = outlineToSvg(matteOf(8, 6, (x, y) => (x > 1 && x < 6 && y > 1 && y < 4 ? 1 : 0)));
  expect(svg).toMatch(/^<svg xmlns="[^"]+" width="8" height="6" viewBox="0 0 8 6">/);
  expect(svg.match(/<path/g)).toHaveLength(1);
  expect(svg).toContain('fill-rule="evenodd"');
  expect(outlineToSvg(createPlane(3, 3))).toContain('d=""');
});
