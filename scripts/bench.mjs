import { readFileSync, readdirSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { gzipSync } from 'node:zlib';
import { measureCards } from './lib/bench-cards.mjs';
import { measureFrames } from './lib/bench-frames.mjs';
import { measureKit, measureLongJob } from './lib/bench-lists.mjs';
import { measureLog } from './lib/bench-log.mjs';
import { measureLayouts, measureMosaicPage } from './lib/bench-mosaic.mjs';
import { scenes } from './lib/core-questions.mjs';
import { measureDrags } from './lib/bench-drags.mjs';
import { at } from './lib/paths.mjs';
import { withApp } from './lib/browser.mjs';
import { ensurePackages } from './lib/install.mjs';
import { measureRates } from './lib/rates.mjs';

/** Measures what the project promises: evaluations a second, a smooth drag, a small first load. */
const say = (text) => console.log(text);
ensurePackages(say);
const { build } = await import('esbuild');

const out = at('.data/bench-station.mjs');
await build({
  entryPoints: [at('packages/station/src/index.ts')],
  outfile: out,
  bundle: true,
  format: 'esm',
  platform: 'node',
  logLevel: 'warning',
});
// The core alone, against the last that landed: `npm run bench -- core [COMMIT]`.
if (process.argv[2] === 'core') {
  const { measureCore } = await import('./lib/bench-core.mjs');
  process.exit((await measureCore(say, process.argv[3])) ? 0 : 1);
}
// How a page moves under a hand, alone: `npm run bench -- drags`.
if (process.argv[2] === 'drags') {
  await withApp('bench', 4570, say, async (browser, address) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const [job] = await (await fetch(`${address}/api/jobs`)).json();
    const { items: list } = await (await fetch(`${address}/api/jobs/${job.id}/stations`)).json();
    await measureDrags(page, address, job, list, say);
  });
  process.exit(0);
}
// Pictures alone: `npm run bench -- frames`.
if (process.argv[2] === 'frames') {
  await measureFrames(say, build);
  process.exit(0);
}
const station = await import(pathToFileURL(out).href);
const {
  evaluate,
  readings,
  editedStation,
  parseStation,
  scalesOf,
  waysOut,
  framedWell,
  framingWays,
  coverDrawing,
  finderOf,
  solveStation,
  sectionOf,
  blurRaster,
} = station;

const stations = readdirSync(at('apps/server/demo'))
  .map((name) => JSON.parse(readFileSync(at('apps/server/demo', name), 'utf8')))
  .map((document) => {
    const { solve: _, ...station } = parseStation(document).value;
    return station;
  });

/** Calls a second over the demo stations, the best of five rounds of a second each. */
function rate(work, among = stations) {
  let best = 0;
  for (let round = 0; round < 5; round++) {
    const begin = performance.now();
    let calls = 0;
    while (performance.now() - begin < 1000) {
      for (const station of among) work(station);
      calls += among.length;
    }
    best = Math.max(best, (calls * 1000) / (performance.now() - begin));
  }
  return Math.round(best).toLocaleString('en');
}

// Where a façade is cut, ways to frame it are searched for: that is counted by itself.
const cut = stations.filter((station) => station.facade && !framedWell(station));
const marked = stations.filter(({ marks }) => marks?.some(({ must }) => must === 'sharp'));
const plain = stations.filter(
  (station) => !cut.includes(station) && !marked.includes(station) && !station.mosaic,
);
say(
  `evaluate, stations without a solver: ${rate(evaluate, plain)} a second on one core (20,000 wanted)`,
);
say(`the same without searches, all:      ${rate(readings)} a second`);
say(`ways to frame a façade:              ${rate(framingWays, cut)} a second`);
say(`the finder’s picture:                ${rate((s) => finderOf(s))} a second`);
say(`parse and check a station:           ${rate(parseStation)} a second`);
/** A site with all that a long day brings: 200 marks and 100 boxes. */
const laden = {
  ...stations[0],
  marks: Array.from({ length: 200 }, (_, i) => ({
    label: `mark ${i}`,
    x_m: (i % 20) - 10,
    y_m: 1,
    z_m: 5 + i / 10,
    must: i % 3 === 0 ? 'sharp' : 'free',
  })),
  site: {
    boxes: Array.from({ length: 100 }, (_, i) => ({
      name: `box ${i}`,
      x_m: 2 * (i % 10) - 10,
      z_m: 10 + i,
      width_m: 1,
      depth_m: 1,
      height_m: 2,
    })),
  },
};
let hand = parseStation(laden).value;
/** One step of a hand on a scale, then on a mark. */
function edits(index) {
  const scale = { ...hand, movements: { ...hand.movements, rise_mm: (index % 100) / 100 } };
  const marks = hand.marks.map((mark, i) =>
    i === index % 200 ? { ...mark, x_m: index % 7 } : mark,
  );
  return [scale, { ...scale, marks }];
}
let step = 0;
const held = (check) =>
  rate(
    (now) => {
      for (const next of edits(step++)) {
        const read = check(next, hand);
        if (!read.ok) throw new Error(JSON.stringify([read.problems, now.name]));
        hand = read.value;
      }
    },
    [laden],
  );
say(`an edit with 200 marks, 100 boxes:   ${held(editedStation)} pairs a second`);
say(`the same, all of it parsed:          ${held((next) => parseStation(next))} pairs a second`);
const table = stations.find(({ lens }) => lens.focal_length_mm === 110);
/** Scenes of so many marks about a table, both freedoms, circle and limits on. */
const scenesOf = (count, marks, limits = {}) =>
  scenes({ ...table, movement_limits: { ...table.movement_limits, ...limits } }, count, marks);
say(
  `solutions for 12 marks:              ${rate(solveStation, scenesOf(60, 12))} a second (1,000 wanted)`,
);
// A tilt that turns, shorter than these scenes ask for: the best lies on its arc.
const arc = { radial_tilt_deg: 4, tilt_deg: undefined, swing_deg: undefined };
say(
  `the same on the arc of a tilt:       ${rate(solveStation, scenesOf(60, 12, arc))} a second (1,000 wanted)`,
);
say(`solutions for 200 marks:             ${rate(solveStation, scenesOf(4, 200))} a second`);
say(`a section of the scene:              ${rate((s) => sectionOf(s, 'side'))} a second`);
say(`blur of the whole picture:           ${rate(blurRaster)} a second`);
say(`the six scales:                      ${rate(scalesOf)} a second`);
say(`the Cover drawing:                   ${rate(coverDrawing)} a second`);
say(`ways out:                            ${rate((s) => waysOut(s))} a second`);

measureLayouts(station, say, rate);

await measureCards(say);

await withApp('bench', 4570, say, async (browser, address, databaseUrl) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const scripts = new Map();
  const loaded = async (response) => {
    if (!response.url().endsWith('.js')) return;
    scripts.set(response.url(), gzipSync(await response.body()).length);
  };
  page.on('response', loaded);
  const [job] = await (await fetch(`${address}/api/jobs`)).json();
  const { items: list } = await (await fetch(`${address}/api/jobs/${job.id}/stations`)).json();
  const heaviest = list.find(({ document }) => document.name.includes('hall')) ?? list[0];
  await page.goto(`${address}/jobs/${job.id}/stations/${heaviest.id}/cover`);
  const rise = page.getByRole('slider', { name: 'Rise', exact: true });
  await rise.waitFor();
  await page.waitForTimeout(1000);
  page.off('response', loaded);
  const total = [...scripts.values()].reduce((sum, size) => sum + size, 0);
  say(`first load of script, gzipped:       ${(total / 1000).toFixed(0)} kB (250 allowed)`);

  await measureDrags(page, address, job, list, say);
  await measureMosaicPage(page, {
    api: `${address}/api/jobs/${job.id}/stations`,
    base: `${address}/jobs/${job.id}/stations`,
    say,
  });
  await page.close();
  await measureKit(browser, address, say);
  await measureLongJob(browser, address, databaseUrl, say);
  await measureLog(browser, address, say);
  await measureRates(address, databaseUrl, say);
});
