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
  facade: ['document', 'words', 'optical', 'ways', 'rig', 'kit', 'mosaic'],
  cover: ['document', 'words', 'optical', 'controls', 'ways', 'facade'],
  focus: ['document', 'words', 'optical', 'controls', 'ways', 'scene'],
  report: ['document', 'words', 'optical', 'rig', 'mosaic', 'facade', 'cover', 'focus'],
  explain: ['document', 'words', 'optical', 'facade', 'cover', 'focus', 'report'],
  compare: ['document', 'words', 'optical', 'rig', 'kit', 'report'],
};

/** Folders of each package that has them. */
export const HOUSE = { 'packages/station/src': STATION };

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
        pathNot: `^${escaped(root)}\\/(${[folder, ...below].join('|')})\\/`,
      },
    })),
  ];
}

export const houseRules = (house = HOUSE) => [
  { name: 'no circle of files', severity: 'error', from: {}, to: { circular: true } },
  ...Object.entries(house).flatMap(folderRules),
];
