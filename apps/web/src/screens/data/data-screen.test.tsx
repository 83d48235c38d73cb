import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { answering, refusal } from '../../../test/answering';
import { layOut } from '../../../test/lay-out';
import { MOMENT, OCHRE, PRODUCT, TEAL, variant } from '../../../test/listing';
import { show } from '../../../test/show';
import type { ProductWithEdits } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { DataScreen } from './data-screen';

beforeEach(layOut);
afterEach(() => useNotices.setState({ list: [] }));

const product = (): ProductWithEdits => ({
  id: PRODUCT,
  title: 'Planter',
  widthMm: 120,
  heightMm: null,
  depthMm: null,
  pose: 'stand',
  createdAt: MOMENT,
  count: 2,
  revision: 1,
  variants: [
    variant(TEAL, 'Teal', { sku: 'MB-1', price: 24, fields: { material: 'clay' } }),
    variant(OCHRE, 'Ochre', { sku: 'MB-2', price: 26, fields: { material: 'stone' } }),
  ],
  edits: { undo: null, redo: null },
});

/** Opens the data of a product; `now` is what the server has. */
async function opened({ refuses = '' } = {}) {
  const now = product();
  const asked = answering({
    'GET /api/products/:id': () => ({ ...now }),
    'GET /api/photos': [],
    'GET /api/artwork': [],
    'POST /api/products/:id/variants/batch': ({ body }) => {
      if (refuses) return refusal(refuses, 422);
      now.edits = { undo: (body as { label: string }).label, redo: null };
      return { changed: 1, added: [], removed: 0, revision: 2 };
    },
    'POST /api/products/:id/turn': () => {
      const label = now.edits.undo;
      now.edits = { undo: null, redo: label };
      return { label, done: 1, left: 0, revision: 3 };
    },
  });
  const shown = show(DataScreen, '/products/:id', `/products/${PRODUCT}`);
  const grid = await screen.findByRole('grid', { name: 'Data of Planter' });
  await within(grid).findByDisplayValue('MB-1');
  return { ...shown, grid: within(grid), asked, now };
}
const batches = (asked: Awaited<ReturnType<typeof opened>>['asked']) =>
  asked.filter((a) => a.name.includes('batch')).map((a) => a.sent.body);

test('a cell that is written in is one named step of its own variant', async () => {
  const { user, grid, asked } = await opened();
  const price = grid.getByDisplayValue('24');
  await user.clear(price);
  await user.type(price, '29.50{Enter}');
  await waitFor(() => expect(batches(asked)).toHaveLength(1));
  expect(batches(asked)[0]).toMatchObject({
    label: 'Price of MB-1',
    set: [{ id: TEAL, patch: { price: 29.5 } }],
  });
});

test('a value that is none is refused with a sentence, and nothing is sent', async () => {
  const { user, grid, asked } = await opened();
  const price = grid.getByDisplayValue('24');
  await user.clear(price);
  await user.type(price, 'about twenty{Enter}');
  expect(await screen.findByText(/"about twenty"/)).toBeVisible();
  expect(asked).toHaveLength(0);
});

test('what the server refuses is told', async () => {
  const { user, grid } = await opened({ refuses: 'The SKU MB-2 stands twice.' });
  const sku = grid.getByDisplayValue('MB-1');
  await user.clear(sku);
  await user.type(sku, 'MB-2{Enter}');
  expect(await screen.findByText('The SKU MB-2 stands twice.')).toBeVisible();
});

test('a block from a spreadsheet goes into the cells from where it is pasted, in one step', async () => {
  const { grid, asked } = await opened();
  fireEvent.paste(grid.getByDisplayValue('clay'), {
    clipboardData: { getData: () => 'terracotta\nslate' },
  });
  await waitFor(() => expect(batches(asked)).toHaveLength(1));
  expect(batches(asked)[0]).toMatchObject({
    set: [
      { id: TEAL, patch: { fields: { material: 'terracotta' } } },
      { id: OCHRE, patch: { fields: { material: 'slate' } } },
    ],
  });
});

test('a removed column is brought back from the notice', async () => {
  const { user, asked } = await opened();
  await user.click(screen.getByRole('button', { name: 'Remove column material' }));
  const notice = await screen.findByText('The column material is removed.');
  expect(batches(asked)[0]).toMatchObject({ set: [{ patch: { fields: {} } }, { patch: { fields: {} } }] });
  await user.click(
    within(notice.closest('li') ?? notice.parentElement!).getByRole('button', { name: 'Undo' }),
  );
  await waitFor(() => expect(asked.at(-1)?.name).toBe('POST /api/products/:id/turn'));
  expect(await screen.findByText('Undone: Remove column material.')).toBeVisible();
});

test('an undo from a notice never takes back something else that came after', async () => {
  const { user, asked, now } = await opened();
  await user.click(screen.getByRole('checkbox', { name: 'Choose all variants' }));
  await user.click(screen.getByRole('button', { name: 'Remove 2' }));
  const notice = await screen.findByText('2 variants are removed.');
  now.edits = { undo: 'Price of MB-1', redo: null };
  await user.click(
    within(notice.closest('li') ?? notice.parentElement!).getByRole('button', { name: 'Undo' }),
  );
  expect(await screen.findByText(/Other changes came after "Remove 2 variants"/)).toBeVisible();
  expect(asked.map((a) => a.name)).not.toContain('POST /api/products/:id/turn');
});

test('a new variant gets an SKU that none has yet', async () => {
  const { user, asked } = await opened();
  await user.click(screen.getByRole('button', { name: 'Variant' }));
  await waitFor(() => expect(batches(asked)).toHaveLength(1));
  expect(batches(asked)[0]).toMatchObject({ add: [{ sku: 'MB-3' }] });
});

test('undo takes back the last step on the server, but not while a cell is being written in', async () => {
  const { user, grid, asked, now } = await opened();
  now.edits = { undo: 'Price of MB-1', redo: null };
  await user.click(grid.getByDisplayValue('24'));
  await user.keyboard('9{Control>}z{/Control}');
  expect(asked).toHaveLength(0);
  await user.keyboard('{Escape}');
  (document.activeElement as HTMLElement).blur();
  await user.keyboard('{Control>}z{/Control}');
  await waitFor(() => expect(asked.map((a) => a.name)).toContain('POST /api/products/:id/turn'));
});
