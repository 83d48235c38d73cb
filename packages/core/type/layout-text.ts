import type { Typeface } from './typeface';

export type PathCommand =
  | { type: 'M' | 'L'; x: number; y: number }
  | { type: 'Q'; x1: number; y1: number; x: number; y: number }
  | { type: 'C'; x1: number; y1: number; x2: number; y2: number; x: number; y: number }
  | { type: 'Z' };

export interface TextStyle {
  /** Font size in pixels (the em). */
  size: number;
  /** Line distance as a multiple of the size. */
  leading: number;
  /** Extra space between characters in thousandths of an em. */
  tracking: number;
  align: 'left' | 'centre' | 'right';
}

export interface TextLayout {
  lines: { text: string; x: number; baseline: number; width: number }[];
  /** Width of the widest line and height of the block, in pixels. */
  width: number;
  height: number;
  commands: PathCommand[];
}

interface Glyph {
  font: Typeface['fonts'][number];
  glyph: ReturnType<Typeface['fonts'][number]['charToGlyph']>;
}

/**
 * Lays a text out in lines no wider than `maxWidth` and gives its outlines, so that lines break at the same
 * places wherever it is painted. Breaks at spaces and after hyphens; a word wider than the line is broken
 * where it must be; `\n` always breaks. The origin is the top left of the block.
 */
export function layoutText(text: string, face: Typeface, style: TextStyle, maxWidth: number): TextLayout {
  const lines: string[] = [];
  for (const paragraph of text.split(/\r?\n/)) lines.push(...breakLines(paragraph, face, style, maxWidth));
  const widths = lines.map((line) => measure(line, face, style));
  const width = Math.max(0, ...widths);
  const primary = face.fonts[0];
  const ascent = (primary.ascender / primary.unitsPerEm) * style.size;
  const descent = (-primary.descender / primary.unitsPerEm) * style.size;
  const step = style.size * style.leading;
  // The block is as high as its lines; half of what leading adds stands over the first and under the last.
  const lead = (step - ascent - descent) / 2;
  const layout: TextLayout = { lines: [], width, height: step * lines.length, commands: [] };
  lines.forEach((line, i) => {
    const free = maxWidth - widths[i];
    const x = style.align === 'left' ? 0 : style.align === 'right' ? free : free / 2;
    const baseline = i * step + lead + ascent;
    layout.lines.push({ text: line, x, baseline, width: widths[i] });
    outline(line, face, style, x, baseline, layout.commands);
  });
  return layout;
}

/** The largest layout that fits a box: `style.size` if that does, else smaller, down to `smallest` times it. */
export function fitText(
  text: string,
  face: Typeface,
  style: TextStyle,
  width: number,
  height: number,
  smallest = 0.25,
): TextLayout & { size: number } {
  const at = (size: number) => ({ ...layoutText(text, face, { ...style, size }, width), size });
  const fits = (l: TextLayout) => l.height <= height * 1.001 && l.width <= width * 1.001;
  const full = at(style.size);
  if (fits(full) && !breaksWords(full, text)) return full;
  let low = style.size * smallest;
  let high = style.size;
  let best = at(low);
  for (let i = 0; i < 10; i++) {
    const middle = (low + high) / 2;
    const layout = at(middle);
    if (fits(layout) && !breaksWords(layout, text)) {
      low = middle;
      best = layout;
    } else high = middle;
  }
  return best;
}

/** Whether a word had to be cut in two. */
function breaksWords(layout: TextLayout, text: string): boolean {
  const words = new Set(text.split(/[\s-]+/));
  return layout.lines.some((line) => line.text.split(/[\s-]+/).some((w) => w !== '' && !words.has(w)));
}

function breakLines(paragraph: string, face: Typeface, style: TextStyle, maxWidth: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const piece of paragraph.match(/\S+?(?:-+|(?=\s|$))|\s+/gu) ?? []) {
    const joined = line + piece;
    if (measure(joined.trimEnd(), face, style) <= maxWidth || line === '') {
      line = joined;
    } else {
      lines.push(line.trimEnd());
      line = piece.trimStart();
    }
    while (measure(line.trimEnd(), face, style) > maxWidth && [...line.trimEnd()].length > 1) {
      const chars = [...line];
      let n = chars.length - 1;
      while (n > 1 && measure(chars.slice(0, n).join(''), face, style) > maxWidth) n--;
      lines.push(chars.slice(0, n).join(''));
      line = chars.slice(n).join('');
    }
  }
  lines.push(line.trimEnd());
  return lines;
}

function glyphs(text: string, face: Typeface): Glyph[] {
  return [...text].map((char) => {
    for (const font of face.fonts)
      if (font.charToGlyphIndex(char) > 0) return { font, glyph: font.charToGlyph(char) };
    return { font: face.fonts[0], glyph: face.fonts[0].charToGlyph(char) };
  });
}

function advance(current: Glyph, next: Glyph | undefined, style: TextStyle): number {
  const em = style.size / current.font.unitsPerEm;
  let width = (current.glyph.advanceWidth ?? 0) * em + (style.tracking / 1000) * style.size;
  if (next && next.font === current.font)
    width += current.font.getKerningValue(current.glyph, next.glyph) * em;
  return width;
}

function measure(text: string, face: Typeface, style: TextStyle): number {
  const list = glyphs(text, face);
  let width = 0;
  for (let i = 0; i < list.length; i++) width += advance(list[i], list[i + 1], style);
  return list.length ? width - (style.tracking / 1000) * style.size : 0;
}

function outline(
  text: string,
  face: Typeface,
  style: TextStyle,
  x: number,
  baseline: number,
  out: PathCommand[],
): void {
  const list = glyphs(text, face);
  for (let i = 0; i < list.length; i++) {
    for (const command of list[i].glyph.getPath(x, baseline, style.size).commands)
      out.push(command as PathCommand);
    x += advance(list[i], list[i + 1], style);
  }
}
