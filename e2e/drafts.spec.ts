import { expect, test, type Page } from '@playwright/test';
import { copyRig, get, lens, makeItem, post, unique, type Item } from './gear.js';
import { ADDRESS } from './helpers.js';

/** Two tabs on one thing of the kit, or one rig: neither writes over what the other keeps. */
const away = (page: Page) => page.route(/\/api\/.*/, (route) => route.abort());
const back = (page: Page) => page.unroute(/\/api\/.*/);

test('a lens typed at in two tabs: each keeps its own through a reload; the second is asked, field by field', async ({
  context,
}) => {
  const { id } = await makeItem(lens(unique('Two tabs')));
  const [first, second] = [await context.newPage(), await context.newPage()];
  for (const page of [first, second]) await page.goto(`${ADDRESS}/kit/${id}`);
  await first.getByLabel('Focal length').fill('36');
  await second.getByLabel('Focal length').fill('37');
  for (const page of [first, second]) {
    await expect(page.getByText('Not saved yet; kept in this browser.')).toBeVisible();
    await page.reload();
  }
  await expect(first.getByLabel('Focal length')).toHaveValue('36');
  await expect(second.getByLabel('Focal length')).toHaveValue('37');
  await second.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(second.getByText('Saved.')).toBeVisible();
  // What the first typed is there still, and is not laid over the other in silence.
  await first.reload();
  await expect(first.getByLabel('Focal length')).toHaveValue('36');
  await first.getByRole('button', { name: 'Save', exact: true }).click();
  const dialog = first.getByRole('dialog', { name: 'Changed elsewhere' });
  await expect(dialog).toContainText('focal length mm');
  await expect(dialog).toContainText('36');
  await expect(dialog).toContainText('37');
  await first.getByRole('button', { name: 'Keep mine' }).click();
  await expect(first.getByText('Saved.')).toBeVisible();
  expect((await get<Item>(`kit/${id}`)).document.focal_length_mm).toBe(36);
});

test('two new lenses begun in two tabs; what a closed tab left is offered, not slipped in', async ({
  context,
}) => {
  const [first, second] = [await context.newPage(), await context.newPage()];
  const name = (page: Page) => page.getByLabel('Name', { exact: true });
  await first.goto(`${ADDRESS}/kit/new/filter`);
  await name(first).fill('Begun first');
  await second.goto(`${ADDRESS}/kit/new/filter`);
  await expect(name(second)).toHaveValue('');
  await name(second).fill('Begun second');
  await first.reload();
  await second.reload();
  await expect(name(first)).toHaveValue('Begun first');
  await expect(name(second)).toHaveValue('Begun second');
  await first.close();
  await second.getByRole('button', { name: 'Add to the kit' }).click();
  await second.getByLabel('Thread').fill('77');
  await second.getByLabel('Clear diameter').fill('74');
  await second.getByLabel('From its seat to its front edge').fill('5');
  await second.getByRole('button', { name: 'Add to the kit' }).click();
  await expect(second).toHaveURL(/\/kit$/);
  await second.goto(`${ADDRESS}/kit/new/filter`);
  await expect(name(second)).toHaveValue('');
  await expect(second.getByText('Another tab has unsaved changes')).toBeVisible();
  await second.getByRole('button', { name: 'Go on with them' }).click();
  await expect(name(second)).toHaveValue('Begun first');
  await second.reload();
  await expect(name(second)).toHaveValue('Begun first');
});

test('a rig named in two tabs while the server is away: both names are kept, and asked about', async ({
  context,
}) => {
  const { id } = await post('rigs/c0000000-0000-4000-8000-000000000013/duplicate');
  const [first, second] = [await context.newPage(), await context.newPage()];
  const name = (page: Page) => page.getByLabel('Name of the rig');
  const status = (page: Page, words: string | RegExp) =>
    page.getByRole('status').filter({ hasText: words });
  for (const page of [first, second]) {
    await page.goto(`${ADDRESS}/rigs/${id}`);
    await expect(status(page, /^Saved$/)).toBeVisible();
    await away(page);
  }
  for (const [page, text] of [
    [first, 'Named first'],
    [second, 'Named second'],
  ] as const) {
    await name(page).fill(text);
    await name(page).press('Enter');
    await expect(status(page, 'Kept here')).toBeVisible();
  }
  await back(first);
  await expect(status(first, /^Saved$/)).toBeVisible();
  // The second comes back with what it kept, on ground that is stale by now.
  await back(second);
  await second.reload();
  const dialog = second.getByRole('dialog', { name: 'Changed elsewhere' });
  await expect(dialog).toContainText('Named second');
  await expect(dialog).toContainText('Named first');
  await second.getByRole('button', { name: 'Keep both' }).click();
  await expect(name(second)).toHaveValue('Named second (mine)');
  const names = (await get<{ document: { name: string } }[]>('rigs')).map(
    ({ document }) => document.name,
  );
  expect(names).toEqual(expect.arrayContaining(['Named first', 'Named second (mine)']));
});

test('letters typed into a rig’s fields outlive a reload before they are a value', async ({
  page,
}) => {
  const { id } = await copyRig(13);
  await page.goto(`${ADDRESS}/rigs/${id}`);
  const [name, stop] = [page.getByLabel('Name of the rig'), page.getByLabel('Looked at, at')];
  await stop.fill('f/99');
  await name.fill('Half a na');
  // At once: nothing has been entered yet, nor had time to be kept.
  await page.reload();
  await expect(name).toHaveValue('Half a na');
  await expect(stop).toHaveValue('f/99');
  await stop.press('Enter');
  await expect(page.getByRole('alert')).toHaveText(
    /^This lens opens from f\/[\d.]+ to f\/[\d.]+\.$/,
  );
  await stop.press('Escape');
  await expect(page.getByRole('alert')).toBeHidden();
  await name.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  expect((await get<Item>(`rigs/${id}`)).document.name).toBe('Half a na');
});

test('a rig whose answer was lost on the way is known as its own', async ({ page }) => {
  const { id } = await post('rigs/c0000000-0000-4000-8000-000000000013/duplicate');
  await page.goto(`${ADDRESS}/rigs/${id}`);
  const name = page.getByLabel('Name of the rig');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  let lost = 0;
  await page.route(`**/api/rigs/${id}`, async (route) => {
    if (route.request().method() !== 'PUT' || lost > 0) return route.continue();
    lost += 1;
    // It arrives, and its answer does not.
    await fetch(route.request().url(), {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: route.request().postData()!,
    });
    return route.abort();
  });
  await name.fill('Sent once');
  await name.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept here' })).toBeVisible();
  await name.fill('Sent twice');
  await name.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await expect(page.getByRole('dialog')).toBeHidden();
  expect((await get<Item>(`rigs/${id}`)).document.name).toBe('Sent twice');
});

test('what is open stays when a later look fails; what is opened meanwhile comes by itself', async ({
  page,
}) => {
  const { id } = await makeItem(lens(unique('Stays')));
  const rig = await copyRig(13);
  await page.goto(`${ADDRESS}/kit/${id}`);
  const focal = page.getByLabel('Focal length');
  await expect(focal).toHaveValue('35');
  // The save goes through; the kit, asked for anew after it, does not come.
  await page.route(/\/api\//, (route) =>
    route.request().method() === 'GET' ? route.abort() : route.continue(),
  );
  const failed = page.waitForEvent('requestfailed', (request) => request.url().endsWith(id));
  await focal.fill('36');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await failed;
  await expect(page.getByText('Saved.')).toBeVisible();
  await focal.fill('37');
  await expect(page.getByText('Not saved yet; kept in this browser.')).toBeVisible();

  const name = page.getByLabel('Name of the rig');
  for (const [path, there] of [
    [`rigs/${rig.id}`, name],
    [`rigs/${rig.id}/match`, page.getByLabel('Subject, from the sensor')],
    ['rigs/compare', page.getByRole('heading', { name: 'Compare rigs' })],
    [`kit/${id}`, focal],
  ] as const) {
    await page.route(/\/api\//, (route) => route.abort());
    await page.goto(`${ADDRESS}/${path}`);
    await expect(page.getByText('Trying again.')).toBeVisible();
    await page.unroute(/\/api\//);
    await expect(there).toBeVisible();
  }
  await expect(focal).toHaveValue('37');
});

test('a rig left while the server is away waits in the list, and is sent from there', async ({
  page,
}) => {
  const { id } = await copyRig(13);
  const name = unique('Left behind');
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  // Only saves are lost: the list itself can still be read.
  await page.route(`**/api/rigs/${id}`, (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.fallback(),
  );
  await page.getByLabel('Name of the rig').fill(name);
  await page.getByLabel('Name of the rig').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept here' })).toBeVisible();
  await page.getByRole('link', { name: 'Rigs' }).click();
  await expect(page.getByText('Edits wait to be sent')).toBeVisible();
  await page.unroute(`**/api/rigs/${id}`);
  await expect(page.getByText('Edits wait to be sent')).toBeHidden();
  expect((await get<Item>(`rigs/${id}`)).document.name).toBe(name);
});
