import { formatHex, parse } from 'culori';
import { SaxesParser, type SaxesTagPlain } from 'saxes';

/** Attributes and style properties that hold a colour. */
const PAINTS = ['fill', 'stroke', 'stop-color', 'flood-color', 'lighting-color', 'color'];
const DECLARED = new RegExp(`(?<![\\w-])(${PAINTS.join('|')})(\\s*:\\s*)([^;}"']+)`, 'gi');
const ATTRIBUTE = new RegExp(`(\\s(?:${PAINTS.join('|')})\\s*=\\s*)("[^"]*"|'[^']*')`, 'gi');
const STYLE_ATTRIBUTE = /(\sstyle\s*=\s*)("[^"]*"|'[^']*')/gi;
const SHAPES = new Set(['path', 'rect', 'circle', 'ellipse', 'polygon', 'polyline', 'text', 'use']);
const GENERIC = /^(serif|sans-serif|monospace|cursive|fantasy|system-ui|inherit)$/i;

/** A CSS colour as `#rrggbb`; null for none, references and what is no colour. */
function hexOf(value: string): string | null {
  const text = value.replace(/!important/i, '').trim();
  if (!text || text.length > 100 || /^(none|inherit|transparent|currentcolor|url\()/i.test(text)) return null;
  const colour = parse(text);
  return colour ? formatHex(colour) : null;
}

/** The colours that an SVG paints with, the most used first, as `#rrggbb`. */
export function svgColours(svg: string): string[] {
  const count = new Map<string, number>();
  mapColours(svg, (hex) => {
    count.set(hex, (count.get(hex) ?? 0) + 1);
    return hex;
  });
  return [...count].sort((a, b) => b[1] - a[1]).map(([hex]) => hex);
}

/** The SVG with colours changed: keys and values as `#rrggbb`. */
export function inkSvg(svg: string, inks: Record<string, string>): string {
  return mapColours(svg, (hex) => (Object.hasOwn(inks, hex) ? inks[hex] : hex));
}

/** Font families that its texts ask for, other than the generic ones. */
export function svgFonts(svg: string): string[] {
  const fonts = new Set<string>();
  let hasText = false;
  const collect = (list: string) => {
    for (const name of list.split(',')) {
      const plain = name.replace(/["']/g, '').trim();
      if (plain && !GENERIC.test(plain)) fonts.add(plain);
    }
  };
  const declared = (css: string) => {
    for (const [, list] of css.matchAll(/font-family\s*:\s*([^;}]+)/gi)) collect(list);
  };
  walkTags(svg, {
    opened(tag) {
      if (localName(tag) === 'text') hasText = true;
      if (tag.attributes['font-family']) collect(tag.attributes['font-family']);
      if (tag.attributes.style) declared(tag.attributes.style);
    },
    styleSheet: (start, end) => declared(svg.slice(start, end)),
  });
  return hasText ? [...fonts] : [];
}

interface TagVisitor {
  /** A tag, and where its text lies: from its `<` to after its `>`. */
  opened(tag: SaxesTagPlain, start: number, end: number): void;
  /** The text of a `<style>`. */
  styleSheet?(start: number, end: number): void;
  closed?(): void;
}

const localName = (tag: { name: string }) => tag.name.replace(/^.*:/, '').toLowerCase();

/** Every tag of an SVG in one pass; what is not well formed is passed over (`check-svg.ts` refuses it). */
function walkTags(svg: string, visitor: TagVisitor): void {
  const parser = new SaxesParser();
  let styleFrom = -1;
  parser.on('error', () => undefined);
  parser.on('opentag', (tag) => {
    const end = parser.position;
    visitor.opened(tag, svg.lastIndexOf('<', end - 1), end);
    if (localName(tag) === 'style' && !tag.isSelfClosing) styleFrom = end;
  });
  parser.on('closetag', (tag) => {
    if (styleFrom >= 0 && localName(tag) === 'style') {
      visitor.styleSheet?.(styleFrom, svg.lastIndexOf('<', parser.position - 1));
      styleFrom = -1;
    }
    visitor.closed?.();
  });
  parser.write(svg).close();
}

/**
 * Every colour in attributes, style attributes and style sheets, given to `change`; the rest stays as written. What names
 * no fill is black: where a shape is painted so, the root says it out loud, so that it can be changed too.
 */
function mapColours(svg: string, change: (hex: string) => string): string {
  const out: string[] = [];
  let written = 0;
  const put = (start: number, end: number, text: string) => {
    if (start < written) return;
    out.push(svg.slice(written, start), text);
    written = end;
  };
  const colour = (value: string) => {
    const hex = hexOf(value);
    return hex && change(hex);
  };
  const declared = (css: string) =>
    css.replace(DECLARED, (whole, name: string, colon: string, value: string) => {
      const hex = colour(value);
      return hex ? `${name}${colon}${hex}` : whole;
    });
  const tagText = (text: string) =>
    text
      .replace(STYLE_ATTRIBUTE, (_, name: string, quoted: string) => name + declared(quoted))
      .replace(ATTRIBUTE, (whole, name: string, quoted: string) => {
        const hex = colour(quoted.slice(1, -1));
        return hex ? `${name}"${hex}"` : whole;
      });
  const bare = bareShapes();
  let root = -1;
  walkTags(svg, {
    opened(tag, start, end) {
      bare.open(tag);
      if (root < 0 && localName(tag) === 'svg') root = out.push('') - 1;
      put(start, end, tagText(svg.slice(start, end)));
    },
    styleSheet(start, end) {
      bare.hasSheet();
      put(start, end, declared(svg.slice(start, end)));
    },
    closed: bare.close,
  });
  out.push(svg.slice(written));
  if (root >= 0 && bare.found()) {
    const black = change('#000000');
    out[root + 2] = out[root + 2].replace(/^<[^\s/>]+/, (name) => `${name} fill="${black}"`);
  }
  return out.join('');
}

/** Finds whether any shape paints in the fill that nobody named, while tags open and close. */
function bareShapes() {
  const open: boolean[] = [];
  let named = 0;
  let plain = false;
  // What has a class may get its fill from a style sheet, where there is one.
  let classed = false;
  let sheet = false;
  return {
    open(tag: SaxesTagPlain) {
      const own = 'fill' in tag.attributes || /(?<![\w-])fill\s*:/.test(tag.attributes.style ?? '');
      if (!named && !own && SHAPES.has(localName(tag))) {
        if ('class' in tag.attributes) classed = true;
        else plain = true;
      }
      open.push(own);
      if (own) named++;
    },
    close() {
      if (open.pop()) named--;
    },
    hasSheet() {
      sheet = true;
    },
    found: () => plain || (classed && !sheet),
  };
}
