import { performance } from 'node:perf_hooks';

/** How a page moves under a hand. */

/** Notes frames and long tasks of a page from now on. */
export const watch = (page) =>
  page.evaluate(() => {
    const marks = { frames: [], tasks: [], going: true };
    globalThis.gangwayMarks = marks;
    new PerformanceObserver((entries) => {
      for (const entry of entries.getEntries()) if (marks.going) marks.tasks.push(entry.duration);
    }).observe({ type: 'longtask' });
    let last = 0;
    const frame = (now) => {
      if (last) marks.frames.push(now - last);
      last = now;
      if (marks.going) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });

export const watched = (page) =>
  page.evaluate(() => {
    globalThis.gangwayMarks.going = false;
    return globalThis.gangwayMarks;
  });

export const longest = (tasks) =>
  `${tasks.length}${tasks.length > 0 ? `, longest ${Math.max(...tasks).toFixed(0)} ms` : ''}`;

/** Seconds the page has spent on scripts, styles and layout so far. */
async function workOf(cdp) {
  const { metrics } = await cdp.send('Performance.getMetrics');
  const of = (name) => metrics.find((metric) => metric.name === name).value;
  return of('ScriptDuration') + of('RecalcStyleDuration') + of('LayoutDuration');
}

/**
 * Drags a thing to and fro for two seconds and says how the frames came.
 * @returns what came of it: frames in ms, tasks over 50 ms, work of a frame in ms
 */
export async function dragged(page, name, say) {
  const target = page.getByRole('slider', { name, exact: true });
  await target.waitFor();
  await page.waitForTimeout(500);
  const box = await target.boundingBox();
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  await watch(page);
  const y = box.y + box.height / 2;
  const middle = box.x + box.width / 2;
  const scale = ['Rise', 'Tilt'].includes(name);
  await page.mouse.move(middle, y);
  await page.mouse.down();
  const before = await workOf(cdp);
  const begin = performance.now();
  while (performance.now() - begin < 2000) {
    const phase = ((performance.now() - begin) / 2000) * 4 * Math.PI;
    const swing = Math.sin(phase);
    await page.mouse.move(middle + (scale ? 140 : 50) * swing, y + (scale ? 0 : 18) * swing);
  }
  const worked = (await workOf(cdp)) - before;
  await page.mouse.up();
  await cdp.detach();
  const { frames, tasks } = await watched(page);
  const sorted = frames.sort((a, b) => a - b);
  const at_ = (share) => sorted[Math.floor(sorted.length * share)];
  const workMs = (worked * 1000) / frames.length;
  say(
    `dragging ${name} for 2 s:`.padEnd(49) +
      `median frame ${at_(0.5).toFixed(1)} ms (17 allowed), 95 % ${at_(0.95).toFixed(1)} ms (25), ` +
      `work of a frame ${workMs.toFixed(1)} ms (8), tasks over 50 ms: ${longest(tasks)}`,
  );
  return { name, medianMs: at_(0.5), mostMs: at_(0.95), workMs, tasks: tasks.length };
}
