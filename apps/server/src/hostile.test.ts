import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { bombs, brokenFiles, type HostileFile } from '../../../bench/hostile-files';
import { testServer } from './test-server';

/** Files that would stop a server that trusts them: each ends in an answer that a person can act on, and nobody waits. */
const server = testServer();
const { call } = server;

const SENTENCE = /^["A-Z“].*[.!?]$/s;
const CODE =
  /undefined|\[object|node_modules|\bat \w+ \(|Cannot read prop|is not a function|Error:|vips|libpng|Vips/;

async function send({ to, name, bytes }: HostileFile) {
  const { status, body } = await call('POST', `${to}?name=${encodeURIComponent(name)}`, bytes);
  return { status, message: body.message as string | undefined };
}

async function all(files: Iterable<HostileFile> | AsyncIterable<HostileFile>) {
  const bad: string[] = [];
  const seen = new Map<string, number>();
  for await (const file of files) {
    const { status, message } = await send(file);
    const fine = status < 300 || (status < 500 && SENTENCE.test(message ?? '') && !CODE.test(message ?? ''));
    if (!fine) bad.push(`${file.kind} ${file.to}: ${status} ${message}`);
    seen.set(
      `${status < 300 ? 'taken' : 'refused'}`,
      (seen.get(status < 300 ? 'taken' : 'refused') ?? 0) + 1,
    );
  }
  return { bad, seen };
}

test('files made to stop their reader are refused with a sentence, while the server answers others', async () => {
  let longest = 0;
  let ended = false;
  const health = (async () => {
    while (!ended) {
      const began = performance.now();
      expect((await call('GET', '/api/health')).status).toBe(200);
      longest = Math.max(longest, performance.now() - began);
      await new Promise((r) => setTimeout(r, 20));
    }
  })();
  const { bad, seen } = await all(bombs(18));
  ended = true;
  await health;
  expect(bad).toEqual([]);
  expect(seen.get('refused')).toBeGreaterThan(9);
  // Before, health waited for minutes. (How long it waits at most is a figure of "npm run bench -- hostile".)
  expect(longest).toBeLessThan(5000);
});

test('500 broken files end in an answer each, and what was taken in can be shown', async () => {
  const { bad, seen } = await all(brokenFiles(join(__dirname, '../../..'), 482, 11));
  expect(bad).toEqual([]);
  expect(seen.get('refused')).toBeGreaterThan(200);
  const shown: number[] = [];
  for (const list of ['photos', 'scenes', 'pictures', 'artwork'])
    for (const row of (await call('GET', `/api/${list}`)).body as { working?: string; picture?: string }[]) {
      const response = await fetch(`${server.base()}/api/blobs/${row.working ?? row.picture}/reduced/320`);
      await response.arrayBuffer();
      shown.push(response.status);
    }
  expect(shown.length).toBeGreaterThan(20);
  expect(new Set(shown)).toEqual(new Set([200]));
});

test('a page elsewhere, or a name that is not ours, gets nothing done', async () => {
  const ask = async (path: string, init: RequestInit) => {
    const response = await fetch(server.base() + path, init);
    return [response.status, ((await response.json()) as { message?: string }).message];
  };
  const foreign = [403, expect.stringContaining('Another page asked for this')];
  const body = Buffer.from('picture');
  expect(
    await ask('/api/photos?name=a.jpg', {
      method: 'POST',
      body,
      headers: { Origin: 'http://elsewhere.example' },
    }),
  ).toEqual(foreign);
  expect(await ask('/api/photos?name=a.jpg', { method: 'POST', body, headers: { Origin: 'null' } })).toEqual(
    foreign,
  );
  expect(await ask('/api/photos', { headers: { 'Sec-Fetch-Site': 'cross-site' } })).toEqual(foreign);
  const own = await fetch(`${server.base()}/api/photos`, {
    headers: { Origin: server.base(), 'Sec-Fetch-Site': 'same-origin' },
  });
  expect(own.status).toBe(200);
  expect(own.headers.get('x-powered-by')).toBeNull();
  expect(own.headers.get('x-content-type-options')).toBe('nosniff');
  expect(own.headers.get('x-frame-options')).toBe('DENY');
  expect(own.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
});

test.each([
  ['deep nesting', `{"title":${'['.repeat(300_000)}${']'.repeat(300_000)}}`, /nested more than 100 deep/],
  ['a zero character', '{"title":"a\\u0000b"}', /holds a character that is none/],
  ['half a surrogate pair', '{"title":"a\\ud800b"}', /holds a character that is none/],
  ['what is no JSON', '{"title"', /not valid JSON/],
])('a request with %s is refused with a sentence', async (_, body, says) => {
  const id = ((await call('GET', '/api/listings')).body as { id: string }[])[0].id;
  const shot = ((await call('GET', `/api/listings/${id}`)).body as { shots: { id: string }[] }).shots[0];
  const response = await fetch(`${server.base()}/api/shots/${shot.id}`, {
    method: 'PATCH',
    body,
    headers: { 'Content-Type': 'application/json' },
  });
  expect([response.status, ((await response.json()) as { message: string }).message]).toEqual([
    400,
    expect.stringMatching(says),
  ]);
});

test('an address that cannot be read, an unknown encoding and an endless number are refused with a sentence', async () => {
  const json = { 'Content-Type': 'application/json' };
  for (const [path, init] of [
    ['/api/blobs/%E0%A4%A', {}],
    ['/api/products?search=%00', {}],
    ['/api/products?limit=1e400', {}],
    ['/api/brand', { method: 'PUT', body: '{}', headers: { ...json, 'Content-Encoding': 'made-up' } }],
    [
      '/api/brand',
      { method: 'PUT', body: '{}', headers: { 'Content-Type': 'application/json; charset=made-up' } },
    ],
    ['/api/nowhere', {}],
  ] as [string, RequestInit][]) {
    const response = await fetch(server.base() + path, init);
    const { message } = (await response.json()) as { message: string };
    expect([path, response.status >= 400 && response.status < 500, message]).toEqual([
      path,
      true,
      expect.stringMatching(SENTENCE),
    ]);
    expect(message).not.toMatch(CODE);
  }
});
