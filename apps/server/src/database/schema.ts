/** Every table in one file, which Drizzle Kit compares with the migrations as a whole: hence its length. */

import type { CutoutRecord, History } from '@scenograph/contract/types';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { Encoding, FileWords } from '@scenograph/core/delivery/encoding';
import type { UploadAnswer } from '@scenograph/core/delivery/upload';
import type { FileFacts } from '@scenograph/core/spec/checks/check';
import type { Measures } from '@scenograph/core/spec/checks/index';
import type { RecipeStep } from '@scenograph/core/recipe/recipe';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import type { Shot } from '@scenograph/core/shot/document';
import type { Pose } from '@scenograph/core/stage/stand';
import { migrate } from '@scenograph/core/shot/migrations';
import type { BrandKit } from '@scenograph/core/brand/kit';
import type { Purpose, Season } from '@scenograph/core/templates/template';
import type { Piece } from '../edits/pieces';
import type { Effects } from '@scenograph/core/raster/effects';
import { NO_ITEM, type SceneSurvey } from '@scenograph/core/stage/survey';
import { sql } from 'drizzle-orm';
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

/** Surveys made before there were planes, masks, gloss and print areas. */
const sceneSurvey = documentOf<SceneSurvey>((survey) => ({
  ...{ plane: null, known: null, gloss: 0, occluder: null, ...NO_ITEM },
  ...survey,
}));

/** Where nothing can be undone. */
export const NO_HISTORY: History = { past: [], future: [] };

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
  /** When it was last stored, or named by something that was written; the database's triggers see to the latter. */
  touchedAt: timestamp('touched_at', { withTimezone: true }).notNull().defaultNow(),
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
  createdAt: created(),
});

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
  /** The claim of the worker that cuts it out, and until when that is taken to live; it renews this while it works. */
  cutoutClaim: uuid('cutout_claim'),
  cutoutLease: timestamp('cutout_lease', { withTimezone: true }),
  /** How often the present cutout was begun. */
  cutoutTries: integer('cutout_tries').notNull().default(0),
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
  covers: boolean('covers').notNull().default(false),
  notes: jsonb('notes').$type<string[]>().notNull(),
  createdAt: created(),
});

/** The brand of a workspace. Shots name its entries, so that a change reaches them all. */
export const brandKits = pgTable('brand_kits', {
  workspaceId: text('workspace_id').primaryKey(),
  kit: jsonb('kit').$type<BrandKit>().notNull(),
  history: jsonb('history').$type<History>().notNull().default(NO_HISTORY),
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
  history: jsonb('history').$type<History>().notNull().default(NO_HISTORY),
  revision: integer('revision').notNull().default(1),
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
    /** Printed on mockups that follow the variant, in this ink unless in its own colours. */
    artworkId: uuid('artwork_id').references(() => artworks.id, { onDelete: 'set null' }),
    ink: text('ink'),
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

/** Every version of a sheet, so that one can go back and see what has changed. */
export const specSheetVersions = pgTable(
  'spec_sheet_versions',
  {
    workspaceId: workspace(),
    id: text('id').notNull(),
    version: integer('version').notNull(),
    sheet: jsonb('sheet').$type<SpecSheet>().notNull(),
    createdAt: created(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id, t.version] })],
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
  /** How pictures are written, by slot key, where it is decided by hand. */
  encodings: jsonb('encodings').$type<Record<string, Encoding>>().notNull().default({}),
  createdAt: created(),
});

/** Cells that are filled by another shot than their slot is; a shot of null leaves the cell empty. */
export const cellFeeds = pgTable(
  'cell_feeds',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listings.id, { onDelete: 'cascade' }),
    variantId: uuid('variant_id')
      .notNull()
      .references(() => variants.id, { onDelete: 'cascade' }),
    slotKey: text('slot_key').notNull(),
    shotId: uuid('shot_id').references(() => shots.id, { onDelete: 'cascade' }),
  },
  (t) => [primaryKey({ columns: [t.listingId, t.variantId, t.slotKey] })],
);

/** Faults that a person lets pass, with the reason; of one variant, or of all. */
export const waivers = pgTable(
  'waivers',
  {
    id: id(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listings.id, { onDelete: 'cascade' }),
    variantId: uuid('variant_id').references(() => variants.id, { onDelete: 'cascade' }),
    slotKey: text('slot_key').notNull(),
    check: text('check').notNull(),
    reason: text('reason').notNull(),
    createdAt: created(),
  },
  (t) => [index('waivers_listing').on(t.listingId)],
);

/**
 * What several people change piece by piece: a product with its variants (`data:<product>`), a listing with its board
 * (`board:<listing>`). The revision counts its changes.
 */
export const scopes = pgTable('scopes', {
  scope: text('scope').primaryKey(),
  revision: integer('revision').notNull().default(1),
});

/** Which pieces of a scope each of its last changes touched. */
export const scopeChanges = pgTable(
  'scope_changes',
  {
    scope: text('scope')
      .notNull()
      .references(() => scopes.scope, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    editor: text('editor'),
    label: text('label').notNull(),
    keys: jsonb('keys').$type<string[]>().notNull(),
    createdAt: created(),
  },
  (t) => [primaryKey({ columns: [t.scope, t.revision] })],
);

/** Steps of a scope that can be taken back, each by who made it. The latest come last. */
export const edits = pgTable(
  'edits',
  {
    n: bigint('n', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    scope: text('scope')
      .notNull()
      .references(() => scopes.scope, { onDelete: 'cascade' }),
    /** The scope's revision when it was last done or undone. */
    revision: integer('revision').notNull(),
    /** The browser it was made in. */
    editor: text('editor'),
    label: text('label').notNull(),
    /** The pieces it changed, before and after. */
    pieces: jsonb('pieces').$type<Piece[]>().notNull(),
    undone: boolean('undone').notNull().default(false),
    createdAt: created(),
  },
  (t) => [index('edits_scope').on(t.scope, t.n)],
);

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
    /** Alternative text of its pictures, with placeholders. */
    alt: text('alt').notNull().default(''),
    /** The recipe step that made it; null for one made by hand. */
    madeBy: text('made_by'),
    /** Slot keys this shot feeds. */
    feeds: jsonb('feeds').$type<string[]>().notNull(),
    position: integer('position').notNull().default(0),
    createdAt: created(),
    updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index('shots_listing').on(t.listingId)],
);

export type DeliveryState = 'queued' | 'running' | 'paused' | 'cancelled' | 'done' | 'failed';

export const deliveries = pgTable(
  'deliveries',
  {
    id: id(),
    workspaceId: workspace(),
    /** The first of its listings, while that is there. */
    listingId: uuid('listing_id').references(() => listings.id, { onDelete: 'set null' }),
    title: text('title').notNull(),
    revision: integer('revision').notNull().default(1),
    state: text('state').$type<DeliveryState>().notNull().default('queued'),
    /** The higher is painted first. */
    priority: integer('priority').notNull().default(0),
    error: text('error'),
    createdAt: created(),
    finishedAt: timestamp('finished_at', { withTimezone: true }),
  },
  (t) => [index('deliveries_workspace').on(t.workspaceId, t.createdAt)],
);

/** JSON documents that paintings are made from, by the SHA-256 of their text: each is kept once. */
export const orderParts = pgTable('order_parts', {
  hash: text('hash').primaryKey(),
  body: text('body').notNull(),
  touchedAt: timestamp('touched_at', { withTimezone: true }).notNull().defaultNow(),
});

export type PaintingState = 'waiting' | 'working' | 'done' | 'failed';

/** One distinct file: what it is made from, who is at it, and, once it is done, the file and all that was measured. */
export const paintings = pgTable(
  'paintings',
  {
    /** Digest of everything the file depends on. */
    key: text('key').primaryKey(),
    shotPart: text('shot_part').notNull(),
    slotPart: text('slot_part').notNull(),
    dataPart: text('data_part').notNull(),
    brandPart: text('brand_part').notNull(),
    slotKey: text('slot_key').notNull(),
    encoding: jsonb('encoding').$type<Encoding>().notNull(),
    words: jsonb('words').$type<FileWords>().notNull(),
    state: text('state').$type<PaintingState>().notNull().default('waiting'),
    /** Who has taken it, until when; a lease that runs out is anybody's. */
    worker: uuid('worker'),
    leaseUntil: timestamp('lease_until', { withTimezone: true }),
    attempts: integer('attempts').notNull().default(0),
    reason: text('reason'),
    blob: text('blob').references(() => blobs.hash),
    format: text('format'),
    quality: integer('quality'),
    bytes: integer('bytes'),
    width: integer('width'),
    height: integer('height'),
    facts: jsonb('facts').$type<FileFacts>(),
    measures: jsonb('measures').$type<Measures>(),
    pictures: jsonb('pictures').$type<string[]>(),
    milliseconds: integer('milliseconds'),
    createdAt: created(),
    finishedAt: timestamp('finished_at', { withTimezone: true }),
  },
  (t) => [
    index('paintings_open')
      .on(t.state)
      .where(sql`state in ('waiting', 'working')`),
  ],
);

/** One picture of a delivery, in order: which painting, under which name. */
export const deliveryCells = pgTable(
  'delivery_pictures',
  {
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    key: text('key')
      .notNull()
      .references(() => paintings.key),
    /** The slot by which it is judged: pictures that are the same may go to slots with other rules. */
    slotPart: text('slot_part').notNull().default(''),
    listingId: uuid('listing_id').notNull(),
    variantId: uuid('variant_id').notNull(),
    listing: text('listing').notNull(),
    shotTitle: text('shot_title').notNull(),
    variant: text('variant').notNull(),
    sku: text('sku').notNull(),
    marketplace: text('marketplace').notNull(),
    slotKey: text('slot_key').notNull(),
    /** Path without extension, within the delivery. */
    fileName: text('file_name').notNull(),
  },
  (t) => [primaryKey({ columns: [t.deliveryId, t.n] }), index('delivery_pictures_key').on(t.key)],
);

/** The last finished picture of every cell, to tell what has changed since. */
export const madeCells = pgTable(
  'made_cells',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listings.id, { onDelete: 'cascade' }),
    variantId: uuid('variant_id').notNull(),
    slotKey: text('slot_key').notNull(),
    key: text('key')
      .notNull()
      .references(() => paintings.key),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.listingId, t.variantId, t.slotKey] })],
);

/** What a marketplace's test upload said to a delivery. */
export const uploads = pgTable(
  'uploads',
  {
    id: id(),
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    marketplace: text('marketplace').notNull(),
    answers: jsonb('answers').$type<UploadAnswer[]>().notNull(),
    createdAt: created(),
  },
  (t) => [index('uploads_delivery').on(t.deliveryId)],
);

/** Runs of steps, defined once and run over many products. */
export const recipes = pgTable('recipes', {
  id: id(),
  workspaceId: workspace(),
  title: text('title').notNull(),
  steps: jsonb('steps').$type<RecipeStep[]>().notNull(),
  history: jsonb('history').$type<History>().notNull().default(NO_HISTORY),
  revision: integer('revision').notNull().default(1),
  createdAt: created(),
});

export type StepState = 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';

/** What a recipe's step has made of a product, and from which inputs. */
export const recipeResults = pgTable(
  'recipe_results',
  {
    recipeId: uuid('recipe_id')
      .notNull()
      .references(() => recipes.id, { onDelete: 'cascade' }),
    productId: uuid('product_id')
      .notNull()
      .references(() => products.id, { onDelete: 'cascade' }),
    step: text('step').notNull(),
    state: text('state').$type<StepState>().notNull(),
    /** Digest of what the step depends on, when it was last done. */
    key: text('key'),
    /** What it made: ids by what they name, such as `shot`, `listing`, `delivery`. */
    made: jsonb('made').$type<Record<string, string>>().notNull().default({}),
    says: text('says'),
    /** Who is at it, until when, and how often it was begun; a lease that runs out is anybody's. */
    worker: uuid('worker'),
    leaseUntil: timestamp('lease_until', { withTimezone: true }),
    tries: integer('tries').notNull().default(0),
    updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.recipeId, t.productId, t.step] })],
);

/** Worker processes, each as long as it gives signs of life. */
export const workers = pgTable('workers', {
  id: uuid('id').primaryKey(),
  host: text('host').notNull(),
  threads: integer('threads').notNull(),
  startedAt: timestamp('started_at', { withTimezone: true }).notNull().defaultNow(),
  seenAt: timestamp('seen_at', { withTimezone: true }).notNull().defaultNow(),
});

/** What was removed, whole, until it is brought back or forgotten. */
export const bin = pgTable(
  'bin',
  {
    /** The removed thing's own id. */
    id: text('id').primaryKey(),
    workspaceId: workspace(),
    kind: text('kind').notNull(),
    /** Its rows by table, itself first; and which rows elsewhere named it. */
    rows: jsonb('rows').$type<{ table: string; rows: unknown[] }[]>().notNull(),
    links: jsonb('links')
      .$type<{ table: string; column: string; ids: string[]; value?: string }[]>()
      .notNull(),
    createdAt: created(),
  },
  (t) => [index('bin_age').on(t.createdAt)],
);
