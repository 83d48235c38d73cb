import { expect, test } from '@jest/globals';
import { seededRandom } from '../raster/random';
import { fitColourModel } from './colour-model';

/** Pixels in clusters around the given colours. */
function clusters(colours: [number, number, number][], each = 200) {
  const random = seededRandom(4);
  const lab = new Float32Array(colours.length * each * 3);
  colours.forEach((colour, k) => {
    for (let i = 0; i < each; i++)
      colour.forEach((v, c) => (lab[(k * each + i) * 3 + c] = v + (random() - 0.5) * 0.02));
  });
  return { lab, use: new Uint8Array(colours.length * each).fill(1) };
}
const RED: [number, number, number] = [0.55, 0.18, 0.09];
const WHITE: [number, number, number] = [0.96, 0, 0];

test('colours that were seen cost less than others, each of several alike', () => {
  const { lab, use } = clusters([RED, WHITE]);
  const model = fitColourModel(lab, use, 2)!;
  const between = model.cost(0.75, 0.09, 0.045);
  expect(model.cost(...RED)).toBeLessThan(between - 10);
  expect(model.cost(...WHITE)).toBeLessThan(between - 10);
  expect(Math.abs(model.cost(...RED) - model.cost(...WHITE))).toBeLessThan(1);
});

test('what is rare costs more than what is common', () => {
  const { lab } = clusters([RED, WHITE]);
  const use = new Uint8Array(400);
  use.fill(1, 0, 25);
  use.fill(1, 200, 400);
  const model = fitColourModel(lab, use, 2)!;
  expect(model.cost(...RED) - model.cost(...WHITE)).toBeGreaterThan(1.5);
});

test('only pixels that are set are learnt from, and too few teach nothing', () => {
  const { lab } = clusters([RED, WHITE]);
  const use = new Uint8Array(400);
  use.fill(1, 0, 19);
  expect(fitColourModel(lab, use, 3)).toBeNull();
  use.fill(1, 0, 200);
  const model = fitColourModel(lab, use, 3)!;
  expect(model.cost(...WHITE)).toBeGreaterThan(model.cost(...RED) + 50);
});

test('a plane colour, all pixels alike, makes a model too', () => {
  const lab = new Float32Array(300).map((_, i) => WHITE[i % 3]);
  const model = fitColourModel(lab, new Uint8Array(100).fill(1), 6)!;
  expect(Number.isFinite(model.cost(...WHITE))).toBe(true);
  expect(model.cost(0.9, 0, 0)).toBeGreaterThan(model.cost(...WHITE));
});
