import bidiFactory from 'bidi-js';
import LineBreaker from 'linebreak';
import type { FontFile, Glyph } from './typeface';

const bidi = bidiFactory();

/** A paragraph shaped at one em; positions by the index of each character. */
export interface ShapedParagraph {
  text: string;
  /** Embedding levels of the characters (Unicode Bidirectional Algorithm, UAX 9). */
  levels: Uint8Array;
  rightToLeft: boolean;
  /** Runs of one font and one level in the order of the text; glyphs from left to right. */
  runs: { start: number; end: number; level: number; glyphs: Glyph[] }[];
  /** Advance of the glyphs that begin at each character, and whether any do. */
  advances: Float64Array;
  begins: Uint8Array;
  /** Indices at which a line may end (Unicode Line Breaking, UAX 14), the last among them. */
  breaks: number[];
  /** Characters that no font at hand has. */
  unprintable: string[];
}

/** Characters that join the one before or show nothing of their own. */
const JOINS = /\p{Mark}|\u200c|\u200d|\ufe0f|\ufe0e|[\u{1f3fb}-\u{1f3ff}]/u;
const SILENT = /[\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufe00-\ufe0f\ufeff\u00ad]|\s/u;

/** Shapes one paragraph (no line ends in it) with the first font of each character's own. */
export function shapeParagraph(
  text: string,
  fonts: readonly FontFile[],
  features: string[],
): ShapedParagraph {
  const embedding = bidi.getEmbeddingLevels(text, 'auto');
  const { levels } = embedding;
  const advances = new Float64Array(text.length);
  const begins = new Uint8Array(text.length);
  const unprintable = new Set<string>();
  const runs: ShapedParagraph['runs'] = [];
  let current: { start: number; end: number; level: number; font: FontFile } | null = null;
  const finish = () => {
    if (!current) return;
    const { start, end, level, font } = current;
    const glyphs = font.shape(text, start, end, level % 2 === 1, features);
    runs.push({ start, end, level, glyphs });
    for (const g of glyphs) {
      advances[g.cluster] += g.advance;
      begins[g.cluster] = 1;
    }
  };
  for (let i = 0; i < text.length;) {
    const code = text.codePointAt(i)!;
    const char = String.fromCodePoint(code);
    const joins = current && (JOINS.test(char) || (i > 0 && text[i - 1] === '\u200d'));
    const own = joins && (current!.font.has(code) || SILENT.test(char)) ? current!.font : fontOf(code, fonts);
    if (!own && !SILENT.test(char)) unprintable.add(char);
    const font: FontFile = own ?? current?.font ?? fonts[0];
    if (!current || current.font !== font || current.level !== levels[i]) {
      finish();
      current = { start: i, end: i, level: levels[i], font };
    }
    i += char.length;
    current.end = i;
  }
  finish();
  const breaks: number[] = [];
  const breaker = new LineBreaker(text);
  for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) breaks.push(b.position);
  if (!breaks.length) breaks.push(0);
  return {
    text,
    levels,
    rightToLeft: (embedding.paragraphs[0]?.level ?? 0) % 2 === 1,
    runs,
    advances,
    begins,
    breaks,
    unprintable: [...unprintable],
  };
}

function fontOf(code: number, fonts: readonly FontFile[]): FontFile | undefined {
  return fonts.find((f) => f.has(code));
}

/** The glyphs of characters start to end of a paragraph, in the order in which they stand from left to right. */
export function glyphsOfLine({ runs }: ShapedParagraph, start: number, end: number): Glyph[] {
  const parts = runs
    .filter((r) => r.start < end && r.end > start)
    .map((r) => ({ level: r.level, glyphs: r.glyphs.filter((g) => g.cluster >= start && g.cluster < end) }));
  // UAX 9, rule L2: from the highest level down, every run of that level or higher is turned round.
  const highest = Math.max(0, ...parts.map((p) => p.level));
  for (let level = highest; level >= 1; level--)
    for (let i = 0; i < parts.length; i++) {
      if (parts[i].level < level) continue;
      let j = i;
      while (j < parts.length && parts[j].level >= level) j++;
      parts.splice(i, j - i, ...parts.slice(i, j).reverse());
      i = j;
    }
  return parts.flatMap((p) => p.glyphs);
}
