import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fontFiles, fontsFor } from './catalogue';
import { fitText, layoutText, shapeText, type TextStyle } from './layout-text';
import { glyphsOfLine } from './shape-text';
import { readTypeface, type Typeface } from './typeface';

const bytesOf = (file: string) => {
  const b = readFileSync(join(__dirname, 'fonts', file));
  return b.buffer.slice(b.byteOffset, b.byteOffset + b.byteLength);
};
const load = (id: string) => readTypeface(id, fontFiles(id).map(bytesOf));
const facesFor = (font: string, text: string) => Promise.all(fontsFor(font, text).map(load));
let face: Typeface[];
beforeAll(async () => {
  face = [await load('hanken-grotesk-600')];
});
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
  const [latin, more] = face[0].fonts;
  expect([latin.has(0x151), more.has(0x151)]).toEqual([false, true]);
});

test('kerning draws letters together and ligatures join them, unless letters are spaced out', async () => {
  const bitter = [await load('alegreya-sans-500')];
  const width = (t: string, tracking = 0) =>
    layoutText(t, bitter, { ...style, tracking }, 900).lines[0].width;
  expect(width('AV')).toBeLessThan(width('A') + width('V') - 1);
  const glyphs = (tracking: number) => shapeText('fi', bitter, tracking).paragraphs[0].runs[0].glyphs.length;
  expect(glyphs(0)).toBe(1);
  expect(glyphs(50)).toBe(2);
});

test('right-to-left words stand on the right, read from there, and their letters are joined', async () => {
  const text = 'שלום 24 טופ';
  const faces = await facesFor('hanken-grotesk-600', text);
  const [line] = layoutText(text, faces, { ...style, align: 'start' }, 500).lines;
  expect(line.x + line.width).toBeCloseTo(500, 5);
  const { paragraphs } = shapeText(text, faces);
  const order = glyphsOfLine(paragraphs[0], 0, text.length).map((g) => text[g.cluster]);
  // The last word comes first from the left; the number keeps its own order.
  expect(order.join('')).toBe([...'פוט', ' ', ...'24', ' ', ...'םולש'].join(''));
  const arabic = await facesFor('hanken-grotesk-600', 'سسس');
  const joined = shapeText('سسس', arabic).paragraphs[0].runs[0].glyphs.map((g) => g.id);
  expect(new Set(joined).size).toBe(3);
});

test('marks stand on their letters, emoji are drawn, and what no font has is told', async () => {
  const text = 'e\u0301 नमस्ते 🌱 漢';
  const faces = await facesFor('hanken-grotesk-600', text);
  const shaped = shapeText(text, faces);
  expect(shaped.unprintable).toEqual(['漢']);
  const width = (t: string) => layoutText(t, faces, style, 900).width;
  expect(width('e\u0301')).toBeCloseTo(width('e'), 1);
  expect(layoutText('🌱', faces, style, 900).commands.length).toBeGreaterThan(10);
});

test('four thousand characters are set to the smallest size, cut at a word with an ellipsis, and counted', () => {
  const long = 'Stoneware planter with drip tray '.repeat(122);
  const began = fitText(long, face, style, 400, 200, 12);
  expect(began.size).toBeCloseTo(12, 1);
  expect(began.height).toBeLessThanOrEqual(200.2);
  expect(began.lines.at(-1)!.text).toMatch(/\w…$/);
  const shown = began.lines.reduce((n, l) => n + l.text.length, 0);
  expect(began.cut).toBeGreaterThan(long.length - shown - 60);
});

test('a broken font file is told apart', async () => {
  await expect(readTypeface('x', [new ArrayBuffer(30)])).rejects.toThrow(/font "x" cannot be read/);
  const half = bytesOf('fraunces-latin-600-normal.woff').slice(0, 9000);
  await expect(readTypeface('y', [half])).rejects.toThrow(/font "y" cannot be read/);
});
