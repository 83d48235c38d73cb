import { createRgba, type Rgba } from '../raster/pixels';
import { polygonCover } from '../raster/footprint';
import { findShade } from './find-shade';
import { NO_ITEM, type SceneSurvey } from './survey';

const [WIDTH, HEIGHT] = [320, 240];
/** A survey of a picture twice as large, whose ground is its lower two thirds. */
const survey: SceneSurvey = {
  width: 640,
  height: 480,
  plane: null,
  known: null,
  horizonY: 120,
  light: { azimuthDeg: 0, elevationDeg: 45, softness: 0.3 },
  gloss: 0,
  edge: [
    [0, 150],
    [640, 150],
    [640, 480],
    [0, 480],
  ],
  spots: [],
  occluder: null,
  ...NO_ITEM,
};
type Shape = [number, number][];
const BAR: Shape = [
  [100, 280],
  [420, 250],
  [430, 300],
  [110, 340],
];

/** Boards of two tones with grain; what the shapes cover gets a share of the light in each channel. */
function scene(shapes: { shape: Shape; light: [number, number, number] }[]): Rgba {
  const out = createRgba(WIDTH, HEIGHT);
  const covers = shapes.map(({ shape, light }) => ({
    light,
    cover: polygonCover({ width: WIDTH, height: HEIGHT, left: 0, top: 0, k: 2 }, shape),
  }));
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const y = Math.floor(i / WIDTH);
    const board = Math.floor(y / 40) % 2 ? 1 : 0.94;
    const grain = 1 + 0.03 * Math.sin(i * 12.9898);
    for (let c = 0; c < 3; c++) {
      let v = [0.62, 0.47, 0.3][c] * board * grain;
      for (const { light, cover } of covers) v *= 1 + (light[c] - 1) * cover.data[i];
      out.data[i * 4 + c] = 255 * v ** (1 / 2.2);
    }
    out.data[i * 4 + 3] = 255;
  }
  return out;
}

/** How far two outlines cover the same: the intersection over the union. */
function overlap(a: Shape, b: Shape): number {
  const view = { width: 640, height: 480, left: 0, top: 0, k: 1 };
  const [p, q] = [polygonCover(view, a), polygonCover(view, b)];
  let [both, any] = [0, 0];
  p.data.forEach((v, i) => {
    both += Math.min(v, q.data[i]);
    any += Math.max(v, q.data[i]);
  });
  return both / any;
}

test('a shade on boards is outlined where it lies, in the pixels of the survey', () => {
  // Skylight is bluer than the sun.
  const found = findShade(scene([{ shape: BAR, light: [0.3, 0.33, 0.42] }]), survey);
  expect(found).toHaveLength(1);
  expect(overlap(found[0], BAR)).toBeGreaterThan(0.85);
  expect(found[0].length).toBeLessThanOrEqual(60);
});

test('a dark thing of another colour is no shade', () => {
  const found = findShade(scene([{ shape: BAR, light: [0.12, 0.4, 0.14] }]), survey);
  expect(found).toEqual([]);
});

test('a ground that is lit evenly, the same all over, or ever less to one side has no shade', () => {
  expect(findShade(scene([]), survey)).toEqual([]);
  const plain = createRgba(WIDTH, HEIGHT);
  plain.data.fill(200);
  expect(findShade(plain, survey)).toEqual([]);
  const ramp = scene([]);
  for (let i = 0; i < WIDTH * HEIGHT; i++)
    for (let c = 0; c < 3; c++) ramp.data[i * 4 + c] *= 0.5 + (0.5 * (i % WIDTH)) / WIDTH;
  expect(findShade(ramp, survey)).toEqual([]);
});

test('what lies beyond the ground, over its edge or over the foot of its wall is not looked at', () => {
  const above: Shape = [
    [100, 160],
    [420, 160],
    [420, 220],
    [100, 220],
  ];
  const shade = scene([{ shape: above, light: [0.3, 0.32, 0.38] }]);
  expect(findShade(shade, survey)).toHaveLength(1);
  const wall: SceneSurvey['wall'] = [
    [0, 235],
    [640, 235],
  ];
  expect(findShade(shade, { ...survey, wall })).toEqual([]);
});

test('of many shades the largest are told, each with few enough points', () => {
  const light: [number, number, number] = [0.3, 0.32, 0.38];
  const shapes = Array.from({ length: 16 }, (_, i) => {
    const [x, y] = [20 + (i % 8) * 76, i < 8 ? 240 : 360];
    const s = 30 + i;
    const shape: Shape = [
      [x, y],
      [x + s, y],
      [x + s, y + s],
      [x, y + s],
    ];
    return { shape, light };
  });
  const found = findShade(scene(shapes), survey);
  expect(found).toHaveLength(12);
  expect(overlap(found[0], shapes[15].shape)).toBeGreaterThan(0.7);
});
