import { inflateSync } from 'node:zlib';
import { data } from '@scenograph/core/shot/one-of-each.fixture';
import { emptyShot } from '@scenograph/core/shot/document';
import { newLogo, newShape } from '@scenograph/core/shot/overlay-starters';
import { resolveBase, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { newBackdrop, newProduct, newText } from '@scenograph/core/shot/starters';
import type { ShotElement } from '@scenograph/core/elements/index';
import type { Trim } from '@scenograph/core/shot/trim';
import sharp from 'sharp';
import { createPainter } from './painter';
import { shotPdf, type ShotPdfOptions } from './shot-pdf';

const FRAME = { width: 1818, height: 1310 };
/** A postcard of 148 by 105 mm. */
const TRIM: Trim = { unit: 'mm', dpi: 300, bleedMm: 3, safeMm: 5 };
const PLAIN: ShotPdfOptions = {
  ...{ title: 'Postcard', trim: TRIM, density: 150 },
  ...{ area: 'bleed', marks: false, words: 'text' },
};
const load = () =>
  sharp({ create: { width: 600, height: 800, channels: 4, background: '#2a7a6a' } })
    .png()
    .toBuffer();
const painter = createPainter(load);

const text = (over: object): ShotElement => ({ ...newText('text', 'Fine {title}', FRAME), ...over });
const backdrop = newBackdrop('backdrop', FRAME, '#f2e8d8');
const shot = (...elements: ShotElement[]): ResolvedShot =>
  resolveBase({ ...emptyShot(FRAME.width, FRAME.height), elements }, data);

/** A PDF's page: its boxes in millimetres, what its content says, its fonts and how many pictures it holds. */
async function pageOf(resolved: ResolvedShot, options: Partial<ShotPdfOptions> = {}) {
  const bytes = await shotPdf(painter, resolved, load, { ...PLAIN, ...options });
  const file = bytes.toString('latin1');
  const box = (name: string) =>
    new RegExp(`/${name} \\[([^\\]]+)\\]`)
      .exec(file)![1]
      .trim()
      .split(/\s+/)
      .map((v) => (Number(v) / 72) * 25.4);
  const streams: string[] = [];
  for (const [, from] of [...file.matchAll(/stream\r?\n/g)].map((m) => [m, m.index + m[0].length] as const)) {
    const end = file.indexOf('endstream', from);
    try {
      streams.push(inflateSync(bytes.subarray(from, end)).toString('latin1'));
    } catch {
      // Pictures and fonts are not all deflated.
    }
  }
  const content = streams.find((s) => /\bcm\b/.test(s) && /\bre\b|\bm\b/.test(s)) ?? '';
  const pictures = (content.match(/\/I\d+ Do/g) ?? []).length;
  return { file, box, content, pictures, fonts: (file.match(/\/FontFile2|\/FontFile3/g) ?? []).length };
}

test('a page is as large as its picture, its boxes are where it is cut and where its bleed ends', async () => {
  const { file, box } = await pageOf(shot(backdrop));
  expect(file.startsWith('%PDF-1.7')).toBe(true);
  const [, , width, height] = box('MediaBox');
  expect(width).toBeCloseTo(153.92, 1);
  expect(height).toBeCloseTo(110.91, 1);
  const [left, bottom, right, top] = box('TrimBox');
  expect(right - left).toBeCloseTo(148, 1);
  expect(top - bottom).toBeCloseTo(105, 1);
  expect(left).toBeCloseTo(2.96, 1);
  expect(box('BleedBox')).toEqual(box('MediaBox'));
  const cut = await pageOf(shot(backdrop), { area: 'trim' });
  expect(cut.box('MediaBox')[2]).toBeCloseTo(148, 1);
  expect(cut.box('TrimBox')).toEqual(cut.box('MediaBox'));
});

test('crop marks make room around the page and leave its boxes as large as they are', async () => {
  const { box, content } = await pageOf(shot(backdrop), { marks: true });
  const [, , width] = box('MediaBox');
  expect(width - 153.92).toBeCloseTo((2 * 21 * 25.4) / 72, 1);
  const [left, , right] = box('TrimBox');
  expect(right - left).toBeCloseTo(148, 1);
  // Two at each corner.
  expect(content.match(/ l\nS/g)).toHaveLength(8);
  expect((await pageOf(shot(backdrop))).content.match(/ l\nS/g)).toBeNull();
});

test('words in front are text in an embedded font, or outlines', async () => {
  const words = shot(backdrop, text({}));
  const written = await pageOf(words);
  expect(written.content).toMatch(/\bTJ\b/);
  expect(written.fonts).toBe(1);
  expect(written.pictures).toBe(0);
  const outlined = await pageOf(words, { words: 'outlines' });
  expect(outlined.content).not.toMatch(/\bTJ\b/);
  expect(outlined.fonts).toBe(0);
  expect((outlined.content.match(/ c\n/g) ?? []).length).toBeGreaterThan(40);
});

test('a panel behind words is a shape, and they stay text', async () => {
  const plate = { colour: '#ffffff', opacity: 0.8, padding: 20, radius: 10 };
  const { content, pictures } = await pageOf(shot(backdrop, text({ plate })));
  expect(content).toMatch(/\bTJ\b/);
  expect(content.match(/\bf\n/g)).toHaveLength(2);
  expect(pictures).toBe(0);
});

test('words that run from right to left are kept as outlines', async () => {
  const { content } = await pageOf(shot(backdrop, text({ text: 'שלום' })));
  expect(content).not.toMatch(/\bTJ\b/);
});

test('what lies below a product is one picture with it, what lies in front stays in vectors', async () => {
  const product = newProduct('product', data, FRAME, 'stand');
  const { content, pictures } = await pageOf(
    shot(backdrop, newShape('panel', FRAME, 'panel'), product, text({})),
  );
  expect(pictures).toBe(1);
  expect(content).toMatch(/\bTJ\b/);
});

test('what needs pixels takes what lies below it along: effects, blending, what is seen through', async () => {
  const shape = newShape('panel', FRAME, 'panel');
  const dropShadow = { x: 4, y: 4, blur: 8, spread: 0, colour: '#000000', opacity: 0.5 };
  for (const change of [
    { blend: 'multiply' },
    { opacity: 0.5 },
    { effects: { ...shape.effects, dropShadow } },
  ]) {
    const { pictures } = await pageOf(shot(backdrop, { ...shape, ...change } as ShotElement, text({})));
    expect(pictures).toBe(1);
  }
  expect((await pageOf(shot(backdrop, shape, text({})))).pictures).toBe(0);
});

test('a logo is a picture of its own in front', async () => {
  const logo = { ...newLogo('logo', FRAME, null), light: 'a'.repeat(64), dark: 'a'.repeat(64) };
  const { pictures, content } = await pageOf(shot(backdrop, logo, text({})));
  expect(pictures).toBe(1);
  expect(content).toMatch(/\bTJ\b/);
});

test('a picture has the density that was asked for', async () => {
  const wide = async (density: number) => {
    const { file } = await pageOf(shot(newProduct('product', data, FRAME, 'stand')), { density });
    return Math.max(...[...file.matchAll(/\/Width (\d+)/g)].map((m) => Number(m[1])));
  };
  expect(await wide(300)).toBe(1818);
  expect(await wide(150)).toBe(909);
});

test('what colours mean is said by a profile', async () => {
  const { file } = await pageOf(shot(backdrop));
  expect(file).toMatch(/\/OutputIntents/);
  expect(file).toMatch(/sRGB/);
});
