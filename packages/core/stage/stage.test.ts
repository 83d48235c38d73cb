import { readFileSync } from 'node:fs';
import { sceneCamera } from './survey';
import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
import { placesOf } from './arrange';
import { measureBase, productPxPerMm } from './base';
import { bodyOf, boxBody, type Body } from './body';
import {
  cameraFromHorizon,
  cameraFromPlane,
  cornerError,
  horizonOf,
  levelOfScale,
  onPlane,
  project,
  scaleAt,
  type Camera,
} from './camera';
import { castShadow, type GroundShadow } from './cast-shadow';
import { contactShadow } from './contact-shadow';
import { layShadows } from './lay-on-plane';
import { standAt } from './stand-frame';
import { reflect } from './reflection';
import { readSceneFile, writeSceneFile } from './scene-file';
import { snapBase } from './snap';
import type { Ground } from './ground';
import { posedBox, groundPlacement, trueSizeBox } from './stand';
import { changeTone, colourDrift, NO_CHANGE, withinDrift } from './tone-match';

const SCENES = [
  'windowsill-morning',
  'potting-bench',
  'shelf-plaster',
  'studio-arch',
  'patio-terrazzo',
  'winter-table',
];
const open = (name: string) =>
  readSceneFile(readFileSync(`${__dirname}/../../../demo/assets/scenes/${name}.json`, 'utf8'), name);

test.each(SCENES)(
  '%s: the camera from its plane gives the side-file its pixels a millimetre and its horizon',
  (name) => {
    const { survey } = open(name);
    const camera = cameraFromPlane(survey.plane!, survey.width, survey.height);
    expect(cornerError(camera, survey.plane!)).toBeLessThan(0.5);
    expect(Math.abs(horizonOf(camera) - survey.horizonY!)).toBeLessThan(1);
    for (const spot of survey.spots) {
      const level = levelOfScale(camera, spot, spot.pxPerMm);
      const at = onPlane(camera, spot, level)!;
      expect(scaleAt(camera, at).up / spot.pxPerMm).toBeCloseTo(1, 2);
      // Plinths are 70 and 150 mm high; everything else stands on the plane itself.
      expect(Math.round(level)).toBe({ plinth: 70, 'tall-plinth': 150 }[spot.id] ?? 0);
    }
  },
);

test('a horizon and one known height give the same scale as the plane, on a level camera', () => {
  const { survey } = open('winter-table');
  const whole = cameraFromPlane(survey.plane!, survey.width, survey.height);
  const [spot, other] = survey.spots;
  const foot = onPlane(whole, spot)!;
  const top = project(whole, { ...foot, Z: 120 })!;
  const known = {
    base: [spot.x, spot.y] as [number, number],
    top: [top.x, top.y] as [number, number],
    heightMm: 120,
  };
  const camera = cameraFromHorizon(survey.horizonY!, known, survey.width, survey.height, whole.focal);
  const there = scaleAt(camera, onPlane(camera, other)!).up;
  expect(there / other.pxPerMm).toBeCloseTo(1, 2);
});

test('measures that give no camera are refused with a sentence', () => {
  const plane = (corners: [number, number][]) => ({ corners, widthMm: 400, depthMm: 300 });
  const solve = (corners: [number, number][]) => () => cameraFromPlane(plane(corners), 2000, 1500);
  expect(solve([[600, 900], [1400, 900], [500, 1200], [1600, 1200]])).toThrow(/cross or fold/); // prettier-ignore
  expect(solve([[600, 900], [1000, 900], [1400, 900], [1600, 1200]])).toThrow(/almost in a line/); // prettier-ignore
  expect(solve([[1400, 900], [600, 900], [400, 1200], [1600, 1200]])).toThrow(/wrong way/); // prettier-ignore
  const known = { base: [500, 200] as [number, number], top: [500, 100] as [number, number], heightMm: 100 };
  expect(() => cameraFromHorizon(300, known, 2000, 1500)).toThrow(/at or above the horizon/);
  expect(() => readSceneFile('{"name": 3}', 'a.json')).toThrow(/"a.json" does not describe a scene/);
  expect(() => readSceneFile('{', 'a.json')).toThrow(/not JSON/);
  const { survey, ...rest } = open('winter-table');
  const text = JSON.stringify({
    ...writeSceneFile('x', { ...rest, survey }),
    light: { azimuthDeg: 0, elevationDeg: -4, softness: 0 },
  });
  expect(() => readSceneFile(text)).toThrow(/above the plane/);
});

test('a side-file that was read is written again with the same survey', () => {
  for (const name of SCENES) {
    const { survey, title, palette, season } = open(name);
    const again = readSceneFile(JSON.stringify(writeSceneFile(name, { survey, title, palette, season })));
    expect(again).toMatchObject({ name, title, palette, season, survey });
    expect(sceneCamera(again.survey)).not.toBeNull();
  }
});

test('a side-file says where the ground ends; two points enclose nothing', () => {
  const { survey, ...rest } = open('winter-table');
  const edge: [number, number][] = [[100, 900], [1900, 900], [1900, 1400], [100, 1400]]; // prettier-ignore
  const file = writeSceneFile('x', { ...rest, survey: { ...survey, edge } });
  expect(readSceneFile(JSON.stringify(file)).survey.edge).toEqual(edge);
  expect(writeSceneFile('x', { ...rest, survey })).not.toHaveProperty('groundEdge');
  const two = JSON.stringify({ ...file, groundEdge: edge.slice(0, 2) });
  expect(() => readSceneFile(two)).toThrow(/groundEdge.*at least 3/);
});

/** A round pot: a body with a base seen from above by `pitch` degrees. */
function pot(pitch: number, w = 200, h = 180): Plane {
  const plane = createPlane(w, h);
  const a = w * 0.4;
  const b = a * Math.sin((pitch * Math.PI) / 180);
  const foot = h - b;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const u = (x + 0.5 - w / 2) / a;
      if (Math.abs(u) <= 1 && y < foot + b * Math.sqrt(1 - u * u)) plane.data[y * w + x] = 1;
    }
  return plane;
}

test.each([8, 15, 24])('the base of a pot photographed from %i degrees above is found', (pitch) => {
  const alpha = pot(pitch);
  const base = measureBase(alpha);
  const b = 80 * Math.sin((pitch * Math.PI) / 180);
  expect(base.pitchDeg).toBeGreaterThan(pitch - 2.5);
  expect(base.pitchDeg).toBeLessThan(pitch + 2.5);
  expect(base.y * 200).toBeCloseTo(180 - b, -0.7);
  expect(base.x).toBeCloseTo(0.5, 2);
  expect(base.halfWidth).toBeCloseTo(0.4, 1);
});

test('the loose end of a string is not what a spool stands on, and does not make it wide', () => {
  const wide = createPlane(300, 180);
  const alpha = pot(15);
  for (let y = 0; y < 180; y++) wide.data.set(alpha.data.subarray(y * 200, y * 200 + 200), y * 300);
  for (let x = 180; x < 296; x++) for (let y = 168; y < 170; y++) wide.data[y * 300 + x] = 1;
  const base = measureBase(wide);
  expect(base.x * 300).toBeCloseTo(100, -0.7);
  const mm = { width: 160, height: 130, depth: 160 };
  // By its height a spool of 160 px is 160 mm wide; by the width of its picture it would be nearly twice as large.
  expect(productPxPerMm(base, 300, mm)).toBeLessThan(1.3);
});

const hard = (azimuthDeg: number, elevationDeg: number, softness = 0) => ({
  azimuthDeg,
  elevationDeg,
  softness,
});

/** Extents in mm of where a shadow takes more than half of the light. */
function outline({ plane, x0, y0, mmPerPx }: GroundShadow, level = 0.5) {
  let [left, right, near, far, area] = [Infinity, -Infinity, Infinity, -Infinity, 0];
  for (let y = 0; y < plane.height; y++)
    for (let x = 0; x < plane.width; x++) {
      if (plane.data[y * plane.width + x] < level) continue;
      left = Math.min(left, x0 + x * mmPerPx);
      right = Math.max(right, x0 + (x + 1) * mmPerPx);
      near = Math.min(near, y0 + y * mmPerPx);
      far = Math.max(far, y0 + (y + 1) * mmPerPx);
      area += mmPerPx * mmPerPx;
    }
  return { left, right, near, far, area };
}

test.each([
  [90, 45],
  [-90, 30],
  [0, 40],
  [-135, 50],
  [30, 60],
])(
  'the shadow of a box with light from %i degrees, %i up, is the analytic one within 2 percent',
  (azimuth, elevation) => {
    const [W, H, D] = [100, 140, 60];
    const light = hard(azimuth, elevation);
    const shadow = castShadow(boxBody(W, H, D), { light, cells: 200, samples: 12 });
    const cot = 1 / Math.tan((elevation * Math.PI) / 180);
    const dx = -Math.sin((azimuth * Math.PI) / 180) * cot * H;
    const dy = Math.cos((azimuth * Math.PI) / 180) * cot * H;
    const seen = outline(shadow);
    const size = Math.hypot(dx, dy) + Math.max(W, D);
    expect(Math.abs(seen.left - (Math.min(0, dx) - W / 2)) / size).toBeLessThan(0.02);
    expect(Math.abs(seen.right - (Math.max(0, dx) + W / 2)) / size).toBeLessThan(0.02);
    expect(Math.abs(seen.near - (Math.min(0, dy) - D / 2)) / size).toBeLessThan(0.02);
    expect(Math.abs(seen.far - (Math.max(0, dy) + D / 2)) / size).toBeLessThan(0.02);
    // The hull of a rectangle and the same rectangle moved.
    const area = W * D + Math.abs(dx) * D + Math.abs(dy) * W;
    expect(Math.abs(seen.area / area - 1)).toBeLessThan(0.02);
  },
);

test('penumbrae widen in proportion to the height that casts them', () => {
  const light = hard(90, 45, 0.5);
  const width = (height: number) => {
    const shadow = castShadow(boxBody(40, height, 400), { light, cells: 60, samples: 200 });
    const { plane, x0, y0, mmPerPx } = shadow;
    const row = Math.round((0 - y0) / mmPerPx) * plane.width;
    const at = (level: number) => {
      for (let x = 0; x < plane.width; x++) if (plane.data[row + x] > level) return x0 + x * mmPerPx;
      return NaN;
    };
    return at(0.9) - at(0.1);
  };
  const [low, high] = [width(150), width(300)];
  expect(high / low).toBeGreaterThan(1.8);
  expect(high / low).toBeLessThan(2.2);
});

test('what is seen through throws a shadow as faint as it is clear, and what stands in it a dark one', () => {
  // A bell of glass over a block: 100 mm wide and high, the block 40 mm.
  const bell = (clear: number, block: number) => {
    const alpha = createPlane(120, 110);
    for (let y = 5; y < 105; y++)
      for (let x = 10; x < 110; x++) alpha.data[y * 120 + x] = x >= 40 && x < 80 && y >= 65 ? block : clear;
    const base = {
      x: 0.5,
      y: 105 / 120,
      halfWidth: 50 / 120,
      halfDepth: 0,
      topDepth: 0,
      length: 1.3,
      pitchDeg: 0,
    };
    return bodyOf(alpha, { ...base, confidence: 1 }, 1, 100);
  };
  const darkest = (body: Body) => Math.max(...castShadow(body, { light: hard(0, 45) }).plane.data);
  expect(darkest(bell(0.13, 0.13))).toBeCloseTo(0.125, 2);
  expect(darkest(bell(0.13, 1))).toBeGreaterThan(0.97);
  expect(darkest(bell(0.6, 0.6))).toBeCloseTo(0.625, 2);
  expect(darkest(bell(1, 1))).toBeGreaterThan(0.97);
  // Where only the glass takes light, in the far half of the shadow, it is faint.
  const { plane, y0, mmPerPx, x0 } = castShadow(bell(0.13, 1), { light: hard(0, 45) });
  const at = (x: number, y: number) =>
    plane.data[Math.round((y - y0) / mmPerPx) * plane.width + Math.round((x - x0) / mmPerPx)];
  expect(at(0, 95)).toBeCloseTo(0.125, 2);
  expect(at(0, 35)).toBeGreaterThan(0.97);
});

test('a lifted body leaves a paler, wider pool; contact is darkest at the foot', () => {
  const body = boxBody(100, 100, 100);
  const [close, away] = [contactShadow(body, 0), contactShadow(body, 80)];
  const at = ({ plane, x0, y0, mmPerPx }: GroundShadow, x: number) =>
    plane.data[Math.floor((0 - y0) / mmPerPx) * plane.width + Math.floor((x - x0) / mmPerPx)];
  expect(at(close, 52)).toBeGreaterThan(at(close, 70) * 2);
  expect(at(away, 0)).toBeLessThan(at(close, 0) * 0.8);
  const [hardEdge, softEdge] = [close, away].map((s) => at(s, 45) - at(s, 60));
  expect(softEdge).toBeLessThan(hardEdge);
});

test('a shadow is laid where the plane is, and none above the horizon', () => {
  const { survey } = open('potting-bench');
  const camera: Camera = sceneCamera(survey)!;
  const [spot] = survey.spots;
  const stand = standAt(camera, spot, 0)!;
  const shadow = castShadow(boxBody(150, 150, 150), { light: hard(-62, 39, 0.5) });
  const laid = layShadows(
    [{ shadow, strength: 1 }],
    { stand, camera, frame: survey },
    { colour: [0, 0, 0] },
  )!;
  const { rect, picture } = laid;
  const alpha = (x: number, y: number) => {
    const px = Math.round(((x - rect.x) * picture.width) / rect.width);
    const py = Math.round(((y - rect.y) * picture.height) / rect.height);
    return px < 0 || py < 0 || px >= picture.width || py >= picture.height
      ? 0
      : picture.data[(py * picture.width + px) * 4 + 3];
  };
  expect(alpha(spot.x, spot.y)).toBeGreaterThan(240);
  // The light comes from the left: 150 mm to the right there is shade, to the left none.
  const side = (mm: number) => project(camera, { X: stand.X + mm, Y: stand.Y, Z: 0 })!;
  expect(alpha(side(150).x, side(150).y)).toBeGreaterThan(120);
  expect(alpha(side(-150).x, side(-150).y)).toBe(0);
  expect(standAt(camera, { x: spot.x, y: survey.horizonY! - 5 }, 0)).toBeNull();
});

function coloured(alpha: Plane, rgb: [number, number, number]): Rgba {
  const image = createRgba(alpha.width, alpha.height);
  for (let i = 0; i < alpha.data.length; i++)
    image.data.set([...rgb, Math.round(alpha.data[i] * 255)], i * 4);
  return image;
}

test('a reflection meets the curved base column by column and fades with the distance', () => {
  const alpha = pot(18);
  const base = measureBase(alpha);
  const { picture, below } = reflect(coloured(alpha, [200, 40, 40]), base, {
    strength: 0.5,
    fade: 0.2,
    roughness: 0,
  });
  expect(picture.height).toBe(alpha.height + below);
  const at = (x: number, y: number) => picture.data[(y * picture.width + x) * 4 + 3];
  const edge = (x: number) => {
    let y = alpha.height - 1;
    while (!alpha.data[y * alpha.width + x]) y--;
    return y + 1;
  };
  for (const x of [30, 60, 100, 140, 170]) {
    expect(at(x, edge(x) + 1)).toBeGreaterThan(100);
    expect(at(x, edge(x) + 60)).toBeLessThan(at(x, edge(x) + 5));
  }
});

test('tone is held under the drift that is allowed; no change changes nothing', () => {
  const image = coloured(pot(12), [30, 120, 130]);
  const change = { gain: 0.7, lift: 0.05, a: 0.02, b: 0.05, grain: 0, soften: 0 };
  expect(colourDrift(image, change)).toBeGreaterThan(8);
  const { drift, held } = withinDrift(image, change, 1, 4);
  expect(held).toBe(true);
  expect(drift).toBeLessThanOrEqual(4);
  expect(drift).toBeGreaterThan(3.5);
  const same = changeTone(image, NO_CHANGE, 1);
  // What is clear has no colour.
  const shown = (v: number, i: number) => (image.data[i | 3] ? Math.abs(v - same.data[i]) : 0);
  const worst = image.data.reduce((m, v, i) => Math.max(m, shown(v, i)), 0);
  expect(worst).toBeLessThanOrEqual(2);
});

test('a base snaps to spots, thirds and other bases, and to nothing that is far', () => {
  const targets = {
    frame: { width: 900, height: 600 },
    spots: [{ id: 'left', x: 200, y: 450 }],
    bases: [{ name: 'Pot', x: 620, y: 480 }],
  };
  expect(snapBase({ x: 204, y: 446 }, targets, 8)).toMatchObject({ x: 200, y: 450 });
  expect(snapBase({ x: 303, y: 484 }, targets, 8)).toMatchObject({ x: 300, y: 480 });
  expect(snapBase({ x: 250, y: 520 }, targets, 8)).toMatchObject({ x: 250, y: 520, guides: [] });
});

test('a product that is lifted or laid flat stays over its place of the ground, at its true size', () => {
  const { survey } = open('potting-bench');
  const camera = sceneCamera(survey)!;
  const frame = { width: survey.width, height: survey.height };
  const ground: Ground = {
    camera,
    light: survey.light,
    gloss: 0,
    spots: [],
    scene: null,
    edge: null,
    upright: null,
    shades: [],
    focus: null,
    haze: null,
    occluder: null,
    k: 1,
  };
  const box = { x: 800, y: 700, width: 400, height: 360, rotation: 0 };
  const millimetres = { width: 160, height: 140, depth: 160 };
  const standing = { box, base: null, millimetres, pose: 'stand' as const, pitchDeg: null, liftMm: 0 };
  const true1 = { ...standing, box: trueSizeBox(standing, ground, frame)! };
  const at = groundPlacement(true1, ground, frame)!.at;
  for (const change of [{ pose: 'float' as const, liftMm: 60 }, { pose: 'flat' as const }]) {
    const posed = { ...true1, ...change, box: posedBox(true1, change, ground, frame) };
    const now = groundPlacement(posed, ground, frame)!;
    expect(now.ratio).toBeCloseTo(1, 2);
    expect(Math.hypot(now.at.x - at.x, now.at.y - at.y)).toBeLessThan(1);
  }
});

test('a pack keeps its count and gap in every form', () => {
  const pack = { count: 6, gap: -20, front: 'first' as const, others: [] };
  const row = placesOf({ ...pack, form: 'row' });
  expect(row.map((p) => p.x)).toEqual([-2, -1.2, -0.4, 0.4, 1.2, 2].map((v) => expect.closeTo(v, 6)));
  const staggered = placesOf({ ...pack, form: 'staggered' });
  expect(new Set(staggered.map((p) => p.away)).size).toBe(3);
  for (const form of ['row', 'column', 'rising', 'falling', 'staggered'] as const)
    expect(new Set(placesOf({ ...pack, form }).map((p) => JSON.stringify(p))).size).toBe(6);
});
