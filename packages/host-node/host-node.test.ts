import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { GRADIENT_FORMS } from '@scenograph/core/elements/backdrop/gradient';
import { NEW_SET } from '@scenograph/core/stage/set';
import { NO_EFFECTS } from '@scenograph/core/raster/effects';
import { alphaPlane } from '@scenograph/core/raster/pixels';
import type { ProductData } from '@scenograph/core/data/product-data';
import { resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { newBackdrop, newProduct, newText, whiteShot } from '@scenograph/core/shot/starters';
import { MATERIALS } from '@scenograph/core/stage/materials';
import { applyFix } from '@scenograph/core/spec/checks/index';
import { readSlot } from '@scenograph/core/spec/slot';
import { encodePicture } from './encode';
import { measurePainted } from './measure';
import { createPainter } from './painter';
import { decodeGrey, decodePicture, MAX_PIXELS, RefusedPicture, takePicture } from './read-picture';

const plain = (width = 60, height = 40) =>
  sharp({ create: { width, height, channels: 3, background: { r: 200, g: 60, b: 20 } } });

async function firstPixel(bytes: Buffer): Promise<number[]> {
  const { data } = await decodePicture(bytes);
  return [...data.subarray(0, 3)];
}

test('formats come in; orientation, CMYK, 16 bits and profiles are brought to upright 8-bit sRGB', async () => {
  for (const [name, bytes] of [
    ['a.jpg', await plain().jpeg().toBuffer()],
    ['a.png', await plain().png().toBuffer()],
    ['a.webp', await plain().webp().toBuffer()],
  ] as const) {
    const taken = await takePicture(name, bytes);
    expect([taken.width, taken.height, taken.working]).toEqual([60, 40, null]);
  }
  const avif = await takePicture('a.avif', await plain().avif().toBuffer());
  expect((await decodePicture(avif.working!.bytes)).width).toBe(60);

  const turned = await takePicture('t.jpg', await plain().withMetadata({ orientation: 6 }).jpeg().toBuffer());
  expect([turned.width, turned.height]).toEqual([40, 60]);

  const cmyk = await takePicture('c.tif', await plain().toColourspace('cmyk').tiff().toBuffer());
  expect(cmyk.notes).toContain('converted from CMYK');
  const [r, g, b] = await firstPixel(cmyk.working!.bytes);
  expect(Math.abs(r - 200) + Math.abs(g - 60) + Math.abs(b - 20)).toBeLessThan(40);

  const deep = await takePicture('d.png', await plain().toColourspace('rgb16').png().toBuffer());
  expect((await sharp(deep.working!.bytes).metadata()).depth).toBe('uchar');
  expect(await firstPixel(deep.working!.bytes)).toEqual([200, 60, 20]);

  // The same numbers mean a stronger red in Display P3 than in sRGB.
  const wide = await sharp({
    create: { width: 8, height: 8, channels: 3, background: { r: 180, g: 60, b: 40 } },
  })
    .withIccProfile('p3')
    .png()
    .toBuffer();
  const converted = await takePicture('p3.png', wide);
  expect(converted.notes).toContain('converted from its colour profile to sRGB');
  expect((await sharp(converted.working!.bytes).metadata()).icc).toBeUndefined();
});

test('files that are empty, cut short, disguised, oversized or no picture are refused with a sentence', async () => {
  const noisy = await sharp({
    create: {
      width: 300,
      height: 300,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .jpeg()
    .toBuffer();
  const refused = async (name: string, bytes: Buffer) => {
    const error = await takePicture(name, bytes).catch((e) => e);
    expect(error).toBeInstanceOf(RefusedPicture);
    return (error as Error).message;
  };
  expect(await refused('e.jpg', Buffer.alloc(0))).toMatch(/empty/);
  expect(await refused('half.jpg', noisy.subarray(0, noisy.length / 2))).toMatch(/cut short|damaged/);
  expect(await refused('notes.jpg', Buffer.from('Dear all, the pictures are attached.'))).toMatch(
    /not a picture/,
  );
  expect(await refused('a.jpg', await plain().png().toBuffer())).toMatch(/really a PNG/);
  expect(await refused('a.gif', await plain().gif().toBuffer())).toMatch(/not a picture of a kind/);
  // A PNG header that promises more than is taken is refused before anything is decoded.
  const header = Buffer.from(await plain().png().toBuffer());
  header.writeUInt32BE(20_000, 16);
  header.writeUInt32BE(MAX_PIXELS / 20_000 + 1, 20);
  expect(await refused('huge.png', header)).toMatch(/megapixels|damaged/);
});

test('a matte is read by its greys, also with an alpha channel that says nothing; else by its alpha', async () => {
  const png = (rgba: number[]) =>
    sharp(Buffer.from(rgba), { raw: { width: 2, height: 1, channels: 4 } })
      .png()
      .toBuffer();
  expect([...(await decodeGrey(await png([255, 255, 255, 255, 0, 0, 0, 255]))).data]).toEqual([1, 0]);
  expect([...(await decodeGrey(await png([0, 0, 0, 255, 0, 0, 0, 0]))).data]).toEqual([1, 0]);
});

test('an SVG is drawn; one that could run or fetch something is refused', async () => {
  const svg = (inside: string, head = '') =>
    Buffer.from(`${head}<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20">${inside}</svg>`);
  const logo = await takePicture('logo.svg', svg('<rect width="40" height="20" fill="#0a0"/>'), ['svg']);
  expect([logo.width, logo.height]).toEqual([1600, 800]);
  for (const [bad, words] of [
    [svg('<script>alert(1)</script>'), /script/],
    [svg('<rect onload="x()" width="4" height="4"/>'), /script in "onload"/],
    [svg('<image href="http://example.test/x.png"/>'), /outside itself/],
    [svg('<rect style="fill:url(http://example.test/a)"/>'), /outside/],
    [svg('&a;', '<!DOCTYPE svg [<!ENTITY a "boom">]>'), /entities/],
    [Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><g></svg>'), /not well formed/],
  ] as const)
    await expect(takePicture('x.svg', bad, ['svg'])).rejects.toThrow(words);
});

describe('a painted slot', () => {
  const files = new Map<string, Buffer>();
  let data: ProductData;
  const painter = createPainter(async (hash) => files.get(hash)!);
  const slot = readSlot({
    id: 'main',
    title: 'Main',
    width: 600,
    height: 600,
    formats: ['jpeg'],
    maxBytes: 60_000,
    background: { kind: 'white', tolerance: 2, minShare: 0.995 },
    coverage: { min: 0.8, max: 0.95, wanted: 0.88 },
    marginShare: 0.02,
    overlays: 'forbidden',
  });

  beforeAll(async () => {
    const disc = await sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><ellipse cx="200" cy="150" rx="200" ry="150" fill="#286"/></svg>',
      ),
    )
      .png()
      .toBuffer();
    const picture = createHash('sha256').update(disc).digest('hex');
    files.set(picture, disc);
    data = {
      title: 'Disc',
      variant: '',
      sku: 'D',
      price: null,
      currency: 'GBP',
      widthMm: null,
      heightMm: null,
      depthMm: null,
      cutout: { picture, width: 400, height: 300 },
    };
  });

  const measure = async (shot: Parameters<typeof resolveForSlot>[0]) => {
    const resolved = resolveForSlot(shot, 'k/main', slot, data);
    const painted = await painter.paint(resolved);
    const checks = await measurePainted(painter, resolved, { painted, words: null }, slot, 'k/main');
    return { resolved, checks: Object.fromEntries(checks.map((c) => [c.check, c])) };
  };

  test('passes as it is made, and its coverage is what the painted pixels show', async () => {
    const { checks, resolved } = await measure(whiteShot(data, 'stand'));
    expect(Object.values(checks).map((c) => `${c.check} ${c.verdict}`)).toEqual([
      'pixel-size pass',
      'background pass',
      'coverage pass',
      'margin pass',
      'cut-off pass',
      'enlargement look',
      'sharpness pass',
      'colour-drift pass',
      'overlays pass',
    ]);
    expect(checks.coverage.measured).toBe('88.0 %');
    expect(checks.enlargement.measured).toBe('132 %');
    const alpha = alphaPlane((await painter.paint(resolved, { productsOnly: true })).pixels());
    expect(alpha.data[300 * 600 + 300]).toBe(1);
  });

  test('grey ground, shadow, text, small and misplaced product are stops, and each fix makes its check pass', async () => {
    let shot = whiteShot(data, 'stand');
    shot = {
      ...shot,
      elements: [
        ...shot.elements.map((e) =>
          e.kind === 'product'
            ? { ...e, shadow: { ...e.shadow, strength: 1, contact: 1 } }
            : e.kind === 'backdrop'
              ? { ...e, fill: { type: 'colour' as const, colour: '#eeeeee' } }
              : e,
        ),
        newText('t', '{price}', shot.frame),
      ],
      fits: {
        'k/main': {
          frame: { width: 600, height: 600 },
          elements: { product: { box: { x: -40, y: 250, width: 200, height: 150, rotation: 0 } } },
        },
      },
    };
    const bad = await measure(shot);
    for (const id of ['background', 'coverage', 'margin', 'overlays', 'data'])
      expect(bad.checks[id].verdict).toBe('stop');
    expect(bad.checks.margin.sentence).toMatch(/left edge/);
    for (const id of ['background', 'coverage', 'overlays']) {
      const { resolved } = await measure(shot);
      shot = applyFix(id, shot, resolved, 'k/main', slot);
      expect((await measure(shot)).checks[id].verdict).toBe('pass');
    }
    expect((await measure(shot)).checks.margin.verdict).toBe('pass');
  });

  test('is encoded within its byte limit, in every format', async () => {
    const noise = await sharp({
      create: {
        width: 120,
        height: 120,
        channels: 3,
        background: '#888',
        noise: { type: 'gaussian', mean: 128, sigma: 30 },
      },
    })
      .png()
      .toBuffer();
    const pixels = await decodePicture(noise);
    const free = (await encodePicture(pixels, 'jpeg')).bytes.length;
    for (const format of ['jpeg', 'webp'] as const) {
      const { bytes, quality } = await encodePicture(pixels, format, { maxBytes: free * 0.5 });
      expect(bytes.length).toBeLessThanOrEqual(free * 0.5);
      expect(quality).toBeGreaterThanOrEqual(40);
    }
    await expect(encodePicture(pixels, 'png', { maxBytes: 2000 })).rejects.toThrow(/even with 64 colours/);
  });
});

const made = (fill: BackdropElement['fill']): ResolvedShot => ({
  width: 240,
  height: 160,
  missing: [],
  elements: [{ ...newBackdrop('b', { width: 240, height: 160 }, '#ffffff'), fill }],
});

test('every gradient form runs from its first colour to its last; a set of each material is painted, the same for its seed', async () => {
  const painter = createPainter(async () => Buffer.alloc(0));
  const stops = [
    { at: 0, colour: '#ff0000' },
    { at: 1, colour: '#0000ff' },
  ];
  const at = async (fill: BackdropElement['fill'], x: number, y: number) => {
    const { data } = (await painter.paint(made(fill))).pixels();
    return [...data.subarray((y * 240 + x) * 4, (y * 240 + x) * 4 + 3)];
  };
  for (const form of GRADIENT_FORMS) {
    const fill = { type: 'gradient' as const, form, from: { x: 0.5, y: 0.5 }, to: { x: 1, y: 0.5 }, stops };
    const conic = form === 'conic';
    const start = await at(fill, conic ? 238 : 121, conic ? 82 : 80);
    const end = await at(fill, 238, conic ? 78 : 80);
    expect([form, start[0] > 225, end[2] > 225]).toEqual([form, true, true]);
  }
  const seen = new Set<string>();
  for (const material of MATERIALS) {
    const fill = { ...NEW_SET, material, seed: 3 };
    const one = (await painter.paint(made(fill))).pixels().data;
    const again = (await createPainter(async () => Buffer.alloc(0)).paint(made(fill))).pixels().data;
    expect(Buffer.compare(Buffer.from(one), Buffer.from(again))).toBe(0);
    seen.add(createHash('sha256').update(one).digest('hex'));
  }
  expect(seen.size).toBe(MATERIALS.length);
});

test('products stand in a set: their shadow on its table, effects around them', async () => {
  const red = await sharp({
    create: { width: 60, height: 80, channels: 4, background: { r: 200, g: 30, b: 30, alpha: 1 } },
  })
    .png()
    .toBuffer();
  const hash = createHash('sha256').update(red).digest('hex');
  const product = {
    ...newProduct(
      'p',
      {
        title: 'P',
        variant: '',
        sku: '',
        price: null,
        currency: 'GBP',
        widthMm: 90,
        heightMm: 120,
        depthMm: 90,
        cutout: { picture: hash, width: 60, height: 80 },
      },
      { width: 240, height: 160 },
      'stand',
    ),
    box: { x: 100, y: 40, width: 45, height: 60, rotation: 0 },
  };
  const paint = async (element: typeof product) => {
    const shot = made({ ...NEW_SET, material: 'plain', colour: '#cccccc', spot: 0 });
    const painter = createPainter(async () => red);
    return (await painter.paint({ ...shot, elements: [...shot.elements, element] })).pixels().data;
  };
  const lum = (data: Uint8ClampedArray, x: number, y: number) => data[(y * 240 + x) * 4 + 1];
  const bare = await paint({ ...product, shadow: { ...product.shadow, strength: 0, contact: 0 } });
  const shaded = await paint({ ...product, shadow: { ...product.shadow, strength: 0.9, contact: 0.9 } });
  // Light from the left and front: the shadow falls to the right.
  expect(lum(shaded, 156, 92)).toBeLessThan(lum(bare, 156, 92) - 25);
  expect(lum(shaded, 60, 92)).toBe(lum(bare, 60, 92));
  const outlined = await paint({
    ...product,
    effects: { ...NO_EFFECTS, outline: { width: 6, colour: '#00ff00', opacity: 1 } },
  });
  expect([...outlined.subarray((60 * 240 + 96) * 4, (60 * 240 + 96) * 4 + 3)]).toEqual([0, 255, 0]);
  expect([...outlined.subarray((60 * 240 + 122) * 4, (60 * 240 + 122) * 4 + 3)]).toEqual([200, 30, 30]);
});
