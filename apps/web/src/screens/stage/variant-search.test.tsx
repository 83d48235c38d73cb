import { beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { SWRConfig } from 'swr';
import { answering, refusal } from '../../../test/answering';
import { OCHRE, product, TEAL, uuid, variant } from '../../../test/listing';
import { VariantSearch } from './variant-search';

const PLANTER = product(uuid(2), 'Planter', [
  variant(TEAL, 'Teal'),
  variant(OCHRE, 'Ochre', { cutout: undefined }),
]);
const TROWEL = product(uuid(3), 'Trowel', [variant(uuid(4), '')], { pose: 'flat' });
const onPick = jest.fn();
const onClose = jest.fn();

function opened() {
  const asked: string[] = [];
  answering({
    'GET /api/products': ({ query }) => {
      asked.push(query.search);
      if (query.search === 'broken') return refusal('The list cannot be read.', 500);
      const found = [PLANTER, TROWEL].filter((p) =>
        p.title.toLowerCase().includes(query.search.toLowerCase()),
      );
      return { brand: null, total: found.length === 2 ? 120 : found.length, products: found };
    },
  });
  render(
    <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0, errorRetryCount: 0 }}>
      <VariantSearch title="Add another product" open onPick={onPick} onClose={onClose} />
    </SWRConfig>,
  );
  return { user: userEvent.setup(), asked };
}
const options = () => screen.getAllByRole('option').map((o) => o.textContent);

beforeEach(() => void jest.clearAllMocks());

test('every variant is listed by its name, with what it lacks, and how many more there are', async () => {
  opened();
  expect(await screen.findByText('118 more products. Write a part of the name.')).toBeVisible();
  expect(options()).toEqual(['Planter, TealMB-TE', 'Planter, Ochreno cutout yet', 'TrowelMB-']);
});

test('the server is asked for what is written, once it rests', async () => {
  const { user, asked } = opened();
  await screen.findByText(/more products/);
  await user.type(screen.getByRole('combobox'), 'trow');
  await waitFor(() => expect(options()).toEqual(['TrowelMB-']));
  expect(asked).toEqual(['', 'trow']);
});

test('Enter takes the first that is found, however late the answer comes', async () => {
  const { user } = opened();
  await screen.findByText(/more products/);
  await user.keyboard('trow');
  await waitFor(() => expect(options()).toEqual(['TrowelMB-']));
  await user.keyboard('{Enter}');
  expect(onPick).toHaveBeenCalledWith(expect.objectContaining({ title: 'Trowel' }));
});

test('by keyboard alone one is found and taken, with the way its product sits', async () => {
  const { user } = opened();
  await screen.findByText(/more products/);
  await user.keyboard('{ArrowDown}{ArrowDown}{Enter}');
  expect(onPick).toHaveBeenCalledWith(
    expect.objectContaining({ title: 'Trowel', pose: 'flat', productId: TROWEL.id }),
  );
  expect(onClose).toHaveBeenCalledTimes(1);
});

test('where nothing has the name that is said, and what goes wrong too', async () => {
  const { user } = opened();
  await screen.findByText(/more products/);
  await user.type(screen.getByRole('combobox'), 'zz');
  expect(await screen.findByText('No product has this name or SKU.')).toBeVisible();
  await user.clear(screen.getByRole('combobox'));
  await user.type(screen.getByRole('combobox'), 'broken');
  expect(await screen.findByText(/The list cannot be read/)).toBeVisible();
});
