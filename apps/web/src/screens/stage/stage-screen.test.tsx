import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { EMPTY_KIT } from '@scenograph/core/brand/kit';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { screen, waitFor, within } from '@testing-library/react';
import { http, HttpResponse } from 'msw';
import { answering } from '../../../test/answering';
import { listing, MOMENT, OCHRE, ON_WHITE, storedShot, TEAL, uuid, variant } from '../../../test/listing';
import { painting } from '../../../test/painters';
import { server } from '../../../test/server';
import { show } from '../../../test/show';
import { boxOf, onStage, STAGED, stepsBack } from '../../../test/stage';
import type { ShotWithHistory } from '../../api/client';
import { allUnsent, dropUnsent } from '../../documents/outbox';
import { useNotices } from '../../ui/notices';
import { StageScreen } from './stage-screen';
import { useStage } from './store';

beforeEach(async () => {
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
});
afterEach(() => {
  useNotices.setState({ list: [] });
  painting.checks = [];
});

const STORED: ShotWithHistory = {
  ...storedShot(ON_WHITE, 'On white'),
  document: STAGED,
  feeds: ['harbour/front'],
};
interface Body {
  revision: number;
  document: { elements: unknown[] };
  history: { past: { label: string }[] };
}

/** The stage of the shot on a server that keeps it; `down` may be set to let it fail. */
async function opened({ query = '', cutoutConfidence = null as number | null } = {}) {
  const kept = { stored: STORED, down: false, bodies: [] as Body[], copies: [] as string[] };
  const detail = listing({
    variants: [{ ...variant(TEAL, 'Teal'), cutoutConfidence }, variant(OCHRE, 'Ochre')],
  });
  detail.shots[0] = { ...detail.shots[0], document: STAGED };
  answering({
    'GET /api/shots/:id': () => kept.stored,
    'GET /api/listings/:id': detail,
    'GET /api/products': { brand: null, total: 0, products: [] },
    'GET /api/brand': { kit: EMPTY_KIT, revision: 1, history: { past: [], future: [] } },
    'GET /api/pictures': [],
    'GET /api/scenes': [],
    'GET /api/effects': [],
    'GET /api/fonts': [],
    'POST /api/listings/:id/deliveries/estimate': {
      ...{
        pictures: 1,
        toPaint: 1,
        unchanged: 0,
        missing: 0,
        seconds: 1,
        bytes: 1,
        names: [],
        clashes: 0,
        doubtful: 0,
      },
    },
    'PUT /api/listings/:id/feeds': ({ body }) => body as never,
    'POST /api/shots/:id/copy': ({ body }) => {
      kept.copies.push((body as { title: string }).title);
      return storedShot(uuid(99), 'Copy');
    },
  });
  server.use(
    http.put('*/api/shots/:id', async ({ request }) => {
      if (kept.down) return HttpResponse.error();
      const body = (await request.json()) as Body;
      if (body.revision !== kept.stored.revision)
        return HttpResponse.json({ message: 'Changed elsewhere.', detail: kept.stored }, { status: 409 });
      kept.bodies.push(body);
      kept.stored = { ...kept.stored, ...(body as object), revision: body.revision + 1 };
      return HttpResponse.json({ revision: kept.stored.revision, updatedAt: MOMENT });
    }),
  );
  const shown = show(StageScreen, '/shots/:id', `/shots/${ON_WHITE}${query}`);
  await screen.findByRole('region', { name: 'Depth, from back to front' });
  return { ...shown, kept };
}
const saved = () =>
  waitFor(() => expect(screen.getByTestId('saving')).toHaveTextContent(/^saved/), { timeout: 8000 });
const slat = (name: RegExp) => screen.getAllByRole('button', { name }).find((b) => b.dataset.slat)!;

test('the product is chosen at first; keys move it, and undo and redo take turns', async () => {
  const { user, kept } = await opened();
  expect(slat(/^Planter/)).toHaveAttribute('aria-pressed', 'true');
  const { x } = boxOf('product');
  // However slow the machine is, both are pressed at once.
  const clock = jest.spyOn(Date, 'now').mockReturnValue(Date.now());
  await user.keyboard('{Shift>}{ArrowRight}{ArrowRight}{/Shift}');
  clock.mockRestore();
  expect(boxOf('product').x).toBeCloseTo(x + 20, 1);
  await user.keyboard('{Control>}z{/Control}');
  expect(boxOf('product').x).toBeCloseTo(x, 5);
  await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}');
  expect(boxOf('product').x).toBeCloseTo(x + 20, 1);
  await saved();
  expect(kept.bodies.at(-1)!.history.past.map((s) => s.label)).toEqual(['Nudge Planter']);
});

test('keys act where the focus is: arrows in a field, Delete on a button and words in a box leave the stage alone', async () => {
  const { user } = await opened();
  const field = screen.getByRole('textbox', { name: 'Left' });
  await user.click(field);
  await user.keyboard('{Delete}{Backspace}');
  await user.click(slat(/^left/));
  screen.getByRole('button', { name: 'Deliver' }).focus();
  await user.keyboard('{Delete}');
  expect(useStage.getState().document!.elements).toHaveLength(5);
  slat(/^left/).focus();
  await user.keyboard('{Delete}');
  expect(useStage.getState().document!.elements.map((e) => e.id)).not.toContain('left');
});

test('one key shows the picture alone, and brings the rest back as it was', async () => {
  const { user } = await opened();
  await user.click(slat(/^left/));
  const around = () =>
    [
      screen.queryByRole('complementary', { name: 'Desk' }),
      screen.queryByRole('region', { name: 'Depth, from back to front' }),
      screen.queryByRole('button', { name: 'Deliver' }),
    ].map((e) => e !== null);
  await user.keyboard('.');
  expect(around()).toEqual([false, false, false]);
  expect(screen.getByRole('img', { name: 'The shot as it will be delivered' })).toBeVisible();
  await user.keyboard('{ArrowRight}');
  expect(boxOf('left').x).toBe(101);
  await user.click(screen.getByRole('button', { name: 'The picture alone' }));
  expect(around()).toEqual([true, true, true]);
  expect(slat(/^left/)).toHaveAttribute('aria-pressed', 'true');
});

test('Ctrl and D copy what is chosen; Escape lets go of it', async () => {
  const { user } = await opened();
  await user.click(slat(/^left/));
  await user.keyboard('{Control>}d{/Control}');
  expect(slat(/^left, copy/)).toHaveAttribute('aria-pressed', 'true');
  await user.keyboard('{Escape}');
  expect(screen.getByText('Choose something on the stage or in the depth strip.')).toBeVisible();
});

test('with the server away what is changed is kept and said, and stored by Try again', async () => {
  const { user, kept } = await opened();
  kept.down = true;
  await user.keyboard('{ArrowDown}');
  await waitFor(() => expect(screen.getByTestId('saving')).toHaveTextContent('not saved yet'), {
    timeout: 8000,
  });
  expect((await allUnsent())[0]).toMatchObject({ id: ON_WHITE });
  kept.down = false;
  await user.click(screen.getByRole('button', { name: 'Try again' }));
  await saved();
  expect(kept.bodies).toHaveLength(1);
  expect(await allUnsent()).toEqual([]);
});

test('what another stored meanwhile is not overwritten: mine can stand, or be kept as a copy', async () => {
  const { user, kept } = await opened();
  const theirs = { ...STAGED, elements: STAGED.elements.slice(0, 3) };
  kept.stored = { ...STORED, revision: 5, document: theirs };
  await user.keyboard('{ArrowDown}');
  const dialog = within(await screen.findByRole('alertdialog', undefined, { timeout: 8000 }));
  expect(useStage.getState().document!.elements).toHaveLength(5);
  await user.click(dialog.getByRole('button', { name: 'Keep mine as a copy' }));
  await waitFor(() => expect(useStage.getState().document!.elements).toHaveLength(3));
  expect(kept.copies).toEqual(['On white, mine']);
  expect(kept.bodies).toEqual([]);
});

test('a slot in the address is shown; what is changed there stays there, and the base is one click away', async () => {
  const { user, kept } = await opened({ query: '?slot=harbour%2Ffront' });
  expect(await screen.findByText(/Changes stay in this slot/)).toHaveTextContent('Front, Harbour Market');
  await user.click(slat(/^left/));
  await user.clear(screen.getByRole('textbox', { name: 'Top' }));
  await user.type(screen.getByRole('textbox', { name: 'Top' }), '111{Enter}');
  expect(boxOf('left')).toEqual(STAGED.elements[2].box);
  await user.click(screen.getByRole('button', { name: 'Back to the base' }));
  expect(screen.queryByText(/Changes stay in this slot/)).toBeNull();
  await saved();
  expect(Object.keys(kept.stored.document.fits)).toEqual(['harbour/front']);
});

test('another variant is put on the stage through the address; the shot stays as it is', async () => {
  const { user, address } = await opened();
  await user.click(screen.getByRole('combobox', { name: 'Variant on the stage' }));
  await user.click(await screen.findByRole('option', { name: 'Ochre' }));
  await waitFor(() => expect(address()).toContain(`variant=${OCHRE}`));
  expect(stepsBack()).toEqual([]);
});

test('what is found is summed up, and mended as a step', async () => {
  const found: CheckResult = {
    check: 'overlays',
    title: 'Text and logos',
    verdict: 'stop',
    measured: '1 shown',
    limit: 'none',
    sentence: 'The slot takes no text.',
    about: { id: 'text', name: 'Words' } as CheckResult['about'],
    fix: { title: 'Hide overlays in this slot' },
  };
  painting.checks = [found];
  const { user } = await opened({ query: '?slot=harbour%2Ffront' });
  const checks = await screen.findByRole('button', { name: /Checks 1 failed/ });
  await user.click(checks);
  await user.click(await screen.findByRole('button', { name: 'Hide overlays in this slot' }));
  expect(stepsBack()).toEqual(['Hide overlays in this slot']);
  expect(onStage('text').hidden).toBe(false);
});

test.each([
  [0.3, 'needs a hand', /Checks 1 failed/],
  [0.75, 'look at it', /Checks 1 warning/],
])('a cutout of confidence %p (%s) is no picture that passes', async (cutoutConfidence, says, summary) => {
  const { user } = await opened({ query: '?slot=harbour%2Ffront', cutoutConfidence });
  await user.click(await screen.findByRole('button', { name: summary }));
  expect(await screen.findByText(new RegExp(says))).toBeVisible();
});

test('a cutout that looks right, or that somebody has accepted, is not doubted', async () => {
  await opened({ query: '?slot=harbour%2Ffront', cutoutConfidence: 0.97 });
  expect(await screen.findByRole('button', { name: /Checks all pass/ })).toBeVisible();
});

test('before a delivery is ordered what is on the stage is stored', async () => {
  const { user, kept } = await opened();
  await user.keyboard('{ArrowUp}');
  await user.click(screen.getByRole('button', { name: 'Deliver' }));
  expect(await screen.findByRole('dialog', { name: 'Deliver Planter, autumn' })).toBeVisible();
  await waitFor(() => expect(kept.bodies).toHaveLength(1));
});

test('a shot that cannot be fetched says why and offers to try again', async () => {
  server.use(
    http.get('*/api/shots/:id', () =>
      HttpResponse.json({ message: 'This shot is not here any more.' }, { status: 404 }),
    ),
  );
  show(StageScreen, '/shots/:id', `/shots/${uuid(70)}`);
  expect(await screen.findByText('This shot is not here any more.')).toBeVisible();
  expect(screen.getByRole('button', { name: 'Try again' })).toBeVisible();
});
