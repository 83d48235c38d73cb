import fc from 'fast-check';
import {
  confidenceFrom,
  doubtsOf,
  LOOKS_RIGHT,
  measureCutout,
  verdictOf,
  type CutoutMeasures,
} from './confidence';

const W = 60;
const H = 40;
const plane = (of: (x: number, y: number) => number) =>
  Float32Array.from({ length: W * H }, (_, i) => of(i % W, Math.floor(i / W)));
const inside = (x: number, y: number) => x >= 20 && x < 40 && y >= 10 && y < 30;
const outline = Uint8Array.from(plane((x, y) => (inside(x, y) ? 1 : 0)));
const sure = plane((x, y) => (inside(x, y) ? 0.999 : 0.001));
const nothing = plane(() => 0);
/** Far from the backdrop inside, on it outside. */
const clear = plane((x, y) => (inside(x, y) ? 12 : 0));
const measured = (
  over: Partial<Record<'shape' | 'chance' | 'seen' | 'residual', Float32Array>> = {},
  agreement = 1,
) => {
  const shape = over.shape ?? sure;
  return measureCutout({
    ...{ product: outline, chance: shape, seen: nothing, residual: clear, width: W, height: H },
    ...over,
    shape,
    agreement,
  });
};
const BEST: CutoutMeasures = {
  looksDiffer: 0,
  outlineDiffers: 0,
  doubt: 0,
  doubtOffEdge: 0,
  faintEdge: 0,
  onBorder: 0,
  seenThrough: 0,
  small: 0,
  parts: 0,
  likelyWrong: 0,
};

describe('measures', () => {
  test('where model, colours and outline agree nothing speaks against a cutout', () => {
    const m = measured();
    expect(m).toMatchObject({ looksDiffer: 0, outlineDiffers: 0, doubtOffEdge: 0, onBorder: 0, parts: 0 });
    expect(m.faintEdge).toBe(0);
    expect(m.likelyWrong).toBeCloseTo(0.001, 6);
  });

  test('a part that the model saw and the outline leaves out is measured as a difference and as doubt', () => {
    const more = measured({ shape: plane((x, y) => (inside(x, y) || (x >= 45 && y < 20) ? 0.999 : 0.001)) });
    expect(more.outlineDiffers).toBeCloseTo(1 - 400 / (400 + 300), 6);
    expect(more.doubtOffEdge).toBeGreaterThan(0.5);
    expect(more.likelyWrong).toBeGreaterThan(0.1);
  });

  test('doubt is the mean entropy over what is or might be the product', () => {
    expect(measured({ shape: plane((x, y) => (inside(x, y) ? 0.5 : 0)) }).doubt).toBeCloseTo(1, 6);
    expect(measured().doubt).toBeLessThan(0.02);
  });

  test('an edge on which both sides look alike is faint, and only there', () => {
    const left = plane((x, y) => (inside(x, y) && x >= 30 ? 12 : 0));
    const half = measured({ residual: left }).faintEdge;
    expect(half).toBeGreaterThan(0.35);
    expect(half).toBeLessThan(0.6);
    expect(measured({ residual: nothing }).faintEdge).toBe(1);
  });

  test('two looks that overlap by three quarters differ by a quarter; glass is seen through by its share', () => {
    expect(measured({}, 0.75).looksDiffer).toBe(0.25);
    const seen = plane((x, y) => (inside(x, y) && y < 20 ? 1 : 0));
    expect(measured({ seen }).seenThrough).toBeCloseTo(0.5, 6);
  });

  test('an outline along the border of the photo is measured by its share', () => {
    const all = new Uint8Array(W * H).fill(1);
    const everywhere = plane(() => 0.999);
    const planes = { seen: nothing, agreement: 1, width: W, height: H };
    const m = measureCutout({
      ...planes,
      product: all,
      shape: everywhere,
      chance: everywhere,
      residual: plane(() => 12),
    });
    expect(m.onBorder).toBe(1);
    const empty = { ...planes, product: new Uint8Array(W * H), shape: sure, chance: sure, residual: clear };
    expect(measureCutout(empty).faintEdge).toBe(1);
  });
});

describe('what they say together', () => {
  const measure = fc.double({ min: 0, max: 2, noNaN: true });
  const measures = fc.record(
    Object.fromEntries(Object.keys(BEST).map((k) => [k, measure])) as Record<
      keyof CutoutMeasures,
      typeof measure
    >,
  );

  test('is a probability, and nothing that speaks more against a cutout makes it surer', () => {
    fc.assert(
      fc.property(
        measures,
        fc.constantFrom(...(Object.keys(BEST) as (keyof CutoutMeasures)[])),
        measure,
        (m, key, more) => {
          const before = confidenceFrom(m);
          expect(before).toBeGreaterThanOrEqual(0);
          expect(before).toBeLessThan(1);
          expect(confidenceFrom({ ...m, [key]: m[key] + more })).toBeLessThanOrEqual(before + 1e-9);
        },
      ),
    );
  });

  test('the best cutout is surer than a bad one', () => {
    expect(confidenceFrom(BEST)).toBeGreaterThan(
      confidenceFrom({ ...BEST, outlineDiffers: 0.5, likelyWrong: 0.2 }),
    );
  });

  test('is said in three words', () => {
    expect([0, 0.49, 0.5, 0.89, LOOKS_RIGHT, 1].map(verdictOf)).toEqual([
      ...['needs a hand', 'needs a hand', 'look at it', 'look at it', 'looks right', 'looks right'],
    ]);
  });
});

describe('places in doubt', () => {
  test('are where the outline goes against the model, largest first, with their middle', () => {
    const shape = plane((x, y) => {
      if (x >= 46 && x < 56 && y >= 12 && y < 22) return 0.9;
      if (x >= 2 && x < 7 && y >= 2 && y < 7) return 0.9;
      return inside(x, y) ? 0.999 : 0.001;
    });
    const [first, second, ...rest] = doubtsOf(outline, shape, W, H);
    expect(rest).toEqual([]);
    expect([first.x, first.y]).toEqual([50.5, 16.5]);
    expect([second.x, second.y]).toEqual([4, 4]);
    expect(first.radius).toBeGreaterThan(second.radius);
  });

  test('are none along the edge itself, and at most six', () => {
    const soft = plane((x, y) => {
      const d = Math.min(x - 20, 39 - x, y - 10, 29 - y);
      return 1 / (1 + Math.exp(-(d + 0.5) * 3));
    });
    expect(doubtsOf(outline, soft, W, H)).toEqual([]);
    const many = plane((x, y) => (x % 8 < 3 && y % 8 < 3 ? 0.9 : 0.001));
    expect(doubtsOf(new Uint8Array(W * H), many, W, H)).toHaveLength(6);
  });
});
