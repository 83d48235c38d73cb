import { afterEach, expect, test } from '@jest/globals';
import { readSlot } from '@scenograph/core/spec/slot';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { OTHER_SHEET, SHEET } from '../../../test/listing';
import { show } from '../../../test/show';
import { useNotices } from '../../ui/notices';
import { coverageText } from './slot-table';
import { SpecSheetsScreen } from './spec-sheets-screen';

afterEach(() => useNotices.setState({ list: [] }));

async function opened(refuses = '') {
  const asked = answering({
    'GET /api/spec-sheets': [SHEET, OTHER_SHEET],
    'GET /api/spec-sheets/:sheet': refuses ? refusal(refuses, 404) : { sheet: SHEET, versions: [] },
    'POST /api/spec-sheets': ({ body }) => {
      const sheet = body as typeof SHEET;
      return sheet.slots ? { ...SHEET, ...sheet, id: 'made' } : refusal('This is no spec sheet.', 422);
    },
  });
  const shown = show(SpecSheetsScreen, '/spec-sheets');
  await screen.findByRole('region', { name: 'Harbour Market' });
  return { ...shown, asked };
}

test('what a slot asks for is told in its row', async () => {
  const slot = readSlot({
    ...{
      id: 'cut',
      title: 'Cutout',
      width: 1000,
      height: 800,
      formats: ['png', 'webp'],
      maxBytes: 2 * 1024 * 1024,
    },
    ...{ background: { kind: 'transparent' }, required: false, overlays: 'forbidden', marginShare: 0.045 },
    coverage: { min: 0.85, max: 0.96, wanted: null },
  });
  answering({ 'GET /api/spec-sheets': [{ ...SHEET, slots: [slot] }] });
  show(SpecSheetsScreen, '/spec-sheets');
  const row = await screen.findByRole('row', { name: /Cutout/ });
  expect(
    within(row)
      .getAllByRole('cell')
      .map((c) => c.textContent),
  ).toEqual([
    'Cutout optional',
    '1000 x 800',
    'png, webp',
    '2.00 MB',
    expect.stringMatching(/^transparent [\d.]+ %$/),
    '85 % to 96 %',
    '4.5 %',
    'none',
    expect.any(String),
  ]);
});

test('coverage is a range, a least, a most, or any', () => {
  const of = (min: number | null, max: number | null) =>
    coverageText({ coverage: { min, max, wanted: null } });
  expect([of(0.5, 0.9), of(0.5, null), of(null, 0.9), of(null, null)]).toEqual([
    '50 % to 90 %',
    '50 % or more',
    '90 % or less',
    'any',
  ]);
});

test('a new sheet begins with one slot and is opened', async () => {
  const { user, asked, address } = await opened();
  await user.click(screen.getByRole('button', { name: 'New spec sheet' }));
  await waitFor(() => expect(address()).toBe('/spec-sheets/made'));
  expect(asked[0].sent.body).toMatchObject({ slots: [{ id: 'main', width: 2000 }] });
});

test('a copy takes the newest rules under a name of its own', async () => {
  const { user, asked } = await opened();
  await user.click(screen.getByRole('button', { name: 'Copy Harbour Market' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toMatchObject({ marketplace: 'Harbour Market, copy', slots: SHEET.slots });
});

test('a sheet that is gone meanwhile cannot be copied, and that is told', async () => {
  const { user, asked } = await opened('This spec sheet is not here any more.');
  await user.click(screen.getByRole('button', { name: 'Copy Harbour Market' }));
  expect(await screen.findByText('This spec sheet is not here any more.')).toBeVisible();
  expect(asked).toEqual([]);
});

test('what is imported and is no JSON, or no sheet, is refused with its name or reason', async () => {
  const { user, asked } = await opened();
  const input = screen.getByLabelText('Spec sheet as JSON');
  await user.upload(input, new File(['{ no'], 'broken.json', { type: 'application/json' }));
  expect(await screen.findByText(/"broken.json" is not JSON/)).toBeVisible();
  expect(asked).toEqual([]);
  await user.upload(input, new File(['{"a":1}'], 'other.json', { type: 'application/json' }));
  expect(await screen.findByText('This is no spec sheet.')).toBeVisible();
});
