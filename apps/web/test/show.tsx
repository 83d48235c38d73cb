import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ComponentType } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { Notices } from '../src/ui/notices';

/** Shows a screen at an address, with notices under it; gives the person who uses it. */
export function show(Screen: ComponentType, path: string, at = path) {
  const router = createMemoryRouter(
    [
      { path, Component: Screen },
      { path: '*', element: <p>elsewhere</p> },
    ],
    { initialEntries: [at] },
  );
  render(
    <SWRConfig value={{ dedupingInterval: 0, errorRetryCount: 0 }}>
      <RouterProvider router={router} />
      <Notices />
    </SWRConfig>,
  );
  const address = () => router.state.location.pathname + router.state.location.search;
  return { user: userEvent.setup(), address };
}
