import { join } from 'node:path';
import type { PaintEnvironment } from '@scenograph/core/elements/environment';
import { isText, type TextElement } from '@scenograph/core/elements/text/model';
import { paintPlate, setElement } from '@scenograph/core/elements/text/paint';
import type { Canvas2D } from '@scenograph/core/raster/canvas';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { trimRect, type Trim } from '@scenograph/core/shot/trim';
import { fontFiles, fontsFor, ownFontHash } from '@scenograph/core/type/catalogue';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { encodePng } from './encode';
import { fontFolder } from './fonts';
import type { Painter } from './painter';
import { PdfCanvas } from './pdf-canvas';
import { runsByFont } from './sheet-pdf';

type Page = PDFKit.PDFDocument;

export interface ShotPdfOptions {
  title: string;
  /** What the shot is on paper; pixels at 72 an inch without bleed where it was never said. */
  trim: Trim;
  /** Pixels an inch of pictures. */
  density: number;
  /** The page is the trimmed picture, or that with its bleed. */
  area: 'trim' | 'bleed';
  /** Lines beside the page where it is cut; the page grows by their room. */
  marks: boolean;
  /** Words that can be selected, in embedded fonts, or outlines alone. */
  words: 'text' | 'outlines';
}

const POINTS = 72;
/** Crop marks, in points: how long, and how far beyond the bleed they begin. */
const MARK = { length: 15, apart: 6, line: 0.25 };

/**
 * A shot as a PDF of one page: words, shapes and signs in front as vectors, all below them as one picture at a density.
 * Media, bleed and trim box are set (ISO 32000-1, 14.11.2); colours are sRGB, said by an output intent.
 */
export async function shotPdf(
  painter: Painter,
  shot: ResolvedShot,
  load: (hash: string) => Promise<Uint8Array>,
  options: ShotPdfOptions,
): Promise<Buffer> {
  const { trim, density, area, marks, words } = options;
  const cut = trimRect(shot, trim);
  const shown = area === 'bleed' ? { x: 0, y: 0, width: shot.width, height: shot.height } : cut;
  const k = POINTS / trim.dpi;
  const room = marks ? MARK.length + MARK.apart : 0;
  const [width, height] = [shown.width * k + 2 * room, shown.height * k + 2 * room];
  const page: Page = new PDFDocument({
    ...{ size: [width, height], margin: 0, lang: 'en', pdfVersion: '1.7' },
    info: { Title: options.title, Creator: 'Scenograph' },
  });
  const chunks: Buffer[] = [];
  page.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<void>((resolve) => page.on('end', () => resolve()));

  const { below, paintAbove } = await painter.inVectors(shot, density / trim.dpi);
  const fonts = words === 'text' ? await fontsOf(page, shot, load) : null;
  page.save();
  page.rect(room, room, shown.width * k, shown.height * k).clip();
  page.translate(room - shown.x * k, room - shown.y * k).scale(k);
  if (below) page.image(await bytesOf(below), 0, 0, { width: shot.width, height: shot.height });
  const canvas = new PdfCanvas(page);
  paintAbove(canvas, (element, environment) => {
    if (!fonts || !isText(element) || !isPlain(element.text)) return false;
    return writeText(page, canvas, element, environment, fonts);
  });
  page.restore();
  const at = { x: room + (cut.x - shown.x) * k, y: room + (cut.y - shown.y) * k };
  const trimmed = { ...at, width: cut.width * k, height: cut.height * k };
  if (marks) cropMarks(page, trimmed, width, height);
  // A box runs from its lower left corner; y goes up.
  const box = (r: typeof trimmed) => [r.x, height - r.y - r.height, r.x + r.width, height - r.y];
  const { data } = page.page.dictionary as unknown as { data: Record<string, number[]> };
  data.TrimBox = box(trimmed);
  data.BleedBox = box({ x: room, y: room, width: shown.width * k, height: shown.height * k });
  await sayColourSpace(page);
  page.end();
  await done;
  return Buffer.concat(chunks);
}

async function bytesOf(picture: Rgba): Promise<Buffer> {
  for (let i = 3; i < picture.data.length; i += 4) if (picture.data[i] < 255) return encodePng(picture);
  const { width, height, data } = picture;
  return sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
  })
    .removeAlpha()
    .jpeg({ quality: 95, chromaSubsampling: '4:4:4' })
    .toBuffer();
}

/** Words that run from left to right in the order they are written; others are kept as outlines. */
const isPlain = (text: string) =>
  !/[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u.test(text);

/** The font files of the shot's texts, registered with the page by the names that `writeText` uses. */
async function fontsOf(page: Page, shot: ResolvedShot, load: (hash: string) => Promise<Uint8Array>) {
  const files = new Map<string, string[]>();
  for (const element of shot.elements) {
    if (!isText(element) || element.hidden) continue;
    for (const id of fontsFor(element.font, element.text)) {
      if (files.has(id)) continue;
      const own = ownFontHash(id);
      const names = own ? [id] : fontFiles(id).map((file) => `${id}/${file}`);
      files.set(id, names);
      if (own) page.registerFont(id, Buffer.from(await load(own)));
      else
        for (const [i, file] of fontFiles(id).entries()) page.registerFont(names[i], join(fontFolder, file));
    }
  }
  return files;
}

/** Writes a text's lines as text where the painter breaks them, each as wide as it is painted. */
function writeText(
  page: Page,
  canvas: Canvas2D,
  element: TextElement,
  environment: PaintEnvironment,
  fonts: ReadonlyMap<string, string[]>,
): boolean {
  if (!element.text.trim()) return false;
  const ids = fontsFor(element.font, element.text);
  const faces = ids.flatMap((id) => environment.typeface(id).fonts);
  const files = ids.flatMap((id) => fonts.get(id) ?? []);
  const set = setElement(element, environment);
  const { box } = element;
  canvas.save();
  canvas.translate(box.x + box.width / 2, box.y + box.height / 2);
  canvas.rotate((box.rotation * Math.PI) / 180);
  canvas.translate(-box.x - box.width / 2, -box.y - box.height / 2);
  paintPlate(element, set, canvas);
  // Letters that are spaced out are not joined, as in the picture.
  const features = element.tracking ? ({ liga: false, clig: false } as never) : undefined;
  for (const line of set.lines) {
    const runs = runsByFont(line.text, faces, files);
    const widths = runs.map(([file, run]) =>
      page.font(file).fontSize(set.size).widthOfString(run, { features }),
    );
    const total = widths.reduce((sum, w) => sum + w, 0);
    // Tracking, and what little two shapers differ in.
    const spacing = (line.width - total) / Math.max(1, [...line.text].length - 1);
    let x = set.left + line.x;
    runs.forEach(([file, run], i) => {
      page.font(file).fontSize(set.size).fillColor(element.colour);
      page.text(run, x, set.top + line.baseline, {
        ...{ lineBreak: false, baseline: 'alphabetic', characterSpacing: spacing, features },
      });
      x += widths[i] + spacing * [...run].length;
    });
  }
  canvas.restore();
  return true;
}

interface Trimmed {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Two lines at each corner, beyond the bleed, along the cuts. */
function cropMarks(
  page: Page,
  { x, y, width, height }: Trimmed,
  pageWidth: number,
  pageHeight: number,
): void {
  page.save().lineWidth(MARK.line).strokeColor('#000000');
  for (const at of [x, x + width]) {
    page.moveTo(at, 0).lineTo(at, MARK.length).stroke();
    page
      .moveTo(at, pageHeight - MARK.length)
      .lineTo(at, pageHeight)
      .stroke();
  }
  for (const at of [y, y + height]) {
    page.moveTo(0, at).lineTo(MARK.length, at).stroke();
    page
      .moveTo(pageWidth - MARK.length, at)
      .lineTo(pageWidth, at)
      .stroke();
  }
  page.restore();
}

/** An output intent with the sRGB profile: what the page's colours mean. */
async function sayColourSpace(page: Page): Promise<void> {
  const pixel = sharp({ create: { width: 1, height: 1, channels: 3, background: '#ffffff' } });
  const { icc } = await sharp(await pixel.withIccProfile('srgb').png().toBuffer()).metadata();
  if (!icc) return;
  const profile = page.ref({ N: 3 });
  profile.end(icc);
  const intent = page.ref({
    ...{ Type: 'OutputIntent', S: 'GTS_PDFX', DestOutputProfile: profile },
    OutputConditionIdentifier: new String('sRGB IEC61966-2.1'),
  });
  (intent as unknown as { end(): void }).end();
  const root = (page as unknown as { _root: { data: Record<string, unknown> } })._root;
  root.data.OutputIntents = [intent];
}
