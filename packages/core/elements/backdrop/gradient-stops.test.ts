import fc from 'fast-check';
import { computeGradient, type GradientStop } from './gradient';
import { addStop, colourOfStops, moveStop, removeStop, widestGap } from './gradient-stops';

const TWO: GradientStop[] = [
  { at: 0, colour: '#000000' },
  { at: 1, colour: '#ff8000' },
];

const share = fc.double({ min: 0, max: 1, noNaN: true });
const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const someStops = fc
  .array(fc.record({ at: share, colour }), { minLength: 2, maxLength: 8 })
  .map((list) => list.sort((a, b) => a.at - b.at));
const inOrder = (stops: readonly GradientStop[]) => stops.every((s, i) => i === 0 || stops[i - 1].at <= s.at);

test('between two stops their colours are mixed, outside them the nearest holds', () => {
  expect(colourOfStops(TWO, 0.5)).toBe('#804000');
  expect(colourOfStops([{ at: 0.4, colour: '#112233' }, TWO[1]], 0.1)).toBe('#112233');
  expect(colourOfStops([TWO[0], { at: 0.6, colour: '#abcdef' }], 0.9)).toBe('#abcdef');
});

test('a stop that is added changes nothing that is seen', () => {
  const place = { x: 0, y: 0.5 };
  const painted = (stops: GradientStop[]) =>
    computeGradient(
      { type: 'gradient', form: 'diamond', from: place, to: { x: 1, y: 0.5 }, stops },
      { width: 64, height: 1 },
    ).data;
  fc.assert(
    fc.property(someStops, share, (stops, at) => {
      const { stops: more, index } = addStop(stops, at);
      expect(more).toHaveLength(stops.length + 1);
      expect(more[index].at).toBe(at);
      expect(inOrder(more)).toBe(true);
      const [before, after] = [painted(stops), painted(more)];
      // Colours are bytes: a rounded one in the middle may differ by one.
      before.forEach((v, i) => expect(Math.abs(v - after[i])).toBeLessThanOrEqual(1));
    }),
    { numRuns: 60 },
  );
});

test('stops stay in order however one is moved, and the moved one keeps its colour under its new number', () => {
  fc.assert(
    fc.property(someStops, fc.nat(), fc.double({ min: -1, max: 2, noNaN: true }), (stops, n, to) => {
      const index = n % stops.length;
      const moved = moveStop(stops, index, to);
      expect(inOrder(moved.stops)).toBe(true);
      expect(moved.stops[moved.index].colour).toBe(stops[index].colour);
      expect(moved.stops[moved.index].at).toBe(Math.min(1, Math.max(0, to)));
      expect(moved.stops.map((s) => s.colour).sort()).toEqual(stops.map((s) => s.colour).sort());
    }),
  );
});

test('a third can be taken away, of two none', () => {
  const three = addStop(TWO, 0.25).stops;
  expect(removeStop(three, 1)).toEqual({ stops: TWO, index: 1 });
  expect(removeStop(three, 2)).toEqual({ stops: three.slice(0, 2), index: 1 });
  expect(removeStop(TWO, 0)).toEqual({ stops: TWO, index: 0 });
});

test('the widest gap is where another is wanted; no more than can be kept are added', () => {
  expect(widestGap(TWO)).toBe(0.5);
  expect(widestGap([TWO[0], { at: 0.2, colour: '#ffffff' }, TWO[1]])).toBeCloseTo(0.6);
  let many: GradientStop[] = TWO;
  for (let i = 0; i < 80; i++) many = addStop(many, widestGap(many)).stops;
  expect(many).toHaveLength(64);
});
