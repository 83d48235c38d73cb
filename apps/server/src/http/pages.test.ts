import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { request as ask, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import compression from 'compression';
import express from 'express';
import { isWorthCompressing, servePages } from './pages';

const folder = mkdtempSync(join(tmpdir(), 'pages-'));
const script = 'console.log("hello");'.repeat(200);
let server: Server;

beforeAll(async () => {
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<title>Scenograph</title>');
  writeFileSync(join(folder, 'assets/app-x1.js'), script);
  writeFileSync(join(folder, 'assets/app-x1.js.br'), brotliCompressSync(script));
  const app = express();
  app.use(compression({ filter: isWorthCompressing, threshold: 0 }));
  app.get('/api/list', (_, response) => void response.json(Array(500).fill('a variant')));
  app.get('/api/events', (_, response) => void response.type('text/event-stream').send('data: 1\n\n'));
  servePages(app, folder);
  server = app.listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
});

afterAll(() => {
  server.close();
  rmSync(folder, { recursive: true });
});

/** Asked as a browser does, without anything undone on the way. */
const get = (path: string, accepts = 'gzip, br') =>
  new Promise<{ status: number; headers: Record<string, unknown>; bytes: number }>((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    ask({ port, path, headers: { 'Accept-Encoding': accepts } }, (response) => {
      let bytes = 0;
      response.on('data', (chunk: Buffer) => (bytes += chunk.length));
      response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, bytes }));
    })
      .on('error', reject)
      .end();
  });

test('a built file is sent as the build compressed it, and kept for good', async () => {
  const { status, headers, bytes } = await get('/assets/app-x1.js');
  expect([status, headers['content-encoding']]).toEqual([200, 'br']);
  expect(bytes).toBeLessThan(script.length / 10);
  expect(headers['content-type']).toMatch(/javascript/);
  expect(headers['cache-control']).toMatch(/immutable/);
  const plain = await get('/assets/app-x1.js', 'identity');
  expect([plain.headers['content-encoding'], plain.bytes]).toEqual([undefined, script.length]);
});

test('any address of the application is its page, asked for again every time', async () => {
  for (const path of ['/', '/shots/1?slot=a', '/index.html']) {
    const { status, headers } = await get(path);
    expect([path, status]).toEqual([path, 200]);
    expect(headers['content-type']).toMatch(/html/);
    expect(headers['cache-control']).toMatch(/no-cache/);
  }
});

test('a file that is not there is not the page, and nothing outside the folder is sent', async () => {
  for (const path of ['/assets/app-x2.js', '/api/nothing', '/..%2f..%2fetc%2fpasswd.txt', '/../package.json'])
    expect([path, (await get(path)).status]).toEqual([path, 404]);
});

test('a new build is served without a restart', async () => {
  writeFileSync(join(folder, 'assets/app-x3.js'), 'later()');
  expect(await get('/assets/app-x3.js', 'identity')).toMatchObject({ status: 200, bytes: 7 });
});

test('answers are compressed, a stream of events is not', async () => {
  expect((await get('/api/list')).headers['content-encoding']).toMatch(/br|gzip/);
  expect((await get('/api/events')).headers['content-encoding']).toBeUndefined();
});
