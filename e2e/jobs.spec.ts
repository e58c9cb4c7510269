import { expect, test } from '@playwright/test';
import { ADDRESS, freshStation, newStation, stored } from './helpers.js';

test('a job is created, renamed, duplicated, archived and restored', async ({ page }) => {
  const name = `Ropewalk ${Date.now()}`;
  await page.goto(`${ADDRESS}/jobs`);
  await expect(page.getByRole('link', { name: /Orrin Quay/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('alert')).toHaveText('Give a name of at least one letter.');
  await page.getByLabel('Name of the job').fill(name);
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  await expect(page.getByText('No stations yet.')).toBeVisible();

  await page.getByRole('link', { name: 'Jobs' }).click();
  await page.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Name of the job').fill(`${name} hall`);
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('link', { name: `${name} hall` })).toBeVisible();

  await page.getByRole('button', { name: `More for ${name} hall` }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('link', { name: `${name} hall (copy)` })).toBeVisible();

  await page.getByRole('button', { name: `More for ${name} hall (copy)` }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByRole('link', { name: `${name} hall (copy)` })).toBeHidden();
  // Undone at once; then archived for good and taken back the long way.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('link', { name: `${name} hall (copy)` })).toBeVisible();
  await page.getByRole('button', { name: `More for ${name} hall (copy)` }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByRole('link', { name: `${name} hall (copy)` })).toBeHidden();
  await page.getByRole('button', { name: 'Show archive' }).click();
  await page.getByRole('button', { name: `More for ${name} hall (copy)` }).click();
  await page.getByRole('menuitem', { name: 'Restore' }).click();
  await page.getByRole('button', { name: 'Show current jobs' }).click();
  await expect(page.getByRole('link', { name: `${name} hall (copy)` })).toBeVisible();
  await page.getByRole('button', { name: `More for ${name} hall (copy)` }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await page.getByRole('button', { name: 'Show archive' }).click();
  await page.getByRole('button', { name: `More for ${name} hall (copy)` }).click();
  await page.getByRole('menuitem', { name: 'Delete for good' }).click();
  await page.getByRole('menuitem', { name: 'Really delete it, with all in it' }).click();
  await expect(page.getByRole('link', { name: `${name} hall (copy)` })).toBeHidden();
});

test('notes of a job are kept through a lost server and never go over another hand’s', async ({
  page,
}) => {
  const { job } = await freshStation();
  const api = job.replace('/jobs/', '/api/jobs/');
  const stands = async (): Promise<unknown> =>
    ((await (await fetch(api)).json()) as { notes: unknown }).notes;
  await page.goto(job);
  const notes = page.getByRole('textbox', { name: 'Notes' });
  await notes.fill('Keys at the ropewalk');
  await expect.poll(stands).toBe('Keys at the ropewalk');
  await page.route(api, (route) => (route.request().method() === 'PATCH' ? route.abort() : route.continue())); // prettier-ignore
  await notes.fill('Keys at the ropewalk, tide at six');
  await expect(page.getByRole('alert')).toContainText('Not saved.', { timeout: 30_000 });
  await page.reload();
  await expect(notes).toHaveValue('Keys at the ropewalk, tide at six');
  await fetch(api, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ notes: 'Keys with the harbour master' }),
  });
  await page.unroute(api);
  await expect(page.getByRole('alert')).toContainText('changed elsewhere to “Keys with the harbour master”', { timeout: 30_000 }); // prettier-ignore
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await expect(page.getByRole('alert')).toBeHidden();
  await expect.poll(stands).toBe('Keys at the ropewalk, tide at six');
});

test('stations of a job are begun, duplicated, archived and restored; their verdicts stand in the list', async ({
  page,
}) => {
  await page.goto(`${ADDRESS}/jobs`);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill(`Marsh ${Date.now()}`);
  await page.getByRole('button', { name: 'Create' }).click();
  await newStation(page);
  await expect(page.getByLabel('Name of the station')).toHaveValue('Station 1');
  await expect(page.getByRole('heading', { name: 'Camera' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('link', { name: /Station 1.*mm to spare/ })).toBeVisible();
  await page.getByRole('button', { name: 'More for Station 1' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('link', { name: /Station 1 \(copy\)/ })).toBeVisible();
  await page.getByRole('button', { name: 'More for Station 1 (copy)' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByRole('link', { name: /Station 1 \(copy\)/ })).toBeHidden();
  await page.getByRole('button', { name: 'Show archive' }).click();
  await expect(page.getByRole('link', { name: /Station 1 \(copy\)/ })).toBeVisible();
});

test('coming back to a list shows what another tab made; the next name counts it, and what is imported', async ({
  page,
  context,
}) => {
  await page.goto(`${ADDRESS}/jobs`);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill(`Two tabs ${Date.now()}`);
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByText('No stations yet.')).toBeVisible();
  const other = await context.newPage();
  // A name that cannot be had is asked for again, and what was chosen stays.
  await other.route(/free-name/, (route) => route.abort());
  await other.goto(page.url());
  await newStation(other);
  await expect(other.getByText('The server does not answer.')).toBeVisible();
  await other.unroute(/free-name/);
  await other.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(other.getByLabel('Name of the station')).toHaveValue('Station 1');
  const { document } = await stored(`${ADDRESS}/api/stations/${other.url().split('/')[6]}`);
  await other.close();
  // A browser without a window gives every page the focus at once.
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(page.getByRole('link', { name: /Station 1/ })).toBeVisible();
  await page.getByLabel('Station files to import').setInputFiles(
    ['Station 2', 'Station 3'].map((name) => ({
      name: `${name}.json`,
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify({ ...document, name })),
    })),
  );
  await expect(page.getByRole('link', { name: /Station 3/ })).toBeVisible();
  await newStation(page);
  await expect(page.getByLabel('Name of the station')).toHaveValue('Station 4');
});

test('an address that leads nowhere says so and leads back', async ({ page }) => {
  await page.goto(`${ADDRESS}/jobs/00000000-0000-4000-8000-000000000000`);
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
  await page.goto(
    `${ADDRESS}/jobs/00000000-0000-4000-8000-000000000000/stations/00000000-0000-4000-8000-000000000000/cover`,
  );
  await expect(page.getByText('There is no such station')).toBeVisible();
  await page.getByRole('link', { name: 'Go to the jobs' }).click();
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
});

test('an answer of another shape is said to be unreadable, and the list comes once it is read', async ({
  page,
}) => {
  await page.route('**/api/jobs?archived=false', (route) => route.fulfill({ json: { jobs: 3 } }));
  await page.goto(`${ADDRESS}/jobs`);
  await expect(page.getByText('The server’s answer cannot be read.')).toBeVisible();
  await page.unroute('**/api/jobs?archived=false');
  await page.reload();
  await expect(page.getByRole('link', { name: /Orrin Quay/ })).toBeVisible();
});

test('a station begun before its job has come still begins with the job’s standard', async ({
  page,
}) => {
  const { job } = await freshStation();
  const id = new URL(job).pathname.split('/').at(-1)!;
  const patched = await fetch(`${ADDRESS}/api/jobs/${id}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ criterion: { coc_mm: 0.02 } }),
  });
  expect(patched.status).toBe(200);
  let come = (): void => {};
  const gate = new Promise<void>((resolve) => (come = resolve));
  await page.route(`**/api/jobs/${id}`, async (route) => {
    await gate;
    await route.continue();
  });
  await page.goto(job);
  await newStation(page);
  come();
  await page.getByRole('link', { name: 'Rig and settings' }).click();
  await expect(page.getByLabel('Circle of confusion')).toHaveValue('0.02');
});
