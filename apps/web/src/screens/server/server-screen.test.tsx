import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { AnswerOf } from '@scenograph/contract';
import { answering } from '../../../test/answering';
import { layOut } from '../../../test/lay-out';
import { MOMENT, uuid } from '../../../test/listing';
import { show } from '../../../test/show';
import { MissingBar, missingOf, type Ready } from '../../ui/missing-bar';
import { useNotices } from '../../ui/notices';
import { ServerScreen } from './server-screen';

beforeEach(layOut);
afterEach(() => useNotices.setState({ list: [] }));

const READY: Ready = { ready: true, database: true, queue: true, workers: 1, missing: [] };
type Work = AnswerOf<'GET /api/work'>;

const count = (kind: Work['kinds'][number]['kind'], over: Partial<Work['kinds'][number]> = {}) => ({
  ...{ kind, waiting: 0, working: 0, failed: 0, oldestSeconds: null },
  ...over,
});
const failed = (kind: Work['failed'][number]['kind'], title: string, productId: string | null = null) => ({
  ...{ kind, id: uuid(5), title, productId },
  reason: `${title} went wrong.`,
});

async function opened(found = { files: 3, bytes: 5 * 1024 * 1024 }) {
  const work: Work = {
    kinds: [
      count('cutouts', { waiting: 4, oldestSeconds: 90 }),
      count('recipes'),
      count('pictures', { failed: 1 }),
    ],
    failed: [
      failed('cutouts', 'mug.jpg'),
      failed('recipes', 'On white: Mug', uuid(6)),
      failed('pictures', 'mug-main'),
    ],
    workers: [{ id: uuid(7), host: 'garden', threads: 4, startedAt: MOMENT }],
  };
  const asked = answering({
    'GET /api/health/ready': READY,
    'GET /api/work': () => ({ ...work, failed: [...work.failed] }),
    'GET /api/storage': {
      kinds: [
        { kind: 'originals', files: 12, bytes: 3 * 1024 * 1024 },
        { kind: 'unnamed', files: 3, bytes: 1024 * 1024 },
      ],
      keeps: { graceHours: 24, cacheDays: 30, binDays: 30 },
    },
    'POST /api/photos/cutouts': () => {
      work.failed.shift();
      return { queued: 1 };
    },
    'POST /api/recipes/:id/run': { ordered: 1, unchanged: 0 },
    'POST /api/deliveries/:id/change': {} as never,
    'POST /api/storage/collect': { ...found, paintings: 0, orderParts: 0, reduced: 0, forgotten: 0 },
  });
  const shown = show(ServerScreen, '/server');
  await screen.findByRole('table', { name: 'Failed work' });
  await screen.findByRole('table', { name: 'Storage' });
  return { ...shown, asked };
}

test('work that waits and has failed is told, with who does it', async () => {
  await opened();
  const parts = await screen.findByRole('list', { name: 'Parts of the server' });
  expect(parts).toHaveTextContent('Everything that the server needs is there.');
  expect(parts).toHaveTextContent('Worker on garden, 4 threads');
  const work = within(screen.getByRole('table', { name: 'Work' }));
  expect(work.getByRole('row', { name: /Cutouts/ })).toHaveTextContent(/4.*0.*0.*(90 s|2 min)/);
  expect(screen.getByText('mug.jpg went wrong.')).toBeVisible();
});

test('each kind of failed work is tried again where it is done', async () => {
  const { user, asked } = await opened();
  for (const title of ['mug-main', 'On white: Mug', 'mug.jpg'])
    await user.click(screen.getByRole('button', { name: `Try ${title} again` }));
  await waitFor(() => expect(screen.queryByText('mug.jpg')).toBeNull());
  expect(asked.map(({ name, sent }) => [name, sent.body])).toEqual([
    ['POST /api/deliveries/:id/change', { act: 'retry' }],
    ['POST /api/recipes/:id/run', { productIds: [uuid(6)] }],
    ['POST /api/photos/cutouts', { ids: [uuid(5)] }],
  ]);
});

test('unused files are removed only after it was said what that would be', async () => {
  const { user, asked } = await opened();
  await user.click(screen.getByRole('button', { name: 'Remove unused files' }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.getByText(/5.00 MB in 3 files would be removed/)).toBeVisible();
  expect(asked.map((a) => a.sent.body)).toEqual([{ dry: true }]);
  await user.click(dialog.getByRole('button', { name: 'Remove them' }));
  expect(await screen.findByText('5.00 MB in 3 files were removed.')).toBeVisible();
  expect(asked.map((a) => a.sent.body)).toEqual([{ dry: true }, {}]);
});

test('where nothing is old enough there is nothing to press but Close', async () => {
  const { user, asked } = await opened({ files: 0, bytes: 0 });
  await user.click(screen.getByRole('button', { name: 'Remove unused files' }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.queryByRole('button', { name: 'Remove them' })).toBeNull();
  await user.click(dialog.getAllByRole('button', { name: 'Close' })[0]);
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(asked).toHaveLength(1);
});

test('a part that is missing is said over every screen, with what that means', async () => {
  answering({ 'GET /api/health/ready': { ...READY, ready: false, workers: 0 } });
  const { user, address } = show(MissingBar, '/listings');
  expect(
    await screen.findByText(/^No worker is running: cutouts, recipes and deliveries wait/),
  ).toBeVisible();
  await user.click(screen.getByRole('link', { name: 'Look at the server' }));
  expect(address()).toBe('/server');
});

test('of what cannot be known while the database is away, nothing is said', () => {
  const away = missingOf({ ...READY, ready: false, database: false, queue: false, workers: 0 });
  expect(away).toEqual([expect.stringMatching(/^The database cannot be reached/)]);
  expect(missingOf(READY)).toEqual([]);
});
