import { polygonCover } from '../raster/footprint';
import { createRgba, type Rgba } from '../raster/pixels';
import { NO_ITEM, type SceneSurvey } from '../stage/survey';
import { findEdge } from './find-edge';

type Shape = [number, number][];
const [WIDTH, HEIGHT] = [240, 180];
/** A survey of a picture of twice the size. */
const survey: SceneSurvey = {
  width: 480,
  height: 360,
  plane: {
    corners: [
      [180, 200],
      [300, 200],
      [330, 260],
      [150, 260],
    ],
    widthMm: 400,
    depthMm: 400,
  },
  known: null,
  horizonY: null,
  light: { azimuthDeg: 0, elevationDeg: 45, softness: 0.3 },
  gloss: 0,
  spots: [],
  occluder: null,
  ...NO_ITEM,
};
const TABLE: Shape = [
  [100, 170],
  [380, 170],
  [430, 300],
  [50, 300],
];
/** Farther than the picture shows. */
const FLOOR: Shape = [
  [-100, 60],
  [600, 60],
  [600, 400],
  [-100, 400],
];
const OAK: Colour = [0.5, 0.34, 0.2];
type Colour = [number, number, number];

/** A grey room with shapes of a colour, one over the other; boards and grain on all of it. */
function scene(shapes: { shape: Shape; colour: Colour }[]): Rgba {
  const out = createRgba(WIDTH, HEIGHT);
  const covers = shapes.map(({ shape, colour }) => ({
    colour,
    cover: polygonCover({ width: WIDTH, height: HEIGHT, left: 0, top: 0, k: 2 }, shape),
  }));
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const board = Math.floor((i % WIDTH) / 30) % 2 ? 1 : 0.9;
    const grain = 1 + 0.06 * Math.sin(i * 12.9898);
    for (let c = 0; c < 3; c++) {
      let v = [0.42, 0.45, 0.47][c];
      for (const { colour, cover } of covers) v += (colour[c] - v) * cover.data[i];
      out.data[i * 4 + c] = 255 * (v * board * grain) ** (1 / 2.2);
    }
    out.data[i * 4 + 3] = 255;
  }
  return out;
}

/** How far two outlines cover the same: the intersection over the union. */
function overlap(a: Shape, b: Shape): number {
  const view = { width: 480, height: 360, left: 0, top: 0, k: 1 };
  const [p, q] = [polygonCover(view, a), polygonCover(view, b)];
  let [both, any] = [0, 0];
  p.data.forEach((v, i) => {
    both += Math.min(v, q.data[i]);
    any += Math.max(v, q.data[i]);
  });
  return both / any;
}

test('a table ends where its colours end, in the pixels of the survey and by few points', () => {
  const edge = findEdge(scene([{ shape: TABLE, colour: OAK }]), survey)!;
  expect(overlap(edge, TABLE)).toBeGreaterThan(0.95);
  expect(edge.length).toBeLessThanOrEqual(24);
});

test('another table of the same wood is another ground', () => {
  const other: Shape = [
    [420, 190],
    [480, 190],
    [480, 240],
    [420, 240],
  ];
  const edge = findEdge(
    scene([
      { shape: TABLE, colour: OAK },
      { shape: other, colour: OAK },
    ]),
    survey,
  )!;
  expect(overlap(edge, TABLE)).toBeGreaterThan(0.95);
});

test('what stands in the middle of a table leaves no hole in it', () => {
  const jar: Shape = [
    [270, 220],
    [300, 220],
    [300, 250],
    [270, 250],
  ];
  const edge = findEdge(
    scene([
      { shape: TABLE, colour: OAK },
      { shape: jar, colour: [0.05, 0.2, 0.5] },
    ]),
    survey,
  )!;
  expect(overlap(edge, TABLE)).toBeGreaterThan(0.95);
});

test('a floor that goes on wherever it could has no edge, and no rectangle says nothing', () => {
  expect(findEdge(scene([{ shape: FLOOR, colour: OAK }]), survey)).toBeNull();
  expect(findEdge(scene([{ shape: TABLE, colour: OAK }]), { ...survey, plane: null })).toBeNull();
});

test('no edge is told where only a surveyed wall ends the floor; a thing of the same wood is none of a table', () => {
  const wall: SceneSurvey['wall'] = [
    [0, 150],
    [480, 150],
  ];
  expect(findEdge(scene([{ shape: FLOOR, colour: OAK }]), { ...survey, wall })).toBeNull();
  const chest: Shape = [
    [372, 140],
    [480, 140],
    [480, 300],
    [430, 300],
  ];
  const both = scene([
    { shape: TABLE, colour: OAK },
    { shape: chest, colour: OAK },
  ]);
  expect(overlap(findEdge(both, survey)!, chest)).toBeGreaterThan(0.1);
  expect(overlap(findEdge(both, { ...survey, things: [chest] })!, chest)).toBeLessThan(0.02);
});
