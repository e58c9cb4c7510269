import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { longest, watch, watched } from './bench-page.mjs';
import { at } from './paths.mjs';

/** A log of twenty thousand lines, and a folder of two thousand pictures. */

const LINES = 20_000;
const PICTURES = 2_000;

const moment = (i) => {
  const date = new Date(Date.UTC(2026, 4, 1) + i * 37_000);
  return `${date.toISOString().slice(0, 19)}+00:00`;
};

async function fill(address) {
  const job = crypto.randomUUID();
  const post = (path, body) =>
    fetch(`${address}/api/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  await post('jobs', { id: job, name: 'Bench log' });
  const station = crypto.randomUUID();
  const demo = JSON.parse(readFileSync(at('apps/server/demo/1-customs-house-front.json'), 'utf8'));
  await post(`jobs/${job}/stations`, { id: station, document: demo });
  for (let part = 0; part < LINES / 500; part++) {
    const changes = Array.from({ length: 500 }, (_, n) => {
      const i = part * 500 + n;
      const id = `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`;
      return {
        id,
        add: {
          id,
          station,
          at: moment(i),
          planned: true,
          f_number: 8,
          time_s: 0.25,
          iso: 100,
          note: `line ${i}`,
        },
      };
    });
    await post(`jobs/${job}/log`, { changes });
  }
  return job;
}

/** From what is done to the paint that shows it, ms. */
const answered = (page, work, shows) =>
  page.evaluate(
    async ([doing, showing]) => {
      const show = new Function(`return (${showing})`);
      const begin = performance.now();
      new Function(doing)();
      while (!show() && performance.now() - begin < 10_000) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
      // It is in the page as this frame begins, and painted when the very next task runs. What the
      // page puts off until later, and lets itself be interrupted in, is not waited for.
      await scheduler.postTask(() => {}, { priority: 'user-blocking' });
      return performance.now() - begin;
    },
    [work, shows],
  );

export async function measureLog(browser, address, say) {
  const job = await fill(address);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const begin = performance.now();
  await page.goto(`${address}/jobs/${job}/log`);
  const grid = page.getByRole('grid', { name: 'Log' });
  await grid.waitFor();
  await page.waitForFunction(
    (rows) => document.querySelector('[role=grid]')?.getAttribute('aria-rowcount') === rows,
    String(LINES + 1),
  );
  say(`log of 20,000 lines: there after              ${(performance.now() - begin).toFixed(0)} ms`);
  await page.waitForTimeout(1500);
  await watch(page);
  for (let i = 0; i < 30; i++) {
    await grid.evaluate((box) => box.scrollBy(0, 9000));
    await page.waitForTimeout(30);
  }
  const scroll = await watched(page);
  say(`  scrolled: tasks over 50 ms:                 ${longest(scroll.tasks)}`);
  await grid.evaluate((box) => box.scrollTo(0, 0));
  await page.waitForTimeout(500);
  const cell = grid.locator('[aria-rowindex="2"] [aria-colindex="5"]');
  await cell.dblclick();
  const stop = grid.getByRole('textbox');
  await stop.fill('f/11');
  const edit = await answered(
    page,
    `document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))`,
    `document.querySelector('[aria-rowindex="2"]').textContent.includes('f/11')`,
  );
  say(`  one cell edited:                            ${edit.toFixed(0)} ms (100 wanted)`);
  await page.waitForTimeout(500);
  await grid.locator('[aria-rowindex="2"] [aria-colindex="5"]').click();
  const fillDown = await answered(
    page,
    `document.querySelector('[role=grid]').dispatchEvent(new KeyboardEvent('keydown', { key: 'd', ctrlKey: true, bubbles: true }))`,
    `document.querySelector('[aria-rowindex="5"]').textContent.includes('f/11')`,
  );
  say(`  filled down into all 20,000:                ${fillDown.toFixed(0)} ms (100 wanted)`);
  await page.getByText(/to send/).waitFor({ state: 'hidden' });
  await page.waitForTimeout(8000);
  const block = Array.from({ length: 1000 }, (_, i) => `f/${8 + (i % 3)}\\t1/${i % 2 === 0 ? 4 : 8}`).join('\\n'); // prettier-ignore
  await grid.locator('[aria-rowindex="2"] [aria-colindex="5"]').click();
  const paste = await answered(
    page,
    `const data = new DataTransfer(); data.setData('text/plain', "${block}"); document.querySelector('[role=grid]').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))`,
    `document.querySelector('[aria-rowindex="2"]').textContent.includes('f/8')`,
  );
  say(`  1,000 lines of two columns pasted:          ${paste.toFixed(0)} ms (100 wanted)`);
  await page.waitForTimeout(1500);
  const find = await answered(
    page,
    `const box = document.querySelector('input[type=search]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(box, 'line 19999'); box.dispatchEvent(new Event('input', { bubbles: true }))`,
    `document.querySelector('[role=grid]').getAttribute('aria-rowcount') === '2'`,
  );
  say(`  found one among them:                       ${find.toFixed(0)} ms`);
  await page.close();
  await measureFiles(browser, address, job, say);
}

/** Two thousand files as the browser has them, read and matched. */
async function measureFiles(browser, address, job, say) {
  const { unzipSync } = await import('fflate');
  const zip = unzipSync(new Uint8Array(readFileSync(at('apps/web/public/demo-pictures.zip'))));
  const pictures = Object.values(zip).map((bytes) => Buffer.from(bytes).toString('base64'));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    globalThis.showDirectoryPicker = () => navigator.storage.getDirectory();
  });
  await page.goto(`${address}/jobs/${job}/files`);
  await page.evaluate(
    async ([all, count]) => {
      const root = await navigator.storage.getDirectory();
      for (let i = 0; i < count; i++) {
        const bytes = Uint8Array.from(atob(all[i % all.length]), (each) => each.charCodeAt(0));
        const name = `B${String(i).padStart(5, '0')}.JPG`;
        const stream = await (await root.getFileHandle(name, { create: true })).createWritable();
        await stream.write(bytes);
        await stream.close();
      }
    },
    [pictures, PICTURES],
  );
  await page.waitForTimeout(1000);
  await watch(page);
  const begin = performance.now();
  await page.getByRole('button', { name: 'Choose a folder' }).click();
  await page.getByText(/Matching \d+ pictures/).waitFor({ timeout: 120_000 });
  const read = performance.now() - begin;
  const { tasks } = await watched(page);
  say(`folder of 2,000 pictures: read in             ${(read / 1000).toFixed(1)} s, tasks over 50 ms: ${longest(tasks)} (none wanted)`); // prettier-ignore
  await page.close();
}
