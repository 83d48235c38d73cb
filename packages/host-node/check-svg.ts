import { imageSize } from 'image-size';
import { SaxesParser, type SaxesTagPlain } from 'saxes';

/** What an SVG may hold at most; more is refused with a sentence. */
export const SVG_LIMITS = {
  bytes: 5_000_000,
  elements: 60_000,
  depth: 250,
  /** Elements that are drawn, where whatever is used again counts again, and a filter effect as much as a thousand. */
  drawn: 200_000,
  letters: 100_000,
  filterSteps: 200,
  styleSheets: 50,
  embeddedPixels: 60_000_000,
};

const FORBIDDEN = new Set([
  'script',
  'foreignobject',
  'iframe',
  'embed',
  'object',
  'audio',
  'video',
  'handler',
]);

const count = (n: number) => n.toLocaleString('en');

/**
 * Throws a sentence when an SVG is not well formed, holds anything that could run or load from elsewhere (scripts, event
 * attributes, external references, entities), or would take without end to draw. One pass; what it lets through is drawn
 * with a limit on time and memory all the same (`sandbox/sandbox.ts`).
 */
export function checkSvg(text: string): void {
  if (text.length > SVG_LIMITS.bytes)
    throw new Error(
      `it has ${(text.length / 1e6).toFixed(1)} MB; an SVG may have up to ${SVG_LIMITS.bytes / 1e6}. Simplify it, or export it as PNG.`,
    );
  const parser = new SaxesParser();
  const drawing = new Drawing();
  parser.on('error', (error) => {
    throw new Error(`the SVG is not well formed (${error.message.replace(/^\d+:\d+: /, '')}).`);
  });
  parser.on('doctype', (doctype) => {
    if (/ENTITY|\[/.test(doctype))
      throw new Error('it defines entities, which are not allowed. Save it as plain SVG.');
  });
  parser.on('opentag', (tag) => {
    refuseTag(tag);
    drawing.open(tag);
  });
  parser.on('closetag', () => drawing.close());
  const read = (words: string) => {
    refuseOutsideUrls(words);
    drawing.write(words);
  };
  parser.on('text', read);
  parser.on('cdata', read);
  parser.write(text).close();
  drawing.refuseEndless();
}

function refuseTag(tag: SaxesTagPlain): void {
  if (FORBIDDEN.has(localName(tag)))
    throw new Error(`it holds a <${tag.name}>, which is not allowed. Remove it and save again.`);
  for (const [name, value] of Object.entries(tag.attributes)) {
    if (/^on/i.test(name)) throw new Error(`it holds a script in "${name}". Remove it and save again.`);
    if (isReference(name) && !/^(#|data:image\/(png|jpeg|webp);)/i.test(value.trim()))
      throw new Error(
        `it refers to something outside itself (${value.slice(0, 60)}). Embed it and save again.`,
      );
    refuseOutsideUrls(value);
  }
}

function refuseOutsideUrls(text: string): void {
  if (/@import/i.test(text) || /url\((?!\s*['"]?\s*(#|data:image\/(png|jpeg|webp);))/i.test(text))
    throw new Error('its styles load something from outside. Embed it and save again.');
}

const localName = (tag: SaxesTagPlain) => tag.name.replace(/^.*:/, '').toLowerCase();
const isReference = (attribute: string) => /(^|:)href$/i.test(attribute);

const isFilterStep = (tag: SaxesTagPlain) => /^(.*:)?fe[A-Z]/.test(tag.name);

/** How much an element costs to draw: a filter effect works on all pixels, some on each many times. */
function weightOf(tag: SaxesTagPlain): number {
  if (!isFilterStep(tag)) return 1;
  const { numOctaves, radius } = tag.attributes;
  const times = Math.max(1, parseFloat(numOctaves ?? '') / 4 || 1, parseFloat(radius ?? '') / 10 || 1);
  return 1000 * times;
}

/** How much there is to draw: counted while tags open and close, judged at the end. */
class Drawing {
  private readonly path: number[] = [];
  private readonly inside: number[][] = [];
  private readonly refers: string[][] = [];
  private readonly weight: number[] = [];
  private readonly ids = new Map<string, number>();
  private letters = 0;
  private filterSteps = 0;
  private styleSheets = 0;
  private pixels = 0;

  open(tag: SaxesTagPlain): void {
    const me = this.inside.push([]) - 1;
    if (me >= SVG_LIMITS.elements)
      throw new Error(`it has more than ${count(SVG_LIMITS.elements)} parts. Simplify it and save it again.`);
    if (this.path.length) this.inside[this.path.at(-1)!].push(me);
    if (this.path.push(me) > SVG_LIMITS.depth)
      throw new Error(
        `its parts are nested more than ${SVG_LIMITS.depth} deep. Ungroup it and save it again.`,
      );
    const own: string[] = [];
    for (const [name, value] of Object.entries(tag.attributes)) {
      if (name === 'id' && !this.ids.has(value)) this.ids.set(value, me);
      if (isReference(name) && value.trim().startsWith('#')) own.push(value.trim().slice(1));
      else if (isReference(name)) this.embed(value);
      for (const [, id] of value.matchAll(/url\(\s*['"]?#([^'")\s]+)/gi)) own.push(id);
    }
    this.refers.push(own);
    this.weight.push(weightOf(tag));
    if (localName(tag) === 'style' && ++this.styleSheets > SVG_LIMITS.styleSheets)
      throw new Error(
        `it has more than ${SVG_LIMITS.styleSheets} style sheets. Put them together and save it again.`,
      );
    if (isFilterStep(tag) && ++this.filterSteps > SVG_LIMITS.filterSteps)
      throw new Error(
        `it has more than ${SVG_LIMITS.filterSteps} filter effects. Flatten them and save it again.`,
      );
  }

  close(): void {
    this.path.pop();
  }

  write(words: string): void {
    this.letters += words.trim().length;
  }

  /** An embedded picture counts by its own size, however small it is shown. */
  private embed(data: string): void {
    const comma = data.indexOf(',');
    let size: { width: number; height: number };
    try {
      size = imageSize(Buffer.from(data.slice(comma + 1), 'base64'));
    } catch {
      throw new Error('a picture embedded in it cannot be read. Embed it again and save it again.');
    }
    this.pixels += size.width * size.height;
    if (this.pixels > SVG_LIMITS.embeddedPixels)
      throw new Error(
        `the pictures embedded in it have more than ${SVG_LIMITS.embeddedPixels / 1e6} megapixels. Make them smaller and save it again.`,
      );
  }

  /** @throws a sentence where what refers to one another would be drawn too often, or there are too many letters */
  refuseEndless(): void {
    if (this.letters > SVG_LIMITS.letters)
      throw new Error(
        `it holds ${count(this.letters)} letters; up to ${count(SVG_LIMITS.letters)} are drawn. Remove text and save it again.`,
      );
    if (this.inside.length && this.drawn() > SVG_LIMITS.drawn)
      throw new Error(
        'parts or effects of it are used so often that it could not be drawn. Expand what is used, flatten effects, and save it again.',
      );
  }

  /** Elements drawn for the root: depth first, each counted once and kept. */
  private drawn(): number {
    const cost = new Array<number>(this.inside.length).fill(-1);
    const begun = new Set<number>();
    const waiting = [0];
    while (waiting.length) {
      const me = waiting.at(-1)!;
      const needs = [...this.inside[me], ...this.refers[me].flatMap((id) => this.ids.get(id) ?? [])];
      const open = begun.has(me) ? [] : needs.filter((n) => cost[n] < 0 && !begun.has(n));
      begun.add(me);
      if (open.length) waiting.push(...open);
      else {
        waiting.pop();
        // What is begun and has no cost yet leads back to itself, and is not drawn again.
        if (cost[me] < 0) cost[me] = needs.reduce((sum, n) => sum + Math.max(0, cost[n]), this.weight[me]);
      }
    }
    return cost[0];
  }
}
