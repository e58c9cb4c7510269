import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
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

/** A runner that leaves its counts in a JSON file; one that leaves none has failed. */
function suite(name, args, file, read, env = {}) {
  say(`\n— ${name}`);
  rmSync(file, { force: true });
  const { status } = spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  const { passed, failed } = existsSync(file)
    ? read(JSON.parse(readFileSync(file, 'utf8')))
    : { passed: 0, failed: 1 };
  totals.passed += passed;
  totals.failed += failed === 0 && status !== 0 ? 1 : failed;
}

const { ensureChromium, ensurePackages } = await import('./lib/install.mjs');
ensurePackages(say);
mkdirSync(at('.data'), { recursive: true });

const bin = (path) => at('node_modules', path);
await Promise.all([
  check('Types', [at('scripts/typecheck.mjs')]),
  check('Format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']),
  check('Lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']),
  check('House', [at('scripts/house.mjs')]),
  // Not under the test runner: there the same takes five times as long.
  check('Ways out', [at('scripts/ways.mjs'), '2000', '20260601']),
  check('Spoilt documents', [at('scripts/mutate.mjs'), '20000', '20260601']),
]);

const unit = at('.data/jest.json');
suite(
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
  (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
  }),
);

await check('Build', [at('scripts/build.mjs')]);

const interfaceReport = at('.data/playwright.json');
try {
  const chromium = ensureChromium(say);
  const { requireBinaries } = await import('./lib/postgres-programs.mjs');
  requireBinaries(say);
  suite(
    'Interface, server and database',
    [bin('@playwright/test/cli.js'), 'test', '--config', at('e2e/playwright.config.ts')],
    interfaceReport,
    ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }),
    { CHROMIUM: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: interfaceReport },
  );
} catch (error) {
  console.error(error.message);
  count(false);
}

say(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);
