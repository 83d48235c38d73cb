import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
import { cutOut, NoProductError, recipeWith } from './index';
import { matteError } from './matte-error';
import { PLAIN_RECIPE } from './recipe';
import { minCut, type GridGraph } from './min-cut';

function random(seed: number): () => number {
  return () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 4294967296;
  };
}

test('the minimum cut costs what the best of all labellings costs', () => {
  const next = random(3);
  for (let round = 0; round < 30; round++) {
    const [w, h] = [4, 3];
    const plane = (k: number) => Float32Array.from({ length: w * h }, () => Math.floor(next() * k));
    const graph: GridGraph = {
      width: w,
      height: h,
      sourceCapacity: plane(9),
      sinkCapacity: plane(9),
      east: plane(5),
      south: plane(5),
      southEast: plane(4),
      southWest: plane(4),
    };
    const energy = (label: (i: number) => number) => {
      let sum = 0;
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) {
          const i = y * w + x;
          sum += label(i) ? graph.sinkCapacity[i] : graph.sourceCapacity[i];
          const pairs: [number, number, Float32Array][] = [
            [1, 0, graph.east],
            [0, 1, graph.south],
            [1, 1, graph.southEast],
            [-1, 1, graph.southWest],
          ];
          for (const [dx, dy, cost] of pairs)
            if (x + dx >= 0 && x + dx < w && y + dy < h && label(i) !== label(i + dy * w + dx))
              sum += cost[i];
        }
      return sum;
    };
    let best = Infinity;
    for (let mask = 0; mask < 1 << (w * h); mask++)
      best = Math.min(
        best,
        energy((i) => (mask >> i) & 1),
      );
    const labels = minCut(graph);
    expect(energy((i) => labels[i])).toBe(best);
  }
});

interface Made {
  photo: Rgba;
  truth: Plane;
}

/** A striped red ring on a grey sweep with a gradient, noise and a soft shadow; its true matte is known. */
function ringOnSweep(options: { shadow: boolean; hole: boolean }): Made {
  const [w, h] = [420, 360];
  const next = random(9);
  const photo = createRgba(w, h);
  const truth = createPlane(w, h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const d = Math.hypot((x - 205) / 1.15, y - 175);
      const outer = Math.min(1, Math.max(0, 105 - d + 0.5));
      const inner = options.hole ? Math.min(1, Math.max(0, 42 - d + 0.5)) : 0;
      const alpha = outer * (1 - inner);
      truth.data[i] = alpha;
      const s = options.shadow ? 0.4 * Math.exp(-(((x - 240) / 110) ** 2) - ((y - 282) / 20) ** 2) : 0;
      const ground = (196 + 24 * (x / w) - 16 * (y / h)) * (1 - s);
      const stripe = Math.sin(y / 9) > 0 ? [172, 52, 40] : [140, 30, 34];
      for (let c = 0; c < 3; c++) {
        const noise = (next() + next() + next() - 1.5) * 5;
        photo.data[i * 4 + c] = alpha * stripe[c] + (1 - alpha) * (ground - c * 2) + noise;
      }
      photo.data[i * 4 + 3] = 255;
    }
  return { photo, truth };
}

test('a product on a sweep with gradient, noise and shadow comes out with its hole', async () => {
  const { photo, truth } = ringOnSweep({ shadow: true, hole: true });
  const { matte, bounds } = await cutOut(photo, PLAIN_RECIPE, null);
  expect(matteError(matte, truth).mse).toBeLessThan(0.0015);
  expect(matte.data[175 * 420 + 205]).toBeLessThan(0.05);
  expect(Math.abs(bounds.x - 84)).toBeLessThanOrEqual(3);
  expect(Math.abs(bounds.width - 242)).toBeLessThanOrEqual(5);
});

test('openings are filled when they are not wanted', async () => {
  const { photo } = ringOnSweep({ shadow: false, hole: true });
  const { matte } = await cutOut(photo, recipeWith({ holes: false }), null);
  expect(matte.data[175 * 420 + 205]).toBeGreaterThan(0.95);
});

test('colours along the edge are those of the product, not mixed with the backdrop', async () => {
  const { photo, truth } = ringOnSweep({ shadow: false, hole: false });
  const { image, bounds } = await cutOut(photo, PLAIN_RECIPE, null);
  let seen = 0;
  let off = 0;
  for (let y = 0; y < image.height; y++)
    for (let x = 0; x < image.width; x++) {
      const j = (y * image.width + x) * 4;
      const alpha = truth.data[(y + bounds.y) * 420 + x + bounds.x];
      if (alpha < 0.2 || alpha > 0.8) continue;
      seen++;
      // The backdrop is about (200, 198, 196): its green would show at once in a product whose green is 30 to 52.
      off += Math.max(0, image.data[j + 1] - 60);
    }
  expect(seen).toBeGreaterThan(200);
  expect(off / seen).toBeLessThan(12);
});

test('what a hand makes firm beyond a faint edge has the photo’s own colour, not the product’s', async () => {
  const { photo, truth } = ringOnSweep({ shadow: false, hole: false });
  const { image, bounds } = await cutOut(
    photo,
    {
      ...PLAIN_RECIPE,
      steps: [
        {
          ...{ id: 'p', name: 'Paint in', on: true, kind: 'paint', side: 'keep' },
          ...{ points: [[326, 175]], radius: 14, softness: 0 },
        },
      ],
    },
    null,
  );
  let seen = 0;
  for (let y = 165; y < 186; y++)
    for (let x = 318; x < 336; x++) {
      if (truth.data[y * 420 + x] > 0.01 || Math.hypot(x - 326, y - 175) > 12) continue;
      const j = ((y - bounds.y) * image.width + x - bounds.x) * 4;
      expect(image.data[j + 3]).toBe(255);
      // The backdrop is grey, the product's green is 30 to 52.
      expect(image.data[j + 1]).toBeGreaterThan(120);
      seen++;
    }
  expect(seen).toBeGreaterThan(100);
});

test('a picture without a product is refused with a sentence', async () => {
  const flat = createRgba(80, 60);
  flat.data.fill(231);
  await expect(cutOut(flat, PLAIN_RECIPE, null)).rejects.toThrow(NoProductError);
  await expect(cutOut(createRgba(1, 1), PLAIN_RECIPE, null)).rejects.toThrow(/at least 8/);
  await expect(cutOut(createRgba(100, 100), PLAIN_RECIPE, null)).rejects.toThrow(/transparent/);
});

test('a picture that comes cut out keeps its own matte', async () => {
  const image = createRgba(60, 40);
  for (let y = 10; y < 30; y++)
    for (let x = 20; x < 45; x++) image.data.set([10, 90, 80, 200], (y * 60 + x) * 4);
  const { bounds, matte } = await cutOut(image, PLAIN_RECIPE, null);
  expect(bounds).toEqual({ x: 20, y: 10, width: 25, height: 20 });
  expect(matte.data[15 * 60 + 30]).toBeCloseTo(200 / 255, 5);
});

test('a product that fills the frame and touches its border is still found', async () => {
  const [w, h] = [300, 240];
  const photo = createRgba(w, h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const inside = x > 60 && y > 40 && y < 220;
      photo.data.set(inside ? [30, 90, 70 + (x % 40), 255] : [240, 239, 236, 255], (y * w + x) * 4);
    }
  const { matte } = await cutOut(photo, PLAIN_RECIPE, null);
  expect(matte.data[130 * w + w - 1]).toBeGreaterThan(0.9);
  expect(matte.data[10 * w + 10]).toBe(0);
});
