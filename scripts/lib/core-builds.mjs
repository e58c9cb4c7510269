import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { at, ROOT } from './paths.mjs';

/** The core as it is and as it was at a commit, both ready to be asked in one process. */

const PACKAGES = ['optics', 'frames', 'station'];

async function bundled(tree, name) {
  const { build } = await import('esbuild');
  const outfile = at('.data', `core-${name}.mjs`);
  await build({
    entryPoints: [`${tree}/packages/station/src/index.ts`],
    outfile,
    bundle: true,
    format: 'esm',
    platform: 'node',
    logLevel: 'warning',
    nodePaths: [at('node_modules')],
    // A workspace’s link leads to the sources as they are now, whatever tree is built.
    alias: Object.fromEntries(
      PACKAGES.map((each) => [`@gangway/${each}`, `${tree}/packages/${each}/src/index.ts`]),
    ),
  });
  return import(pathToFileURL(outfile).href);
}

export const coreNow = () => bundled(ROOT, 'now');

const git = (...args) => execFileSync('git', args, { cwd: ROOT, maxBuffer: 2 ** 28 });

export const commitOf = (name) => git('rev-parse', '--short', name).toString().trim();

/** @throws when the commit is not there: a shallow clone has only the last */
export async function coreAt(commit) {
  const tree = at('.data', `core-tree-${commit}`);
  if (!existsSync(tree)) {
    const archive = git(
      ...['archive', commit, 'tsconfig.base.json'],
      ...PACKAGES.map((each) => `packages/${each}`),
    );
    mkdirSync(tree, { recursive: true });
    execFileSync('tar', ['-x', '-C', tree], { input: archive });
  }
  const core = await bundled(tree, commit);
  rmSync(tree, { recursive: true });
  return core;
}

const PACE = at('docs/pace.md');
const LINE = /^\| `([0-9a-f]{7,40})` \|/;

/** The commit that the last line of docs/pace.md was written for; null where it has none. */
export function lastLanded() {
  const lines = existsSync(PACE) ? readFileSync(PACE, 'utf8').split('\n') : [];
  return lines.flatMap((line) => LINE.exec(line)?.[1] ?? []).at(-1) ?? null;
}
