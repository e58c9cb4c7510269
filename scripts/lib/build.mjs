import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { at } from './paths.mjs';

/** Packages of ours are bundled; what npm installs stays outside. */
function installed(workspace) {
  const { dependencies = {} } = JSON.parse(readFileSync(at(workspace, 'package.json'), 'utf8'));
  return Object.keys(dependencies)
    .filter((name) => !name.startsWith('@gangway/'))
    .flatMap((name) => [name, `${name}/*`]);
}

/** Puts a file in place in one piece: a server started meanwhile reads the old one or the new. */
function replaceFile(path, contents) {
  mkdirSync(dirname(path), { recursive: true });
  const next = `${path}.${process.pid}.next`;
  writeFileSync(next, contents);
  renameSync(next, path);
}

async function bundle(workspace, entry, options) {
  const { build, stop } = await import('esbuild');
  const { outputFiles } = await build({
    write: false,
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
  for (const { path, contents } of outputFiles) replaceFile(path, contents);
  // Its helper process would otherwise stay for as long as this one.
  await stop();
}

/** The command line, and the schemas it prints beside the package that defines them. */
export async function buildCli() {
  // Cards are set with type and paper, sidecars read with XML, pictures decoded: each lies in a file
  // of its own.
  const external = installed('apps/cli');
  const apart = ['write-cards', 'write-sidecars', 'prove-frames', 'measure'];
  await bundle('apps/cli', 'src/main.ts', {
    external: [...external, ...apart.map((name) => `./${name}.js`)],
  });
  for (const name of apart) {
    const outfile = at('apps/cli', `dist/${name}.js`);
    await bundle('apps/cli', `src/${name}.ts`, { external, outfile });
  }
  const { run } = await import(pathToFileURL(at('apps/cli/dist/main.js')).href);
  mkdirSync(at('packages/station'), { recursive: true });
  for (const [name, args] of [
    ['station', []],
    ['kit', ['kit']],
    ['job', ['job']],
  ]) {
    let schema = '';
    await run(['schema', ...args], { stdin: [], out: (text) => (schema += text), err: () => {} });
    writeFileSync(at(`packages/station/${name}.schema.json`), schema);
  }
}

/** Everything the app is made of: what is served, what serves it, and what both are built with. */
const SOURCES = [
  'apps/web',
  'apps/server',
  'packages',
  'scripts/lib/build.mjs',
  'package-lock.json',
];
const LEFT_OUT = new Set(['dist', 'node_modules', 'test']);

function* filesIn(path) {
  if (!statSync(path).isDirectory()) yield path;
  else {
    for (const name of readdirSync(path).sort()) {
      if (!LEFT_OUT.has(name)) yield* filesIn(join(path, name));
    }
  }
}

function sourceHash() {
  const hash = createHash('sha256');
  for (const source of SOURCES) {
    for (const file of filesIn(at(source))) hash.update(`${file}\0`).update(readFileSync(file));
  }
  return hash.digest('hex');
}

const BUILT = at('.data/built');

/** Builds page and server, unless what is there was made of these very sources. */
export async function ensureBuilt(say) {
  const now = sourceHash();
  const there = [BUILT, at('apps/server/dist/main.js'), at('apps/web/dist/index.html')];
  if (there.every(existsSync) && readFileSync(BUILT, 'utf8') === now) return;
  say('Building …');
  await Promise.all([buildServer(), buildWeb()]);
  replaceFile(BUILT, now);
}

export async function buildServer() {
  await bundle('apps/server', 'src/main.ts', { external: installed('apps/server') });
}

/** Assets of earlier builds stay this long for tabs still open on them. */
const KEEP_MS = 30 * 24 * 3600 * 1000;

/**
 * Builds beside what is served and then lays it over: a page being loaded meanwhile, or open since
 * an earlier build, finds every part it asks for.
 */
export async function buildWeb() {
  const { build } = await import('vite');
  const [next, served] = [at(`apps/web/dist/.next-${process.pid}`), at('apps/web/dist')];
  mkdirSync(join(served, 'assets'), { recursive: true });
  await build({
    root: at('apps/web'),
    logLevel: 'warn',
    build: { outDir: next, emptyOutDir: true },
  });
  for (const name of readdirSync(join(next, 'assets'))) {
    const file = join(served, 'assets', name);
    // Named by their content: one that is there is the same.
    if (!existsSync(file)) replaceFile(file, readFileSync(join(next, 'assets', name)));
  }
  for (const name of readdirSync(next)) {
    if (name !== 'assets') replaceFile(join(served, name), readFileSync(join(next, name)));
  }
  const built = new Set(readdirSync(join(next, 'assets')));
  for (const name of readdirSync(join(served, 'assets'))) {
    const file = join(served, 'assets', name);
    if (!built.has(name) && Date.now() - statSync(file).mtimeMs > KEEP_MS) rmSync(file);
  }
  rmSync(next, { recursive: true });
}
