import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { address } from '@scenograph/contract';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { screenRoutes } from './router';
import { SCREENS, type ScreenRoute } from './routes';
import { SWRConfig } from 'swr';
import { answering } from '../test/answering';
import { askAhead, call, useRoute } from './api/client';
import { Places } from './ui/places';
import { TopBar } from './ui/top-bar';

/** jsdom has no server-sent events; the shell only listens. */
class Silence extends EventTarget {
  close() {}
}

const { error } = console;
beforeEach(() => {
  Object.assign(window, { EventSource: Silence });
  // React and the router report what they caught.
  console.error = () => undefined;
});
afterEach(() => {
  console.error = error;
});

function Fine() {
  return (
    <>
      <TopBar />
      <p>all is well</p>
    </>
  );
}
function Broken(): never {
  throw new Error('The shot has no frame.');
}

const screens: ScreenRoute[] = [
  { path: '/fine', title: 'Fine', label: 'Fine', load: () => Promise.resolve(Fine) },
  { path: '/broken', title: 'Broken', label: 'Broken', load: () => Promise.resolve(Broken) },
  {
    path: '/gone',
    title: 'Gone',
    label: 'Gone',
    load: () => Promise.reject(new TypeError('Failed to fetch dynamically imported module: x.js')),
  },
];

function at(path: string) {
  const links = screens.map(({ path: to, title, label = '' }) => ({ path: to, title, label }));
  const router = createMemoryRouter(screenRoutes(screens), { initialEntries: [path] });
  render(
    <Places value={links}>
      <RouterProvider router={router} />
    </Places>,
  );
}

test('a screen is loaded when it is gone to, and names the browser’s tab', async () => {
  at('/fine');
  expect(await screen.findByText('all is well')).toBeVisible();
  expect(document.title).toBe('Fine - Scenograph');
});

test.each([
  ['Gone', /The server cannot be reached/],
  ['Broken', /The shot has no frame/],
])('a screen that is %s says so within the shell, and another can be gone to', async (name, said) => {
  at('/fine');
  // The bar is there before the screen is, and is made anew with it.
  await screen.findByText('all is well');
  await userEvent.click(screen.getByRole('link', { name }));
  expect(await screen.findByRole('alert')).toHaveTextContent(said);
  expect(screen.getByRole('button', { name: 'Try again' })).toBeVisible();
  await userEvent.click(screen.getByRole('link', { name: 'Fine' }));
  expect(await screen.findByText('all is well')).toBeVisible();
  expect(screen.queryByRole('alert')).toBeNull();
});

function Photos() {
  const { data } = useRoute('GET /api/photos');
  return <p>{data ? 'photos are there' : 'on their way'}</p>;
}

function countingPhotos() {
  const asked = { times: 0 };
  answering({
    'GET /api/photos': () => {
      asked.times++;
      return [];
    },
    'POST /api/photos/cutouts': { queued: 0 },
  });
  return asked;
}

test('what a screen needs is asked for while its code is on its way, and once', async () => {
  const asked = countingPhotos();
  let arrive = (_: typeof Photos) => undefined as void;
  screens.push({
    ...{ path: '/photos', title: 'Photos', label: 'Photos', needs: ['GET /api/photos'] },
    load: () => new Promise((resolve) => (arrive = resolve)),
  });
  at('/photos');
  await waitFor(() => expect(asked.times).toBe(1));
  arrive(Photos);
  expect(await screen.findByText('photos are there')).toBeVisible();
  expect(asked.times).toBe(1);
  screens.pop();
});

test('what was asked ahead is not taken once something has been changed', async () => {
  const asked = countingPhotos();
  askAhead('GET /api/photos', {});
  await call('POST /api/photos/cutouts', { body: { ids: [] } });
  render(
    <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0 }}>
      <Photos />
    </SWRConfig>,
  );
  expect(await screen.findByText('photos are there')).toBeVisible();
  expect(asked.times).toBe(2);
});

test('every screen asks ahead only for what its path names', () => {
  for (const { path, needs = [] } of SCREENS) {
    const known = Object.fromEntries(Array.from(path.matchAll(/:(\w+)/g), ([, name]) => [name, 'x']));
    for (const name of needs) expect(address(name, known)).not.toMatch(/:|undefined/);
  }
});

test('an address without a screen says so', async () => {
  at('/nowhere');
  expect(await screen.findByText('There is nothing at this address')).toBeVisible();
});
