import { converter, differenceCiede2000, wcagContrast } from 'culori';
import fc from 'fast-check';
import sharp from 'sharp';
import {
  contrastRatio,
  fromLinear,
  fromOklab,
  LINEAR,
  oklabOf,
  oklabPixels,
  parseHex,
  relativeLuminance,
} from '@scenograph/core/raster/colour';
import { blur } from '@scenograph/core/raster/blur';
import { colourTable, throughTable } from '@scenograph/core/raster/colour-table';
import { psnr } from '@scenograph/core/raster/compare';
import { paletteOf } from '@scenograph/core/raster/palette';
import { createPlane, createRgba, type Rgba } from '@scenograph/core/raster/pixels';
import { readColour } from '@scenograph/core/raster/read-colour';
import { resize } from '@scenograph/core/raster/resample';
import { encodePicture } from './encode';
import { decodePicture } from './read-picture';

/** Our own computation held against other people's: culori for colour, sharp for pixels. */
const byte = fc.integer({ min: 0, max: 255 });
const colour = fc.tuple(byte, byte, byte);
const hex = ([r, g, b]: readonly number[]) =>
  `#${[r, g, b].map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;
const oklab = converter('oklab');

describe('colour, against culori', () => {
  test('contrast ratios (WCAG)', () => {
    fc.assert(
      fc.property(colour, colour, (a, b) => {
        const ours = contrastRatio(relativeLuminance(...a), relativeLuminance(...b));
        expect(ours).toBeCloseTo(wcagContrast(hex(a), hex(b)), 3);
      }),
    );
  });

  test('OKLab, there and back', () => {
    const out = new Float64Array(3);
    const back = new Float64Array(3);
    fc.assert(
      fc.property(colour, ([r, g, b]) => {
        oklabOf(r, g, b, out);
        const theirs = oklab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
        expect(out[0]).toBeCloseTo(theirs.l, 4);
        expect(out[1]).toBeCloseTo(theirs.a, 4);
        expect(out[2]).toBeCloseTo(theirs.b, 4);
        fromOklab(out[0], out[1], out[2], back);
        [r, g, b].forEach((v, i) => expect(Math.abs(back[i] - v)).toBeLessThan(0.6));
      }),
    );
  });

  test('a whole picture in OKLab is what its pixels are', () => {
    const picture = createRgba(3, 1);
    picture.data.set([255, 0, 0, 255, 12, 200, 80, 128, 0, 0, 0, 0]);
    const all = oklabPixels(picture);
    const one = new Float64Array(3);
    oklabOf(12, 200, 80, one);
    expect([...all.slice(3, 6)].map((v) => v.toFixed(5))).toEqual([...one].map((v) => v.toFixed(5)));
  });

  test('linear light and bytes turn into each other', () => {
    for (let v = 0; v < 256; v++) expect(Math.abs(fromLinear(LINEAR[v]) - v)).toBeLessThan(1e-3);
    expect([fromLinear(-1), fromLinear(2)]).toEqual([0, 255]);
  });

  test('colours are read as people write them', () => {
    expect(['#ABC', 'abc', 'rgb(255 0 0)', 'hsl(120 100% 25%)', 'rebeccapurple'].map(readColour)).toEqual([
      '#aabbcc',
      '#aabbcc',
      '#ff0000',
      '#008000',
      '#663399',
    ]);
    expect(['', 'teal-ish', '#12', 'rgb(1,2'].map(readColour)).toEqual([null, null, null, null]);
    fc.assert(fc.property(colour, (c) => expect(readColour(hex(c))).toBe(hex(c))));
    expect(() => parseHex('#fff')).toThrow('#rrggbb');
  });

  test('a picture’s palette is made of its colours, the most frequent first', () => {
    const picture = createRgba(100, 100);
    const parts = [
      [200, 40, 40],
      [30, 60, 160],
      [240, 235, 220],
    ];
    for (let i = 0; i < 10_000; i++)
      picture.data.set([...parts[i < 6000 ? 0 : i < 9000 ? 1 : 2], 255], i * 4);
    const difference = differenceCiede2000();
    const found = paletteOf(picture, 3);
    expect(found).toHaveLength(3);
    found.forEach((c, i) => expect(difference(c, hex(parts[i]))).toBeLessThan(2));
    expect(paletteOf(createRgba(10, 10))).toEqual([]);
  });

  test('a table of colours changes as the function it was made of, between its steps too', () => {
    const side = 18;
    const table = colourTable(side, (r, g, b, out) => {
      out[0] = 255 - r;
      out[1] = 0.5 * g + 20;
      out[2] = b;
    });
    const picture = createRgba(256, 1);
    for (let i = 0; i < 256; i++) picture.data.set([i, 255 - i, (i * 7) % 256, i], i * 4);
    const { data } = throughTable(picture, table, side);
    for (let i = 1; i < 256; i++) {
      expect(Math.abs(data[i * 4] - (255 - i))).toBeLessThanOrEqual(1);
      expect(Math.abs(data[i * 4 + 1] - (0.5 * (255 - i) + 20))).toBeLessThanOrEqual(1);
      expect(data[i * 4 + 3]).toBe(i);
    }
  });
});

/** A photo-like picture: soft waves, an edge and a grain. */
function scenery(width: number, height: number): Rgba {
  const picture = createRgba(width, height);
  let noise = 7;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      noise = (noise * 1103515245 + 12345) & 0x7fffffff;
      const grain = (noise % 13) - 6;
      const edge = x > width * 0.6 ? 60 : 0;
      picture.data.set(
        [
          120 + 60 * Math.sin(x / 17) + edge + grain,
          110 + 50 * Math.cos(y / 23) + grain,
          90 + edge + grain,
          255,
        ],
        (y * width + x) * 4,
      );
    }
  return picture;
}

describe('pixels, against sharp', () => {
  test.each([
    [300, 200, 150, 100],
    [300, 200, 100, 80],
    [301, 207, 120, 83],
    [640, 480, 64, 48],
  ])('%i x %i reduced to %i x %i', async (w, h, width, height) => {
    const picture = scenery(w, h);
    const theirs = await sharp(Buffer.from(picture.data), { raw: { width: w, height: h, channels: 4 } })
      .resize(width, height, { fit: 'fill', kernel: 'linear' })
      .raw()
      .toBuffer();
    const data = new Uint8ClampedArray(theirs);
    expect(psnr(resize(picture, width, height), { width, height, data })).toBeGreaterThan(36);
  });

  test('an enlarged picture keeps its colours and its shape', async () => {
    const picture = scenery(80, 60);
    const large = resize(picture, 240, 180);
    expect(psnr(resize(large, 80, 60), picture)).toBeGreaterThan(34);
    expect(() => resize(picture, 0, 10)).toThrow('at least 1');
  });

  test('blur', async () => {
    const picture = scenery(200, 120);
    const grey = createPlane(200, 120);
    for (let i = 0; i < grey.data.length; i++) grey.data[i] = picture.data[i * 4] / 255;
    for (const sigma of [1.5, 4]) {
      const theirs = await sharp(Buffer.from(Uint8Array.from(grey.data, (v) => Math.round(v * 255))), {
        raw: { width: 200, height: 120, channels: 1 },
      })
        .blur(sigma)
        .toColourspace('b-w')
        .raw()
        .toBuffer();
      const ours = blur(grey, sigma);
      let sum = 0;
      let n = 0;
      // Their border is treated otherwise.
      for (let y = 15; y < 105; y++)
        for (let x = 15; x < 185; x++, n++)
          sum += Math.abs(ours.data[y * 200 + x] * 255 - theirs[y * 200 + x]);
      expect(sum / n).toBeLessThan(1.5);
    }
  });

  test('what is written without loss is read back to the byte, with its transparency', async () => {
    const picture = scenery(64, 48);
    for (let i = 0; i < 64 * 48; i++) picture.data[i * 4 + 3] = (i * 5) % 256;
    const { bytes } = await encodePicture(picture, 'png');
    const back = await decodePicture(bytes);
    for (let i = 0; i < 64 * 48; i++) {
      expect(back.data[i * 4 + 3]).toBe(picture.data[i * 4 + 3]);
      if (picture.data[i * 4 + 3]) expect(back.data[i * 4]).toBe(picture.data[i * 4]);
    }
  });

  test.each(['jpeg', 'webp', 'avif'] as const)(
    '%s keeps a picture within what is seen, and its density',
    async (format) => {
      const picture = scenery(160, 120);
      const { bytes } = await encodePicture(picture, format, { density: 300 });
      const facts = await sharp(bytes).metadata();
      expect([facts.width, facts.height]).toEqual([160, 120]);
      if (format === 'jpeg') expect(facts.density).toBe(300);
      expect(psnr(await decodePicture(bytes), picture)).toBeGreaterThan(30);
    },
  );
});
