import fc from 'fast-check';
import { EDGE_PRESETS, edgeWith, profileOf, STEEPEST } from './edge-profile';
import { PLAIN_EDGE } from './recipe';

test('a slope that was drawn is the slope that is shown', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -8, max: 8, noNaN: true }),
      fc.double({ min: STEEPEST, max: 20, noNaN: true }),
      (middle, width) => {
        const drawn = { begin: middle - width / 2, end: middle + width / 2 };
        const shown = profileOf(edgeWith(PLAIN_EDGE, drawn));
        expect(shown.begin).toBeCloseTo(drawn.begin, 4);
        expect(shown.end).toBeCloseTo(drawn.end, 4);
      },
    ),
  );
});

test('moving the edge leaves its slope, and nothing but the slope changes', () => {
  const edge = { ...PLAIN_EDGE, smooth: 3, spill: 0.4, soften: 1 };
  const { begin, end } = profileOf(edge);
  const moved = edgeWith(edge, { begin: begin + 2, end: end + 2 });
  expect(moved).toEqual({ ...edge, shift: 2, soften: expect.closeTo(1, 6) as number });
});

test('a slope steeper than can be made is held, one that is turned round too', () => {
  const { begin, end } = profileOf(edgeWith(PLAIN_EDGE, { begin: 1, end: 0.99 }));
  expect(end - begin).toBeCloseTo(STEEPEST, 6);
});

test('presets are edges that the controls allow, the first is the edge as found', () => {
  expect(EDGE_PRESETS[0].edge).toEqual({ shift: 0, soften: 0, smooth: 0, crispness: 0 });
  for (const { edge } of EDGE_PRESETS) {
    const { begin, end } = profileOf({ ...PLAIN_EDGE, ...edge });
    expect(begin).toBeLessThan(end);
  }
});
