/* eslint-disable @typescript-eslint/no-explicit-any -- OpenAPI is read as it comes */
import fc from 'fast-check';
import { contract, address } from './index';
import { isId, openApi } from './openapi';
import type { Route } from './route';
import * as s from './schema';

const routes = Object.entries(contract) as [string, Route][];

test('every route has a method, a path and a sentence, and none is there twice', () => {
  const places = new Set<string>();
  for (const [name, { says }] of routes) {
    expect(name).toMatch(/^(GET|POST|PUT|PATCH|DELETE) \/api\/[\w\-/:.]+$/);
    expect(says).toMatch(/^[A-Z`].*\.$/);
    // Two routes whose paths differ in the names of their parts alone would answer each other's requests.
    const place = name.replace(/:\w+/g, ':');
    expect(places.has(place)).toBe(false);
    places.add(place);
  }
});

test('only routes that change something have bodies, and no body is a file and JSON at once', () => {
  for (const [name, { body, upload }] of routes) {
    if (name.startsWith('GET') || name.startsWith('DELETE')) expect({ name, body, upload }).toEqual({ name });
    expect(!!body && !!upload).toBe(false);
  }
});

describe('OpenAPI', () => {
  const document = openApi('1.2.3') as {
    openapi: string;
    info: { version: string };
    paths: Record<string, Record<string, Record<string, unknown>>>;
    components: { schemas: Record<string, Record<string, unknown>> };
  };
  const operations = Object.values(document.paths).flatMap((p) => Object.values(p));

  test('lists every route once, each under an id of its own', () => {
    expect(document.openapi).toBe('3.1.0');
    expect(document.info.version).toBe('1.2.3');
    expect(operations).toHaveLength(routes.length);
    expect(new Set(operations.map((o) => o.operationId)).size).toBe(routes.length);
  });

  test('has every part of a path as a parameter', () => {
    for (const [path, methods] of Object.entries(document.paths))
      for (const operation of Object.values(methods)) {
        const parts = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
        const parameters = (operation.parameters ?? []) as { name: string; in: string }[];
        expect(parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(parts);
      }
  });

  test('refers to no schema that it does not hold, and holds none that is not referred to', () => {
    const text = JSON.stringify(document);
    const wanted = new Set([...text.matchAll(/"#\/components\/schemas\/(\w+)"/g)].map(([, name]) => name));
    expect([...wanted].sort()).toEqual(Object.keys(document.components.schemas).sort());
    expect(text).not.toContain(s.NAMED);
  });

  test('says which fields are needed, of what form, and which may be null', () => {
    const { Photo, Listing } = document.components.schemas as Record<string, any>;
    expect(Listing).toBeUndefined();
    expect(Photo.required).toEqual(expect.arrayContaining(['id', 'cutout', 'accepted']));
    expect(Photo.properties.id).toMatchObject({ type: 'string', format: 'uuid' });
    expect(Photo.properties.createdAt).toMatchObject({ format: 'date-time' });
    expect(Photo.properties.cutout).toEqual({
      anyOf: [{ $ref: '#/components/schemas/Cutout' }, { type: 'null' }],
    });
    const save = document.paths['/api/photos/{id}/recipe'].put as any;
    expect(save.requestBody.content['application/json'].schema.required).toEqual(
      expect.arrayContaining(['revision', 'recipe', 'history']),
    );
  });

  test('tells files from JSON', () => {
    const zip = document.paths['/api/deliveries/{id}/zip'].get as any;
    expect(Object.keys(zip.responses['200'].content)).toEqual(['application/zip']);
    const take = document.paths['/api/photos'].post as any;
    expect(Object.keys(take.requestBody.content)).toEqual(['application/octet-stream']);
  });
});

describe('schemas', () => {
  const row = s.shape({
    id: s.id(),
    note: s.optional(s.text()),
    count: s.usually(s.integer({ min: 1 }), 7),
    price: s.nullable(s.number({ above: 0 })),
  });
  const id = '6f1c1a52-4f5e-4b07-9b8a-0d1a4e0f9d11';
  const error = (schema: s.Schema, value: unknown) => schema.joi.validate(value).error?.message;

  test('fields are needed unless they say otherwise', () => {
    expect(row.joi.validate({ id, price: null }).value).toEqual({ id, price: null, count: 7 });
    expect(error(row, { id })).toContain('"price" is required');
    expect(error(row, { price: 1 })).toContain('"id" is required');
  });

  test('fields that a shape does not name are refused', () => {
    expect(error(row, { id, price: 1, colour: 'red' })).toContain('"colour" is not allowed');
  });

  test('values out of their limits are refused by name', () => {
    expect(error(row, { id: 'x', price: 1 })).toContain('"id" must be a valid GUID');
    expect(error(row, { id, price: 0 })).toContain('"price" must be greater than 0');
    expect(error(row, { id, price: 1, count: 0 })).toContain('"count"');
    expect(error(row, { id, price: 1, note: '' })).toContain('"note"');
  });

  test('a patch needs at least one of its fields', () => {
    const patch = s.some({ title: s.text(), size: s.number() });
    expect(error(patch, {})).toContain('at least 1');
    expect(patch.joi.validate({ size: 2 }).value).toEqual({ size: 2 });
  });

  test('a moment is ISO 8601, and nothing else', () => {
    expect(error(s.moment(), '2026-11-28T14:00:00.000Z')).toBeUndefined();
    expect(error(s.moment(), '28/11/2026')).toBeDefined();
    expect(error(s.moment(), 'yesterday')).toBeDefined();
  });

  test('either of two shapes fits', () => {
    const either = s.either(s.shape({ act: s.oneOf('pause') }), s.shape({ priority: s.integer() }));
    expect(error(either, { act: 'pause' })).toBeUndefined();
    expect(error(either, { priority: 3 })).toBeUndefined();
    expect(error(either, { act: 'stop' })).toBeDefined();
  });

  test('values by name keep to their number, and their names to a schema', () => {
    const inks = s.record(s.colour(), { names: s.colour(), max: 1 });
    expect(error(inks, { '#112233': '#445566' })).toBeUndefined();
    expect(error(inks, { red: '#445566' })).toContain('"red" is not allowed');
    expect(error(inks, { '#112233': '#445566', '#aabbcc': '#445566' })).toContain('1 key');
  });

  test('lists keep to their length and to one of each', () => {
    const list = s.list(s.text(), { min: 1, max: 2, unique: true });
    expect(error(list, [])).toBeDefined();
    expect(error(list, ['a', 'a'])).toContain('duplicate');
    expect(error(list, ['a', 'b', 'c'])).toBeDefined();
    expect(list.joi.validate(['b', 'a']).value).toEqual(['b', 'a']);
  });
});

describe('addresses', () => {
  test('parts and questions are filled in; what is not given is left out', () => {
    expect(
      address('GET /api/listings/:id/cell', { id: '7' }, { slotKey: 'a/b c', variantId: undefined }),
    ).toBe('/api/listings/7/cell?slotKey=a%2Fb%20c');
    expect(address('GET /api/photos')).toBe('/api/photos');
  });

  test('a part that is missing is said', () => {
    expect(() => address('GET /api/photos/:id', {})).toThrow('needs "id"');
  });

  test('whatever is filled in comes out the same on the other side', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, unit: 'grapheme' }),
        fc.string({ minLength: 1, unit: 'grapheme' }),
        (hash, search) => {
          const url = new URL(address('GET /api/blobs/:hash', { hash }, { search }), 'http://localhost');
          // A URL normalises parts that are only dots.
          fc.pre(!/^\.{1,2}$/.test(hash));
          expect(decodeURIComponent(url.pathname.split('/')[3])).toBe(hash);
          expect(url.searchParams.get('search')).toBe(search);
        },
      ),
    );
  });

  test('ids are told from words', () => {
    expect(isId('id')).toBe(true);
    expect(isId('waiver')).toBe(true);
    expect(isId('hash')).toBe(false);
  });
});
