import fc from 'fast-check';
import { EMPTY_KIT } from '../brand/kit';
import { guardedText, plainText } from '../table/plan-import';
import { readTable } from '../table/read-table';
import { matchColumns } from '../table/match-columns';
import { writeTable } from '../table/write-table';
import { planImport } from '../table/plan-import';
import type { VariantRow } from '../table/variant-row';
import {
  bindText,
  formatPrice,
  parseAmount,
  priceFormat,
  readProductData,
  valuesOf,
  type ProductData,
} from './product-data';

const data: ProductData = {
  title: 'Planter',
  variant: 'Teal',
  sku: 'MB-1',
  price: 24.5,
  currency: 'GBP',
  widthMm: 160,
  heightMm: 150.4,
  depthMm: null,
  fields: { was: '30', material: 'clay', empty: ' ' },
  cutout: null,
};

describe('money', () => {
  const amount = fc.integer({ min: 0, max: 999_999_999 }).map((pence) => pence / 100);

  test.each(['en-GB', 'de-DE', 'fr-FR', 'sv-SE'])(
    'an amount written for %s is read back as it was',
    (locale) => {
      fc.assert(
        fc.property(amount, fc.constantFrom('GBP', 'EUR', 'USD', 'SEK'), (value, currency) => {
          const written = formatPrice(value, currency, locale);
          // A currency that stands as letters is no sign; those are taken off before.
          expect(parseAmount(written.replace(/[A-Za-z]+/g, ''))).toBe(value);
        }),
      );
    },
  );

  test('pence are written only where there are any', () => {
    expect([formatPrice(24, 'GBP'), formatPrice(24.5, 'GBP'), formatPrice(0, 'GBP')]).toEqual([
      '£24',
      '£24.50',
      '£0',
    ]);
    expect(formatPrice(1234.5, 'EUR', 'de-DE')).toBe('1.234,50\u00a0€');
  });

  test('a currency that is none is refused with a sentence', () => {
    expect(() => priceFormat(1, 'POUNDS')).toThrow('"POUNDS" is no currency code');
  });
});

describe('texts bound to data', () => {
  test('take values, numbers by the brand’s language, plurals, and show what is missing', () => {
    expect(bindText('{title} {variant}, {price}', data)).toEqual({
      text: 'Planter Teal, £24.50',
      missing: [],
    });
    expect(bindText('{size}', data).text).toBe('160 × 150 mm');
    const german = { ...data, brand: { ...EMPTY_KIT, locale: 'de-DE' } };
    expect(bindText('{price} statt {was}', german).text).toBe('24,50\u00a0€'.replace('€', '£') + ' statt 30');
    expect(bindText('{was, plural, one {# day} other {# days}}', data).text).toBe('30 days');
    expect(bindText('{colour} {empty} {depth}', data)).toEqual({
      text: '‹colour› ‹empty› ‹depth›',
      missing: ['colour', 'empty', 'depth'],
    });
  });

  test('a name that every object has is missing like any other, and a field of that name is a field', () => {
    for (const name of ['constructor', '__proto__', 'toString']) {
      expect(bindText(`{${name}}`, data)).toEqual({ text: `‹${name}›`, missing: [name] });
      const fields = JSON.parse(`{"${name}": "seven"}`) as Record<string, string>;
      expect(bindText(`{${name}}`, { ...data, fields }).text).toBe('seven');
      expect(bindText(`{${name}, select, seven {it is} other {it is not}}`, { ...data, fields }).text).toBe(
        'it is',
      );
    }
  });

  test('without data every placeholder is missing, and a text without any is itself', () => {
    expect(bindText('For {title}', null)).toEqual({ text: 'For ‹title›', missing: ['title'] });
    fc.assert(
      fc.property(
        fc.string().filter((s) => !s.includes('{')),
        (s) => {
          expect(bindText(s, data)).toEqual({ text: s, missing: [] });
        },
      ),
    );
  });

  test('no text makes it throw, and none is printed half', () => {
    const part = fc.constantFrom(
      '{',
      '}',
      'title',
      ' ',
      '{title}',
      '{was, number}',
      '{was, plural,',
      'one {#}',
      '#',
      "'",
      '{0}',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 9 }), (parts) => {
        const { text } = bindText(parts.join(''), data);
        expect(text).not.toContain('undefined');
      }),
      { numRuns: 1000 },
    );
  });

  test('a product’s own fields never stand in for its price or its name', () => {
    const values = valuesOf({ ...data, fields: { title: 'Other', price: '1', was: '30' } });
    expect([values.title, values.price, values.was]).toEqual(['Planter', '£24.50', 30]);
  });

  test('data is read with what it leaves out, and refused with a sentence', () => {
    expect(readProductData({ title: 'Planter' })).toMatchObject({
      title: 'Planter',
      currency: 'GBP',
      price: null,
      fields: {},
    });
    expect(() => readProductData({ price: -1 })).toThrow(/price/);
  });
});

describe('a table of variants', () => {
  const words = fc
    .string({ unit: 'grapheme', minLength: 1, maxLength: 20 })
    .map((s) => s.trim())
    .filter((s) => s !== '' && !s.includes('\u0000') && !/[\r\ufeff]/.test(s));
  const row: fc.Arbitrary<VariantRow> = fc.record({
    sku: words,
    title: fc.oneof(fc.constant(''), words),
    price: fc.oneof(
      fc.constant(null),
      fc.integer({ min: 0, max: 1_000_000 }).map((p) => p / 100),
    ),
    currency: fc.constantFrom('GBP', 'EUR'),
    photo: fc.constant(null),
    artwork: fc.constant(null),
    ink: fc.oneof(fc.constant(null), fc.constant('#12463a')),
    fields: fc.dictionary(fc.constantFrom('was', 'material', 'care'), words, { maxKeys: 3 }),
  });

  test('that goes out comes back as it was, whatever is written in it', () => {
    fc.assert(
      fc.property(fc.uniqueArray(row, { selector: (r) => r.sku, minLength: 1, maxLength: 6 }), (rows) => {
        const table = readTable(writeTable(rows).replace(/^\ufeff/, ''));
        const plan = planImport(table, matchColumns(table.columns), {
          variants: new Map(),
          photos: [],
          artworks: [],
          pictures: [],
        });
        expect(plan.problems).toEqual([]);
        expect(plan.changes.map((c) => c.sku)).toEqual(rows.map((r) => r.sku));
        plan.changes.forEach((c, i) => {
          expect(c.set.title ?? '').toBe(rows[i].title);
          expect(c.set.price ?? null).toBe(rows[i].price);
          for (const [name, value] of Object.entries(rows[i].fields))
            expect(c.set.fields?.[name]).toBe(value);
        });
      }),
      { numRuns: 300 },
    );
  });

  test('what a spreadsheet would take for a formula is guarded, and the guard comes off again', () => {
    fc.assert(fc.property(words, (s) => expect(plainText(guardedText(s))).toBe(s)));
    for (const s of ['=1+1', '+A1', '-A1', '@a']) expect(guardedText(s)).not.toMatch(/^[=+\-@]/);
  });
});
