import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { at } from './paths.mjs';

/** Packages of ours are bundled; what npm installs stays outside. */
function installed(workspace) {
  const { dependencies = {} } = JSON.parse(readFileSync(at(workspace, 'package.json'), 'utf8'));
  return Object.keys(dependencies)
    .filter((name) => !name.startsWith('@gangway/'))
    .flatMap((name) => [name, `${name}/*`]);
}

async function bundle(workspace, entry, options) {
  const { build, stop } = await import('esbuild');
  await build({
    entryPoints: [at(workspace, entry)],
    outfile: at(workspace, 'dist/main.js'),
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'warning',
    ...options,
  });
  // Its helper process would otherwise stay for as long as this one.
  await stop();
}

/** The command line in one file, and the schemas it prints beside the package that defines them. */
export async function buildCli() {
  await bundle('apps/cli', 'src/main.ts', {});
  const { run } = await import(pathToFileURL(at('apps/cli/dist/main.js')).href);
  mkdirSync(at('packages/station'), { recursive: true });
  for (const [name, args] of [
    ['station', []],
    ['kit', ['kit']],
  ]) {
    let schema = '';
    await run(['schema', ...args], { stdin: [], out: (text) => (schema += text), err: () => {} });
    writeFileSync(at(`packages/station/${name}.schema.json`), schema);
  }
}

export async function buildServer() {
  await bundle('apps/server', 'src/main.ts', { external: installed('apps/server') });
}

export async function buildWeb() {
  const { build } = await import('vite');
  await build({ root: at('apps/web'), logLevel: 'warn' });
}
