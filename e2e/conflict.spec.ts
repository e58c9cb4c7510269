import { expect, test, type Page } from '@playwright/test';
import { enter, freshStation, saved, scale, stored, typed } from './helpers.js';

/**
 * Two tabs on one station that hear nothing of each other; the second saves first, then the first
 * edits on stale ground.
 */
async function stale(first: Page, second: Page, cover: string): Promise<void> {
  for (const page of [first, second]) {
    await page.route('**/api/changes', (route) => route.abort());
    await page.goto(cover);
  }
  await expect(saved(second)).toBeVisible();
  await enter(typed(second, 'Rise'), '2');
  await expect(second.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled();
  await expect(saved(second)).toBeVisible();
  await enter(typed(first, 'Rise'), '7');
  await expect(first.getByRole('dialog', { name: 'Changed elsewhere' })).toContainText(
    'movements rise mm',
  );
}

test('a stale tab is asked: keep mine', async ({ context }) => {
  const { cover, api } = await freshStation();
  const [first, second] = [await context.newPage(), await context.newPage()];
  await stale(first, second, cover);
  await first.getByRole('button', { name: 'Keep mine' }).click();
  await expect(saved(first)).toBeVisible();
  expect((await stored(api)).document.movements.rise_mm).toBe(7);
  expect((await stored(api)).revision).toBe(3);
});

test('a stale tab is asked: take the other', async ({ context }) => {
  const { cover, api } = await freshStation();
  const [first, second] = [await context.newPage(), await context.newPage()];
  await stale(first, second, cover);
  await first.getByRole('button', { name: 'Take the other' }).click();
  await expect(scale(first, 'Rise')).toHaveAttribute('aria-valuetext', '2.0 mm up');
  expect((await stored(api)).document.movements.rise_mm).toBe(2);
});

test('a stale tab is asked: keep both, also after a reload', async ({ context }) => {
  const { cover, api, job } = await freshStation();
  const [first, second] = [await context.newPage(), await context.newPage()];
  await stale(first, second, cover);
  await first.reload();
  await first.getByRole('button', { name: 'Keep both' }).click();
  await expect(scale(first, 'Rise')).toHaveAttribute('aria-valuetext', '2.0 mm up');
  expect((await stored(api)).document.movements.rise_mm).toBe(2);
  await first.goto(job);
  await first.getByRole('link', { name: /\(mine\)/ }).click();
  await expect(scale(first, 'Rise')).toHaveAttribute('aria-valuetext', '7.0 mm up');
});

test('a second tab with nothing unsaved follows; one with unsaved text is asked before it saves', async ({
  context,
}) => {
  const { cover, station, api } = await freshStation();
  const [first, second] = [await context.newPage(), await context.newPage()];
  for (const page of [first, second]) await page.goto(cover);
  await expect(saved(second)).toBeVisible();
  await enter(typed(first, 'Rise'), '3');
  await expect(scale(second, 'Rise')).toHaveAttribute('aria-valuetext', '3.0 mm up');
  await expect(saved(second)).toBeVisible();
  // The tab that holds the stream is closed: the other goes on hearing.
  await first.close();
  const third = await context.newPage();
  await third.goto(cover);
  await enter(typed(third, 'Rise'), '4');
  await expect(scale(second, 'Rise')).toHaveAttribute('aria-valuetext', '4.0 mm up');
  await second.goto(`${station}/view/rig`);
  await second.getByLabel('Focal length').fill('2');
  await enter(typed(third, 'Rise'), '5');
  const dialog = second.getByRole('dialog', { name: 'Changed elsewhere' });
  await expect(dialog).toContainText('movements rise mm');
  expect((await stored(api)).document.movements.rise_mm).toBe(5);
  await dialog.getByRole('button', { name: 'Keep mine' }).click();
  await expect(second.getByLabel('Focal length')).toHaveValue('2');
});
