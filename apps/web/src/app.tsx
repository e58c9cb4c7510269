import { createBrowserRouter, Navigate, Outlet, RouterProvider } from 'react-router';
import { FileDrop } from './files/file-drop.js';
import { Notices } from './ui/notices.js';
import { Failed, Loading, NotFound } from './ui/states.js';

function Root() {
  return (
    <Notices>
      <FileDrop>
        <Outlet />
      </FileDrop>
    </Notices>
  );
}

// Lists and stations load apart: a station opens without what only the lists need.
const list = () => import('./jobs/index.js');
const station = () => import('./station/index.js');

const router = createBrowserRouter([
  {
    element: <Root />,
    hydrateFallbackElement: <Loading message={null} />,
    errorElement: <Failed />,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      { path: 'jobs', lazy: async () => ({ Component: (await list()).JobsPage }) },
      { path: 'jobs/:job', lazy: async () => ({ Component: (await list()).JobPage }) },
      {
        path: 'jobs/:job/stations/:station',
        lazy: async () => ({ Component: (await station()).StationLayout }),
        children: [
          { index: true, element: <Navigate to="cover" replace /> },
          { path: 'view', lazy: async () => ({ Component: (await station()).ViewStep }) },
          { path: 'cover', lazy: async () => ({ Component: (await station()).CoverStep }) },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

export const App = () => <RouterProvider router={router} />;
