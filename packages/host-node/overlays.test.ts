import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { NO_EFFECTS } from '@scenograph/core/raster/effects';
import type { ShotElement } from '@scenograph/core/elements/index';
import { inkFor } from '@scenograph/core/elements/watermark/paint';
import { observeWords, type LegibilityReport } from '@scenograph/core/paint/legibility-report';
import { contrastRatio, parseHex, relativeLuminance } from '@scenograph/core/raster/colour';
import { psnr } from '@scenograph/core/raster/compare';
import type { ProductData } from '@scenograph/core/data/product-data';
import { emptyShot } from '@scenograph/core/shot/document';
import {
  newBadge,
  newInset,
  newLogo,
  newPair,
  newShape,
  newStars,
  newWatermark,
} from '@scenograph/core/shot/overlay-starters';
import { resolveBase, resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { newBackdrop, newProduct, newText } from '@scenograph/core/shot/starters';
import { applyFix, runWatch } from '@scenograph/core/spec/checks/index';
import { leastLetters } from '@scenograph/core/spec/checks/letter-size';
import { readSlot } from '@scenograph/core/spec/slot';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { createPlane, type Rgba } from '@scenograph/core/raster/pixels';
import { createPainter } from './painter';

const frame = { width: 800, height: 800 };
const store = new Map<string, Buffer>();
const painter = createPainter(async (hash) => store.get(hash)!);
const keep = (bytes: Buffer) => {
  const hash = createHash('sha256').update(bytes).digest('hex');
  store.set(hash, bytes);
  return hash;
};
const slot = (width: number, height: number) =>
  readSlot({
    id: 's', title: 's', width, height, formats: ['jpeg'], maxBytes: 1e6, background: { kind: 'any' }, safeShare: 0.04, marginShare: 0.04,
  }); // prettier-ignore
const shotOf = (...elements: ShotElement[]): ResolvedShot => ({ ...frame, elements, missing: [] });
const ground = (colour: string) => newBackdrop('ground', frame, colour);
const text = (
  id: string,
  words: string,
  colour: string,
  box: { x: number; y: number; width: number; height: number },
) => ({
  ...newText(id, words, frame),
  name: id,
  size: 60,
  smallest: 20,
  colour,
  box: { ...box, rotation: 0 },
});
const panel = (id: string, colour: string, box: { x: number; y: number; width: number; height: number }) => ({
  ...newShape(id, frame, 'panel'),
  name: id,
  colour,
  radius: 0,
  box: { ...box, rotation: 0 },
});
async function looked(shot: ResolvedShot, scale = 1): Promise<LegibilityReport[]> {
  const { observer, reports } = observeWords();
  await painter.paint(shot, { scale }, observer);
  return reports();
}
const pixel = ({ data, width }: Rgba, x: number, y: number) => [
  ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3),
];
const luminance = (hex: string) => relativeLuminance(...parseHex(hex));

/** A product of four coloured quarters. */
async function quarters(): Promise<ProductData> {
  const side = 400;
  const data = Buffer.alloc(side * side * 3);
  for (let i = 0; i < side * side; i++) {
    const [right, low] = [i % side >= side / 2, i >= (side * side) / 2];
    data.set(right ? (low ? [200, 180, 20] : [20, 160, 60]) : low ? [30, 60, 200] : [200, 40, 40], i * 3);
  }
  const png = await sharp(data, { raw: { width: side, height: side, channels: 3 } })
    .png()
    .toBuffer();
  return {
    title: 'Quarters', variant: '', sku: 'Q', price: 24, currency: 'GBP', widthMm: 100, heightMm: 100, depthMm: 100,
    fields: { was: '30', rating: '4.5', reviews: '12' }, cutout: { picture: keep(png), width: side, height: side },
  }; // prettier-ignore
}

function chances(seed: number): () => number {
  let a = seed;
  return () => {
    a = (Math.imul(a ^ (a >>> 15), 1 | a) + 0x6d2b79f5) | 0;
    return ((a ^ (a >>> 13)) >>> 0) / 4294967296;
  };
}
const grey = (v: number) => `#${Math.round(v).toString(16).padStart(2, '0').repeat(3)}`;

test('generated contrasts: none below the limit is missed, fewer than 2 in 100 false alarms', async () => {
  const chance = chances(5);
  let [low, missed, fine, alarms] = [0, 0, 0, 0];
  for (let i = 0; i < 160; i++) {
    // Ink on ground of one tone, or of two that meet under the words.
    const ink = grey(chance() * 255);
    const tones = [grey(chance() * 255), grey(chance() * 255)];
    const split = chance() > 0.5;
    const words = text('words', 'Glazed by hand', ink, { x: 90, y: 300, width: 620, height: 120 });
    const half = panel('half', tones[1], { x: 300, y: 0, width: 500, height: 800 });
    const known = Math.min(
      ...tones.slice(0, split ? 2 : 1).map((t) => contrastRatio(luminance(ink), luminance(t))),
    );
    if (Math.abs(known - 4.5) < 0.2) continue;
    const [look] = await looked(shotOf(ground(tones[0]), ...(split ? [half] : []), words), 0.5);
    const flagged = look.contrast < 4.45;
    if (known < 4.5) {
      low++;
      if (!flagged) missed++;
    } else {
      fine++;
      if (flagged) alarms++;
    }
  }
  expect(Math.min(low, fine)).toBeGreaterThan(25);
  expect(missed).toBe(0);
  expect(alarms / fine).toBeLessThan(0.02);
});

test('generated collisions: none is missed, fewer than 2 in 100 false alarms; who covers is named', async () => {
  const chance = chances(11);
  let [hit, missed, free, alarms] = [0, 0, 0, 0];
  for (let i = 0; i < 120; i++) {
    const stars = i % 3 === 0;
    const box = { x: 200, y: 350, width: 400, height: 90 };
    const subject: ShotElement = stars
      ? { ...newStars('words', frame), text: '', rating: '4', box: { ...box, rotation: 0 } }
      : text('words', 'Season’s end', '#222222', box);
    const [bare] = await looked(shotOf(ground('#ffffff'), subject), 0.5);
    const b = bare.bounds;
    const covers = chance() > 0.5;
    // Over at least a sixth of the signs, or clear of them by a little.
    const reach = covers ? b.width * (0.17 + 0.5 * chance()) : -(3 + chance() * 30);
    const left = chance() > 0.5;
    const over = panel('cover', '#3366aa', {
      x: left ? b.x - 300 + reach : b.x + b.width - reach,
      y: b.y - 20,
      width: 300,
      height: b.height + 40,
    });
    const [look] = await looked(shotOf(ground('#ffffff'), subject, over), 0.5);
    const flagged = look.covered.some((c) => c.by === 'cover' && c.share > 0.02);
    if (covers) {
      hit++;
      if (!flagged) missed++;
    } else {
      free++;
      if (flagged) alarms++;
    }
  }
  expect(Math.min(hit, free)).toBeGreaterThan(40);
  expect([missed, alarms]).toEqual([0, 0]);
});

test('an outline and a panel count as what lies beside letters; fixes make words stand out', async () => {
  const words = text('words', 'Reduced', '#ffffff', { x: 90, y: 300, width: 620, height: 120 });
  const bare = shotOf(ground('#e8e8e8'), words);
  expect((await looked(bare))[0].contrast).toBeLessThan(1.4);
  const outline = { ...NO_EFFECTS, outline: { width: 10, colour: '#102010', opacity: 1 } };
  expect(
    (await looked(shotOf(ground('#e8e8e8'), { ...words, effects: outline })))[0].contrast,
  ).toBeGreaterThan(10);
  const subject = {
    slot: slot(800, 800), slotKey: '', width: 800, height: 800, picture: (await painter.paint(bare)).pixels(),
    products: createPlane(800, 800), shot: bare, words: await looked(bare), sources: new Map(),
  }; // prettier-ignore
  const fault = runWatch(subject).find((r) => r.check === 'legibility')!;
  expect(fault.verdict).toBe('stop');
  const fixed = applyFix(
    'legibility',
    { ...emptyShot(800, 800), elements: bare.elements },
    bare,
    '',
    subject.slot,
    fault.about,
  );
  expect((await looked({ ...bare, elements: fixed.elements }))[0].contrast).toBeGreaterThan(7);
});

test('stars are filled by their fraction', async () => {
  const stars = {
    ...newStars('s', frame),
    text: '',
    rating: '2.5',
    colour: '#ff0000',
    empty: '#0000ff',
    box: { x: 100, y: 300, width: 600, height: 110, rotation: 0 },
  };
  const { data } = (await painter.paint(shotOf(ground('#ffffff'), stars))).pixels();
  let [red, blue] = [0, 0];
  for (let i = 0; i < data.length; i += 4) {
    if (data[i] > 200 && data[i + 1] < 60) red++;
    if (data[i + 2] > 200 && data[i] < 60) blue++;
  }
  expect(red / (red + blue)).toBeCloseTo(0.5, 1);
  const none = (await painter.paint(shotOf(ground('#ffffff'), { ...stars, rating: '0' }))).pixels().data;
  expect(none.some((v, i) => i % 4 === 0 && v > 200 && none[i + 1] < 60)).toBe(false);
});

test('a logo takes the picture made for the ground it lies on', async () => {
  const mark = async (r: number, g: number, b: number) =>
    keep(
      await sharp({ create: { width: 30, height: 10, channels: 3, background: { r, g, b } } })
        .png()
        .toBuffer(),
    );
  const logo = {
    ...newLogo('l', frame, null),
    light: await mark(10, 60, 10),
    dark: await mark(250, 240, 220),
    box: { x: 300, y: 300, width: 300, height: 100, rotation: 0 },
  };
  const seen = async (colour: string) =>
    pixel((await painter.paint(shotOf(ground(colour), logo))).pixels(), 450, 350);
  expect(await seen('#f4efe2')).toEqual([10, 60, 10]);
  expect(await seen('#1b2a22')).toEqual([250, 240, 220]);
});

test('a watermark changes every ground by as much to the eye, and is covered nowhere by white on white', async () => {
  const lightness = (y: number) => (y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y);
  for (const colour of ['#ffffff', '#cfc7b8', '#808080', '#3a4a40', '#000000']) {
    const mark = {
      ...newWatermark('w', frame, null),
      mark: 'words' as const,
      text: 'SAMPLE',
      pattern: 'tiled' as const,
      strength: 14,
    };
    const { data } = (await painter.paint(shotOf(ground(colour), mark))).pixels();
    const own = lightness(luminance(colour));
    let most = 0;
    for (let i = 0; i < data.length; i += 4)
      most = Math.max(most, Math.abs(lightness(relativeLuminance(data[i], data[i + 1], data[i + 2])) - own));
    expect([colour, most > 9 && most < 22]).toEqual([colour, true]);
  }
  expect(inkFor(0.9, 12).colour).toBe('#000000');
});

test('a close-up shows the spot of the product it names, enlarged', async () => {
  const data = await quarters();
  const product = newProduct('p', data, frame, 'stand');
  const at = async (x: number, y: number) => {
    const inset = {
      ...newInset('i', frame, 'cutout'),
      spot: { x, y },
      across: 0.2,
      leader: 'none' as const,
      mark: 'none' as const,
      effects: NO_EFFECTS,
      box: { x: 560, y: 20, width: 200, height: 200, rotation: 0 },
    };
    const shot = { ...emptyShot(800, 800), elements: [ground('#ffffff'), product, inset] };
    const painted = (await painter.paint(resolveBase(shot, data))).pixels();
    return pixel(painted, 660, 120).map((v) => Math.round(v / 40));
  };
  const near = (rgb: number[]) => rgb.map((v) => Math.round(v / 40));
  expect(await at(0.25, 0.25)).toEqual(near([200, 40, 40]));
  expect(await at(0.75, 0.25)).toEqual(near([20, 160, 60]));
  expect(await at(0.25, 0.75)).toEqual(near([30, 60, 200]));
});

test('ring and shadow of a close-up turn light on dark ground', async () => {
  const data = await quarters();
  const inset = {
    ...newInset('i', frame, 'cutout'),
    ring: { width: 16, colour: '#203020' },
    box: { x: 500, y: 500, width: 240, height: 240, rotation: 0 },
  };
  const ringAt = async (colour: string) => {
    const small = {
      ...newProduct('p', data, frame, 'stand'),
      box: { x: 40, y: 40, width: 200, height: 200, rotation: 0 },
    };
    const shot = { ...emptyShot(800, 800), elements: [ground(colour), small, inset] };
    return pixel((await painter.paint(resolveBase(shot, data))).pixels(), 620, 732);
  };
  expect(Math.max(...(await ringAt('#f0ece0')))).toBeLessThan(90);
  expect(Math.min(...(await ringAt('#101814')))).toBeGreaterThan(200);
});

test('a pair is split where it says; matched tone brings the one before to the other', async () => {
  const noisy = async (level: number, spread: number) => {
    const raw = Buffer.alloc(100 * 100 * 3, 0).map(
      (_, i) => level + (Math.floor(i / 3) % 2 ? spread : -spread),
    );
    return keep(
      await sharp(raw, { raw: { width: 100, height: 100, channels: 3 } })
        .png()
        .toBuffer(),
    );
  };
  const pair = {
    ...newPair('p', frame, true),
    labels: null,
    divider: { width: 0, colour: '#ffffff' },
    at: 0.25,
  };
  const halves = {
    before: { ...pair.before, picture: await noisy(70, 10) },
    after: { ...pair.after, picture: await noisy(190, 20) },
  };
  const mean = async (matchTone: number, x: number) => {
    const painted = (
      await painter.paint(shotOf(ground('#000000'), { ...pair, ...halves, matchTone }), { scale: 0.125 })
    ).pixels();
    const list = Array.from({ length: 40 }, (_, i) => pixel(painted, x + (i % 4), 20 + i)[0]);
    return list.reduce((a, b) => a + b, 0) / list.length;
  };
  expect(Math.abs((await mean(0, 8)) - 70)).toBeLessThan(4);
  expect(Math.abs((await mean(0, 60)) - 190)).toBeLessThan(4);
  expect(Math.abs((await mean(1, 8)) - 190)).toBeLessThan(8);
});

test('what is painted with effects once is painted the same again, and anew when it changes', async () => {
  const badge = {
    ...newBadge('b', frame, 'price'),
    amount: '24',
    effects: { ...NO_EFFECTS, glow: { size: 40, colour: '#ffcc00', opacity: 0.8 } },
  };
  const paint = async (e: typeof badge) => (await painter.paint(shotOf(ground('#2a3a30'), e))).pixels();
  const first = await paint(badge);
  expect(psnr(first, await paint({ ...badge, name: 'another name' }))).toBe(Infinity);
  expect(psnr(first, await paint({ ...badge, fill: '#204060' }))).toBeLessThan(40);
});

test('painting on from a kept picture gives the same picture as painting it whole', async () => {
  const data = await quarters();
  const shot = fillTemplate(DESIGNS.find((d) => d.id === 'sale-half')!.document, data, 'stand');
  const other = createPainter(async (hash) => store.get(hash)!);
  const at = (id: string, x: number) => ({
    ...shot,
    elements: shot.elements.map((e) => (e.id === id ? { ...e, box: { ...e.box, x } } : e)),
  });
  const steps = [
    at('badge-1', 100),
    at('badge-1', 140),
    at('badge-1', 180),
    at('text-1', 60),
    at('text-1', 90),
    at('product-1', 700),
    shot,
  ];
  for (const [i, step] of steps.entries()) {
    const resolved = resolveBase(step, data);
    const on = (await other.paint(resolved, { scale: 0.3, resumes: true })).pixels();
    const whole = (await painter.paint(resolved, { scale: 0.3 })).pixels();
    expect([i, psnr(on, whole) > 60]).toEqual([i, true]);
  }
});

test('every design fits a wide strip and a tall one with nothing covered, all letters readable and the product whole', async () => {
  const data = await quarters();
  for (const { id, document } of DESIGNS) {
    const shot = fillTemplate(document, data, 'stand');
    for (const [width, height] of [
      [728, 90],
      [160, 600],
    ]) {
      const resolved = resolveForSlot(shot, 'a/b', slot(width, height), data);
      const looks = await looked(resolved);
      const of = `${id} at ${width} x ${height}`;
      const pair = resolved.elements.some((e) => e.kind === 'pair');
      if (!pair) expect([of, looks.length > 0]).toEqual([of, true]);
      for (const look of looks) {
        const told = `${of}: ${look.text}`;
        expect([told, look.covered.filter((c) => c.share > 0.08)]).toEqual([told, []]);
        expect([told, look.outside < 0.02, look.cut]).toEqual([told, true, 0]);
        if (!look.sign && look.kind === 'text')
          expect([told, look.size >= leastLetters(width, height) - 1.2]).toEqual([told, true]);
      }
      for (const e of resolved.elements)
        if (e.kind === 'product') {
          const { box } = e;
          const inside =
            box.x >= -1 && box.y >= -1 && box.x + box.width <= width + 1 && box.y + box.height <= height + 1;
          expect([of, inside]).toEqual([of, true]);
        }
    }
  }
});
