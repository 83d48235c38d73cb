import { expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { listing, LISTING } from '../../../test/listing';
import { show } from '../../../test/show';
import type { BoardSummary } from '../../api/client';
import { ChecksScreen } from './checks-screen';

const SUMMARY: BoardSummary = {
  marketplaces: [
    { marketplace: 'Harbour Market', states: { pass: 5, look: 1, stop: 1, failed: 1, never: 2, waiting: 1 } },
    { marketplace: 'Kestrel Market', states: { stale: 3, 'no-shot': 1, 'no-cutout': 1 } },
  ],
  checks: [{ check: 'margin', title: 'Margin', look: 1, stop: 2, waived: 1 }],
  slots: [
    {
      key: 'harbour/front',
      title: 'Front',
      marketplace: 'Harbour Market',
      limit: 1e6,
      count: 2,
      total: 409600,
      largest: 307200,
    },
    {
      key: 'harbour/view',
      title: 'View',
      marketplace: 'Harbour Market',
      limit: 1e6,
      count: 0,
      total: 0,
      largest: 0,
    },
  ],
};

async function opened(summary: Partial<BoardSummary> = {}) {
  answering({
    'GET /api/listings/:id': listing(),
    'GET /api/listings/:id/summary': { ...SUMMARY, ...summary },
  });
  show(ChecksScreen, '/listings/:id/checks', `/listings/${LISTING}/checks`);
  await screen.findByRole('heading', { name: 'Pictures by marketplace' });
}

test('how the pictures stand is a table beside the bars, states that mean the same added up', async () => {
  await opened();
  const cells = (name: RegExp) =>
    within(screen.getByRole('row', { name }))
      .getAllByRole('cell')
      .map((c) => c.textContent);
  expect(screen.getAllByRole('columnheader').map((h) => h.textContent)).toEqual([
    'Marketplace',
    'pass',
    'warning',
    'failed',
    'out of date',
    'not made yet',
    'required, missing',
  ]);
  expect(cells(/Harbour/)).toEqual(['Harbour Market', '5', '1', '2', '0', '3', '0']);
  expect(cells(/Kestrel/)).toEqual(['Kestrel Market', '0', '0', '0', '3', '0', '2']);
});

test('charts say in words what they show', async () => {
  await opened();
  expect(screen.getByRole('img', { name: 'Faults by check: Margin 2 failed, 1 warning' })).toBeVisible();
  // A slot without pictures has no mean.
  expect(screen.getByRole('img', { name: 'Mean bytes by slot: Front 200 KB' })).toBeVisible();
});

test('nothing wrong and nothing made are told as such', async () => {
  await opened({ checks: [], slots: [SUMMARY.slots[1]] });
  expect(screen.getByText('Nothing fails among the pictures that are made.')).toBeVisible();
  expect(screen.getByText('No picture is made yet.')).toBeVisible();
});

test('an answer that fails is not shown as empty charts', async () => {
  answering({
    'GET /api/listings/:id': listing(),
    'GET /api/listings/:id/summary': refusal('The board could not be read.', 500),
  });
  show(ChecksScreen, '/listings/:id/checks', `/listings/${LISTING}/checks`);
  expect(await screen.findByText('The board could not be read.')).toBeVisible();
  expect(screen.queryByRole('img')).toBeNull();
});
