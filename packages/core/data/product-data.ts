import type { OwnShadowLayer } from '../stage/own-shadow-layer';
import type { ProductBase } from '../stage/base';
import type { Bounds } from '../vector/outline';
import Joi from 'joi';
import { brandKitSchema, type BrandKit } from '../brand/kit';
import { IntlMessageFormat } from 'intl-messageformat';
import { readNumber } from './read-number';
import { colourSchema, hashSchema } from '../raster/schemas';

/** What texts and pictures of a shot may be bound to: one variant of a product. */
export interface ProductData {
  /** The variant's own id, by which a cell's differences are kept. */
  id?: string;
  title: string;
  variant: string;
  sku: string;
  /** In whole currency units, or null where there is no price. */
  price: number | null;
  currency: string;
  /** Real size in mm, where known. */
  widthMm: number | null;
  heightMm: number | null;
  depthMm: number | null;
  /** Further values by name, such as the former price (`was`), `rating`, `reviews`, `material`. */
  fields?: Record<string, string>;
  /** The brand it is sold under. */
  brand?: BrandKit | null;
  /** The photo it was cut out of, and where in it. */
  photo?: { picture: string; width: number; height: number; cutout: Bounds } | null;
  /** The variant's own design, printed on mockups that follow the variant. */
  artwork?: { picture: string; width: number; height: number } | null;
  /** The one ink it is printed in, as #rrggbb; null for the design's own colours. */
  ink?: string | null;
  /** The variant's cutout. */
  cutout: {
    picture: string;
    width: number;
    height: number;
    shadow?: OwnShadowLayer | null;
    base?: ProductBase | null;
  } | null;
}

const mm = Joi.number().greater(0).max(20000).allow(null).default(null);
const pixels = Joi.number().integer().min(1).required();
const place = Joi.object({
  x: Joi.number().required(),
  y: Joi.number().required(),
  width: Joi.number().greater(0).required(),
  height: Joi.number().greater(0).required(),
}).required();
const dataSchema = Joi.object({
  id: Joi.string().max(60),
  title: Joi.string().max(200).allow('').default(''),
  variant: Joi.string().max(120).allow('').default(''),
  sku: Joi.string().max(80).allow('').default(''),
  price: Joi.number().min(0).allow(null).default(null),
  currency: Joi.string()
    .pattern(/^[A-Z]{3}$/)
    .default('GBP'),
  widthMm: mm,
  heightMm: mm,
  depthMm: mm,
  fields: Joi.object().pattern(Joi.string().max(40), Joi.string().max(2000).allow('')).default({}),
  brand: brandKitSchema.allow(null).default(null),
  photo: Joi.object({ picture: hashSchema.required(), width: pixels, height: pixels, cutout: place })
    .allow(null)
    .default(null),
  artwork: Joi.object({ picture: hashSchema.required(), width: pixels, height: pixels })
    .allow(null)
    .default(null),
  ink: colourSchema.allow(null).default(null),
  cutout: Joi.object({
    picture: hashSchema.required(),
    width: pixels,
    height: pixels,
    shadow: Joi.object().unknown(true).allow(null),
    base: Joi.object().unknown(true).allow(null),
  })
    .allow(null)
    .default(null),
});

/** Reads product data from elsewhere; throws a sentence that says what in it is wrong. */
export function readProductData(value: unknown): ProductData {
  const { value: data, error } = dataSchema.validate(value);
  if (error) throw new Error(`This is not product data: ${error.message}.`);
  return data as ProductData;
}

const LOCALE = 'en-GB';

type Values = Record<string, string | number | null>;
const known = new WeakMap<ProductData, Values>();

/** Every value that texts can be bound to, by name; null where it is not there. Made once for the same data. */
export function valuesOf(data: ProductData | null): Values {
  const kept = data && known.get(data);
  if (kept) return kept;
  const values = readValues(data);
  if (data) known.set(data, values);
  return values;
}

function readValues(data: ProductData | null): Values {
  const own = Object.entries(data?.fields ?? {}).map(([name, value]) => {
    const number = parseAmount(value);
    return [name, value.trim() === '' ? null : (number ?? value)] as const;
  });
  return plainRecord({
    ...Object.fromEntries(own),
    title: data?.title || null,
    variant: data?.variant || null,
    sku: data?.sku || null,
    price: data?.price == null ? null : formatPrice(data.price, data.currency, localeOf(data)),
    amount: data?.price ?? null,
    width: data?.widthMm ?? null,
    height: data?.heightMm ?? null,
    depth: data?.depthMm ?? null,
    size:
      data?.widthMm && data.heightMm ? `${Math.round(data.widthMm)} × ${Math.round(data.heightMm)} mm` : null,
    brand: data?.brand?.title ?? null,
  });
}

/** An object that has its own names and no others: a placeholder {constructor} is a field, or missing. */
const plainRecord = <T extends object>(record: T): T => Object.assign(Object.create(null) as T, record);

export const localeOf = (data: ProductData | null): string => data?.brand?.locale ?? LOCALE;

/**
 * Fills the ICU placeholders of a text ({title}, {price}, {variant}, {sku}, {size} and the product's own fields;
 * plural and number forms work on {amount}, the millimetres and every field that is a number). What is missing stays
 * to be seen as its placeholder and is listed.
 */
export function bindText(text: string, data: ProductData | null): { text: string; missing: string[] } {
  if (!text.includes('{')) return { text, missing: [] };
  const values = valuesOf(data);
  const missing = new Set<string>();
  const locale = localeOf(data);
  const filled = text.replace(/\{\s*(\w+)\s*\}/g, (_whole, name: string) => {
    const value = values[name];
    if (value != null) return typeof value === 'number' ? new Intl.NumberFormat(locale).format(value) : value;
    missing.add(name);
    return `‹${name}›`;
  });
  if (!filled.includes('{')) return { text: filled, missing: [...missing] };
  try {
    const present = plainRecord(Object.fromEntries(Object.entries(values).filter(([, v]) => v != null)));
    return { text: String(new IntlMessageFormat(filled, locale).format(present)), missing: [...missing] };
  } catch {
    // A form that cannot be filled is shown as it was written, never printed half.
    for (const match of filled.matchAll(/\{\s*(\w+)/g)) missing.add(match[1]);
    return { text: filled, missing: [...missing] };
  }
}

/** An amount as people write it, perhaps with a currency sign (see `readNumber`); null where it is none. */
export function parseAmount(text: string): number | null {
  return readNumber(text.replace(/^[\p{Sc}\s]+|[\p{Sc}\s]+$/gu, ''), { pointGroups: true });
}

export function formatPrice(amount: number, currency: string, locale = LOCALE): string {
  return priceFormat(amount, currency, locale).format(amount);
}

const formats = new Map<string, Intl.NumberFormat>();

/** Pence are written only where there are any. Throws a sentence for a currency that is none. */
export function priceFormat(amount: number, currency: string, locale = LOCALE): Intl.NumberFormat {
  const digits = Number.isInteger(amount) ? 0 : 2;
  const key = `${locale} ${currency} ${digits}`;
  const kept = formats.get(key);
  if (kept) return kept;
  try {
    const format = new Intl.NumberFormat(locale, {
      style: 'currency',
      currency,
      minimumFractionDigits: digits,
      maximumFractionDigits: digits,
    });
    formats.set(key, format);
    return format;
  } catch {
    throw new Error(`"${currency}" is no currency code; write three letters such as GBP or EUR.`);
  }
}
