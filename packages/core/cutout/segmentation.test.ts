import { createRgba, type Rgba } from '../raster/pixels';
import { confidenceFrom, doubtsOf, measureCutout, verdictOf } from './confidence';
import { solve } from './solve';
import { openSource, segmentSource } from './source';
import { renderView, wholeView } from './view';
import { cutOut, NoProductError, recipeWith } from './index';
import { PLAIN_RECIPE, storedRecipe, type CutoutRecipe } from './recipe';
import { modelInput, segmentPhoto, takeTaught, type Hints, type SegmentationModel } from './segmentation';

const W = 320;
const H = 240;

/** White discs on white paper, told from it by next to nothing: only the model can know. */
function whiteOnWhite(): Rgba {
  const photo = createRgba(W, H);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    const v = inDisc(x, y) ? 242 + ((x + y) % 2) : 245 - ((x * 7 + y * 3) % 2);
    photo.data.set([v, v, v, 255], i * 4);
  }
  return photo;
}

const inDisc = (x: number, y: number) => Math.hypot(x - 120, y - 120) < 60;
const inSecond = (x: number, y: number) => Math.hypot(x - 250, y - 120) < 40;

interface Asked {
  width: number;
  height: number;
  input: Float32Array;
  /** A keep stroke or a click is among the hints. */
  taught: boolean;
}

/**
 * A stand-in that knows the truth of the whole photo: it answers 0.995 and 0.005 for what `thing` says, by the place of
 * each pixel in the part that it is shown, which it finds out from the ramps in red and green of `placed`.
 */
function oracle(
  thing: (x: number, y: number, asked: Asked) => boolean,
  seen: (x: number, y: number) => number = () => 0,
): SegmentationModel & { asked: Asked[] } {
  const asked: Asked[] = [];
  return {
    asked,
    async answer(input, width, height) {
      const taught = input.subarray(4 * width * height, 5 * width * height).includes(1);
      const question = { width, height, input, taught };
      asked.push(question);
      const n = width * height;
      const out = new Float32Array(2 * n);
      for (let i = 0; i < n; i++) {
        const x = input[i] * W;
        const y = input[n + i] * H;
        out[i] = thing(x, y, question) ? 0.995 : 0.005;
        out[n + i] = seen(x, y);
      }
      return out;
    },
  };
}

/** A picture whose red and green say where a pixel lies; blue is even, so that colour tells nothing of the product. */
function placed(): Rgba {
  const photo = createRgba(W, H);
  for (let i = 0; i < W * H; i++)
    photo.data.set([((i % W) / W) * 255, (Math.floor(i / W) / H) * 255, 128, 255], i * 4);
  return photo;
}

/** The least red of what the model was shown: how far left it looked. */
const leastRed = ({ input, width, height }: Asked) =>
  input.subarray(0, width * height).reduce((a, b) => Math.min(a, b));

const matteOf = async (model: SegmentationModel, recipe: CutoutRecipe = PLAIN_RECIPE, photo = placed()) => {
  const { matte, confidence } = await cutOut(photo, recipe, model);
  return { at: (x: number, y: number) => matte.data[y * W + x], confidence };
};

test('what the model sees becomes the cutout where colour tells nothing', async () => {
  const { at } = await matteOf(oracle(inDisc));
  expect(at(120, 120)).toBeGreaterThan(0.95);
  expect(at(120, 70)).toBeGreaterThan(0.95);
  expect(at(250, 120)).toBeLessThan(0.05);
  expect(at(20, 20)).toBe(0);
});

test('several things are all kept, and an opening of the product stays open', async () => {
  const ring = (x: number, y: number) => inDisc(x, y) && Math.hypot(x - 120, y - 120) > 25;
  const photo = placed();
  for (let i = 0; i < W * H; i++)
    if (ring(i % W, Math.floor(i / W)) || inSecond(i % W, Math.floor(i / W))) photo.data[i * 4 + 2] = 70;
  const thing = oracle((x, y) => ring(x, y) || inSecond(x, y));
  const { at } = await matteOf(thing, PLAIN_RECIPE, photo);
  expect(at(250, 120)).toBeGreaterThan(0.95);
  expect(at(120, 120)).toBeLessThan(0.05);
  const filled = await matteOf(oracle(ring), recipeWith({ holes: false }));
  expect(filled.at(120, 120)).toBeGreaterThan(0.95);
});

test('the model is asked about the whole, then closer about the part where it saw the product', async () => {
  const model = oracle(inSecond);
  await segmentPhoto(model, placed());
  expect(model.asked.length).toBe(3);
  const [whole, close, closer] = model.asked;
  for (const { width, height } of model.asked) expect([width % 32, height % 32]).toEqual([0, 0]);
  expect(leastRed(whole)).toBeLessThan(0.02);
  expect(leastRed(close)).toBeGreaterThan(0.5);
  expect(closer.width * closer.height).toBeGreaterThan(close.width * close.height);
});

test('each look is told what the one before saw, in its place', async () => {
  const model = oracle(inSecond);
  await segmentPhoto(model, placed());
  const [whole, ...closer] = model.asked;
  const priorOf = ({ input, width, height }: Asked) => input.subarray(6 * width * height);
  expect(priorOf(whole).every((v) => v === 0)).toBe(true);
  for (const asked of closer) {
    const n = asked.width * asked.height;
    const prior = priorOf(asked);
    let [alike, far] = [0, 0];
    for (let i = 0; i < n; i++) {
      const [x, y] = [asked.input[i] * W, asked.input[n + i] * H];
      // At the very edge the smaller look is blurred.
      if (Math.abs(Math.hypot(x - 250, y - 120) - 40) < 4) continue;
      far++;
      if (prior[i] > 0 === inSecond(x, y)) alike++;
    }
    expect(alike / far).toBeGreaterThan(0.995);
  }
});

test('a box and clicks reach the model as planes, in the part it is shown', () => {
  const hints: Hints = {
    box: { x: 100, y: 60, width: 100, height: 120 },
    strokes: [
      { side: 'keep', points: [[150, 120]], radius: 4 },
      { side: 'drop', points: [[40, 40], [60, 40]], radius: 4 }, // prettier-ignore
    ],
  };
  const small = createRgba(64, 48);
  const input = modelInput(small, { x: 0, y: 0, width: W, height: H }, hints);
  const n = 64 * 48;
  const plane = (k: number, x: number, y: number) =>
    input[k * n + Math.floor(y / 5) * 64 + Math.floor(x / 5)];
  expect([plane(3, 150, 120), plane(3, 20, 20)]).toEqual([1, -1]);
  expect([plane(4, 150, 120), plane(4, 40, 40)]).toEqual([1, 0]);
  expect([plane(5, 50, 40), plane(5, 150, 120)]).toEqual([1, 0]);
  // Nobody helped: all three planes are empty. What is transparent lies on white.
  const plain = modelInput(small, { x: 0, y: 0, width: W, height: H }, { box: null, strokes: [] });
  expect(plain.subarray(3 * n).every((v) => v === 0)).toBe(true);
  expect(plain.subarray(0, 3 * n).every((v) => v === 1)).toBe(true);
});

test('a box makes the closer look go where it was drawn', async () => {
  const model = oracle(inDisc);
  await segmentPhoto(model, placed(), { box: { x: 210, y: 80, width: 80, height: 80 }, strokes: [] });
  expect(leastRed(model.asked[1])).toBeGreaterThan(0.5);
});

test('strokes are asked about once, and only change what they touch', async () => {
  // With any keep stroke this model also sees the second disc, and a third far away that nobody touched.
  const third = (x: number, y: number) => Math.hypot(x - 40, y - 210) < 20;
  const model = oracle((x, y, { taught }) => inDisc(x, y) || (taught && (inSecond(x, y) || third(x, y))));
  const source = openSource(placed());
  const stroke: CutoutRecipe['steps'][number] = { id: 's', name: '', on: true, kind: 'stroke', side: 'keep', points: [[250, 120]], radius: 5 }; // prettier-ignore
  const recipe = { ...PLAIN_RECIPE, steps: [stroke] };
  await segmentSource(source, model, recipe);
  const asked = model.asked.length;
  await segmentSource(source, model, recipe);
  expect(model.asked.length).toBe(asked);
  const { alpha } = renderView(source, solve(source, recipe), wholeView(source.photo));
  expect(alpha.data[140 * W + 260]).toBeGreaterThan(0.9);
  expect(alpha.data[210 * W + 40]).toBeLessThan(0.1);
  expect(alpha.data[120 * W + 120]).toBeGreaterThan(0.9);
});

test('a drop stroke that would make the model lose the body opens only what it covers', () => {
  const plane = (of: (x: number, y: number) => number) => ({
    width: 60,
    height: 40,
    data: Float32Array.from({ length: 2400 }, (_, i) => of(i % 60, Math.floor(i / 60))),
  });
  const body = (x: number, y: number) => (x > 10 && x < 50 && y > 5 && y < 35 ? 0.95 : 0.05);
  const before = { shape: plane(body), seen: plane(() => 0), agreement: 1 };
  const after = { shape: plane(() => 0.05), seen: plane(() => 0), agreement: 1 };
  const taught = takeTaught(before, after, [{ side: 'drop', points: [[30, 20]], radius: 3 }]);
  expect(taught.shape.data[20 * 60 + 40]).toBeCloseTo(0.95);
});

test('a drop stroke of three pixels opens a hole as narrow in a lattice, and leaves the rest', async () => {
  const source = openSource(placed());
  const model = oracle(inDisc);
  const drop: CutoutRecipe['steps'][number] = { id: 's', name: '', on: true, kind: 'stroke', side: 'drop', points: [[100, 120], [140, 120]], radius: 1.5 }; // prettier-ignore
  const recipe = { ...PLAIN_RECIPE, steps: [drop] };
  await segmentSource(source, model, recipe, false);
  const { alpha } = renderView(source, solve(source, recipe), wholeView(source.photo));
  expect(alpha.data[120 * W + 120]).toBeLessThan(0.3);
  expect(alpha.data[112 * W + 120]).toBeGreaterThan(0.9);
  expect(alpha.data[128 * W + 120]).toBeGreaterThan(0.9);
  expect(alpha.data[150 * W + 120]).toBeGreaterThan(0.9);
});

test('glass is recognised by itself, and can be forbidden', async () => {
  const glass = oracle(inDisc, (x, y) => (inDisc(x, y) ? 0.85 : 0));
  const clear = await matteOf(glass);
  expect(clear.at(120, 120)).toBeLessThan(0.7);
  const solid = await matteOf(glass, recipeWith({ glass: false }));
  expect(solid.at(120, 120)).toBeGreaterThan(0.95);
});

test('nothing seen by model and colour is refused with a sentence; nothing is guessed', async () => {
  const photo = createRgba(W, H);
  photo.data.fill(200);
  for (let i = 3; i < photo.data.length; i += 4) photo.data[i] = 255;
  await expect(
    cutOut(
      photo,
      PLAIN_RECIPE,
      oracle(() => false),
    ),
  ).rejects.toThrow(NoProductError);
});

test('a transparent picture is never asked about, and is sure of its own matte', async () => {
  const photo = createRgba(W, H);
  for (let y = 60; y < 180; y++)
    for (let x = 80; x < 200; x++) photo.data.set([200, 60, 40, 255], (y * W + x) * 4);
  const model = oracle(() => true);
  const { confidence, bounds } = await cutOut(photo, PLAIN_RECIPE, model);
  expect(model.asked.length).toBe(0);
  expect(confidence).toBe(1);
  expect(bounds).toEqual({ x: 80, y: 60, width: 120, height: 120 });
});

test('confidence falls with every doubt, and what a hand has corrected is not called unsure', async () => {
  const clean = {
    looksDiffer: 0.02,
    outlineDiffers: 0.01,
    doubt: 0.05,
    doubtOffEdge: 0,
    faintEdge: 0,
    onBorder: 0,
    seenThrough: 0,
    small: 0,
    parts: 0,
    likelyWrong: 0,
  };
  const sure = confidenceFrom(clean);
  for (const key of ['looksDiffer', 'outlineDiffers', 'doubt', 'doubtOffEdge', 'likelyWrong'] as const)
    expect(confidenceFrom({ ...clean, [key]: 0.6 })).toBeLessThanOrEqual(sure);
  const bad = { ...clean, outlineDiffers: 0.8, doubt: 0.9, faintEdge: 0.9, onBorder: 0.5, likelyWrong: 0.1 };
  expect(confidenceFrom(bad)).toBeLessThan(0.5);
  expect(confidenceFrom(bad)).toBeLessThan(sure);
  expect([verdictOf(0.95), verdictOf(0.7), verdictOf(0.2)]).toEqual([
    'looks right',
    'look at it',
    'needs a hand',
  ]);
  const stroke: CutoutRecipe['steps'][number] = { id: 's', name: '', on: true, kind: 'stroke', side: 'keep', points: [[120, 120]], radius: 5 }; // prettier-ignore
  const split = oracle((x, y, { width, height }) => inDisc(x, y) && (width * height < 90_000 || x < 120));
  expect((await matteOf(split)).confidence).toBeLessThan(0.9);
  expect((await matteOf(split, { ...PLAIN_RECIPE, steps: [stroke] })).confidence).toBe(1);
});

test('measures count what speaks against an outline, and doubts say where', () => {
  const [w, h] = [80, 60];
  const product = new Uint8Array(w * h);
  const shape = new Float32Array(w * h).fill(0.02);
  for (let y = 15; y < 45; y++)
    for (let x = 20; x < 60; x++) {
      product[y * w + x] = 1;
      shape[y * w + x] = x > 45 && y > 25 && x < 56 && y < 41 ? 0.5 : 0.97;
    }
  const none = new Float32Array(w * h);
  const planes = { shape, chance: shape, seen: none, width: w, height: h };
  const far = new Float32Array(w * h).fill(9);
  const measured = measureCutout({ ...planes, product, residual: far, agreement: 1 });
  expect(measured.looksDiffer).toBe(0);
  expect(measured.onBorder).toBe(0);
  expect(measured.faintEdge).toBe(0);
  expect(measured.parts).toBe(0);
  expect(measured.doubtOffEdge).toBeCloseTo((10 * 15) / (40 * 30), 1);
  const [doubt, ...more] = doubtsOf(product, shape, w, h);
  expect(more).toHaveLength(0);
  expect(Math.hypot(doubt.x - 50.5, doubt.y - 33)).toBeLessThan(2);
  const atBorder = Uint8Array.from(product, (_, i) => (i % w < 30 ? 1 : 0));
  expect(
    measureCutout({ ...planes, product: atBorder, residual: none, agreement: 0.4 }).onBorder,
  ).toBeGreaterThan(0.4);
});

test('recipes from before boxes and clicks are read as they were meant', () => {
  const { box: _box, at: _at, ...automatic } = { ...PLAIN_RECIPE.automatic, glass: true as const };
  const old = { ...PLAIN_RECIPE, automatic } as unknown as CutoutRecipe;
  expect(storedRecipe(old).automatic).toEqual({ ...automatic, box: null, at: [] });
  expect(storedRecipe(null)).toBe(PLAIN_RECIPE);
});

test('a photo in which colour tells nothing is not guessed without the model', async () => {
  await expect(cutOut(whiteOnWhite(), PLAIN_RECIPE, null)).rejects.toThrow(NoProductError);
});
