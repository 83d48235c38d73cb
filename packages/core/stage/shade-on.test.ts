import { createPlane } from '../raster/pixels';
import type { Body } from './body';
import type { Light } from './light';
import { shadeOn, type Caster } from './shade-on';

/** A post 40 mm wide and 100 mm high, with levels every 10 mm. */
const POST: Body = {
  layers: Array.from({ length: 11 }, (_, i) => ({ z: i * 10, left: -20, right: 20, halfDepth: 20 })),
  round: false,
  turn: null,
  height: 100,
  foot: { halfWidth: 20, halfDepth: 20 },
};
const WIDTH = 60;
const HEIGHT = 110;
/** The receiver is such a post, seen level at a pixel a millimetre; its base's middle at the bottom. */
const receiver = { body: POST, x: 30, y: 105, pxPerMm: 1, cos: 1, lift: 0 };
const matte = () => {
  const plane = createPlane(WIDTH, HEIGHT);
  for (let y = 5; y < 105; y++) for (let x = 10; x < 50; x++) plane.data[y * WIDTH + x] = 1;
  return plane;
};
/** A light from the left, as high as it says. */
const fromLeft = (elevationDeg = 30, softness = 0): Light => ({ azimuthDeg: -90, elevationDeg, softness });
const beside = (x: number, over: Partial<Caster> = {}): Caster => ({
  body: POST,
  x,
  y: 0,
  lift: 0,
  strength: 1,
  ...over,
});
const shade = (casters: Caster[], light = fromLeft()) =>
  shadeOn(matte(), receiver, casters, light, [20, 24, 30]);
const dark = (picture: ReturnType<typeof shade>, x: number, y: number) =>
  picture ? picture.data[(y * WIDTH + x) * 4 + 3] : 0;
const sum = (picture: ReturnType<typeof shade>) => {
  let total = 0;
  for (let i = 3; picture && i < picture.data.length; i += 4) total += picture.data[i];
  return total;
};

test('what stands between the light and a product shades it, low more than high', () => {
  const picture = shade([beside(-60)]);
  expect(picture).not.toBeNull();
  expect(dark(picture, 30, 95)).toBeGreaterThan(100);
  // The post is as high as the product; its shadow falls, so the top is lit.
  expect(dark(picture, 30, 8)).toBe(0);
});

test('what stands on the other side shades nothing, nor does nothing at all', () => {
  expect(shade([beside(60)])).toBeNull();
  expect(shade([])).toBeNull();
});

test('what stands far before or behind the path of the light shades nothing', () => {
  expect(shade([beside(-60, { y: 400 })])).toBeNull();
  expect(shade([beside(-60, { y: -400 })])).toBeNull();
});

test('half the strength is half the shade', () => {
  const whole = dark(shade([beside(-60)]), 30, 95);
  const half = dark(shade([beside(-60, { strength: 0.5 })]), 30, 95);
  expect(half / whole).toBeCloseTo(0.5, 1);
});

test('a higher light throws a shorter shadow', () => {
  expect(sum(shade([beside(-60)], fromLeft(60)))).toBeLessThan(sum(shade([beside(-60)], fromLeft(25))));
});

test('the nearer, the higher the shade reaches', () => {
  const highest = (picture: ReturnType<typeof shade>) => {
    for (let y = 0; y < HEIGHT; y++) if (dark(picture, 30, y) > 40) return HEIGHT - y;
    return 0;
  };
  expect(highest(shade([beside(-50)]))).toBeGreaterThan(highest(shade([beside(-110)])));
});

test('a caster that hangs high lets the light through below it', () => {
  const standing = dark(shade([beside(-60)]), 30, 95);
  const hanging = dark(shade([beside(-60, { lift: 300 })]), 30, 95);
  expect(hanging).toBeLessThan(standing);
});

test('two casters never shade more than all, and no less than one', () => {
  const one = shade([beside(-60)]);
  const two = shade([beside(-60), beside(-62)]);
  for (let i = 3; i < two!.data.length; i += 4) {
    expect(two!.data[i]).toBeLessThanOrEqual(255);
    expect(two!.data[i]).toBeGreaterThanOrEqual(one!.data[i]);
  }
});

test('shade has the colour that is asked for, and lies within the product', () => {
  const picture = shade([beside(-60)])!;
  const alpha = matte();
  let shaded = 0;
  for (let i = 0; i < alpha.data.length; i++) {
    if (!picture.data[i * 4 + 3]) continue;
    shaded++;
    expect([...picture.data.subarray(i * 4, i * 4 + 3)]).toEqual([20, 24, 30]);
    expect(alpha.data[i]).toBeGreaterThan(0);
  }
  expect(shaded).toBeGreaterThan(100);
});

test('a soft light fades where a hard one ends', () => {
  const steps = (softness: number) => {
    const picture = shade([beside(-60)], fromLeft(30, softness));
    const values = new Set<number>();
    for (let y = 0; y < HEIGHT; y++) values.add(dark(picture, 30, y));
    return values.size;
  };
  expect(steps(0.8)).toBeGreaterThan(steps(0));
});
