import { oklabPixels } from '../raster/colour';
import { createRgba } from '../raster/pixels';
import { colourHypothesis } from './colour-hypothesis';
import { EVIDENCE, evidenceOf, logOdds, oddsFrom } from './evidence';
import { smoothness } from './graph-cut';
import { EVIDENCE_NETWORK } from './model/odds';
import { taughtColour } from './segment';

const W = 120;
const H = 96;
const OPTIONS = { holes: true, shadows: true };
const inRing = (x: number, y: number) => {
  const d = Math.hypot(x - 60, y - 48);
  return d < 36 && d > 16;
};

/** A blue ring on grey paper with grain, and what the model would say of it: sure outside its opening, in doubt within. */
function scene(doubt: number) {
  const photo = createRgba(W, H);
  const shape = new Float32Array(W * H);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    const grain = ((x * 7 + y * 13) % 5) - 2;
    const colour = inRing(x, y) ? [50, 80, 170] : [205, 205, 203];
    photo.data.set([...colour.map((v) => v + grain), 255], i * 4);
    shape[i] = inRing(x, y) ? 0.97 : Math.hypot(x - 60, y - 48) < 17 ? doubt : 0.02;
  }
  const lab = oklabPixels(photo);
  const byColour = colourHypothesis(lab, W, H, OPTIONS, smoothness(lab, W, H));
  return evidenceOf(shape, byColour, taughtColour(shape, lab, W, H, OPTIONS), W, H);
}

const at = (x: number, y: number) => y * W + x;

test('every name has a plane of moderate numbers, and an input of the network', () => {
  const evidence = scene(0.5);
  expect(evidence).toHaveLength(EVIDENCE.length);
  for (const row of EVIDENCE_NETWORK.layers[0].weights) expect(row).toHaveLength(EVIDENCE.length - 3);
  for (const plane of evidence) {
    expect(plane).toHaveLength(W * H);
    expect(plane.every((v) => Number.isFinite(v) && Math.abs(v) < 8)).toBe(true);
  }
});

test('where all agree the odds are firm, and where the model doubts, colour decides', () => {
  const odds = oddsFrom(scene(0.55));
  expect(odds[at(60, 20)]).toBeGreaterThan(2);
  expect(odds[at(6, 6)]).toBeLessThan(-2);
  // The opening shows the paper's own colour.
  expect(odds[at(60, 48)]).toBeLessThan(0);
});

test('a pixel never goes against all of its sources', () => {
  const evidence = scene(0.5);
  const odds = oddsFrom(evidence);
  const firm = Math.abs(EVIDENCE_NETWORK.intercept) + 0.01;
  for (let i = 0; i < odds.length; i++) {
    const [model, colour, taught] = evidence.map((plane) => plane[i]);
    if (model > 0 && colour > 0 && taught > 0) expect(odds[i]).toBeGreaterThan(-firm);
    if (model < 0 && colour < 0 && taught < 0) expect(odds[i]).toBeLessThan(firm);
  }
});

test('the surer the model is of a pixel, the more speaks for it', () => {
  const [low, high] = [0.2, 0.9].map((p) => oddsFrom(scene(p))[at(60, 48)]);
  expect(high).toBeGreaterThan(low);
  expect(logOdds(0.5)).toBe(0);
  expect(logOdds(1)).toBeCloseTo(-logOdds(0), 9);
});
