import { act, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, expect, test } from '@jest/globals';
import { PLAIN_RECIPE, type CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { useLetterKeys } from '../../ui/keys';
import { answering, refusal } from '../../../test/answering';
import { deskOf, deskWorker, dragOver, drawNothing } from '../../../test/desk';
import { photo } from '../../../test/photos';
import { show } from '../../../test/show';
import { dropUnsent } from '../../documents/outbox';
import { CutoutScreen } from './cutout-screen';
import { useRecipe } from './recipe-store';

const FIRST = photo('p1', 'jug.jpg');
const SECOND = photo('p2', 'cup.jpg');

/** Opens the desk of the first of two photos. */
async function openDesk({
  desk = deskOf(),
  worker = deskWorker(),
  ...more
}: { desk?: ReturnType<typeof deskOf>; worker?: ReturnType<typeof deskWorker> } & Parameters<
  typeof answering
>[0] = {}) {
  let revision = desk.revision;
  const asked = answering({
    'GET /api/photos/:id': ({ params }) => (params.id === 'p1' ? FIRST : SECOND),
    'GET /api/photos': [FIRST, SECOND],
    'GET /api/photos/:id/desk': desk,
    'GET /api/scenes': [],
    'PUT /api/photos/:id/recipe': () => ({ revision: ++revision, inUse: false }),
    'POST /api/photos/accepted': { changed: 1 },
    'POST /api/photos/cutouts': { queued: 1 },
    'POST /api/photos/tidy': { queued: 1, before: [] },
    ...more,
  });
  const shown = show(CutoutScreen, '/photos/:id/cutout', '/photos/p1/cutout');
  const view = await screen.findByRole('application');
  await waitFor(() => expect(worker.solved.length).toBeGreaterThan(0));
  return { ...shown, view, asked, worker };
}
const steps = () => useRecipe.getState().document!.steps.map((s) => s.name);
const tool = (name: string) =>
  within(screen.getByRole('toolbar', { name: 'Tools' })).getByRole('button', { name });

beforeEach(async () => {
  await dropUnsent('cutout', 'p1');
  drawNothing();
  // Wide enough for the steps to stand open.
  window.innerWidth = 1280;
});

test('a stroke becomes a step, is carried out and stored; undo takes it back', async () => {
  const { view, user, asked, worker } = await openDesk();
  dragOver(view, [300, 200], [320, 220], [340, 240]);
  expect(steps()).toEqual(['Keep stroke']);
  expect(await screen.findByRole('button', { name: 'Keep stroke' })).toBeVisible();
  await waitFor(() => expect(worker.solved.at(-1)!.steps).toHaveLength(1));
  await waitFor(() => expect(asked.map((a) => a.name)).toContain('PUT /api/photos/:id/recipe'));
  await user.keyboard('{Control>}z{/Control}');
  expect(steps()).toEqual([]);
});

test('letters choose tools where the focus is on the photo, and are text in a field', async () => {
  const { user, view } = await openDesk();
  await user.keyboard('d');
  expect(tool('Drop')).toHaveAttribute('aria-pressed', 'true');
  dragOver(view, [300, 200], [330, 230]);
  expect(steps()).toEqual(['Drop stroke']);
  await user.click(screen.getByRole('textbox', { name: /Width/ }));
  await user.keyboard('k');
  expect(tool('Drop')).toHaveAttribute('aria-pressed', 'true');
});

test('each brush keeps a width of its own', async () => {
  const { user } = await openDesk();
  const width = () => screen.getByRole<HTMLInputElement>('textbox', { name: /Width/ }).value;
  const usual = width();
  await user.keyboard('.');
  expect(width()).not.toBe(usual);
  await user.click(tool('Drop'));
  expect(width()).toBe(usual);
});

test('the chosen step goes with Delete, and only where the focus is not in a field', async () => {
  const recipe: CutoutRecipe = {
    ...PLAIN_RECIPE,
    steps: [
      { id: 's', name: 'Keep stroke', on: true, kind: 'stroke', side: 'keep', points: [[10, 10]], radius: 9 },
    ],
  };
  const { user } = await openDesk({ desk: deskOf(recipe) });
  await user.click(screen.getByRole('button', { name: 'Keep stroke' }));
  await user.keyboard('{Delete}');
  expect(steps()).toEqual([]);
});

test('a photo in which nothing stands off says what to do', async () => {
  await openDesk({ worker: deskWorker({ empty: true }) });
  expect(await screen.findByText(/Draw a keep stroke over the product/)).toBeVisible();
});

test('what is corrected and not in use is said, with one click to use it', async () => {
  const { user, asked } = await openDesk({ desk: deskOf(PLAIN_RECIPE, { inUse: false }) });
  expect(screen.getByText('not in use yet')).toBeVisible();
  await user.click(screen.getByRole('button', { name: 'Use it now' }));
  expect(asked.at(-1)).toMatchObject({
    name: 'POST /api/photos/cutouts',
    sent: { body: { ids: ['p1'], changedOnly: true } },
  });
  await waitFor(() => expect(screen.queryByText('not in use yet')).toBeNull());
});

test('accepting stores, accepts and goes on to the next photo', async () => {
  const { user, asked, view, address } = await openDesk();
  dragOver(view, [300, 200], [340, 240]);
  await user.click(screen.getByRole('button', { name: 'Accept, next' }));
  await waitFor(() => expect(address()).toBe('/photos/p2/cutout'));
  expect(asked.map((a) => a.name).slice(0, 3)).toEqual([
    'PUT /api/photos/:id/recipe',
    'POST /api/photos/accepted',
    'POST /api/photos/cutouts',
  ]);
});

test('a refused save is said with its reason, and nothing of it is lost', async () => {
  const { view, user, asked } = await openDesk({
    'PUT /api/photos/:id/recipe': () => refusal('The store is full.', 400),
  });
  dragOver(view, [300, 200], [340, 240]);
  expect(await screen.findByText(/The store is full/)).toBeVisible();
  expect(steps()).toEqual(['Keep stroke']);
  const before = asked.length;
  await user.click(screen.getByRole('button', { name: 'Try again' }));
  await waitFor(() => expect(asked.length).toBeGreaterThan(before));
});

test('a worker that breaks down says so and is started again; the steps are still there', async () => {
  const { view, user, worker } = await openDesk();
  dragOver(view, [300, 200], [340, 240]);
  act(() => worker.breakDown('It stopped working.'));
  expect(await screen.findByText('It stopped working.')).toBeVisible();
  await user.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByRole('application')).toBeVisible();
  expect(worker.starts()).toBe(2);
  expect(steps()).toEqual(['Keep stroke']);
  await waitFor(() => expect(worker.solved.at(-1)!.steps).toHaveLength(1));
});

test('a photo that is not in the store any more is no endless wait', async () => {
  const gone = deskWorker(
    {},
    { load: () => Promise.reject(new Error('The photo is not in the store any more.')) },
  );
  answering({
    'GET /api/photos/:id': FIRST,
    'GET /api/photos': [FIRST],
    'GET /api/photos/:id/desk': deskOf(),
    'GET /api/scenes': [],
  });
  show(CutoutScreen, '/photos/:id/cutout', '/photos/p1/cutout');
  expect(await screen.findByText('The photo is not in the store any more.')).toBeVisible();
  expect(screen.getByText('not cut out')).toBeVisible();
  expect(gone.solved).toHaveLength(0);
});

test('the same adjustments for a whole shoot are asked about first, with how many it are', async () => {
  const { user, asked } = await openDesk();
  await user.click(screen.getByRole('button', { name: 'Adjust photo' }));
  await user.click(screen.getByRole('button', { name: 'Same for all 2 photos' }));
  const dialog = screen.getByRole('dialog', { name: 'Adjust another photo the same way?' });
  await user.click(within(dialog).getByRole('button', { name: 'Adjust 1 photo' }));
  await waitFor(() => expect(asked.at(-1)?.name).toBe('POST /api/photos/tidy'));
  expect(asked.at(-1)!.sent.body).toMatchObject({ ids: ['p2'] });
});

test('a letter takes a tool in hand, unless keys of one letter are switched off', async () => {
  const { user } = await openDesk();
  const inHand = () => screen.getByRole('button', { name: /^Fibres/ }).getAttribute('aria-pressed');
  useLetterKeys.setState({ on: false });
  await user.keyboard('h');
  expect(inHand()).toBe('false');
  useLetterKeys.setState({ on: true });
  await user.keyboard('h');
  expect(inHand()).toBe('true');
});
