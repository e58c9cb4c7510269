import { expect, test, type Page } from '@playwright/test';
import { enter, freshStation, saved, scale, stored, typed } from './helpers.js';

/** Two tabs on one station; the second saves first, then the first edits on stale ground. */
async function stale(first: Page, second: Page, cover: string): Promise<void> {
  await first.goto(cover);
  await second.goto(cover);
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
