import { execFile } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { expect, test, type Download, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { ADDRESS, demo, freshStation } from './helpers.js';

const DAY = 'a0000000-0000-4000-8000-000000000002';

const JOB_COMMAND = fileURLToPath(new URL('../scripts/job.mjs', import.meta.url));

const bytesOf = async (download: Download): Promise<Buffer> => readFileSync(await download.path());

async function linesOf(job: string): Promise<Record<string, unknown>[]> {
  const response = await fetch(job.replace('/jobs/', '/api/jobs/') + '/log');
  const [, ...rows] = (await response.text()).trim().split('\n');
  return rows.map((row) => (JSON.parse(row) as { document: Record<string, unknown> }).document);
}

/** A copy of the demo’s day, for the test alone. @returns its address */
async function freshDay(): Promise<string> {
  const file = await (await fetch(`${ADDRESS}/api/job-files/${DAY}`)).text();
  const id = crypto.randomUUID();
  const send = async (more: string): Promise<{ token: string }> =>
    (await (
      await fetch(`${ADDRESS}/api/job-files?job=${id}&ids=new${more}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: file,
      })
    ).json()) as { token: string };
  // New ids are made at each look: only what is asked with the same word is the same.
  const { token } = await send('');
  await send(`&seen=${token}`);
  return `${ADDRESS}/jobs/${id}`;
}

/** The demo’s salt marsh by so little light that the shutter is held open. */
async function marshAtDusk(): Promise<object> {
  const file = await (await fetch(`${ADDRESS}/api/job-files/${DAY}`)).json();
  const { document } = (file as { stations: { document: { exposure: { meter: { ev: number } } } }[] }).stations[4]!; // prettier-ignore
  document.exposure.meter.ev = 6;
  return document;
}

/** A cell’s whole name; what was planned stands apart in it. */
const named = (name: string): RegExp => new RegExp(`^${name.replace(', ', '\\s*, ')}$`);

const log = (page: Page) => page.getByRole('region', { name: 'Log', exact: true });

test('a tap on the card logs what was planned, also while the server is away', async ({ page }) => {
  const { station, job } = await freshStation(undefined, demo('10-ropewalk-frames'));
  await page.goto(`${station}/card`);
  await expect(log(page).getByRole('status').first()).toContainText('Now frame 1 of 3');
  await log(page).getByRole('button', { name: 'Shot', exact: true }).click();
  await expect(log(page).getByRole('status').first()).toContainText('frame 2 of 3 · 1 of 3 taken');
  // The way to the server is cut; two more taps, one with a change.
  await page.route('**/api/jobs/*/log*', (route) => route.abort());
  await log(page).getByRole('button', { name: 'With a change' }).click();
  const dialog = page.getByRole('dialog', { name: 'Shot, with a change' });
  await dialog.getByLabel('Stop').fill('wide open');
  await dialog.getByRole('button', { name: 'Shot', exact: true }).click();
  await expect(dialog.getByRole('alert')).toBeVisible();
  await dialog.getByLabel('Stop').fill('16');
  await dialog.getByRole('button', { name: 'wind', exact: true }).click();
  await dialog.getByRole('button', { name: 'Shot', exact: true }).click();
  await log(page).getByRole('button', { name: 'Shot', exact: true }).click();
  await expect(log(page).getByRole('alert')).toContainText('2 to send.');
  await expect(log(page).getByRole('status').first()).toContainText('All taken');
  // The page itself goes, and comes back before the server does.
  await page.reload();
  await expect(log(page).getByRole('alert')).toContainText('2 to send.');
  await page.unroute('**/api/jobs/*/log*');
  await expect(log(page).getByRole('alert')).toBeHidden({ timeout: 30_000 });
  const lines = await linesOf(job);
  expect(
    lines.map(({ frame, planned, f_number, note }) => [frame, planned, f_number, note]),
  ).toEqual([
    [1, true, 11, undefined],
    [2, false, 16, 'wind'],
    [3, true, 11, undefined],
  ]);
});

test('the log as a table: edited, filled, pasted, undone and saved', async ({ page }) => {
  const job = await freshDay();
  await page.goto(`${job}/log`);
  const grid = page.getByRole('grid', { name: 'Log' });
  await expect(grid).toHaveAttribute('aria-rowcount', '61');
  const cell = (row: number, name: string) =>
    grid.locator(`[aria-rowindex="${row + 1}"]`).getByRole('gridcell', { name: named(name) });
  await expect(cell(4, 'f/11, planned f/8')).toBeVisible();
  // One cell by the keys; what cannot be used is said and stays.
  await cell(2, 'f/8').click();
  await page.keyboard.press('Enter');
  await page.keyboard.type('x');
  await page.keyboard.press('Enter');
  await expect(grid.getByRole('alert')).toBeVisible();
  await grid.getByRole('textbox', { name: 'stop' }).fill('f/16');
  await page.keyboard.press('Enter');
  await expect(cell(2, 'f/16, planned f/8')).toBeVisible();
  // Down from there into those that are selected.
  await cell(2, 'f/16, planned f/8').click();
  await grid.getByRole('checkbox', { name: 'Select line 5' }).click();
  await grid.getByRole('checkbox', { name: 'Select line 7' }).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Fill down' }).click();
  await expect(grid.getByRole('gridcell', { name: named('f/16, planned f/8') })).toHaveCount(4);
  await page.getByRole('button', { name: 'Change 3 …' }).click();
  await page.getByLabel('What').selectOption('note');
  await page.getByLabel('To; empty takes it away').fill('from the quay');
  await page.getByRole('button', { name: 'Change them' }).click();
  await expect(grid.getByRole('gridcell', { name: 'from the quay' })).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo: Change note of 3' }).click();
  await expect(grid.getByRole('gridcell', { name: 'from the quay' })).toHaveCount(0);
  // A block from a spreadsheet.
  await grid.getByRole('checkbox', { name: 'Select line 7' }).click();
  await grid.getByRole('checkbox', { name: 'Select line 6' }).click();
  await cell(2, 'f/16, planned f/8').click();
  await grid.evaluate((element) => {
    const data = new DataTransfer();
    data.setData('text/plain', 'f/5.6\t1/8\nf/4\t1/15\n');
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })); // prettier-ignore
  });
  await expect(cell(2, 'f/5.6, planned f/8')).toBeVisible();
  await expect(cell(3, 'f/4, planned f/8')).toBeVisible();
  await grid.getByRole('checkbox', { name: 'Select line 5' }).click();
  // Of one sort, and of all again.
  await page.getByRole('combobox', { name: 'Show' }).selectOption('spoilt');
  await expect(grid).toHaveAttribute('aria-rowcount', '6');
  await page.getByRole('combobox', { name: 'Show' }).selectOption('all lines');
  await expect(grid).toHaveAttribute('aria-rowcount', '61');
  // Found, and saved as a table that comes in again without a change.
  await page.getByRole('searchbox', { name: 'Find in the log' }).fill('rope swung');
  await expect(grid).toHaveAttribute('aria-rowcount', '2');
  await page.getByRole('button', { name: 'Save' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as a table (CSV)' }).click(),
  ]);
  await page.getByRole('link', { name: 'Bring in a table' }).click();
  const csv = (await bytesOf(download)).toString('utf8').replace('Rope swung', 'Rope stood still');
  await page.getByLabel('A table of the log').setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) }); // prettier-ignore
  await expect(page.getByRole('list', { name: 'What the table holds' })).toContainText('0 new');
  await expect(page.getByRole('button', { name: 'Bring in 1', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 1', exact: true }).click();
  await expect(grid).toHaveAttribute('aria-rowcount', '61');
  await expect.poll(async () => (await linesOf(job)).some(({ note }) => note === 'Rope stood still')).toBe(true); // prettier-ignore
});

test('files are matched, corrected by hand, and get sidecars that keep what was there', async ({
  page,
}) => {
  const job = await freshDay();
  const zip = unzipSync(new Uint8Array(readFileSync(new URL('../apps/web/public/demo-pictures.zip', import.meta.url)))); // prettier-ignore
  const kept = '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dev="http://example.org/" dev:Look="slate"/></rdf:RDF></x:xmpmeta>'; // prettier-ignore
  // A folder that the browser lets the page write into: one of its own, for the test.
  await page.addInitScript(() => {
    (window as unknown as Record<string, unknown>).showDirectoryPicker = () =>
      navigator.storage.getDirectory();
  });
  await page.goto(`${job}/files`);
  await page.evaluate(
    async ({ files, sidecar }) => {
      const root = await navigator.storage.getDirectory();
      for await (const name of (root as unknown as { keys: () => AsyncIterable<string> }).keys()) {
        await root.removeEntry(name);
      }
      const write = async (name: string, data: BlobPart): Promise<void> => {
        const stream = await (await root.getFileHandle(name, { create: true })).createWritable();
        await stream.write(new Blob([data]));
        await stream.close();
      };
      for (const [name, base64] of files) {
        await write(
          name,
          Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0)),
        );
      }
      await write('OQ0412.xmp', sidecar);
      await write('OQ0413.xmp', '<!DOCTYPE a [<!ENTITY b "ha">]><a>&b;</a>');
      await write('notes.txt', 'no picture');
    },
    {
      files: Object.entries(zip).map(([name, bytes]) => [name, Buffer.from(bytes).toString('base64')] as const), // prettier-ignore
      sidecar: kept,
    },
  );
  await page.getByRole('button', { name: 'Choose a folder' }).click();
  await expect(page.getByText('1 h 40 s behind')).toBeVisible({ timeout: 60_000 });
  const counts = page.getByRole('list', { name: 'Matched' });
  await expect(counts).toContainText('52 sure');
  await expect(counts).toContainText('1 unsure');
  await expect(counts).toContainText('1 file without a line');
  await expect(page.getByRole('img', { name: /^Log above, files below/ })).toBeVisible();
  // The doubtful one is said by hand; the rest follows.
  await page.getByLabel('Show').selectOption('unsure');
  const doubtful = page.getByRole('combobox', { name: 'Line of OQ0416.JPG' });
  await expect(doubtful).toBeVisible();
  await doubtful.focus();
  const first = await doubtful.locator('option', { hasText: '07:24:05' }).getAttribute('value');
  await doubtful.selectOption(first);
  await expect(counts).toContainText('0 unsure');
  await page.getByRole('button', { name: 'Keep these matches in the log' }).click();
  await expect(page.getByText('All of it is in the log.')).toBeVisible();
  const lines = await expect
    .poll(async () => (await linesOf(job)).filter(({ file }) => file !== undefined).length)
    .toBe(53);
  expect(lines).toBeUndefined();
  const own = (await linesOf(job)).find(({ file }) => file === 'OQ0416.JPG');
  expect(own).toMatchObject({ at: '2026-10-03T07:24:05+02:00', file_sure: true, file_fixed: true });
  // Sidecars: one merged, one refused, the rest new.
  const part = page.getByRole('region', { name: 'Sidecars' });
  await expect(part).toContainText('51 new, 1 merged');
  await expect(part.getByRole('alert')).toContainText('OQ0413.xmp: It declares a document type');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    part.getByRole('button', { name: 'Save 52 as a zip' }).click(),
  ]);
  const written = unzipSync(new Uint8Array(await bytesOf(download)));
  expect(Object.keys(written)).toHaveLength(52);
  const merged = Buffer.from(written['OQ0412.xmp']!).toString('utf8');
  expect(merged).toContain('dev:Look="slate"');
  expect(merged).toContain('<exif:FNumber>8/1</exif:FNumber>');
  await part.getByRole('button', { name: 'Write 52 beside the pictures' }).click();
  await expect(part).toContainText('52 written.', { timeout: 60_000 });
  // A second run finds nothing to do, and what cannot be read is as it was.
  await expect(part).toContainText('0 new, 0 merged, 52 stay as they are', { timeout: 60_000 });
  const bomb = await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory();
    return (await (await root.getFileHandle('OQ0413.xmp')).getFile()).text();
  });
  expect(bomb).toContain('<!DOCTYPE');
});

test('a job’s file is looked at before it is taken in', async ({ page }) => {
  const job = await freshDay();
  const id = job.split('/').at(-1)!;
  const file = JSON.parse(await (await fetch(`${ADDRESS}/api/job-files/${id}`)).text());
  file.exposures[3].note = 'from the desk';
  await page.goto(job);
  await page.getByLabel('Station files to import').setInputFiles({
    name: 'day.job.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(file)),
  });
  await expect(page.getByText('It changes')).toBeVisible();
  await expect(page.getByRole('row', { name: 'note — from the desk' })).toBeVisible();
  await page.getByRole('button', { name: 'Take these changes' }).click();
  await expect(page).toHaveURL(job);
  expect((await linesOf(job))[3]).toMatchObject({ note: 'from the desk' });
  await page.goto(`${ADDRESS}/jobs/take-in`);
  await page.getByLabel('A job’s file').setInputFiles({
    name: 'bad.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ ...file, stations: 'none' })),
  });
  await expect(page.getByRole('alert')).toContainText('/stations must be a list');
});

test('film and a shutter held open: what is loaded, and how long it really was', async ({
  page,
}) => {
  const marsh = await marshAtDusk();
  const { station, job } = await freshStation(undefined, marsh);
  await page.clock.install();
  await page.goto(`${station}/card`);
  const bar = log(page);
  await expect(bar).toContainText('Nothing loaded is left for this film.');
  await bar.getByRole('button', { name: 'Load film' }).click();
  const loaded = page.getByRole('dialog', { name: 'Loaded film' });
  await loaded.getByRole('button', { name: 'Load', exact: true }).click();
  await expect(loaded.getByRole('alert')).toHaveText('Give the holder its number or name.');
  await loaded.getByLabel('Number or name').fill('7');
  await loaded.getByRole('button', { name: 'Load', exact: true }).click();
  await expect(loaded.getByRole('listitem')).toHaveCount(2);
  await loaded.getByRole('button', { name: 'Close' }).click();
  await expect(bar).toContainText('On holder 7 A');
  // The card is worked through; then the shutter comes.
  const opened = bar.getByRole('button', { name: /^Start the clock/ });
  const next = page.getByRole('button', { name: 'Done, next' });
  while (await next.isVisible()) await next.click();
  await opened.click();
  const timer = bar.getByRole('timer');
  await expect(bar).toContainText('Close in');
  await expect(bar.getByRole('button', { name: 'Shot', exact: true })).toBeHidden();
  // A reload leaves it running.
  await page.reload();
  await expect(timer).toBeVisible();
  await page.clock.fastForward('10:00');
  await expect(bar).toContainText('Close now; over by');
  await bar.getByRole('button', { name: 'Closed' }).click();
  await expect(bar).toContainText('On holder 7 B');
  await bar.getByRole('button', { name: 'Shot', exact: true }).click();
  await expect(bar).toContainText('Nothing loaded is left for this film.');
  await expect.poll(async () => (await linesOf(job)).length).toBe(2);
  const [long, second] = await linesOf(job);
  expect(long).toMatchObject({ planned: false, film: { holder: '7', side: 'A' } });
  expect(long!.time_s as number).toBeGreaterThanOrEqual(600);
  expect(second).toMatchObject({ planned: true, film: { holder: '7', side: 'B' } });
  expect(second!.time_s as number).toBeLessThan(300);
  // Undone, its side is free again.
  await bar.getByRole('button', { name: 'Undo: Shot' }).click();
  await expect(bar).toContainText('On holder 7 B');
  await expect.poll(async () => (await linesOf(job)).length).toBe(1);
});

test('a folder dropped on the page is read with all that lies in it', async ({ page }) => {
  const job = await freshDay();
  const folder = mkdtempSync(join(tmpdir(), 'shoot-'));
  const zip = unzipSync(new Uint8Array(readFileSync(new URL('../apps/web/public/demo-pictures.zip', import.meta.url)))); // prettier-ignore
  for (const [i, [name, bytes]] of Object.entries(zip).entries()) {
    const card = join(folder, i % 2 === 0 ? 'card-1' : 'card-2');
    mkdirSync(card, { recursive: true });
    writeFileSync(join(card, name), bytes);
  }
  writeFileSync(join(folder, 'notes.txt'), 'no picture');
  writeFileSync(join(folder, 'card-1', 'broken.jpg'), 'no picture at all');
  await page.goto(`${job}/files`);
  await expect(page.getByText('60 lines of the log wait', { exact: false })).toBeHidden();
  await expect(page.getByText('Drop the shoot’s files')).toBeVisible();
  const browser = await page.context().newCDPSession(page);
  const data = { items: [], files: [folder], dragOperationsMask: 1 };
  for (const type of ['dragEnter', 'dragOver', 'drop'] as const) {
    await browser.send('Input.dispatchDragEvent', { type, x: 600, y: 400, data });
  }
  await expect(page.getByRole('heading', { name: /^Files 55$/ })).toBeVisible({ timeout: 60_000 });
  const counts = page.getByRole('list', { name: 'Matched' });
  await expect(counts).toContainText('52 sure', { timeout: 60_000 });
  await expect(counts).toContainText('1 other file left aside');
});

test('a whole job goes out and in by command', async ({ page }) => {
  const day = `${ADDRESS}/jobs/${DAY}/stations/a0000000-0000-4000-8000-000000000201/card`;
  await page.goto(day);
  await expect(log(page)).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What to do').fill('whole job');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.keyboard.press('Enter'),
  ]);
  const folder = mkdtempSync(join(tmpdir(), 'job-'));
  const file = join(folder, 'day.job.json');
  const job = async (...args: string[]): Promise<string> =>
    (await promisify(execFile)(process.execPath, [JOB_COMMAND, ...args], { env: { ...process.env, PORT: new URL(ADDRESS).port } })).stdout; // prettier-ignore
  expect(await job('save', DAY, file)).toContain(file);
  expect(readFileSync(file)).toEqual(await bytesOf(download));
  await expect(job('save', DAY, file)).rejects.toThrow('is there already');
  await expect(job('save', 'No such job', join(folder, 'x'))).rejects.toThrow('There is no job “No such job”'); // prettier-ignore
  expect(await job('take', file)).toContain('Log: 0 added, 0 changed, 60 the same');
  const name = `By command ${crypto.randomUUID().slice(0, 8)}`;
  const named = readFileSync(file, 'utf8').replace('"name": "A day in October"', `"name": "${name}"`); // prettier-ignore
  writeFileSync(file, named);
  expect(await job('take', file)).toContain(`name: A day in October → ${name}`);
  const taken = await job('take', file, '--new-ids', '--take');
  expect(taken).toContain(`It becomes a new job, “${name}”.`);
  await page.goto(/http\S+/.exec(taken)![0]);
  await expect(page.getByRole('heading', { name })).toBeVisible();
  writeFileSync(file, '{"format": "gangway.job", "version": 1, "name": 4}');
  await expect(job('take', file)).rejects.toThrow('/name');
});
