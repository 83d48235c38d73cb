import { createPlane, createRgba } from '../raster/pixels';
import { boxBody } from './body';
import { cameraFromHorizon, onPlane, project } from './camera';
import { wallFace } from './faces';
import { sceneShadeOn, shadeAt, shadeDepth, shadeMask } from './scene-shade';
import { standAt } from './stand-frame';

const frame = { width: 800, height: 600 };
const camera = cameraFromHorizon(150, { base: [400, 450], top: [400, 330], heightMm: 120 }, 800, 600);
const stand = standAt(camera, { x: 400, y: 450 }, 0)!;
const shown = (x: number, y: number, z = 0): [number, number] => {
  const [c, s] = [Math.cos(stand.facing), Math.sin(stand.facing)];
  const p = project(camera, { X: stand.X + x * s + y * c, Y: stand.Y - x * c + y * s, Z: z })!;
  return [p.x, p.y];
};
/** A rectangle of the ground about the stand. */
const patch = (x0: number, y0: number, x1: number, y1: number) => [
  shown(x0, y1),
  shown(x1, y1),
  shown(x1, y0),
  shown(x0, y0),
];

/** A box 40 mm wide, 100 high and 40 deep, seen at a pixel a millimetre. */
const [WIDTH, HEIGHT] = [40, 100];
const alpha = createPlane(WIDTH, HEIGHT);
alpha.data.fill(1);
const receiver = { body: boxBody(40, 100, 40), x: 20, y: 100, pxPerMm: 1, cos: 1, lift: 0 };
const fromLeft = { azimuthDeg: -90, elevationDeg: 45, softness: 0 };
const shade = (outlines: [number, number][][], walls = [] as NonNullable<ReturnType<typeof wallFace>>[]) => {
  const mask = shadeMask(outlines, frame);
  const lack = sceneShadeOn(alpha, receiver, { mask, walls, camera, stand, unit: 1 }, fromLeft);
  return (z: number, x = 20) => (lack ? lack.data[(HEIGHT - 1 - z) * WIDTH + x] : 0);
};

test('shade on the ground behind a product shades it as high as the light that ends there passed it', () => {
  // Light from the left at 45 degrees: what passes 60 mm over the foot's middle ends 60 mm to its right.
  const at = shade([patch(45, -60, 85, 60)]);
  expect(at(65)).toBeCloseTo(1, 1);
  expect(at(20)).toBe(0);
  expect(at(97)).toBe(0);
});

test('a product that stands wholly in shade is wholly shaded, and one beside it not at all', () => {
  const whole = shade([patch(-200, -150, 250, 150)]);
  for (const z of [2, 50, 95]) expect(whole(z)).toBeCloseTo(1, 1);
  expect(shade([patch(-250, -60, -150, 60)])(50)).toBe(0);
});

test('light that ends on a wall is in shade where the wall is', () => {
  // A wall across the light, 50 mm to the right of the stand.
  const wall = wallFace(camera, [shown(50, 150), shown(50, -80)])!;
  const outline = [shown(50, 60, 60), shown(50, -60, 60), shown(50, -60, 10), shown(50, 60, 10)];
  const with_ = shade([outline], [wall]);
  // It passed 65 mm over the foot's middle and fell 50 mm more until the wall.
  expect(with_(85)).toBeGreaterThan(0.84);
  expect(with_(30)).toBe(0);
});

test('how dark the shade is, is seen beside it; a mark on nothing says nothing', () => {
  const picture = createRgba(200, 120);
  const inside = (x: number, y: number) => x >= 60 && x < 140 && y >= 30 && y < 90;
  for (let y = 0; y < 120; y++)
    for (let x = 0; x < 200; x++) {
      // Boards of two tones: the same in shade as in light.
      const board = x % 20 < 10 ? 200 : 160;
      const v = inside(x, y) ? board * 0.55 : board;
      picture.data.set([v, v, v, 255], (y * 200 + x) * 4);
    }
  const outline: [number, number][] = [
    [60, 30],
    [140, 30],
    [140, 90],
    [60, 90],
  ];
  expect(shadeDepth(picture, [outline])).toBeCloseTo(0.45, 1);
  const plain = createRgba(200, 120);
  plain.data.fill(180);
  expect(shadeDepth(plain, [outline])).toBe(0);
  // All of the picture: nothing lies beside it.
  expect(
    shadeDepth(picture, [
      [
        [-9, -9],
        [209, -9],
        [209, 129],
        [-9, 129],
      ],
    ]),
  ).toBe(0);
});

test('outside the frame nothing is known of shade: it is taken for lit', () => {
  const mask = shadeMask(
    [
      [
        [0, 0],
        [800, 0],
        [800, 600],
        [0, 600],
      ],
    ],
    frame,
  );
  expect(shadeAt(mask, 400, 300)).toBeCloseTo(1, 2);
  expect(shadeAt(mask, 900, 300)).toBe(0);
  expect(shadeAt(mask, 400, -40)).toBe(0);
  expect(onPlane(camera, { x: 400, y: 20 })).toBeNull();
});
