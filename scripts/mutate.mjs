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
const { drawnStations, runMutations } = await import(pathToFileURL(out).href);

const read = (path) => JSON.parse(readFileSync(at('apps/server', path), 'utf8'));
const demo = readdirSync(at('apps/server/demo')).map((name) => read(`demo/${name}`));
const stations = [...demo, ...drawnStations(400, 7)];
const uuid = (n) => `d0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const kit = read('demo-kit/kit.json').items;
const seeds = {
  stations,
  jobs: [demoJob()],
  rigs: stations.map(({ name, lens, chain, back, aperture }) => ({
    format: 'gangway.rig',
    version: 1,
    ...{ name, lens, chain, back, aperture },
  })),
  items: kit,
};

/** A job with everything in it: stations, what was exposed, gear. */
function demoJob() {
  return {
    format: 'gangway.job',
    version: 1,
    name: 'A day',
    stations: demo.map((document, i) => ({ id: uuid(i + 1), document })),
    exposures: Array.from({ length: 60 }, (_, i) => ({
      id: uuid(1000 + i),
      station: uuid(1 + (i % demo.length)),
      at: new Date(Date.UTC(2026, 4, 14, 8, 0, 40 * i)).toISOString().replace('.000', ''),
      planned: i % 3 === 0,
      f_number: 11,
      time_s: 2 ** -(i % 5),
      iso: 100,
    })),
    kit: kit.slice(0, 12).map((document, i) => ({ id: uuid(2000 + i), document })),
  };
}

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
