import fc from 'fast-check';
import { graphCut, smoothness } from './graph-cut';
import { minCut } from './min-cut';

const W = 60;
const H = 48;

/** A picture of a few blobs with grain, and odds that mostly follow them but are wrong in patches. */
function scene(seed: number): { lab: Float32Array; odds: Float32Array } {
  let state = seed * 2654435761 + 1;
  const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296;
  const blobs = Array.from({ length: 4 }, () => ({
    x: random() * W,
    y: random() * H,
    r: 4 + random() * 14,
    v: random() * 12 - 6,
  }));
  const lab = new Float32Array(W * H * 3);
  const odds = new Float32Array(W * H);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    const inside = blobs.slice(0, 2).some((b) => Math.hypot(x - b.x, y - b.y) < b.r);
    lab[i * 3] = (inside ? 0.7 : 0.4) + (random() - 0.5) * 0.03;
    odds[i] = inside ? 5 : -5;
    for (const b of blobs) if (Math.hypot(x - b.x, y - b.y) < b.r / 2) odds[i] += b.v;
    odds[i] = Math.min(9, Math.max(-9, odds[i] + (random() - 0.5) * 3));
  }
  return { lab, odds };
}

/** What a labelling costs: the odds it goes against, and the contrast it cuts. */
function energy(labels: Uint8Array, odds: Float32Array, weights: Float32Array[]): number {
  const [east, south, southEast, southWest] = weights;
  let sum = 0;
  for (let i = 0; i < labels.length; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    if (labels[i] ? odds[i] < 0 : odds[i] > 0) sum += Math.abs(odds[i]);
    if (x + 1 < W && labels[i] !== labels[i + 1]) sum += east[i];
    if (y + 1 < H && labels[i] !== labels[i + W]) sum += south[i];
    if (x + 1 < W && y + 1 < H && labels[i] !== labels[i + W + 1]) sum += southEast[i];
    if (x > 0 && y + 1 < H && labels[i] !== labels[i + W - 1]) sum += southWest[i];
  }
  return sum;
}

test('leaving out what is settled costs nothing: the cut is as cheap as that of all pixels', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      const { lab, odds } = scene(seed);
      const weights = smoothness(lab, W, H);
      const [east, south, southEast, southWest] = weights;
      const whole = minCut({
        width: W,
        height: H,
        sourceCapacity: odds.map((v) => Math.max(0, v)),
        sinkCapacity: odds.map((v) => Math.max(0, -v)),
        east,
        south,
        southEast,
        southWest,
      });
      const ours = graphCut(odds, weights, W, H, null);
      const least = energy(whole, odds, weights);
      expect(energy(ours, odds, weights)).toBeLessThanOrEqual(least * 1.0001 + 0.01);
    }),
    { numRuns: 60 },
  );
});

test('a cut made again where little has changed is the cut made anew', () => {
  const { lab, odds } = scene(5);
  const weights = smoothness(lab, W, H);
  const before = { odds, labels: graphCut(odds, weights, W, H, null) };
  const changed = Float32Array.from(odds, (v, i) =>
    Math.hypot((i % W) - 12, Math.floor(i / W) - 12) < 4 ? 8 : v,
  );
  expect(graphCut(odds, weights, W, H, before)).toBe(before.labels);
  const again = graphCut(changed, weights, W, H, before);
  expect(energy(again, changed, weights)).toBeCloseTo(
    energy(graphCut(changed, weights, W, H, null), changed, weights),
    1,
  );
  expect(again[12 * W + 12]).toBe(1);
});
