import { readdirSync, readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';

/** `npm run trial:documents -- 1000000 [SEED]`: spoilt documents through parse and evaluate. */
const say = (text) => console.log(text);
ensurePackages(say);
const { build } = await import('esbuild');
const out = at('.data/mutations.mjs');
await build({
  entryPoints: [at('packages/station/test/helpers/mutations.ts')],
  outfile: out,
  bundle: true,
  format: 'esm',
  platform: 'node',
  logLevel: 'warning',
});
const { runMutations } = await import(pathToFileURL(out).href);

const read = (path) => JSON.parse(readFileSync(at('apps/server', path), 'utf8'));
const stations = readdirSync(at('apps/server/demo')).map((name) => read(`demo/${name}`));
const seeds = {
  stations,
  rigs: stations.map(({ name, lens, chain, back, aperture }) => ({
    format: 'gangway.rig',
    version: 1,
    ...{ name, lens, chain, back, aperture },
  })),
  items: read('demo-kit/kit.json').items,
};

const count = Number(process.argv[2] ?? 1_000_000);
const seed = Number(process.argv[3] ?? Date.now() % 2 ** 31);
say(`${count.toLocaleString('en')} documents from seed ${seed}`);

const PART = 10_000;
/** Time of this process alone, ms: on a busy machine the clock tells of the others. */
const spent = () => process.cpuUsage().user / 1000;
let [taken, refused, faults, slowest] = [0, 0, 0, 0];
const begun = performance.now();
for (let done = 0; done < count; done += PART) {
  const part = Math.min(PART, count - done);
  // The number of a document is its place in the whole run: alone it is `1 ${seed + number * 7919}`.
  let [last, before] = [spent(), -1];
  const from = seed + done * 7919;
  const outcome = runMutations(seeds, part, from, (index) => {
    const now = spent();
    if (now - last > slowest) {
      slowest = now - last;
      if (slowest > 1000) say(`  seed ${from + before * 7919}: ${(slowest / 1000).toFixed(2)} s`);
    }
    [last, before] = [now, index];
  });
  taken += outcome.taken;
  refused += outcome.refused;
  faults += outcome.found.length;
  for (const { index, what } of outcome.found.slice(0, 20)) {
    say(`  seed ${from + index * 7919}: ${what}`);
  }
  const seconds = (performance.now() - begun) / 1000;
  say(
    `${done + part}: ${taken} taken, ${refused} refused, ${faults} faults, slowest ` +
      `${slowest.toFixed(0)} ms, ${seconds.toFixed(0)} s`,
  );
}
process.exit(faults > 0 ? 1 : 0);
