import fc from 'fast-check';
import type { LegibilityReport } from '../../paint/legibility-report';
import { BASE } from '../../shot/edit';
import { type Shot } from '../../shot/document';
import { newLogo, newShape, newWatermark } from '../../shot/overlay-starters';
import { resolveBase, resolveForSlot } from '../../shot/resolve';
import { newText } from '../../shot/starters';
import { clearSpace } from './clear-space';
import { collision } from './collision';
import { applyFix } from './index';
import { legibility } from './legibility';
import { leastLetters, letterSize, THUMBNAIL } from './letter-size';
import { letters } from './letters';
import { overlays } from './overlays';
import { safeZone } from './safe-zone';
import { textShare } from './text-share';
import { watermark } from './watermark';
import { slotOf, subjectOf, word, seen, says, verdicts, FRAME, shotOf } from './subject.fixture';

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

  test('words that are covered: a soft edge is no fault', () => {
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
