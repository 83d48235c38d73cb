import { isText } from '@scenograph/core/elements/text/model';
import { isPicture } from '@scenograph/core/elements/picture/model';
import { join } from 'node:path';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { fontFiles, fontsFor } from '@scenograph/core/type/catalogue';
import { fitText } from '@scenograph/core/type/layout-text';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { fontFolder, loadTypeface } from './fonts';

/**
 * A sheet of pictures and words as PDF of one page: its frame in points, text as text in embedded fonts at the places
 * where the painter breaks its lines, pictures as JPEG (those with transparency as PNG).
 */
export async function sheetPdf(
  sheet: ResolvedShot,
  title: string,
  load: (hash: string) => Promise<Uint8Array>,
): Promise<Buffer> {
  const document = new PDFDocument({
    size: [sheet.width, sheet.height],
    margin: 0,
    info: { Title: title, Creator: 'Scenograph' },
    lang: 'en',
  });
  const chunks: Buffer[] = [];
  document.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<void>((resolve) => document.on('end', () => resolve()));
  const fonts = new Set<string>();
  for (const element of sheet.elements) {
    if (isPicture(element)) {
      const { box } = element;
      const picture = sharp(await load(element.picture));
      const { hasAlpha } = await picture.metadata();
      const opaque = !hasAlpha || (await picture.stats()).isOpaque;
      const bytes = opaque
        ? await picture.flatten().jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer()
        : await picture.png().toBuffer();
      document.image(bytes, box.x, box.y, {
        fit: [box.width, box.height],
        align: 'center',
        valign: 'center',
      });
    } else if (isText(element) && element.text.trim()) {
      const { box, text } = element;
      const ids = fontsFor(element.font, text);
      const faces = await Promise.all(ids.map(loadTypeface));
      const layout = fitText(text, faces, element, box.width, box.height);
      const files = ids.flatMap(fontFiles);
      const has = faces.flatMap((f) => f.fonts);
      for (const line of layout.lines) {
        let x = box.x + line.x;
        for (const [file, run] of runsByFont(line.text, has, files)) {
          const name = `${element.font}:${file}`;
          if (!fonts.has(name)) {
            document.registerFont(name, join(fontFolder, file));
            fonts.add(name);
          }
          document.font(name).fontSize(layout.size).fillColor(element.colour);
          document.text(run, x, box.y + line.baseline, { lineBreak: false, baseline: 'alphabetic' });
          x += document.widthOfString(run);
        }
      }
    }
  }
  document.end();
  await done;
  return Buffer.concat(chunks);
}

/** A line in pieces that one font file holds each. */
export function runsByFont(
  text: string,
  fonts: readonly { has(codePoint: number): boolean }[],
  files: readonly string[],
): [file: string, run: string][] {
  const out: [string, string][] = [];
  for (const char of text) {
    const found = fonts.findIndex((f) => f.has(char.codePointAt(0)!));
    const file = files[found < 0 ? 0 : found];
    const last = out[out.length - 1];
    if (last?.[0] === file) last[1] += char;
    else out.push([file, char]);
  }
  return out;
}
