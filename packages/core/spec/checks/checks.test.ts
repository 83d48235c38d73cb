import fc from 'fast-check';
import { createPlane, createRgba } from '../../raster/pixels';
import type { LegibilityReport } from '../../paint/legibility-report';
import type { ProductData } from '../../data/product-data';
import { BASE } from '../../shot/edit';
import { emptyShot, type Shot } from '../../shot/document';
import { newLogo, newShape, newWatermark } from '../../shot/overlay-starters';
import { resolveBase, resolveForSlot } from '../../shot/resolve';
import { newBackdrop, newProduct, newText } from '../../shot/starters';
import { readSlot, type Slot } from '../slot';
import { altText } from './alt-text';
import { clearSpace } from './clear-space';
import { collision } from './collision';
import { coverage } from './coverage';
import { cutOff } from './cut-off';
import { data as dataCheck } from './data';
import type { Check, Finding, Subject } from './check';
import { enlargement } from './enlargement';
import { fileFormat } from './file-format';
import { fileSize } from './file-size';
import { applyFix, CHECKS, judgeMeasures, measureAll } from './index';
import { legibility } from './legibility';
import { leastLetters, letterSize, THUMBNAIL } from './letter-size';
import { letters } from './letters';
import { margin } from './margin';
import { nameClashes } from './name-clash';
import { overlays } from './overlays';
import { pixelSize } from './pixel-size';
import { safeZone } from './safe-zone';
import { sharpness } from './sharpness';
import { textShare } from './text-share';
import { watermark } from './watermark';

const SIDE = 400;
const slotOf = (change: object = {}): Slot =>
  readSlot({
    id: 'main',
    title: 'Main',
    width: SIDE,
    height: SIDE,
    formats: ['jpeg'],
    maxBytes: 100_000,
    background: { kind: 'any' },
    ...change,
  });
const slot = slotOf();

/** A grey picture of the slot's size with a product in a rectangle. */
const subjectOf = (
  more: Partial<Subject> = {},
  at = { x: 100, y: 100, width: 200, height: 200 },
): Subject => {
  const products = createPlane(SIDE, SIDE);
  for (let y = at.y; y < at.y + at.height; y++)
    for (let x = at.x; x < at.x + at.width; x++) products.data[y * SIDE + x] = 1;
  const picture = createRgba(SIDE, SIDE);
  picture.data.fill(255);
  return {
    slot,
    slotKey: 's/main',
    width: SIDE,
    height: SIDE,
    picture,
    products,
    shot: null,
    words: null,
    sources: new Map(),
    ...more,
  };
};

/** A block of words as the painter has seen it. */
const word = (change: Partial<LegibilityReport> = {}): LegibilityReport => ({
  id: 'headline',
  name: 'Headline',
  kind: 'text',
  text: 'Hand thrown',
  sign: false,
  size: 40,
  bounds: { x: 100, y: 100, width: 200, height: 50 },
  contrast: 12,
  weakest: { x: 100, y: 100, width: 40, height: 40 },
  ground: 1,
  outside: 0,
  covered: [],
  cut: 0,
  unprintable: [],
  ...change,
});
const seen = (...words: LegibilityReport[]) => ({ width: SIDE, height: SIDE, words });

/** What a check says, as a list. */
const says = <M>(check: Check<M>, measured: M, by = slot): Finding[] => {
  const found = check.judge(measured, by) ?? [];
  return Array.isArray(found) ? found : [found];
};
const verdicts = (list: Finding[]) => list.map((f) => f.verdict);

const FRAME = { width: SIDE, height: SIDE };
const product: ProductData = {
  id: 'v',
  title: 'Planter',
  variant: 'Teal',
  sku: 'MB-1',
  price: 24,
  currency: 'GBP',
  widthMm: 120,
  heightMm: 160,
  depthMm: 120,
  cutout: { picture: 'c'.repeat(64), width: 300, height: 400 },
};
const shotOf = (...elements: Shot['elements']): Shot => ({ ...emptyShot(SIDE, SIDE), elements });

describe('every check', () => {
  test('has an id of its own and a title', () => {
    expect(new Set(CHECKS.map((c) => c.id)).size).toBe(CHECKS.length);
    for (const { id, title } of CHECKS)
      expect([id, title]).toEqual([expect.stringMatching(/^[a-z-]+$/), expect.stringMatching(/^[A-Z]/)]);
  });

  test('measures plain JSON, judges it the same after it was stored, and says sentences with a limit', () => {
    const shot = shotOf(
      newBackdrop('backdrop', FRAME, '#ffffff'),
      newProduct('product', product, FRAME, 'stand'),
      newText('text', 'For {title}', FRAME),
      newLogo('logo', FRAME, null),
      newWatermark('watermark', FRAME, null),
    );
    const subject = subjectOf({
      shot: resolveForSlot(shot, 's/main', slot, product),
      words: [
        word({
          contrast: 1.2,
          cut: 3,
          covered: [{ by: 'Planter', id: 'product', share: 0.3 }],
          outside: 0.2,
        }),
      ],
      file: { format: 'png', bytes: 300_000, density: null, profile: 'none' },
      alt: '',
      sources: new Map([['c'.repeat(64), { width: 30, height: 40 }]]),
    });
    const strict = slotOf({
      background: { kind: 'white', tolerance: 0 },
      coverage: { min: 0.8, max: 0.9 },
      marginShare: 0.3,
      overlays: 'forbidden',
      watermark: 'forbidden',
      altText: 'required',
      maxTextShare: 0.01,
      safeShare: 0.3,
    });
    const measures = measureAll({ ...subject, slot: strict });
    const stored = JSON.parse(JSON.stringify(measures)) as typeof measures;
    const results = judgeMeasures(stored, strict);
    expect(results).toEqual(judgeMeasures(measures, strict));
    expect(results.filter((r) => r.verdict !== 'pass').length).toBeGreaterThan(8);
    for (const { sentence, limit, measured, where } of results) {
      expect(sentence).toMatch(/^["A-Z0-9].*\.$/);
      expect(limit && measured).toBeTruthy();
      if (where) for (const part of Object.values(where)) expect(part).toBeGreaterThanOrEqual(0);
    }
  });

  test('that offers a fix can make it, and leaves the shot it was given alone', () => {
    const shot = shotOf(
      newBackdrop('backdrop', FRAME, '#888888'),
      newProduct('product', product, FRAME, 'stand'),
      newText('text', 'Hand thrown', FRAME),
      newWatermark('watermark', FRAME, null),
    );
    const before = JSON.stringify(shot);
    const resolved = resolveForSlot(shot, 's/main', slot, product);
    for (const check of CHECKS.filter((c) => c.fix)) {
      const fixed = applyFix(
        check.id,
        shot,
        resolved,
        's/main',
        slotOf({ coverage: { min: 0.85 }, marginShare: 0.05 }),
        { id: 'text', value: 1.5 },
      );
      expect(JSON.stringify(shot)).toBe(before);
      // A fix for a slot changes no element of the base, but for its depth.
      const base = (s: Shot) => [...s.elements].sort((a, b) => (a.id < b.id ? -1 : 1));
      expect(base(fixed)).toEqual(base(shot));
    }
    expect(() => applyFix('pixel-size', shot, resolved, 's/main', slot)).toThrow('has no fix');
  });
});

describe('file', () => {
  test('size: at the limit it fits, one byte over it does not, and says by how much', () => {
    expect(verdicts(says(fileSize, { bytes: 100_000 }))).toEqual(['pass']);
    const [over] = says(fileSize, { bytes: 101_234 });
    expect([over.verdict, over.sentence]).toEqual(['stop', expect.stringContaining('1,234 bytes more')]);
  });

  test('format, profile and density are judged together and each fault is named', () => {
    const by = slotOf({ formats: ['jpeg', 'webp'], colourSpace: 'srgb', density: 300 });
    const good = { format: 'webp', bytes: 1, density: 300.2, profile: 'srgb' as const };
    expect(verdicts(says(fileFormat, good, by))).toEqual(['pass']);
    const [bad] = says(fileFormat, { ...good, format: 'png', density: null, profile: 'p3' }, by);
    expect(bad.verdict).toBe('stop');
    for (const part of ['it is png', 'profile is Display P3', 'density is not written'])
      expect(bad.sentence).toContain(part);
    expect(
      verdicts(
        says(
          fileFormat,
          { ...good, profile: 'p3', density: 72 },
          slotOf({ formats: ['webp'], colourSpace: 'any' }),
        ),
      ),
    ).toEqual(['pass']);
  });

  test('pixel size: exact, or anywhere within the limits', () => {
    expect(verdicts(says(pixelSize, { width: SIDE, height: SIDE }))).toEqual(['pass']);
    expect(verdicts(says(pixelSize, { width: SIDE + 1, height: SIDE }))).toEqual(['stop']);
    const by = slotOf({ limits: { minWidth: 300, maxHeight: 500, minAspect: 0.75, maxAspect: 1.5 } });
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 900 }), fc.integer({ min: 200, max: 900 }), (width, height) => {
        const aspect = width / height;
        // The tolerance of aspects is not what is asked about here.
        fc.pre([0.75, 1.5].every((a) => Math.abs(aspect - a) > 0.01));
        const fits = width >= 300 && height <= 500 && aspect >= 0.75 && aspect <= 1.5;
        const [found] = says(pixelSize, { width, height }, by);
        expect(found.verdict).toBe(fits ? 'pass' : 'stop');
        if (width < 300) expect(found.sentence).toContain('at least 300 px wide');
        if (height > 500) expect(found.sentence).toContain('at most 500 px high');
      }),
    );
  });

  test('alternative text: needed or not, and not too long', () => {
    expect(altText.measure(subjectOf())).toBeNull();
    expect(altText.measure(subjectOf({ alt: '  A planter ' }))).toEqual({ length: 9 });
    expect(verdicts(says(altText, { length: 0 }))).toEqual(['look']);
    expect(verdicts(says(altText, { length: 0 }, slotOf({ altText: 'required' })))).toEqual(['stop']);
    expect(verdicts(says(altText, { length: 250 }))).toEqual(['pass']);
    expect(verdicts(says(altText, { length: 251 }))).toEqual(['look']);
  });

  test('names clash within a folder, whatever their case', () => {
    const clashes = nameClashes([
      { key: 'a', folder: 'Kestrel', name: 'mb-1' },
      { key: 'b', folder: 'Kestrel', name: 'MB-1' },
      { key: 'c', folder: 'Bazaar', name: 'mb-1' },
    ]);
    expect([...clashes.keys()]).toEqual(['a', 'b']);
    expect(clashes.get('a')!.sentence).toContain('2 pictures');
  });
});

describe('product', () => {
  test('coverage is the longer side, and names the factor that mends it', () => {
    const by = slotOf({ coverage: { min: 0.6, max: 0.9 } });
    const at = (width: number, height: number) =>
      says(coverage, coverage.measure(subjectOf({}, { x: 10, y: 10, width, height }))!, by)[0];
    expect(at(240, 100).verdict).toBe('pass');
    expect(at(100, 240).verdict).toBe('pass');
    expect([at(120, 80).verdict, at(120, 80).sentence]).toEqual([
      'stop',
      expect.stringContaining('2.00 times as large'),
    ]);
    expect(at(380, 380).sentence).toContain('times smaller');
    expect(
      says(coverage, coverage.measure(subjectOf({}, { x: 0, y: 0, width: 0, height: 0 }))!, by)[0].sentence,
    ).toContain('No product');
    expect(says(coverage, { bounds: null })).toEqual([]);
  });

  test('margin is the least of four gaps, and names the side', () => {
    const by = slotOf({ marginShare: 0.05 });
    const at = (x: number, y: number) =>
      says(margin, margin.measure(subjectOf({}, { x, y, width: 200, height: 200 }))!, by)[0];
    expect(at(100, 100).verdict).toBe('pass');
    expect([at(5, 100).verdict, at(5, 100).measured]).toEqual(['stop', '5 px left']);
    expect(at(100, 195).measured).toBe('5 px bottom');
    expect(at(0, 100).sentence).toContain('runs into the left edge');
    // Where no margin is asked for, touching is for a person to judge.
    const [touching] = says(margin, margin.measure(subjectOf({}, { x: 0, y: 50, width: 200, height: 200 }))!);
    expect(touching.verdict).toBe('look');
  });

  test('a product that reaches out of the frame is cut off: a fault where it must be whole', () => {
    const one = newProduct('product', product, FRAME, 'stand');
    const measured = (x: number) =>
      cutOff.measure(subjectOf({ shot: resolveBase(shotOf({ ...one, box: { ...one.box, x } }), product) }))!;
    expect(verdicts(says(cutOff, measured(50)))).toEqual(['pass']);
    const half = measured(-one.box.width / 2);
    expect(half[0].outside).toBeCloseTo(0.5, 1);
    expect(verdicts(says(cutOff, half, slotOf({ whole: true })))).toEqual(['stop']);
    expect(verdicts(says(cutOff, half, slotOf({ whole: false })))).toEqual(['look']);
    expect(cutOff.measure(subjectOf({ shot: resolveBase(shotOf(), null) }))).toBeNull();
  });

  test('a product is sharp or soft by its edges, whatever its contrast', () => {
    const striped = (period: number, contrast: number, soft: boolean) => {
      const subject = subjectOf();
      const { data } = subject.picture;
      for (let i = 0; i < SIDE * SIDE; i++) {
        const phase = ((i % SIDE) / period) * 2 * Math.PI;
        const wave = soft ? Math.sin(phase) : Math.sign(Math.sin(phase));
        data.fill(128 + contrast * wave, i * 4, i * 4 + 3);
      }
      return sharpness.measure(subject)!.blur;
    };
    for (const contrast of [10, 100]) {
      expect(striped(24, contrast, false)).toBeLessThan(0.5);
      expect(striped(60, contrast, true)).toBeGreaterThan(0.6);
    }
    expect(
      verdicts([
        ...says(sharpness, { blur: 0.3, where: { x: 0, y: 0, width: 1, height: 1 } }),
        ...says(sharpness, { blur: 0.7, where: { x: 0, y: 0, width: 1, height: 1 } }),
        ...says(sharpness, { blur: 0.9, where: { x: 0, y: 0, width: 1, height: 1 } }),
      ]),
    ).toEqual(['pass', 'look', 'stop']);
    expect(sharpness.measure(subjectOf({}, { x: 0, y: 0, width: 20, height: 20 }))).toBeNull();
  });

  test('a source shown larger than its pixels is told with the size that would do', () => {
    const one = { ...newProduct('product', product, FRAME, 'stand') };
    const shot = resolveBase(shotOf({ ...one, box: { ...one.box, width: 300, height: 400 } }), product);
    const measured = (k: number) =>
      enlargement.measure(
        subjectOf({ shot, sources: new Map([['c'.repeat(64), { width: 300 / k, height: 400 / k }]]) }),
      )!;
    expect(measured(2).factor).toBeCloseTo(2, 1);
    expect(verdicts(says(enlargement, measured(0.5)))).toEqual(['pass']);
    const [soft] = says(enlargement, measured(4));
    expect([soft.verdict, soft.sentence]).toEqual(['stop', expect.stringContaining('times as large')]);
    expect(enlargement.measure(subjectOf())).toBeNull();
  });

  test('missing data stops, and is named', () => {
    expect(says(dataCheck, [])).toEqual([]);
    const [missing] = says(dataCheck, ['price', 'care']);
    expect([missing.verdict, missing.sentence]).toEqual(['stop', expect.stringContaining('price, care')]);
  });
});

describe('words', () => {
  test('contrast: letters need 4.5, signs 3; far below it is a fault', () => {
    const verdict = (contrast: number, sign = false) =>
      says(legibility, seen(word({ contrast, sign })))[0].verdict;
    expect([verdict(4.5), verdict(4.3), verdict(2.6)]).toEqual(['pass', 'look', 'stop']);
    expect([verdict(3, true), verdict(2.5, true), verdict(1.5, true)]).toEqual(['pass', 'look', 'stop']);
  });

  test('the least that a slot’s letters may have grows with the picture, since thumbnails are of one size', () => {
    expect(leastLetters(500, 500)).toBe(8.5);
    fc.assert(
      fc.property(fc.integer({ min: 601, max: 6000 }), (side) => {
        expect((leastLetters(side, side) * THUMBNAIL) / side).toBeCloseTo(6.5);
      }),
    );
    const [small] = says(letterSize, { width: 2000, height: 2000, words: [word({ size: 30 })] });
    expect([small.verdict, small.sentence]).toEqual(['look', expect.stringContaining('3.6 px')]);
    expect(verdicts(says(letterSize, { width: 2000, height: 2000, words: [word({ size: 60 })] }))).toEqual([
      'pass',
    ]);
    expect(says(letterSize, seen(word({ sign: true, size: 1 })))).toEqual([]);
  });

  test('letters that do not fit, or that no font has, are faults of their own', () => {
    expect(says(letters, seen(word()))).toEqual([]);
    const found = says(letters, seen(word({ cut: 12, unprintable: ['☃', '✈'] })));
    expect(found.map((f) => f.measured)).toEqual(['12 left out', '☃ ✈']);
    expect(verdicts(found)).toEqual(['stop', 'stop']);
  });

  test('words that are covered: a soft edge is let pass', () => {
    const by = (share: number) =>
      says(collision, seen(word({ covered: [{ by: 'Planter', id: 'p', share }] })))[0].verdict;
    expect([by(0.01), by(0.05), by(0.2)]).toEqual(['pass', 'look', 'stop']);
  });

  test('the safe zone is kept at the edge and where the marketplace lays its own over', () => {
    const by = slotOf({
      safeShare: 0.1,
      safeZones: [{ title: 'badge', x: 0, y: 0, width: 0.5, height: 0.5 }],
    });
    const at = (x: number, y: number) =>
      says(safeZone, seen(word({ bounds: { x, y, width: 60, height: 40 } })), by);
    expect(verdicts(at(250, 250))).toEqual(['pass']);
    expect(at(250, 10)[0]).toMatchObject({ verdict: 'look', measured: '10 px' });
    expect(at(100, 100)[0]).toMatchObject({ verdict: 'stop', limit: 'badge clear' });
    expect(
      says(safeZone, seen(word({ bounds: { x: -30, y: 250, width: 60, height: 40 }, outside: 0.5 })), by)[0]
        .measured,
    ).toBe('cut off');
    expect(says(safeZone, seen(word()), slotOf({ safeShare: 0 }))).toEqual([]);
  });

  test('the share of text counts overlapping blocks once, and no signs', () => {
    const half = { x: 0, y: 0, width: 400, height: 200 };
    const share = (...words: LegibilityReport[]) => textShare.measure(subjectOf({ words }))!.share;
    expect(share(word({ bounds: half }))).toBeCloseTo(0.5, 2);
    expect(share(word({ bounds: half }), word({ bounds: half }))).toBeCloseTo(0.5, 2);
    expect(share(word({ bounds: half, sign: true }))).toBe(0);
    expect(verdicts(says(textShare, { share: 0.31 }, slotOf({ maxTextShare: 0.3 })))).toEqual(['stop']);
    expect(verdicts(says(textShare, { share: 0.3 }, slotOf({ maxTextShare: 0.3 })))).toEqual(['pass']);
    expect(says(textShare, { share: 1 })).toEqual([]);
  });
});

describe('overlays', () => {
  const one = newText('text', 'Hand thrown', FRAME);
  const shown = (...elements: Shot['elements']) =>
    overlays.measure(subjectOf({ shot: resolveBase(shotOf(...elements), null) }))!;

  test('are told where none are allowed; hidden and transparent ones are not there', () => {
    const by = slotOf({ overlays: 'forbidden' });
    expect(verdicts(says(overlays, shown(one), by))).toEqual(['stop']);
    expect(
      verdicts(says(overlays, shown({ ...one, hidden: true }, { ...one, id: 'b', opacity: 0 }), by)),
    ).toEqual(['pass']);
    expect(verdicts(says(overlays, shown(one)))).toEqual(['pass']);
  });

  test('are hidden by the fix in one slot alone', () => {
    const shot = shotOf(one, newWatermark('watermark', FRAME, null));
    const by = slotOf({ watermark: 'forbidden', overlays: 'forbidden' });
    const mended = applyFix('overlays', shot, resolveForSlot(shot, 's/main', by, null), 's/main', by);
    const after = resolveForSlot(mended, 's/main', by, null);
    expect(verdicts(says(overlays, overlays.measure(subjectOf({ shot: after }))!, by))).toEqual(['pass']);
    expect(
      says(watermark, watermark.measure(subjectOf({ shot: resolveBase(shot, null) }))!, by)[0].verdict,
    ).toBe('stop');
    expect(says(watermark, watermark.measure(subjectOf({ shot: resolveBase(shot, null) }))!)).toEqual([]);
    const base = applyFix('watermark', shot, resolveBase(shot, null), BASE, by);
    expect(watermark.measure(subjectOf({ shot: resolveBase(base, null) }))).toEqual([]);
  });

  test('a logo keeps its space clear of others, but not of panels under it', () => {
    const logo = {
      ...newLogo('logo', FRAME, null),
      clear: 0.5,
      box: { x: 150, y: 150, width: 100, height: 50, rotation: 0 },
    };
    const near = (x: number) => ({ ...one, box: { x, y: 150, width: 60, height: 50, rotation: 0 } });
    const found = (...elements: Shot['elements']) =>
      says(clearSpace, clearSpace.measure(subjectOf({ shot: resolveBase(shotOf(...elements), null) }))!);
    expect(verdicts(found(logo, near(320)))).toEqual(['pass']);
    expect(verdicts(found(logo, near(260)))).toEqual(['look']);
    expect(verdicts(found(logo, near(200)))).toEqual(['stop']);
    expect(verdicts(found({ ...newShape('panel', FRAME, 'panel'), box: logo.box }, logo))).toEqual(['pass']);
    expect(clearSpace.measure(subjectOf({ shot: resolveBase(shotOf(one), null) }))).toBeNull();
  });
});
