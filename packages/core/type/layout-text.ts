import { placedPath, type PathCommand } from '../vector/outline';
import { glyphsOfLine, shapeParagraph, type ShapedParagraph } from './shape-text';
import type { FontFile, Typeface } from './typeface';

export interface TextStyle {
  /** Font size in pixels (the em). */
  size: number;
  /** Line distance as a multiple of the size. */
  leading: number;
  /** Extra space between characters in thousandths of an em. */
  tracking: number;
  /** `start` is the side where reading begins. */
  align: 'start' | 'left' | 'centre' | 'right';
}

export interface TextLayout {
  lines: { text: string; x: number; baseline: number; width: number }[];
  /** Width of the widest line and height of the block, in pixels. */
  width: number;
  height: number;
  commands: PathCommand[];
  /** Characters that none of the fonts has. */
  unprintable: string[];
}

export interface FittedText extends TextLayout {
  size: number;
  /** Characters left out because they do not fit even at the smallest size. */
  cut: number;
}

interface Line {
  paragraph: ShapedParagraph;
  start: number;
  end: number;
  /** Ems, tracking included. */
  width: number;
}

/** A text shaped once; lines and sizes are found from it without shaping again. */
export interface ShapedText {
  paragraphs: ShapedParagraph[];
  fonts: FontFile[];
  tracking: number;
  unprintable: string[];
}

/** Shapes a text with a font and the fonts that help it out with characters it lacks. */
export function shapeText(text: string, faces: readonly Typeface[], tracking = 0): ShapedText {
  const fonts = faces.flatMap((f) => f.fonts);
  // Letters that are spaced out are not joined in ligatures.
  const features = tracking === 0 ? [] : ['-liga', '-clig'];
  const paragraphs = text.split(/\r?\n/).map((p) => shapeParagraph(p, fonts, features));
  return { paragraphs, fonts, tracking, unprintable: [...new Set(paragraphs.flatMap((p) => p.unprintable))] };
}

/**
 * Lays a text out in lines no wider than `maxWidth` pixels and gives its outlines, so that lines break at the same
 * places wherever it is painted. Breaks where Unicode allows (UAX 14); a word wider than the line is broken where it
 * must be; `\n` always breaks. The origin is the top left of the block.
 */
export function layoutText(
  text: string,
  faces: readonly Typeface[],
  style: TextStyle,
  maxWidth: number,
): TextLayout {
  const shaped = shapeText(text, faces, style.tracking);
  return layOut(shaped, linesOf(shaped, maxWidth / style.size), style, maxWidth);
}

/**
 * The largest layout that fits a box: `style.size` if that does, else smaller, down to `smallest` pixels. What does not
 * fit even then is cut after the last line that does, with an ellipsis, and counted.
 */
export function fitText(
  text: string,
  faces: readonly Typeface[],
  style: TextStyle,
  width: number,
  height: number,
  smallest = style.size * 0.25,
): FittedText {
  const shaped = shapeText(text, faces, style.tracking);
  return fitShaped(shaped, faces, style, width, height, smallest);
}

export function fitShaped(
  shaped: ShapedText,
  faces: readonly Typeface[],
  style: TextStyle,
  width: number,
  height: number,
  smallest: number,
): FittedText {
  const size = fittingSize(shaped, style, width, height, smallest);
  const lines = linesOf(shaped, width / size);
  const most = Math.max(1, Math.floor((height * 1.001) / (size * style.leading)));
  if (lines.length <= most) return { ...layOut(shaped, lines, { ...style, size }, width), size, cut: 0 };
  const kept = lines.slice(0, most);
  const last = kept[most - 1];
  const from = shaped.paragraphs.slice(0, shaped.paragraphs.indexOf(last.paragraph));
  const shown = from.reduce((n, p) => n + p.text.length + 1, 0);
  const whole = shaped.paragraphs.map((p) => p.text).join('\n');
  // Cut back by words until the ellipsis has room.
  let text = whole.slice(0, shown + last.end).trimEnd();
  for (;;) {
    const cutShaped = shapeText(`${text}…`, faces, style.tracking);
    const cutLines = linesOf(cutShaped, width / size);
    const shorter = text.replace(/\s*\S+$/u, '') || text.slice(0, -1);
    if (cutLines.length <= most || shorter === '')
      return {
        ...layOut(cutShaped, cutLines.slice(0, most), { ...style, size }, width),
        unprintable: shaped.unprintable,
        size,
        cut: [...whole].length - [...text].length,
      };
    text = shorter;
  }
}

/** The largest size between `smallest` and `style.size` at which no word is cut and nothing leaves the box. */
export function fittingSize(
  shaped: ShapedText,
  style: TextStyle,
  width: number,
  height: number,
  smallest: number,
): number {
  const fits = (size: number) => {
    const lines = linesOf(shaped, width / size);
    return lines.length * size * style.leading <= height * 1.001 && lines.every((l) => !cutsWord(l));
  };
  if (fits(style.size)) return style.size;
  let low = Math.min(smallest, style.size);
  let high = style.size;
  for (let i = 0; i < 11; i++) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  return low;
}

const cutsWord = ({ paragraph, end }: Line) =>
  end < paragraph.text.trimEnd().length && !paragraph.breaks.some((b) => trimmed(paragraph.text, b) === end);

/** Where a line that breaks at an index really ends: spaces before the break are not shown. */
function trimmed(text: string, at: number): number {
  while (at > 0 && /\s/.test(text[at - 1])) at--;
  return at;
}

/** Lines no wider than `maxWidth` ems. */
function linesOf(shaped: ShapedText, maxWidth: number): Line[] {
  const track = shaped.tracking / 1000;
  const lines: Line[] = [];
  for (const paragraph of shaped.paragraphs) {
    const { text, advances, begins, breaks } = paragraph;
    const widthOf = (start: number, end: number) => {
      let width = 0;
      let glyphs = 0;
      for (let i = start; i < end; i++) {
        width += advances[i];
        glyphs += begins[i];
      }
      return width + Math.max(0, glyphs - 1) * track;
    };
    const add = (start: number, end: number) =>
      lines.push({ paragraph, start, end, width: widthOf(start, end) });
    const within = (start: number, end: number) => widthOf(start, end) <= maxWidth + 1e-6;
    let start = 0;
    let end = 0;
    for (const at of breaks) {
      const shown = Math.max(start, trimmed(text, at));
      if (within(start, shown)) {
        end = at;
        continue;
      }
      if (end > start) {
        add(start, trimmed(text, end));
        start = end;
        while (start < at && /\s/.test(text[start])) start++;
      }
      // A word wider than the line is cut between characters.
      while (start < shown && !within(start, shown)) {
        let to = start + 1;
        while (to < shown && !begins[to]) to++;
        for (let next = to; next <= shown && within(start, next); next++)
          if (next === shown || begins[next]) to = next;
        if (to >= shown) break;
        add(start, to);
        start = to;
      }
      end = at;
    }
    add(start, Math.max(start, trimmed(text, text.length)));
  }
  return lines;
}

function layOut(shaped: ShapedText, lines: Line[], style: TextStyle, maxWidth: number): TextLayout {
  const [primary] = shaped.fonts;
  const { size } = style;
  const track = (style.tracking / 1000) * size;
  const ascent = primary.ascent * size;
  const step = size * style.leading;
  // The block is as high as its lines; half of what leading adds stands over the first and under the last.
  const lead = (step - ascent - primary.descent * size) / 2;
  const layout: TextLayout = {
    lines: [],
    width: Math.max(0, ...lines.map((l) => l.width * size)),
    height: step * lines.length,
    commands: [],
    unprintable: shaped.unprintable,
  };
  lines.forEach(({ paragraph, start, end, width }, i) => {
    const free = maxWidth - width * size;
    const align = style.align === 'start' ? (paragraph.rightToLeft ? 'right' : 'left') : style.align;
    let x = align === 'left' ? 0 : align === 'right' ? free : free / 2;
    const baseline = i * step + lead + ascent;
    layout.lines.push({ text: paragraph.text.slice(start, end), x, baseline, width: width * size });
    const glyphs = glyphsOfLine(paragraph, start, end);
    glyphs.forEach((g, n) => {
      layout.commands.push(
        ...placedPath(g.font.outline(g.id), size, size, x + g.dx * size, baseline + g.dy * size),
      );
      x += g.advance * size;
      // Space stands between clusters, not within them.
      if (glyphs[n + 1] && glyphs[n + 1].cluster !== g.cluster) x += track;
    });
  });
  return layout;
}
