import { readFileSync, readdirSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { gzipSync } from 'node:zlib';
import { at } from './lib/paths.mjs';
import { withApp } from './lib/browser.mjs';
import { ensurePackages } from './lib/install.mjs';

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
const { evaluate, parseStation, scalesOf, waysOut, coverDrawing } = await import(
  pathToFileURL(out).href
);

const stations = readdirSync(at('apps/server/demo'))
  .map((name) => JSON.parse(readFileSync(at('apps/server/demo', name), 'utf8')))
  .map((document) => {
    const { solve: _, ...station } = parseStation(document).value;
    return station;
  });

/** Calls a second over the demo stations, the best of five rounds of a second each. */
function rate(work) {
  let best = 0;
  for (let round = 0; round < 5; round++) {
    const begin = performance.now();
    let calls = 0;
    while (performance.now() - begin < 1000) {
      for (const station of stations) work(station);
      calls += stations.length;
    }
    best = Math.max(best, (calls * 1000) / (performance.now() - begin));
  }
  return Math.round(best).toLocaleString('en');
}

say(`evaluate, stations without a solver: ${rate(evaluate)} a second on one core (20,000 wanted)`);
say(`parse and check a station:           ${rate(parseStation)} a second`);
say(`the six scales:                      ${rate(scalesOf)} a second`);
say(`the Cover drawing:                   ${rate(coverDrawing)} a second`);
say(`ways out:                            ${rate((s) => waysOut(s, evaluate(s)))} a second`);

await withApp('bench', 4570, say, async (browser, address) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const scripts = new Map();
  page.on('response', async (response) => {
    if (!response.url().endsWith('.js')) return;
    scripts.set(response.url(), gzipSync(await response.body()).length);
  });
  const [job] = await (await fetch(`${address}/api/jobs`)).json();
  const list = await (await fetch(`${address}/api/jobs/${job.id}/stations`)).json();
  const heaviest = list.find(({ document }) => document.name.includes('hall')) ?? list[0];
  await page.goto(`${address}/jobs/${job.id}/stations/${heaviest.id}/cover`);
  const rise = page.getByRole('slider', { name: 'Rise', exact: true });
  await rise.waitFor();
  await page.waitForTimeout(1000);
  const total = [...scripts.values()].reduce((sum, size) => sum + size, 0);
  say(`first load of script, gzipped:       ${(total / 1000).toFixed(0)} kB (250 allowed)`);

  for (const name of ['Rise', 'Tilt', 'Centre of the frame']) {
    const target = page.getByRole('slider', { name, exact: true });
    const box = await target.boundingBox();
    await page.evaluate(() => {
      const marks = { frames: [], tasks: [], going: true };
      globalThis.gangwayMarks = marks;
      new PerformanceObserver((entries) => {
        for (const entry of entries.getEntries()) marks.tasks.push(entry.duration);
      }).observe({ type: 'longtask' });
      let last = 0;
      const frame = (now) => {
        if (last) marks.frames.push(now - last);
        last = now;
        if (marks.going) requestAnimationFrame(frame);
      };
      requestAnimationFrame(frame);
    });
    const y = box.y + box.height / 2;
    const middle = box.x + box.width / 2;
    const swing = name === 'Centre of the frame' ? 60 : 140;
    await page.mouse.move(middle, y);
    await page.mouse.down();
    const begin = performance.now();
    while (performance.now() - begin < 2000) {
      const phase = ((performance.now() - begin) / 2000) * 4 * Math.PI;
      await page.mouse.move(middle + swing * Math.sin(phase), y);
    }
    await page.mouse.up();
    const { frames, tasks } = await page.evaluate(() => {
      globalThis.gangwayMarks.going = false;
      return globalThis.gangwayMarks;
    });
    const sorted = frames.sort((a, b) => a - b);
    const at_ = (share) => sorted[Math.floor(sorted.length * share)].toFixed(1);
    const worst = Math.max(0, ...tasks);
    say(
      `dragging ${name} for 2 s:`.padEnd(37) +
        `median frame ${at_(0.5)} ms (17 allowed), 95 % ${at_(0.95)} ms, ` +
        `tasks over 50 ms: ${tasks.length}${worst ? `, longest ${worst.toFixed(0)} ms` : ''}`,
    );
  }
});
