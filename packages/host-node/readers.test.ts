import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { readProductData } from '@scenograph/core/data/product-data';
import { readSteps } from '@scenograph/core/recipe/recipe';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import { readSlot } from '@scenograph/core/spec/slot';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { surveySchema } from '@scenograph/core/stage/survey';
import { decodeText } from '@scenograph/core/table/decode-text';
import { readTable } from '@scenograph/core/table/read-table';
import { checkSvg } from './check-svg';
import { decodePicture, sniffFormat } from './read-picture';
import { inkSvg, svgColours, svgFonts } from './svg-colours';
import { takeFont } from './take-font';

/** Whatever is read from outside ends in a value or in a sentence: 10,000 broken files in all. */
const ROOT = join(import.meta.dirname ?? __dirname, '../..');
const text = (path: string) => readFileSync(join(ROOT, path), 'utf8');
const list = (folder: string, ending: string) =>
  readdirSync(join(ROOT, folder))
    .filter((f) => f.endsWith(ending))
    .map((f) => `${folder}/${f}`);

/** A refusal is one sentence for a person: no stack, no path, no mention of the code. */
function refusal(read: () => unknown): string | null {
  try {
    read();
    return null;
  } catch (error) {
    const { message, constructor } = error as Error;
    expect(constructor.name).not.toMatch(/TypeError|RangeError|ReferenceError/);
    expect(message).toMatch(/[.!?]$/);
    expect(message).not.toMatch(/undefined(?! entity)|\[object|node_modules|at \w+ \(/);
    return message;
  }
}

/** A JSON value with one place changed, added or left out. */
const broken = (whole: unknown) => {
  const places: (string | number)[][] = [];
  const walk = (value: unknown, path: (string | number)[]) => {
    if (path.length) places.push(path);
    if (typeof value === 'object' && value !== null && path.length < 6)
      for (const [key, inner] of Object.entries(value))
        walk(inner, [...path, Array.isArray(value) ? Number(key) : key]);
  };
  walk(whole, []);
  return fc
    .tuple(
      fc.constantFrom(...places),
      fc.oneof(
        fc.constant(undefined),
        fc.jsonValue({ maxDepth: 2 }),
        fc.double(),
        fc.constantFrom(-1, 1e12, '', '\u0000', '__proto__'),
      ),
    )
    .map(([path, value]) => {
      const copy = JSON.parse(JSON.stringify(whole)) as never;
      let at = copy as Record<string | number, unknown>;
      for (const key of path.slice(0, -1)) at = at[key] as typeof at;
      const last = path.at(-1)!;
      if (value === undefined) delete at[last];
      else at[last] = value;
      return copy;
    });
};

const SHEETS = list('demo/spec-sheets', '.json');
const SCENES = list('demo/assets/scenes', '.json');

describe('spec sheets', () => {
  test.each(SHEETS)('%s is read, and read again as it was written', (path) => {
    const sheet = readSpecSheet(JSON.parse(text(path)));
    expect(readSpecSheet(JSON.parse(JSON.stringify(sheet)))).toEqual(sheet);
  });

  test('a broken one is refused with a sentence', () => {
    const whole = readSpecSheet(JSON.parse(text(SHEETS[0])));
    let refused = 0;
    fc.assert(
      fc.property(
        broken({ ...whole, slots: whole.slots.slice(0, 3) }),
        (sheet) => void (refused += refusal(() => readSpecSheet(sheet)) ? 1 : 0),
      ),
      { numRuns: 2000 },
    );
    expect(refused).toBeGreaterThan(500);
  });

  test('what is read of a slot is a slot: read again it is itself', () => {
    const [whole] = readSpecSheet(JSON.parse(text(SHEETS[0]))).slots;
    fc.assert(
      fc.property(broken(whole), (value) => {
        let slot;
        if (refusal(() => (slot = readSlot(value)))) return;
        expect(readSlot(slot)).toEqual(slot);
      }),
      { numRuns: 1500 },
    );
  });
});

describe('side-files of scenes', () => {
  test.each(SCENES)('%s is read, and its survey is valid', (path) => {
    const { survey, title } = readSceneFile(text(path));
    expect(title).toBeTruthy();
    expect(surveySchema.validate(survey, { convert: false }).error).toBeUndefined();
  });

  test('a broken one is refused with a sentence that names it', () => {
    for (const path of SCENES.slice(0, 2))
      fc.assert(
        fc.property(broken(JSON.parse(text(path))), (value) => {
          const says = refusal(() => readSceneFile(JSON.stringify(value), 'sill.json'));
          if (says) expect(says).toContain('"sill.json"');
        }),
        { numRuns: 1000 },
      );
    expect(refusal(() => readSceneFile('{"name": ', 'sill.json'))).toContain('is not JSON');
  });
});

test('product data and recipes: a broken one is refused with a sentence', () => {
  const data = {
    title: 'Planter',
    variant: 'Teal',
    sku: 'MB-1',
    price: 24,
    currency: 'GBP',
    widthMm: 1,
    heightMm: 2,
    depthMm: 3,
    fields: { was: '30' },
    cutout: { picture: 'c'.repeat(64), width: 3, height: 4 },
  };
  fc.assert(
    fc.property(broken(data), (value) => void refusal(() => readProductData(value))),
    { numRuns: 1000 },
  );
  fc.assert(
    fc.property(fc.jsonValue(), (value) => void refusal(() => readSteps(value))),
    { numRuns: 500 },
  );
});

describe('tables', () => {
  test('any bytes are a text or are refused with a sentence, and any text is a table', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        let decoded = { text: '' };
        const decode = (b: Uint8Array, encoding: string, strict: boolean) =>
          new TextDecoder(encoding, { fatal: strict }).decode(b);
        if (refusal(() => (decoded = decodeText(bytes, decode)))) return;
        const table = readTable(decoded.text);
        for (const row of table.rows) expect(row).toHaveLength(table.columns.length);
        expect(table.lines).toHaveLength(table.rows.length);
        for (const p of table.problems) expect(p.text).toMatch(/[.?]$/);
      }),
      { numRuns: 1500 },
    );
  });
});

describe('SVG', () => {
  const [good] = list('demo/artwork', '.svg').map(text);
  const wrapped = (inner: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10">${inner}</svg>`;

  test.each([
    ['a script', '<script>1</script>', 'script'],
    ['an event', '<rect onload="x()"/>', 'onload'],
    ['a picture from elsewhere', '<image href="https://example.org/a.png"/>', 'outside itself'],
    ['a style from elsewhere', '<style>@import "a.css"</style>', 'from outside'],
    ['a fill from elsewhere', '<rect fill="url(http://example.org/a)"/>', 'from outside'],
    ['a foreign object', '<foreignObject/>', 'foreignObject'],
    ['broken nesting', '<g><rect></g>', 'not well formed'],
  ])('%s is refused and named', (_, inner, says) => {
    expect(refusal(() => checkSvg(wrapped(inner)))).toContain(says);
  });

  test('entities are refused, and what is plain is taken', () => {
    expect(refusal(() => checkSvg(`<!DOCTYPE svg [<!ENTITY a "b">]>${wrapped('&a;')}`))).toBeTruthy();
    expect(refusal(() => checkSvg(wrapped('<rect fill="url(#g)"/><use href="#a"/>')))).toBeNull();
    expect(refusal(() => checkSvg(good))).toBeNull();
  });

  test('a file cut, doubled or scribbled in is refused with a sentence or is still safe', () => {
    fc.assert(
      fc.property(fc.nat(good.length), fc.nat(40), fc.string({ maxLength: 12 }), (at, gone, put) => {
        refusal(() => checkSvg(good.slice(0, at) + put + good.slice(at + gone)));
      }),
      { numRuns: 1500 },
    );
  });

  test('its colours are found and changed, and nothing else is', () => {
    const svg = wrapped(
      '<rect fill="#F00" stroke="none"/><path style="fill: rgb(0,128,0); stroke:#00f"/><circle/>',
    );
    expect(svgColours(svg).sort()).toEqual(['#000000', '#0000ff', '#008000', '#ff0000']);
    const inked = inkSvg(svg, { '#ff0000': '#123456', '#0000ff': '#abcdef' });
    expect(svgColours(inked).sort()).toEqual(['#000000', '#008000', '#123456', '#abcdef']);
    expect(inkSvg(inked, {})).toBe(inked);
    expect(svgFonts(wrapped('<text font-family="Futura, serif">a</text>'))).toEqual(['Futura']);
    expect(svgFonts(wrapped('<rect/>'))).toEqual([]);
  });
});

describe('fonts', () => {
  const folder = 'packages/core/type/fonts';
  const file = readFileSync(
    join(
      ROOT,
      folder,
      readdirSync(join(ROOT, folder)).find((f) => f.startsWith('bitter') && f.endsWith('.woff'))!,
    ),
  );

  test('a whole one is taken with its names', async () => {
    const taken = await takeFont('bitter.woff', file);
    expect(taken.family).toMatch(/bitter/i);
    expect(taken.bytes.length).toBeGreaterThan(1000);
  });

  test('one that is cut or scribbled in is refused by name, or can still be set', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.nat(file.length - 1),
        fc.uint8Array({ minLength: 1, maxLength: 64 }),
        async (at, bytes) => {
          const cut = Buffer.from(file.subarray(0, Math.max(4, at)));
          await expect(takeFont('cut.woff', cut)).rejects.toThrow(/"cut.woff" cannot be used as a font/);
          const scribbled = Buffer.from(file);
          scribbled.set(bytes.subarray(0, Math.min(bytes.length, file.length - at)), at);
          const says = await takeFont('odd.woff', scribbled).then(
            () => null,
            (e: Error) => e.message,
          );
          if (says) expect(says).toContain('"odd.woff"');
        },
      ),
      { numRuns: 25 },
    );
  });
});

test('any bytes are no picture, or one that is refused: never half a picture', async () => {
  await fc.assert(
    fc.asyncProperty(fc.uint8Array({ maxLength: 200 }), async (bytes) => {
      const format = sniffFormat(bytes);
      const decoded = await decodePicture(bytes).catch((e: Error) => e);
      expect(decoded instanceof Error || format !== null).toBe(true);
    }),
    { numRuns: 300 },
  );
});
