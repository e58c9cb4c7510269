import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { at, ROOT } from './lib/paths.mjs';

/** Everything that must hold, in one run: format, lint, types, unit tests, the real interface. */
const say = (text) => console.log(text);
const totals = { passed: 0, failed: 0 };

const count = (ok) => (totals[ok ? 'passed' : 'failed'] += 1);

function check(name, args) {
  say(`\n— ${name}`);
  const { status } = spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  count(status === 0);
  say(`${name}: ${status === 0 ? 'passed' : 'FAILED'}`);
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
check('Format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']);
check('Lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']);
check('Types', [at('scripts/typecheck.mjs')]);

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

check('Build', [at('scripts/build.mjs')]);

const interfaceReport = at('.data/playwright.json');
try {
  const chromium = ensureChromium(say);
  const { requireBinaries } = await import('./lib/postgres.mjs');
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
