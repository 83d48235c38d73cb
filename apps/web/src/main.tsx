import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import './app.css';
import { screenRoutes } from './router';
import { placeLinks } from './routes';
import { Places } from './ui/places';

createRoot(document.getElementById('root')!).render(
  <Places value={placeLinks()}>
    <RouterProvider router={createBrowserRouter(screenRoutes())} />
  </Places>,
);
