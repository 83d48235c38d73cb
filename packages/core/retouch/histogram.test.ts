import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createRgba } from '../raster/pixels';
import { histogram } from './histogram';

const picture = (...pixels: [number, number, number, number][]) => {
  const image = createRgba(pixels.length, 1);
  pixels.forEach((p, i) => image.data.set(p, i * 4));
  return image;
};
const byte = fc.nat(255);

test('values are counted by channel, the fullest bin being 1', () => {
  const { red, green, blue } = histogram(
    picture([8, 100, 200, 255], [9, 100, 200, 255], [250, 100, 200, 255]),
  );
  expect(red[2]).toBeCloseTo(2 / 3, 6);
  expect(red[62]).toBeCloseTo(1 / 3, 6);
  expect(green[25]).toBe(1);
  expect(blue[50]).toBe(1);
});

test('what is clipped is told as a share of the pixels, dark and light by themselves', () => {
  const { clippedDark, clippedLight } = histogram(
    picture([0, 40, 40, 255], [255, 0, 9, 255], [80, 80, 80, 255], [90, 90, 90, 255]),
  );
  expect(clippedDark).toBe(0.5);
  expect(clippedLight).toBe(0.25);
});

test('clear pixels do not count, and a picture of nothing is no error', () => {
  const nothing = histogram(picture([0, 0, 0, 0], [255, 255, 255, 127]));
  expect([nothing.clippedDark, nothing.clippedLight]).toEqual([0, 0]);
  expect(nothing.red.every((v) => v === 0)).toBe(true);
});

test('every histogram has 64 bins a channel between 0 and 1', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(byte, byte, byte, byte), { minLength: 1, maxLength: 60 }), (pixels) => {
      const h = histogram(picture(...pixels));
      for (const bins of [h.red, h.green, h.blue]) {
        expect(bins).toHaveLength(64);
        expect(Math.min(...bins)).toBeGreaterThanOrEqual(0);
        expect(Math.max(...bins)).toBeLessThanOrEqual(1);
      }
    }),
  );
});
