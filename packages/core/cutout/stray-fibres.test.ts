import { oklabPixels } from '../raster/colour';
import { createRgba, type Rgba } from '../raster/pixels';
import { seededRandom } from '../raster/random';
import { fitBackground } from './background';
import { bandAround } from './fine-labels';
import { strayFibres } from './stray-fibres';

const SIDE = 520;
const inBody = (x: number, y: number) => Math.hypot(x - 130, y - 130) < 60;

/** Grey paper with grain, a dark disc on it, and what `draw` says of other pixels. */
function scene(draw: (x: number, y: number) => [number, number, number] | null) {
  const random = seededRandom(7);
  const fine: Rgba = createRgba(SIDE, SIDE);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const grain = (random() - 0.5) * 4;
      const colour = inBody(x, y) ? [60, 40, 30] : (draw(x, y) ?? [200, 200, 198]);
      fine.data.set([...colour.map((v) => v + grain), 255], (y * SIDE + x) * 4);
    }
  const labels = new Uint8Array(SIDE * SIDE);
  for (let i = 0; i < labels.length; i++) labels[i] = inBody(i % SIDE, Math.floor(i / SIDE)) ? 1 : 0;
  const inBand = new Uint8Array(labels.length);
  for (const p of bandAround(labels, SIDE, SIDE, 2.3)) inBand[p] = 1;
  const open = Uint8Array.from(labels, (v, i) => (v || inBand[i] || Math.floor(i / SIDE) > 40 ? 0 : 1));
  const model = fitBackground(oklabPixels(fine), open, SIDE, SIDE, 6);
  const found = strayFibres(fine, labels, inBand, { model, scale: 1, left: 0, top: 0, side: SIDE });
  return new Set(found);
}
const at = (x: number, y: number) => y * SIDE + x;

test('a fibre that stands out from the product is found along its length', () => {
  const found = scene((x, y) => (Math.abs(y - 130) < 2 && x >= 185 && x < 204 ? [70, 50, 40] : null));
  for (let x = 194; x < 200; x++) expect(found.has(at(x, 130))).toBe(true);
  expect([...found].every((p) => Math.abs(Math.floor(p / SIDE) - 130) < 6)).toBe(true);
});

test('grain, and a shadow that falls off softly, are no fibres', () => {
  expect(scene(() => null).size).toBe(0);
  const shadow = (x: number, y: number): [number, number, number] => {
    const far = Math.hypot(x - 140, y - 150) - 60;
    const dark = 1 - 0.35 * Math.exp(-((far / 40) ** 2));
    return [200 * dark, 200 * dark, 198 * dark];
  };
  expect(scene(shadow).size).toBeLessThan(40);
});

test('a line that does not hang together with the product is none of its fibres', () => {
  const apart = scene((x, y) => (Math.abs(y - 40) < 1 && x > 100 && x < 160 ? [70, 50, 40] : null));
  expect(apart.has(at(130, 40))).toBe(false);
});

test('where there is too little backdrop to compare with, nothing is found', () => {
  const fine = createRgba(8, 8);
  const all = new Uint8Array(64).fill(1);
  const model = fitBackground(oklabPixels(fine), all, 8, 8, 3);
  const found = strayFibres(fine, all, new Uint8Array(64), { model, scale: 1, left: 0, top: 0, side: 8 });
  expect(found).toHaveLength(0);
});
