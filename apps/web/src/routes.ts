import type { ComponentType } from 'react';
import type { PlacePath } from './places.js';

/**
 * What each place loads. Lists and stations load apart: a station opens without what only the lists
 * need. Files that belong together are one download.
 */
const list = () => import('./jobs/index.js');
const sheets = () => import('./jobs/sheets-page.js');
const log = () => import('./log/index.js');
const files = () => import('./log/files-page.js');
const begin = () => import('./begin/index.js');
const station = () => import('./station/index.js');
const view = () => import('./view/index.js');
const rigBar = () => import('./view/rig-bar.js');
const kept = () => import('./store/kept.js');
const frame = () => import('./cover/cover-step.js');
const cover = () => import('./cover/pages.js');
const focus = () => import('./focus/index.js');
const mosaic = () => import('./mosaic/index.js');
const exposure = () => import('./exposure/index.js');
const card = () => import('./card/index.js');
const words = () => import('./words/index.js');
const kit = () => import('./kit/index.js');
const rigs = () => import('./rigs/index.js');
const lens = () => import('./lens/index.js');

type Load = () => Promise<ComponentType>;

/** The places of an open station: each one in the table of places has a page. */
export const PLACES: Record<PlacePath, Load> = {
  view: async () => (await view()).SiteStep,
  'view/rig': async () => (await view()).RigStep,
  cover: async () => (await frame()).CoverStep,
  'cover/limits': async () => (await cover()).LimitsPage,
  'cover/turn-in': async () => (await cover()).TurnInPage,
  'cover/software': async () => (await cover()).SoftwarePage,
  'cover/variants': async () => (await cover()).VariantsPage,
  focus: async () => (await focus()).FocusStep,
  'focus/stop': async () => (await focus()).StopPage,
  'focus/soft': async () => (await focus()).SoftPage,
  'focus/stack': async () => (await focus()).StackPage,
  'focus/bed': async () => (await focus()).BedPage,
  'focus/close': async () => (await focus()).ClosePage,
  mosaic: async () => (await mosaic()).LayoutPage,
  'mosaic/wish': async () => (await mosaic()).WishPage,
  'mosaic/order': async () => (await mosaic()).OrderPage,
  'mosaic/schools': async () => (await mosaic()).SchoolsPage,
  'mosaic/prove': async () => (await import('./mosaic/prove-page.js')).ProvePage,
  expose: async () => (await exposure()).TimePage,
  'expose/bellows': async () => (await exposure()).BellowsPage,
  'expose/tapes': async () => (await exposure()).TapesPage,
  card: async () => (await card()).CardPage,
  'card/paper': async () => (await card()).PaperPage,
  'focus/held-off': async () => (await focus()).HeldOffPage,
};

export const STATION: Load = async () => {
  const [{ StationLayout }] = await Promise.all([station(), frame()]);
  return StationLayout;
};

/** Pages outside a station. */
export const PAGES: Record<string, Load> = {
  jobs: async () => (await list()).JobsPage,
  'jobs/take-in': async () => (await import('./jobs/take-in-page.js')).TakeInPage,
  'jobs/:job': async () => {
    const { JobPage } = await list();
    fetchAhead(station, frame, view, rigBar, kept);
    return JobPage;
  },
  'jobs/:job/sheets': async () => (await sheets()).SheetsPage,
  'jobs/:job/log': async () => (await log()).LogPage,
  'jobs/:job/log/table': async () => (await import('./log/table-page.js')).TablePage,
  'jobs/:job/files': async () => (await files()).FilesPage,
  begin: async () => (await begin()).OwnLensPage,
  words: async () => (await words()).WordsPage,
  kit: async () => (await kit()).KitPage,
  'kit/import': async () => (await kit()).ImportPage,
  'kit/new/:kind': async () => (await kit()).NewItemPage,
  'kit/:item': async () => (await kit()).ItemPage,
  lenses: async () => (await lens()).LensesPage,
  'lenses/beside': async () => (await lens()).BesidePage,
  'lenses/:item': async () => (await lens()).LensPage,
  'lenses/:item/:method': async () => (await lens()).MethodPage,
  rigs: async () => (await rigs()).RigsPage,
  'rigs/compare': async () => (await rigs()).ComparePage,
  'rigs/:rig': async () => (await rigs()).RigPage,
  'rigs/:rig/match': async () => (await rigs()).MatchPage,
};

/** What comes next from a job's list is fetched while the list is looked at. */
function fetchAhead(...parts: readonly (() => Promise<unknown>)[]): void {
  const LOOK_MS = 300;
  // Where it fails it is fetched, and the failure told, when it is wanted.
  setTimeout(() => parts.forEach((part) => void part().catch(() => undefined)), LOOK_MS);
}
