import { createPlane, createRgba } from '../raster/pixels';
import { histogram } from './histogram';
import { tidyMap, tidyPhoto, tidyPlane, UNTIDIED, untidyPlane } from './tidy';

const grey = (v: number, w = 40, h = 30) => {
  const image = createRgba(w, h);
  for (let j = 0; j < image.data.length; j++) image.data[j] = j % 4 === 3 ? 255 : v;
  return image;
};

test('exposure is in stops of light, and nothing asked for leaves the photo itself', () => {
  const photo = grey(100);
  expect(tidyPhoto(photo, UNTIDIED)).toBe(photo);
  // One stop more of sRGB 100 (12.7 percent light) is 25.4 percent, sRGB 138.
  expect(tidyPhoto(photo, { ...UNTIDIED, exposure: 1 }).data[0]).toBe(138);
  expect(photo.data[0]).toBe(100);
});

test('a picked neutral comes out grey, contrast turns about middle grey, saturation at -1 is grey', () => {
  const cast = createRgba(4, 4);
  for (let i = 0; i < 16; i++) cast.data.set([180, 160, 130, 255], i * 4);
  const [r, g, b] = tidyPhoto(cast, { ...UNTIDIED, neutral: '#b4a082' }).data;
  expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThanOrEqual(1);
  expect(tidyPhoto(grey(200), { ...UNTIDIED, contrast: 0.5 }).data[0]).toBeGreaterThan(205);
  expect(tidyPhoto(grey(60), { ...UNTIDIED, contrast: 0.5 }).data[0]).toBeLessThan(50);
  const plain = tidyPhoto(cast, { ...UNTIDIED, saturation: -1 }).data;
  expect(plain[0]).toBe(plain[2]);
});

test('local contrast deepens a spot against its surroundings and keeps the whole', () => {
  const photo = grey(150, 200, 200);
  for (let y = 90; y < 110; y++)
    for (let x = 90; x < 110; x++) photo.data.set([110, 110, 110], (y * 200 + x) * 4);
  const { data } = tidyPhoto(photo, { ...UNTIDIED, localContrast: 1 });
  expect(data[(100 * 200 + 100) * 4]).toBeLessThan(100);
  expect(Math.abs(data[(20 * 200 + 20) * 4] - 150)).toBeLessThan(6);
});

test('a turned and cropped photo shows each place where the map says', () => {
  const photo = grey(20, 200, 160);
  for (let y = 60; y < 70; y++)
    for (let x = 120; x < 130; x++) photo.data.set([250, 250, 250], (y * 200 + x) * 4);
  const tidy = { ...UNTIDIED, straighten: 12, crop: { x: 30, y: 10, width: 150, height: 120 } };
  const out = tidyPhoto(photo, tidy);
  const { toTidied, toPhoto } = tidyMap(200, 160, tidy);
  const [x, y] = toTidied(125, 65);
  expect([out.width, out.height]).toEqual([150, 120]);
  expect(out.data[(Math.floor(y) * 150 + Math.floor(x)) * 4]).toBe(250);
  expect(toPhoto(x, y)[0]).toBeCloseTo(125, 6);
});

test('a plane kept over the photo lies on the same things however the photo is turned and cropped', () => {
  const photo = { width: 200, height: 160 };
  const kept = createPlane(100, 80);
  for (let y = 30; y < 36; y++) for (let x = 60; x < 66; x++) kept.data[y * 100 + x] = 1;
  const tidy = { ...UNTIDIED, straighten: -9, crop: { x: 40, y: 20, width: 140, height: 120 } };
  const over = tidyPlane(kept, photo, tidy);
  const { toTidied } = tidyMap(200, 160, tidy);
  const at = (px: number, py: number) => {
    const [x, y] = toTidied(px, py);
    return over.data[Math.floor(y) * 140 + Math.floor(x)];
  };
  expect([over.width, over.height, at(126, 66), at(112, 66)]).toEqual([140, 120, 1, 0]);
  const back = untidyPlane(over, photo, tidy);
  expect([back.width, back.data[66 * 200 + 126], back.data[66 * 200 + 112]]).toEqual([200, 1, 0]);
});

test('the histogram counts what is clipped', () => {
  const photo = grey(100, 10, 10);
  for (let i = 0; i < 25; i++) photo.data.set([255, 255, 255], i * 4);
  const { clippedLight, clippedDark, red } = histogram(photo);
  expect([clippedLight, clippedDark]).toEqual([0.25, 0]);
  expect(red[25]).toBe(1);
});
