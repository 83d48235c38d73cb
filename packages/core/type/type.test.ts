import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fontEntry } from './catalogue';
import { fitText, layoutText, type TextStyle } from './layout-text';
import { readTypeface } from './typeface';

const face = (() => {
  const files = fontEntry('hanken-grotesk-600').files.map((f) => {
    const b = readFileSync(join(__dirname, 'fonts', f));
    return b.buffer.slice(b.byteOffset, b.byteOffset + b.byteLength) as ArrayBuffer;
  });
  return readTypeface('hanken-grotesk-600', files);
})();
const style: TextStyle = { size: 40, leading: 1.2, tracking: 0, align: 'left' };
const lines = (text: string, width: number) => layoutText(text, face, style, width).lines.map((l) => l.text);

test('lines break at spaces and hyphens, and where the text says so', () => {
  expect(lines('New glaze for autumn', 225)).toEqual(['New glaze', 'for autumn']);
  expect(lines('hand-thrown', 130)).toEqual(['hand-', 'thrown']);
  expect(lines('one\n\ntwo', 900)).toEqual(['one', '', 'two']);
});

test('no line is wider than asked, even where one word is', () => {
  const layout = layoutText('Unverwechselbarkeitsmerkmale', face, style, 140);
  expect(layout.lines.length).toBeGreaterThan(2);
  for (const line of layout.lines) expect(line.width).toBeLessThanOrEqual(140);
  expect(layout.lines.map((l) => l.text).join('')).toBe('Unverwechselbarkeitsmerkmale');
});

test('alignment places lines by their measured width; tracking widens them', () => {
  const [right] = layoutText('£24', face, { ...style, align: 'right' }, 300).lines;
  expect(right.x + right.width).toBeCloseTo(300, 5);
  const wide = layoutText('£24', face, { ...style, tracking: 100 }, 300).lines[0].width;
  expect(wide - right.width).toBeCloseTo(2 * 4, 5);
});

test('text too long for its box becomes smaller and fits; short text keeps its size', () => {
  const long = fitText('Stoneware planter with drip tray', face, style, 200, 90);
  expect(long.size).toBeLessThan(40);
  expect(long.height).toBeLessThanOrEqual(90.1);
  expect(fitText('Pot', face, style, 200, 90).size).toBe(40);
});

test('letters beyond the first file come from the next one', () => {
  const width = (t: string) => layoutText(t, face, style, 900).lines[0].width;
  expect(width('ő')).toBeGreaterThan(0.4 * width('o'));
  expect(face.fonts[0].charToGlyphIndex('ő')).toBe(0);
  expect(face.fonts[1].charToGlyphIndex('ő')).toBeGreaterThan(0);
});

test('a broken font file is told apart', () => {
  expect(() => readTypeface('x', [new ArrayBuffer(30)])).toThrow(/font "x" cannot be read/);
});
