import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { verdictOf } from '@scenograph/core/cutout/confidence';
import { cutOut, NoProductError, recipeWith, type Cutout } from '@scenograph/core/cutout/index';
import { matteError } from '@scenograph/core/cutout/matte-error';
import { PLAIN_RECIPE, type CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { createRgba, crop, type Plane, type Rgba } from '@scenograph/core/raster/pixels';
import { decodeGrey, decodePicture } from './read-picture';
import { loadSegmentationModel } from './segmentation-model';

/** The shipped model, and photos of every unhelpful kind: a right cutout, a doubtful one, or a sentence. */

const products = join(import.meta.dirname ?? __dirname, '../../demo/assets/products');

async function demo(name: string): Promise<{ photo: Rgba; truth: Plane }> {
  return {
    photo: await decodePicture(await readFile(join(products, `${name}.jpg`))),
    truth: await decodeGrey(await readFile(join(products, `${name}.matte.png`))),
  };
}

async function attempt(photo: Rgba, recipe: CutoutRecipe = PLAIN_RECIPE): Promise<Cutout | null> {
  try {
    return await cutOut(photo, recipe, await loadSegmentationModel());
  } catch (error) {
    if (error instanceof NoProductError) return null;
    throw error;
  }
}

/** A ground with its grain, and balls on it, lit from the upper left and with a soft shadow under each. */
function balls(
  width: number,
  height: number,
  ground: number,
  list: { x: number; y: number; r: number; colour: [number, number, number] }[],
): { photo: Rgba; truth: Uint8Array } {
  const photo = createRgba(width, height);
  const truth = new Uint8Array(width * height);
  let seed = 7;
  const grain = () => ((seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296 - 0.5) * 4;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      let [r, g, b] = [ground, ground, ground];
      for (const ball of list) {
        const [dx, dy] = [(x - ball.x) / ball.r, (y - ball.y) / ball.r];
        const under = Math.hypot(dx * 0.9, (dy - 0.95) * 4);
        const shade = 1 - 0.45 * Math.exp(-under * under);
        [r, g, b] = [r * shade, g * shade, b * shade];
      }
      for (const ball of list) {
        const [dx, dy] = [(x - ball.x) / ball.r, (y - ball.y) / ball.r];
        const d2 = dx * dx + dy * dy;
        if (d2 >= 1) continue;
        const light = Math.max(0.25, 0.55 * Math.sqrt(1 - d2) - 0.3 * dx - 0.4 * dy + 0.2);
        [r, g, b] = ball.colour.map((c) => Math.min(255, c * light));
        truth[i] = 1;
      }
      photo.data.set([r + grain(), g + grain(), b + grain(), 255], i * 4);
    }
  return { photo, truth };
}

/** Share of the pixels on which a cutout and the truth agree, over those that either holds. */
function overlap(cutout: Cutout | null, truth: Uint8Array): number {
  let [both, either] = [0, 0];
  truth.forEach((t, i) => {
    const is = (cutout?.matte.data[i] ?? 0) > 0.5;
    if (t && is) both++;
    if (t || is) either++;
  });
  return both / either;
}

const RED: [number, number, number] = [200, 50, 40];
const BLUE: [number, number, number] = [40, 70, 190];

test('the model and its runtime are loaded once', async () => {
  const first = loadSegmentationModel();
  expect(loadSegmentationModel()).toBe(first);
  expect(await loadSegmentationModel()).toBe(await first);
});

test.each(['planter-teal', 'planter-ochre', 'watering-can'])('%s is cut out as it truly is', async (name) => {
  const { photo, truth } = await demo(name);
  const cutout = await attempt(photo);
  expect(matteError(cutout!.matte, truth).mse).toBeLessThan(0.005);
});

test('several like things are all kept', async () => {
  const { photo, truth } = balls(640, 480, 222, [
    { x: 190, y: 250, r: 95, colour: RED },
    { x: 450, y: 255, r: 95, colour: BLUE },
  ]);
  expect(overlap(await attempt(photo), truth)).toBeGreaterThan(0.93);
});

test('a box and a click each say which of two things is meant', async () => {
  const { photo } = balls(640, 480, 222, [
    { x: 190, y: 250, r: 95, colour: RED },
    { x: 450, y: 255, r: 95, colour: BLUE },
  ]);
  const { truth } = balls(640, 480, 222, [{ x: 450, y: 255, r: 95, colour: BLUE }]);
  const boxed = await attempt(photo, recipeWith({ box: { x: 348, y: 150, width: 206, height: 208 } }));
  expect(overlap(boxed, truth)).toBeGreaterThan(0.9);
});

test('a photo of nothing is refused, or not called sure', async () => {
  const { photo } = balls(640, 480, 225, []);
  expect(verdictOf((await attempt(photo))?.confidence ?? 0)).not.toBe('looks right');
});

test('a screenshot of text and lines is refused, or not called sure', async () => {
  const photo = createRgba(640, 400);
  photo.data.fill(255);
  for (let y = 0; y < 400; y++)
    for (let x = 0; x < 640; x++) {
      const line =
        y % 24 > 8 && y % 24 < 18 && (x * 7 + Math.floor(y / 24) * 13) % 11 < 5 && x > 40 && x < 560;
      if (y < 30 || line) photo.data.set(y < 30 ? [52, 60, 72] : [40, 40, 40], (y * 640 + x) * 4);
    }
  expect(verdictOf((await attempt(photo))?.confidence ?? 0)).not.toBe('looks right');
});

test('a product that the border cuts is not called sure', async () => {
  const { photo } = await demo('watering-can');
  const part = crop(photo, {
    x: Math.round(photo.width * 0.35),
    y: Math.round(photo.height * 0.35),
    width: Math.round(photo.width * 0.4),
    height: Math.round(photo.height * 0.4),
  });
  expect(verdictOf((await attempt(part))?.confidence ?? 0)).not.toBe('looks right');
});

test('300 pixels are enough; 8 by 8 give a sentence or a cutout, and no crash', async () => {
  const { photo, truth } = balls(300, 300, 225, [{ x: 150, y: 150, r: 90, colour: RED }]);
  expect(overlap(await attempt(photo), truth)).toBeGreaterThan(0.95);
  const tiny = createRgba(8, 8);
  tiny.data.fill(200);
  const cutout = await attempt(tiny);
  if (cutout) expect(cutout.matte.data).toHaveLength(64);
});

test('a drawing with flat colours and hard outlines is cut out along them', async () => {
  const photo = createRgba(480, 360);
  const truth = new Uint8Array(480 * 360);
  for (let y = 0; y < 360; y++)
    for (let x = 0; x < 480; x++) {
      const d = Math.hypot((x - 240) / 150, (y - 180) / 110);
      truth[y * 480 + x] = d < 1 ? 1 : 0;
      photo.data.set(
        d < 0.94 ? [250, 190, 30, 255] : d < 1 ? [20, 20, 20, 255] : [255, 255, 255, 255],
        (y * 480 + x) * 4,
      );
    }
  expect(overlap(await attempt(photo), truth)).toBeGreaterThan(0.95);
});
