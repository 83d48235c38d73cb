import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { PLAIN_ENCODING } from '@scenograph/core/delivery/encoding';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import {
  listing,
  LISTING,
  OCHRE,
  ON_SHELF,
  MOMENT,
  ON_WHITE,
  storedShot,
  TEAL,
  uuid,
} from '../../../test/listing';
import { layOut } from '../../../test/lay-out';
import { painting } from '../../../test/painters';
import { show } from '../../../test/show';
import type { Board, BoardCell } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { BoardScreen } from './board-screen';

const MARGIN: CheckResult = {
  check: 'margin',
  title: 'Margin',
  verdict: 'stop',
  measured: '1 %',
  limit: 'at least 4 %',
  sentence: 'The product stands too near the edge.',
};
const CELL: BoardCell = {
  variantId: TEAL,
  slotKey: 'harbour/front',
  state: 'x',
  key: 'k',
  last: 'p',
  faults: [],
  doubtful: false,
  bytes: 1000,
  missing: null,
  shotId: ON_WHITE,
  fileName: 'MB-TE-front.jpg',
  words: { title: 'Planter', alt: 'A teal planter', copyright: null },
  encoding: PLAIN_ENCODING,
  checks: [MARGIN, { ...MARGIN, check: 'bytes', title: 'File size', verdict: 'pass' as const }],
  reason: null,
  picture: {
    blob: 'd'.repeat(64),
    format: 'jpeg',
    quality: 88,
    bytes: 204800,
    width: 1200,
    height: 900,
    current: true,
  },
  waivers: [],
};

beforeEach(layOut);
afterEach(() => {
  useNotices.setState({ list: [] });
  painting.checks = [];
});

const BOARD: Board = {
  slots: ['harbour/front', 'harbour/view', 'kestrel/main'],
  shots: [ON_WHITE, ON_SHELF],
  rows: [
    { variantId: TEAL, states: 'xpo', differs: 'd..', fedBy: [0, 0, -1], says: { 0: 'margin' } },
    { variantId: OCHRE, states: 'cco', differs: '...', fedBy: [0, -1, -1], says: {} },
  ],
  edits: { undo: 'Fill Front', redo: null },
  revision: 4,
};

/** The board of the listing; gives what the server was asked, in order. */
async function opened({ detail = listing(), cell = CELL, refuses = '' } = {}) {
  const or = <T,>(answer: T) => (refuses ? refusal(refuses) : answer);
  const asked = answering({
    'GET /api/listings/:id': detail,
    'GET /api/listings/:id/board': BOARD,
    'GET /api/listings/:id/cell': cell,
    'GET /api/scenes': [],
    'GET /api/pictures': [],
    'GET /api/templates': [],
    'PUT /api/listings/:id/feeds': ({ body }) => or({ ...(body as never as object), revision: 5 } as never),
    'PUT /api/listings/:id/cells': ({ body }) =>
      or({ assigned: (body as { cells: [] }).cells.length, revision: 5 }),
    'POST /api/listings/:id/fill': or({ filled: 1, left: 2, revision: 5 }),
    'POST /api/listings/:id/turn': or({ label: 'Fill Front', done: 1, left: 0, revision: 5 }),
    'POST /api/listings/:id/waivers': or({
      id: uuid(9),
      listingId: LISTING,
      revision: 5,
      ...{ slotKey: 'harbour/front', variantId: null, check: 'margin', reason: '', createdAt: MOMENT },
    }),
    'POST /api/listings/:id/shots': storedShot(ON_WHITE, 'White'),
    'PATCH /api/shots/:id': storedShot(ON_WHITE, 'On white'),
    'POST /api/shots/:id/copy': storedShot(ON_WHITE, 'Copy'),
  });
  const shown = show(BoardScreen, '/listings/:id', `/listings/${LISTING}`);
  await screen.findByRole('gridcell', { name: /Teal, Front: failed a check/ });
  return { ...shown, asked: () => asked.map(({ name, sent }) => [name.split('/').at(-1), sent.body]) };
}
const cell = (name: RegExp) => screen.getByRole('gridcell', { name });
const chosen = () =>
  screen
    .getAllByRole('gridcell', { selected: true })
    .map((c) => c.getAttribute('aria-label')!.replace(/:.*/, ''));
const option = async (user: Awaited<ReturnType<typeof opened>>['user'], box: string, name: string) => {
  await user.click(screen.getByRole('combobox', { name: box }));
  await user.click(await screen.findByRole('option', { name }));
};

test('every cell says its variant, its slot and how it stands; differences are told apart', async () => {
  await opened();
  expect(cell(/Teal, Front/)).toHaveAccessibleName(
    'Teal, Front: failed a check, margin. The slot has differences of its own',
  );
  expect(cell(/Teal, View/)).toHaveAccessibleName('Teal, View: pass');
  expect(cell(/Ochre, Main/)).toHaveAccessibleName('Ochre, Main: missing');
  expect(screen.getByText('2 / 6')).toBeVisible();
});

test('a click chooses one cell, with Ctrl one more, with Shift a range; Escape none', async () => {
  const { user } = await opened();
  await user.click(cell(/Teal, Front/));
  expect(chosen()).toEqual(['Teal, Front']);
  await user.keyboard('{Control>}');
  await user.click(cell(/Ochre, View/));
  await user.keyboard('{/Control}');
  expect(chosen()).toEqual(['Teal, Front', 'Ochre, View']);
  await user.click(cell(/Teal, View/));
  await user.keyboard('{Shift>}');
  await user.click(cell(/Ochre, Main/));
  await user.keyboard('{/Shift}');
  expect(chosen()).toEqual(['Teal, View', 'Teal, Main', 'Ochre, View', 'Ochre, Main']);
  screen.getByRole('grid').focus();
  await user.keyboard('{Escape}');
  expect(screen.queryAllByRole('gridcell', { selected: true })).toEqual([]);
});

test('arrow keys move, Shift with them chooses, Enter opens the stage at the cell', async () => {
  const { user, address } = await opened();
  screen.getByRole('grid').focus();
  await user.keyboard('{ArrowRight} {ArrowDown}{Shift>}{ArrowRight}{/Shift}');
  expect(chosen()).toEqual(['Ochre, View', 'Ochre, Main']);
  await user.keyboard('{Home}{ArrowUp}{Enter}');
  await waitFor(() => expect(address()).toBe(`/shots/${ON_WHITE}?slot=harbour%2Ffront&variant=${TEAL}`));
});

test('a cell that nothing fills is not opened', async () => {
  const { user, address } = await opened();
  await user.dblClick(cell(/Teal, Main/));
  expect(address()).toBe(`/listings/${LISTING}`);
});

test('heads choose a whole row and a whole column; all are chosen with Ctrl and A', async () => {
  const { user } = await opened();
  await user.click(screen.getByRole('button', { name: 'Choose all cells of Ochre' }));
  expect(chosen()).toEqual(['Ochre, Front', 'Ochre, View', 'Ochre, Main']);
  await user.click(screen.getByRole('button', { name: 'Choose all cells of View, Harbour Market' }));
  expect(chosen()).toEqual(['Teal, View', 'Ochre, View']);
  screen.getByRole('grid').focus();
  await user.keyboard('{Control>}a{/Control}');
  expect(chosen()).toHaveLength(6);
});

test('cells are chosen by how they stand', async () => {
  const { user } = await opened();
  await option(user, 'Choose cells', 'Missing');
  expect(chosen()).toEqual(['Teal, Main', 'Ochre, Front', 'Ochre, View', 'Ochre, Main']);
  expect(screen.getByText('4 cells chosen: missing.')).toBeVisible();
  await option(user, 'Choose cells', 'With a difference');
  expect(chosen()).toEqual(['Teal, Front']);
});

test('what is shown can be narrowed; what was chosen before is not chosen unseen', async () => {
  const { user } = await opened();
  await user.click(cell(/Teal, Front/));
  await user.click(screen.getByRole('checkbox', { name: 'Required only' }));
  expect(screen.queryByRole('gridcell', { name: /View/ })).toBeNull();
  expect(screen.queryByRole('toolbar', { name: 'Chosen cells' })).toBeNull();
  await user.type(screen.getByRole('searchbox', { name: 'Find variants' }), 'och');
  expect(screen.getAllByRole('gridcell').map((c) => c.getAttribute('aria-label'))).toEqual([
    'Ochre, Front: no cutout',
    'Ochre, Main: missing',
  ]);
  await option(user, 'Marketplace', 'Kestrel Market');
  expect(screen.getAllByRole('gridcell')).toHaveLength(1);
});

test('cells that are shown alone are filled, not those of the same place on the whole board', async () => {
  const { user, asked } = await opened();
  await user.type(screen.getByRole('searchbox', { name: 'Find variants' }), 'ochre');
  await option(user, 'Marketplace', 'Kestrel Market');
  await user.click(cell(/Ochre, Main/));
  await option(user, 'Fill from', 'On the shelf');
  await waitFor(() => expect(asked()).toHaveLength(1));
  expect(asked()[0]).toEqual([
    'cells',
    { cells: [{ variantId: OCHRE, slotKey: 'kestrel/main' }], shotId: ON_SHELF },
  ]);
  expect(await screen.findByText('1 cell assigned.')).toBeVisible();
});

test('a refusal is told, and nothing is called done', async () => {
  const { user } = await opened({ refuses: 'This shot was removed meanwhile.' });
  await user.click(cell(/Teal, Main/));
  await option(user, 'Fill from', 'On the shelf');
  expect(await screen.findByText('This shot was removed meanwhile.')).toBeVisible();
  expect(screen.queryByText(/assigned/)).toBeNull();
});

test('a slot is filled from its head, empty slots by their rules, and the last step is undone by name', async () => {
  const { user, asked } = await opened();
  await option(user, 'Shot for Kestrel Market Main', 'On the shelf');
  await waitFor(() => expect(asked().at(-1)).toEqual(['feeds', { slot: 'kestrel/main', shotId: ON_SHELF }]));
  await user.click(screen.getByRole('button', { name: 'Fill empty slots' }));
  expect(await screen.findByText('1 slot filled by their rules; 2 that no shot suits.')).toBeVisible();
  await user.click(screen.getByRole('button', { name: 'Undo: Fill Front' }));
  expect(await screen.findByText('Undone: Fill Front.')).toBeVisible();
  expect(screen.getByRole('button', { name: 'Nothing to redo' })).toBeDisabled();
});

test('a single chosen cell shows its file and its checks, the worst first', async () => {
  const { user } = await opened();
  await user.click(cell(/Teal, Front/));
  const panel = await screen.findByRole('complementary', { name: 'Teal, Front' });
  expect(await within(panel).findByText('MB-TE-front.jpg')).toBeVisible();
  expect(panel).toHaveTextContent('1200 x 900, jpeg, 200 KB, q 88');
  expect(
    within(panel)
      .getAllByRole('listitem')
      .map((li) => li.textContent),
  ).toEqual([
    expect.stringContaining('Margin1 % (at least 4 %)The product stands too near the edge.'),
    expect.stringContaining('File size'),
  ]);
});

test('a check is waived with a reason, for this cell or for every variant', async () => {
  const { user, asked } = await opened();
  await user.click(cell(/Teal, Front/));
  await user.click(await screen.findByRole('button', { name: 'Waive' }));
  const dialog = screen.getByRole('dialog', { name: 'Waive "Margin" here' });
  expect(within(dialog).getByRole('button', { name: 'Waive it' })).toBeDisabled();
  await user.type(within(dialog).getByLabelText('Reason'), ' agreed with the client ');
  await user.click(within(dialog).getByRole('checkbox'));
  await user.click(within(dialog).getByRole('button', { name: 'Waive it' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(asked()).toEqual([
    [
      'waivers',
      { slotKey: 'harbour/front', variantId: null, check: 'margin', reason: 'agreed with the client' },
    ],
  ]);
});

test('a waiver that is refused stays on the screen with what was written', async () => {
  const { user } = await opened({ refuses: 'The board was changed meanwhile.' });
  await user.click(cell(/Teal, Front/));
  await user.click(await screen.findByRole('button', { name: 'Waive' }));
  await user.type(screen.getByLabelText('Reason'), 'agreed');
  await user.click(screen.getByRole('button', { name: 'Waive it' }));
  expect(await screen.findByText('The board was changed meanwhile.')).toBeInTheDocument();
  expect(screen.getByLabelText('Reason')).toHaveValue('agreed');
});

test('a picture that is out of date is measured as it would be made now', async () => {
  painting.checks = [{ ...MARGIN, title: 'Measured now' }];
  const { user } = await opened({ cell: { ...CELL, picture: { ...CELL.picture!, current: false } } });
  await user.click(cell(/Teal, Front/));
  expect(await screen.findByText('Measured now')).toBeVisible();
  expect(screen.getByText(/out of date/)).toBeVisible();
  expect(screen.queryByText('Margin')).toBeNull();
});

test('a cutout that nobody has looked at is told before its picture is made', async () => {
  painting.checks = [{ ...MARGIN, title: 'Measured now' }];
  const detail = listing();
  detail.variants[0] = { ...detail.variants[0], cutoutConfidence: 0.3 };
  const { user } = await opened({
    detail,
    cell: { ...CELL, state: 'never', picture: null, doubtful: true },
  });
  await user.click(cell(/Teal, Front/));
  expect(await screen.findByText(/The automatic cutout is probably wrong/)).toBeVisible();
  expect(screen.getByText('Measured now')).toBeVisible();
});

test('a shot is added on white, copied, and described; one in use cannot be removed', async () => {
  const { user, asked } = await opened();
  expect(screen.getByRole('button', { name: 'Remove On white' })).toBeDisabled();
  expect(screen.getByRole('button', { name: 'Remove On the shelf' })).toBeEnabled();
  await user.click(screen.getByRole('button', { name: 'Copy On the shelf' }));
  await user.click(screen.getByRole('button', { name: 'Add a shot' }));
  await user.click(await screen.findByRole('button', { name: 'Pure white' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  await user.click(screen.getByRole('button', { name: 'Describe On white' }));
  await user.type(screen.getByLabelText('Alternative text'), '{{title} on white');
  await user.tab();
  await waitFor(() => expect(asked()).toHaveLength(3));
  expect(asked()).toEqual([
    ['copy', {}],
    ['shots', { kind: 'white' }],
    [':id', { alt: '{title} on white' }],
  ]);
});
