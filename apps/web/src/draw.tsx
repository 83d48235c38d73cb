import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { screenRoutes } from './router';
import { placeLinks } from './routes';
import { Places } from './ui/places';

/** Draws the application into an element of the page. */
export function draw(root: HTMLElement) {
  createRoot(root).render(
    <Places value={placeLinks()}>
      <RouterProvider router={createBrowserRouter(screenRoutes())} />
    </Places>,
  );
}
