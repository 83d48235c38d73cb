import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { oklabOf } from '../raster/colour';
import { createRgba } from '../raster/pixels';
import { adjustColour, adjustHex, adjustPicture, isAdjusted, UNADJUSTED } from './ground-colour';

const byte = fc.integer({ min: 0, max: 255 });
const rgb = fc.tuple(byte, byte, byte);
const lab = ([r, g, b]: readonly number[]) => {
  const out = new Float64Array(3);
  oklabOf(Math.round(r), Math.round(g), Math.round(b), out);
  return out;
};

test('with nothing changed a colour is what it was', () => {
  expect(isAdjusted(UNADJUSTED)).toBe(false);
  expect(adjustHex('#3a7f21', UNADJUSTED)).toBe('#3a7f21');
  fc.assert(
    fc.property(rgb, (colour) => {
      adjustColour(colour, UNADJUSTED).forEach((v, c) => expect(Math.abs(v - colour[c])).toBeLessThan(0.6));
    }),
  );
});

test('without saturation every colour is a grey of the same lightness', () => {
  fc.assert(
    fc.property(rgb, (colour) => {
      const grey = adjustColour(colour, { hue: 0, saturation: -1, lightness: 0 });
      expect(Math.max(...grey) - Math.min(...grey)).toBeLessThan(1);
      expect(Math.abs(lab(grey)[0] - lab(colour)[0])).toBeLessThan(0.01);
    }),
  );
});

test('lighter and darker keep shades in order, and end in white and black', () => {
  fc.assert(
    fc.property(rgb, rgb, fc.double({ min: -0.9, max: 0.9, noNaN: true }), (a, b, lightness) => {
      fc.pre(lab(a)[0] < lab(b)[0] - 0.02);
      const grey = (c: [number, number, number]) => adjustColour(c, { hue: 0, saturation: -1, lightness });
      expect(grey(a)[0]).toBeLessThan(grey(b)[0]);
    }),
  );
  expect(adjustHex('#8a4413', { hue: 0, saturation: -1, lightness: 1 })).toBe('#ffffff');
  expect(adjustHex('#8a4413', { hue: 0, saturation: 0, lightness: -1 })).toBe('#000000');
});

test('half a turn of hue is the opposite colour, a whole one is none', () => {
  const warm: [number, number, number] = [150, 120, 100];
  const cold = lab(adjustColour(warm, { hue: 180, saturation: 0, lightness: 0 }));
  expect(cold[1]).toBeCloseTo(-lab(warm)[1], 2);
  expect(cold[2]).toBeCloseTo(-lab(warm)[2], 2);
  adjustColour(warm, { hue: 360, saturation: 0, lightness: 0 }).forEach((v, c) =>
    expect(v).toBeCloseTo(warm[c], 0),
  );
});

test('a picture is changed as its colours are, and keeps its transparency', () => {
  const picture = createRgba(16, 16);
  for (let i = 0; i < 256; i++) picture.data.set([i, 255 - i, (i * 7) % 256, i], i * 4);
  const adjust = { hue: 40, saturation: 0.2, lightness: -0.2 };
  const out = adjustPicture(picture, adjust);
  let off = 0;
  for (let i = 0; i < 256; i++) {
    expect(out.data[i * 4 + 3]).toBe(i);
    const wanted = adjustColour([i, 255 - i, (i * 7) % 256], adjust);
    for (let c = 0; c < 3; c++) off += Math.abs(out.data[i * 4 + c] - wanted[c]);
  }
  // Between the table's steps it is near, not exact.
  expect(off / 768).toBeLessThan(3);
});
