import { beforeEach, expect, jest, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { PLAIN_RECIPE, type CutoutRecipe, type Step } from '@scenograph/core/cutout/recipe';
import { server } from '../../../test/server';
import type { CutoutDesk } from '../../api/client';
import { openDesk, saveRecipe, useRecipe } from './recipe-store';

const desk = (recipe = PLAIN_RECIPE, revision = 3): CutoutDesk => ({
  recipe,
  history: { past: [], future: [] },
  revision,
  outlines: [],
  inUse: true,
  standsIn: [],
});
const stroke = (id: string): Step => ({
  id,
  name: 'Keep',
  on: true,
  kind: 'stroke',
  side: 'keep',
  points: [[10, 10]],
  radius: 4,
});
const withSteps = (...ids: string[]) => ({ ...PLAIN_RECIPE, steps: ids.map(stroke) });
const adding = (id: string) => (r: CutoutRecipe) => ({ ...r, steps: [...r.steps, stroke(id)] });
const store = () => useRecipe.getState();
const stepIds = () => store().document!.steps.map((s) => s.id);

/** Answers saves; gives what was sent. */
function saves(answer: (body: { revision: number; recipe: CutoutRecipe }) => Response) {
  const sent: { revision: number; recipe: CutoutRecipe }[] = [];
  server.use(
    http.put('*/api/photos/p1/recipe', async ({ request }) => {
      const body = (await request.json()) as (typeof sent)[number];
      sent.push(body);
      return answer(body);
    }),
  );
  return sent;
}
const taken = (body: { revision: number }) =>
  HttpResponse.json({ revision: body.revision + 1, inUse: false });

beforeEach(() => openDesk('p1', desk()));

test('edits are undone and redone one by one, and a new edit ends what could be redone', () => {
  store().edit('One', adding('a'));
  store().edit('Two', adding('b'));
  store().undo();
  expect(stepIds()).toEqual(['a']);
  store().redo();
  expect(stepIds()).toEqual(['a', 'b']);
  store().undo();
  store().edit('Three', adding('c'));
  expect(stepIds()).toEqual(['a', 'c']);
  expect(store().future).toEqual([]);
  store().undo();
  store().undo();
  store().undo();
  expect(stepIds()).toEqual([]);
});

test('a drag is one edit, however often it moved, and one that changed nothing is none', () => {
  const soften = (by: number) => (r: CutoutRecipe) => ({ ...r, edge: { ...r.edge, soften: by } });
  for (let v = 1; v <= 9; v++) store().during(soften(v));
  expect(store().past).toHaveLength(0);
  store().finish('Edge', soften(9));
  expect(store().past).toHaveLength(1);
  expect(store().document!.edge.soften).toBe(9);
  store().undo();
  expect(store().document!.edge.soften).toBe(PLAIN_RECIPE.edge.soften);
  store().edit('Nothing', (r) => ({ ...r }));
  expect(store().past).toHaveLength(0);
});

test('undo in the middle of a drag gives the drag up and takes the last finished change back', () => {
  store().edit('One', adding('a'));
  store().during(adding('b'));
  store().undo();
  expect(stepIds()).toEqual([]);
  expect(store().gestureBase).toBeNull();
  store().during(adding('c'));
  expect(stepIds()).toEqual(['c']);
  store().abandon();
  expect(stepIds()).toEqual([]);
  store().redo();
  expect(stepIds()).toEqual(['a']);
});

test('an edit in the middle of a drag does not make the drag permanent', () => {
  store().during(adding('dragged'));
  store().edit('One', adding('a'));
  expect(stepIds()).toEqual(['a']);
  store().undo();
  expect(stepIds()).toEqual([]);
});

test('while another window’s version waits for a choice, nothing is stored over it', async () => {
  const theirs = desk(withSteps('theirs'), 8);
  const sent = saves(() => HttpResponse.json({ message: 'changed', detail: theirs }, { status: 409 }));
  store().edit('One', adding('mine'));
  await saveRecipe();
  store().undo();
  store().edit('Two', adding('more'));
  expect(store().saving).toBe('conflict');
  expect(await saveRecipe()).toBe(false);
  expect(sent).toHaveLength(1);
});

test('what is stored is sent with the revision it is based on, and the next is based on the answer', async () => {
  const sent = saves(taken);
  store().edit('One', adding('a'));
  expect(store().saving).toBe('waiting');
  expect(await saveRecipe()).toBe(true);
  expect(store().saving).toBe('saved');
  expect(store().inUse).toBe(false);
  store().edit('Two', adding('b'));
  await saveRecipe();
  expect(sent.map((s) => s.revision)).toEqual([3, 4]);
  expect(sent[1].recipe.steps.map((s) => s.id)).toEqual(['a', 'b']);
});

test('a drag that is not finished is not stored', async () => {
  const sent = saves(taken);
  store().edit('One', adding('a'));
  store().during(adding('b'));
  await saveRecipe();
  expect(sent[0].recipe.steps.map((s) => s.id)).toEqual(['a']);
});

test('an edit made while the last one is being stored is stored too', async () => {
  const sent = saves((body) => {
    if (body.revision === 3) store().edit('Two', adding('b'));
    return taken(body);
  });
  store().edit('One', adding('a'));
  expect(await saveRecipe()).toBe(true);
  expect(sent.at(-1)!.recipe.steps.map((s) => s.id)).toEqual(['a', 'b']);
  expect(store().revision).toBe(5);
});

test('with the server away nothing is lost: it is said, and tried again by itself', async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick', 'setImmediate'] });
  try {
    server.use(http.put('*/api/photos/p1/recipe', () => HttpResponse.error()));
    store().edit('One', adding('a'));
    expect(await saveRecipe()).toBe(false);
    expect(store().saving).toBe('offline');
    expect(stepIds()).toEqual(['a']);
    const sent = saves(taken);
    jest.advanceTimersByTime(3100);
    await saveRecipe();
    expect(store().saving).toBe('saved');
    expect(sent.at(-1)!.recipe.steps.map((s) => s.id)).toEqual(['a']);
  } finally {
    jest.useRealTimers();
  }
});

test('another window’s steps are put to the choice: theirs are taken whole, mine go over theirs', async () => {
  const theirs = desk(withSteps('theirs'), 8);
  const refuse = () => HttpResponse.json({ message: 'changed', detail: theirs }, { status: 409 });
  saves(refuse);
  store().edit('One', adding('mine'));
  expect(await saveRecipe()).toBe(false);
  expect(store().conflict).toMatchObject({ document: theirs.recipe, revision: 8, message: 'changed' });
  expect(stepIds()).toEqual(['mine']);

  const sent = saves(taken);
  store().keepMine();
  expect(await saveRecipe()).toBe(true);
  expect(sent[0]).toMatchObject({ revision: 8 });
  expect(sent[0].recipe.steps.map((s) => s.id)).toEqual(['mine']);

  saves(refuse);
  store().edit('Two', adding('more'));
  await saveRecipe();
  store().takeTheirs();
  expect(stepIds()).toEqual(['theirs']);
  expect(store().saving).toBe('saved');
});

test('an answer that comes after the desk has gone on to another photo changes nothing there', async () => {
  saves((body) => {
    openDesk('p2', desk(withSteps('other'), 40));
    return taken(body);
  });
  store().edit('One', adding('a'));
  await saveRecipe();
  expect(store().id).toBe('p2');
  expect(store().revision).toBe(40);
  expect(stepIds()).toEqual(['other']);
});
