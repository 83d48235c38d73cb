import { expect, test } from '@jest/globals';
import { converter, parse } from 'culori';
import fc from 'fast-check';
import { hexOfOklch, oklchOf } from './oklch';

const oracle = converter('oklch');
const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);

test('lightness, chroma and hue are those of CSS', () => {
  fc.assert(
    fc.property(hex, (colour) => {
      const own = oklchOf(colour);
      const { l, c, h } = oracle(parse(colour)!);
      expect(own.l).toBeCloseTo(l, 3);
      expect(own.c).toBeCloseTo(c, 3);
      if (c > 0.02) expect(Math.abs(((own.h - h! + 540) % 360) - 180)).toBeLessThan(0.5);
    }),
  );
});

test('a colour goes there and back unchanged', () => {
  fc.assert(fc.property(hex, (colour) => expect(hexOfOklch(oklchOf(colour))).toBe(colour)));
});

test('a colour next to a grey is not taken for that grey', () => {
  for (let grey = 0; grey < 255; grey++)
    for (const [r, g, b] of [
      [0, 0, 1],
      [0, 1, 0],
      [1, 0, 0],
      [1, 1, 0],
      [0, 1, 1],
      [1, 0, 1],
    ]) {
      const near = `#${[grey + r, grey + g, grey + b].map((v) => v.toString(16).padStart(2, '0')).join('')}`;
      expect(hexOfOklch(oklchOf(near))).toBe(near);
    }
});

test('a colour that cannot be shown keeps its lightness and hue and loses chroma', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 0.95, noNaN: true }),
      fc.double({ min: 0.2, max: 0.4, noNaN: true }),
      fc.double({ min: 0, max: 360, noNaN: true }),
      (l, c, h) => {
        const shown = oklchOf(hexOfOklch({ l, c, h }));
        expect(Math.abs(shown.l - l)).toBeLessThan(0.012);
        expect(shown.c).toBeLessThan(c + 0.01);
        if (shown.c > 0.05) expect(Math.abs(((shown.h - h + 540) % 360) - 180)).toBeLessThan(4);
      },
    ),
  );
});
