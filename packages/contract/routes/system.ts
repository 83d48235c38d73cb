import { file, route } from '../route';
import * as s from '../schema';
import { documentOf } from './common';

/** Sides of the reduced copies that are made. */
export const REDUCED_SIDES = [160, 320, 640, 1024, 2048] as const;

/**
 * What files are stored for: photos as they came, working copies, cutouts and mattes, the library, what only shots name,
 * deliveries, reduced copies, what was removed and can be brought back, and what nothing names any more.
 */
export const STORAGE_KINDS = [
  'originals',
  'photos',
  'cutouts',
  'library',
  'shots',
  'deliveries',
  'reduced',
  'bin',
  'unnamed',
] as const;

const workKind = s.oneOf('cutouts', 'recipes', 'pictures');

/** Files, events and the server itself. */
export const system = {
  'GET /api/health': route({ says: 'The server answers.', answer: s.shape({ ok: s.of<true>() }) }),
  'GET /api/health/live': route({
    says: 'The server answers: nothing else is asked.',
    answer: s.shape({ ok: s.of<true>() }),
  }),
  'GET /api/health/ready': route({
    says: 'Whether database, list of jobs and workers are there; 503 with what is missing where they are not.',
    answer: s.shape({
      ready: s.flag(),
      database: s.flag(),
      queue: s.flag(),
      /** Worker processes that live. */
      workers: s.integer(),
      /** What is missing and what that means, in sentences. */
      missing: s.list(s.text()),
      message: s.optional(s.text()),
    }),
  }),
  'GET /api/metrics': route({
    says: 'Numbers for Prometheus: requests, jobs and their age, times, files and memory.',
    answer: file('text/plain'),
  }),
  'GET /api/work': route({
    says: 'Work that waits, is being done or has failed, and the workers that do it.',
    answer: s.shape({
      kinds: s.list(
        s.shape({
          kind: workKind,
          waiting: s.integer(),
          working: s.integer(),
          failed: s.integer(),
          /** Seconds for which the oldest that waits has waited. */
          oldestSeconds: s.nullable(s.number()),
        }),
      ),
      failed: s.list(
        s.shape({
          kind: workKind,
          /** Of the photo, the recipe or the delivery. */
          id: s.id(),
          /** Of the product that a recipe ran for. */
          productId: s.nullable(s.id()),
          title: s.text(),
          reason: s.nullable(s.text()),
        }),
      ),
      workers: s.list(s.shape({ id: s.id(), host: s.text(), threads: s.integer(), startedAt: s.moment() })),
    }),
  }),
  'GET /api/storage': route({
    says: 'How many files of which size are stored for what, and for how long what nothing names is kept.',
    answer: s.shape({
      kinds: s.list(s.shape({ kind: s.oneOf(...STORAGE_KINDS), files: s.integer(), bytes: s.number() })),
      keeps: s.shape({ graceHours: s.integer(), cacheDays: s.integer(), binDays: s.integer() }),
    }),
  }),
  'POST /api/storage/collect': route({
    says: 'Removes files that nothing names any more; with `dry` only says which there are.',
    body: s.shape({ dry: s.usually(s.flag(), false) }),
    answer: s.shape({
      files: s.integer(),
      bytes: s.number(),
      paintings: s.integer(),
      orderParts: s.integer(),
      reduced: s.integer(),
      forgotten: s.integer(),
    }),
  }),
  'GET /api/openapi.json': route({ says: 'This contract as OpenAPI 3.1.', answer: documentOf<object>() }),
  'GET /api/docs': route({ says: 'This contract as a page to read.', answer: file('text/html') }),
  'GET /api/events': route({
    says: 'What changes, as Server-Sent Events: `topic` and `id`.',
    answer: file('text/event-stream'),
  }),
  'POST /api/bin/:thing/restore': route({
    says: 'Brings back what was removed in the last 30 days, by its own id.',
    answer: s.shape({ restored: s.text(), kind: s.text() }),
  }),
  'GET /api/blobs/:hash': route({
    says: 'A stored file, by the SHA-256 of its bytes.',
    answer: file('application/octet-stream'),
  }),
  'GET /api/blobs/:hash/reduced/:side': route({
    says: `A copy of a picture no larger than ${REDUCED_SIDES.join(', ')} pixels on its long side.`,
    answer: file('image/*'),
  }),
};
