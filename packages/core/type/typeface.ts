import type { Buffer, Font } from 'harfbuzzjs';
import type { PathCommand } from '../vector/outline';
import { unwrapWoff } from './unwrap-woff';

/** A glyph in its place in a run; lengths in ems. */
export interface Glyph {
  font: FontFile;
  id: number;
  /** Index of the first character it stands for. */
  cluster: number;
  advance: number;
  dx: number;
  dy: number;
}

/** One font file, ready for shaping. Lengths in ems, y downward. */
export interface FontFile {
  ascent: number;
  descent: number;
  /** Height of capitals over the baseline. */
  capHeight: number;
  has(codePoint: number): boolean;
  /** The glyphs of a part of a text, from left to right. `features` as "liga" or "-liga". */
  shape(text: string, start: number, end: number, rightToLeft: boolean, features: string[]): Glyph[];
  outline(glyph: number): PathCommand[];
}

/** A font made of one or more files; a character is taken from the first file that has it. */
export interface Typeface {
  id: string;
  fonts: FontFile[];
}

/** The family and style that a font file names. */
export interface FontNames {
  family: string;
  style: string;
}

type HarfBuzz = typeof import('harfbuzzjs');

/**
 * Reads a typeface from its files' bytes (TTF, OTF or WOFF). Shaping is HarfBuzz's (kerning, ligatures, marks and
 * joined scripts), the same code everywhere. Rejects with a sentence when a file is no font.
 */
export async function readTypeface(id: string, files: ArrayBuffer[]): Promise<Typeface> {
  const hb = await import('harfbuzzjs');
  return { id, fonts: files.map((bytes) => readFont(hb, id, bytes)) };
}

/** The names in a font file. Rejects with a sentence when the file is no font. */
export async function fontNames(bytes: ArrayBuffer): Promise<FontNames> {
  const hb = await import('harfbuzzjs');
  const { face } = openFont(hb, 'new', bytes);
  const name = (...ids: number[]) => {
    for (const id of ids) {
      const found = face.getName(id, 'en');
      if (found) return found;
    }
    return '';
  };
  return { family: name(16, 1) || 'Unnamed', style: name(17, 2) || 'Regular' };
}

function openFont(hb: HarfBuzz, id: string, bytes: ArrayBuffer): Font {
  let face;
  try {
    face = new hb.Face(new hb.Blob(unwrapWoff(bytes)));
  } catch (error) {
    throw new Error(`The font "${id}" cannot be read: ${(error as Error).message}.`);
  }
  const whole =
    face.referenceTable('cmap') && face.referenceTable('hhea') && face.collectUnicodes().length > 0;
  if (!whole)
    throw new Error(
      `The font "${id}" cannot be read: the file is no font, or a part of it is missing. Send a TTF, OTF, WOFF or WOFF2 file.`,
    );
  return new hb.Font(face);
}

function readFont(hb: HarfBuzz, id: string, bytes: ArrayBuffer): FontFile {
  const font = openFont(hb, id, bytes);
  const em = font.face.upem;
  const extents = font.hExtents();
  const outlines = new Map<number, PathCommand[]>();
  const buffer = new hb.Buffer();
  const os2 = font.face.referenceTable('OS/2');
  const capHeight = os2 && os2.length >= 90 ? new DataView(os2.buffer, os2.byteOffset).getInt16(88) / em : 0;
  const file: FontFile = {
    ascent: extents.ascender / em,
    descent: -extents.descender / em,
    capHeight: capHeight > 0.3 ? capHeight : 0.7,
    has: (codePoint) => font.nominalGlyph(codePoint) !== undefined,
    shape(text, start, end, rightToLeft, features) {
      fill(hb, buffer, text, start, end, rightToLeft);
      hb.shape(
        font,
        buffer,
        features.map((f) => featureOf(hb, f)),
      );
      return buffer.getGlyphInfosAndPositions().map((g) => ({
        font: file,
        id: g.codepoint,
        cluster: g.cluster,
        advance: (g.xAdvance ?? 0) / em,
        dx: (g.xOffset ?? 0) / em,
        dy: -(g.yOffset ?? 0) / em,
      }));
    },
    outline(glyph) {
      let found = outlines.get(glyph);
      if (!found) {
        found = readOutline(font.glyphToPath(glyph), 1 / em);
        outlines.set(glyph, found);
      }
      return found;
    },
  };
  return file;
}

function fill(hb: HarfBuzz, buffer: Buffer, text: string, start: number, end: number, rightToLeft: boolean) {
  buffer.reset();
  buffer.addText(text, start, end - start);
  buffer.setDirection(rightToLeft ? hb.Direction.RTL : hb.Direction.LTR);
  buffer.guessSegmentProperties();
}

function featureOf(hb: HarfBuzz, name: string) {
  return name.startsWith('-') ? new hb.Feature(name.slice(1), 0) : new hb.Feature(name, 1);
}

/** HarfBuzz gives outlines as SVG path data of absolute M, L, Q, C and Z, y upward. */
function readOutline(data: string, k: number): PathCommand[] {
  const out: PathCommand[] = [];
  for (const [, letter, rest] of data.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = (rest.match(/-?\d+(?:\.\d+)?/g) ?? []).map((v, i) => Number(v) * (i % 2 ? -k : k));
    if (letter === 'Z') out.push({ type: 'Z' });
    else if (letter === 'Q') out.push({ type: 'Q', x1: n[0], y1: n[1], x: n[2], y: n[3] });
    else if (letter === 'C')
      out.push({ type: 'C', x1: n[0], y1: n[1], x2: n[2], y2: n[3], x: n[4], y: n[5] });
    else out.push({ type: letter as 'M' | 'L', x: n[0], y: n[1] });
  }
  return out;
}
