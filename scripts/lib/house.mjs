/**
 * Who may import whom. Each folder names the folders below it that it may use; files within a
 * folder may use each other as long as no circle arises. Types count as imports.
 */

/** packages/station/src, from the ground up. */
const STATION = {
  document: [],
  words: ['document'],
  optical: ['document', 'words'],
  controls: ['document', 'words', 'optical'],
  ways: ['document', 'words', 'optical', 'controls'],
  scene: ['document', 'words', 'optical'],
  rig: ['document', 'words', 'optical'],
  kit: ['document', 'words', 'optical', 'ways', 'rig'],
  mosaic: ['document', 'words', 'optical'],
  exposure: ['document', 'words', 'optical', 'rig', 'kit', 'mosaic'],
  facade: ['document', 'words', 'optical', 'ways', 'rig', 'kit', 'mosaic'],
  cover: ['document', 'words', 'optical', 'controls', 'ways', 'facade'],
  focus: ['document', 'words', 'optical', 'controls', 'ways', 'scene'],
  report: ['document', 'words', 'optical', 'rig', 'mosaic', 'exposure', 'facade', 'cover', 'focus'],
  explain: [
    ...['document', 'words', 'optical', 'mosaic', 'exposure', 'facade', 'cover', 'focus'],
    'report',
  ],
  orders: ['document', 'words', 'optical', 'mosaic', 'exposure', 'focus', 'report'],
  card: [
    ...['document', 'words', 'optical', 'scene', 'rig', 'kit', 'mosaic', 'exposure', 'focus'],
    ...['report', 'orders'],
  ],
  job: ['document', 'words', 'optical', 'rig', 'kit', 'mosaic'],
  lens: ['document', 'words', 'optical', 'ways', 'rig', 'kit'],
  log: [
    ...['document', 'words', 'optical', 'kit', 'mosaic', 'exposure', 'report', 'orders', 'card'],
    'job',
  ],
  compare: ['document', 'words', 'optical', 'rig', 'kit', 'report'],
};

/** packages/frames/src, from the ground up. */
const FRAMES = {
  numbers: [],
  planes: ['numbers'],
  prove: ['numbers', 'planes'],
  preview: ['numbers', 'planes', 'prove'],
  lens: ['numbers', 'planes', 'prove'],
};

/** apps/web/src; the table of places may be read from anywhere, app, main and routes from nowhere. */
const WEB = {
  browser: [],
  ui: ['browser'],
  records: ['browser', 'ui'],
  store: ['browser', 'records'],
  files: ['browser', 'ui', 'records'],
  fields: ['browser', 'ui', 'store', 'words'],
  pictures: ['browser', 'files'],
  drawing: ['browser', 'ui', 'store'],
  workers: ['browser', 'drawing'],
  pages: ['browser', 'ui', 'records', 'store', 'files'],
  words: ['browser', 'ui', 'pages'],
  station: [
    ...['browser', 'ui', 'records', 'store', 'files', 'fields', 'drawing', 'workers', 'pages'],
    'words',
  ],
  begin: ['browser', 'ui', 'records', 'store', 'fields', 'drawing', 'pages', 'words'],
  log: ['browser', 'ui', 'records', 'store', 'files', 'drawing', 'workers', 'pages', 'kit'],
  jobs: ['browser', 'ui', 'records', 'store', 'files', 'drawing', 'pages', 'begin'],
  lens: [
    ...['browser', 'ui', 'records', 'store', 'files', 'pictures', 'fields', 'drawing', 'workers'],
    ...['pages', 'words'],
  ],
  kit: [
    'browser',
    'ui',
    'records',
    'store',
    'files',
    'fields',
    'drawing',
    'workers',
    'pages',
    'words',
  ],
  rigs: [
    'browser',
    'ui',
    'records',
    'store',
    'files',
    'fields',
    'drawing',
    'pages',
    'begin',
    'words',
  ],
  cover: [
    'browser',
    'ui',
    'records',
    'store',
    'files',
    'fields',
    'drawing',
    'workers',
    'station',
    'words',
  ],
  focus: ['browser', 'ui', 'records', 'store', 'fields', 'drawing', 'workers', 'station', 'words'],
  mosaic: [
    ...['browser', 'ui', 'records', 'store', 'files', 'pictures', 'fields', 'drawing', 'workers'],
    ...['station', 'words'],
  ],
  view: ['browser', 'ui', 'records', 'store', 'fields', 'drawing', 'station', 'rigs', 'words'],
  card: [
    ...['browser', 'ui', 'records', 'store', 'files', 'fields', 'drawing', 'station', 'words'],
    'log',
  ],
  exposure: [
    ...['browser', 'ui', 'records', 'store', 'files', 'fields', 'drawing', 'station', 'rigs'],
    'words',
  ],
};

/** Folders of each package that has them. */
export const HOUSE = {
  'packages/frames/src': FRAMES,
  'packages/station/src': STATION,
  'apps/web/src': WEB,
};

const escaped = (path) => path.replaceAll('.', '\\.').replaceAll('/', '\\/');

function folderRules([root, folders]) {
  const known = Object.keys(folders).join('|');
  return [
    {
      name: `${root}: every folder is in the table`,
      severity: 'error',
      from: { path: `^${escaped(root)}\\/(?!(${known})\\/)[^/]+\\/` },
      to: {},
    },
    ...Object.entries(folders).map(([folder, below]) => ({
      name: `${root}/${folder} imports only what is below it`,
      severity: 'error',
      from: { path: `^${escaped(root)}\\/${folder}\\/` },
      to: {
        path: `^${escaped(root)}\\/`,
        pathNot: `^${escaped(root)}\\/(${[folder, ...below].join('|')})\\/|^${escaped(root)}\\/places\\.ts$`,
      },
    })),
  ];
}

/** @param {Record<string, Record<string, string[]>>} house folders of each package: what each may import */
export const houseRules = (house = HOUSE) => [
  { name: 'no circle of files', severity: 'error', from: {}, to: { circular: true } },
  ...Object.entries(house).flatMap(folderRules),
];
