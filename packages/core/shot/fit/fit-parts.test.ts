import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ShotElement } from '../../elements/index';
import type { Bounds } from '../../vector/outline';
import { newBadge } from '../overlay-starters';
import { newText } from '../starters';
import { arrangeUnits, unitsOf } from './arrange-units';
import { area, clamp, cropped, overlapArea, union, within } from './bounds';
import { clashes, coveredBounds, linesAt, longestWord, readableSize } from './covered';
import { changesOrientation, stretched } from './divide';
import { importanceOrder } from './importance';
import { homeOf, roomsBeside } from './rooms';
import type { SlotFrame } from './slot-frame';
import { groupMove, placedGroup, zoneMove } from './subjects';

const FRAME = { width: 1600, height: 1200 };
const slotOf = (width: number, height: number, value: Partial<SlotFrame> = {}): SlotFrame => ({
  width,
  height,
  background: { kind: 'any' },
  coverage: { min: null, max: null, wanted: null },
  marginShare: 0.05,
  safeShare: 0.05,
  ...value,
});

const side = fc.integer({ min: 200, max: 4000 });
/** A rectangle inside FRAME. */
const inFrame = fc
  .record({
    x: fc.double({ min: 0, max: 0.7, noNaN: true }),
    y: fc.double({ min: 0, max: 0.7, noNaN: true }),
    w: fc.double({ min: 0.1, max: 1, noNaN: true }),
    h: fc.double({ min: 0.1, max: 1, noNaN: true }),
  })
  .map(({ x, y, w, h }): Bounds => ({
    x: x * FRAME.width,
    y: y * FRAME.height,
    width: w * (1 - x) * FRAME.width,
    height: h * (1 - y) * FRAME.height,
  }));
const inside = (b: Bounds, width: number, height: number, margin: number) => {
  expect(b.x).toBeGreaterThanOrEqual(margin - 0.01);
  expect(b.y).toBeGreaterThanOrEqual(margin - 0.01);
  expect(b.x + b.width).toBeLessThanOrEqual(width - margin + 0.01);
  expect(b.y + b.height).toBeLessThanOrEqual(height - margin + 0.01);
};

test('products come whole into any slot, within its margins', () => {
  fc.assert(
    fc.property(
      inFrame,
      side,
      side,
      fc.double({ min: 0, max: 0.2, noNaN: true }),
      (group, width, height, marginShare) => {
        const slot = slotOf(width, height, { marginShare });
        const b = placedGroup(group, groupMove(FRAME, group, null, slot));
        inside(b, width, height, marginShare * Math.min(width, height));
        // In proportion.
        expect(b.width / b.height).toBeCloseTo(group.width / group.height, 4);
      },
    ),
  );
});

test('a scene covers every slot, and products are whole on it where their margins leave room', () => {
  fc.assert(
    fc.property(inFrame, side, side, (group, width, height) => {
      const scene = { x: 0, y: 0, ...FRAME, rotation: 0 };
      const move = groupMove(FRAME, group, scene, slotOf(width, height));
      expect(move.x).toBeLessThanOrEqual(0.01);
      expect(move.y).toBeLessThanOrEqual(0.01);
      expect(move.x + FRAME.width * move.k).toBeGreaterThanOrEqual(width - 0.01);
      expect(move.y + FRAME.height * move.k).toBeGreaterThanOrEqual(height - 0.01);
      inside(placedGroup(group, move), width, height, 0.05 * Math.min(width, height));
    }),
  );
});

test('a wanted coverage is met where margins allow it, and limits hold', () => {
  const group = { x: 600, y: 400, width: 400, height: 300 };
  const extent = (coverage: SlotFrame['coverage']) => {
    const b = placedGroup(group, groupMove(FRAME, group, null, slotOf(1000, 1000, { coverage })));
    return Math.max(b.width, b.height) / 1000;
  };
  expect(extent({ min: null, max: null, wanted: 0.8 })).toBeCloseTo(0.8, 6);
  expect(extent({ min: 0.6, max: null, wanted: 0.4 })).toBeCloseTo(0.6, 6);
  expect(extent({ min: null, max: 0.3, wanted: 0.8 })).toBeCloseTo(0.3, 6);
  expect(extent({ min: null, max: null, wanted: 1 })).toBeCloseTo(0.9, 6);
});

test('products keep to their part of the frame, at the same place of it', () => {
  const from = { x: 0, y: 0, width: 800, height: 1200 };
  const to = { x: 0, y: 600, width: 1000, height: 600 };
  const group = { x: 200, y: 300, width: 400, height: 600 };
  const b = placedGroup(group, zoneMove({ from, to }, group, FRAME, slotOf(1000, 1200)));
  expect(b.height).toBeCloseTo(300, 6);
  expect(b.x + b.width / 2).toBeCloseTo(500, 6);
  expect(b.y + b.height / 2).toBeCloseTo(900, 6);
});

test('rectangles: overlap, union and crop agree with each other', () => {
  fc.assert(
    fc.property(inFrame, inFrame, (a, b) => {
      expect(overlapArea(a, b)).toBeCloseTo(overlapArea(b, a), 6);
      expect(overlapArea(a, a)).toBeCloseTo(area(a), 4);
      expect(area(union([a, b]))).toBeGreaterThanOrEqual(area(a) + area(b) - overlapArea(a, b) - 1e-4);
      const shifted = { ...a, x: a.x - 300 };
      expect(area(cropped(shifted, FRAME))).toBeCloseTo(overlapArea(shifted, { x: 0, y: 0, ...FRAME }), 4);
    }),
  );
});

test('a value is held between two others, or in their middle where they cross', () => {
  expect(clamp(5, 0, 3)).toBe(3);
  expect(within(5, 0, 3)).toBe(3);
  expect(within(5, 4, 2)).toBe(3);
});

test('rooms lie beside what is taken, inside the region, with a gap', () => {
  fc.assert(
    fc.property(inFrame, fc.double({ min: 0, max: 60, noNaN: true }), (taken, gap) => {
      const region = { x: 0, y: 0, ...FRAME };
      for (const room of roomsBeside(region, [taken], gap)) {
        inside(room, FRAME.width, FRAME.height, 0);
        const grown = {
          x: taken.x - gap + 0.01,
          y: taken.y - gap + 0.01,
          width: taken.width + 2 * gap - 0.02,
          height: taken.height + 2 * gap - 0.02,
        };
        expect(overlapArea(room, grown)).toBeLessThan(1e-3);
      }
    }),
  );
  const region = { x: 0, y: 0, ...FRAME };
  expect(roomsBeside(region, [], 20)).toEqual([region]);
  expect(roomsBeside(region, [region], 20)).toEqual([]);
});

test('a box is at home in the smallest region around its middle', () => {
  const regions = [
    { x: 0, y: 0, width: 1000, height: 1000 },
    { x: 0, y: 0, width: 500, height: 1000 },
  ];
  expect(homeOf({ x: 100, y: 100, width: 50, height: 50 }, regions)).toBe(1);
  expect(homeOf({ x: 700, y: 100, width: 50, height: 50 }, regions)).toBe(0);
  expect(homeOf({ x: 1700, y: 100, width: 50, height: 50 }, regions)).toBe(-1);
});

test('panels side by side come one over the other in a slot far taller than the base', () => {
  const panel = { box: { x: 0, y: 0, width: 800, height: 1200, rotation: 0 } } as ShotElement;
  expect(changesOrientation([panel], FRAME, slotOf(1000, 2000))).toBe(true);
  expect(changesOrientation([panel], FRAME, slotOf(1000, 1000))).toBe(false);
  expect(changesOrientation([], FRAME, slotOf(1000, 2000))).toBe(false);
  const half = { x: 0, y: 0, width: 800, height: 1200 };
  expect(stretched(half, FRAME, slotOf(1000, 2000))).toEqual({ x: 0, y: 0, width: 500, height: 2000 });
  expect(stretched(half, FRAME, slotOf(1000, 2000), true)).toEqual({ x: 0, y: 0, width: 1000, height: 1000 });
});

test('lines are counted by words; more room never makes more of them', () => {
  expect(linesAt('one two three', 10, 1000)).toBe(1);
  expect(linesAt('one\ntwo\n\nthree', 10, 1000)).toBe(4);
  expect(longestWord('a longest word')).toBe(7);
  fc.assert(
    fc.property(
      fc.lorem({ maxCount: 20 }),
      fc.integer({ min: 8, max: 80 }),
      side,
      side,
      (text, size, a, b) => {
        const [narrow, wide] = [Math.min(a, b), Math.max(a, b)];
        expect(linesAt(text, size, wide)).toBeLessThanOrEqual(linesAt(text, size, narrow));
      },
    ),
  );
});

test('a short text covers but its own words of its box, on the side to which it is set', () => {
  const text = {
    ...newText('t', 'New', FRAME),
    box: { x: 100, y: 100, width: 800, height: 300, rotation: 0 },
  };
  const covered = (value: object) => coveredBounds({ ...text, ...value });
  expect(covered({}).width).toBeLessThan(200);
  expect(covered({}).x).toBe(100);
  expect(covered({ align: 'right' }).x + covered({ align: 'right' }).width).toBeCloseTo(900, 6);
  expect(covered({ vertical: 'bottom' }).y + covered({ vertical: 'bottom' }).height).toBeCloseTo(400, 6);
  expect(covered({ box: { ...text.box, rotation: 90 } }).height).toBeCloseTo(800, 3);
});

test('importance is the order that was given, then larger words before smaller', () => {
  const small = { ...newText('small', 'a', FRAME), size: 20 };
  const large = { ...newText('large', 'b', FRAME), size: 120 };
  const badge = newBadge('badge', FRAME, 'words');
  expect(importanceOrder([small, badge, large], ['badge', 'gone'])).toEqual(['badge', 'large', 'small']);
});

test('clashes are told where overlays meet that were apart, or letters are too small to read', () => {
  const a = {
    ...newText('a', 'First words', FRAME),
    box: { x: 0, y: 0, width: 600, height: 200, rotation: 0 },
  };
  const b = {
    ...newText('b', 'Other words', FRAME),
    box: { x: 0, y: 400, width: 600, height: 200, rotation: 0 },
  };
  const over = { ...b, box: { ...b.box, y: 10 } };
  expect(clashes([a, b], [a, b], null, null, FRAME)).toBe(false);
  expect(clashes([a, b], [a, over], null, null, FRAME)).toBe(true);
  expect(clashes([a, b], [a, { ...b, size: readableSize(FRAME) - 1 }], null, null, FRAME)).toBe(true);
  const product = { x: 0, y: 0, width: 500, height: 500 };
  expect(clashes([a], [a], { x: 900, y: 900, width: 10, height: 10 }, product, FRAME)).toBe(true);
});

/** Three texts and a badge, the second text lying on the badge. */
function overlays() {
  const text = (id: string, y: number, size = 60) => ({
    ...newText(id, `Words of ${id}`, FRAME),
    size,
    box: { x: 80, y, width: 600, height: size * 1.4, rotation: 0 },
  });
  const badge = {
    ...newBadge('badge', FRAME, 'words'),
    box: { x: 60, y: 640, width: 640, height: 240, rotation: 0 },
  };
  return [text('title', 60, 110), text('line', 300), badge, text('on-badge', 700)];
}

test('what lies on another, or is linked to it, moves as one unit', () => {
  const list = overlays();
  const order = importanceOrder(list, []);
  const units = unitsOf(list, order);
  expect(units.map((u) => u.members.map((m) => m.id))).toEqual([['title'], ['line'], ['badge', 'on-badge']]);
  expect(units[2].words).toBeNull();
  expect(units[0].words).toMatchObject({ size: 110 });
  const linked = list.map((e) => (e.id === 'title' || e.id === 'line' ? { ...e, link: 'pair' } : e));
  expect(unitsOf(linked as ShotElement[], order)[0].members.map((m) => m.id)).toEqual(['title', 'line']);
});

test('units keep within their room, words stay readable, and the least important go first', () => {
  const list = overlays();
  const units = unitsOf(list, ['title', 'badge', 'on-badge', 'line']);
  fc.assert(
    fc.property(
      fc.integer({ min: 300, max: 1600 }),
      fc.integer({ min: 200, max: 1600 }),
      fc.double({ min: 0.4, max: 1.5, noNaN: true }),
      (width, height, natural) => {
        const slot = { width, height };
        const room = { x: 20, y: 20, width: width - 40, height: height - 40 };
        const { elements, dropped } = arrangeUnits(units, [room], {
          ...{ natural, slot, last: false },
          keep: new Set(['title']),
        });
        for (const [id, e] of elements) {
          expect(dropped).not.toContain(id);
          if (e.kind !== 'text' || id === 'on-badge') continue;
          expect((e as { size: number }).size).toBeGreaterThanOrEqual(readableSize(slot) - 1e-6);
          inside(e.box, width, height, 19);
        }
        // Nothing goes before something less important than it.
        if (dropped.includes('badge')) expect(dropped).toContain('line');
        expect(dropped).not.toContain('title');
      },
    ),
  );
});

test('the last of them is shown, however small its room', () => {
  const [title] = overlays();
  const units = unitsOf([title], ['title']);
  const room = { x: 0, y: 0, width: 60, height: 30 };
  const slot = { width: 1000, height: 1000 };
  const options = { natural: 1, slot, keep: new Set<string>() };
  expect(arrangeUnits(units, [room], { ...options, last: true }).elements.has('title')).toBe(true);
  expect(arrangeUnits(units, [room], { ...options, last: false }).elements.size).toBe(0);
});
