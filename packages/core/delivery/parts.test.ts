import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ByteLimitError, withinBytes } from './byte-budget';
import { encodingSchema, formatsFor, PLAIN_ENCODING, suggestedAlt } from './encoding';
import { manifestRows, type Manifest, type ManifestEntry } from './manifest';

test('the best quality that fits is found for any file that grows with its quality', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 101, maxLength: 101 }),
      fc.integer({ min: 1, max: 300_000 }),
      async (growth, maxBytes) => {
        const size = (q: number) => growth.slice(0, q + 1).reduce((s, v) => s + v, 0);
        let tries = 0;
        const encode = (q: number) => {
          tries++;
          return Promise.resolve(new Uint8Array(size(q)));
        };
        const fits = Array.from({ length: 53 }, (_, i) => 92 - i).find((q) => size(q) <= maxBytes);
        if (fits === undefined) await expect(withinBytes(encode, maxBytes)).rejects.toThrow(ByteLimitError);
        else expect((await withinBytes(encode, maxBytes)).quality).toBe(fits);
        expect(tries).toBeLessThanOrEqual(9);
      },
    ),
    { numRuns: 50 },
  );
});

test('a format chosen by hand is used where the slot takes it, and nowhere else', () => {
  const slot = { formats: ['jpeg', 'webp'] as ('jpeg' | 'webp')[] };
  expect(formatsFor(slot, PLAIN_ENCODING)).toEqual(['jpeg', 'webp']);
  expect(formatsFor(slot, { ...PLAIN_ENCODING, format: 'webp' })).toEqual(['webp']);
  expect(formatsFor(slot, { ...PLAIN_ENCODING, format: 'png' })).toEqual(['jpeg', 'webp']);
});

test('an encoding that says nothing is the plain one, and one out of bounds is refused', () => {
  expect(encodingSchema.validate({}).value).toEqual(PLAIN_ENCODING);
  for (const wrong of [
    { quality: 0 },
    { quality: 101 },
    { colours: 1 },
    { chroma: '4:1:1' },
    { format: 'gif' },
  ])
    expect(encodingSchema.validate(wrong).error).toBeDefined();
});

test('a first alternative text joins product and shot; names in capitals stay, braces go', () => {
  expect(suggestedAlt('Potting bench')).toBe('{title}, potting bench');
  expect(suggestedAlt('USB lead')).toBe('{title}, USB lead');
  expect(suggestedAlt('In {room}')).toBe('{title}, in room');
});

const entry = (value: Partial<ManifestEntry>): ManifestEntry => ({
  file: 'a.jpg',
  sku: 'A',
  variant: 'Teal',
  marketplace: 'Kestrel',
  slot: 'main',
  shot: 'Front',
  width: 2000,
  height: 2000,
  format: 'jpeg',
  quality: 88,
  bytes: 123,
  sha256: 'x',
  alt: 'A pot',
  verdict: 'passed',
  inputs: { key: 'k', shot: 's', slot: 'l', data: 'd', pictures: ['p', 'q'] },
  checks: [],
  ...value,
});

test('a manifest’s table names every value of every picture under its own heading', () => {
  const manifest: Manifest = {
    manifest: 'scenograph-delivery',
    version: 2,
    delivery: 'd',
    listing: 'Pot',
    made: '2026-11-01',
    pictures: [entry({}), entry({ file: 'b.png', quality: null })],
    failed: [],
  };
  const [heads, ...rows] = manifestRows(manifest);
  expect(rows).toHaveLength(2);
  const value = (row: number, head: string) => rows[row][heads.indexOf(head)];
  expect(value(0, 'file')).toBe('a.jpg');
  expect(value(1, 'quality')).toBeNull();
  expect(value(0, 'pictures_sha256')).toBe('p q');
  for (const row of rows) expect(row).toHaveLength(heads.length);
});
