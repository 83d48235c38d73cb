import { file, route } from '../route';
import * as s from '../schema';
import { documentOf } from './common';

/** Sides of the reduced copies that are made. */
export const REDUCED_SIDES = [160, 320, 640, 1024, 2048] as const;

/** Files, events and the server itself. */
export const system = {
  'GET /api/health': route({ says: 'The server answers.', answer: s.shape({ ok: s.of<true>() }) }),
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
