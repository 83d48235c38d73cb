import type { UploadAnswer } from '@scenograph/core/delivery/upload';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { file, route } from '../route';
import * as s from '../schema';
import { documentOf, removed, slotKey, pages } from './common';

const state = s.oneOf('queued', 'running', 'paused', 'cancelled', 'done', 'failed');
const row = {
  id: s.id(),
  /** The first of its listings; null once that is removed. */
  listingId: s.nullable(s.id()),
  title: s.text(),
  revision: s.integer(),
  state,
  /** The higher is painted first. */
  priority: s.integer(),
  error: s.nullable(s.text()),
  createdAt: s.moment(),
  finishedAt: s.nullable(s.moment()),
  total: s.integer(),
  made: s.integer(),
  failed: s.integer(),
  bytes: s.number(),
};
export const delivery = s.named('Delivery', s.shape(row));

const upload = s.named(
  'Upload',
  s.shape({
    id: s.id(),
    deliveryId: s.id(),
    marketplace: s.text(),
    answers: s.list(documentOf<UploadAnswer>()),
    createdAt: s.moment(),
  }),
);

export const deliveryDetail = s.named(
  'DeliveryDetail',
  s.shape({
    ...row,
    groups: s.list(s.shape({ marketplace: s.text(), listing: s.text(), n: s.integer() })),
    uploads: s.list(upload),
    rates: s.nullable(s.shape({ millisecondsPerMegapixel: s.number(), bytesPerMegapixel: s.number() })),
  }),
);

export const deliveryCell = s.named(
  'DeliveryCell',
  s.shape({
    n: s.integer(),
    listingId: s.id(),
    variantId: s.id(),
    listing: s.text(),
    shotTitle: s.text(),
    variant: s.text({ empty: true }),
    sku: s.text(),
    marketplace: s.text(),
    slotKey,
    /** Path without extension, within the delivery. */
    fileName: s.text(),
    width: s.integer(),
    height: s.integer(),
    state: s.oneOf('waiting', 'working', 'done', 'failed'),
    format: s.nullable(s.text()),
    quality: s.nullable(s.integer()),
    bytes: s.nullable(s.integer()),
    blob: s.nullable(s.hash()),
    checks: s.nullable(s.list(documentOf<CheckResult>())),
    reason: s.nullable(s.text()),
  }),
);

export const deliveryEstimate = s.named(
  'DeliveryEstimate',
  s.shape({
    pictures: s.integer(),
    toPaint: s.integer(),
    unchanged: s.integer(),
    missing: s.integer(),
    seconds: s.nullable(s.number()),
    bytes: s.nullable(s.number()),
    /** The first file names. */
    names: s.list(s.text()),
    /** Names that had to be told apart by a number. */
    clashes: s.integer(),
    /** Pictures that show an automatic cutout which may be wrong and which nobody has looked at. */
    doubtful: s.integer(),
  }),
);

const priority = s.integer({ min: -10, max: 10 });
const choice = {
  slots: s.optional(s.list(slotKey, { min: 1, unique: true })),
  variants: s.optional(s.list(s.id(), { min: 1, unique: true })),
  which: s.usually(s.oneOf('all', 'changed', 'stale', 'failed', 'never'), 'all'),
  priority: s.usually(priority, 0),
};
const ofListing = s.shape(choice);
const ofSeveral = s.shape({ ...choice, listingIds: s.list(s.id(), { min: 1, max: 1000, unique: true }) });

/** Deliveries: what would be made, what is being made, what was made. */
export const deliveries = {
  'POST /api/listings/:id/deliveries': route({
    says: 'Orders a listing’s pictures.',
    body: ofListing,
    creates: true,
    answer: deliveryDetail,
  }),
  'POST /api/listings/:id/deliveries/estimate': route({
    says: 'What delivering a listing would make and cost.',
    body: ofListing,
    answer: deliveryEstimate,
  }),
  'POST /api/deliveries': route({
    says: 'Orders the pictures of several listings.',
    body: ofSeveral,
    creates: true,
    answer: deliveryDetail,
  }),
  'POST /api/deliveries/estimate': route({
    says: 'What delivering several listings would make and cost.',
    body: ofSeveral,
    answer: deliveryEstimate,
  }),
  'GET /api/deliveries': route({
    says: 'Deliveries, the newest first.',
    query: s.shape(pages(200)),
    paged: true,
    answer: s.list(delivery),
  }),
  'GET /api/deliveries/:id': route({ says: 'A delivery.', answer: deliveryDetail }),
  'GET /api/deliveries/:id/cells': route({
    says: 'Some of a delivery’s pictures, in order.',
    query: s.shape(pages(200)),
    paged: true,
    answer: s.list(deliveryCell),
  }),
  'POST /api/deliveries/:id/change': route({
    says: 'Pauses, resumes, cancels or retries a delivery, or changes its priority.',
    revised: true,
    body: s.either(s.shape({ act: s.oneOf('pause', 'go-on', 'cancel', 'retry') }), s.shape({ priority })),
    answer: deliveryDetail,
  }),
  'POST /api/deliveries/:id/cancel': route({
    says: 'Cancels a delivery.',
    revised: true,
    answer: deliveryDetail,
  }),
  'DELETE /api/deliveries/:id': route({
    says: 'Removes a delivery; its pictures go on being the last ones of their cells.',
    revised: true,
    answer: removed,
  }),
  'POST /api/deliveries/:id/uploads': route({
    says: 'Sends what was made for one marketplace to its upload stand-in.',
    body: s.shape({ marketplace: s.text({ max: 80 }) }),
    creates: true,
    answer: upload,
  }),
  'GET /api/deliveries/:id/zip': route({
    says: 'A delivery, or its part for one marketplace or listing, as a ZIP with manifest.',
    query: s.shape({
      marketplace: s.optional(s.text({ max: 80 })),
      listing: s.optional(s.text({ max: 200 })),
    }),
    answer: file('application/zip'),
  }),
};
