import type { SpecSheet } from '@scenograph/core/spec/slot';
import { file, route } from '../route';
import * as s from '../schema';
import { documentOf, pages } from './common';

const sheet = documentOf<SpecSheet>();

/** Marketplaces' slots and their rules. */
export const specSheets = {
  'GET /api/spec-sheets': route({
    says: 'All spec sheets.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(sheet),
  }),
  'POST /api/spec-sheets': route({
    says: 'Adds a spec sheet; its id is made unlike all others.',
    body: documentOf<object>(),
    creates: true,
    answer: sheet,
  }),
  'GET /api/spec-sheets/:sheet': route({
    says: 'A spec sheet with its earlier versions, the latest first.',
    answer: s.shape({
      sheet,
      versions: s.list(s.shape({ version: s.integer(), createdAt: s.moment(), sheet })),
    }),
  }),
  'GET /api/spec-sheets/:sheet/sheet.json': route({
    says: 'A spec sheet as a file.',
    answer: file('application/json'),
  }),
  'PUT /api/spec-sheets/:sheet': route({
    says: 'Stores a spec sheet as its next version; 409 with the stored one where it was changed meanwhile.',
    body: s.shape({ version: s.integer({ min: 1 }), sheet: documentOf<object>() }),
    answer: sheet,
  }),
  'DELETE /api/spec-sheets/:sheet': route({
    says: 'Removes a spec sheet that no listing is made for.',
    revised: true,
    answer: s.shape({ removed: s.text() }),
  }),
};
