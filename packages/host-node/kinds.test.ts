import { existsSync, mkdirSync, writeFileSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { elementKinds, type ShotElement } from '@scenograph/core/elements/index';
import { psnr } from '@scenograph/core/raster/compare';
import type { Rgba } from '@scenograph/core/raster/pixels';
import { emptyShot } from '@scenograph/core/shot/document';
import { data, FRAME, HASH, ONE_OF_EACH } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { newBackdrop, newProduct } from '@scenograph/core/shot/starters';
import { readSlot } from '@scenograph/core/spec/slot';
import { createPainter } from './painter';
import { decodePicture } from './read-picture';

/** Pictures of every kind as they should look; `npm run goldens` paints them anew, to be looked at before they are kept. */
const GOLDENS = join(import.meta.dirname ?? __dirname, 'goldens');
const RENEW = !!process.env.SCENOGRAPH_RENEW_GOLDENS;
/** Rounding differs a little from one processor to another. */
const ALIKE_DB = 42;

const SIZES = [
  { name: 'base', slot: null },
  {
    name: 'tall',
    slot: readSlot({
      id: 'tall',
      title: 'Tall',
      width: 600,
      height: 900,
      formats: ['png'],
      maxBytes: 1e6,
      background: { kind: 'any' },
    }),
  },
];

/** A thing to place: a jar with a light side, drawn as SVG. */
const JAR = `<svg xmlns="http://www.w3.org/2000/svg" width="600" height="800">
  <defs><linearGradient id="g"><stop offset="0" stop-color="#9cc4b2"/><stop offset="1" stop-color="#2f5a4a"/></linearGradient></defs>
  <path d="M60 180 Q60 120 160 110 L160 40 H440 V110 Q540 120 540 180 V760 Q540 790 500 790 H100 Q60 790 60 760 Z" fill="url(#g)"/>
  <rect x="150" y="330" width="300" height="250" rx="20" fill="#f4efe2"/></svg>`;

let jar: Buffer;
const painter = createPainter(async (hash) => {
  if (hash !== HASH) throw new Error(`nothing is stored under ${hash}`);
  return jar;
});
beforeAll(async () => {
  jar = await sharp(Buffer.from(JAR)).png().toBuffer();
});

/** What an element is shown with: kinds that show a product need one, all others a ground. */
function shotOf(element: ShotElement) {
  const ground = newBackdrop('ground', FRAME, '#e8e2d4');
  const alone = element.kind === 'backdrop' ? [] : [ground];
  const withProduct = ['inset', 'pair', 'measure', 'callout'].includes(element.kind)
    ? [newProduct('thing', data, FRAME, 'stand')]
    : [];
  return { ...emptyShot(FRAME.width, FRAME.height), elements: [...alone, ...withProduct, element] };
}

async function painted(element: ShotElement, slot: (typeof SIZES)[number]['slot']): Promise<Rgba> {
  const shot = shotOf(element);
  const resolved = slot ? resolveForSlot(shot, 's/tall', slot, data) : resolveBase(shot, data);
  return (await painter.paint(resolved, { scale: 0.4 })).pixels();
}

test('every kind has a golden picture', () => {
  expect(ONE_OF_EACH.map((e) => e.kind).sort()).toEqual(
    elementKinds()
      .map((k) => k.kind)
      .sort(),
  );
});

describe.each(ONE_OF_EACH.map((element) => [element.kind, element] as const))('%s', (kind, element) => {
  test.each(SIZES.map((s) => [s.name, s.slot] as const))('looks as it did: %s', async (size, slot) => {
    const picture = await painted(element, slot);
    const path = join(GOLDENS, `${kind}-${size}.png`);
    if (RENEW) {
      mkdirSync(GOLDENS, { recursive: true });
      const { width, height, data: pixels } = picture;
      writeFileSync(
        path,
        await sharp(Buffer.from(pixels), { raw: { width, height, channels: 4 } })
          .png({ palette: false, compressionLevel: 9 })
          .toBuffer(),
      );
    }
    if (!existsSync(path))
      throw new Error(
        `There is no golden picture of ${kind}, ${size}: paint it by "npm run goldens" and look at it.`,
      );
    const golden = await decodePicture(readFileSync(path));
    expect([picture.width, picture.height]).toEqual([golden.width, golden.height]);
    expect(psnr(picture, golden)).toBeGreaterThan(ALIKE_DB);
  });

  test('is not to be seen while it is hidden, and is the same when it is painted again', async () => {
    const bytes = (p: Rgba) => createHash('sha256').update(p.data).digest('hex');
    const once = await painted(element, null);
    expect(bytes(await painted(element, null))).toBe(bytes(once));
    const without = await painted({ ...element, hidden: true }, null);
    // A logo and a watermark that have no picture yet show nothing, or words of their own.
    if (kind !== 'logo') expect(bytes(without)).not.toBe(bytes(once));
  });

  test('fades with its opacity: half of it lies between nothing and all of it', async () => {
    const [none, half, all] = await Promise.all(
      [0, 0.5, 1].map((opacity) => painted({ ...element, opacity }, null)),
    );
    let [least, most] = [0, 0];
    for (let i = 0; i < half.data.length; i++) {
      if (i % 4 === 3) continue;
      const [low, high] = [Math.min(none.data[i], all.data[i]), Math.max(none.data[i], all.data[i])];
      least = Math.max(least, low - half.data[i]);
      most = Math.max(most, half.data[i] - high);
    }
    // A backdrop fades to nothing at all; under a product its own shadow comes to be seen.
    if (kind !== 'backdrop' && kind !== 'product') expect(Math.max(least, most)).toBeLessThanOrEqual(4);
  });
});
