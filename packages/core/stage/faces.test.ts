import { boxBody } from './body';
import { cameraFromHorizon, project } from './camera';
import { castShadow, scaledShadow, shadowOnUpright } from './cast-shadow';
import { clockwise, faceFinder, thingFace, wallFace, wallRegion } from './faces';
import { layShadows } from './lay-on-plane';
import { standAt } from './stand-frame';

/** A camera that looks on a plane a little from above, in a frame of 800 x 600. */
const frame = { width: 800, height: 600 };
const camera = cameraFromHorizon(150, { base: [400, 450], top: [400, 330], heightMm: 120 }, 800, 600);
const stand = standAt(camera, { x: 400, y: 450 }, 0)!;

/** A place right of, away from and above the stand, in the picture. */
const shown = (x: number, y: number, z = 0): [number, number] => {
  const [c, s] = [Math.cos(stand.facing), Math.sin(stand.facing)];
  const p = project(camera, { X: stand.X + x * s + y * c, Y: stand.Y - x * c + y * s, Z: z })!;
  return [p.x, p.y];
};
const light = (azimuthDeg: number, elevationDeg: number, softness = 0) => ({
  azimuthDeg,
  elevationDeg,
  softness,
});

test('a place of the picture is found on the wall where it shows, on the ground before its foot', () => {
  const wall = wallFace(camera, [shown(-50, 100), shown(150, 100)])!;
  const find = faceFinder([wall], camera, stand);
  const out = new Float64Array(3);
  expect(find(...shown(30, 100, 70), out)).toBe(true);
  expect([...out]).toEqual([expect.closeTo(30, 3), expect.closeTo(100, 3), expect.closeTo(70, 3)]);
  expect(find(...shown(30, 90), out)).toBe(false);
  // High over the horizon there is no ground, but the wall goes on.
  expect(find(400, 20, out)).toBe(true);
  expect(out[2]).toBeGreaterThan(100);
});

test('a thing stands on its lowest point and shows within its outline alone', () => {
  const outline = [shown(60, 40, 80), shown(110, 40, 80), shown(110, 40), shown(60, 40)];
  const find = faceFinder([thingFace(camera, outline)!], camera, stand);
  const out = new Float64Array(3);
  expect(find(...shown(85, 40, 30), out)).toBe(true);
  // The card faces the camera, the place was taken straight above its foot.
  expect(Math.abs(out[2] - 30)).toBeLessThan(1);
  expect(out[1]).toBeCloseTo(40, -1);
  expect(find(...shown(50, 40, 30), out)).toBe(false);
});

test('a foot at the horizon, or of one point, is no wall', () => {
  expect(
    wallFace(camera, [
      [0, 100],
      [800, 100],
    ]),
  ).toBeNull();
  expect(
    wallFace(camera, [
      [300, 400],
      [300, 400],
    ]),
  ).toBeNull();
  expect(
    thingFace(camera, [
      [300, 20],
      [340, 20],
      [320, 90],
    ]),
  ).toBeNull();
});

test.each([
  [0, 45, 60],
  [20, 35, 90],
  [-35, 55, 50],
])(
  'light from %i degrees, %i up: a box throws its shadow on a wall %i mm behind as high as the rays climb',
  (azimuth, elevation, far) => {
    const [W, H, D] = [80, 140, 40];
    const shadow = castShadow(boxBody(W, H, D), {
      light: light(azimuth, elevation),
      cells: 200,
      samples: 8,
      each: true,
    });
    const toward = Math.cos((azimuth * Math.PI) / 180) / Math.tan((elevation * Math.PI) / 180);
    const aside = -Math.tan((azimuth * Math.PI) / 180);
    // The box's far upper edge throws highest; there the shadow has gone aside by as much as it has gone away.
    const top = H - (far - D / 2) / toward;
    const middle = (far - D / 2) * aside;
    expect(shadowOnUpright(shadow, middle, far, top - 4)).toBeGreaterThan(0.9);
    expect(shadowOnUpright(shadow, middle, far, top + 4)).toBeLessThan(0.1);
    expect(shadowOnUpright(shadow, middle + W / 2 - 3, far, top - 6)).toBeGreaterThan(0.9);
    expect(shadowOnUpright(shadow, middle + W / 2 + 3, far, top - 6)).toBeLessThan(0.1);
  },
);

test('a wall that the light comes from takes no shadow, and none falls above what casts it', () => {
  const shadow = castShadow(boxBody(80, 100, 40), { light: light(180, 45), samples: 8, each: true });
  expect(shadowOnUpright(shadow, 0, 60, 20)).toBe(0);
  const other = castShadow(boxBody(80, 100, 40), { light: light(0, 10), samples: 8, each: true });
  expect(shadowOnUpright(other, 0, 30, 50)).toBeGreaterThan(0.9);
  expect(shadowOnUpright(other, 0, 30, 101)).toBe(0);
});

test('in other units the shadow on a wall is the same', () => {
  const shadow = castShadow(boxBody(80, 140, 40), { light: light(10, 40, 0.5), each: true });
  const double = scaledShadow(shadow, 2);
  for (const [x, y, z] of [
    [0, 50, 30],
    [20, 60, 70],
    [-30, 45, 90],
  ])
    expect(shadowOnUpright(double, x * 2, y * 2, z * 2)).toBeCloseTo(shadowOnUpright(shadow, x, y, z), 6);
});

test('a laid shadow climbs a wall, runs on unbroken from the ground, and without a wall goes on behind', () => {
  const shadow = castShadow(boxBody(80, 140, 40), { light: light(0, 40, 0.2), cells: 120, each: true });
  const wall = wallFace(camera, [shown(-50, 70), shown(150, 70)])!;
  const lay = (faces: (typeof wall)[]) => {
    const { picture, rect } = layShadows(
      [{ shadow, strength: 1, direct: true }],
      { stand, camera, frame },
      { colour: [0, 0, 0], detail: 800, faces },
    )!;
    return (at: readonly [number, number]) => {
      const x = Math.floor(((at[0] - rect.x) * picture.width) / rect.width);
      const y = Math.floor(((at[1] - rect.y) * picture.height) / rect.height);
      if (x < 0 || y < 0 || x >= picture.width || y >= picture.height) return 0;
      return picture.data[(y * picture.width + x) * 4 + 3];
    };
  };
  const [bent, flat] = [lay([wall]), lay([])];
  expect(bent(shown(0, 70, 60))).toBeGreaterThan(200);
  expect(Math.abs(bent(shown(0, 66)) - bent(shown(0, 70, 3)))).toBeLessThan(25);
  // The same place of the picture shows the ground far behind where there is no wall: out of the shadow's reach.
  expect(flat(shown(0, 70, 90))).toBe(0);
  expect(bent(shown(0, 70, 90))).toBeGreaterThan(200);
  // Before the wall nothing is changed.
  expect(bent(shown(0, 40))).toBe(flat(shown(0, 40)));
});

test('what lies in shade already is not darkened by the light that does not reach it, only by contact', () => {
  const shadow = castShadow(boxBody(80, 140, 40), { light: light(0, 40) });
  const dark = (direct: boolean) => {
    const { picture } = layShadows(
      [{ shadow, strength: 0.8, direct }],
      { stand, camera, frame },
      { colour: [0, 0, 0], shade: () => 1 },
    )!;
    return picture.data.reduce((most, v, i) => (i % 4 === 3 ? Math.max(most, v) : most), 0);
  };
  expect(dark(true)).toBe(0);
  expect(dark(false)).toBeGreaterThan(180);
});

test('the region of a wall lies above its foot, to both sides of the picture, and outlines are turned alike', () => {
  const region = wallRegion(
    [
      [100, 300],
      [500, 260],
    ],
    800,
  );
  expect(clockwise(region)).toEqual(region);
  expect(clockwise(region.toReversed())).toHaveLength(4);
  const [, , right, left] = region;
  // On the foot's line, which falls by a tenth.
  expect(right[1]).toBeCloseTo(310 - right[0] / 10, 3);
  expect(left[1]).toBeCloseTo(310 - left[0] / 10, 3);
  const square: [number, number][] = [
    [0, 0],
    [0, 9],
    [9, 9],
    [9, 0],
  ];
  expect(clockwise(square)).toEqual(square.toReversed());
});

test('under a soft light a wall’s shadow fades without steps, though few points of the light are tried', () => {
  const shadow = castShadow(boxBody(80, 140, 40), {
    light: light(20, 35, 1),
    samples: 28,
    cells: 72,
    each: true,
  });
  const row = Array.from({ length: 200 }, (_, i) => shadowOnUpright(shadow, -110 + i, 110, 45));
  const most = Math.max(...row);
  expect(most).toBeGreaterThan(0.5);
  // From one millimetre to the next never by more than a twentieth of the whole: 28 hard shadows would step.
  row.forEach((v, i) => i && expect(Math.abs(v - row[i - 1])).toBeLessThan(most * 0.05));
  // To either side it only falls: no streaks.
  const peak = row.indexOf(most);
  const rises = row.filter((v, i) => i > peak && v > row[i - 1] + 0.004).length;
  expect(rises).toBe(0);
});
