import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { tidySchema, type Tidy } from '@scenograph/core/retouch/tidy';
import type { ProductBase } from '@scenograph/core/stage/base';
import { file, route } from '../route';
import * as s from '../schema';
import { cutoutHistory as history, documentOf, fileName, ids, removed, pages } from './common';

/** png and webp: the product alone at full size, with transparency. svg: its outline. matte: grey, the photo's size. */
export const CUTOUT_FORMATS = ['png', 'webp', 'svg', 'matte'] as const;

const box = { x: s.number(), y: s.number(), width: s.number(), height: s.number() };

export const cutoutRecord = s.named(
  'Cutout',
  s.shape({
    picture: s.hash(),
    matte: s.nullable(s.hash()),
    width: s.integer(),
    height: s.integer(),
    bounds: s.shape(box),
    /** What the product stands on; missing from cutouts made before it was looked for. */
    base: s.optional(s.nullable(documentOf<ProductBase>())),
    /** Probability that the outline is right; 1 where a hand has corrected it. */
    confidence: s.number({ min: 0, max: 1 }),
    /** Places that deserve a look, in pixels of the tidied photo; missing from older cutouts. */
    doubts: s.optional(s.list(s.shape({ x: s.number(), y: s.number(), radius: s.number() }))),
    /** Which recipe it was made by; missing from older cutouts. */
    recipeKey: s.optional(s.text()),
    /** The camera's own shadow: black with alpha, its place as shares of the cutout's box. */
    shadow: s.nullable(s.shape({ picture: s.hash(), ...box })),
    milliseconds: s.number(),
  }),
);

export const photo = s.named(
  'Photo',
  s.shape({
    id: s.id(),
    name: s.text({ max: 255 }),
    format: s.text(),
    bytes: s.integer(),
    width: s.integer(),
    height: s.integer(),
    /** The file as it came, and upright 8-bit sRGB; the same where it is that already. */
    original: s.hash(),
    working: s.hash(),
    notes: s.list(s.text()),
    cutoutState: s.oneOf('waiting', 'working', 'done', 'failed', 'cancelled'),
    cutout: s.nullable(cutoutRecord),
    cutoutError: s.nullable(s.text()),
    /** A person has looked at the cutout and taken it as it is. */
    accepted: s.flag(),
    /** The full-size cutout was made by the corrections as they stand. */
    inUse: s.flag(),
    /** Of its corrections. */
    revision: s.integer(),
    createdAt: s.moment(),
  }),
);

export const outline = s.named(
  'Outline',
  s.shape({ id: s.id(), photoId: s.id(), title: s.text(), matte: s.hash(), createdAt: s.moment() }),
);

/** The revisions of the photos that a change is based on, in the order of their ids; without them it is made in any case. */
const revisions = s.optional(s.list(s.integer({ min: 1 }), { max: 2000 }));
/** `revision` is the one that the change made: handed back, it is undone only where nothing came after. */
const tidied = s.shape({
  id: s.id(),
  tidy: s.of<Tidy>(tidySchema),
  revision: s.optional(s.integer({ min: 1 })),
});

export const desk = s.named(
  'CutoutDesk',
  s.shape({
    recipe: documentOf<CutoutRecipe>(),
    inUse: s.flag(),
    history,
    revision: s.integer(),
    outlines: s.list(outline),
    /** Pictures of the scenes that the product stands in, the newest shot's first. */
    standsIn: s.list(s.hash()),
  }),
);

const format = s.oneOf(...CUTOUT_FORMATS);
const queued = s.shape({ queued: s.integer() });

export const photos = {
  'GET /api/photos': route({
    says: 'All photos, the newest first.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(photo),
  }),
  'POST /api/photos': route({
    says: 'Takes a photo in, keeps the file untouched and queues its cutout.',
    query: fileName,
    upload: true,
    creates: true,
    answer: photo,
  }),
  'POST /api/photos/cutouts': route({
    says: 'Queues cutouts anew; with `changedOnly` those that were not made by the corrections as they stand.',
    body: s.shape({ ids: ids(2000), changedOnly: s.usually(s.flag(), false) }),
    answer: queued,
  }),
  'POST /api/photos/cutouts/cancel': route({
    says: 'Cancels all cutouts that no worker has begun.',
    answer: s.shape({ cancelled: s.integer() }),
  }),
  'POST /api/photos/accepted': route({
    says: 'Accepts cutouts as they are, or takes that back.',
    body: s.shape({ ids: ids(2000), revisions, accepted: s.flag() }),
    answer: s.shape({ changed: s.integer() }),
  }),
  'POST /api/photos/tidy': route({
    says: 'The same adjustments for many photos. The answer holds what each had before.',
    body: s.shape({ ids: ids(2000), revisions, tidy: s.of<Tidy>(tidySchema) }),
    answer: s.shape({ queued: s.integer(), before: s.list(tidied) }),
  }),
  'POST /api/photos/tidy/restore': route({
    says: 'Gives photos back the adjustments that they had.',
    body: s.shape({ photos: s.list(tidied, { min: 1, max: 2000 }) }),
    answer: queued,
  }),
  'GET /api/photos/files': route({
    says: 'Cutouts of many photos as one ZIP; `ids` are separated by commas.',
    query: s.shape({ ids: s.text(), format }),
    answer: file('application/zip'),
  }),
  'GET /api/photos/:id': route({ says: 'A photo.', answer: photo }),
  'GET /api/photos/:id/file': route({
    says: 'A photo’s cutout as a file.',
    query: s.shape({ format }),
    answer: file('image/*'),
  }),
  'GET /api/photos/:id/desk': route({ says: 'What the cutout desk opens.', answer: desk }),
  'PUT /api/photos/:id/recipe': route({
    says: 'Stores the corrections of a cutout; 409 with the stored ones where they were changed meanwhile.',
    body: s.shape({ revision: s.integer({ min: 1 }), recipe: documentOf<object>(), history }),
    answer: s.shape({ revision: s.integer(), inUse: s.flag() }),
  }),
  'POST /api/photos/:id/outlines': route({
    says: 'Keeps an outline: a grey PNG of the photo’s shape, or an SVG.',
    query: s.shape({ name: s.text({ max: 255 }), title: s.text({ trim: true, min: 1, max: 80 }) }),
    upload: true,
    creates: true,
    answer: outline,
  }),
  'GET /api/photos/:id/outlines/:outline/svg': route({
    says: 'A kept outline as SVG.',
    answer: file('image/svg+xml'),
  }),
  'DELETE /api/photos/:id/outlines/:outline': route({ says: 'Removes a kept outline.', answer: removed }),
  'POST /api/photos/:id/replace': route({
    says: 'Puts another picture in a photo’s place; its corrections run again on the new one.',
    revised: true,
    query: fileName,
    upload: true,
    answer: photo,
  }),
  'DELETE /api/photos/:id': route({ says: 'Removes a photo.', revised: true, answer: removed }),
};
