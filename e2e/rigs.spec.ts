import { expect, test, type Page } from '@playwright/test';
import { copyRig, get, lens, makeItem, unique, type Item } from './gear.js';
import { ADDRESS, freshStation, saved } from './helpers.js';

const savedRig = (page: Page) => page.getByRole('status').filter({ hasText: /^Saved$/ });

test('a 72 mm lens the least draw forbids: the tool proposes the 20 mm board, and it works', async ({
  page,
}) => {
  const { id } = await copyRig(7);
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await expect(page.getByText('the bellows close to 90.0 mm only')).toBeVisible();
  await expect(page.getByText('0.450 m').first()).toBeVisible();
  await page.getByRole('button', { name: /Put in “Recessed board 20” from the kit/ }).click();
  await expect(page.getByText('the bellows close to')).toBeHidden();
  await expect(page.getByRole('definition').filter({ hasText: '∞' })).toBeVisible();
  await expect(savedRig(page)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Recessed board 20', exact: true })).toBeVisible();
});

test('parts are put in, moved by hand and by key, swapped, taken out; undo takes each back', async ({
  page,
}) => {
  const { id } = await copyRig(13);
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await page.getByRole('button', { name: 'Put a part in at place 1' }).click();
  await page.getByPlaceholder('Name, size or mount').fill('converter 1.4');
  await page.getByRole('option', { name: /Converter 1\.4/ }).click();
  await expect(page.getByText('280').first()).toBeVisible();
  const order = async (): Promise<string[]> =>
    ((await get<Item>(`rigs/${id}`)).document.chain as { name: string }[]).map(({ name }) => name);
  await expect.poll(order).toEqual(['Converter 1.4', 'Plain adapter 44 to 18']);
  const block = page.getByRole('button', { name: /^Converter 1\.4, × 1\.4; arrows move it/ });
  await block.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(order).toEqual(['Plain adapter 44 to 18', 'Converter 1.4']);
  await expect(page.getByText('they do not join').first()).toBeVisible();
  await expect(page.getByText('Does not go together')).toBeVisible();
  // Dragged back along the axis towards the lens.
  const box = (await block.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 160, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['Converter 1.4', 'Plain adapter 44 to 18']);
  // What was moved stays picked.
  await page.getByRole('button', { name: 'Swap', exact: true }).click();
  await page.getByRole('option', { name: /Converter 2/ }).click();
  await expect(page.getByText('lets a circle of 46.0 mm pass')).toBeVisible();
  await page.getByRole('button', { name: 'Take out' }).click();
  await expect.poll(order).toEqual(['Plain adapter 44 to 18']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(order).toEqual(['Converter 2', 'Plain adapter 44 to 18']);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect.poll(order).toEqual(['Plain adapter 44 to 18']);
});

test('a filter cuts from a shift on, and is cured; the stop is looked at', async ({ page }) => {
  const { id } = await copyRig(1);
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await page.getByRole('button', { name: 'Shift 24 f/3.5', exact: true }).click();
  await page.getByRole('button', { name: 'Put a filter on' }).click();
  await page.getByRole('option', { name: /Filter 82, thick ring/ }).click();
  await expect(
    page.getByText(/The filter ring cuts into the corners from .* of shift/),
  ).toBeVisible();
  await page.getByRole('button', { name: /Take the filter off;/ }).click();
  await expect(page.getByText('Nothing is wrong with this rig.')).toBeVisible();
  const stop = page.getByLabel('Looked at, at');
  await stop.fill('f/3.5');
  await stop.press('Enter');
  await expect(page.getByRole('definition').filter({ hasText: '62.5 mm' })).toBeVisible();
  await stop.fill('f/99');
  await stop.press('Enter');
  await expect(page.getByText('This lens opens from f/3.5 to f/22.')).toBeVisible();
});

test('a rig changed elsewhere is asked about', async ({ page }) => {
  const { id } = await copyRig(2);
  await page.route('**/api/changes', (route) => route.abort());
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await expect(page.getByText('Works')).toBeVisible();
  const now = await get<Item>(`rigs/${id}`);
  await fetch(`${ADDRESS}/api/rigs/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ baseRevision: 1, document: { ...now.document, aperture: 16 } }),
  });
  const name = page.getByLabel('Name of the rig');
  await name.fill('Mine');
  await name.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Changed elsewhere' });
  await expect(dialog.getByRole('row', { name: /aperture/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await expect(page).not.toHaveURL(new RegExp(id));
  await expect(page.getByLabel('Name of the rig')).toHaveValue('Mine (mine)');
  expect((await get<Item>(`rigs/${id}`)).document).toMatchObject({ aperture: 16 });
});

test('a rig follows what is changed elsewhere, and has earlier versions to take back', async ({
  page,
}) => {
  const { id } = await copyRig(2);
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await expect(page.getByText('Works')).toBeVisible();
  const now = await get<Item>(`rigs/${id}`);
  const was = String(now.document.name);
  await fetch(`${ADDRESS}/api/rigs/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ baseRevision: 1, document: { ...now.document, name: 'Elsewhere' } }),
  });
  await expect(page.getByLabel('Name of the rig')).toHaveValue('Elsewhere');
  await page.getByRole('button', { name: 'Saved; show earlier versions' }).click();
  const dialog = page.getByRole('dialog', { name: 'Earlier versions' });
  await dialog.getByRole('button', { name: 'Name version 1' }).click();
  await page.getByLabel('Name of the version').fill('as copied');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('as copied')).toBeVisible();
  await expect(dialog.getByText('Every save is kept.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Thin out older saves …' }).click();
  await expect(dialog.getByText(/This would take away nothing now|This takes away/)).toBeVisible();
  await dialog.getByLabel('Newest saves that stay').fill('3');
  await expect(dialog.getByText('Give a whole number from 20 to 100,000.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep every save' }).click();
  await expect(dialog.getByText('From now on every save is kept.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Look at version 1' }).click();
  await dialog.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByLabel('Name of the rig')).toHaveValue(was);
});

test('an old station keeps its copy when the kit changes, says so, and takes the change on request', async ({
  page,
}) => {
  const name = unique('Kept 35');
  const stored = await makeItem(lens(name));
  const { station, api, cover } = await freshStation();
  await page.goto(`${station}/view/rig`);
  await page.getByRole('button', { name: 'Lens from the kit' }).click();
  await page.getByPlaceholder('Name, size or mount').fill(name);
  await page.getByRole('option', { name: new RegExp(name) }).click();
  await expect(page.getByLabel('Name', { exact: true }).first()).toHaveValue(name);
  await expect(saved(page)).toBeVisible();
  await fetch(`${ADDRESS}/api/kit/${stored.id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      baseRevision: 1,
      document: lens(name, { circle: [{ f_number: 2.8, diameter_mm: 44 }] }),
    }),
  });
  await page.reload();
  const notice = page.getByRole('region', { name: 'Changes in the kit' });
  await expect(notice).toContainText('was changed in the kit since');
  expect((await get<Item>(api.replace(`${ADDRESS}/api/`, ''))).document).toMatchObject({
    lens: { circle: [{ diameter_mm: 58 }] },
  });
  await notice.getByRole('button', { name: 'What would change' }).click();
  await expect(notice.getByRole('row', { name: /circle 1 diameter mm 58 44/ })).toBeVisible();
  await notice.getByRole('button', { name: 'Take the change' }).click();
  await expect(notice).toBeHidden();
  await expect(saved(page)).toBeVisible();
  await page.goto(cover);
  await expect(page.getByText(/outside the circle/).first()).toBeAttached();
});

test('a station takes a whole rig, and says what stops it', async ({ page }) => {
  const { station } = await freshStation();
  await page.goto(`${station}/view/rig`);
  await page.getByRole('button', { name: 'Use a rig' }).click();
  await page.getByRole('button', { name: 'Shift 24 on the mirror body', exact: true }).click();
  await expect(page.getByText('they do not join').first()).toBeVisible();
  await expect(page.getByRole('link', { name: /^View: .*do not join/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('they do not join')).toHaveCount(0);
});

test('rigs side by side, by the side that is matched', async ({ page }) => {
  await page.goto(`${ADDRESS}/rigs`);
  await page.getByLabel('Compare Shift 24 on the small body', { exact: true }).check();
  await page.getByLabel('Compare View 90 on the field camera', { exact: true }).check();
  await page.getByRole('button', { name: 'Compare 2' }).click();
  const row = (name: RegExp) => page.getByRole('row', { name });
  await expect(row(/^Like, on 24 × 36 mm, by diagonal/)).toContainText('25.4 mm');
  await page.getByLabel('Matched by').selectOption('height');
  // 90 mm × 24 / 95.
  await expect(row(/^Like, on 24 × 36 mm, by height/)).toContainText('22.7 mm');
  await page.getByLabel('Add').selectOption('Medium 55 on a shift-and-tilt adapter');
  await expect(page.getByRole('img', { name: /At 10 m: .*Medium 55/ })).toBeVisible();
  await page.getByRole('button', { name: 'Leave out Shift 24 on the small body' }).click();
  await expect(page.getByRole('columnheader')).toHaveCount(2);
});

test('a picture is matched on another back, and a room too small is said plainly', async ({
  page,
}) => {
  await page.goto(`${ADDRESS}/rigs/c0000000-0000-4000-8000-000000000006/match`);
  await page.getByLabel('Subject, from the sensor').fill('3 m');
  await page.getByLabel('Format').selectOption('44 × 33 mm');
  await expect(page.getByText('66.7')).toBeVisible();
  await page.getByLabel('A lens at hand').fill('150');
  await page.getByLabel('Room to step back, from the subject').fill('4 m');
  await expect(page.getByText(/The room is too small by 2\.\d+ m/)).toBeVisible();
  await page.getByLabel('Subject, from the sensor').fill('nowhere');
  await expect(page.getByText('“nowhere” is not a length')).toBeVisible();
  await page.getByLabel('Subject, from the sensor').fill('0.1 m');
  await expect(page.getByText('This lens does not focus that near')).toBeVisible();
});

test('imports are idempotent, items keep their kind, and only the archived are deleted', async () => {
  const name = unique('Api');
  const made = await makeItem(lens(name));
  const send = (method: string, path: string, body: unknown = {}) =>
    fetch(`${ADDRESS}/api/${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  expect((await send('DELETE', `kit/${made.id}`)).status).toBe(409);
  const other = { baseRevision: 1, document: { kind: 'board', name, offset_mm: 0 } };
  expect((await send('PUT', `kit/${made.id}`, other)).status).toBe(422);
  const importId = crypto.randomUUID();
  const items = [{ id: crypto.randomUUID(), document: lens(unique('Twice')) }];
  for (let i = 0; i < 2; i++) {
    expect((await send('PUT', `kit/imports/${importId}`, { items })).status).toBe(200);
  }
  // One bad item refuses the part: never half of one.
  const half = [
    { id: crypto.randomUUID(), document: lens(unique('Half')) },
    { id: crypto.randomUUID(), document: {} },
  ];
  const refused = await send('PUT', `kit/imports/${crypto.randomUUID()}`, { items: half });
  expect(refused.status).toBe(422);
  expect((await refused.json()) as { errors: { pointer: string }[] }).toMatchObject({
    errors: [{ pointer: '/items/1/document/kind' }],
  });
  expect((await fetch(`${ADDRESS}/api/kit/${half[0]!.id}`)).status).toBe(404);
  // What was changed since is left, and named.
  const changed = { baseRevision: 1, document: { ...items[0]!.document, focal_length_mm: 36 } };
  expect((await send('PUT', `kit/${items[0]!.id}`, changed)).status).toBe(200);
  const back = await (await send('DELETE', `kit/imports/${importId}`)).json();
  expect(back).toMatchObject({ removed: 0, left: [items[0]!.document.name] });
});

test('rigs are assembled, duplicated, archived and restored; five are compared at most', async ({
  page,
}) => {
  await page.goto(`${ADDRESS}/rigs`);
  await page.getByRole('button', { name: 'Assemble a rig' }).click();
  const name = unique('Assembled');
  await page.getByLabel('Name of the rig').fill(name);
  await page.getByLabel('Name of the rig').press('Enter');
  await expect(savedRig(page)).toBeVisible();
  await page.getByRole('button', { name: 'Choose the back' }).click();
  await page.getByPlaceholder('Name, size or mount').fill('mirror');
  await page.getByRole('option', { name: /Mirror body/ }).click();
  await expect(page.getByText('Choose the lens.')).toBeVisible();
  await page.goto(`${ADDRESS}/rigs`);
  const line = page.getByRole('listitem').filter({ hasText: name });
  await expect(line).toContainText('not complete');
  await page.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(line).toHaveCount(0);
  await page.getByRole('button', { name: 'Show archive' }).click();
  await page.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Restore' }).click();
  await page.getByRole('button', { name: 'Show current rigs' }).click();
  await expect(line).toHaveCount(1);
  for (const rig of [
    'Shift 24 on the small body',
    'Shift 19 on the small body',
    'View 90 on the field camera',
    'View 300 on 8×10 in',
    'View 72 on the rail camera',
  ]) {
    await page.getByLabel(`Compare ${rig}`, { exact: true }).check();
  }
  await expect(page.getByLabel('Compare Normal 50 on the reducer', { exact: true })).toBeDisabled();
});

test('a station begins in a job there is, with the rig’s own movements', async ({ page }) => {
  const { id } = await copyRig(6);
  await page.goto(`${ADDRESS}/rigs/${id}`);
  await page.getByRole('button', { name: 'Begin a station' }).click();
  const dialog = page.getByRole('dialog', { name: 'Begin a station' });
  await dialog.getByLabel('Name of the station').fill('From the bench');
  await dialog.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByLabel('Name of the station')).toHaveValue('From the bench');
  await expect(page.getByRole('slider', { name: 'Rise', exact: true })).toBeVisible();
  const api = new URL(page.url()).pathname.replace(/^\/jobs\/[^/]+/, 'api').replace(/\/view$/, '');
  const stored = (await (await fetch(`${ADDRESS}/${api}`)).json()) as Item;
  expect(stored.document).toMatchObject({
    movement_limits: { rise_mm: [-15, 15], tilt_deg: [-10, 10], pivot_mm: 20 },
    chain: [{ kind: 'adapter', thickness_mm: 53 }],
  });
});
