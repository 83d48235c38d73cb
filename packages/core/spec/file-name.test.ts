import fc from 'fast-check';
import { fileName, plainName, uniqueNames, type NameValues } from '../spec/file-name';

const values: NameValues = {
  sku: 'MB-PL-160',
  listing: 'Planter',
  marketplace: 'Kestrel Market',
  slot: 'main',
  variant: 'Olgrün',
  shot: 'On white',
  n: 3,
};
const SAFE = /^[A-Za-z0-9_](?:[A-Za-z0-9._-]*[A-Za-z0-9_])?$/;
/** Any text, long ones and ones of marks alone among them; each with a letter, so that a name is left. */
const text = fc
  .oneof(fc.string({ unit: 'grapheme', maxLength: 40 }), fc.string({ minLength: 100, maxLength: 400 }))
  .map((t) => `a${t}`);

test('whatever the values, every part of a path is a safe name, and the whole is not too long', () => {
  const patterns = fc.constantFrom(
    '{sku}_{slot}',
    '{listing}/{slot}',
    '{marketplace}/{listing}/{variant}/{n}',
  );
  fc.assert(
    fc.property(patterns, text, text, text, (pattern, listing, variant, sku) => {
      const name = fileName(pattern, { ...values, listing, variant, sku });
      expect(name.length).toBeLessThanOrEqual(180);
      expect(name.split('/')).toHaveLength(pattern.split('/').length);
      for (const part of name.split('/')) expect(part).toMatch(SAFE);
    }),
  );
});

test('a listing of 179 letters leaves the file a name of its own', () => {
  const name = fileName('{listing}/{sku}-{n}', { ...values, listing: 'x'.repeat(179) });
  expect(name).toMatch(/^x{20,}\/MB-PL-160-3$/);
});

test('names that clash are numbered, and stay different, safe and short enough', () => {
  const name = fc.oneof(fc.constantFrom('a', 'A', 'a-2', 'b/a'), fc.constant('y'.repeat(180)));
  fc.assert(
    fc.property(fc.array(name, { maxLength: 30 }), (names) => {
      const made = uniqueNames(names);
      expect(new Set(made.map((n) => n.toLowerCase())).size).toBe(names.length);
      for (const n of made) expect(n.length).toBeLessThanOrEqual(180);
      // The first of a name keeps it, unless another was numbered into it before.
      if (names.length) expect(made[0]).toBe(names[0]);
    }),
  );
});

test('a title becomes a name; where nothing is left of it, the other word stands', () => {
  expect(plainName('Crème brûlée / 2', 'picture')).toBe('Creme-brulee-2');
  expect(plainName('...', 'picture')).toBe('picture');
  expect(plainName('漢字', 'picture')).toBe('picture');
  expect(plainName('z'.repeat(400), 'picture')).toHaveLength(180);
});
