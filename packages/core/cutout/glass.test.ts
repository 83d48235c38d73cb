import { expect, test } from '@jest/globals';
import { oklabPixels } from '../raster/colour';
import { createPlane, createRgba, type Rgba } from '../raster/pixels';
import { fitBackground } from './background';
import { findGlass, recognisedGlass, recolourGlass, seeThrough, type Glass } from './glass';
import type { Analysis } from './segment';

const [W, H] = [90, 70];
const PAPER = [236, 234, 230];
/** A round vessel's place: x from 30 to 60, y from 15 to 60. */
const inside = (x: number, y: number) => x >= 30 && x < 60 && y >= 15 && y < 60;
const onRim = (x: number, y: number) => inside(x, y) && (x < 33 || x >= 57 || y < 18 || y >= 57);

function photograph(at: (x: number, y: number) => number[] | null): Rgba {
  const photo = createRgba(W, H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) photo.data.set([...(at(x, y) ?? PAPER), 255], (y * W + x) * 4);
  return photo;
}

/** What a reduced photo is known by, as far as glass needs it. */
function analysed(photo: Rgba, product = new Uint8Array(W * H)): Analysis {
  const lab = oklabPixels(photo);
  const use = Uint8Array.from({ length: W * H }, (_, i) => (inside(i % W, Math.floor(i / W)) ? 0 : 1));
  return { lab, width: W, height: H, model: fitBackground(lab, use, W, H, 3), product } as Analysis;
}
const vessel = () =>
  photograph((x, y) => (onRim(x, y) ? [205, 204, 201] : inside(x, y) ? [232, 230, 226] : null));
const count = (mask: Uint8Array, where: (x: number, y: number) => boolean) =>
  mask.reduce((n, v, i) => n + (v && where(i % W, Math.floor(i / W)) ? 1 : 0), 0);

test('a clear vessel is found by its rim, with all that it encloses', () => {
  const { envelope } = findGlass(analysed(vessel()));
  expect(count(envelope, inside)).toBeGreaterThan(0.9 * 30 * 45);
  // One pixel around at most.
  expect(count(envelope, (x, y) => !inside(x, y))).toBeLessThanOrEqual(2 * (30 + 45) + 4);
});

test('a rim with a gap that is small still encloses; plain paper has no glass on it', () => {
  const open = photograph((x, y) =>
    onRim(x, y) && !(x < 33 && y > 30 && y < 34) ? [205, 204, 201] : inside(x, y) ? [232, 230, 226] : null,
  );
  expect(count(findGlass(analysed(open)).envelope, inside)).toBeGreaterThan(0.8 * 30 * 45);
  expect(count(findGlass(analysed(photograph(() => null))).envelope, () => true)).toBe(0);
});

test('a coloured stopper in the glass is solid, the glass is not', () => {
  const stopper = (x: number, y: number) => x >= 38 && x < 52 && y >= 20 && y < 32;
  const photo = photograph((x, y) =>
    stopper(x, y) ? [170, 96, 40] : onRim(x, y) ? [205, 204, 201] : inside(x, y) ? [232, 230, 226] : null,
  );
  const { opaque } = findGlass(analysed(photo));
  expect(opaque.data[26 * W + 45]).toBeGreaterThan(0.95);
  expect(opaque.data[48 * W + 45]).toBeLessThan(0.05);
});

test('a wall is denser towards the rim, as light grazes it there', () => {
  const { wall } = findGlass(analysed(vessel()));
  const row = 40 * W;
  expect(wall.data[row + 45]).toBeGreaterThan(0.1);
  expect(wall.data[row + 30]).toBeGreaterThan(wall.data[row + 45] + 0.1);
  for (const v of wall.data) expect(v >= 0 && v <= 1).toBe(true);
});

test('the model is believed only where a good part of the product is surely seen through', () => {
  const product = Uint8Array.from({ length: W * H }, (_, i) => (inside(i % W, Math.floor(i / W)) ? 1 : 0));
  const analysis = analysed(vessel(), product);
  const seen = (value: number, rows: number) => {
    const plane = createPlane(W, H);
    for (let y = 15; y < 15 + rows; y++) plane.data.fill(value, y * W + 30, y * W + 60);
    return plane;
  };
  expect(recognisedGlass(analysis, product, seen(0.9, 3))).toBeNull();
  expect(recognisedGlass(analysis, product, seen(0.5, 45))).toBeNull();
  const glass = recognisedGlass(analysis, product, seen(0.9, 40))!;
  expect(glass.opaque.data[20 * W + 45]).toBe(0);
  expect(glass.opaque.data[58 * W + 45]).toBe(1);
  expect(recognisedGlass(analysis, new Uint8Array(W * H), seen(0.9, 40))).toBeNull();
});

/** Glass over all of a small picture, solid or clear, before a backdrop of one grey. */
function pane(solid: number, wall: number, grey: number): Glass {
  const plane = (v: number) => createPlane(4, 1, v);
  return {
    envelope: new Uint8Array(4).fill(1),
    opaque: plane(solid),
    wall: plane(wall),
    backdrop: [plane(grey), plane(grey), plane(grey)],
  };
}
const row = (...greys: number[]) => {
  const picture = createRgba(greys.length, 1);
  greys.forEach((v, i) => picture.data.set([v, v, v, 255], i * 4));
  return picture;
};
const PLACE = { kx: 1, ky: 1, left: 0, top: 0 };

test('opacity is the least that explains a pixel, and its colour composes to what was seen', () => {
  const picture = row(200, 100, 228, 255);
  const colours = row(200, 100, 228, 255);
  const alpha = createPlane(4, 1, 1);
  seeThrough(picture, PLACE, 1, pane(0, 0, 200), alpha, colours);
  expect(alpha.data[0]).toBe(0);
  expect(alpha.data[1]).toBeCloseTo(0.5, 3);
  expect(alpha.data[2]).toBeCloseTo(28 / 55, 3);
  expect(alpha.data[3]).toBeCloseTo(1, 3);
  for (let i = 1; i < 4; i++) {
    const a = alpha.data[i];
    const seen = a * colours.data[i * 4] + (1 - a) * 200;
    expect(Math.abs(seen - picture.data[i * 4])).toBeLessThan(1.5);
  }
});

test('solid parts stay as they are, and a wall is never clearer than it reflects', () => {
  const picture = row(200, 150, 120, 200);
  const colours = row(200, 150, 120, 200);
  const alpha = createPlane(4, 1, 1);
  seeThrough(picture, PLACE, 1, pane(1, 0.2, 200), alpha, colours);
  expect([...alpha.data]).toEqual([1, 1, 1, 1]);
  expect([...colours.data]).toEqual([...picture.data]);
  const clear = createPlane(4, 1, 1);
  seeThrough(picture, PLACE, 1, pane(0, 0.2, 200), clear, colours);
  expect(clear.data[0]).toBeCloseTo(0.2, 5);
});

test('where a hand makes glass firmer its colour still composes to the photo, and untouched places keep theirs', () => {
  const picture = row(190, 100, 228, 230);
  const colours = row(190, 100, 228, 230);
  const glass = pane(0, 0, 200);
  const alpha = createPlane(4, 1, 1);
  seeThrough(picture, PLACE, 1, glass, alpha, colours);
  const was = Float32Array.from(alpha.data);
  // A faint trace darker than its ground is worked out as black: it would be loud once it is firm.
  expect(colours.data[0]).toBe(0);
  alpha.data.set([0.8, was[1], 0, 1]);
  const before = [...colours.data];
  recolourGlass(picture, PLACE, 1, glass, was, { alpha, colours });
  for (const i of [0, 3]) {
    const a = alpha.data[i];
    expect(Math.abs(a * colours.data[i * 4] + (1 - a) * 200 - picture.data[i * 4])).toBeLessThan(1);
  }
  expect([...colours.data.slice(4, 12)]).toEqual(before.slice(4, 12));
});
