import { Navigate, type LoaderFunctionArgs, type RouteObject } from 'react-router';
import { askAhead } from './api/client';
import { SCREENS, type ScreenRoute } from './routes';
import { Shell } from './ui/shell';
import { NotFound, ScreenTrouble, Waiting } from './ui/states';
import { TopBar } from './ui/top-bar';
import { msg } from './language/language';

/** The routes of the application: every screen within the shell, and within it what is shown when one breaks. */
export function screenRoutes(screens: readonly ScreenRoute[] = SCREENS): RouteObject[] {
  return [
    {
      element: <Shell />,
      errorElement: <ScreenTrouble />,
      HydrateFallback: () => (
        <>
          <TopBar />
          <Waiting what={msg('the screen')} />
        </>
      ),
      children: [
        {
          // Around the screens and not at each: a screen that cannot be fetched has no boundary of its own yet.
          errorElement: <ScreenTrouble />,
          children: [
            { path: '/', element: <Navigate to="/listings" replace /> },
            ...screens.map(({ path, title, load, needs = [] }) => ({
              path,
              handle: { title },
              lazy: async () => ({ Component: await load() }),
              loader({ params }: LoaderFunctionArgs) {
                for (const name of needs) askAhead(name, params);
                return null;
              },
              // When one comes to the screen, not when something changes on it.
              shouldRevalidate: () => false,
            })),
            { path: '*', element: <NotFound /> },
          ],
        },
      ],
    },
  ];
}
