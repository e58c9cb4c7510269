import { spawnSync } from 'node:child_process';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { at, ROOT } from './lib/paths.mjs';

/**
 * `npm run trial`: all that the usual run does of in part, at length: every random suite with all its
 * runs, ways out and spoilt documents, kills. `npm run trial -- 200 [SEED]`: that many rounds of random
 * kills of server, database and connections alone.
 */
const say = (text) => console.log(text);
const KILLS = 60;
const all = process.argv.length === 2;
const rounds = all ? KILLS : Number(process.argv[2]);
const seed = Number(process.argv[3] ?? Date.now() % 2 ** 31);
if (!Number.isInteger(rounds) || rounds < 1 || !Number.isInteger(seed)) {
  console.error('Say how many rounds: npm run trial -- 200 [SEED]');
  process.exit(2);
}
ensurePackages(say);
const { requireBinaries } = await import('./lib/postgres-programs.mjs');
requireBinaries(say);
const { buildServer, buildWeb } = await import('./lib/build.mjs');
await Promise.all([buildServer(), buildWeb()]);
let failed = false;
if (all) {
  const node = (...args) => {
    const { status } = spawnSync(process.execPath, args, {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, TRIAL: 'all' },
    });
    failed ||= status !== 0;
  };
  node(
    '--experimental-vm-modules',
    '--no-warnings',
    at('node_modules/jest/bin/jest.js'),
    '--silent',
  );
  node(at('scripts/ways.mjs'), '20000', String(seed));
  node(at('scripts/mutate.mjs'), '200000', String(seed));
}
say(`${rounds} rounds from seed ${seed}`);
const { status } = spawnSync(
  process.execPath,
  [
    at('node_modules/@playwright/test/cli.js'),
    ...['test', '--config', at('e2e/playwright.config.ts'), 'trial.spec'],
  ],
  {
    cwd: ROOT,
    stdio: 'inherit',
    env: {
      ...process.env,
      CHROMIUM: ensureChromium(say),
      TRIAL_ROUNDS: String(rounds),
      TRIAL_SEED: String(seed),
    },
  },
);
process.exit(failed ? 1 : (status ?? 1));
