import { expect, test } from '@jest/globals';
import { testServer } from '../test-server';

/**
 * Two editors of one thing, in a thousand random steps for each kind: each looks now and then, and changes what it saw.
 * What was answered with 200 is there until somebody who had seen it changed it; undo never takes back what the other one
 * did.
 */
const server = testServer();

const STEPS = 1000;
const EDITORS = ['00000000-0000-4000-8000-00000000000a', '00000000-0000-4000-8000-00000000000b'];
const NO_HISTORY = { past: [], future: [] };

/** A seeded generator. Source: mulberry32, T. Ettinger, 2017. */
function seeded(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Json = any;

interface Seen {
  /** The values of its pieces. */
  values: unknown[];
  revision: number;
  answer: Json;
}

/** How one kind of thing is looked at and changed. */
interface Kind {
  name: string;
  look(editor: string): Promise<Seen>;
  /** What the n-th change writes into a piece. */
  value(n: number, piece: number): unknown;
  /** Changes one piece, based on what was seen; gives the status. */
  change(piece: number, value: unknown, seen: Seen, editor: string): Promise<number>;
  turn?(way: 'undo' | 'redo', editor: string): Promise<unknown>;
}

async function ask(
  method: string,
  path: string,
  editor: string,
  { body, revision }: { body?: unknown; revision?: number } = {},
): Promise<{ status: number; body: Json }> {
  const response = await fetch(server.base() + path, {
    method,
    headers: {
      'Content-Type': 'application/json',
      'Scenograph-Editor': editor,
      ...(revision === undefined ? {} : { 'If-Match': `"${revision}"` }),
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  return { status: response.status, body: await response.json() };
}

/** Plays the steps of one kind; gives how many changes were taken and how many refused. */
async function play(kind: Kind, seed: number): Promise<{ taken: number; refused: number }> {
  const random = seeded(seed);
  const pick = (n: number) => Math.floor(random() * n);
  const start = await kind.look(EDITORS[0]);
  /** What must be there, and who put it there. */
  const stands = [...start.values];
  const makers: (string | null)[] = stands.map(() => null);
  const seen = new Map(EDITORS.map((e) => [e, start]));
  let [taken, refused] = [0, 0];
  for (let n = 0; n < STEPS; n++) {
    const editor = EDITORS[pick(2)];
    const roll = random();
    if (roll < 0.25) {
      seen.set(editor, await kind.look(editor));
      expect([kind.name, n, seen.get(editor)!.values]).toEqual([kind.name, n, stands]);
    } else if (roll < 0.35 && kind.turn) {
      await kind.turn(pick(3) ? 'undo' : 'redo', editor);
      (await kind.look(editor)).values.forEach((value, i) => {
        if (value === stands[i]) return;
        // What it took back or did again was its own.
        if (makers[i] !== null) expect([kind.name, n, makers[i]]).toEqual([kind.name, n, editor]);
        stands[i] = value;
        makers[i] = editor;
      });
    } else {
      const based = seen.get(editor)!;
      const piece = pick(stands.length);
      const value = kind.value(n, piece);
      const status = await kind.change(piece, value, based, editor);
      if (status === 409) {
        refused++;
        continue;
      }
      // Taken: then it was based on what stood there, or nothing else was wanted than stands.
      const wasSeen = based.values[piece] === stands[piece] || value === stands[piece];
      expect([kind.name, n, status < 300, wasSeen]).toEqual([kind.name, n, true, true]);
      taken++;
      if (value !== stands[piece]) makers[piece] = editor;
      stands[piece] = value;
    }
  }
  expect((await kind.look(EDITORS[0])).values).toEqual(stands);
  return { taken, refused };
}

/** A document that is stored whole, with its revision in the body. */
function whole(
  name: string,
  paths: { get: string; put: string },
  read: (stored: Json) => unknown[],
  write: (stored: Json, piece: number, value: unknown) => object,
  value: Kind['value'] = (n) => `Step ${n}`,
): Kind {
  return {
    name,
    value,
    async look(editor) {
      const { body } = await ask('GET', paths.get, editor);
      return { values: read(body), revision: body.revision, answer: body };
    },
    async change(piece, value, { answer, revision }, editor) {
      const body = { revision, history: NO_HISTORY, ...write(answer, piece, value) };
      return (await ask('PUT', paths.put, editor, { body })).status;
    },
  };
}

const at = (path: string) => ({ get: path, put: path });
const changed = <T>(list: T[], i: number, patch: object): T[] =>
  list.map((item, n) => (n === i ? { ...item, ...patch } : item));

const get = async (path: string) => (await server.call('GET', path)).body;

async function shot(): Promise<Kind> {
  const [listing] = await get('/api/listings');
  const { shots } = await get(`/api/listings/${listing.id}`);
  return whole(
    'shot',
    at(`/api/shots/${shots[0].id}`),
    ({ document }) => document.elements.slice(0, 2).map((e: Json) => e.name),
    ({ document }, piece, name) => ({
      document: { ...document, elements: changed(document.elements, piece, { name }) },
    }),
  );
}

async function cutout(): Promise<Kind> {
  const [{ id }] = await get('/api/photos');
  return whole(
    'cutout',
    { get: `/api/photos/${id}/desk`, put: `/api/photos/${id}/recipe` },
    ({ recipe: { tidy } }) => [tidy.exposure, tidy.contrast],
    ({ recipe }, piece, value) => ({
      recipe: { ...recipe, tidy: { ...recipe.tidy, [piece ? 'contrast' : 'exposure']: value } },
    }),
    (n) => (n + 1) / STEPS,
  );
}

async function survey(): Promise<Kind> {
  const [{ id }] = await get('/api/scenes');
  return whole(
    'survey',
    at(`/api/scenes/${id}`),
    ({ title, season }) => [title, season],
    ({ survey, palette, title, season }, piece, value) => ({
      ...{ survey, palette, title, season },
      [piece ? 'season' : 'title']: value,
    }),
  );
}

const brand = (): Kind =>
  whole(
    'brand',
    at('/api/brand'),
    ({ kit }) => kit.colours.slice(0, 2).map((c: Json) => c.title),
    ({ kit }, piece, title) => ({ kit: { ...kit, colours: changed(kit.colours, piece, { title }) } }),
  );

async function recipe(): Promise<Kind> {
  const steps = [{ id: 'a', kind: 'arrange', title: 'Stand', after: [], pose: 'stand' }];
  const { id } = (await server.call('POST', '/api/recipes', { title: 'Recipe', steps })).body;
  return whole(
    'recipe',
    at(`/api/recipes/${id}`),
    ({ title, steps }) => [title, steps[0].title],
    ({ title, steps }, piece, value) =>
      piece ? { title, steps: changed(steps, 0, { title: value }) } : { title: value, steps },
  );
}

async function data(): Promise<Kind> {
  const { products } = await get('/api/products');
  const { id, variants } = products.find((p: Json) => p.variants.length > 1);
  const path = `/api/products/${id}`;
  const ids: string[] = variants.slice(0, 2).map((v: Json) => v.id);
  return {
    name: 'product',
    value: (n, piece) => (piece % 2 && piece < 4 ? `Note ${n}` : n + 1),
    async look(editor) {
      const { body } = await ask('GET', path, editor);
      const values = ids.flatMap((own) => {
        const { price, fields } = body.variants.find((v: Json) => v.id === own).data;
        return [price, fields.note];
      });
      return { values: [...values, body.widthMm], revision: body.revision, answer: body };
    },
    async change(piece, value, { revision, answer }, editor) {
      if (piece === 4)
        return (await ask('PATCH', path, editor, { body: { widthMm: value }, revision })).status;
      const own = ids[Math.floor(piece / 2)];
      const { fields } = answer.variants.find((v: Json) => v.id === own).data;
      const patch = piece % 2 ? { fields: { ...fields, note: value } } : { price: value };
      const body = { label: 'Edit', set: [{ id: own, patch }] };
      return (await ask('POST', `${path}/variants/batch`, editor, { body, revision })).status;
    },
    turn: (way, editor) => ask('POST', `${path}/turn`, editor, { body: { way } }),
  };
}

async function board(): Promise<Kind> {
  const all = await get('/api/listings');
  const { id } = all.find((l: Json) => l.shots > 1 && l.variants > 1);
  const path = `/api/listings/${id}`;
  const { shots, variants } = await get(path);
  const { slots } = await get(`${path}/board`);
  const cells = [0, 1].flatMap((v) => [0, 1].map((s) => ({ variantId: variants[v].id, slotKey: slots[s] })));
  const choices: (string | null)[] = [...shots.map((s: Json) => s.id), null];
  return {
    name: 'board',
    value: (n, piece) => (piece < 4 ? choices[n % choices.length] : `Title ${n}`),
    async look(editor) {
      const { body } = await ask('GET', path, editor);
      const values = cells.map(
        ({ variantId, slotKey }) =>
          body.cellFeeds.find((c: Json) => c.variantId === variantId && c.slotKey === slotKey)?.shotId,
      );
      return {
        values: [...values, body.listing.title, body.shots[0].title],
        revision: body.revision,
        answer: body,
      };
    },
    async change(piece, value, { revision }, editor) {
      if (piece === 4) return (await ask('PATCH', path, editor, { body: { title: value }, revision })).status;
      const title = { body: { title: value }, revision };
      if (piece === 5) return (await ask('PATCH', `/api/shots/${shots[0].id}`, editor, title)).status;
      const body = { cells: [cells[piece]], shotId: value };
      return (await ask('PUT', `${path}/cells`, editor, { body, revision })).status;
    },
    turn: (way, editor) => ask('POST', `${path}/turn`, editor, { body: { way } }),
  };
}

const KINDS = { shot, cutout, survey, brand, recipe, data, board };

test.each(Object.keys(KINDS) as (keyof typeof KINDS)[])(
  '%s: no change is lost between two editors',
  async (name) => {
    const { taken, refused } = await play(await KINDS[name](), 7);
    // Both happen, or nothing was tried.
    expect([taken > 100, refused > 50]).toEqual([true, true]);
  },
);

test('photos changed together: nobody’s corrections are lost, and undo takes back only what nobody changed since', async () => {
  const [one, two] = await get('/api/photos');
  const tidy = {
    exposure: 1,
    contrast: 0,
    localContrast: 0,
    saturation: 0,
    neutral: null,
    straighten: 0,
    crop: null,
  };
  const ids = [one.id, two.id];
  const first = await server.call('POST', '/api/photos/tidy', {
    ids,
    revisions: [one.revision, two.revision],
    tidy,
  });
  expect(first.status).toBe(200);
  const late = await server.call('POST', '/api/photos/tidy', {
    ids,
    revisions: [one.revision, two.revision],
    tidy: { ...tidy, exposure: 2 },
  });
  expect([late.status, late.body.message]).toEqual([
    409,
    expect.stringMatching(/were changed elsewhere since you saw them. Nothing was changed/),
  ]);
  const { recipe, revision } = await get(`/api/photos/${two.id}/desk`);
  expect(recipe.tidy.exposure).toBe(1);
  await server.call('PUT', `/api/photos/${two.id}/recipe`, {
    ...{ revision, history: NO_HISTORY },
    recipe: { ...recipe, tidy: { ...recipe.tidy, contrast: 0.5 } },
  });
  const undo = await server.call('POST', '/api/photos/tidy/restore', { photos: first.body.before });
  expect(undo.status).toBe(409);
  expect((await get(`/api/photos/${two.id}/desk`)).recipe.tidy.contrast).toBe(0.5);
});

test('twenty saves of one photo at once: as many as were taken are there', async () => {
  const [{ id }] = await get('/api/photos');
  const { recipe, revision } = await get(`/api/photos/${id}/desk`);
  const saves = Array.from({ length: 20 }, (_, i) =>
    i % 2
      ? server.call('PUT', `/api/photos/${id}/recipe`, {
          ...{ revision, history: NO_HISTORY },
          recipe: { ...recipe, tidy: { ...recipe.tidy, exposure: i / 20 } },
        })
      : server.call('POST', '/api/photos/tidy', {
          ids: [id],
          revisions: [revision],
          tidy: { ...recipe.tidy, exposure: i / 20 },
        }),
  );
  const answers = await Promise.all(saves);
  const taken = answers.flatMap(({ status }, i) => (status < 300 ? [i / 20] : []));
  expect(taken).toEqual([(await get(`/api/photos/${id}/desk`)).recipe.tidy.exposure]);
  expect(answers.filter(({ status }) => status === 409)).toHaveLength(19);
});

test('what was changed since it was seen is not removed', async () => {
  const [listing] = await get('/api/listings');
  const { revision } = await get(`/api/listings/${listing.id}`);
  const stale = { revision: revision + 1 };
  expect((await ask('DELETE', `/api/listings/${listing.id}`, EDITORS[0], stale)).status).toBe(409);
  const done = await ask('DELETE', `/api/listings/${listing.id}`, EDITORS[0], { revision });
  expect(done.status).toBe(200);
  expect((await server.call('GET', `/api/listings/${listing.id}`)).status).toBe(404);
  await server.call('POST', `/api/bin/${listing.id}/restore`);
  expect((await get('/api/listings')).map((l: Json) => l.id)).toContain(listing.id);
  const nonsense = await fetch(`${server.base()}/api/listings/${listing.id}`, {
    method: 'DELETE',
    headers: { 'If-Match': 'W/abc' },
  });
  expect(nonsense.status).toBe(400);
});

test('eight who make the same at once: it is made, and the others are told so or get one of their own', async () => {
  const sheet = (await get('/api/spec-sheets'))[0];
  const answers = await Promise.all(
    Array.from({ length: 8 }, () =>
      server.call('POST', '/api/spec-sheets', { ...sheet, id: 'at-once', marketplace: 'At once' }),
    ),
  );
  for (const { status, body } of answers)
    expect([201, 409].includes(status) ? '' : `${status} ${body.message}`).toBe('');
  expect(answers.some(({ status }) => status === 201)).toBe(true);
  const ids = (await get('/api/spec-sheets')).map((s: Json) => s.id);
  expect(new Set(ids).size).toBe(ids.length);
});
