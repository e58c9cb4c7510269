import { createBrowserRouter, Navigate, Outlet, RouterProvider } from 'react-router';
import { FileDrop } from './files/file-drop.js';
import { Notices } from './ui/notices.js';
import { Standing } from './ui/standing-notices.js';
import { Failed, Loading, NotFound } from './ui/states.js';

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

// Lists and stations load apart: a station opens without what only the lists need.
const list = () => import('./jobs/index.js');
const station = () => import('./station/index.js');
const view = () => import('./station/view/index.js');
const rigBar = () => import('./station/view/rig-bar.js');
const kept = () => import('./store/kept.js');
const cover = () => import('./station/cover/pages.js');
const focus = () => import('./station/focus/index.js');
const kit = () => import('./kit/index.js');
const rigs = () => import('./rigs/index.js');

/** What comes next from a job's list is fetched while the list is looked at. */
function fetchAhead(...parts: readonly (() => Promise<unknown>)[]): void {
  const LOOK_MS = 300;
  // Where it fails it is fetched, and the failure told, when it is wanted.
  setTimeout(() => parts.forEach((part) => void part().catch(() => undefined)), LOOK_MS);
}

const router = createBrowserRouter([
  {
    element: <Root />,
    hydrateFallbackElement: <Loading message={null} />,
    errorElement: <Failed />,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      { path: 'jobs', lazy: async () => ({ Component: (await list()).JobsPage }) },
      {
        path: 'jobs/:job',
        lazy: async () => {
          const { JobPage } = await list();
          fetchAhead(station, view, rigBar, kept);
          return { Component: JobPage };
        },
      },
      {
        path: 'jobs/:job/stations/:station',
        lazy: async () => ({ Component: (await station()).StationLayout }),
        children: [
          { index: true, element: <Navigate to="cover" replace /> },
          { path: 'view', lazy: async () => ({ Component: (await view()).SiteStep }) },
          { path: 'view/rig', lazy: async () => ({ Component: (await view()).RigStep }) },
          { path: 'cover', lazy: async () => ({ Component: (await station()).CoverStep }) },
          { path: 'cover/limits', lazy: async () => ({ Component: (await cover()).LimitsPage }) },
          { path: 'cover/turn-in', lazy: async () => ({ Component: (await cover()).TurnInPage }) },
          {
            path: 'cover/software',
            lazy: async () => ({ Component: (await cover()).SoftwarePage }),
          },
          {
            path: 'cover/variants',
            lazy: async () => ({ Component: (await cover()).VariantsPage }),
          },
          { path: 'focus', lazy: async () => ({ Component: (await focus()).FocusStep }) },
          { path: 'focus/stop', lazy: async () => ({ Component: (await focus()).StopPage }) },
          { path: 'focus/soft', lazy: async () => ({ Component: (await focus()).SoftPage }) },
          { path: 'focus/stack', lazy: async () => ({ Component: (await focus()).StackPage }) },
          { path: 'focus/bed', lazy: async () => ({ Component: (await focus()).BedPage }) },
          { path: 'focus/close', lazy: async () => ({ Component: (await focus()).ClosePage }) },
          {
            path: 'focus/held-off',
            lazy: async () => ({ Component: (await focus()).HeldOffPage }),
          },
        ],
      },
      { path: 'kit', lazy: async () => ({ Component: (await kit()).KitPage }) },
      { path: 'kit/import', lazy: async () => ({ Component: (await kit()).ImportPage }) },
      { path: 'kit/new/:kind', lazy: async () => ({ Component: (await kit()).NewItemPage }) },
      { path: 'kit/:item', lazy: async () => ({ Component: (await kit()).ItemPage }) },
      { path: 'rigs', lazy: async () => ({ Component: (await rigs()).RigsPage }) },
      { path: 'rigs/compare', lazy: async () => ({ Component: (await rigs()).ComparePage }) },
      { path: 'rigs/:rig', lazy: async () => ({ Component: (await rigs()).RigPage }) },
      { path: 'rigs/:rig/match', lazy: async () => ({ Component: (await rigs()).MatchPage }) },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

export const App = () => <RouterProvider router={router} />;
