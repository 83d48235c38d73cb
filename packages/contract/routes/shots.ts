import { encodingSchema, type Encoding } from '@scenograph/core/delivery/encoding';
import { EXPORT_FORMATS } from '@scenograph/core/delivery/export-name';
import { PAGES, type PageName } from '@scenograph/core/delivery/sheets';
import { file, route } from '../route';
import * as s from '../schema';
import { sentShot, shotHistory as history, slotKey, storedShot } from './common';

const row = {
  id: s.id(),
  listingId: s.id(),
  title: s.text(),
  document: storedShot,
  revision: s.integer(),
  /** Alternative text of its pictures, with placeholders. */
  alt: s.text({ empty: true }),
  /** The recipe step that made it; null for one made by hand. */
  madeBy: s.nullable(s.text()),
  /** Keys of the slots that it fills. */
  feeds: s.list(slotKey),
  position: s.integer(),
  createdAt: s.moment(),
  updatedAt: s.moment(),
};
export const shotRow = s.named('Shot', s.shape(row));
export const shotWithHistory = s.named('ShotWithHistory', s.shape({ ...row, history }));

const title = s.text({ trim: true, min: 1, max: 120 });
const variant = s.optional(s.id());
const cell = { slot: s.optional(slotKey), variant };

const trial = s.either(
  s.shape({
    ok: s.of<true>(),
    format: s.text(),
    quality: s.nullable(s.integer()),
    milliseconds: s.number(),
    /** Structural similarity with the painted picture; 1 is alike. */
    ssim: s.number(),
    /** The number by which the file is kept for a while. */
    file: s.text(),
    size: s.integer(),
    width: s.optional(s.integer()),
    height: s.optional(s.integer()),
  }),
  s.shape({ ok: s.of<false>(), reason: s.text() }),
);

const line = s.text({ max: 200, empty: true });
const options = s.list(s.text({ max: 60 }), { max: 60 });

/** Shots: documents, pictures of them, sheets of options and proofs. */
export const shots = {
  'GET /api/shots/:id': route({ says: 'A shot with its history.', answer: shotWithHistory }),
  'PUT /api/shots/:id': route({
    says: 'Stores a shot; 409 with the stored one where it was changed meanwhile.',
    body: s.shape({ revision: s.integer({ min: 1 }), document: sentShot, history }),
    answer: s.shape({ revision: s.integer(), updatedAt: s.moment() }),
  }),
  'PATCH /api/shots/:id': route({
    says: 'Changes a shot’s name or the alternative text of its pictures; based on a revision of its board.',
    body: s.some({ title, alt: s.text({ max: 1000, empty: true }) }),
    revised: true,
    answer: shotWithHistory,
  }),
  'DELETE /api/shots/:id': route({
    says: 'Removes a shot.',
    revised: true,
    answer: s.shape({ removed: s.id(), listingId: s.id() }),
  }),
  'POST /api/shots/:id/copy': route({
    says: 'Copies a shot, or keeps another document beside it.',
    body: s.shape({ title: s.optional(title), document: s.optional(sentShot) }),
    creates: true,
    answer: shotWithHistory,
  }),
  'POST /api/shots/:id/trials': route({
    says: 'Writes a picture in several ways, with size, time and likeness of each.',
    body: s.shape({
      slot: slotKey,
      variant,
      trials: s.list(
        s.shape({ encoding: s.of<Encoding>(encodingSchema), limited: s.usually(s.flag(), false) }),
        { min: 1, max: 8 },
      ),
    }),
    answer: s.list(trial),
  }),
  'GET /api/shots/tried/:n': route({ says: 'A file of a trial.', answer: file('image/*') }),
  'GET /api/shots/:id/picture': route({
    says: 'A shot as the server paints it, as PNG.',
    query: s.shape({ ...cell, scale: s.usually(s.number({ min: 0.01, max: 1 }), 1) }),
    answer: file('image/png'),
  }),
  'GET /api/shots/:id/export': route({
    says: 'A shot as one file of a chosen size and density, in sRGB: a picture, or a PDF with words and shapes as vectors.',
    query: s.shape({
      ...cell,
      width: s.integer({ min: 16, max: 20_000 }),
      density: s.usually(s.number({ min: 10, max: 2400 }), 72),
      format: s.usually(s.oneOf(...EXPORT_FORMATS), 'jpeg'),
      /** Of a picture with a bleed: what is left when it is cut, or all of it. Slots have none. */
      area: s.usually(s.oneOf('trim', 'bleed'), 'trim'),
      /** Of a PDF: lines beside the page where it is cut; words as text in embedded fonts, or as outlines alone. */
      marks: s.usually(s.oneOf('none', 'crop'), 'none'),
      words: s.usually(s.oneOf('text', 'outlines'), 'text'),
    }),
    answer: file('*/*'),
  }),
  'GET /api/shots/:id/layers': route({
    says: 'A shot as a layered OpenRaster file.',
    query: s.shape(cell),
    answer: file('image/openraster'),
  }),
  'GET /api/shots/:id/bundle': route({
    says: 'A shot with every picture and font it names, as a ZIP for the command line.',
    answer: file('application/zip'),
  }),
  'POST /api/shots/:id/option-sheet': route({
    says: 'A PNG of a shot’s options side by side.',
    body: s.shape({
      options: s.list(s.text({ max: 60 }), { min: 1, max: 60 }),
      columns: s.usually(s.integer({ min: 1, max: 8 }), 3),
    }),
    answer: file('image/png'),
  }),
  'POST /api/shots/:id/proof': route({
    says: 'A proof to be agreed on, as PDF or PNG.',
    body: s.shape({
      page: s.oneOf(...(Object.keys(PAGES) as PageName[])),
      format: s.oneOf('pdf', 'png'),
      title: s.text({ trim: true, min: 1, max: 200 }),
      options: s.list(line, { max: 12 }),
      prices: s.list(line, { max: 12 }),
      notes: s.text({ max: 1200, empty: true }),
      foot: line,
      /** A picture of the library as the maker's logo. */
      logo: s.nullable(s.id()),
      show: options,
    }),
    answer: file('application/pdf'),
  }),
};
