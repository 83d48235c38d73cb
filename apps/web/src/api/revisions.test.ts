import { beforeEach, expect, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { server } from '../../test/server';
import { call, request } from './client';
import { boardOf, editorId } from './revisions';

const LISTING = '00000000-0000-4000-8000-000000000001';
const board = `/api/listings/${LISTING}`;
const body = { slot: 'harbour/front', shotId: null };
const feed = () =>
  call('PUT /api/listings/:id/feeds', { params: { id: LISTING }, body }, { of: boardOf(LISTING) });

/** A board that others change too: gives what its changes were based on, in order. */
let revision = 4;
let based: (string | null)[] = [];
let editors = new Set<string | null>();
let others = 0;

beforeEach(() => {
  based = [];
  editors = new Set();
  server.use(
    http.get(`*${board}/board`, () => HttpResponse.json({ revision })),
    http.put(`*${board}/feeds`, async ({ request: { headers } }) => {
      based.push(headers.get('if-match'));
      editors.add(headers.get('scenograph-editor'));
      await new Promise((done) => setTimeout(done, 5));
      revision += 1 + others;
      return HttpResponse.json({ ...body, revision });
    }),
  );
});

test('a change is based on what was seen last; one sent before the answer came waits for it', async () => {
  revision = 4;
  await request('GET', `${board}/board`);
  await Promise.all([feed(), feed(), feed()]);
  expect(based).toEqual(['"4"', '"5"', '"6"']);
  expect([...editors]).toEqual([editorId()]);
});

test('what others have changed in between is not seen until it is fetched', async () => {
  await request('GET', `${board}/board`);
  const seen = revision;
  others = 1;
  await feed();
  await feed();
  others = 0;
  expect(based).toEqual([`"${seen}"`, `"${seen}"`]);
  await request('GET', `${board}/board`);
  await feed();
  expect(based[2]).toBe(`"${revision - 1}"`);
});

test('a change that is refused does not hold up the next', async () => {
  server.use(
    http.put(`*${board}/feeds`, () => HttpResponse.json({ message: 'It was changed.' }, { status: 409 }), {
      once: true,
    }),
  );
  const [refused, taken] = await Promise.allSettled([feed(), feed()]);
  expect([refused.status, taken.status]).toEqual(['rejected', 'fulfilled']);
});
