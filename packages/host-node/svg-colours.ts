import { formatHex, parse } from 'culori';
import { SaxesParser, type SaxesTagPlain } from 'saxes';

/** Attributes and style properties that hold a colour. */
const PAINTS = ['fill', 'stroke', 'stop-color', 'flood-color', 'lighting-color', 'color'];
const DECLARED = new RegExp(`(?<![\\w-])(${PAINTS.join('|')})(\\s*:\\s*)([^;}"']+)`, 'gi');

/** A CSS colour as `#rrggbb`; null for none, references and what is no colour. */
function hexOf(value: string): string | null {
  const text = value.replace(/!important/i, '').trim();
  if (!text || /^(none|inherit|transparent|currentcolor|url\()/i.test(text)) return null;
  const colour = parse(text);
  return colour ? formatHex(colour) : null;
}

/** The colours that an SVG paints with, the most used first, as `#rrggbb`. */
export function svgColours(svg: string): string[] {
  const count = new Map<string, number>();
  mapColours(withDefaultFill(svg), (hex) => {
    count.set(hex, (count.get(hex) ?? 0) + 1);
    return hex;
  });
  return [...count].sort((a, b) => b[1] - a[1]).map(([hex]) => hex);
}

/** The SVG with colours changed: keys and values as `#rrggbb`. */
export function inkSvg(svg: string, inks: Record<string, string>): string {
  return mapColours(withDefaultFill(svg), (hex) => inks[hex] ?? hex);
}

/** Font families that its texts ask for, other than the generic ones. */
export function svgFonts(svg: string): string[] {
  const fonts = new Set<string>();
  if (!/<(\w+:)?text[\s>]/i.test(svg)) return [];
  for (const [, list] of svg.matchAll(/font-family\s*[:=]\s*["']?([^"';>}]+)/gi))
    for (const name of list.split(',')) {
      const plain = name.replace(/["']/g, '').trim();
      if (plain && !/^(serif|sans-serif|monospace|cursive|fantasy|system-ui|inherit)$/i.test(plain))
        fonts.add(plain);
    }
  return [...fonts];
}

/** What names no fill is black: said out loud, so that it can be changed too. */
function withDefaultFill(svg: string): string {
  const root = /<svg\b[^>]*>/i.exec(svg);
  if (!root || /\sfill\s*=/.test(root[0]) || /style\s*=\s*["'][^"']*(?<![\w-])fill\s*:/.test(root[0]))
    return svg;
  const bare = bareShapes(svg);
  if (!bare) return svg;
  return svg.replace(root[0], root[0].replace(/<svg\b/i, '<svg fill="#000000"'));
}

const SHAPES = new Set(['path', 'rect', 'circle', 'ellipse', 'polygon', 'polyline', 'text', 'use']);

/** Whether any shape paints in the fill that nobody named. */
function bareShapes(svg: string): boolean {
  let found = false;
  let named = 0;
  const says = (tag: SaxesTagPlain) =>
    'fill' in tag.attributes ||
    ('class' in tag.attributes && /<style/i.test(svg)) ||
    /(?<![\w-])fill\s*:/.test(tag.attributes.style ?? '');
  const parser = new SaxesParser();
  const open: boolean[] = [];
  parser.on('opentag', (tag) => {
    const own = says(tag);
    if (!named && !own && SHAPES.has(tag.name.replace(/^.*:/, '').toLowerCase())) found = true;
    open.push(own);
    if (own) named++;
  });
  parser.on('closetag', () => {
    if (open.pop()) named--;
  });
  parser.write(svg).close();
  return found;
}

/** Every colour in attributes, style attributes and style sheets, given to `change`; the rest stays as written. */
function mapColours(svg: string, change: (hex: string) => string): string {
  const declared = (css: string) =>
    css.replace(DECLARED, (whole, name: string, colon: string, value: string) => {
      const hex = hexOf(value);
      return hex ? `${name}${colon}${change(hex)}` : whole;
    });
  return svg
    .replace(
      /(<style\b[^>]*>)([\s\S]*?)(<\/style>)/gi,
      (_, a: string, css: string, b: string) => a + declared(css) + b,
    )
    .replace(
      /(\sstyle\s*=\s*)("([^"]*)"|'([^']*)')/gi,
      (_, name: string, quoted: string) => name + declared(quoted),
    )
    .replace(
      new RegExp(`(\\s(?:${PAINTS.join('|')})\\s*=\\s*)("([^"]*)"|'([^']*)')`, 'gi'),
      (whole, name: string, quoted: string) => {
        const hex = hexOf(quoted.slice(1, -1));
        return hex ? `${name}"${change(hex)}"` : whole;
      },
    );
}
