import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { layOut } from '../../../test/lay-out';
import { HASH, LISTING, MOMENT, TEAL, uuid } from '../../../test/listing';
import { show } from '../../../test/show';
import type { DeliveryCell, DeliveryDetail } from '../../api/client';
import { secondsLeft } from './delivery-head';
import { DeliveriesScreen } from './deliveries-screen';
import { DeliveryScreen } from './delivery-screen';
import { deliveryMark, deliveryText } from './delivery-state';
import { secondsText } from './seconds-text';

beforeEach(layOut);
const ID = uuid(51);
const delivery = (over: Partial<DeliveryDetail> = {}): DeliveryDetail => ({
  id: ID,
  listingId: LISTING,
  title: 'Planter, autumn',
  revision: 1,
  state: 'done',
  total: 3,
  made: 2,
  failed: 1,
  bytes: 4096,
  priority: 0,
  error: null,
  createdAt: MOMENT,
  finishedAt: MOMENT,
  groups: [
    { marketplace: 'Harbour Market', listing: 'Planter, autumn', n: 2 },
    { marketplace: 'Kestrel Market', listing: 'Planter, autumn', n: 1 },
  ],
  uploads: [],
  rates: null,
  ...over,
});
const cell = (n: number, over: Partial<DeliveryCell> = {}): DeliveryCell => ({
  n,
  listingId: LISTING,
  variantId: TEAL,
  listing: 'Planter, autumn',
  shotTitle: 'On white',
  variant: 'Teal',
  sku: 'MB-TE',
  marketplace: 'Harbour Market',
  slotKey: 'harbour/front',
  fileName: `harbour/MB-TE-front-${n}`,
  width: 1200,
  height: 900,
  state: 'done',
  format: 'jpeg',
  quality: 86,
  bytes: 2048,
  blob: HASH,
  checks: [
    { check: 'a', title: 'Margin', verdict: 'look', measured: '3 %', limit: '4 %', sentence: 'Near.' },
    { check: 'b', title: 'White', verdict: 'pass', measured: '1', limit: '1', sentence: '' },
  ],
  reason: null,
  ...over,
});

async function opened(data: DeliveryDetail, refuses = '') {
  const cells = [
    cell(0),
    cell(1, { checks: [{ ...cell(1).checks![0], waived: 'agreed' }, cell(1).checks![1]] }),
    cell(2, {
      state: 'failed',
      blob: null,
      checks: null,
      format: null,
      quality: null,
      bytes: null,
      reason: 'No format fits into 2 KB.',
    }),
  ];
  let stored = data;
  const asked = answering({
    'GET /api/deliveries/:id': () => stored,
    'GET /api/deliveries/:id/cells': ({ query }) => cells.slice(Number(query.from)),
    'POST /api/deliveries/:id/change': ({ body }) => {
      if (refuses) return refusal(refuses);
      if ((body as { act?: string }).act === 'pause') stored = { ...stored, state: 'paused' };
      return stored;
    },
    'POST /api/deliveries/:id/uploads': ({ body }) => {
      const upload = {
        id: uuid(60),
        deliveryId: ID,
        marketplace: (body as { marketplace: string }).marketplace,
        answers: [
          { file: 'a.jpg', slot: 'front', taken: true, says: 'taken' },
          { file: 'b.jpg', slot: 'view', taken: false, says: 'too large' },
        ],
        createdAt: MOMENT,
      };
      stored = { ...stored, uploads: [upload] };
      return upload;
    },
  });
  const shown = show(DeliveryScreen, '/deliveries/:id', `/deliveries/${ID}`);
  await screen.findByRole('heading', { name: 'Planter, autumn' });
  return { ...shown, asked };
}

test('times are told as people say them', () => {
  expect([0.4, 8.4, 89, 90, 600, 5400, 9000].map(secondsText)).toEqual([
    'no time',
    '8 s',
    '89 s',
    '2 min',
    '10 min',
    '1.5 h',
    '2.5 h',
  ]);
});

test('what is left is told by the pace so far, and only while it runs', () => {
  const started = Date.parse(MOMENT);
  const running = delivery({ state: 'running', total: 10, made: 4, failed: 0 });
  expect(secondsLeft(running, started + 8000)).toBeCloseTo(12);
  expect(secondsLeft({ ...running, made: 0 }, started + 8000)).toBeNull();
  expect(secondsLeft({ ...running, state: 'paused' }, started + 8000)).toBeNull();
  expect(secondsLeft({ ...running, made: 9, failed: 1 }, started + 8000)).toBeNull();
});

test('a state is a mark and words; an error is told in its own', () => {
  const of = (over: Partial<DeliveryDetail>) => {
    const d = delivery(over);
    return `${deliveryMark(d)}: ${deliveryText(d)}`;
  };
  expect(of({ state: 'queued' })).toBe('working: queued');
  expect(of({ state: 'running' })).toBe('working: painting, 3 of 3');
  expect(of({ state: 'paused' })).toBe('look: paused at 3 of 3');
  expect(of({ state: 'paused', error: 'The disk is full.' })).toBe('stop: The disk is full.');
  expect(of({ state: 'cancelled' })).toBe('missing: cancelled after 2 of 3');
  expect(of({ state: 'done' })).toBe('look: done, 1 could not be made');
  expect(of({ state: 'done', failed: 0 })).toBe('pass: done');
});

test('every picture says its file, its size and what the checks found', async () => {
  await opened(delivery());
  const rows = await screen.findAllByRole('row', { name: /MB-TE-front|No format/ });
  expect(rows).toHaveLength(3);
  expect(rows[0]).toHaveTextContent('MB-TE-front-0.jpg');
  expect(rows[0]).toHaveTextContent('margin 3 % (4 %)');
  expect(rows[0]).toHaveTextContent('2.0 KB q 86');
  expect(rows[1]).toHaveTextContent('1 pass, 1 waived');
  expect(rows[2]).toHaveTextContent('No format fits into 2 KB.');
  expect(within(rows[2]).queryByRole('link')).toBeNull();
});

test('one marketplace of it can be downloaded alone', async () => {
  const { user } = await opened(delivery());
  const link = () => screen.getByRole('link', { name: /Download ZIP/ });
  expect(link()).toHaveAttribute('href', `/api/deliveries/${ID}/zip`);
  expect(screen.getByRole('combobox', { name: 'What to download' })).toHaveTextContent('Whole delivery');
  await user.click(screen.getByRole('combobox', { name: 'What to download' }));
  expect(await screen.findAllByRole('option')).toHaveLength(3);
  await user.click(screen.getByRole('option', { name: 'Kestrel Market' }));
  expect(link()).toHaveAttribute('href', `/api/deliveries/${ID}/zip?marketplace=Kestrel%20Market`);
});

test('one that runs is paused and goes on; one that is done is not cancelled but tried again', async () => {
  const { user, asked } = await opened(delivery({ state: 'running', finishedAt: null, made: 1, failed: 0 }));
  expect(screen.queryByRole('button', { name: 'Try the failed again' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Pause' }));
  expect(await screen.findByRole('button', { name: 'Go on' })).toBeVisible();
  expect(screen.getByText('paused at 1 of 3')).toBeVisible();
  expect(asked.map((a) => a.sent.body)).toEqual([{ act: 'pause' }]);
});

test('a finished one offers its failed pictures again, and a refusal is told', async () => {
  const { user } = await opened(delivery(), 'This delivery was removed.');
  expect(screen.queryByRole('button', { name: 'Cancel' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Try the failed again' }));
  expect(await screen.findByText('This delivery was removed.')).toBeVisible();
});

test('a test upload tells which files were refused, and why', async () => {
  const { user } = await opened(delivery());
  const uploads = within(screen.getByRole('complementary', { name: 'Test uploads' }));
  await user.click(uploads.getAllByRole('button', { name: 'Send' })[0]);
  expect(await uploads.findByText('1 taken, 1 refused')).toBeVisible();
  expect(uploads.getByText('too large')).toBeVisible();
  expect(uploads.getByRole('button', { name: 'Send again' })).toBeEnabled();
});

test('deliveries are listed with how they stand; one without pictures has no ZIP', async () => {
  answering({
    'GET /api/deliveries': [
      delivery({ priority: 5, state: 'queued', made: 0, failed: 0 }),
      delivery({ id: uuid(52), title: 'Trowels', state: 'cancelled' }),
    ],
  });
  const { user, address } = show(DeliveriesScreen, '/deliveries');
  const first = await screen.findByRole('row', { name: /Planter/ });
  expect(first).toHaveTextContent('queued, high priority');
  const second = screen.getByRole('row', { name: /Trowels/ });
  expect(within(second).queryByRole('link', { name: /Download/ })).toBeNull();
  await user.click(within(second).getByText('2 of 3'));
  await waitFor(() => expect(address()).toBe(`/deliveries/${uuid(52)}`));
});
