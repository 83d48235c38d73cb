import { createRgba, type Rgba } from '../raster/pixels';
import { checkArea, edgeBetween, type PrintArea } from './area';
import { areaSurface, placeOn } from './area-surface';
import { artworkLevels, hasWhiteGround } from './artwork';
import { roundPoint, type RoundBody } from './fit-round';
import { carry, homography, inverseHomography, type Pair } from './homography';
import { NO_WORK, printItem, type BlankItem } from './print-item';
import { areaToArtwork, fittedPlace, newPrint, printCorners, type Print } from './print';
import { uvMap } from './uv-map';
import { warpArtwork } from './warp';

const same = (a: Rgba, b: Rgba) => Buffer.from(a.data).equals(Buffer.from(b.data));

const VIEW = { width: 900, height: 700, focal: null };

const AREA: PrintArea = {
  id: 'front',
  title: 'Front',
  shape: 'flat',
  corners: [
    [250, 180],
    [620, 230],
    [600, 520],
    [270, 560],
  ],
  edges: null,
  widthMm: 120,
  heightMm: 90,
  wrapDeg: null,
  bulgeMm: 0,
  material: 'paper',
  stock: 'light',
};

/** A body seen from a little above and aside. */
const body = (bottomRadius: number): RoundBody => ({
  focal: 1500,
  cx: VIEW.width / 2,
  cy: VIEW.height / 2,
  turn: [-0.3, 0.12, 0.03],
  place: [12, -8, 420],
  wrap: (110 * Math.PI) / 180,
  topRadius: 60,
  bottomRadius,
  tall: 90,
});

function roundArea(b: RoundBody, shape: 'cylinder' | 'cone', wrapKnown: boolean): PrintArea {
  const edge = (v: number) => Array.from({ length: 9 }, (_, i) => roundPoint(b, i / 8, v)!);
  const [top, bottom] = [edge(0), edge(1)];
  return {
    ...AREA,
    shape,
    corners: [top[0], top[8], bottom[8], bottom[0]],
    edges: { top, bottom, left: null, right: null },
    widthMm: (b.wrap * (b.topRadius + b.bottomRadius)) / 2,
    heightMm: Math.hypot(b.tall, b.topRadius - b.bottomRadius),
    wrapDeg: wrapKnown ? (b.wrap * 180) / Math.PI : null,
  };
}

const COLUMNS = 8;
const ROWS = 6;

/** Dots on clear ground; their middles lie at ((i + 0.5) / COLUMNS, (j + 0.5) / ROWS). */
function dots(width = 1637, height = 1211, radius = 26): Rgba {
  const image = createRgba(width, height);
  for (let j = 0; j < ROWS; j++)
    for (let i = 0; i < COLUMNS; i++) {
      const [cx, cy] = [((i + 0.5) / COLUMNS) * width, ((j + 0.5) / ROWS) * height];
      for (let y = Math.floor(cy - radius); y <= cy + radius; y++)
        for (let x = Math.floor(cx - radius); x <= cx + radius; x++)
          if (Math.hypot(x + 0.5 - cx, y + 0.5 - cy) < radius) image.data[(y * width + x) * 4 + 3] = 255;
    }
  return image;
}

/** How far printed dots lie from where they should, root mean square in pixels. */
function dotError(area: PrintArea, truth: (u: number, v: number) => Pair): number {
  const surface = areaSurface(area, VIEW);
  const map = uvMap(surface, 1, VIEW);
  const art = dots();
  const print: Print = newPrint('p', 'dots', { hash: 'x', ...art }, area);
  const placed = { ...print, place: fittedPlace(print, area, 'fill') };
  const out = warpArtwork(artworkLevels(art), map, areaToArtwork(placed, area));
  let sum = 0;
  for (let j = 0; j < ROWS; j++)
    for (let i = 0; i < COLUMNS; i++) {
      const [tx, ty] = truth((i + 0.5) / COLUMNS, (j + 0.5) / ROWS);
      let [mx, my, mass] = [0, 0, 0];
      for (let y = Math.floor(ty - 13); y <= ty + 13; y++)
        for (let x = Math.floor(tx - 13); x <= tx + 13; x++) {
          const k = ((y - map.y) * map.width + x - map.x) * 4 + 3;
          const a =
            x < map.x || y < map.y || x >= map.x + map.width || y >= map.y + map.height ? 0 : out.data[k];
          mx += a * (x + 0.5);
          my += a * (y + 0.5);
          mass += a;
        }
      expect(mass).toBeGreaterThan(2000);
      sum += (mx / mass - tx) ** 2 + (my / mass - ty) ** 2;
    }
  return Math.sqrt(sum / (ROWS * COLUMNS));
}

test('a homography there and back is the same place', () => {
  const h = homography(
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ],
    AREA.corners,
  );
  const back = inverseHomography(h);
  for (const [u, v] of [
    [0.1, 0.2],
    [0.5, 0.5],
    [0.93, 0.71],
  ]) {
    const [x, y] = carry(h, u, v);
    const [bu, bv] = carry(back, x, y);
    const [x2, y2] = carry(h, bu, bv);
    expect(Math.hypot(x2 - x, y2 - y)).toBeLessThan(0.01);
    expect(bu).toBeCloseTo(u, 9);
  }
});

test('dots printed on a plane, a cylinder and a cone lie where the camera sees them', () => {
  const h = homography(
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ],
    AREA.corners,
  );
  expect(
    dotError(AREA, (u, v) => {
      const [x, y] = carry(h, u, v);
      return [x, y];
    }),
  ).toBeLessThan(0.75);
  const straight = body(60);
  expect(dotError(roundArea(straight, 'cylinder', true), (u, v) => roundPoint(straight, u, v)!)).toBeLessThan(
    0.75,
  );
  const tapered = body(46);
  expect(dotError(roundArea(tapered, 'cone', true), (u, v) => roundPoint(tapered, u, v)!)).toBeLessThan(0.75);
  // How far it reaches round need not be known.
  expect(dotError(roundArea(tapered, 'cone', false), (u, v) => roundPoint(tapered, u, v)!)).toBeLessThan(
    0.75,
  );
});

test('a bulge keeps to its edges, and its middle stands out toward the camera', () => {
  const [tl, tr, br, bl] = AREA.corners;
  const edges = {
    top: edgeBetween(tl, tr).map(([x, y], i): Pair => [x, y - 14 * Math.sin((Math.PI * i) / 8)]),
    bottom: edgeBetween(bl, br),
    left: edgeBetween(tl, bl),
    right: edgeBetween(tr, br),
  };
  const flat = areaSurface({ ...AREA, shape: 'bulge', edges }, VIEW);
  const out = areaSurface({ ...AREA, shape: 'bulge', edges, bulgeMm: 12 }, VIEW);
  edges.top.forEach(([x, y], i) => {
    for (const surface of [flat, out]) {
      const [sx, sy] = surface.at(i / 8, 0);
      expect(Math.hypot(sx - x, sy - y)).toBeLessThan(1e-6);
    }
  });
  const [fx, fy] = flat.at(0.5, 0.5);
  const [ox, oy] = out.at(0.5, 0.5);
  expect(Math.hypot(ox - fx, oy - fy)).toBeGreaterThan(1);
  for (const [u, v] of [
    [0.2, 0.3],
    [0.8, 0.6],
  ]) {
    const place = placeOn(out, ...out.at(u, v))!;
    expect(place[0]).toBeCloseTo(u, 4);
    expect(place[1]).toBeCloseTo(v, 4);
  }
});

test('areas that cross, turn over or enclose nothing are refused with a sentence', () => {
  const check = (corners: Pair[]) => () => checkArea({ title: 'Front', corners });
  const [a, b, c, d] = AREA.corners;
  expect(check([a, c, b, d])).toThrow(/"Front" cross or fold in/);
  expect(check([b, a, d, c])).toThrow(/wrong way/);
  expect(check([a, a, a, a])).toThrow(/in a line or on one spot/);
  expect(check([[0, 0], [100, 0], [200, 0], [300, 0.1]])).toThrow(/in a line/); // prettier-ignore
});

test('a design is placed by its middle, turned, slanted and pinned in millimetres', () => {
  const print = newPrint('p', 'p', { hash: 'x', width: 400, height: 200 }, AREA, 1);
  expect(print.place).toMatchObject({ x: 60, y: 45, width: 120, height: 60 });
  const turned = { ...print, place: { ...print.place, turn: 90 } };
  expect(fittedPlace(turned, AREA, 'inside')).toMatchObject({ width: 90, height: 45 });
  expect(printCorners(turned)[0].map(Math.round)).toEqual([90, -15]);
  const pins: Pair[] = [[0, 0], [60, 10], [70, 80], [5, 60]]; // prettier-ignore
  const h = areaToArtwork({ ...print, pins }, AREA);
  const [x, y] = carry(h, 70 / 120, 80 / 90);
  expect(x).toBeCloseTo(400, 6);
  expect(y).toBeCloseTo(200, 6);
});

const BLANK: BlankItem = { ...VIEW, areas: [AREA] };

/** A blank lit from the left: twice as bright there as on the right; a shade of grain on it. */
function blank(level: number): Rgba {
  const image = createRgba(VIEW.width, VIEW.height);
  for (let y = 0, j = 0; y < VIEW.height; y++)
    for (let x = 0; x < VIEW.width; x++, j += 4) {
      const v = level * (1 - 0.4 * (x / VIEW.width)) + ((x * 7 + y * 13) % 5) - 2;
      image.data.set([v, v * 0.98, v * 0.94, 255], j);
    }
  return image;
}

function solid(r: number, g: number, b: number): Rgba {
  const image = createRgba(60, 45);
  for (let j = 0; j < image.data.length; j += 4) image.data.set([r, g, b, 255], j);
  return image;
}

function printed(level: number, artwork: Rgba, change: Partial<Print> = {}, area = AREA): Rgba {
  const print = newPrint('p', 'p', { hash: 'x', ...artwork }, area);
  const prints = [{ ...print, place: fittedPlace(print, area, 'fill'), opacity: 1, ...change }];
  return printItem(
    blank(level),
    { ...BLANK, areas: [area] },
    { ...NO_WORK, prints },
    {
      key: 'blank',
      artwork: () => artwork,
      outline: null,
      kept: (_, make) => make(),
    },
  );
}

const at = (image: Rgba, x: number, y: number) => [
  ...image.data.subarray((y * image.width + x) * 4, (y * image.width + x) * 4 + 3),
];

test('ink takes the light of the blank; white ink leaves light stock and covers dark', () => {
  const before = blank(210);
  const white = printed(210, solid(255, 255, 255));
  expect(Math.abs(at(white, 440, 360)[0] - at(before, 440, 360)[0])).toBeLessThanOrEqual(1);
  const red = printed(210, solid(200, 30, 30));
  const [left, right] = [at(red, 300, 360), at(red, 560, 360)];
  expect(left[0]).toBeGreaterThan(left[1] * 3);
  // As much darker to the right as the blank is.
  const fall = at(before, 560, 360)[0] / at(before, 300, 360)[0];
  expect(right[0] / left[0]).toBeCloseTo(fall, 1);
  // Beyond the area nothing is touched.
  expect(at(red, 100, 100)).toEqual(at(before, 100, 100));
  const dark = { ...AREA, stock: 'dark' as const };
  const onDark = printed(40, solid(255, 255, 255), {}, dark);
  expect(at(onDark, 440, 360)[0]).toBeGreaterThan(120);
  expect(at(printed(40, solid(255, 255, 255), { lay: 'multiply' }, dark), 440, 360)[0]).toBeLessThan(45);
});

test('an item in another colour keeps its light', () => {
  const out = printItem(
    blank(200),
    BLANK,
    { ...NO_WORK, colour: '#205a86' },
    {
      key: 'blank',
      artwork: () => solid(0, 0, 0),
      outline: null,
      kept: (_, make) => make(),
    },
  );
  const [left, right] = [at(out, 300, 360), at(out, 560, 360)];
  expect(left[2]).toBeGreaterThan(left[0] * 1.8);
  expect(right[2]).toBeLessThan(left[2] * 0.93);
  expect(at(out, 60, 60)).toEqual(at(blank(200), 60, 60));
});

test('shade by hand darkens and lightens, and switched off it leaves no trace', () => {
  const stroke = {
    id: 's',
    points: [[430, 360] as Pair],
    radius: 60,
    softness: 1,
    amount: -0.6,
    hidden: false,
  };
  const sources = {
    key: 'b',
    artwork: () => solid(0, 0, 0),
    outline: null,
    kept: <T>(_: string, make: () => T) => make(),
  };
  const shaded = printItem(blank(200), BLANK, { ...NO_WORK, shade: [stroke] }, sources);
  expect(at(shaded, 430, 360)[0]).toBeLessThan(at(blank(200), 430, 360)[0] * 0.8);
  const off = printItem(blank(200), BLANK, { ...NO_WORK, shade: [{ ...stroke, hidden: true }] }, sources);
  expect(same(off, blank(200))).toBe(true);
});

test('white paper behind a design is knocked out, and its soft edges keep the ink alone', () => {
  const image = solid(255, 255, 255);
  image.data.set([20, 20, 20, 255], 0);
  image.data.set([200, 130, 130, 255], 4);
  const { levels } = artworkLevels(image, null, 1);
  expect(levels[0].data[3]).toBeGreaterThan(230);
  // Half white and half ink is half covered by the ink.
  const alpha = levels[0].data[7];
  expect(alpha).toBeGreaterThan(110);
  expect(alpha).toBeLessThan(140);
  expect(levels[0].data[11]).toBe(0);
  expect(hasWhiteGround(solid(255, 255, 255))).toBe(true);
  expect(hasWhiteGround(solid(90, 255, 255))).toBe(false);
});

test('thin lines stay calm where the surface runs away: no pixel is much more or less than their mean', () => {
  const lines = createRgba(2000, 2000);
  for (let y = 0, j = 0; y < 2000; y++)
    for (let x = 0; x < 2000; x++, j += 4) lines.data[j + 3] = y % 8 < 4 ? 255 : 0;
  const steep: PrintArea = {
    ...AREA,
    corners: [[380, 300], [520, 300], [800, 420], [100, 420]], // prettier-ignore
  };
  const map = uvMap(areaSurface(steep, VIEW), 1, VIEW);
  const print = newPrint('p', 'lines', { hash: 'x', ...lines }, steep);
  const out = warpArtwork(
    artworkLevels(lines),
    map,
    areaToArtwork({ ...print, place: fittedPlace(print, steep, 'fill') }, steep),
  );
  // In the upper half a pixel holds many lines: all grey there.
  for (let y = 310; y < 340; y += 3)
    for (let x = 420; x < 480; x += 3) {
      const a = out.data[((y - map.y) * map.width + x - map.x) * 4 + 3];
      expect(Math.abs(a - 127)).toBeLessThan(40);
    }
});
