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

/** Drags a thing to and fro for two seconds and says how the frames came. */
export async function dragged(page, name, say) {
  const target = page.getByRole('slider', { name, exact: true });
  await target.waitFor();
  await page.waitForTimeout(500);
  const box = await target.boundingBox();
  await watch(page);
  const y = box.y + box.height / 2;
  const middle = box.x + box.width / 2;
  const scale = ['Rise', 'Tilt'].includes(name);
  await page.mouse.move(middle, y);
  await page.mouse.down();
  const begin = performance.now();
  while (performance.now() - begin < 2000) {
    const phase = ((performance.now() - begin) / 2000) * 4 * Math.PI;
    const swing = Math.sin(phase);
    await page.mouse.move(middle + (scale ? 140 : 50) * swing, y + (scale ? 0 : 18) * swing);
  }
  await page.mouse.up();
  const { frames, tasks } = await watched(page);
  const sorted = frames.sort((a, b) => a - b);
  const at_ = (share) => sorted[Math.floor(sorted.length * share)].toFixed(1);
  say(
    `dragging ${name} for 2 s:`.padEnd(49) +
      `median frame ${at_(0.5)} ms (17 allowed), 95 % ${at_(0.95)} ms, ` +
      `tasks over 50 ms: ${longest(tasks)}`,
  );
}
