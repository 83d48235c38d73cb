import { expect, test } from '@jest/globals';
import { seededRandom } from '../raster/random';
import { evenSeam } from './even-seam';
import { CHANNELS, matchPatches, vote, type PatchTask } from './patch-match';

const [W, H] = [48, 40];
const HALF = 2;

/** Upright stripes eight pixels wide, with a hole from 20 to 28 both ways; what is in the hole is unknown. */
function stripes(): { task: PatchTask; truth: (i: number) => number } {
  const texture = new Float32Array(W * H * CHANNELS);
  const inside = new Uint8Array(W * H);
  const truth = (i: number) => ((i % W) % 8 < 4 ? 60 : 200);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    inside[i] = x >= 20 && x < 28 && y >= 16 && y < 24 ? 1 : 0;
    for (let c = 0; c < 3; c++) texture[i * CHANNELS + c] = inside[i] ? 128 : truth(i);
  }
  return { task: { width: W, height: H, texture, inside }, truth };
}

const wholeInKnown = ({ inside }: PatchTask, x: number, y: number) => {
  for (let dy = -HALF; dy <= HALF; dy++)
    for (let dx = -HALF; dx <= HALF; dx++) if (inside[(y + dy) * W + x + dx]) return false;
  return true;
};

test('every patch over the hole is matched by one that lies wholly in what is known', () => {
  const { task } = stripes();
  const field = matchPatches(task, HALF, 3, 2, 20, null);
  let matched = 0;
  for (let i = 0; i < W * H; i++) {
    if (field.cost[i] === 0) continue;
    matched++;
    expect(field.sx[i]).toBeGreaterThanOrEqual(HALF);
    expect(field.sx[i]).toBeLessThan(W - HALF);
    expect(wholeInKnown(task, field.sx[i], field.sy[i])).toBe(true);
  }
  expect(matched).toBeGreaterThanOrEqual((8 + 2 * HALF) ** 2);
});

test('more sweeps never make a match worse; the same seed makes the same matches', () => {
  const { task } = stripes();
  const total = (sweeps: number) =>
    matchPatches(task, HALF, 7, sweeps, 20, null).cost.reduce((s, v) => s + v, 0);
  expect(total(4)).toBeLessThanOrEqual(total(1));
  expect(total(1)).toBeLessThanOrEqual(total(0));
  expect(matchPatches(task, HALF, 7, 2, 20, null)).toEqual(matchPatches(task, HALF, 7, 2, 20, null));
});

test('matching and voting in turn carry stripes through the hole, and leave the rest alone', () => {
  const { task, truth } = stripes();
  let field = null;
  for (let round = 0; round < 8; round++) {
    field = matchPatches(task, HALF, round + 1, 4, 24, field);
    vote(task, field, HALF, round > 5);
  }
  let off = 0;
  for (let i = 0; i < W * H; i++) {
    const v = task.texture[i * CHANNELS];
    if (!task.inside[i]) expect(v).toBe(truth(i));
    else off += Math.abs(v - truth(i)) / 64;
  }
  // Unknown it was 70 off everywhere.
  expect(off).toBeLessThan(25);
});

test('a step at the seam is taken away: at the border whole, farther in less and less', () => {
  const values = new Float32Array(W * H * 3);
  const inside = new Uint8Array(W * H);
  const depth = new Float32Array(W * H);
  for (let i = 0; i < W * H; i++) {
    const x = i % W;
    inside[i] = x >= 24 ? 1 : 0;
    depth[i] = Math.max(0, x - 23.5);
    values.fill(inside[i] ? 130 : 100, i * 3, i * 3 + 3);
  }
  evenSeam(values, inside, W, H, 3, depth);
  const row = 20 * W;
  expect(values[(row + 23) * 3]).toBe(100);
  expect(Math.abs(values[(row + 24) * 3] - 100)).toBeLessThan(4);
  expect(values[(row + 44) * 3]).toBeGreaterThan(122);
  for (let x = 25; x < W; x++)
    expect(values[(row + x) * 3]).toBeGreaterThanOrEqual(values[(row + x - 1) * 3] - 1e-3);
});

test('grain at the seam is not taken for a step', () => {
  const random = seededRandom(5);
  const values = new Float32Array(W * H * 3).map(() => 100 + (random() - 0.5) * 20);
  const before = Float32Array.from(values);
  const inside = Uint8Array.from({ length: W * H }, (_, i) => (i % W >= 24 ? 1 : 0));
  const depth = new Float32Array(W * H).map((_, i) => Math.max(0, (i % W) - 23.5));
  evenSeam(values, inside, W, H, 3, depth);
  let moved = 0;
  for (let i = 0; i < values.length; i++) moved = Math.max(moved, Math.abs(values[i] - before[i]));
  expect(moved).toBeLessThan(10);
});
