import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import type { Shot } from '@scenograph/core/shot/document';
import type { Pose } from '@scenograph/core/elements/product/definition';
import { migrate } from '@scenograph/core/shot/migrations';
import type { BrandKit } from '@scenograph/core/brand/kit';
import type { Purpose, Season } from '@scenograph/core/templates/template';
import type { Effects } from '@scenograph/core/elements/effects';
import type { ProductBase } from '@scenograph/core/stage/base';
import { NO_ITEM, type SceneSurvey } from '@scenograph/core/elements/backdrop/survey';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

/** A JSON column whose documents are brought up to date as they are read. */
const documentOf = <T>(upToDate: (value: T) => T) =>
  customType<{ data: T; driverData: unknown }>({
    dataType: () => 'jsonb',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (value) => upToDate((typeof value === 'string' ? JSON.parse(value) : value) as T),
  });
const shotDocument = documentOf<Shot>((shot) => migrate(shot) as Shot);
const cellOrder = documentOf<CellOrder>((order) => ({ ...order, shot: migrate(order.shot) as Shot }));

/** Surveys made before there were planes, masks, gloss and print areas. */
const sceneSurvey = documentOf<SceneSurvey>((survey) => ({
  ...{ plane: null, known: null, gloss: 0, occluder: null, ...NO_ITEM },
  ...survey,
}));

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

const id = () => uuid('id').primaryKey().defaultRandom();
const workspace = () => text('workspace_id').notNull();
const created = () => timestamp('created_at', { withTimezone: true }).notNull().defaultNow();

export const workspaces = pgTable('workspaces', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  demoLoaded: boolean('demo_loaded').notNull().default(false),
});

/** Files by the SHA-256 of their bytes, immutable, cut in pieces so that they stream. */
export const blobs = pgTable('blobs', {
  hash: text('hash').primaryKey(),
  mime: text('mime').notNull(),
  size: bigint('size', { mode: 'number' }).notNull(),
  createdAt: created(),
});

export const blobPieces = pgTable(
  'blob_pieces',
  {
    hash: text('hash')
      .notNull()
      .references(() => blobs.hash, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.hash, t.n] })],
);

/** Computed files by the key of what they depend on. */
export const derived = pgTable('derived', {
  key: text('key').primaryKey(),
  hash: text('hash')
    .notNull()
    .references(() => blobs.hash),
});

export interface CutoutRecord {
  picture: string;
  matte: string | null;
  width: number;
  height: number;
  bounds: { x: number; y: number; width: number; height: number };
  /** What the product stands on; missing from cutouts made before it was looked for. */
  base?: ProductBase;
  confidence: number;
  /** The camera's own shadow: black with alpha, its place as shares of the cutout's box. */
  shadow: { picture: string; x: number; y: number; width: number; height: number } | null;
  milliseconds: number;
}

export const photos = pgTable('photos', {
  id: id(),
  workspaceId: workspace(),
  name: text('name').notNull(),
  format: text('format').notNull(),
  bytes: bigint('bytes', { mode: 'number' }).notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  original: text('original')
    .notNull()
    .references(() => blobs.hash),
  /** Upright 8-bit sRGB; the original itself where it is that already. */
  working: text('working')
    .notNull()
    .references(() => blobs.hash),
  notes: jsonb('notes').$type<string[]>().notNull(),
  cutoutState: text('cutout_state')
    .$type<'waiting' | 'working' | 'done' | 'failed' | 'cancelled'>()
    .notNull(),
  cutout: jsonb('cutout').$type<CutoutRecord>(),
  cutoutError: text('cutout_error'),
  /** What the cutout is made from besides the photo; null is the plain one. Saved as it is edited. */
  recipe: jsonb('recipe').$type<CutoutRecipe>(),
  recipeHistory: jsonb('recipe_history').$type<History>(),
  recipeRevision: integer('recipe_revision').notNull().default(1),
  /** A person has looked at the cutout and taken it as it is. */
  accepted: boolean('accepted').notNull().default(false),
  createdAt: created(),
});

/** Mattes kept with a photo for later. */
export const outlines = pgTable(
  'outlines',
  {
    id: id(),
    photoId: uuid('photo_id')
      .notNull()
      .references(() => photos.id, { onDelete: 'cascade' }),
    title: text('title').notNull(),
    matte: text('matte')
      .notNull()
      .references(() => blobs.hash),
    createdAt: created(),
  },
  (t) => [index('outlines_photo').on(t.photoId)],
);

/** Pictures laid over shots: logos and the like. */
export const pictures = pgTable('pictures', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  original: text('original').notNull(),
  picture: text('picture').notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  createdAt: created(),
});

/** Designs to be printed on mockups. */
export const artworks = pgTable('artworks', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  /** The file as it came, and the design drawn and trimmed as PNG. */
  original: text('original').notNull(),
  picture: text('picture').notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  /** Whether it came as SVG, and with which colours. */
  vector: boolean('vector').notNull(),
  colours: jsonb('colours').$type<string[]>().notNull(),
  whiteGround: boolean('white_ground').notNull(),
  notes: jsonb('notes').$type<string[]>().notNull(),
  createdAt: created(),
});

/** The brand of a workspace. Shots name its entries, so that a change reaches them all. */
export const brandKits = pgTable('brand_kits', {
  workspaceId: text('workspace_id').primaryKey(),
  kit: jsonb('kit').$type<BrandKit>().notNull(),
  /** Earlier kits, the latest last, to go back to. */
  past: jsonb('past').$type<BrandKit[]>().notNull().default([]),
  revision: integer('revision').notNull().default(1),
});

/** Fonts of one's own, each one plain font file (TTF or OTF). */
export const fonts = pgTable('fonts', {
  id: id(),
  workspaceId: workspace(),
  family: text('family').notNull(),
  style: text('style').notNull(),
  hash: text('hash')
    .notNull()
    .references(() => blobs.hash),
  createdAt: created(),
});

/** Templates of one's own; those that ship are in core. */
export const templates = pgTable('templates', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  purpose: text('purpose').$type<Purpose>(),
  season: text('season').$type<Season>(),
  document: shotDocument('document').notNull(),
  createdAt: created(),
});

/** Effects kept by name. */
export const effectSettings = pgTable('effect_settings', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  effects: jsonb('effects').$type<Effects>().notNull(),
  createdAt: created(),
});

export const scenes = pgTable('scenes', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  picture: text('picture').notNull(),
  survey: sceneSurvey('survey').notNull(),
  palette: jsonb('palette').$type<string[]>().notNull(),
  season: text('season'),
  createdAt: created(),
});

export const products = pgTable('products', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  widthMm: doublePrecision('width_mm'),
  heightMm: doublePrecision('height_mm'),
  depthMm: doublePrecision('depth_mm'),
  pose: text('pose').$type<Pose>().notNull().default('stand'),
  createdAt: created(),
});

export const variants = pgTable(
  'variants',
  {
    id: id(),
    productId: uuid('product_id')
      .notNull()
      .references(() => products.id, { onDelete: 'cascade' }),
    title: text('title').notNull(),
    sku: text('sku').notNull(),
    price: doublePrecision('price'),
    currency: text('currency').notNull().default('GBP'),
    /** Further values by name that texts may be bound to. */
    fields: jsonb('fields').$type<Record<string, string>>().notNull().default({}),
    photoId: uuid('photo_id').references(() => photos.id, { onDelete: 'set null' }),
    position: integer('position').notNull().default(0),
  },
  (t) => [index('variants_product').on(t.productId)],
);

export const specSheets = pgTable(
  'spec_sheets',
  {
    workspaceId: workspace(),
    id: text('id').notNull(),
    position: integer('position').notNull(),
    sheet: jsonb('sheet').$type<SpecSheet>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

export const listings = pgTable('listings', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  productId: uuid('product_id')
    .notNull()
    .references(() => products.id),
  /** Spec sheets that this listing is made for. */
  sheets: jsonb('sheets').$type<string[]>().notNull(),
  createdAt: created(),
});

/** One undoable step: immer patches there and back. */
export interface Edit {
  label: string;
  forward: unknown[];
  inverse: unknown[];
}

export interface History {
  past: Edit[];
  future: Edit[];
}

export const shots = pgTable(
  'shots',
  {
    id: id(),
    workspaceId: workspace(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listings.id, { onDelete: 'cascade' }),
    title: text('title').notNull(),
    document: shotDocument('document').notNull(),
    history: jsonb('history').$type<History>().notNull(),
    revision: integer('revision').notNull().default(1),
    /** Slot keys this shot feeds. */
    feeds: jsonb('feeds').$type<string[]>().notNull(),
    position: integer('position').notNull().default(0),
    createdAt: created(),
    updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index('shots_listing').on(t.listingId)],
);

export type DeliveryState = 'queued' | 'running' | 'cancelled' | 'done' | 'failed';

export const deliveries = pgTable(
  'deliveries',
  {
    id: id(),
    workspaceId: workspace(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listings.id, { onDelete: 'cascade' }),
    title: text('title').notNull(),
    state: text('state').$type<DeliveryState>().notNull().default('queued'),
    cancelAsked: boolean('cancel_asked').notNull().default(false),
    zip: text('zip').references(() => blobs.hash),
    zipBytes: bigint('zip_bytes', { mode: 'number' }),
    error: text('error'),
    createdAt: created(),
    finishedAt: timestamp('finished_at', { withTimezone: true }),
  },
  (t) => [index('deliveries_workspace').on(t.workspaceId, t.createdAt)],
);

export type CellState = 'waiting' | 'done' | 'failed';

/** One picture of a delivery. What it is made from is fixed when the delivery is ordered. */
export const deliveryCells = pgTable(
  'delivery_cells',
  {
    id: id(),
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    shotTitle: text('shot_title').notNull(),
    variant: text('variant').notNull(),
    sku: text('sku').notNull(),
    marketplace: text('marketplace').notNull(),
    slotKey: text('slot_key').notNull(),
    fileName: text('file_name').notNull(),
    order: cellOrder('order').notNull(),
    state: text('state').$type<CellState>().notNull().default('waiting'),
    format: text('format'),
    quality: integer('quality'),
    bytes: integer('bytes'),
    blob: text('blob').references(() => blobs.hash),
    checks: jsonb('checks').$type<CheckResult[]>(),
    reason: text('reason'),
  },
  (t) => [uniqueIndex('delivery_cells_n').on(t.deliveryId, t.n)],
);

export interface CellOrder {
  shot: Shot;
  slot: SpecSheet['slots'][number];
  data: import('@scenograph/core/shot/data').ProductData;
}
