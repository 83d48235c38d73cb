import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DOME, flipped, isBehind, lightAt, onDome, turnedBy } from './light-on-dome';

const light = (azimuthDeg: number, elevationDeg: number) => ({ azimuthDeg, elevationDeg, softness: 0.5 });
const azimuth = fc.integer({ min: -180, max: 180 });
const elevation = fc.integer({ min: 5, max: 85 });

test('a light from the front stands over the product, one from the side at the dome’s foot', () => {
  expect(onDome(light(0, 5)).x).toBeCloseTo(DOME.cx, 6);
  expect(onDome(light(90, 5)).x).toBeGreaterThan(DOME.cx + 0.99 * DOME.radius);
  expect(onDome(light(-90, 5)).x).toBeLessThan(DOME.cx - 0.99 * DOME.radius);
  expect(onDome(light(0, 85)).y).toBeLessThan(onDome(light(0, 5)).y);
});

test('a light is seen in the picture, and what is nearer is lower in it', () => {
  fc.assert(
    fc.property(azimuth, elevation, (a, e) => {
      const { x, y, depth } = onDome(light(a, e));
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(DOME.width);
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(DOME.height);
      expect(depth < 0).toBe(isBehind(light(a, e)));
    }),
  );
});

test('wherever it is dragged it stays on its side, above the ground and within half a turn', () => {
  fc.assert(
    fc.property(
      azimuth,
      elevation,
      fc.double({ min: -300, max: 600, noNaN: true }),
      fc.double({ min: -300, max: 600, noNaN: true }),
      (a, e, x, y) => {
        const from = light(a, e);
        fc.pre(Math.abs(a) !== 90);
        const to = lightAt(from, x, y);
        expect(to.elevationDeg).toBeGreaterThanOrEqual(5);
        expect(to.elevationDeg).toBeLessThanOrEqual(85);
        expect(Math.abs(to.azimuthDeg)).toBeLessThanOrEqual(180);
        // At the very side it may count to either.
        if (Math.abs(to.azimuthDeg) !== 90) expect(isBehind(to)).toBe(isBehind(from));
        expect(to.softness).toBe(from.softness);
      },
    ),
  );
});

test('dragged a little, it goes the way of the pointer', () => {
  const from = light(20, 40);
  const { x, y } = onDome(from);
  expect(lightAt(from, x + 20, y).azimuthDeg).toBeGreaterThan(lightAt(from, x, y).azimuthDeg);
  expect(lightAt(from, x, y - 20).elevationDeg).toBeGreaterThan(lightAt(from, x, y).elevationDeg);
});

test('turned all round it is where it was; it never sinks below the ground', () => {
  fc.assert(
    fc.property(azimuth, elevation, fc.integer({ min: -1000, max: 1000 }), (a, e, by) => {
      const turned = turnedBy(light(a, e), by, 0);
      expect(turned.azimuthDeg).toBeGreaterThanOrEqual(-180);
      expect(turned.azimuthDeg).toBeLessThan(180);
      expect(Math.abs((turned.azimuthDeg - a - by) % 360)).toBe(0);
      expect(turnedBy(light(a, e), 0, by).elevationDeg).toBe(Math.min(85, Math.max(5, e + by)));
    }),
  );
});

test('flipped twice it is where it was, and once it is on the other side', () => {
  fc.assert(
    fc.property(azimuth, elevation, (a, e) => {
      const there = flipped(light(a, e));
      expect(onDome(there).x).toBeCloseTo(onDome(light(a, e)).x, 6);
      expect(onDome(there).depth).toBeCloseTo(-onDome(light(a, e)).depth, 6);
      expect(Math.abs((flipped(there).azimuthDeg - a) % 360)).toBe(0);
    }),
  );
});
