import { expect, test } from '@jest/globals';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { EMPTY_KIT } from '@scenograph/core/brand/kit';
import { emptyShot } from '@scenograph/core/shot/document';
import { answering, refusal } from '../../test/answering';
import { SHEET } from '../../test/listing';
import { BRANDS, CUTOUTS, DOCUMENT_KINDS, RECIPES, SHOTS, SPEC_SHEETS, storedSheet } from './kinds';

const history = { past: [], future: [] };

test('every kind has a name of its own and a screen', () => {
  const names = DOCUMENT_KINDS.map((k) => k.name);
  expect(new Set(names).size).toBe(names.length);
  for (const kind of DOCUMENT_KINDS) expect(kind.path('id')).toMatch(/^\//);
});

test('a shot goes to its own route with the revision that it is based on', async () => {
  const asked = answering({ 'PUT /api/shots/:id': { revision: 8 } as never });
  const document = emptyShot(100, 100);
  expect((await SHOTS.put('s1', { revision: 7, document, history })).revision).toBe(8);
  expect(asked[0].sent).toMatchObject({ params: { id: 's1' }, body: { revision: 7, document, history } });
});

test('a cutout comes back with whether it is in use', async () => {
  answering({ 'PUT /api/photos/:id/recipe': { revision: 5, inUse: false } });
  const saved = await CUTOUTS.put('p1', { revision: 4, document: PLAIN_RECIPE, history });
  expect(saved).toEqual({ revision: 5, beside: { inUse: false } });
});

test('a recipe and a brand kit are sent as their routes want them', async () => {
  const asked = answering({
    'PUT /api/recipes/:id': { revision: 2 } as never,
    'PUT /api/brand': { revision: 3 } as never,
  });
  await RECIPES.put('r1', { revision: 1, document: { title: 'Four views', steps: [] }, history });
  await BRANDS.put('', { revision: 2, document: EMPTY_KIT, history });
  expect(asked[0].sent.body).toEqual({ revision: 1, history, title: 'Four views', steps: [] });
  expect(asked[1].sent.body).toEqual({ revision: 2, history, kit: EMPTY_KIT });
});

test('a sheet’s version is its revision, there and back; it is a draft until it is stored by hand', async () => {
  const stored = storedSheet({ ...SHEET, version: 6 });
  expect(stored.revision).toBe(6);
  expect(stored.document).not.toHaveProperty('version');
  const asked = answering({ 'PUT /api/spec-sheets/:sheet': { ...SHEET, version: 7 } });
  expect(await SPEC_SHEETS.put('harbour', { revision: 6, document: stored.document, history })).toEqual({
    revision: 7,
  });
  expect(asked[0].sent.body).toMatchObject({ version: 6, sheet: { version: 6, id: 'harbour' } });
  expect(SPEC_SHEETS.asMade).toBe(false);
});

test('what stands on the server after a conflict is read as the document of its kind', () => {
  const desk = { recipe: PLAIN_RECIPE, history, revision: 9 };
  expect(CUTOUTS.theirs(desk)).toEqual({ document: PLAIN_RECIPE, history, revision: 9 });
  expect(SPEC_SHEETS.theirs({ sheet: { ...SHEET, version: 3 } }).revision).toBe(3);
});

test('a refusal reaches whoever stores', async () => {
  answering({ 'PUT /api/shots/:id': () => refusal('It was changed elsewhere.', 409) });
  const body = { revision: 1, document: emptyShot(10, 10), history };
  await expect(SHOTS.put('s1', body)).rejects.toMatchObject({
    status: 409,
    message: 'It was changed elsewhere.',
  });
});
