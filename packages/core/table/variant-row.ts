import Joi from 'joi';
import { HEX_COLOUR } from '../raster/colour';

/** A variant's own values, as the data grid and its files hold them. Photo and artwork by their file names. */
export interface VariantRow {
  sku: string;
  title: string;
  price: number | null;
  currency: string;
  photo: string | null;
  artwork: string | null;
  ink: string | null;
  fields: Record<string, string>;
}

/** Columns that every table has, in their order, with the names by which other tables call them. */
export const COLUMNS = [
  { id: 'sku', title: 'SKU', names: ['sku', 'article', 'article number', 'item number', 'code', 'id'] },
  { id: 'title', title: 'Variant', names: ['variant', 'title', 'name', 'option'] },
  { id: 'price', title: 'Price', names: ['price', 'amount', 'retail price'] },
  { id: 'currency', title: 'Currency', names: ['currency', 'currency code'] },
  { id: 'photo', title: 'Photo', names: ['photo', 'picture', 'image', 'file', 'filename', 'file name'] },
  { id: 'artwork', title: 'Artwork', names: ['artwork', 'design', 'print'] },
  { id: 'ink', title: 'Ink', names: ['ink', 'ink colour', 'print colour'] },
] as const;

export type ColumnId = (typeof COLUMNS)[number]['id'];

/** Names that texts can use as placeholders; the product's own are not to be had twice. */
export const TAKEN_FIELDS = [
  'title',
  'variant',
  'sku',
  'price',
  'amount',
  'currency',
  'width',
  'height',
  'depth',
  'size',
  'brand',
  'photo',
  'artwork',
  'ink',
];

export const FIELD_NAME = /^[a-z][a-z0-9_]{0,39}$/i;

export const LIMITS = { sku: 80, title: 120, field: 2000, fields: 60, variants: 5000 };

const sentence = (label: string, text: string) => ({ '*': `${label} ${text}` });

export const skuSchema = Joi.string().trim().min(1).max(LIMITS.sku).required();
export const priceSchema = Joi.number()
  .min(0)
  .max(10_000_000)
  .allow(null)
  .messages(sentence('the price', 'must be a number from 0 to 10,000,000'));
export const currencySchema = Joi.string()
  .pattern(/^[A-Z]{3}$/)
  .messages({ 'string.pattern.base': 'the currency must be a three-letter ISO 4217 code such as GBP' });
export const inkSchema = Joi.string()
  .pattern(HEX_COLOUR)
  .allow(null)
  .messages({ 'string.pattern.base': 'the ink must be a colour written as #rrggbb' });
export const fieldsSchema = Joi.object()
  .pattern(
    Joi.string()
      .pattern(FIELD_NAME)
      .invalid(...TAKEN_FIELDS),
    Joi.string().max(LIMITS.field).allow(''),
  )
  .max(LIMITS.fields)
  .messages({
    'object.unknown':
      'a field is named by a letter and up to 39 letters, digits or underscores, and not as a value the product has already; {{#label}} is not',
  });
