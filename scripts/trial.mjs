import { spawnSync } from 'node:child_process';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { at, ROOT } from './lib/paths.mjs';

/** `npm run trial -- 200 [SEED]`: random kills of server, database and connections, at length. */
const say = (text) => console.log(text);
const rounds = Number(process.argv[2] ?? 200);
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
process.exit(status ?? 1);
