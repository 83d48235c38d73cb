import type { ProductData } from '@scenograph/core/data/product-data';
import type { Pose } from '@scenograph/core/stage/stand';
import type { BrandKit } from '@scenograph/core/brand/kit';
import {
  currencySchema,
  fieldsSchema,
  inkSchema,
  LIMITS,
  priceSchema,
  skuSchema,
} from '@scenograph/core/table/variant-row';
import { file, route } from '../route';
import * as s from '../schema';
import { documentOf, editState, removed, turned, way, pages } from './common';

const millimetres = s.nullable(s.number({ above: 0, max: 20_000 }));
const pose = s.oneOf<Pose>('stand', 'float', 'flat');
const size = { widthMm: millimetres, heightMm: millimetres, depthMm: millimetres };

export const variant = s.named(
  'Variant',
  s.shape({
    id: s.id(),
    productId: s.id(),
    photoId: s.nullable(s.id()),
    artworkId: s.nullable(s.id()),
    pose,
    /** Probability that the automatic cutout is right; null where there is none or a person has accepted it. */
    cutoutConfidence: s.nullable(s.number()),
    /** What shots are bound to; the brand, which all share, comes once beside the variants. */
    data: documentOf<ProductData>(),
  }),
);

/** A variant as its row is stored. */
const storedVariant = {
  id: s.id(),
  productId: s.id(),
  title: s.text({ empty: true }),
  sku: s.text(),
  price: s.nullable(s.number()),
  currency: s.text(),
  fields: s.record(s.text({ empty: true })),
  photoId: s.nullable(s.id()),
  artworkId: s.nullable(s.id()),
  ink: s.nullable(s.text()),
  position: s.integer(),
};
export const variantRow = s.named('VariantRow', s.shape(storedVariant));

const own = { id: s.id(), revision: s.integer(), title: s.text(), ...size, pose, createdAt: s.moment() };
export const product = s.named(
  'Product',
  s.shape({
    ...own,
    /** How many variants it has; the first of them come with a list of products. */
    count: s.integer(),
    variants: s.list(variant),
  }),
);
export const productWithEdits = s.named(
  'ProductWithEdits',
  s.shape({ ...own, count: s.integer(), variants: s.list(variant), edits: editState }),
);

const title = s.text({ trim: true, empty: true, max: LIMITS.title });
const values = {
  price: s.of<number | null>(priceSchema),
  currency: s.of<string>(currencySchema),
  fields: s.of<Record<string, string>>(fieldsSchema),
  photoId: s.nullable(s.id()),
  artworkId: s.nullable(s.id()),
  ink: s.of<string | null>(inkSchema),
};
const sku = s.of<string>(skuSchema);
const variantPatch = s.some({ title, sku: s.of<string>(skuSchema.optional()), ...values });
const newVariant = s.shape({
  title: s.usually(title, ''),
  sku,
  price: s.usually(values.price, null),
  currency: s.usually(values.currency, 'GBP'),
  fields: s.optional(values.fields),
  photoId: s.optional(values.photoId),
  artworkId: s.optional(values.artworkId),
  ink: s.optional(values.ink),
});
const ofVariants = { max: LIMITS.variants };

/** Products, their variants and the data of these. */
export const products = {
  'GET /api/products': route({
    says: 'Products with their first variants; the brand that these share comes once.',
    query: s.shape({
      ...pages(100),
      search: s.usually(s.text({ trim: true, max: 100, empty: true }), ''),
    }),
    answer: s.shape({
      brand: s.nullable(documentOf<BrandKit>()),
      total: s.integer(),
      products: s.list(product),
    }),
  }),
  'GET /api/products/titles': route({
    says: 'All products by name only.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(s.shape({ id: s.id(), title: s.text() })),
  }),
  'GET /api/products/:id': route({
    says: 'A product with all its variants, and what can be undone.',
    answer: productWithEdits,
  }),
  'PATCH /api/products/:id': route({
    says: 'Changes a product’s name, sizes or pose.',
    body: s.some({
      title: s.text({ trim: true, min: 1, max: 200 }),
      ...size,
      pose: s.oneOf<'stand' | 'flat'>('stand', 'flat'),
    }),
    revised: true,
    answer: s.shape(own),
  }),
  'DELETE /api/products/:id': route({
    says: 'Removes a product with its variants, listings and shots; deliveries stay.',
    revised: true,
    answer: removed,
  }),
  'POST /api/products/:id/variants': route({
    says: 'Adds a variant.',
    body: newVariant,
    revised: true,
    creates: true,
    answer: variantRow,
  }),
  'PATCH /api/variants/:id': route({
    says: 'Changes a variant’s own values.',
    body: variantPatch,
    revised: true,
    answer: s.shape({ ...storedVariant, revision: s.integer() }),
  }),
  'POST /api/products/:id/variants/batch': route({
    says: 'Many changes of a product’s variants as one step: all or none.',
    body: s.shape({
      label: s.text({ trim: true, min: 1, max: 120 }),
      set: s.usually(s.list(s.shape({ id: s.id(), patch: variantPatch }), ofVariants), []),
      add: s.usually(s.list(newVariant, ofVariants), []),
      remove: s.usually(s.list(s.id(), ofVariants), []),
    }),
    revised: true,
    answer: s.shape({
      changed: s.integer(),
      added: s.list(variantRow),
      removed: s.integer(),
      revision: s.integer(),
    }),
  }),
  'POST /api/products/:id/turn': route({
    says: 'Undoes or redoes a step in a product’s data.',
    body: way,
    answer: turned,
  }),
  'GET /api/products/:id/table.csv': route({
    says: 'The variants as CSV, which can be imported unchanged.',
    answer: file('text/csv'),
  }),
};
