import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { ADDRESS, demo, freshStation, saved } from './helpers.js';

const odd = { ...demo('4-ropewalk'), name: 'Odd one', future_field: { kept: [1, 2, 3] } };

const asFile = (name: string, content: string) => ({
  name,
  mimeType: 'application/json',
  buffer: Buffer.from(content),
});

async function drop(page: Page, name: string, content: string): Promise<void> {
  const data = await page.evaluateHandle(
    ([fileName, text]) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([text!], fileName!, { type: 'application/json' }));
      return transfer;
    },
    [name, content],
  );
  await page.dispatchEvent('body', 'dragenter', { dataTransfer: data });
  await expect(page.getByText(/^Drop to/)).toBeVisible();
  await page.dispatchEvent('body', 'drop', { dataTransfer: data });
}

test('a station file is imported by button and comes out again as it went in', async ({ page }) => {
  const { job } = await freshStation();
  await page.goto(job);
  await page
    .getByLabel('Station files to import')
    .setInputFiles(asFile('odd.json', JSON.stringify(odd)));
  await expect(page.getByLabel('Name of the station')).toHaveValue('Odd one');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('odd-one.json');
  expect(JSON.parse(readFileSync(await download.path(), 'utf8'))).toEqual(odd);
});

test('a file dropped on a station becomes a station beside it', async ({ page }) => {
  const { cover, job } = await freshStation();
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  await drop(page, 'odd.json', JSON.stringify(odd));
  await expect(page.getByLabel('Name of the station')).toHaveValue('Odd one');
  await page.goto(job);
  await expect(page.getByRole('listitem')).toHaveCount(2);
});

test('a file dropped on the list of jobs begins a job', async ({ page }) => {
  await page.goto(`${ADDRESS}/jobs`);
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  await drop(page, 'x.json', JSON.stringify({ ...odd, name: 'Dropped alone' }));
  await expect(page.getByLabel('Name of the station')).toHaveValue('Dropped alone');
});

test('files that are no station are refused, each with its reason', async ({ page }) => {
  const { job } = await freshStation();
  await page.goto(job);
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await page
    .getByLabel('Station files to import')
    .setInputFiles([
      asFile('empty.json', ''),
      asFile('text.json', 'hello'),
      asFile('other.json', '{"format":"something"}'),
      asFile('newer.json', JSON.stringify({ ...odd, version: 7 })),
      asFile('infinite.json', JSON.stringify(odd).replace(/"aperture":\d+/, '"aperture":1e400')),
      asFile('huge.json', ' '.repeat(49_000_000)),
    ]);
  const notice = page.getByRole('status').last();
  for (const says of [
    'empty.json: the file is empty',
    'text.json: is not JSON',
    'other.json: /format must be "gangway.station"',
    'newer.json: /version 7 was written by a newer Gangway; this one understands version 1',
    'infinite.json: /aperture is too large to be a number',
    'huge.json: is 49 MB; a station file is at most 2.0 MB',
  ]) {
    await expect(notice).toContainText(says);
  }
  await expect(page.getByRole('listitem')).toHaveCount(1);
});
