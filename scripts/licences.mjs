import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { at } from './lib/paths.mjs';

/** `npm run licences`: writes docs/licences.md, what ships with Gangway and under which licence. */

const LOCK = 'package-lock.json';

/** What stands in a package itself, where the lock does not say. */
function ownLicence(path) {
  const file = at(path, 'package.json');
  if (!existsSync(file)) return null;
  const { license, licenses } = JSON.parse(readFileSync(file, 'utf8'));
  if (typeof license === 'string') return license;
  if (Array.isArray(licenses)) return licenses.map(({ type }) => type).join(' OR ');
  const text = ['LICENSE', 'LICENSE.md', 'LICENCE'].map((name) => at(path, name)).find(existsSync);
  return text && /Permission is hereby granted, free of charge/.test(readFileSync(text, 'utf8'))
    ? 'MIT'
    : null;
}

/** The part that asks for more than its notice to be kept. */
const ASKS = {
  'LGPL-3.0-or-later':
    'libvips, the picture decoder of the command line. It is used as it comes, as a library of its own beside `sharp` in `node_modules`, and can be replaced there by another build.',
  'MPL-2.0':
    'lightningcss, which the build uses to write the style sheet. Nothing of it is in what is served; its files are unchanged.',
};

/** Packages that are not for development alone, by licence. @throws where one has none that can be told */
export function licencesOf() {
  const { packages } = JSON.parse(readFileSync(at(LOCK), 'utf8'));
  const byLicence = new Map();
  for (const [path, { version, license, dev, link }] of Object.entries(packages)) {
    if (!path.includes('node_modules/') || dev || link) continue;
    const said = license ?? ownLicence(path);
    if (!said) throw new Error(`${path} says no licence.`);
    const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
    byLicence.set(said, (byLicence.get(said) ?? new Set()).add(`${name} ${version}`));
  }
  return byLicence;
}

export function licencesText() {
  const all = [...licencesOf()].sort(([a], [b]) => (a < b ? -1 : 1));
  const lines = [
    '# Licences',
    '',
    'Gangway itself: MIT (LICENSE). What it ships with or runs, from package-lock.json; made by',
    '`npm run licences`. Tools of development alone are left out.',
    '',
    '## Parts that ask for more than their notice',
    '',
    ...Object.entries(ASKS).map(([licence, words]) => `- **${licence}**: ${words}`),
    '',
    'PostgreSQL and Chromium are Debian’s packages, installed beside Gangway, not shipped with it.',
    '',
  ];
  for (const [licence, names] of all) {
    lines.push(`## ${licence}`, '', [...names].sort().join(', '), '');
  }
  return lines.join('\n');
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  writeFileSync(at('docs/licences.md'), licencesText());
}
