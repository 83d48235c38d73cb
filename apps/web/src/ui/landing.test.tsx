import { beforeEach, expect, test } from '@jest/globals';
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { createMemoryRouter, Link, Outlet, RouterProvider } from 'react-router';
import { SkipLink, useLanding } from './landing';

function Frame() {
  useLanding();
  return (
    <>
      <SkipLink />
      <nav>
        <input aria-label="Find" />
        <Link to="/photos">Photos</Link>
        <Link to="/late">Late</Link>
        <Link to="/typed">Typed</Link>
        <Link to="/listings?sort=name">Sorted</Link>
      </nav>
      <Outlet />
    </>
  );
}
let arrive: () => void;
/** A screen whose data come later. */
function Late() {
  const [here, setHere] = useState(false);
  arrive = () => setHere(true);
  return here ? <main aria-label="late">Here at last</main> : <p>waiting</p>;
}

beforeEach(() => {
  const router = createMemoryRouter(
    [
      {
        element: <Frame />,
        children: [
          { path: '/listings', element: <main aria-label="listings">Listings</main> },
          { path: '/photos', element: <main aria-label="photos">Photos</main> },
          { path: '/late', element: <Late /> },
          {
            path: '/typed',
            element: (
              <main aria-label="typed">
                <input aria-label="Name" autoFocus />
              </main>
            ),
          },
        ],
      },
    ],
    { initialEntries: ['/listings'] },
  );
  render(<RouterProvider router={router} />);
});

test('the first screen leaves the focus where the browser has it', () => {
  expect(document.body).toHaveFocus();
});

test('the first Tab is past the bar, to the content', async () => {
  const user = userEvent.setup();
  await user.tab();
  expect(screen.getByRole('button', { name: 'Skip to the content' })).toHaveFocus();
  await user.keyboard('{Enter}');
  expect(screen.getByRole('main')).toHaveFocus();
});

test('on another screen the keyboard goes on in its content', async () => {
  await userEvent.click(screen.getByRole('link', { name: 'Photos' }));
  await waitFor(() => expect(screen.getByRole('main', { name: 'photos' })).toHaveFocus());
});

test('content that comes late is waited for', async () => {
  await userEvent.click(screen.getByRole('link', { name: 'Late' }));
  expect(screen.queryByRole('main')).toBeNull();
  act(() => arrive());
  await waitFor(() => expect(screen.getByRole('main', { name: 'late' })).toHaveFocus());
});

test('who has begun to write meanwhile is not interrupted', async () => {
  await userEvent.click(screen.getByRole('link', { name: 'Late' }));
  await userEvent.click(screen.getByRole('textbox', { name: 'Find' }));
  act(() => arrive());
  await new Promise((r) => setTimeout(r, 50));
  expect(screen.getByRole('textbox', { name: 'Find' })).toHaveFocus();
});

test('a field that has the focus there keeps it', async () => {
  await userEvent.click(screen.getByRole('link', { name: 'Typed' }));
  await waitFor(() => expect(screen.getByRole('textbox', { name: 'Name' })).toHaveFocus());
  await new Promise((r) => setTimeout(r, 50));
  expect(screen.getByRole('textbox', { name: 'Name' })).toHaveFocus();
});

test('another search of the same screen moves nothing', async () => {
  await userEvent.click(screen.getByRole('link', { name: 'Sorted' }));
  await new Promise((r) => setTimeout(r, 50));
  expect(screen.getByRole('main')).not.toHaveFocus();
});
