import { createPlane, createRgba } from '../raster/pixels';
import { measureFringe } from './fringe';

const SIDE = 120;
type Colour = [number, number, number];

/** A disc with a soft edge three pixels wide; its edge pixels have the colour that `edge` gives by their angle in turns. */
function disc(inside: Colour, edge: (turn: number) => Colour) {
  const alpha = createPlane(SIDE, SIDE);
  const colours = createRgba(SIDE, SIDE);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const i = y * SIDE + x;
      const d = Math.hypot(x - 60, y - 60);
      alpha.data[i] = Math.min(1, Math.max(0, (41.5 - d) / 3));
      const turn = (Math.atan2(x - 60, 60 - y) / (2 * Math.PI) + 1) % 1;
      colours.data.set([...(alpha.data[i] < 0.97 ? edge(turn) : inside), 255], i * 4);
    }
  return measureFringe(colours, alpha);
}
const TEAL: Colour = [30, 110, 110];
const PAPER: Colour = [235, 232, 225];

test('an edge in the product’s own colours has no fringe on either ground', () => {
  const f = disc(TEAL, () => TEAL);
  expect(f.white.worst).toBeLessThan(0.01);
  expect(f.black.worst).toBeLessThan(0.01);
});

test('a rim of pale paper round a dark product shows on black more than on white, all the way round', () => {
  const f = disc(TEAL, () => PAPER);
  expect(f.black.mean).toBeGreaterThan(15);
  expect(f.white.mean).toBeGreaterThan(3);
  expect(f.black.mean).toBeGreaterThan(f.white.mean);
  expect(f.around.filter((v) => v > 5).length).toBeGreaterThan(60);
});

test('a dark rim round a pale product shows on white', () => {
  const f = disc(PAPER, () => [20, 20, 20]);
  expect(f.white.mean).toBeGreaterThan(15);
});

test('a fringe on one side is found there, from the top clockwise', () => {
  const f = disc(TEAL, (turn) => (turn > 0.2 && turn < 0.3 ? PAPER : TEAL));
  const worst = f.around.indexOf(Math.max(...f.around));
  expect(worst).toBeGreaterThanOrEqual(12);
  expect(worst).toBeLessThanOrEqual(19);
  expect(f.around.slice(30, 60).every((v) => v < 1)).toBe(true);
  expect(f.worstAt!.x).toBeGreaterThan(92);
  expect(Math.abs(f.worstAt!.y - 60)).toBeLessThan(16);
});

test('a picture without an edge has no fringe and no worst place', () => {
  const all = createPlane(20, 20, 1);
  expect(measureFringe(createRgba(20, 20), all)).toMatchObject({
    worstAt: null,
    white: { mean: 0, worst: 0 },
  });
});
