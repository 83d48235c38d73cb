import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { HASH, listing, MOMENT, PRODUCT, SHEET, OTHER_SHEET, uuid } from '../../../test/listing';
import { photo } from '../../../test/photos';
import { show } from '../../../test/show';
import type { ListingSummary } from '../../api/client';
import { ListingsScreen } from './listings-screen';
import { NewListing } from './new-listing';

const summary = (n: number, title: string, over: Partial<ListingSummary> = {}): ListingSummary => ({
  id: uuid(n),
  title,
  createdAt: MOMENT,
  sheets: ['harbour'],
  productId: PRODUCT,
  product: 'Planter',
  variants: 3,
  cutouts: [HASH],
  slots: 8,
  missing: 2,
  shots: 2,
  revision: 1,
  ...over,
});

async function opened(listings = [summary(1, 'Autumn planters'), summary(2, 'Twine', { missing: 0 })]) {
  const searched: string[] = [];
  const removed: ListingSummary[] = [];
  const asked = answering({
    'GET /api/listings': ({ query }) => {
      searched.push(query.search);
      return listings.filter((l) => l.title.toLowerCase().includes(query.search));
    },
    'POST /api/deliveries/estimate': ({ body }) => {
      const { listingIds } = body as { listingIds: string[] };
      const n = listingIds.length * 4;
      return {
        pictures: n,
        toPaint: 1,
        unchanged: n - 1,
        missing: 0,
        seconds: null,
        bytes: null,
        names: [],
        clashes: 0,
        doubtful: 0,
      };
    },
    'POST /api/deliveries': () => ({ id: uuid(70) }) as never,
    'DELETE /api/listings/:id': ({ params }) => {
      removed.push(
        ...listings.splice(
          listings.findIndex((l) => l.id === params.id),
          1,
        ),
      );
      return { removed: params.id };
    },
    'POST /api/bin/:thing/restore': ({ params }) => {
      listings.push(...removed.splice(0));
      return { restored: params.thing, kind: 'listing' };
    },
  });
  const shown = show(ListingsScreen, '/listings');
  await screen.findByRole('table');
  return { ...shown, searched, asked };
}
const row = (name: RegExp) => screen.getByRole('row', { name });

test('each listing says how far it is filled', async () => {
  await opened();
  expect(row(/Autumn planters/)).toHaveTextContent('6 of 8');
  expect(row(/Autumn planters/)).toHaveTextContent('2 slots missing');
  expect(row(/Autumn planters/)).toHaveTextContent('+2');
  expect(row(/Twine/)).toHaveTextContent('every slot filled');
});

test('a row leads to the board; its box does not', async () => {
  const { user, address } = await opened();
  await user.click(screen.getByRole('checkbox', { name: 'Choose Twine' }));
  expect(address()).toBe('/listings');
  await user.click(within(row(/Twine/)).getByText('8 of 8'));
  await waitFor(() => expect(address()).toBe(`/listings/${uuid(2)}`));
});

test('several are delivered at once, and the cost is told before', async () => {
  const { user, asked, address } = await opened();
  await user.click(screen.getByRole('checkbox', { name: 'Choose all listings' }));
  await user.click(screen.getByRole('button', { name: 'Deliver 2 listings' }));
  const dialog = within(screen.getByRole('dialog', { name: 'Deliver 2 listings' }));
  expect(await dialog.findByText('1 of 8 to be painted; 0 missing and left out.')).toBeVisible();
  await user.click(dialog.getByRole('button', { name: 'Deliver 8 pictures' }));
  await waitFor(() => expect(address()).toBe(`/deliveries/${uuid(70)}`));
  expect(asked.at(-1)!.sent.body).toMatchObject({ listingIds: [uuid(1), uuid(2)], which: 'changed' });
});

test('a listing that a search hides is not delivered with the others', async () => {
  const { user } = await opened();
  await user.click(screen.getByRole('checkbox', { name: 'Choose all listings' }));
  await user.type(screen.getByRole('searchbox', { name: 'Find listings' }), 'twine');
  expect(await screen.findByRole('button', { name: 'Deliver 1 listing' })).toBeVisible();
});

test('nothing found is said otherwise than nothing there', async () => {
  const { user } = await opened();
  await user.type(screen.getByRole('searchbox', { name: 'Find listings' }), 'zzz');
  expect(await screen.findByText('No listing is named so.')).toBeVisible();
});

async function starting(refuses = '') {
  const asked = answering({
    'GET /api/scenes': [],
    'GET /api/spec-sheets': [SHEET, OTHER_SHEET] as never,
    'POST /api/listings': () => (refuses ? refusal(refuses, 422) : (listing() as never)),
  });
  const photos = [photo(uuid(31), 'soil_scoop-2.jpg'), photo(uuid(32), 'other.jpg')];
  const shown = show(() => <NewListing photos={photos} onClose={() => undefined} />, '/x');
  await screen.findByRole('checkbox', { name: /Kestrel Market/ });
  return { ...shown, asked };
}

test('a listing is started from photos; its name is read from the first file', async () => {
  const { user, asked } = await starting();
  expect(screen.getByLabelText('What is it called?')).toHaveValue('Soil scoop 2');
  await user.click(screen.getByRole('checkbox', { name: /Kestrel Market/ }));
  await user.click(screen.getByRole('button', { name: 'Start the listing' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toEqual({
    photoIds: [uuid(31), uuid(32)],
    title: 'Soil scoop 2',
    sheets: ['harbour'],
  });
});

test('without a marketplace or a name it cannot start; a refusal stays beside what was chosen', async () => {
  const { user } = await starting('A photo was removed meanwhile.');
  for (const name of [/Kestrel Market/, /Harbour Market/])
    await user.click(screen.getByRole('checkbox', { name }));
  expect(screen.getByRole('button', { name: 'Start the listing' })).toBeDisabled();
  await user.click(screen.getByRole('checkbox', { name: /Harbour Market/ }));
  await user.click(screen.getByRole('button', { name: 'Start the listing' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('A photo was removed meanwhile.');
  expect(screen.getByRole('checkbox', { name: /Kestrel Market/ })).not.toBeChecked();
});

test('on an empty installation a spec sheet of usual sizes is offered, and the listing can start', async () => {
  let sheets: unknown[] = [];
  const asked = answering({
    'GET /api/scenes': [],
    'GET /api/spec-sheets': () => sheets as never,
    'POST /api/spec-sheets': () => {
      sheets = [SHEET];
      return SHEET;
    },
    'POST /api/listings': () => listing() as never,
  });
  const { user } = show(
    () => <NewListing photos={[photo(uuid(31), 'stool.jpg')]} onClose={() => undefined} />,
    '/x',
  );
  expect(await screen.findByText(/There is no scene in the library yet/)).toBeVisible();
  expect(screen.getByRole('button', { name: 'Start the listing' })).toBeDisabled();
  await user.click(await screen.findByRole('button', { name: 'Add one of usual sizes' }));
  expect(await screen.findByRole('checkbox', { name: /Harbour Market|Kestrel Market/ })).toBeChecked();
  expect(screen.queryByRole('button', { name: 'Add one of usual sizes' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Start the listing' }));
  await waitFor(() => expect(asked.map((a) => a.name)).toContain('POST /api/listings'));
  expect(asked[0].sent.body).toMatchObject({ marketplace: 'My shop' });
});

test('a listing is removed without leaving the list, and brought back from the notice', async () => {
  const { user, address } = await opened();
  await user.click(screen.getByRole('button', { name: 'Remove Twine' }));
  await waitFor(() => expect(screen.queryByRole('row', { name: /Twine/ })).toBeNull());
  expect(address()).toBe('/listings');
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  expect(await screen.findByRole('row', { name: /Twine/ })).toBeVisible();
});
