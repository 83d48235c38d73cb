import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ARRANGEMENT_FORMS, MOST_IN_PACK, placesOf, type Arrangement } from './arrange';

const pack = (value: Partial<Arrangement>): Arrangement => ({
  form: 'row',
  count: 3,
  gap: 0,
  front: 'first',
  others: [],
  ...value,
});
const forms = fc.constantFrom(...ARRANGEMENT_FORMS);
const count = fc.integer({ min: 1, max: MOST_IN_PACK });
const gap = fc.integer({ min: -95, max: 300 });
const mean = (list: number[]) => list.reduce((s, v) => s + v, 0) / list.length;

test('there are as many places as products, no two of them the same', () => {
  fc.assert(
    fc.property(forms, count, gap, (form, n, g) => {
      const places = placesOf(pack({ form, count: n, gap: g }));
      expect(places).toHaveLength(n);
      expect(new Set(places.map((p) => `${p.x}|${p.away}|${p.up}`)).size).toBe(n);
      for (const p of places) for (const v of Object.values(p)) expect(Number.isFinite(v)).toBe(true);
    }),
  );
});

test('a pack stands about its middle, whatever its form', () => {
  fc.assert(
    fc.property(forms, count, gap, (form, n, g) => {
      const places = placesOf(pack({ form, count: n, gap: g }));
      expect(mean(places.map((p) => p.x))).toBeCloseTo(0, 6);
      if (form !== 'staggered') {
        expect(mean(places.map((p) => p.away))).toBeCloseTo(0, 6);
        expect(mean(places.map((p) => p.up))).toBeCloseTo(0, 6);
      }
    }),
  );
});

test('neighbours of a row stand a width apart, and the gap besides', () => {
  const xs = placesOf(pack({ count: 4, gap: 25 })).map((p) => p.x);
  expect(xs.slice(1).map((x, i) => x - xs[i])).toEqual([1.25, 1.25, 1.25]);
  expect(placesOf(pack({ count: 1 }))).toEqual([{ x: 0, away: 0, up: 0 }]);
});

test('a wider gap never brings products nearer', () => {
  const reach = (form: Arrangement['form'], n: number, g: number) =>
    Math.max(...placesOf(pack({ form, count: n, gap: g })).map((p) => Math.hypot(p.x, p.away, p.up)));
  fc.assert(
    fc.property(forms, count, gap, gap, (form, n, a, b) => {
      expect(reach(form, n, Math.max(a, b))).toBeGreaterThanOrEqual(reach(form, n, Math.min(a, b)) - 1e-9);
    }),
  );
});

test('a rising diagonal goes away to the right, a falling one comes nearer', () => {
  const last = (form: Arrangement['form']) => placesOf(pack({ form })).at(-1)!;
  expect(last('rising').away).toBeGreaterThan(0);
  expect(last('falling').away).toBeLessThan(0);
  expect(last('column').up).toBeGreaterThan(0);
});

test('staggered rows grow by one, as skittles stand', () => {
  const rows = new Map<number, number>();
  for (const p of placesOf(pack({ form: 'staggered', count: 9 }))) {
    const away = Math.round(p.away * 1000);
    rows.set(away, (rows.get(away) ?? 0) + 1);
  }
  expect([...rows].sort(([a], [b]) => a - b).map(([, n]) => n)).toEqual([2, 3, 4]);
});
