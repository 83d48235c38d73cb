import fc from 'fast-check';
import { snapBase } from '../stage/snap';
import { emptyShot, MOST_GUIDES, readShot } from './document';
import { addGuide, guidesIn, moveGuide, rulerTicks } from './guides';
import { snapBox } from './snap-box';

const shot = emptyShot(800, 400);

test('a guide is added once, held within the picture, and moved or taken off', () => {
  const one = addGuide(shot, { axis: 'x', at: 200 });
  expect(one.guides).toEqual([{ axis: 'x', at: 200 }]);
  expect(addGuide(one, { axis: 'x', at: 200 })).toBe(one);
  const two = addGuide(one, { axis: 'y', at: 9999 });
  expect(two.guides![1]).toEqual({ axis: 'y', at: 400 });
  expect(moveGuide(two, 0, 250).guides![0].at).toBe(250);
  expect(moveGuide(two, 0, -1).guides).toEqual([{ axis: 'y', at: 400 }]);
  expect(moveGuide(moveGuide(two, 1, null), 0, 801)).toEqual(shot);
  expect(moveGuide(two, 7, 3)).toBe(two);
  expect(shot.guides).toBeUndefined();
});

test('no more than can be kept', () => {
  let full = shot;
  for (let i = 0; i < MOST_GUIDES + 5; i++) full = addGuide(full, { axis: 'x', at: i });
  expect(full.guides).toHaveLength(MOST_GUIDES);
  expect(readShot(full)).toEqual(full);
});

test('a shot with guides is read as it was written, one with a broken guide is refused', () => {
  const one = addGuide(shot, { axis: 'y', at: 33.5 });
  expect(readShot(JSON.parse(JSON.stringify(one)))).toEqual(one);
  expect(() => readShot({ ...shot, guides: [{ axis: 'z', at: 1 }] })).toThrow(/guides/);
});

test('in a slot of any size a guide keeps its share of the picture', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 16, max: 5000 }),
      fc.integer({ min: 16, max: 5000 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (width, height, share) => {
        const at = addGuide(addGuide(shot, { axis: 'x', at: share * 800 }), { axis: 'y', at: share * 400 });
        const [x, y] = guidesIn(at, { width, height });
        expect(x.at / width).toBeCloseTo(share, 9);
        expect(y.at / height).toBeCloseTo(share, 9);
      },
    ),
  );
});

test('a box and a base are caught by a guide, and told so', () => {
  const guides = guidesIn(addGuide(shot, { axis: 'x', at: 123 }), shot.frame);
  const box = { x: 119, y: 90, width: 60, height: 40 };
  expect(snapBox(box, [], shot.frame, 6, guides)).toMatchObject({ x: 123, guides: [{ label: 'guide' }] });
  expect(snapBox({ ...box, x: 66 }, [], shot.frame, 6, guides).x).toBe(63);
  expect(snapBox({ ...box, x: 90 }, [], shot.frame, 6, guides).x).toBe(93);
  expect(snapBox(box, [], shot.frame, 6).x).toBe(119);
  const targets = { frame: shot.frame, spots: [], bases: [], guides };
  expect(snapBase({ x: 120, y: 60 }, targets, 6)).toMatchObject({ x: 123, y: 60 });
});

test('numbers of a ruler are round, far enough apart, and never out of its range', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -5000, max: 5000, noNaN: true }),
      fc.double({ min: 1, max: 9000, noNaN: true }),
      fc.double({ min: 0.02, max: 16, noNaN: true }),
      (from, length, zoom) => {
        const ticks = rulerTicks(from, from + length, zoom);
        const long = ticks.filter((t) => t.long).map((t) => t.at);
        expect(ticks.length).toBeLessThan((length * zoom) / 10 + 2);
        for (const { at } of ticks) {
          expect(at).toBeGreaterThanOrEqual(from - 1e-6);
          expect(at).toBeLessThanOrEqual(from + length + 1e-6);
        }
        for (let i = 1; i < long.length; i++) {
          const step = long[i] - long[i - 1];
          expect(step * zoom).toBeGreaterThan(55);
          expect(['1', '2', '5']).toContain(
            step.toPrecision(4)[step < 1 ? step.toPrecision(4).search(/[1-9]/) : 0],
          );
        }
      },
    ),
  );
});
