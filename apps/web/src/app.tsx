import type { ComponentType } from 'react';
import {
  createBrowserRouter,
  Navigate,
  Outlet,
  RouterProvider,
  type RouteObject,
} from 'react-router';
import { FileDrop } from './files/file-drop.js';
import { FIRST_PLACE } from './places.js';
import { Failed, Loading, NotFound } from './records/states.js';
import { PAGES, PLACES, STATION } from './routes.js';
import { Notices } from './ui/notices.js';
import { Standing } from './ui/standing-notices.js';

function Root() {
  return (
    <Notices>
      <FileDrop>
        <Standing>
          <Outlet />
        </Standing>
      </FileDrop>
    </Notices>
  );
}

const pagesOf = (table: Readonly<Record<string, () => Promise<ComponentType>>>): RouteObject[] =>
  Object.entries(table).map(([path, load]) => ({
    path,
    lazy: async () => ({ Component: await load() }),
  }));

const router = createBrowserRouter([
  {
    element: <Root />,
    hydrateFallbackElement: <Loading message={null} />,
    errorElement: <Failed />,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      ...pagesOf(PAGES),
      {
        path: 'jobs/:job/stations/:station',
        lazy: async () => ({ Component: await STATION() }),
        children: [
          { index: true, element: <Navigate to={FIRST_PLACE} replace /> },
          ...pagesOf(PLACES),
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

export const App = () => <RouterProvider router={router} />;
