import { pathToFileURL } from 'node:url';
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';

/** `npm run trial:ways -- 20000 [SEED]`: drawn stations, every way out of their troubles taken. */
const say = (text) => console.log(text);
ensurePackages(say);
const { build } = await import('esbuild');
const out = at('.data/ways.mjs');
await build({
  entryPoints: [at('packages/station/test/helpers/ways-hold.ts')],
  outfile: out,
  bundle: true,
  format: 'esm',
  platform: 'node',
  logLevel: 'warning',
});
const { runWays } = await import(pathToFileURL(out).href);

const count = Number(process.argv[2] ?? 20_000);
const seed = Number(process.argv[3] ?? Date.now() % 2 ** 31);
say(`${count.toLocaleString('en')} stations of each kind from seed ${seed}`);
let failed = false;
for (const { name, tried, fault } of runWays(count, seed)) {
  say(`${name}: ${tried} ${fault === null ? 'hold' : `tried, then ${fault}`}`);
  failed ||= fault !== null || tried < count;
}
process.exit(failed ? 1 : 0);
