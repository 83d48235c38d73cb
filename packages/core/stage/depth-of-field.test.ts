import { blur } from '../raster/blur';
import { createPlane, createRgba, type Rgba } from '../raster/pixels';
import { cameraFromPlane } from './camera';
import {
  blurAt,
  defocused,
  defocusRoom,
  hazeAt,
  hazed,
  inverseDepth,
  sceneFocus,
  seenFocus,
  surveyedFocus,
  surveyedHaze,
} from './depth-of-field';
import { NO_ITEM, sceneCamera, type SceneSurvey } from './survey';

const survey: SceneSurvey = {
  width: 960,
  height: 640,
  plane: {
    corners: [
      [330, 250],
      [630, 250],
      [780, 560],
      [180, 560],
    ],
    widthMm: 400,
    depthMm: 500,
  },
  known: null,
  horizonY: null,
  light: { azimuthDeg: 0, elevationDeg: 45, softness: 0.3 },
  gloss: 0,
  spots: [],
  occluder: null,
  ...NO_ITEM,
};
const camera = sceneCamera(survey)!;
/** The ground of a scene without its wall: only the lower part of the picture. */
const edge: [number, number][] = [
  [0, 200],
  [960, 200],
  [960, 640],
  [0, 640],
];

/** Tiles of one size in the picture, each of its own brightness, blurred row by row by as much as is said. */
function tiles(sigmaAt: (y: number) => number): Rgba {
  const { width, height } = survey;
  const sharp = createPlane(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const n = Math.floor(x / 17) * 31 + Math.floor(y / 17) * 57;
      sharp.data[y * width + x] = 60 + ((n * 7919) % 131);
    }
  const levels = Array.from({ length: 17 }, (_, i) => blur(sharp, i * 0.5));
  const out = createRgba(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const v = levels[Math.min(16, Math.round(sigmaAt(y) * 2))].data[y * width + x];
      out.data.set([v, v, v, 255], (y * width + x) * 4);
    }
  return out;
}

test('the inverse depth is that of the plane along the line of sight, and none above the horizon', () => {
  const { translation: t, rotation: r } = camera;
  const at = inverseDepth(camera, 180, 560)!;
  // The front left corner is the plane's origin.
  expect(1 / at).toBeCloseTo(t[2], 0);
  expect(inverseDepth(camera, 330, 250)!).toBeCloseTo(1 / (r[7] * 500 + t[2]), 5);
  expect(inverseDepth(camera, 480, -400)).toBeNull();
  expect(cameraFromPlane(survey.plane!, 960, 640).focal).toBeCloseTo(camera.focal, 6);
});

test('where the near ground is sharp and the far ground soft, the focus is found near', () => {
  const near = inverseDepth(camera, 480, 600)!;
  const slope = 5 / Math.abs(inverseDepth(camera, 480, 240)! - near);
  const found = sceneFocus(
    tiles((y) => slope * Math.abs((inverseDepth(camera, 480, y) ?? 0) - near)),
    { ...survey, edge },
  )!;
  const soft = blurAt(found, inverseDepth(camera, 480, 260)!) * 960;
  expect(blurAt(found, near) * 960).toBeLessThan(1);
  expect(soft).toBeGreaterThan(2.5);
  expect(soft).toBeLessThan(7);
});

test('a focus is offered as two places where it was seen, and not where it was not', () => {
  const near = inverseDepth(camera, 480, 600)!;
  const slope = 5 / Math.abs(inverseDepth(camera, 480, 240)! - near);
  const picture = tiles((y) => slope * Math.abs((inverseDepth(camera, 480, y) ?? 0) - near));
  const offered = seenFocus(picture, { ...survey, edge })!;
  expect(offered.sharp[1]).toBeGreaterThan(offered.soft[1]);
  expect(offered.blurPx).toBeGreaterThan(1);
  // Of a strip at the picture's top nothing shows where two places would be drawn.
  const strip: [number, number][] = [[0, 15], [960, 15], [960, 118], [0, 118]]; // prettier-ignore
  const low = inverseDepth(camera, 480, 118)!;
  const steep = 6 / Math.abs(inverseDepth(camera, 480, 15)! - low);
  const far = tiles((y) => steep * Math.abs((inverseDepth(camera, 480, y) ?? low) - low));
  expect(sceneFocus(far, { ...survey, edge: strip })).not.toBeNull();
  expect(seenFocus(far, { ...survey, edge: strip })).toBeNull();
});

test('a ground that is as sharp everywhere has no focus to be found; nor has one on which nothing shows', () => {
  expect(
    sceneFocus(
      tiles(() => 0),
      { ...survey, edge },
    ),
  ).toBeNull();
  expect(
    sceneFocus(
      tiles(() => 2),
      { ...survey, edge },
    ),
  ).toBeNull();
  const plain = createRgba(960, 640);
  plain.data.fill(180);
  expect(sceneFocus(plain, survey)).toBeNull();
  expect(sceneFocus(plain, { ...survey, plane: null })).toBeNull();
});

test('a focus that is drawn blurs nothing where it is sharp and as much as was said at the other place', () => {
  const drawn = { sharp: [480, 560], soft: [480, 260], blurPx: 6 } as SceneSurvey['focus'];
  const focus = surveyedFocus({ ...survey, focus: drawn })!;
  expect(blurAt(focus, inverseDepth(camera, 480, 560)!)).toBe(0);
  expect(blurAt(focus, inverseDepth(camera, 480, 260)!) * 960).toBeCloseTo(6, 6);
  expect(blurAt(focus, inverseDepth(camera, 480, 400)!) * 960).toBeLessThan(6);
  // In the sky, at one depth twice, or without a plane it says nothing.
  expect(surveyedFocus({ ...survey, focus: { ...drawn!, soft: [480, -400] } })).toBeNull();
  expect(surveyedFocus({ ...survey, focus: { ...drawn!, soft: [480, 560] } })).toBeNull();
  expect(surveyedFocus({ ...survey, plane: null, focus: drawn })).toBeNull();
  expect(surveyedFocus(survey)).toBeNull();
});

test('haze grows with the depth, from none at the lens to what was said at its place', () => {
  const haze = surveyedHaze({ ...survey, haze: { at: [480, 260], share: 0.4, colour: '#d0d8e0' } })!;
  const [far, near] = [inverseDepth(camera, 480, 260)!, inverseDepth(camera, 480, 600)!];
  expect(hazeAt(haze, far)).toBeCloseTo(0.4, 6);
  expect(hazeAt(haze, near)).toBeLessThan(0.4);
  expect(hazeAt(haze, near)).toBeGreaterThan(0);
  expect(surveyedHaze({ ...survey, haze: { at: [480, -400], share: 0.4, colour: '#d0d8e0' } })).toBeNull();
});

const square = (size: number, colour: [number, number, number]) => {
  const picture = createRgba(size, size);
  for (let i = 0; i < size * size; i++) picture.data.set([...colour, 255], i * 4);
  return picture;
};

test('wholly in haze a product has the haze’s colour, without any its own, and its matte stays', () => {
  const product = square(4, [200, 40, 10]);
  product.data[3] = 90;
  expect([...hazed(product, 0, [10, 20, 30]).data]).toEqual([...product.data]);
  const gone = hazed(product, 1, [10, 20, 30]).data;
  expect([...gone.slice(0, 4)]).toEqual([10, 20, 30, 90]);
  // Half and half in linear light, not in the encoding.
  expect(hazed(square(1, [255, 255, 255]), 0.5, [0, 0, 0]).data[0]).toBe(188);
});

test('out of focus a product spreads over its edge, keeps its colour there and its whole matte', () => {
  const [size, sigma] = [40, 4];
  const soft = defocused(square(size, [180, 60, 20]), sigma);
  const room = defocusRoom(sigma);
  expect(soft.width).toBe(size + 2 * room);
  const at = (x: number, y: number) => [
    ...soft.data.slice((y * soft.width + x) * 4, (y * soft.width + x) * 4 + 4),
  ];
  const middle = soft.width >> 1;
  // Half-covered at the old edge, faint well outside, and nowhere another colour.
  expect(at(room, middle)[3]).toBeGreaterThan(120);
  expect(at(room, middle)[3]).toBeLessThan(160);
  expect(at(room - 6, middle)[3]).toBeGreaterThan(5);
  for (const x of [room - 6, room, middle]) {
    const [r, g, b] = at(x, middle);
    expect(Math.abs(r - 180) + Math.abs(g - 60) + Math.abs(b - 20)).toBeLessThan(8);
  }
  let sum = 0;
  for (let i = 3; i < soft.data.length; i += 4) sum += soft.data[i] / 255;
  expect(sum / (size * size)).toBeCloseTo(1, 1);
});
