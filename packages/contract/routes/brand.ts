import { brandKitSchema, type BrandKit } from '@scenograph/core/brand/kit';
import { route } from '../route';
import * as s from '../schema';
import { documentHistory, documentOf, fileName, removed, sentHistory, pages } from './common';

export const storedKit = s.named(
  'BrandKit',
  s.shape({
    kit: documentOf<BrandKit>(),
    history: documentHistory,
    revision: s.integer(),
  }),
);

export const font = s.named(
  'Font',
  s.shape({
    id: s.id(),
    family: s.text(),
    style: s.text({ empty: true }),
    hash: s.hash(),
    createdAt: s.moment(),
  }),
);

const revision = s.integer({ min: 0 });

/** The brand kit, and fonts of one's own. */
export const brand = {
  'GET /api/brand': route({ says: 'The brand kit.', answer: storedKit }),
  'PUT /api/brand': route({
    says: 'Stores the brand kit; 409 with the stored one where it was changed meanwhile.',
    body: s.shape({ revision, kit: s.of<BrandKit>(brandKitSchema), history: sentHistory }),
    answer: storedKit,
  }),
  'GET /api/fonts': route({
    says: 'Fonts of one’s own.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(font),
  }),
  'POST /api/fonts': route({
    says: 'Takes a font file in: TTF, OTF, WOFF or WOFF2.',
    query: fileName,
    upload: true,
    creates: true,
    answer: font,
  }),
  'DELETE /api/fonts/:id': route({
    says: 'Removes a font that the brand kit does not use.',
    answer: removed,
  }),
};
