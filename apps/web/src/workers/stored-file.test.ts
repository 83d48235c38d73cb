import { expect, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { server } from '../../test/server';
import { storedFile } from './stored-file';

const ask = () => storedFile('http://localhost/api/blobs/a', 'It is not in the store any more.');

test('a file comes as it is', async () => {
  server.use(http.get('*/api/blobs/a', () => HttpResponse.text('bytes')));
  expect(await (await ask()).text()).toBe('bytes');
});

test('a file that is gone, and a server that is away, are told apart in plain sentences', async () => {
  server.use(http.get('*/api/blobs/a', () => new HttpResponse('<html>Not found</html>', { status: 404 })));
  await expect(ask()).rejects.toThrow('It is not in the store any more.');
  server.use(http.get('*/api/blobs/a', () => HttpResponse.error()));
  await expect(ask()).rejects.toThrow('The server cannot be reached. Is Scenograph still running?');
});
