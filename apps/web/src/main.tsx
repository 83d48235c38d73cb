import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import './app.css';
import { placeLinks, SCREENS } from './routes';
import { Places } from './ui/places';
import { Shell } from './ui/shell';
import { NotFound, ScreenTrouble, Waiting } from './ui/states';

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <ScreenTrouble />,
    HydrateFallback: () => <Waiting what="the application" />,
    children: [
      { path: '/', element: <Navigate to="/listings" replace /> },
      ...SCREENS.map(({ path, title, load }) => ({
        path,
        handle: { title },
        // A screen that breaks, or cannot be fetched, leaves the bar and the others as they are.
        errorElement: <ScreenTrouble />,
        lazy: async () => ({ Component: await load() }),
      })),
      { path: '*', element: <NotFound /> },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <Places value={placeLinks()}>
    <RouterProvider router={router} />
  </Places>,
);
