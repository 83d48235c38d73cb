import { expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { listing, OCHRE, ON_SHELF, TEAL, uuid } from '../../../test/listing';
import { show } from '../../../test/show';
import type { DeliveryEstimate } from '../../api/client';
import { DeliverDialog } from './deliver-dialog';

const DELIVERY = uuid(51);
const estimate = (over: Partial<DeliveryEstimate> = {}): DeliveryEstimate => ({
  pictures: 2,
  toPaint: 1,
  unchanged: 1,
  missing: 0,
  seconds: 8.4,
  bytes: 2048,
  names: ['MB-TE-front.jpg', 'MB-OC-front.jpg'],
  clashes: 0,
  doubtful: 0,
  ...over,
});
interface Body {
  slots: string[];
  variants: string[];
  which: string;
  priority: number;
}

async function opened({
  chosen = undefined as { variantId: string; slotKey: string }[] | undefined,
  answers = (_: Body): DeliveryEstimate | Promise<DeliveryEstimate> => estimate(),
  before = undefined as (() => Promise<void>) | undefined,
  refuses = '',
} = {}) {
  const detail = listing({
    cellFeeds: [{ variantId: OCHRE, slotKey: 'kestrel/main', shotId: ON_SHELF }],
  });
  const asked = answering({
    'POST /api/listings/:id/deliveries/estimate': ({ body }) => answers(body as Body),
    'POST /api/listings/:id/deliveries': () => (refuses ? refusal(refuses) : ({ id: DELIVERY } as never)),
  });
  const onClose = jest.fn();
  const Shown = () => <DeliverDialog detail={detail} chosen={chosen} before={before} onClose={onClose} />;
  const shown = show(Shown, '/x');
  await screen.findByRole('dialog', { name: 'Deliver Planter, autumn' });
  const last = () => asked.at(-1)!.sent.body as Body;
  return { ...shown, asked, last, onClose };
}
const box = (name: RegExp | string) => screen.getByRole('checkbox', { name });

test('everything that is filled is taken; what nothing fills cannot be', async () => {
  const { last } = await opened();
  expect(await screen.findByRole('button', { name: 'Deliver 2 pictures' })).toBeEnabled();
  expect(last()).toEqual({
    slots: ['harbour/front', 'kestrel/main'],
    variants: [TEAL, OCHRE],
    which: 'all',
    priority: 0,
  });
  expect(box(/View/)).toBeDisabled();
  expect(box(/View/).closest('label')).toHaveTextContent('missing');
  expect(screen.getByText('1 of 2')).toBeVisible();
  expect(screen.getByText('8 s')).toBeVisible();
});

test('cells chosen on the board stand for their slots and variants', async () => {
  const { last } = await opened({ chosen: [{ variantId: TEAL, slotKey: 'harbour/front' }] });
  await screen.findByRole('button', { name: 'Deliver 2 pictures' });
  expect(last()).toMatchObject({ slots: ['harbour/front'], variants: [TEAL] });
  expect(box(/Teal/)).toBeChecked();
  expect(box(/Ochre/)).not.toBeChecked();
});

test('with nothing chosen nothing can be delivered, and no cost of another choice stays', async () => {
  // The second time the same is asked, no answer comes.
  let held = false;
  const { user, asked } = await opened({
    answers: () => (held ? new Promise<never>(() => undefined) : estimate()),
  });
  await screen.findByRole('button', { name: 'Deliver 2 pictures' });
  held = true;
  await user.click(box(/^Variants/));
  await user.click(box(/^Variants/));
  expect(screen.getByRole('button', { name: 'Deliver 0 pictures' })).toBeDisabled();
  expect(screen.getByText('measuring')).toBeVisible();
  await user.click(box(/Teal/));
  await user.click(box(/Ochre/));
  const before = asked.length;
  expect(screen.getByText('nothing chosen')).toBeVisible();
  await new Promise((r) => setTimeout(r, 300));
  expect(asked).toHaveLength(before);
});

test('what is not known of the cost is not guessed, and missing pictures are counted', async () => {
  await opened({ answers: () => estimate({ seconds: null, bytes: null, missing: 3, pictures: 1 }) });
  expect(await screen.findByText('no time known yet')).toBeVisible();
  expect(screen.getByText('no size known yet')).toBeVisible();
  expect(screen.getByText('missing, left out').nextSibling).toHaveTextContent('3');
  expect(screen.getByRole('button', { name: 'Deliver 1 picture' })).toBeEnabled();
});

test('pictures with a cutout that nobody has looked at are told, with the way to look', async () => {
  await opened({ answers: () => estimate({ doubtful: 1 }) });
  expect(await screen.findByText(/1 picture shows an automatic cutout that may be wrong/)).toBeVisible();
  expect(screen.getByRole('link', { name: 'Look at the cutouts' })).toHaveAttribute('href', '/photos/review');
  expect(screen.getByRole('button', { name: 'Deliver 2 pictures' })).toBeEnabled();
});

test('without doubt nothing is said of cutouts', async () => {
  await opened();
  await screen.findByRole('button', { name: 'Deliver 2 pictures' });
  expect(screen.queryByRole('link', { name: 'Look at the cutouts' })).toBeNull();
});

test('files that would have one name are told before', async () => {
  await opened({ answers: () => estimate({ clashes: 1 }) });
  expect(await screen.findByText(/1 file would have the name of another and gets a number/)).toBeVisible();
});

test('a marketplace is taken whole or left out whole', async () => {
  const { user, last } = await opened();
  await user.click(box('Harbour Market'));
  await waitFor(() => expect(last().slots).toEqual(['kestrel/main']));
  await user.click(box('Harbour Market'));
  await waitFor(() => expect(last().slots).toEqual(['kestrel/main', 'harbour/front']));
});

test('a delivery is ordered with its priority, and opened', async () => {
  const { user, last, address } = await opened();
  await user.click(screen.getByRole('combobox', { name: 'Priority' }));
  await user.click(await screen.findByRole('option', { name: 'High' }));
  await user.click(screen.getByRole('radio', { name: 'New and changed' }));
  await waitFor(() => expect(last()).toMatchObject({ which: 'changed', priority: 5 }));
  await user.click(await screen.findByRole('button', { name: 'Deliver 2 pictures' }));
  await waitFor(() => expect(address()).toBe(`/deliveries/${DELIVERY}`));
  expect(last()).toMatchObject({ which: 'changed', priority: 5 });
});

test('what is not stored yet is stored first; where that fails, nothing is ordered', async () => {
  const before = jest.fn(() => Promise.reject(new Error('The shot could not be stored.')));
  const { asked } = await opened({ before });
  const dialog = within(screen.getByRole('dialog'));
  expect(await dialog.findByRole('alert')).toHaveTextContent('The shot could not be stored.');
  expect(dialog.getByRole('button', { name: 'Deliver 0 pictures' })).toBeDisabled();
  expect(asked).toEqual([]);
});

test('a refused order is told in the dialog and can be tried again', async () => {
  const { user } = await opened({ refuses: 'The disk is full.' });
  await user.click(await screen.findByRole('button', { name: 'Deliver 2 pictures' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('The disk is full.');
  expect(screen.getByRole('button', { name: 'Deliver 2 pictures' })).toBeEnabled();
});
