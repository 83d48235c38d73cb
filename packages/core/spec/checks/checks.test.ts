import fc from 'fast-check';
import { type Shot } from '../../shot/document';
import { newLogo, newWatermark } from '../../shot/overlay-starters';
import { resolveBase, resolveForSlot } from '../../shot/resolve';
import { newBackdrop, newProduct, newText } from '../../shot/starters';
import { altText } from './alt-text';
import { coverage } from './coverage';
import { cutOff } from './cut-off';
import { data as dataCheck } from './data';
import { enlargement } from './enlargement';
import { fileFormat } from './file-format';
import { fileSize } from './file-size';
import { applyFix, CHECKS, judgeMeasures, measureAll } from './index';
import { margin } from './margin';
import { nameClashes } from './name-clash';
import { pixelSize } from './pixel-size';
import { sharpness } from './sharpness';
import {
  SIDE,
  slotOf,
  slot,
  subjectOf,
  word,
  says,
  verdicts,
  FRAME,
  product,
  shotOf,
} from './subject.fixture';

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
