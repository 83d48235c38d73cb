import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isForeign, knownHost } from './doors';
import { unstorable } from './plain-text';

test.each([
  ['127.0.0.1:4310', true],
  ['[::1]:4310', true],
  ['localhost:4310', true],
  ['192.168.1.20', true],
  ['studio.example:80', true],
  ['STUDIO.example', true],
  ['elsewhere.example', false],
  ['127.0.0.1.elsewhere.example', false],
  ['localhost.elsewhere.example', false],
  ['', false],
])('of the host "%s" it is known whether it is ours: %s', (host, known) => {
  expect(knownHost(host, ['studio.example'])).toBe(known);
});

test.each([
  [{}, false],
  [{ origin: 'http://127.0.0.1:4310', host: '127.0.0.1:4310' }, false],
  [{ origin: 'http://127.0.0.1:4311', host: '127.0.0.1:4310' }, true],
  [{ origin: 'null', host: '127.0.0.1:4310' }, true],
  [{ 'sec-fetch-site': 'same-origin' }, false],
  [{ 'sec-fetch-site': 'none' }, false],
  // What a page sends while it closes hides its origin.
  [{ 'sec-fetch-site': 'same-origin', origin: 'null', host: '127.0.0.1:4310' }, false],
  [{ 'sec-fetch-site': 'same-site' }, true],
  [{ 'sec-fetch-site': 'cross-site', origin: 'http://127.0.0.1:4310', host: '127.0.0.1:4310' }, true],
] as const)('headers %j come from another page: %s', (headers, foreign) => {
  expect(isForeign(headers)).toBe(foreign);
});

test('whatever JSON holds is storable unless a text in it is none', () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
      expect(unstorable(value)).toBeNull();
      expect(unstorable({ a: [value, { b: 'x\u0000' }] })).toMatch(/holds a character/);
      expect(unstorable({ [`key\udc00`]: value })).toMatch(/a name in it/);
    }),
  );
});

test('nesting without end is told without falling over it', () => {
  let deep: unknown = 1;
  for (let i = 0; i < 1_000_000; i++) deep = [deep];
  expect(unstorable(deep)).toBe('it is nested more than 100 deep');
});
