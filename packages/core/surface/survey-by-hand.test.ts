import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blur } from '../raster/blur';
import { createPlane } from '../raster/pixels';
import { edgeBetween, type PrintArea } from './area';
import { areaSurface, bulgeThrough, cornersOff } from './area-surface';
import { carry, homography, type Pair } from './homography';
import { sizeByRectangle } from './known-size';
import { snapEdge } from './snap-edge';
import { nearestCorner, strongCorners } from './strong-corners';

/** A light card with straight edges on a dark table; places in picture coordinates. */
function card(left: number, top: number, right: number, bottom: number) {
  const plane = createPlane(120, 90);
  for (let y = 0; y < 90; y++)
    for (let x = 0; x < 120; x++) {
      const cover = (from: number, to: number, at: number) =>
        Math.max(0, Math.min(1, at + 1 - from) - Math.max(0, at + 1 - to));
      plane.data[y * 120 + x] +=
        180 * Math.min(1, cover(left, right, x)) * Math.min(1, cover(top, bottom, y));
    }
  return blur(plane, 0.7);
}

test('the corners of a card are its strong corners, to a fraction of a pixel', () => {
  const corners = strongCorners(card(30.4, 20.7, 90.2, 70.3));
  expect(corners).toHaveLength(4);
  for (const [x, y] of [
    [30.4, 20.7],
    [90.2, 20.7],
    [90.2, 70.3],
    [30.4, 70.3],
  ] as Pair[]) {
    const found = nearestCorner(corners, [x + 3, y - 2], 8);
    expect(Math.hypot(found![0] - x, found![1] - y)).toBeLessThan(0.4);
  }
  expect(nearestCorner(corners, [60, 45], 8)).toBeNull();
});

test('an even picture has no corners, and many lie apart', () => {
  expect(strongCorners(createPlane(50, 50, 128))).toEqual([]);
  const noisy = createPlane(60, 60);
  for (let i = 0; i < noisy.data.length; i++) noisy.data[i] = ((i * 2654435761) >>> 8) % 256;
  const corners = strongCorners(noisy, { apart: 9, most: 12 });
  expect(corners.length).toBeGreaterThan(3);
  expect(corners.length).toBeLessThanOrEqual(12);
  for (const a of corners)
    for (const b of corners)
      if (a !== b) expect(Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1])).toBeGreaterThanOrEqual(9);
});

test('an edge is drawn to the bent border beside it, and its ends stay', () => {
  const border = (x: number) => 45 + 8 * Math.sin((Math.PI * (x - 10)) / 100);
  const plane = createPlane(120, 90);
  for (let y = 0; y < 90; y++)
    for (let x = 0; x < 120; x++) plane.data[y * 120 + x] = y + 0.5 < border(x + 0.5) ? 60 : 190;
  const edge = Array.from({ length: 9 }, (_, i): Pair => [10 + i * 12.5, 45]);
  const drawn = snapEdge(plane, edge, 12);
  expect([drawn[0], drawn[8]]).toEqual([edge[0], edge[8]]);
  for (const [x, y] of drawn.slice(1, 8)) expect(Math.abs(y - border(x))).toBeLessThan(1.5);
});

test('an edge beside which nothing changes, or only grain, stays as it is', () => {
  const edge = Array.from({ length: 9 }, (_, i): Pair => [10 + i * 10, 30 + i]);
  expect(snapEdge(createPlane(120, 90, 100), edge, 10)).toEqual(edge);
  const grain = createPlane(120, 90);
  for (let i = 0; i < grain.data.length; i++) grain.data[i] = 150 + (((i * 2654435761) >>> 8) % 9);
  expect(snapEdge(grain, edge, 10)).toEqual(edge);
});

test('a point beside which nothing changes stays near where it is, though others of its edge move', () => {
  const plane = createPlane(120, 90);
  // The border is seen along the left half only, and fades out.
  for (let y = 0; y < 90; y++)
    for (let x = 0; x < 120; x++)
      plane.data[y * 120 + x] = 120 + (y < 51 ? -1 : 1) * 60 * Math.max(0, Math.min(1, (60 - x) / 10));
  const edge = Array.from({ length: 9 }, (_, i): Pair => [10 + i * 12.5, 45]);
  const drawn = snapEdge(plane, edge, 12);
  expect(Math.abs(drawn[2][1] - 51)).toBeLessThan(1.5);
  expect(Math.abs(drawn[7][1] - 45)).toBeLessThan(1.5);
});

test('an area is as large as a rectangle beside it says, however both are seen', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.25, max: 0.25, noNaN: true }),
      fc.double({ min: -0.25, max: 0.25, noNaN: true }),
      fc.double({ min: 30, max: 200, noNaN: true }),
      (lean, turn, width) => {
        const seen = homography(
          [
            [0, 0],
            [300, 0],
            [300, 300],
            [0, 300],
          ],
          [
            [100 + lean * 100, 100 + turn * 90],
            [500 - lean * 100, 100 - turn * 90],
            [500 + turn * 80, 480],
            [100 - turn * 80, 470],
          ],
        );
        const at = (x: number, y: number): Pair => {
          const [px, py] = carry(seen, x, y);
          return [px, py];
        };
        const box = (x: number, y: number, w: number, h: number) => [
          at(x, y),
          at(x + w, y),
          at(x + w, y + h),
          at(x, y + h),
        ];
        const size = sizeByRectangle(
          box(10, 12, 85.6, 54),
          { widthMm: 85.6, heightMm: 54 },
          box(40, 70, width, 120),
        );
        expect(Math.abs(size.widthMm - width)).toBeLessThan(0.2);
        expect(Math.abs(size.heightMm - 120)).toBeLessThan(0.2);
      },
    ),
  );
});

test('a rectangle whose corners cross, or that is seen too steeply, is refused with a sentence', () => {
  const known = { widthMm: 50, heightMm: 50 };
  const box: Pair[] = [
    [0, 0],
    [100, 0],
    [100, 100],
    [0, 100],
  ];
  expect(() => sizeByRectangle([box[0], box[2], box[1], box[3]], known, box)).toThrow(/cross or fold in/);
  const steep: Pair[] = [
    [40, 0],
    [60, 0],
    [100, 60],
    [0, 60],
  ];
  const above = box.map(([x, y]): Pair => [x, y - 200]);
  expect(() => sizeByRectangle(steep, known, above)).toThrow(/nearer to it/);
});

/** A packet of 120 by 160 mm whose plane is turned from the camera, in a picture of 900 x 700. */
const view = { width: 900, height: 700, focal: 1100 };
function packet(turn: number, bulgeMm = 0): PrintArea {
  const [W, H] = [120, 160];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const seen = (X: number, Y: number): Pair => {
    const [x, z] = [X * c, 400 + X * s];
    return [450 + (1100 * x) / z, 350 + (1100 * Y) / z];
  };
  const [tl, tr, br, bl] = [
    seen(-W / 2, -H / 2),
    seen(W / 2, -H / 2),
    seen(W / 2, H / 2),
    seen(-W / 2, H / 2),
  ];
  return {
    id: 'front',
    title: 'Front',
    shape: 'bulge',
    corners: [tl, tr, br, bl],
    edges: {
      top: edgeBetween(tl, tr),
      bottom: edgeBetween(bl, br),
      left: edgeBetween(tl, bl),
      right: edgeBetween(tr, br),
    },
    widthMm: W,
    heightMm: H,
    wrapDeg: null,
    bulgeMm,
    material: 'paper',
    stock: 'light',
  };
}

test('a middle that is dragged to where it shows gives how far it stands out, whatever it was before', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.35, max: 0.9, noNaN: true }),
      fc.double({ min: -12, max: 30, noNaN: true }),
      fc.double({ min: -10, max: 25, noNaN: true }),
      (turn, bulgeMm, before) => {
        const at = areaSurface(packet(turn, bulgeMm), view).at(0.5, 0.5);
        expect(bulgeThrough(packet(turn, before), view, at)).toBeCloseTo(bulgeMm, 1);
      },
    ),
    { numRuns: 60 },
  );
});

test('seen straight on the middle says nothing; dragged wildly it stays within the area’s width', () => {
  expect(bulgeThrough(packet(0), view, [450, 350])).toBeNull();
  const far = bulgeThrough(packet(0.6), view, [5000, -3000])!;
  expect(Math.abs(far)).toBeLessThanOrEqual(120);
});

test('corners of a rectangle fit its own size and not another; the more it is wrong, the farther they are off', () => {
  const area = packet(0.6);
  expect(cornersOff(area, view)).toBeLessThan(0.01);
  const wider = [1.05, 1.2, 1.5].map((k) => cornersOff({ ...area, widthMm: 120 * k }, view));
  expect(wider[0]).toBeGreaterThan(1);
  expect(wider[1]).toBeGreaterThan(wider[0]);
  expect(wider[2]).toBeGreaterThan(wider[1]);
  const moved = { ...area, corners: area.corners.with(2, [area.corners[2][0] + 30, area.corners[2][1]]) };
  expect(cornersOff(moved, view)).toBeGreaterThan(3);
  expect(() => cornersOff({ ...area, corners: Array(4).fill([10, 10]) as Pair[] }, view)).toThrow();
});
