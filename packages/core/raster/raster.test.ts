import { DerivedCache } from '../paint/derived-cache';
import { ssim } from './ssim';
import { blur } from './blur';
import { components } from './components';
import { grow, squaredDistance } from './distance';
import { boundsAbove, createPlane, createRgba } from './pixels';
import { resize } from './resample';
import { seededRandom } from './random';

test('reducing does not let the colour of clear pixels bleed into the product', () => {
  const image = createRgba(64, 64);
  for (let i = 0; i < 64 * 64; i++) {
    const inside = i % 64 >= 21;
    image.data.set(inside ? [200, 40, 30, 255] : [0, 255, 0, 0], i * 4);
  }
  const small = resize(image, 13, 13);
  const seen = Array.from({ length: 13 * 13 }, (_, i) => [...small.data.subarray(i * 4, i * 4 + 4)]).filter(
    ([, , , a]) => a > 0,
  );
  // Two thirds of the picture are opaque, and the edge partly so.
  expect(seen.length).toBeGreaterThanOrEqual(13 * 9);
  for (const [r, g, b] of seen) expect([r, g, b]).toEqual([200, 40, 30]);
});

test('resizing keeps the mean of a picture', () => {
  const next = seededRandom(5);
  const image = createRgba(120, 90);
  for (let j = 0; j < image.data.length; j++) image.data[j] = j % 4 === 3 ? 255 : next() * 255;
  const mean = (d: Uint8ClampedArray) =>
    d.reduce((s, v, j) => (j % 4 === 3 ? s : s + v), 0) / (d.length * 0.75);
  expect(Math.abs(mean(resize(image, 30, 22).data) - mean(image.data))).toBeLessThan(1);
});

test('a blurred point has the asked spread and loses nothing', () => {
  for (const sigma of [2, 5, 11]) {
    const plane = createPlane(161, 161);
    plane.data[80 * 161 + 80] = 1;
    const { data } = blur(plane, sigma);
    let sum = 0;
    let variance = 0;
    for (let y = 0; y < 161; y++)
      for (let x = 0; x < 161; x++) {
        sum += data[y * 161 + x];
        variance += data[y * 161 + x] * (x - 80) ** 2;
      }
    expect(sum).toBeCloseTo(1, 3);
    expect(Math.abs(Math.sqrt(variance) - sigma) / sigma).toBeLessThan(0.1);
  }
});

test('distance and growth agree with trying every pair of pixels', () => {
  const next = seededRandom(11);
  const [w, h] = [23, 17];
  const set = Uint8Array.from({ length: w * h }, () => (next() < 0.06 ? 1 : 0));
  const apart = (i: number, j: number) =>
    ((i % w) - (j % w)) ** 2 + (Math.floor(i / w) - Math.floor(j / w)) ** 2;
  const nearest = (i: number, wanted: number) =>
    Math.min(...Array.from(set, (v, j) => (v === wanted ? apart(i, j) : Infinity)));
  const d = squaredDistance(set, w, h);
  const grown = grow(set, w, h, 2.3);
  const shrunk = grow(grown, w, h, -1);
  for (let i = 0; i < w * h; i++) {
    expect(d[i]).toBe(nearest(i, 1));
    expect(grown[i]).toBe(nearest(i, 1) <= 2.3 * 2.3 ? 1 : 0);
    const outside = Math.min(...Array.from(grown, (v, j) => (v ? Infinity : apart(i, j))));
    expect([i, shrunk[i]]).toEqual([i, outside > 1 ? 1 : 0]);
  }
});

test('connected groups are told apart and know whether they touch the border', () => {
  const art = ['#....', '#.##.', '..##.', '.....'].join('');
  const set = Uint8Array.from(art, (c) => (c === '#' ? 1 : 0));
  expect(components(set, 5, 4).list).toEqual([
    { label: 1, area: 2, touchesBorder: true },
    { label: 2, area: 4, touchesBorder: false },
  ]);
});

test('bounds hold exactly what lies above the threshold', () => {
  const plane = createPlane(9, 7);
  plane.data[2 * 9 + 3] = 0.6;
  plane.data[5 * 9 + 7] = 0.2;
  expect(boundsAbove(plane, 0.5)).toEqual({ x: 3, y: 2, width: 1, height: 1 });
  expect(boundsAbove(plane, 0.1)).toEqual({ x: 3, y: 2, width: 5, height: 4 });
  expect(boundsAbove(plane, 0.7)).toBeNull();
});

test('SSIM is 1 for like pictures, less for what lost its structure, and counts only where it is asked', () => {
  const a = createRgba(64, 64);
  const next = seededRandom(5);
  for (let i = 0; i < a.data.length; i += 4) a.data.set([next() * 255, next() * 255, next() * 255, 255], i);
  expect(ssim(a, a)).toBeCloseTo(1, 6);
  const flat = createRgba(64, 64);
  flat.data.set(a.data);
  for (let y = 0; y < 64; y++) for (let x = 32; x < 64; x++) flat.data.set([128, 128, 128], (y * 64 + x) * 4);
  expect(ssim(a, flat)).toBeLessThan(0.7);
  const left = Uint8Array.from({ length: 64 * 64 }, (_, i) => (i % 64 < 28 ? 1 : 0));
  expect(ssim(a, flat, left)).toBeGreaterThan(0.95);
});

test('kept values go, the oldest first, once they hold too much; the one just made stays', () => {
  const cache = new DerivedCache();
  let made = 0;
  const large = (key: string) =>
    cache.value(key, () => {
      made++;
      return { plane: { data: new Float32Array(30_000_000) } };
    });
  large('a');
  large('b');
  large('a');
  large('c');
  expect(made).toBe(3);
  large('a');
  expect(made).toBe(3);
  large('b');
  expect(made).toBe(4);
});
