import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cameraFromHorizon, onPlane, project } from './camera';
import { perspectiveGrid } from './grid';
import { snapBase } from './snap';

const [W, H] = [1600, 1200];
const camera = cameraFromHorizon(420, { base: [800, 900], top: [800, 700], heightMm: 150 }, W, H);

test('the grid lies on the plane: its lines are as far apart as it says', () => {
  const { lines, step } = perspectiveGrid(camera, W, H);
  expect(step).toBeGreaterThan(0);
  expect(lines.length).toBeGreaterThan(20);
  for (const { x1, y1, x2, y2 } of lines.slice(0, 40)) {
    const a = onPlane(camera, { x: x1, y: y1 })!;
    const b = onPlane(camera, { x: x2, y: y2 })!;
    expect(Math.hypot(a.X - b.X, a.Y - b.Y)).toBeCloseTo(step, 3);
    expect(Math.abs(a.X / step - Math.round(a.X / step))).toBeLessThan(1e-3);
  }
});

test('posts stand upright on it and are as tall as they are said to be', () => {
  const { posts } = perspectiveGrid(camera, W, H);
  expect(posts.length).toBeGreaterThan(0);
  for (const { x, y, topX, topY, mm } of posts) {
    const foot = onPlane(camera, { x, y })!;
    const top = project(camera, { ...foot, Z: mm })!;
    expect(topX).toBeCloseTo(top.x, 3);
    expect(topY).toBeCloseTo(top.y, 3);
    expect(topY).toBeLessThan(y);
  }
});

test('a camera that sees none of the plane has no grid', () => {
  const up = cameraFromHorizon(5000, { base: [800, 6000], top: [800, 5500], heightMm: 150 }, W, H);
  expect(perspectiveGrid(up, W, H).lines).toEqual([]);
});

const targets = {
  frame: { width: 900, height: 600 },
  spots: [{ id: 'A', x: 200, y: 500 }],
  bases: [{ name: 'Jug', x: 620, y: 480 }],
};

test('a base snaps to a spot both ways, else to the nearest line each way', () => {
  expect(snapBase({ x: 206, y: 495 }, targets, 10)).toMatchObject({ x: 200, y: 500 });
  const beside = snapBase({ x: 447, y: 483 }, targets, 10);
  expect([beside.x, beside.y]).toEqual([450, 480]);
  expect(beside.guides.map((g) => g.label)).toEqual(['centre', 'base of Jug']);
});

test('nothing moves farther than its reach, and what is not near anything stays', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 900, noNaN: true }),
      fc.double({ min: 0, max: 600, noNaN: true }),
      fc.double({ min: 1, max: 40, noNaN: true }),
      (x, y, reach) => {
        const to = snapBase({ x, y }, targets, reach);
        expect(Math.hypot(to.x - x, to.y - y)).toBeLessThanOrEqual(1.5 * reach + 1e-9);
        if (!to.guides.length) expect([to.x, to.y]).toEqual([x, y]);
      },
    ),
  );
});
