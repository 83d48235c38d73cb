import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createRgba } from '../raster/pixels';
import { bandAround, discsAround, edgeContrast, scaleLabels, settleLabels } from './fine-labels';

const [W, H] = [48, 36];
const disc = (cx: number, cy: number, r: number) =>
  Uint8Array.from({ length: W * H }, (_, i) =>
    Math.hypot((i % W) - cx, Math.floor(i / W) - cy) <= r ? 1 : 0,
  );

test('a band holds every pixel within its radius of the edge, each once', () => {
  const labels = disc(24, 18, 9);
  const band = bandAround(labels, W, H, 3);
  expect(new Set(band).size).toBe(band.length);
  for (const p of band) {
    const far = Math.abs(Math.hypot((p % W) - 24, Math.floor(p / W) - 18) - 9.5);
    expect(far).toBeLessThan(4.6);
  }
  const held = new Set(band);
  for (let i = 0; i < W * H; i++)
    if (Math.abs(Math.hypot((i % W) - 24, Math.floor(i / W) - 18) - 9.5) < 2) expect(held.has(i)).toBe(true);
});

test('where nothing changes there is no band', () => {
  expect(bandAround(new Uint8Array(W * H), W, H, 5)).toHaveLength(0);
});

test('discs stay within the picture and leave out what is taken', () => {
  fc.assert(
    fc.property(
      fc.array(fc.nat(W * H - 1), { maxLength: 8 }),
      fc.double({ min: 0.5, max: 6, noNaN: true }),
      (centres, radius) => {
        const taken = new Uint8Array(W * H);
        taken[0] = 1;
        const found = discsAround(centres, W, H, radius, taken);
        expect(found.includes(0)).toBe(false);
        for (const p of found) {
          const near = centres.some(
            (c) => Math.hypot((c % W) - (p % W), Math.floor(c / W) - Math.floor(p / W)) <= radius + 1e-9,
          );
          expect(near).toBe(true);
          expect(taken[p]).toBe(1);
        }
      },
    ),
  );
});

test('labels scaled up and down again are as they were', () => {
  const labels = disc(20, 15, 8);
  const up = scaleLabels(labels, W, H, W * 3, H * 3);
  expect([...scaleLabels(up, W * 3, H * 3, W, H)]).toEqual([...labels]);
});

/** A dark disc on pale ground. */
function photoOf(labels: Uint8Array) {
  const photo = createRgba(W, H);
  labels.forEach((v, i) => photo.data.set(v ? [60, 70, 90, 255] : [228, 226, 220, 255], i * 4));
  return photo;
}

test('a coarse outline settles on the edge that the picture has', () => {
  const truth = disc(24, 18, 10);
  const coarse = disc(25, 18, 9);
  const settled = settleLabels(photoOf(truth), coarse, 4);
  expect(settled.filter((v, i) => v !== truth[i]).length).toBeLessThan(4);
  expect(coarse.filter((v, i) => v !== truth[i]).length).toBeGreaterThan(40);
});

test('what is farther off than the band stays as it was', () => {
  const truth = disc(24, 18, 14);
  const coarse = disc(24, 18, 5);
  const settled = settleLabels(photoOf(truth), coarse, 3);
  const far = (i: number) => Math.hypot((i % W) - 24, Math.floor(i / W) - 18);
  settled.forEach((v, i) => {
    if (far(i) < 0.9) expect(v).toBe(1);
    if (far(i) > 9.5) expect(v).toBe(0);
  });
});

test('contrast along a hard edge is that of its two colours, and none on plain ground', () => {
  const labels = disc(24, 18, 10);
  const photo = photoOf(labels);
  expect(edgeContrast(photo, bandAround(labels, W, H, 1))).toBeGreaterThan(5000);
  expect(edgeContrast(photo, Int32Array.of(0, 1, 2))).toBe(0);
  expect(edgeContrast(photo, new Int32Array(0))).toBe(0);
});
