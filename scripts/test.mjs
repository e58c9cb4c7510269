import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import { performance } from 'node:perf_hooks';
import { at, ROOT } from './lib/paths.mjs';

/** Everything that must hold, in one run: format, lint, types, unit tests, the real interface. */
const say = (text) => console.log(text);
const totals = { passed: 0, failed: 0 };

const count = (ok) => (totals[ok ? 'passed' : 'failed'] += 1);

/** One check, its output told in one piece when it ends, so that several may run side by side. */
function check(name, args) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    child.stdout.on('data', (part) => said.push(part));
    child.stderr.on('data', (part) => said.push(part));
    child.on('close', (status) => {
      count(status === 0);
      say(`\n— ${name}`);
      if (said.length > 0) say(Buffer.concat(said).toString('utf8').trimEnd());
      say(`${name}: ${status === 0 ? 'passed' : 'FAILED'}`);
      resolve();
    });
  });
}

/** Seconds of each test file, for the list at the end and for `npm run bench -- core`. */
const times = {};

/** A runner that leaves its counts in a JSON file; one that leaves none has failed. */
async function suite(name, args, file, { countsOf, timesOf }, env = {}) {
  say(`\n— ${name}`);
  rmSync(file, { force: true });
  const status = await new Promise((resolve) => {
    spawn(process.execPath, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    }).on('close', resolve);
  });
  const report = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
  const { passed, failed } = report ? countsOf(report) : { passed: 0, failed: 1 };
  totals.passed += passed;
  totals.failed += failed === 0 && status !== 0 ? 1 : failed;
  if (report) Object.assign(times, timesOf(report));
}

const named = (path) => relative(ROOT, path);

const UNITS = {
  countsOf: (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
  }),
  timesOf: ({ testResults }) =>
    Object.fromEntries(
      testResults.map(({ name, startTime, endTime }) => [
        named(name),
        (endTime - startTime) / 1000,
      ]),
    ),
};

/** Seconds of all tests below a suite of the interface’s runner. */
const secondsIn = ({ specs = [], suites = [] }) =>
  specs
    .flatMap(({ tests }) => tests.flatMap(({ results }) => results))
    .reduce((sum, { duration }) => sum + duration / 1000, 0) +
  suites.reduce((sum, each) => sum + secondsIn(each), 0);

const INTERFACE = {
  countsOf: ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }),
  timesOf: ({ suites }) =>
    Object.fromEntries(suites.map((each) => [`e2e/${each.file}`, secondsIn(each)])),
};

const begun = performance.now();
const { ensureChromium, ensurePackages } = await import('./lib/install.mjs');
ensurePackages(say);
mkdirSync(at('.data'), { recursive: true });
const { atLength, runs } = await import('./lib/runs.mjs');

const bin = (path) => at('node_modules', path);
const SEED = '20260601';

/** Fetched beside what goes on meanwhile; one after the other, as Debian’s installer wants it. */
const fetched = (tool) =>
  new Promise((resolve) => {
    const args = [at('scripts/fetch-tool.mjs'), tool];
    spawn(process.execPath, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] }).on(
      'close',
      resolve,
    );
  });
const postgresql = fetched('postgresql');
const tools = postgresql.then(() => fetched('chromium'));

await Promise.all([
  check('Types', [at('scripts/typecheck.mjs')]),
  check('Format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']),
  check('Lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']),
  check('House', [at('scripts/house.mjs')]),
  check('Build', [at('scripts/build.mjs')]),
]);
// Not under the test runner: there the same takes several times as long.
await Promise.all([
  check('Ways out', [at('scripts/ways.mjs'), String(runs(2000)), SEED]),
  check('Spoilt documents', [at('scripts/mutate.mjs'), String(runs(20_000)), SEED]),
]);

await postgresql;
const unit = at('.data/jest.json');
await suite(
  'Unit tests',
  [
    '--experimental-vm-modules',
    '--no-warnings',
    bin('jest/bin/jest.js'),
    '--json',
    `--outputFile=${unit}`,
    '--silent',
  ],
  unit,
  UNITS,
);

const interfaceReport = at('.data/playwright.json');
await tools;
try {
  const chromium = ensureChromium(say);
  const { requireBinaries } = await import('./lib/postgres-programs.mjs');
  requireBinaries(say);
  await suite(
    'Interface, server and database',
    [bin('@playwright/test/cli.js'), 'test', '--config', at('e2e/playwright.config.ts')],
    interfaceReport,
    INTERFACE,
    { CHROMIUM: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: interfaceReport },
  );
} catch (error) {
  console.error(error.message);
  count(false);
}

const seconds = Math.round((performance.now() - begun) / 1000);
const files = Object.entries(times).sort(([, a], [, b]) => b - a);
say('\n— Seconds each file took, the longest first');
for (const [file, took] of files) say(`${took.toFixed(1).padStart(7)}  ${file}`);
writeFileSync(
  at('.data/test-times.json'),
  JSON.stringify({ atLength, seconds, passed: totals.passed, failed: totals.failed, files: times }),
);

say(`\nAll of it took ${Math.floor(seconds / 60)} min ${seconds % 60} s`);
say(`${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);
