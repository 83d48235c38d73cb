import { createRgba, type Rgba } from '../raster/pixels';
import type { PrintArea } from '../surface/area';
import { areaPose, areaSurface, pillow } from '../surface/area-surface';
import { edgeHeights } from './edge-heights';
import { bulged, estimateAreas } from './estimate-areas';
import { estimateBulge } from './estimate-bulge';
import { estimateLight } from './estimate-light';
import { shadowFalls, type Light } from './light';
import { NO_ITEM, type SceneSurvey } from './survey';

/** A scene of balls on a table, lit from one side, as a renderer without shadows would give it. */
function balls(azimuthDeg: number, backdrop = 150): Rgba {
  const [width, height] = [320, 240];
  const picture = createRgba(width, height);
  const a = (azimuthDeg * Math.PI) / 180;
  const toward = [Math.sin(a) * 0.7, -0.5, Math.cos(a) * 0.7];
  const spots = [
    { x: 80, y: 150, r: 45 },
    { x: 170, y: 120, r: 34 },
    { x: 250, y: 165, r: 50 },
  ];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let value = y < height * 0.4 ? backdrop : 140;
      for (const s of spots) {
        const [dx, dy] = [(x - s.x) / s.r, (y - s.y) / s.r];
        const d = dx * dx + dy * dy;
        if (d >= 1) continue;
        const z = Math.sqrt(1 - d);
        value = 60 + 150 * Math.max(0, dx * toward[0] + dy * toward[1] + z * toward[2]);
      }
      picture.data.set([value, value, value, 255], (y * width + x) * 4);
    }
  return picture;
}

describe('a scene’s light, guessed from its picture', () => {
  test('comes from the side on which round things are light', () => {
    expect(estimateLight(balls(60)).azimuthDeg).toBeGreaterThan(10);
    expect(estimateLight(balls(-60)).azimuthDeg).toBeLessThan(-10);
  });

  test('comes from behind where the background is much lighter than what stands before it', () => {
    const picture = balls(0, 255);
    for (let i = 0; i < picture.data.length; i += 4)
      if (i / 4 / 320 > 240 * 0.4) for (let c = 0; c < 3; c++) picture.data[i + c] *= 0.35;
    expect(Math.abs(estimateLight(picture).azimuthDeg)).toBeGreaterThan(90);
  });

  test('of a picture that shows nothing is a light from the camera, valid all the same', () => {
    const plain = createRgba(200, 150);
    plain.data.fill(200);
    const { azimuthDeg, elevationDeg, softness } = estimateLight(plain);
    expect(Math.abs(azimuthDeg)).toBe(0);
    expect(elevationDeg).toBeGreaterThan(0);
    expect(softness).toBeGreaterThanOrEqual(0);
  });

  test('mirrored, it comes from the other side', () => {
    const picture = balls(50);
    const mirrored = createRgba(picture.width, picture.height);
    for (let y = 0; y < picture.height; y++)
      for (let x = 0; x < picture.width; x++)
        mirrored.data.set(
          picture.data.subarray((y * picture.width + x) * 4, (y * picture.width + x) * 4 + 4),
          (y * picture.width + picture.width - 1 - x) * 4,
        );
    expect(estimateLight(mirrored).azimuthDeg + estimateLight(picture).azimuthDeg).toBeCloseTo(0, -1);
  });
});

describe('the disc of a light', () => {
  const light: Light = { azimuthDeg: 90, elevationDeg: 45, softness: 0.5 };

  test('throws shadows away from it, as long as things are high at 45 degrees', () => {
    const falls = shadowFalls(light, 200);
    const mean = falls.reduce((s, f) => ({ x: s.x + f.x / 200, y: s.y + f.y / 200 }), { x: 0, y: 0 });
    expect(mean.x).toBeLessThan(-0.9);
    expect(Math.abs(mean.y)).toBeLessThan(0.1);
    expect(Math.abs(mean.x)).toBeLessThan(1.2);
  });

  test('is wider the softer it is, and a hard one is nearly a point', () => {
    const spread = (softness: number) => {
      const xs = shadowFalls({ ...light, softness }, 100).map((f) => f.x);
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(spread(0)).toBeLessThan(0.1);
    expect(spread(1)).toBeGreaterThan(spread(0.5));
  });

  test('never throws a shadow without end, however low it stands', () => {
    for (const fall of shadowFalls({ ...light, elevationDeg: 1, softness: 1 }, 300))
      expect(Math.hypot(fall.x, fall.y)).toBeLessThan(60);
  });
});

const VIEW = { width: 600, height: 500, focal: 900 };
const edge = (from: [number, number], to: [number, number]): [number, number][] =>
  Array.from({ length: 9 }, (_, i) => [
    from[0] + ((to[0] - from[0]) * i) / 8,
    from[1] + ((to[1] - from[1]) * i) / 8,
  ]);
const CORNERS: [number, number][] = [
  [150, 100],
  [450, 100],
  [450, 400],
  [150, 400],
];
const PACKET: PrintArea = {
  id: 'front',
  title: 'Front',
  shape: 'bulge',
  corners: CORNERS,
  edges: {
    top: edge(CORNERS[0], CORNERS[1]),
    bottom: edge(CORNERS[3], CORNERS[2]),
    left: edge(CORNERS[0], CORNERS[3]),
    right: edge(CORNERS[1], CORNERS[2]),
  },
  widthMm: 100,
  heightMm: 100,
  wrapDeg: null,
  bulgeMm: 0,
  material: 'paper',
  stock: 'light',
};
const LIGHT: Light = { azimuthDeg: 60, elevationDeg: 30, softness: 0.2 };

/** A packet shaded as a pillow of a height in mm is, by light from the right. */
function packet(heightMm: number, tone = 200): Rgba {
  const picture = createRgba(VIEW.width, VIEW.height);
  picture.data.fill(255);
  for (let y = 100; y < 400; y++)
    for (let x = 150; x < 450; x++) {
      const [u, v] = [(x - 150) / 300, (y - 100) / 300];
      const e = 0.01;
      const dx = ((pillow(u + e, v) - pillow(u - e, v)) / (2 * e * 100)) * heightMm;
      const dy = ((pillow(u, v + e) - pillow(u, v - e)) / (2 * e * 100)) * heightMm;
      const n = Math.hypot(dx, dy, 1);
      const lit = Math.max(0, (-dx * 0.75 + dy * 0.5 + 0.43) / n);
      const linear = (0.25 + 0.75 * lit) * (tone / 255) ** 2.2;
      const value = 255 * Math.min(1, linear) ** (1 / 2.2);
      picture.data.set([value, value, value, 255], (y * VIEW.width + x) * 4);
    }
  return picture;
}

/** A bag seen aslant whose top and bottom edges stand out, and its middle farther by `beyond` mm. */
function bag(beyond: number, edgeMm: number, ambient: number, sideMm = 0) {
  const view = { width: 600, height: 500, focal: 700 };
  const [yaw, lean] = [-0.35, 0.4];
  const r1 = [Math.cos(yaw), 0, -Math.sin(yaw)];
  const r3 = [Math.sin(yaw) * Math.cos(lean), Math.sin(lean), Math.cos(yaw) * Math.cos(lean)];
  const r2 = [0, 1, 2].map((i) => r3[(i + 1) % 3] * r1[(i + 2) % 3] - r3[(i + 2) % 3] * r1[(i + 1) % 3]);
  const out = (u: number, v: number) =>
    4 * u * (1 - u) * edgeMm + beyond * pillow(u, v) + sideMm * pillow(0.5, v);
  const at = (u: number, v: number): [number, number] => {
    const [x, y, z] = [0, 1, 2].map(
      (i) => r1[i] * (u - 0.5) * 100 + r2[i] * (v - 0.5) * 100 - r3[i] * out(u, v) + (i === 2 ? 240 : 0),
    );
    return [300 + (700 * x) / z, 250 + (700 * y) / z];
  };
  const [az, el] = [LIGHT.azimuthDeg, LIGHT.elevationDeg].map((d) => (d * Math.PI) / 180);
  const to = [Math.sin(az) * Math.cos(el), -Math.sin(el), -Math.cos(az) * Math.cos(el)];
  const [lx, ly, lz] = [r1, r2, r3.map((v) => -v)].map((axis) => axis.reduce((t, v, i) => t + v * to[i], 0));
  const picture = createRgba(view.width, view.height);
  picture.data.fill(255);
  const e = 0.004;
  for (let j = 0; j < 500; j++)
    for (let i = 0; i < 500; i++) {
      const [u, v] = [(i + 0.5) / 500, (j + 0.5) / 500];
      const dx = (out(u + e, v) - out(u - e, v)) / (2 * e * 100);
      const dy = (out(u, v + e) - out(u, v - e)) / (2 * e * 100);
      const lit = Math.max(0, (-dx * lx - dy * ly + lz) / Math.hypot(dx, dy, 1));
      const value = 255 * (0.6 * (ambient + (1 - ambient) * lit)) ** (1 / 2.2);
      const [x, y] = at(u, v).map(Math.floor);
      picture.data.set([value, value, value, 255], (y * view.width + x) * 4);
    }
  // Equal steps on the surface, as a side-file gives them.
  const line = (v: number) => {
    const fine = Array.from({ length: 401 }, (_, i) => [i * 0.25, out(i / 400, v)]);
    const lengths = [0];
    for (let i = 1; i < fine.length; i++)
      lengths.push(lengths[i - 1] + Math.hypot(fine[i][0] - fine[i - 1][0], fine[i][1] - fine[i - 1][1]));
    return Array.from({ length: 9 }, (_, k) =>
      at(lengths.findIndex((l) => l >= (lengths[400] * k) / 8 - 1e-9) / 400, v),
    );
  };
  const [top, bottom] = [line(0), line(1)];
  const area: PrintArea = {
    ...PACKET,
    corners: [top[0], top[8], bottom[8], bottom[0]],
    edges: { top, bottom, left: null, right: null },
  };
  return { picture, area, view };
}

const BULGE_VIEW = { ...VIEW, light: LIGHT, pitchDeg: 0 };

describe('how far a packet bulges, from its shading', () => {
  test('is more of one that stands out farther, and nothing of a flat one', () => {
    const found = [0, 6, 14].map((h) => estimateBulge(packet(h), PACKET, BULGE_VIEW)?.bulgeMm ?? 0);
    expect(found[0]).toBe(0);
    expect(found[1]).toBeGreaterThan(0);
    expect(found[2]).toBeGreaterThan(found[1] * 1.3);
  });

  test.each([
    [8, 0.15],
    [8, 0.35],
    [14, 0.25],
  ])('is %i mm beyond its bent edges, with a share of %d of the light from all around', (h, ambient) => {
    const { picture, area, view } = bag(h, 6, ambient);
    expect(
      Math.abs((estimateBulge(picture, area, { ...view, light: LIGHT, pitchDeg: 0 })?.bulgeMm ?? 0) / h - 1),
    ).toBeLessThan(0.35);
  });

  test('is found with the heights of its edges, and sides that nobody drew stand out with it', () => {
    const { picture, area, view } = bag(6, 6, 0.25, 4);
    const heights = edgeHeights(area, areaPose(area, view), view);
    expect([heights.top, heights.bottom].map(Math.round)).toEqual([6, 6]);
    expect([heights.left, heights.right]).toEqual([0, 0]);
    const bulge = estimateBulge(picture, area, { ...view, light: LIGHT, pitchDeg: 0 })!;
    expect(Math.abs(bulge.bulgeMm + bulge.sideMm - 10)).toBeLessThan(3);
    expect(bulge.sideMm).toBeGreaterThan(1);
    expect(bulge.fromMm).toBeLessThanOrEqual(bulge.bulgeMm);
    expect(bulge.toMm).toBeGreaterThanOrEqual(bulge.bulgeMm);
    const { edges } = bulged(area, bulge, view);
    for (const [got, corner] of [
      [edges!.left![0], area.corners[0]],
      [edges!.right![8], area.corners[2]],
    ])
      expect(Math.hypot(got[0] - corner[0], got[1] - corner[1])).toBeLessThan(0.01);
    const [left, straight] = [
      edges!.left![4],
      [0, 1].map((c) => (area.corners[0][c] + area.corners[3][c]) / 2),
    ];
    expect(Math.hypot(left[0] - straight[0], left[1] - straight[1])).toBeGreaterThan(2);
  });

  test('takes evenly set points of a hand-drawn edge for what they are: only its bend tells', () => {
    const { area, view } = bag(0, 8, 0.25);
    const evenly = (points: [number, number][]): [number, number][] =>
      points.map(([, y], i) => [points[0][0] + ((points[8][0] - points[0][0]) * i) / 8, y]);
    const edges = { ...area.edges!, top: evenly(area.edges!.top), bottom: evenly(area.edges!.bottom) };
    const drawn = edgeHeights({ ...area, edges }, areaPose(area, view), view);
    for (const height of [drawn.top, drawn.bottom]) expect(Math.abs(height - 8)).toBeLessThan(2.5);
  });

  test('is not asked of areas that do not bulge', () => {
    expect(estimateBulge(packet(10), { ...PACKET, shape: 'flat', edges: null }, BULGE_VIEW)).toBeNull();
  });
});

describe('what a side-file leaves open', () => {
  const survey: SceneSurvey = {
    width: VIEW.width,
    height: VIEW.height,
    horizonY: null,
    plane: null,
    known: null,
    spots: [],
    light: LIGHT,
    gloss: 0,
    occluder: null,
    ...NO_ITEM,
    areas: [{ ...PACKET, shape: 'flat', edges: null }],
  };

  test('dark stock is told from light stock by what is seen of it', () => {
    const stock = (tone: number) =>
      estimateAreas(survey, { bulge: [], stock: ['front'] }, packet(0, tone))[0].stock;
    expect([stock(230), stock(40)]).toEqual(['light', 'dark']);
  });

  test('what it says is left alone, and an area that makes no surface too', () => {
    const dark = { ...survey, areas: [{ ...survey.areas[0], stock: 'dark' as const }] };
    expect(estimateAreas(dark, { bulge: [], stock: [] }, packet(0))).toEqual(dark.areas);
    const broken = {
      ...survey,
      areas: [
        {
          ...survey.areas[0],
          corners: [
            [0, 0],
            [0, 0],
            [0, 0],
            [0, 0],
          ] as [number, number][],
        },
      ],
    };
    expect(() => areaSurface(broken.areas[0], VIEW)).toThrow();
    expect(estimateAreas(broken, { bulge: ['front'], stock: ['front'] }, packet(0))).toEqual(broken.areas);
  });
});
