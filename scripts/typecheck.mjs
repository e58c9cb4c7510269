import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { at, ROOT } from './lib/paths.mjs';

/** The native compiler is many times as fast; the other one stays for the linter, which needs its API. */
const TSC = at('node_modules/typescript-native/bin/tsc');

/** What a configuration says, with what it extends. */
function read(path) {
  const {
    extends: base,
    compilerOptions,
    include,
    exclude,
  } = JSON.parse(readFileSync(path, 'utf8'));
  const above = base ? read(join(dirname(path), base)).compilerOptions : {};
  return { compilerOptions: { ...above, ...compilerOptions }, include, exclude };
}

// Folders with the same options are checked as one: what they share is read once, not by each.
const together = new Map();
const homes = ['apps', 'packages'].flatMap((folder) =>
  readdirSync(at(folder)).flatMap((name) => [`${folder}/${name}`, `${folder}/${name}/test`]),
);
const paths = [...homes, 'e2e', 'e2e/http', 'scripts/test'].map((home) => `${home}/tsconfig.json`);
for (const path of paths.filter((each) => existsSync(at(each)))) {
  const { compilerOptions, include, exclude } = read(at(path));
  const key = JSON.stringify(Object.entries(compilerOptions).sort());
  const one = together.get(key) ?? { compilerOptions, include: [], exclude: [] };
  const beside = (name) => relative(at('.data'), join(ROOT, dirname(path), name));
  one.include.push(...include.map(beside));
  one.exclude.push(...(exclude ?? []).map(beside));
  together.set(key, one);
}

mkdirSync(at('.data'), { recursive: true });
const waiting = [...together.values()].map((one, n) => {
  const path = at('.data', `types-${n}.json`);
  writeFileSync(path, JSON.stringify(one));
  return path;
});

const check = (path) =>
  new Promise((resolve) => {
    spawn(process.execPath, [TSC, '-p', path], { cwd: ROOT, stdio: 'inherit' }).on('exit', (code) =>
      resolve(code === 0),
    );
  });

let failed = false;
const worker = async () => {
  for (let path = waiting.shift(); path; path = waiting.shift()) {
    if (!(await check(path))) failed = true;
  }
};
await Promise.all(Array.from({ length: Math.max(1, Math.min(4, availableParallelism())) }, worker));
process.exit(failed ? 1 : 0);
