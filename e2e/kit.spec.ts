import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { get, lens, makeItem, post, unique, type Item } from './gear.js';
import { ADDRESS } from './helpers.js';

const search = (page: Page) => page.getByRole('searchbox', { name: 'Search the kit' });
const lines = (page: Page) => page.getByRole('list', { name: 'Kit' }).getByRole('listitem');

test('the kit is searched, narrowed to a kind, sorted', async ({ page }) => {
  await page.goto(`${ADDRESS}/kit`);
  await search(page).fill('shift bayonet 71');
  await expect(lines(page)).toHaveCount(3);
  await page.getByRole('button', { name: /^Adapters/ }).click();
  await page.getByLabel('Sorted').selectOption('by size');
  await expect(lines(page).first()).toContainText('27 mm thick');
  await search(page).fill('no such thing');
  await page.getByRole('button', { name: 'Show everything' }).click();
  await expect(search(page)).toHaveValue('');
});

test('a lens is written, refused with reasons, kept over a reload, saved and changed', async ({
  page,
}) => {
  const name = unique('Quay 35');
  await page.goto(`${ADDRESS}/kit/new/lens`);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Focal length').fill('soon');
  await page.getByLabel('Widest stop').fill('f/2.8');
  await expect(page.getByText('“soon” is not a length')).toBeVisible();
  await page.getByLabel('Stop, line 1').fill('f/2.8');
  await page.getByLabel('Circle, line 1').fill('62');
  await expect(page.getByRole('img', { name: /Holds .*44 × 33 mm/ })).toBeVisible();
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await expect(page.getByText('Not saved: one field needs another look.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue(name);
  await page.getByLabel('Focal length').fill('35');
  await page.getByRole('button', { name: 'Mount, iris and focus' }).click();
  await page.getByLabel('Fill in an open standard').selectOption('M42 × 1');
  await expect(page.getByLabel('Register')).toHaveValue('45.46');
  await page.getByRole('button', { name: 'Movements as built' }).click();
  await page.getByLabel('Rise and fall').fill('±11');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await search(page).fill(name);
  await page.getByRole('link', { name: new RegExp(name) }).click();
  await expect(page.getByLabel('Rise and fall')).toHaveValue('±11');
  await page.getByLabel('Circle, line 1').fill('64');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.', { exact: true })).toBeVisible();
  const found = (await get<Item[]>('kit')).find((item) => item.document.name === name)!;
  expect(found).toMatchObject({
    revision: 2,
    document: {
      register_mm: 45.46,
      mount: 'M42 × 1',
      circle: [{ f_number: 2.8, diameter_mm: 64 }],
      movement: { rise_mm: [-11, 11], moves: 'front' },
    },
  });
});

test('two people edit one lens: the second is asked, and nothing is lost', async ({ page }) => {
  const name = unique('Shared');
  const { id } = await makeItem(lens(name));
  await page.goto(`${ADDRESS}/kit/${id}`);
  await page.getByLabel('Focal length').fill('36');
  await fetch(`${ADDRESS}/api/kit/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ baseRevision: 1, document: lens(name, { focal_length_mm: 37 }) }),
  });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Changed elsewhere' });
  await expect(dialog.getByRole('row', { name: /focal length mm 36 37/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByLabel('Focal length')).toHaveValue('37');
  const kit = await get<Item[]>('kit');
  expect(kit.find((item) => item.document.name === `${name} (mine)`)?.document).toMatchObject({
    focal_length_mm: 36,
  });
  // Once more, and this time mine goes on.
  await page.getByLabel('Focal length').fill('40');
  await fetch(`${ADDRESS}/api/kit/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ baseRevision: 2, document: lens(name, { focal_length_mm: 38 }) }),
  });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await dialog.getByRole('button', { name: 'Keep mine' }).click();
  await expect(page.getByText('Saved.', { exact: true })).toBeVisible();
  expect((await get<Item>(`kit/${id}`)).document).toMatchObject({ focal_length_mm: 40 });
});

test('what is in use is archived with its users named, restored, deleted for good', async ({
  page,
}) => {
  const name = unique('In use');
  const stored = await makeItem(lens(name));
  const rig = unique('Rig of it');
  await post('rigs', {
    document: {
      format: 'gangway.rig',
      version: 1,
      name: rig,
      lens: { ...lens(name), kind: undefined, origin: { kit_id: stored.id, kit_revision: 1 } },
      chain: [],
    },
  });
  const more = async (action: string): Promise<void> => {
    await search(page).fill(name);
    await page.getByRole('button', { name: `More for ${name}` }).click();
    await page.getByRole('menuitem', { name: action }).click();
  };
  await page.goto(`${ADDRESS}/kit`);
  await more('Duplicate');
  await expect(lines(page)).toHaveCount(2);
  await page.getByRole('button', { name: `More for ${name} (copy)` }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByText('No rig and no station uses it.')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: `More for ${name}`, exact: true }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByRole('link', { name: `Rig: ${rig}` })).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Archive' }).click();
  await expect(lines(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'Show archive' }).click();
  await more('Restore');
  await expect(lines(page)).toHaveCount(0);
  await fetch(`${ADDRESS}/api/kit/${stored.id}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ archived: true }),
  });
  await page.reload();
  await page.getByRole('button', { name: 'Show archive' }).click();
  await more('Delete for good');
  await page.getByRole('dialog').getByRole('button', { name: 'Delete for good' }).click();
  await expect.poll(async () => (await fetch(`${ADDRESS}/api/kit/${stored.id}`)).status).toBe(404);
  const rigs = await get<Item[]>('rigs');
  expect(rigs.find((each) => each.document.name === rig)?.document).toMatchObject({
    lens: { name },
  });
});

const asFile = (name: string, text: string | Buffer) => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(text),
});

test('a table is previewed line by line, the good ones taken in, and taken back', async ({
  page,
}) => {
  const mark = unique('Marsh');
  await page.goto(`${ADDRESS}/kit/import`);
  await page
    .getByLabel('Kit file or table to import')
    .setInputFiles(
      asFile(
        'lenses.csv',
        `lens,focal,wide,f_max,circle\n"${mark}, long",135,4,32,f/4: 170\n${mark} bad,-5,4,22,f/4: 60\n=HYPERLINK(${mark}),50,2,16,f/2: 44\nShift 24 f/3.5,24,3.5,22,f/3.5: 62\n`,
      ),
    );
  await expect(page.getByText('Say which column holds')).toBeVisible();
  await page.getByLabel('Column “lens” holds').selectOption('Name');
  await page.getByLabel('Column “wide” holds').selectOption('Widest stop');
  const rows = page.getByRole('list', { name: 'Lines of the file' }).getByRole('listitem');
  await expect(rows.first()).toContainText('Cannot be used');
  await expect(rows.first()).toContainText('Focal length: must be');
  await expect(rows.filter({ hasText: 'Same name' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Take in 2 items' }).click();
  await expect(page.getByText('2 added, 0 changed.')).toBeVisible();
  const names = async (): Promise<string[]> =>
    (await get<Item[]>('kit')).map(({ document }) => document.name).filter((n) => n.includes(mark));
  expect((await names()).sort()).toEqual([`=HYPERLINK(${mark})`, `${mark}, long`].sort());
  await page.getByRole('button', { name: 'Take the import back' }).click();
  await expect(page.getByText('Taken back: 2 removed')).toBeVisible();
  expect(await names()).toEqual([]);
});

test('circles of a lens come in as a change, and go back', async ({ page }) => {
  const name = unique('Circled');
  const { id } = await makeItem(lens(name));
  await page.goto(`${ADDRESS}/kit/import`);
  await page
    .getByLabel('Kit file or table to import')
    .setInputFiles(
      asFile('circles.csv', `lens,f_number,diameter_mm\n${name},8,66\n${name},2.8,60\n`),
    );
  await page.getByRole('button', { name: 'Take in 1 change' }).click();
  await expect(page.getByText('0 added, 1 changed.')).toBeVisible();
  expect((await get<Item>(`kit/${id}`)).document.circle).toEqual([
    { f_number: 2.8, diameter_mm: 60 },
    { f_number: 8, diameter_mm: 66 },
  ]);
  await page.getByRole('button', { name: 'Take the import back' }).click();
  await expect(page.getByText('1 as before')).toBeVisible();
  expect((await get<Item>(`kit/${id}`)).document.circle).toHaveLength(1);
});

test('files that are no kit are refused, each with its reason', async ({ page }) => {
  await page.goto(`${ADDRESS}/kit/import`);
  const give = (file: ReturnType<typeof asFile>) =>
    page.getByLabel('Kit file or table to import').setInputFiles(file);
  await give(asFile('none.csv', ''));
  await expect(page.getByText('The file is empty.')).toBeVisible();
  await give(asFile('open.csv', 'name,focal\n"x,1\n'));
  await expect(page.getByText('a quote that is not closed')).toBeVisible();
  await give(asFile('large.json', Buffer.alloc(21_000_000, '[')));
  await expect(page.getByText('The file is 21 MB')).toBeVisible();
  await give(asFile('latin.csv', Buffer.from('name,focal_length_mm\nQu\xe9,35\n', 'latin1')));
  await expect(page.getByText('The file is not in UTF-8')).toBeVisible();
});

test('the kit comes out as a file and as tables that read the same again', async ({ page }) => {
  const name = unique('=Out');
  await makeItem(lens(name, { notes: 'a, "b"\nc' }));
  await page.goto(`${ADDRESS}/kit`);
  await search(page).fill(name);
  await expect(lines(page)).toHaveCount(1);
  const save = async (item: string): Promise<string> => {
    const waiting = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as file' }).click();
    await page.getByRole('menuitem', { name: item }).click();
    return readFileSync(await (await waiting).path(), 'utf8');
  };
  const kit = JSON.parse(await save('What is listed, as a kit file')) as { items: unknown[] };
  expect(kit.items).toMatchObject([{ name, focal_length_mm: 35 }]);
  const table = await save('Lenses as a table');
  expect(table).toContain(`'${name}`);
  expect(await save('Circles as a table')).toContain(',2.8,58');
  await page.goto(`${ADDRESS}/kit/import`);
  await page.getByLabel('Kit file or table to import').setInputFiles(asFile('lenses.csv', table));
  // Read as it was written, guard taken off: so it is known to be there already.
  await expect(page.getByText('Same name', { exact: true })).toBeVisible();
});

test('a kit file dropped on the list is looked at first', async ({ page }) => {
  await page.goto(`${ADDRESS}/kit`);
  await expect(lines(page).first()).toBeVisible();
  const data = await page.evaluateHandle(() => {
    const transfer = new DataTransfer();
    const kit = {
      format: 'gangway.kit',
      version: 1,
      items: [{ kind: 'board', name: 'Dropped board', offset_mm: -15 }, { kind: 'board' }],
    };
    transfer.items.add(new File([JSON.stringify(kit)], 'kit.json', { type: 'application/json' }));
    return transfer;
  });
  await page.dispatchEvent('body', 'drop', { dataTransfer: data });
  await expect(page.getByRole('heading', { name: 'Import kit' })).toBeVisible();
  await expect(page.getByText('Dropped board')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take in 1 item' })).toBeEnabled();
});

test('a back is offered formats and open mounts; its circle-less form asks for nothing unknown', async ({
  page,
}) => {
  const name = unique('Back');
  await page.goto(`${ADDRESS}/kit/new/back`);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Format').selectOption('6 × 12 cm');
  await expect(page.getByLabel('Long side', { exact: true })).toHaveValue('112');
  await page.getByLabel('Short side', { exact: true }).fill('113');
  await page.getByLabel('Short side', { exact: true }).press('Tab');
  await expect(page.getByText(/must be at most width_mm/)).toBeVisible();
  await page.getByLabel('Short side', { exact: true }).fill('56');
  await page.getByRole('button', { name: 'Mount and contacts' }).click();
  await page.getByLabel('Fill in an open standard').selectOption('C-mount');
  await expect(page.getByLabel('Register')).toHaveValue('17.526');
  await page.getByLabel('Has contacts').selectOption('no');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await search(page).fill(name);
  await expect(lines(page).first()).toContainText('112 × 56 mm');
});

test('circles are added and removed line by line; changes can be taken back', async ({ page }) => {
  const { id } = await makeItem(lens(unique('Rows')));
  await page.goto(`${ADDRESS}/kit/${id}`);
  await page.getByRole('button', { name: 'Add a stop' }).click();
  await page.getByLabel('Stop, line 2').fill('f/8');
  await page.getByLabel('Circle, line 2').fill('64');
  await expect(page.getByRole('img', { name: /f\/2\.8 58 mm, f\/8 64 mm/ })).toBeVisible();
  await expect(page.getByText('Not saved yet; kept in this browser.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove line 1' }).click();
  await expect(page.getByLabel('Circle, line 1')).toHaveValue('64');
  await page.getByRole('button', { name: 'Take back changes' }).click();
  await expect(page.getByLabel('Circle, line 1')).toHaveValue('58');
  await expect(page.getByText('Saved.', { exact: true })).toBeVisible();
});

test('the search is still there after looking at an item', async ({ page }) => {
  await page.goto(`${ADDRESS}/kit`);
  await search(page).fill('tele view');
  await page.getByRole('link', { name: /Tele view 360/ }).click();
  await expect(page.getByLabel('Focal length')).toHaveValue('360');
  await page.goBack();
  await expect(search(page)).toHaveValue('tele view');
  await expect(lines(page)).toHaveCount(1);
});
