import type { BrandKit } from '@scenograph/core/brand/kit';
import { encodingSchema, type Encoding, type FileWords } from '@scenograph/core/delivery/encoding';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import Joi from 'joi';
import { route } from '../route';
import * as s from '../schema';
import { documentOf, editState, pages, removed, sentShot, slotKey, turned, way } from './common';
import { variant } from './products';
import { shotRow } from './shots';

const encoding = s.of<Encoding>(encodingSchema);

export const listingSummary = s.named(
  'ListingSummary',
  s.shape({
    id: s.id(),
    title: s.text(),
    createdAt: s.moment(),
    sheets: s.list(s.text()),
    productId: s.id(),
    product: s.text(),
    variants: s.integer(),
    /** The first cutouts' pictures. */
    cutouts: s.list(s.hash()),
    slots: s.integer(),
    missing: s.integer(),
    shots: s.integer(),
    /** Of its board. */
    revision: s.integer(),
  }),
);

const listing = s.shape({
  id: s.id(),
  title: s.text(),
  productId: s.id(),
  sheets: s.list(s.text()),
  encodings: s.record(documentOf<Encoding>()),
  createdAt: s.moment(),
});

/** Of the board; a change may say on which it is based. */
const revision = s.integer();

export const listingDetail = s.named(
  'ListingDetail',
  s.shape({
    listing,
    revision,
    brand: s.nullable(documentOf<BrandKit>()),
    /** Cells that are filled by another shot than their slot; null is none. */
    cellFeeds: s.list(s.shape({ variantId: s.id(), slotKey, shotId: s.nullable(s.id()) })),
    variants: s.list(variant),
    sheets: s.list(documentOf<SpecSheet>()),
    shots: s.list(shotRow),
  }),
);

export const board = s.named(
  'Board',
  s.shape({
    slots: s.list(slotKey),
    shots: s.list(s.id()),
    rows: s.list(
      s.shape({
        variantId: s.id(),
        /** A letter for each cell's state, in the order of `slots`. */
        states: s.text({ empty: true }),
        /** A letter for each cell's difference: d of its slot, o of its own, f filled by another shot, . none. */
        differs: s.text({ empty: true }),
        fedBy: s.list(s.integer()),
        /** What is wrong first, by the cell's place in the row. */
        says: s.record(s.text()),
      }),
    ),
    edits: editState,
    revision,
  }),
);

const waiverRow = {
  id: s.id(),
  listingId: s.id(),
  slotKey,
  variantId: s.nullable(s.id()),
  check: s.text(),
  reason: s.text(),
  createdAt: s.moment(),
};
export const waiver = s.named('Waiver', s.shape(waiverRow));

const check = documentOf<CheckResult>();

export const boardCell = s.named(
  'BoardCell',
  s.shape({
    variantId: s.id(),
    slotKey,
    state: s.text(),
    key: s.nullable(s.text()),
    /** The last finished picture, though it may be out of date. */
    last: s.nullable(s.text()),
    faults: s.list(check),
    /** It shows an automatic cutout that may be wrong, and nobody has looked at it or waived that. */
    doubtful: s.flag(),
    bytes: s.nullable(s.integer()),
    missing: s.nullable(s.oneOf('no-shot', 'no-cutout')),
    shotId: s.nullable(s.id()),
    fileName: s.text(),
    words: documentOf<FileWords>(),
    encoding: documentOf<Encoding>(),
    checks: s.list(check),
    reason: s.nullable(s.text()),
    picture: s.nullable(
      s.shape({
        blob: s.hash(),
        format: s.text(),
        quality: s.nullable(s.integer()),
        bytes: s.integer(),
        width: s.integer(),
        height: s.integer(),
        current: s.flag(),
      }),
    ),
    waivers: s.list(waiver),
  }),
);

export const boardSummary = s.named(
  'BoardSummary',
  s.shape({
    marketplaces: s.list(s.shape({ marketplace: s.text(), states: s.record(s.integer()) })),
    checks: s.list(
      s.shape({
        check: s.text(),
        title: s.text(),
        look: s.integer(),
        stop: s.integer(),
        waived: s.integer(),
      }),
    ),
    slots: s.list(
      s.shape({
        key: slotKey,
        title: s.text(),
        marketplace: s.text(),
        /** Bytes that a file may have. */
        limit: s.number(),
        count: s.integer(),
        total: s.integer(),
        largest: s.integer(),
      }),
    ),
  }),
);

const shotTitle = s.text({ trim: true, min: 1, max: 120 });
const cell = { variantId: s.id(), slotKey };

/** Listings and their boards. */
export const listings = {
  'GET /api/listings': route({
    says: 'Listings in a few words, the newest first.',
    query: s.shape({
      ...pages(300),
      search: s.usually(s.text({ trim: true, max: 100, empty: true }), ''),
    }),
    paged: true,
    answer: s.list(listingSummary),
  }),
  'POST /api/listings': route({
    says: 'A new product with one variant per photo, its listing and two first shots.',
    body: s.shape({
      photoIds: s.list(s.id(), { min: 1, max: 200, unique: true }),
      title: s.text({ trim: true, min: 1, max: 200 }),
      sheets: s.optional(s.list(s.text(), { min: 1, unique: true })),
      sceneId: s.optional(s.id()),
    }),
    creates: true,
    answer: listing,
  }),
  'GET /api/listings/:id': route({
    says: 'A listing with its variants, spec sheets and shots.',
    answer: listingDetail,
  }),
  'POST /api/listings/:id/shots': route({
    says: 'Adds a shot on white or in a scene.',
    body: s.shape({
      kind: s.oneOf('white', 'scene'),
      sceneId: s.optional(s.id()),
      title: s.optional(shotTitle),
    }),
    creates: true,
    answer: shotRow,
  }),
  'POST /api/listings/:id/shots/of-documents': route({
    says: 'Adds shots that are laid out already; a slot that one of them fills is taken from what filled it.',
    body: s.shape({
      shots: s.list(
        s.shape({
          title: shotTitle,
          document: sentShot,
          feeds: s.usually(s.list(slotKey, { max: 400, unique: true }), []),
        }),
        { min: 1, max: 60 },
      ),
    }),
    creates: true,
    answer: s.list(shotRow),
  }),
  'POST /api/shots': route({
    says: 'A shot on its own: laid out already, in a listing of its name that has no variants and no slots.',
    body: s.shape({ title: shotTitle, document: sentShot }),
    creates: true,
    answer: shotRow,
  }),
  'PATCH /api/listings/:id': route({
    says: 'Changes a listing’s name, or the spec sheets that it is made for.',
    body: s.some({
      title: s.text({ trim: true, min: 1, max: 200 }),
      sheets: s.list(s.text(), { min: 1, max: 100, unique: true }),
    }),
    revised: true,
    answer: s.shape({ title: s.optional(s.text()), sheets: s.optional(s.list(s.text())), revision }),
  }),
  'DELETE /api/listings/:id': route({
    says: 'Removes a listing with its shots; product and deliveries stay.',
    revised: true,
    answer: removed,
  }),
  'GET /api/listings/:id/board': route({
    says: 'How every cell of the board stands, in a letter each.',
    answer: board,
  }),
  'GET /api/listings/:id/summary': route({
    says: 'How many cells stand how, which checks fail, and bytes by slot.',
    answer: boardSummary,
  }),
  'GET /api/listings/:id/cell': route({
    says: 'All about one cell.',
    query: s.shape(cell),
    answer: boardCell,
  }),
  'PUT /api/listings/:id/feeds': route({
    says: 'Fills a slot from a shot, or from none.',
    body: s.shape({ slot: slotKey, shotId: s.nullable(s.id()) }),
    revised: true,
    answer: s.shape({ slot: slotKey, shotId: s.nullable(s.id()), revision }),
  }),
  'PUT /api/listings/:id/cells': route({
    says: 'Fills cells from a shot, from none (null), or from what fills their slot (`slot`).',
    body: s.shape({
      cells: s.list(s.shape(cell), { min: 1, max: 50_000 }),
      shotId: s.nullable(s.either(s.id(), s.oneOf('slot'))),
    }),
    revised: true,
    answer: s.shape({ assigned: s.integer(), revision }),
  }),
  'POST /api/listings/:id/fill': route({
    says: 'Fills every empty slot from the shot that suits its rules best.',
    revised: true,
    answer: s.shape({ filled: s.integer(), left: s.integer(), revision }),
  }),
  'PUT /api/listings/:id/encoding': route({
    says: 'How a slot’s files are written; null leaves it to the slot.',
    body: s.shape({ slotKey, encoding: s.nullable(encoding) }),
    revised: true,
    answer: s.shape({ slotKey, encoding: s.nullable(encoding), revision }),
  }),
  'POST /api/listings/:id/turn': route({
    says: 'Undoes or redoes a step of the board.',
    body: way,
    answer: turned,
  }),
  'POST /api/listings/:id/waivers': route({
    says: 'Waives a check for a slot, of one variant or of all, with the reason.',
    body: s.shape({
      slotKey,
      variantId: s.nullable(s.id()),
      check: s.text({ max: 40 }),
      reason: s.of<string>(
        Joi.string().trim().min(3).max(400).messages({
          'string.empty': 'a reason must be written',
          'string.min': 'the reason must say a little more',
        }),
      ),
    }),
    revised: true,
    creates: true,
    answer: s.shape({ ...waiverRow, revision }),
  }),
  'DELETE /api/listings/:id/waivers/:waiver': route({
    says: 'Withdraws a waiver.',
    revised: true,
    answer: s.shape({ removed: s.id(), revision }),
  }),
};
