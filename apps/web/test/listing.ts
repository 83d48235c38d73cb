import { emptyShot } from '@scenograph/core/shot/document';
import { newBackdrop, newProduct } from '@scenograph/core/shot/starters';
import { data, FRAME, HASH } from '@scenograph/core/shot/one-of-each.fixture';
import { readSlot, type SpecSheet } from '@scenograph/core/spec/slot';
import type { ListingDetail, ShotRow, ShotWithHistory, Variant, Product } from '../src/api/client';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
export const LISTING = uuid(1);
export const PRODUCT = uuid(2);
export const TEAL = uuid(11);
export const OCHRE = uuid(12);
export const ON_WHITE = uuid(21);
export const ON_SHELF = uuid(22);
const MOMENT = '2026-11-01T10:00:00.000Z';

const slot = (id: string, title: string, required: boolean, fileName = `{sku}-${id}`) =>
  readSlot({
    id,
    title,
    width: 1200,
    height: 900,
    formats: ['jpeg'],
    maxBytes: 1e6,
    background: { kind: 'any' },
    required,
    fileName,
  });

export const SHEET: SpecSheet = {
  id: 'harbour',
  marketplace: 'Harbour Market',
  about: '',
  version: 1,
  severity: {},
  slots: [slot('front', 'Front', true), slot('view', 'View', false)],
};
export const OTHER_SHEET: SpecSheet = {
  ...SHEET,
  id: 'kestrel',
  marketplace: 'Kestrel Market',
  slots: [slot('main', 'Main', true)],
};

export const variant = (id: string, name: string, over: Partial<Variant['data']> = {}): Variant => ({
  id,
  productId: PRODUCT,
  photoId: null,
  artworkId: null,
  pose: 'stand',
  cutoutConfidence: null,
  data: { ...data, id, variant: name, sku: `MB-${name.slice(0, 2).toUpperCase()}`, ...over },
});

export const product = (
  id: string,
  title: string,
  variants = [variant(TEAL, 'Teal')],
  over: Partial<Product> = {},
): Product => ({
  id,
  title,
  widthMm: null,
  heightMm: null,
  depthMm: null,
  pose: 'stand',
  createdAt: MOMENT,
  count: variants.length,
  revision: 1,
  variants,
  ...over,
});

export const shot = (id: string, title: string, feeds: string[] = []): ShotRow => ({
  id,
  title,
  alt: '',
  feeds,
  listingId: LISTING,
  revision: 1,
  madeBy: null,
  position: 0,
  createdAt: MOMENT,
  updatedAt: MOMENT,
  document: {
    ...emptyShot(FRAME.width, FRAME.height),
    elements: [newBackdrop('backdrop', FRAME, '#ffffff'), newProduct('product', data, FRAME, 'stand')],
  },
});

/** The same with an empty history. */
export const storedShot = (id: string, title: string): ShotWithHistory => ({
  ...shot(id, title),
  history: { past: [], future: [] },
});

/** A listing of two variants in three slots of two marketplaces, the first filled by one of two shots. */
export const listing = (over: Partial<ListingDetail> = {}): ListingDetail => ({
  listing: {
    id: LISTING,
    title: 'Planter, autumn',
    productId: PRODUCT,
    sheets: ['harbour', 'kestrel'],
    encodings: {},
    createdAt: MOMENT,
  },
  revision: 4,
  brand: null,
  cellFeeds: [],
  variants: [variant(TEAL, 'Teal'), variant(OCHRE, 'Ochre', { cutout: null })],
  sheets: [SHEET, OTHER_SHEET],
  shots: [shot(ON_WHITE, 'On white', ['harbour/front']), shot(ON_SHELF, 'On the shelf')],
  ...over,
});
export { HASH, MOMENT, uuid };
