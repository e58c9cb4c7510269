import { writeFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { longest, watch, watched } from './bench-page.mjs';
import { at } from './paths.mjs';

/** A large kit, large tables and a long job. */

/** Five thousand lenses in the kit, and a table of twenty thousand looked at. */
export async function measureKit(browser, address, say) {
  const lens = (i) => ({
    kind: 'lens',
    name: `Bench ${i} f/${(2 + (i % 7)).toFixed(1)}`,
    focal_length_mm: 15 + (i % 400),
    f_min: 2 + (i % 7),
    f_max: 32,
    circle: [{ f_number: 2 + (i % 7), diameter_mm: 40 + (i % 300) }],
    mount: `Mount ${i % 50}`,
  });
  for (let part = 0; part < 5; part++) {
    const items = Array.from({ length: 1000 }, (_, i) => ({
      id: crypto.randomUUID(),
      document: lens(part * 1000 + i),
    }));
    await fetch(`${address}/api/kit/imports/${crypto.randomUUID()}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ items }),
    });
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/kit`);
  const list = page.getByRole('list', { name: 'Kit' });
  await list.getByRole('listitem').first().waitFor();
  await page.waitForTimeout(1000);
  const waits = [];
  const box = page.getByRole('searchbox', { name: 'Search the kit' });
  await box.focus();
  for (const text of [
    'b',
    'be',
    'ben',
    'bench 1',
    'bench 12',
    'bench 123',
    'mount 7',
    'circle 99',
  ]) {
    waits.push(
      await page.evaluate(async (typed) => {
        const input = document.activeElement;
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
        const counted = () => document.querySelector('ul[aria-label="Kit"]').style.height;
        const before = counted();
        const begin = performance.now();
        set.call(input, typed);
        input.dispatchEvent(new Event('input', { bubbles: true }));
        while (counted() === before && performance.now() - begin < 1000) {
          await new Promise((resolve) => setTimeout(resolve, 0));
        }
        return performance.now() - begin;
      }, text),
    );
  }
  say(
    `search in 5,000 things:`.padEnd(37) +
      `answer after ${waits.map((ms) => ms.toFixed(0)).join(', ')} ms (a frame is 17)`,
  );
  await box.fill('');
  await page.waitForTimeout(500);
  await watch(page);
  const area = await list.boundingBox();
  await page.mouse.move(area.x + 200, 500);
  for (let i = 0; i < 60; i++) {
    await page.mouse.wheel(0, 1500);
    await page.waitForTimeout(30);
  }
  const scrolled = await watched(page);
  say(`scrolling it:`.padEnd(37) + `tasks over 50 ms: ${longest(scrolled.tasks)}`);

  const csv = `name,focal_length_mm,f_min,f_max,circle\n${Array.from(
    { length: 20_000 },
    (_, i) => `Table ${i},${20 + (i % 300)},4,${i % 10 === 0 ? 2 : 32},f/4: ${60 + (i % 200)}`,
  ).join('\n')}\n`;
  await page.goto(`${address}/kit/import`);
  await page.waitForTimeout(800);
  await watch(page);
  const begin = performance.now();
  // By its path: handed over as bytes, unpacking them would be counted as the page's work.
  const file = at('.data/bench-table.csv');
  writeFileSync(file, csv);
  await page.getByLabel('Kit file or table to import').setInputFiles(file);
  await page.getByRole('button', { name: /^Take in/ }).waitFor();
  const took = performance.now() - begin;
  const read = await watched(page);
  say(
    `a table of 20,000 lines looked at:`.padEnd(37) +
      `${(took / 1000).toFixed(1)} s, tasks over 50 ms on the page: ${longest(read.tasks)}`,
  );
  await measureTables(page, address, say);
}

/** A job of ten thousand stations: opened, scrolled, one more begun. */
export async function measureLongJob(browser, address, databaseUrl, say) {
  const { default: pg } = await import('pg');
  const id = crypto.randomUUID();
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query(`insert into jobs (id, name) values ($1, 'Ten thousand')`, [id]);
  await client.query(
    `with made as (
       insert into stations (id, job_id, revision, document, created_at, position)
       select gen_random_uuid(), $1, 1, jsonb_set(document, '{name}', to_jsonb('Station ' || n)),
         now() + n * interval '1 millisecond', n
       from (select document from stations limit 1) as one, generate_series(1, 10000) as n
       returning id, document)
     insert into station_revisions (station_id, revision, document) select id, 1, document from made`,
    [id],
  );
  await client.end();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const wait = async (work) => {
    const begin = performance.now();
    await work();
    return `${(performance.now() - begin).toFixed(0)} ms`;
  };
  await page.goto(`${address}/jobs`);
  const opened = await wait(async () => {
    await page.getByRole('link', { name: /Ten thousand/ }).click();
    await page.getByRole('link', { name: /^Station 1\b/ }).waitFor();
  });
  await page.waitForTimeout(500);
  await watch(page);
  const list = page.getByRole('list', { name: 'Stations' });
  const area = await list.boundingBox();
  await page.mouse.move(area.x + 200, 500);
  for (let i = 0; i < 60; i++) {
    await page.mouse.wheel(0, 3000);
    await page.waitForTimeout(30);
  }
  const { tasks } = await watched(page);
  const asked = await wait(async () => {
    await page.getByRole('button', { name: 'New station' }).click();
    await page.getByRole('radio').first().waitFor();
  });
  await page.getByRole('radio').first().check();
  const begun = await wait(async () => {
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await page.getByRole('heading', { name: 'Camera', exact: true }).waitFor();
  });
  const copied = await wait(() => fetch(`${address}/api/jobs/${id}/duplicate`, { method: 'POST' }));
  say(
    `a job of 10,000 stations:`.padEnd(37) +
      `opened in ${opened} (1,000 allowed), a new one asked in ${asked}, begun in ${begun} (500 allowed), copied in ${copied}; ` +
      `scrolling it, tasks over 50 ms: ${longest(tasks)}`,
  );
  await page.close();
}

/** A table of a million lines, and one of a hundred thousand columns. */
async function measureTables(page, address, say) {
  const lines = Array.from(
    { length: 1_000_000 },
    (_, i) => `Table ${i},${20 + (i % 300)},4,${i % 10 === 0 ? 2 : 32},f/4: ${60 + (i % 200)}`,
  );
  const wide = Array.from({ length: 100_000 }, (_, i) => `Measure ${i}`);
  wide.splice(0, 5, 'name', 'focal_length_mm', 'f_min', 'f_max', 'circle');
  const cells = ['Wide', '35', '4', '22', 'f/4: 60', ...Array(99_995).fill('1')];
  for (const [what, text, shown] of [
    [
      'a table of 1,000,000 lines:',
      `name,focal_length_mm,f_min,f_max,circle\n${lines.join('\n')}`,
      page.getByText('cannot be used').first(),
    ],
    [
      'a table of 100,000 columns:',
      `${wide.join(',')}\n${cells.join(',')}`,
      page.getByRole('button', { name: /^Take in/ }),
    ],
  ]) {
    const file = at('.data/bench-table.csv');
    writeFileSync(file, text);
    await page.goto(`${address}/kit/import`);
    await page.waitForTimeout(1500);
    await watch(page);
    const begin = performance.now();
    await page.getByLabel('Kit file or table to import').setInputFiles(file);
    await shown.waitFor({ timeout: 300_000 });
    const took = (performance.now() - begin) / 1000;
    const { tasks } = await watched(page);
    say(what.padEnd(37) + `${took.toFixed(1)} s, tasks over 50 ms on the page: ${longest(tasks)}`);
  }
}
