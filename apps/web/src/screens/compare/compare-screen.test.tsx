import { afterEach, expect, test } from '@jest/globals';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { act, screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { listing, LISTING, OCHRE, ON_SHELF, ON_WHITE, shot, TEAL, uuid } from '../../../test/listing';
import { painting } from '../../../test/painters';
import { show } from '../../../test/show';
import { useNotices } from '../../ui/notices';
import { CompareScreen } from './compare-screen';

afterEach(() => {
  useNotices.setState({ list: [] });
  painting.checks = [];
  window.ResizeObserver = Before;
});
const Before = window.ResizeObserver;

async function opened({ shots = listing().shots, refuses = '', slot = 'harbour/front' } = {}) {
  const tell: ResizeObserverCallback[] = [];
  window.ResizeObserver = class extends Before {
    constructor(heard: ResizeObserverCallback) {
      super(heard);
      tell.push(heard);
    }
  };
  const detail = listing({ shots });
  const asked = answering({
    'GET /api/listings/:id': detail,
    'GET /api/pictures': [],
    'GET /api/scenes': [],
    'PUT /api/listings/:id/feeds': ({ body }) => (refuses ? refusal(refuses) : (body as never)),
    'PUT /api/listings/:id/cells': () => (refuses ? refusal(refuses) : { assigned: 1, revision: 2 }),
  });
  const path = `/listings/${LISTING}/compare?slot=${encodeURIComponent(slot)}&variant=${TEAL}`;
  const shown = show(CompareScreen, '/listings/:id/compare', path);
  await screen.findByRole('list', { name: 'Shots of this listing' });
  const entry = { contentRect: { width: 1000, height: 600 } } as ResizeObserverEntry;
  await act(() => Promise.resolve(tell.forEach((heard) => heard([entry], {} as ResizeObserver))));
  return { ...shown, asked };
}
const side = () => screen.getAllByRole('region').map((r) => r.getAttribute('aria-label'));
const shelf = (name: RegExp) =>
  within(screen.getByRole('list', { name: 'Shots of this listing' })).getByRole('button', { name });

test('the shot that fills the slot stands first, beside another', async () => {
  await opened({ shots: [shot(ON_SHELF, 'On the shelf'), shot(ON_WHITE, 'On white', ['harbour/front'])] });
  expect(side()).toEqual(['On white', 'On the shelf']);
  const first = within(screen.getByRole('region', { name: 'On white' }));
  expect(first.getByRole('button', { name: 'Fills this slot' })).toBeDisabled();
});

test('four at most are seen side by side: the oldest choice goes', async () => {
  const shots = [1, 2, 3, 4, 5].map((n) => shot(uuid(80 + n), `Shot ${n}`));
  const { user } = await opened({ shots });
  for (const n of [3, 4, 5]) await user.click(shelf(new RegExp(`Shot ${n}`)));
  expect(side()).toEqual(['Shot 2', 'Shot 3', 'Shot 4', 'Shot 5']);
  await user.click(shelf(/Shot 4/));
  expect(side()).toEqual(['Shot 2', 'Shot 3', 'Shot 5']);
});

test('the winner fills the slot for every variant, or this cell alone', async () => {
  const { user, asked } = await opened();
  const other = within(screen.getByRole('region', { name: 'On the shelf' }));
  await user.click(other.getByRole('button', { name: 'Make it the winner' }));
  expect(await screen.findByText('"On the shelf" fills Front. The others are kept.')).toBeVisible();
  expect(asked[0].sent.body).toEqual({ slot: 'harbour/front', shotId: ON_SHELF });
  await user.click(screen.getByRole('radio', { name: 'For this variant only' }));
  await user.click(other.getByRole('button', { name: 'Make it the winner' }));
  expect(await screen.findByText('"On the shelf" fills Front of Teal. The others are kept.')).toBeVisible();
  expect(asked[1].sent.body).toEqual({
    cells: [{ slotKey: 'harbour/front', variantId: TEAL }],
    shotId: ON_SHELF,
  });
});

test('a refusal is told, and no winner named', async () => {
  const { user } = await opened({ refuses: 'This slot was removed from its sheet.' });
  const other = within(screen.getByRole('region', { name: 'On the shelf' }));
  await user.click(other.getByRole('button', { name: 'Make it the winner' }));
  expect(await screen.findByText('This slot was removed from its sheet.')).toBeVisible();
  expect(screen.queryByText(/The others are kept/)).toBeNull();
});

test('what was measured stands under each, the worst first', async () => {
  const check = (title: string, verdict: CheckResult['verdict']): CheckResult => ({
    check: title,
    title,
    verdict,
    measured: '1',
    limit: '2',
    sentence: '',
  });
  painting.checks = [check('White', 'pass'), check('Margin', 'look'), check('Whole', 'stop')];
  await opened();
  const [measures] = await screen.findAllByRole('list', { name: 'Measures' });
  expect(
    within(measures)
      .getAllByRole('listitem')
      .map((li) => li.textContent),
  ).toEqual(['Whole1', 'Margin1', 'White1']);
});

test('another cell is chosen in the address, so that it can be come back to', async () => {
  const { user, address } = await opened();
  await user.click(screen.getByRole('combobox', { name: 'Variant' }));
  await user.click(await screen.findByRole('option', { name: 'Ochre' }));
  await waitFor(() => expect(address()).toContain(`variant=${OCHRE}`));
  expect(address()).toContain('slot=harbour%2Ffront');
});

test('an address that names no slot shows the first', async () => {
  await opened({ slot: 'gone/slot' });
  expect(screen.getByRole('combobox', { name: 'Slot' })).toHaveTextContent('Harbour Market, Front');
});
