import { readFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { ADDRESS, demo, dragBy, enter, freshStation, saved, stored } from './helpers.js';

const verdict = (page: Page, step: string): Locator =>
  page.getByRole('link', { name: new RegExp(`^${step}:`) });

const exposure = async (api: string) =>
  ((await stored(api)).document as { exposure?: Record<string, unknown> }).exposure;

async function pdfOf(page: Page, press: Locator): Promise<string> {
  const [download] = await Promise.all([page.waitForEvent('download'), press.click()]);
  return readFileSync(await download.path()).toString('latin1');
}

test('from the meter to the shutter: reading, filter, film, bracket; it survives a reload', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, demo('5-salt-marsh'));
  await page.goto(`${station}/expose`);
  await expect(verdict(page, 'Expose')).toHaveAccessibleName(/Nothing is metered yet/);
  await enter(page.getByLabel('Time', { exact: true }), '1/2');
  await enter(page.getByLabel('ISO used'), '50');
  await expect(verdict(page, 'Expose')).toHaveAccessibleName(/Give 1\/2 s at f\/32, ISO 50/);

  await page.getByRole('button', { name: 'A filter from the kit' }).click();
  await page.getByPlaceholder('Name, size or mount').fill('orange');
  await page.keyboard.press('Enter');
  await expect(verdict(page, 'Expose')).toHaveAccessibleName(/Give 1\.3 s/);
  await page.getByRole('button', { name: 'A film from the kit' }).click();
  await page.getByPlaceholder('Name, size or mount').fill('slow');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1.26 s asks').first()).toBeVisible();
  // A time stays as it was metered when the lens is stopped down afterwards.
  await enter(page.getByRole('textbox', { name: 'Aperture, typed' }), 'f/64');
  await expect(verdict(page, 'Expose')).toHaveAccessibleName(/Give 8 s|Give 10 s/);

  await page.getByLabel('Read as').selectOption('spots');
  // What was metered stays, as the first spot.
  await expect(page.getByLabel('Spot 1, EV')).toHaveValue(/^\d/);
  await enter(page.getByLabel('Spot 1, EV'), '4');
  await enter(page.getByLabel('Another spot, EV'), '14');
  const ways = page.getByRole('button', { name: 'Try: Bracket', exact: false });
  await expect(
    page.getByText('The scene spans 10 stops; one exposure holds 7 stops.', { exact: true }),
  ).toBeVisible();
  await expect(ways.first()).toBeVisible();
  await page.getByRole('button', { name: /^Try: 3 exposures/ }).click();
  await expect(page.getByText('hold all of it, with 0.3 to spare')).toBeVisible();
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Spot 1, EV')).toHaveValue('4');
  expect(await exposure(api)).toMatchObject({
    brackets: { frames: 3 },
    film: { name: 'Sheet film, slow' },
    filters: [{ name: 'Orange filter 105' }],
  });
  // What is no time is refused in words and stays written.
  await page.getByLabel('Read as').selectOption('time');
  await enter(page.getByLabel('Time', { exact: true }), 'soon');
  await expect(page.getByText(/“soon” is not a time; write for example 1\/125/)).toBeVisible();
  await expect(page.getByLabel('Time', { exact: true })).toHaveValue('soon');
  await enter(page.getByRole('textbox', { name: 'Long times' }), '1.4');
  await expect(page.getByText(/write 1 s: 1.5 s; 10 s: 25 s, or 1.3 past 1 s/)).toBeVisible();
  await enter(page.getByRole('textbox', { name: 'Long times' }), '1 s: 2 s; 10 s: 40 s');
  await expect
    .poll(async () => await exposure(api))
    .toMatchObject({ reciprocity: { table: [{ metered_s: 1, given_s: 2 }, {}] } });
});

test('with flash the answer is pops and power; bellows graph and tapes are there for every lens', async ({
  page,
}) => {
  const { station } = await freshStation(undefined, demo('5-salt-marsh'));
  await page.goto(`${station}/expose`);
  await page.getByLabel('Lit by').selectOption('flash');
  await enter(page.getByLabel('Reads'), 'f/16');
  await expect(verdict(page, 'Expose')).toHaveAccessibleName(/Flash: f\/32, 4 pops at full power/);
  await page.getByRole('link', { name: 'Bellows graph' }).click();
  await expect(page.getByRole('img', { name: /Stops to add for View 300/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^5.00 m/ })).toContainText('1:15');
  await page.getByRole('link', { name: 'Tapes' }).click();
  await expect(page.getByRole('img', { name: /Tapes for View 300/ }).first()).toBeVisible();
  expect(await pdfOf(page, page.getByRole('button', { name: 'Tapes (PDF)' }))).toMatch(/^%PDF/);
});

test('on a phone the card is ticked off with one thumb, large, and stays ticked', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const { station } = await freshStation(undefined, demo('10-ropewalk-frames'));
  await page.goto(`${station}/card`);
  const next = page.getByRole('button', { name: 'Done, next' });
  await expect(next).toBeInViewport();
  for (const button of [next, page.getByRole('button', { name: 'Back', exact: true })]) {
    const box = (await button.boundingBox())!;
    expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44);
  }
  const figure = page.getByText('1.50 m', { exact: true });
  const size = await figure.evaluate((each) => parseFloat(getComputedStyle(each).fontSize));
  expect(size).toBeGreaterThanOrEqual(32);
  await expect(page.getByText(/^1 of \d+$/)).toBeVisible();
  await next.click();
  await expect(page.getByText('2.20 m', { exact: true }).first()).toBeVisible();
  await next.click();
  await page.reload();
  await expect(
    page.getByRole('button', { name: 'Take back: Tripod to the wall on the left' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(page.getByText('2.20 m', { exact: true }).first()).toBeVisible();
  while (!(await page.getByText('Frame 1', { exact: true }).isVisible())) await next.click();
  await expect(page.getByText('15.0 mm', { exact: true }).first()).toBeVisible();
  await expect(page.getByRole('img', { name: 'The picture, frame 1 strong' })).toBeVisible();
  while (await next.isVisible()) await next.click();
  await expect(page.getByText('All done.')).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
  await page.close();
});

test('the card on paper: a note and a caution are on it, and the PDF is made', async ({ page }) => {
  const { station } = await freshStation(undefined, demo('3-customs-house-hall'));
  await page.goto(`${station}/card`);
  await enter(page.getByLabel('How to find it again'), 'Third flagstone from the door');
  await page.getByRole('checkbox', { name: 'stairs' }).check();
  await expect(page.getByText(/On stairs: leave the way clear/)).toBeVisible();
  await expect(
    page.getByRole('alert').filter({ hasText: 'to settle before it can be shot' }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'On paper' }).click();
  await page.getByLabel('Paper').selectOption('A5');
  await expect(page.getByText('Third flagstone from the door').first()).toBeVisible();
  expect(await pdfOf(page, page.getByRole('button', { name: 'Card (PDF)' }))).toMatch(/^%PDF/);
  expect(await pdfOf(page, page.getByRole('button', { name: 'Tag (PDF)' }))).toMatch(/^%PDF/);
});

test('stations are put in order by keys and by hand, have a status, and make one PDF with a packing list', async ({
  page,
}) => {
  const { job } = await freshStation(undefined, { ...demo('3-customs-house-hall'), name: 'One' });
  const jobId = job.split('/').at(-1)!;
  for (const [name, of] of [
    ['Two', '5-salt-marsh'],
    ['Three', '10-ropewalk-frames'],
  ] as const) {
    await fetch(`${ADDRESS}/api/jobs/${jobId}/stations`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ document: { ...demo(of), name } }),
    });
  }
  await page.goto(job);
  const lines = page.getByRole('listitem');
  const order = async (...names: string[]): Promise<void> => {
    for (const [i, name] of names.entries()) await expect(lines.nth(i)).toContainText(name);
  };
  await order('One', 'Two', 'Three');
  await page.getByRole('button', { name: /^Move station 3 of 3/ }).focus();
  await page.keyboard.press('ArrowUp');
  await order('One', 'Three', 'Two');
  await expect(page.getByRole('button', { name: /^Move station 2 of 3/ })).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await order('Three', 'One', 'Two');
  await dragBy(page, page.getByRole('button', { name: /^Move station 1 of 3/ }), 0, 170);
  await order('One', 'Two', 'Three');
  await page.getByLabel('Status of Two').selectOption('shot');
  await page.reload();
  await order('One', 'Two', 'Three');
  await expect(page.getByLabel('Status of Two')).toHaveValue('shot');

  await page.getByRole('link', { name: 'Cards and packing' }).click();
  const list = page.getByRole('region', { name: 'Packing list' });
  await expect(list.getByText('Dark cloth', { exact: true })).toBeVisible();
  await expect(list.getByText('station 2; not in the kit').first()).toBeVisible();
  await list.getByRole('checkbox', { name: 'Dark cloth' }).check();
  await page.reload();
  await expect(list.getByRole('checkbox', { name: 'Dark cloth' })).toBeChecked();
  expect(await pdfOf(page, page.getByRole('button', { name: 'All cards (PDF)' }))).toMatch(/^%PDF/);
});
