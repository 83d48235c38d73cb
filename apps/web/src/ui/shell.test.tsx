import { expect, test } from '@jest/globals';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { placeLinks, SCREENS } from '../routes';
import { CommandMenu, suits, useActions } from './actions';
import { Places } from './places';
import { TopBar } from './top-bar';

function at(path: string) {
  const router = createMemoryRouter([{ path: '*', element: <TopBar /> }], {
    initialEntries: [path],
  });
  render(
    <Places value={placeLinks()}>
      <RouterProvider router={router} />
    </Places>,
  );
  return router;
}

test('every screen has a path and a title of its own', () => {
  expect(new Set(SCREENS.map((s) => s.path)).size).toBe(SCREENS.length);
  expect(new Set(SCREENS.map((s) => s.title)).size).toBe(SCREENS.length);
});

test('the bar names the places, marks where one is, and goes there', async () => {
  const router = at('/photos');
  const bar = screen.getByRole('navigation', { name: 'Places' });
  const names = within(bar)
    .getAllByRole('link')
    .map((a) => a.textContent);
  expect(names).toEqual(SCREENS.filter((s) => s.label).map((s) => s.label));
  expect(within(bar).getByRole('link', { name: 'Photos' })).toHaveAttribute('aria-current', 'page');
  await userEvent.click(within(bar).getByRole('link', { name: 'Spec sheets' }));
  expect(router.state.location.pathname).toBe('/spec-sheets');
});

test('places without an id can be found, those of one thing cannot', () => {
  const paths = placeLinks().map((p) => p.path);
  expect(paths).toContain('/photos/review');
  expect(paths.some((p) => p.includes(':'))).toBe(false);
});

test('an action is found by a part of its words and run from the keyboard; with none there are no results', async () => {
  let ran = 0;
  const actions = [
    { id: 'a', title: 'Go to Spec sheets (marketplaces, slots)', group: 'Go to', run: () => ran++ },
    { id: 'b', title: 'Fit the photo to the view', group: 'View', keys: 'F', run: () => undefined },
  ];
  function Offers() {
    useActions('test', actions);
    return <CommandMenu />;
  }
  render(<Offers />);
  await userEvent.keyboard('{Control>}k{/Control}');
  await userEvent.keyboard('market');
  expect(screen.getAllByRole('option')).toHaveLength(1);
  await userEvent.keyboard('{Enter}');
  expect(ran).toBe(1);
  expect(screen.queryByRole('dialog')).toBeNull();
  await userEvent.keyboard('{Control>}k{/Control}');
  await userEvent.keyboard('xyzzy');
  expect(screen.getByText('No results.')).toBeVisible();
});

test('what begins with the words comes before what has them somewhere', async () => {
  let ran = '';
  const action = (title: string, group: string) => ({ id: title, title, group, run: () => (ran = title) });
  const actions = [
    action('Go to Deliveries', 'Go to'),
    action('Deliver pictures of this listing', 'Listing'),
  ];
  function Offers() {
    useActions('test', actions);
    return (
      <>
        <button type="button">before</button>
        <CommandMenu />
      </>
    );
  }
  render(<Offers />);
  screen.getByRole('button', { name: 'before' }).focus();
  await userEvent.keyboard('{Control>}k{/Control}');
  await userEvent.keyboard('deliver');
  await userEvent.keyboard('{Enter}');
  expect(ran).toBe('Deliver pictures of this listing');
  // The keyboard goes on where it was.
  await waitFor(() => expect(screen.getByRole('button', { name: 'before' })).toHaveFocus());
});

test.each([
  ['Deliver pictures of this listing', 'deliver', 1],
  ['Go to Deliveries (exports, ZIP files)', 'deliver', 0.8],
  ['Go to Deliveries (exports, ZIP files)', 'zip go', 0.9],
  ['Undelivered', 'deliver', 0.4],
  ['Add to stage: Line', 'deliver', 0],
  ['Fit the photo', 'fit scene', 0],
  ['Straße freistellen', 'FREI', 0.8],
  ['Anything', '', 0],
])('"%s" is what "%s" asks for: %p', (action, typed, score) =>
  expect(suits(action, typed)).toBeCloseTo(score, 9),
);
