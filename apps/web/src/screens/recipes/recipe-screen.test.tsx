import { beforeEach, expect, test } from '@jest/globals';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { http, HttpResponse } from 'msw';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { server } from '../../../test/server';
import type { RecipeDetail } from '../../api/client';
import { allUnsent, dropUnsent } from '../../documents/outbox';
import { RecipeScreen } from './recipe-screen';

const ID = '11111111-1111-4111-8111-111111111111';
const PLANTER = '22222222-2222-4222-8222-222222222222';
const TWINE = '33333333-3333-4333-8333-333333333333';
const history = { past: [], future: [] };

beforeEach(async () => {
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
});

/** The screen with a small recipe on a server that keeps it; gives what was asked, in order. */
async function opened({ down = false } = {}) {
  let recipe: RecipeDetail = {
    id: ID,
    title: 'White and done',
    steps: [
      { id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] },
      { id: 'white', kind: 'white', title: 'On white', after: ['cut'] },
    ],
    history,
    revision: 1,
    createdAt: '2026-11-01T10:00:00Z',
    products: [
      {
        productId: PLANTER,
        product: 'Planter',
        steps: {
          cut: {
            state: 'failed',
            made: {},
            says: 'No product stands off.',
            updatedAt: '2026-11-01T10:00:00Z',
          },
        },
      },
    ],
  };
  const asked: string[] = [];
  const estimate = { products: 1, steps: 2, unchanged: 0, cutouts: 1, pictures: 3, seconds: 12 };
  server.use(
    http.get('*/api/recipes/:id', () => HttpResponse.json(recipe)),
    http.get('*/api/products/titles', () =>
      HttpResponse.json([
        { id: PLANTER, title: 'Planter' },
        { id: TWINE, title: 'Twine' },
      ]),
    ),
    http.get('*/api/scenes', () => HttpResponse.json([])),
    http.get('*/api/spec-sheets', () => HttpResponse.json([])),
    http.get('*/api/templates', () => HttpResponse.json([])),
    http.post('*/api/recipes/:id/estimate', () => HttpResponse.json(estimate)),
    http.put('*/api/recipes/:id', async ({ request }) => {
      if (down) return HttpResponse.error();
      const { revision, ...sent } = (await request.json()) as RecipeDetail;
      recipe = { ...recipe, ...sent, revision: revision + 1 };
      asked.push(`stored ${recipe.steps.length} steps`);
      return HttpResponse.json(recipe);
    }),
    http.post('*/api/recipes/:id/run', async ({ request }) => {
      const { productIds } = (await request.json()) as { productIds: string[] };
      asked.push(`run for ${productIds.length}`);
      return HttpResponse.json({ ordered: productIds.length, unchanged: 0 });
    }),
  );
  const router = createMemoryRouter([{ path: '/recipes/:id', Component: RecipeScreen }], {
    initialEntries: [`/recipes/${ID}`],
  });
  render(
    <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0 }}>
      <RouterProvider router={router} />
    </SWRConfig>,
  );
  await screen.findByRole('list', { name: 'Steps' });
  return { user: userEvent.setup(), asked };
}
const steps = () =>
  within(screen.getByRole('list', { name: 'Steps' }))
    .getAllByRole('button')
    .map((b) => b.lastElementChild!.textContent);

test('results stand beside each product; the cost of those chosen is told', async () => {
  await opened();
  const row = screen.getByRole('row', { name: /Planter/ });
  expect(row).toHaveTextContent('No product stands off.');
  expect(within(row).getByText('not run')).toBeVisible();
  expect(await screen.findByText(/2 steps to run, 1 cutout, 3 pictures/)).toBeVisible();
});

test('a removed step is undone; what is run is what is on the screen', async () => {
  const { user, asked } = await opened();
  await user.click(screen.getByRole('button', { name: /On white/ }));
  await user.click(screen.getByRole('button', { name: 'Remove this step' }));
  expect(steps()).toEqual(['Cut out']);
  await user.click(screen.getByRole('button', { name: 'Undo: Remove On white' }));
  expect(steps()).toEqual(['Cut out', 'On white']);
  await user.click(screen.getByRole('button', { name: /Remove this step/ }));
  await user.click(screen.getByRole('checkbox', { name: 'Twine' }));
  await user.click(await screen.findByRole('button', { name: 'Run for 2 products' }));
  await waitFor(() => expect(asked.at(-1)).toBe('run for 2'));
  expect(asked.at(-2)).toMatch(/^stored 1 steps/);
});

test('with the server away nothing is run, and the change is kept and said', async () => {
  const { user, asked } = await opened({ down: true });
  const name = screen.getByLabelText('Name of the recipe');
  await user.clear(name);
  await user.type(name, 'White only{Enter}');
  await user.click(await screen.findByRole('button', { name: 'Run for 1 product' }));
  await waitFor(() => expect(screen.getByTestId('saving')).toHaveTextContent('not saved yet'));
  expect(asked).toEqual([]);
  expect((await allUnsent())[0].body.document).toMatchObject({ title: 'White only' });
  expect(screen.getByRole('button', { name: 'Try again' })).toBeVisible();
});

test('a step that has nothing to stand on is refused with a sentence', async () => {
  const { user } = await opened();
  await user.click(screen.getByRole('combobox', { name: 'Add a step' }));
  await user.click(await screen.findByRole('option', { name: 'Stage in a scene' }));
  expect(steps()).toEqual(['Cut out', 'On white']);
});
