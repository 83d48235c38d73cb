import { expect, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { server } from '../../test/server';
import { request, upload, ServerRefusal } from './client';

const URL = 'http://localhost/api/shots/1';
/** What is told of a request that failed. */
const refusal = (promise: Promise<unknown>) =>
  promise.then(
    () => {
      throw new Error('was answered');
    },
    (e: unknown) => e as ServerRefusal,
  );

test('an answer comes as it was sent, and an empty one as an empty object', async () => {
  server.use(http.get(URL, () => HttpResponse.json({ title: 'Main' })));
  expect(await request('GET', URL)).toEqual({ title: 'Main' });
  server.use(http.delete(URL, () => new HttpResponse(null, { status: 204 })));
  expect(await request('DELETE', URL)).toEqual({});
});

test('a refusal carries the sentence, the status and what was refused', async () => {
  const body = { message: 'This shot was changed meanwhile.', detail: { revision: 4 } };
  server.use(http.put(URL, () => HttpResponse.json(body, { status: 409 })));
  const error = await refusal(request('PUT', URL, { revision: 3 }));
  expect(error).toBeInstanceOf(ServerRefusal);
  expect(error.message).toBe(body.message);
  expect(error.status).toBe(409);
  expect(error.detail).toEqual(body.detail);
});

test('a page of a gateway is never shown as an error of parsing', async () => {
  server.use(http.get(URL, () => HttpResponse.html('<h1>502 Bad Gateway</h1>', { status: 502 })));
  const error = await refusal(request('GET', URL));
  expect(error).toBeInstanceOf(ServerRefusal);
  expect(error.message).toBe('The server cannot answer just now (502). Try again in a moment.');
  expect(error.status).toBe(502);
});

test('half an answer is not taken for success', async () => {
  server.use(http.get(URL, () => new HttpResponse('{"title":"Ma', { status: 200 })));
  const error = await refusal(request('GET', URL));
  expect(error.message).toMatch(/incomplete/);
});

test('a server that is not there is said so', async () => {
  server.use(http.get(URL, () => HttpResponse.error()));
  const error = await refusal(request('GET', URL));
  expect(error.message).toMatch(/cannot be reached/);
  expect(error.status).toBe(0);
});

test('a file that is refused says why, also where the answer is a page', async () => {
  const file = new Blob(['x']);
  server.use(
    http.post('/api/pictures', () => HttpResponse.json({ message: 'This file is empty.' }, { status: 400 })),
  );
  expect((await refusal(upload('POST /api/pictures', { query: { name: 'a.png' }, file }))).message).toBe(
    'This file is empty.',
  );
  server.use(http.post('/api/pictures', () => HttpResponse.html('<h1>no</h1>', { status: 504 })));
  expect((await refusal(upload('POST /api/pictures', { query: { name: 'a.png' }, file }))).message).toMatch(
    /504/,
  );
});
