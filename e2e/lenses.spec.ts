import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { copyRig, get, lens, makeItem, unique } from './gear.js';
import { ADDRESS, demo, freshStation } from './helpers.js';

interface Picture {
  name: string;
  mimeType: string;
  buffer: Buffer;
}

const picturesOf = (name: string): Picture[] =>
  Object.entries(
    unzipSync(readFileSync(new URL(`../apps/web/public/${name}.zip`, import.meta.url))),
  ).map(([file, bytes]) => ({ name: file, mimeType: 'image/jpeg', buffer: Buffer.from(bytes) }));

const choose = (page: Page, pictures: readonly Picture[]): Promise<void> =>
  page.getByLabel('Pictures to measure').setInputFiles([...pictures]);
const measure = (page: Page): Promise<void> =>
  page.getByRole('button', { name: 'Measure', exact: true }).click();
const heading = (page: Page, name: string | RegExp) =>
  page.getByRole('heading', { level: 1, name });

interface Kept {
  document: {
    measured?: {
      circle: { f_number: number; diameter_mm: number }[];
      detail: { f_number: number }[];
      files: string[];
      odd: string[];
    };
  };
}

test('a lens is measured, kept, looked at, taken back, and planned with', async ({ page }) => {
  const name = unique('Shift 24');
  const item = await makeItem(lens(name));
  const kept = async () => (await get<Kept>(`kit/${item.id}`)).document.measured;
  await page.goto(`${ADDRESS}/lenses`);
  await page.getByRole('link', { name }).click();
  await expect(heading(page, 'Not measured yet')).toBeVisible();

  // The same scene at every stop.
  await page.getByRole('link', { name: /^Same scene, every stop/ }).click();
  await expect(page.getByRole('listitem')).toHaveCount(5);
  await choose(page, [...picturesOf('demo-series'), { name: 'words.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('none') }]); // prettier-ignore
  await expect(page.getByText('set aside: it cannot be read as a picture')).toBeVisible();
  await measure(page);
  await expect(page.getByText('right side lags')).toBeVisible();
  await page.getByRole('button', { name: 'Keep with the lens' }).click();
  await page.getByRole('link', { name: 'Kept: see the lens' }).click();
  await expect(heading(page, 'Best at f/8')).toBeVisible();
  expect((await kept())!.detail).toHaveLength(6);

  // The eye is kept honest: names hidden, the same spot, all moved together.
  const spots = page.getByRole('region', { name: 'The same spot' });
  await expect(spots.getByRole('group', { name: /^f\/8;/ })).toBeVisible();
  await page.getByRole('button', { name: 'Hide the names' }).click();
  await expect(spots.getByRole('group', { name: /^A;/ })).toBeVisible();
  await expect(spots.getByRole('group', { name: /^f\// })).toHaveCount(0);
  await spots.getByRole('group', { name: /^A;/ }).press('ArrowRight');
  await expect(page.getByLabel('Place')).toHaveValue('');
  await page.getByRole('button', { name: 'Show the names' }).click();

  // The white: what the files do not tell is asked for, and outlives a reload.
  await page.getByRole('link', { name: /^Flat field/ }).click();
  const white = picturesOf('demo-flat').filter(({ name: file }) => file.startsWith('white-f8'));
  await choose(page, white);
  await expect(page.getByText(/^Rise, mm of white-f8-\w+\.jpg is missing/)).toBeVisible();
  const places = { middle: [0, 0], right14: [0, 14], left14: [0, -14], up14: [14, 0], down14: [-14, 0] }; // prettier-ignore
  for (const [place, [rise, shift]] of Object.entries(places)) {
    await page.getByLabel(`Rise, mm of white-f8-${place}.jpg`).fill(String(rise));
    await page.getByLabel(`Shift, mm of white-f8-${place}.jpg`).fill(`${shift} mm`);
  }
  await page.reload();
  await choose(page, white);
  await measure(page);
  await expect(page.getByRole('cell', { name: '66.8 mm' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep with the lens' }).click();
  await expect.poll(async () => (await kept())?.circle?.length).toBe(1);
  const measured = (await kept())!;
  expect(measured.circle[0]!.diameter_mm).toBeCloseTo(66.8, 0);
  expect(measured.files).toHaveLength(11);

  // One press takes it back; the series stays.
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(async () => (await kept())?.circle).toBeUndefined();
  expect((await kept())!.detail).toHaveLength(6);
  await page.getByRole('link', { name, exact: true }).click();
  await page.getByRole('button', { name: 'Use the given' }).click();
  await expect(page.getByText('Stations plan with the given, to compare.')).toBeVisible();
});

test('an edge is marked by figures, and its charts print', async ({ page }) => {
  const item = await makeItem(lens(unique('Shift 24')));
  await page.goto(`${ADDRESS}/lenses/${item.id}/edge`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Edge chart (PDF)' }).click(),
  ]);
  expect(
    readFileSync(await download.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  await choose(page, picturesOf('demo-edge'));
  await expect(page.getByText('line pairs a mm at half contrast, f/8, centre')).toBeVisible();
  await page.getByLabel('Left').fill('0');
  await page.getByLabel('Width').fill('60');
  await page.getByRole('button', { name: 'Measure this box' }).click();
  await expect(page.getByText('Dark and light differ too little.')).toBeVisible();
  await page.getByLabel('Width').fill('400');
  await expect(page.getByText('Whole pixels inside 300 × 220')).toBeVisible();
});

test('two lenses lie beside each other, drawn to one scale', async ({ page }) => {
  const [a, b] = [await makeItem(lens(unique('Copy'))), await makeItem(lens(unique('Copy')))];
  await page.goto(`${ADDRESS}/lenses/beside?a=${a.id}&b=${b.id}`);
  for (const name of ['One lens', 'The other lens']) await expect(page.getByLabel(name)).toBeVisible(); // prettier-ignore
  await expect(page.getByRole('img', { name: /^Circle at/ })).toHaveCount(2);
});

test('the true zero is found and kept with the rig', async ({ page }) => {
  const rig = await copyRig(1);
  const { document } = await get<{ document: { name: string; lens: { origin: { kit_id: string } } } }>(`rigs/${rig.id}`); // prettier-ignore
  await page.goto(`${ADDRESS}/lenses/${document.lens.origin.kit_id}/zero`);
  await choose(page, picturesOf('demo-zero'));
  for (const deg of ['-1', '-0.5', '0', '0.5', '1']) await page.getByLabel(`Scale reads, ° of lean${deg}.jpg`).fill(deg); // prettier-ignore
  await measure(page);
  await expect(
    page.getByRole('img', { name: /true zero lies at 0\.[34]\d° forward/ }),
  ).toBeVisible();
  await page
    .getByRole('button', { name: `Keep with ${document.name}`, exact: true })
    .first()
    .click();
  await expect(page.getByText('now knows its zero')).toBeVisible();
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('kept: 0')).toHaveCount(0);
});

test('what rests on a measured lens is marked, and compared with the ideal by one press', async ({
  page,
}) => {
  const station = demo('1-customs-house-front') as { lens: object };
  const measured = { on: '14 March', circle: [{ f_number: 3.5, diameter_mm: 60.8 }, { f_number: 22, diameter_mm: 60.8 }], circle_by: { stops: 4 } }; // prettier-ignore
  const { cover } = await freshStation(undefined, { ...station, lens: { ...station.lens, measured } }); // prettier-ignore
  await page.goto(cover);
  const circle = page.getByText('circle 60.8 mm');
  await expect(circle.first()).toBeVisible();
  await page
    .getByRole('button', { name: /^Measured:/ })
    .first()
    .click();
  await expect(page.getByText('The circle is this lens’s own, measured 14 March.').first()).toBeVisible(); // prettier-ignore
  await page.getByRole('button', { name: 'Compare with the ideal' }).click();
  await expect(page.getByText('planned with the lens as it is given')).toBeVisible();
  await expect(circle).toHaveCount(0);
  await page.getByRole('button', { name: 'Plan with what was measured' }).click();
  await expect(circle.first()).toBeVisible();
});
