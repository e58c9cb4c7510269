import { expect, test } from '@playwright/test';
import { startStack, type Stack } from './stack.js';

/** Somebody new: an empty kit, a lens and a back of their own, a station. Nothing is known but the data sheet. */
let stack: Stack;
test.beforeAll(async () => {
  stack = await startStack('test-first', 4470, 'off');
});
test.afterAll(async () => {
  await stack.end();
});

test('from an empty kit to a station with a lens and a back of one’s own', async ({ page }) => {
  await page.goto(`${stack.address}/kit`);
  await page.getByRole('link', { name: 'Add your lens' }).click();
  await page.getByLabel('Name', { exact: true }).fill('My 35');
  await page.getByLabel('Focal length').fill('35');
  await page.getByLabel('Widest stop').fill('2.8');
  // The circle is on no data sheet: what it was made for will do.
  await page.getByLabel('Not known? Made for').selectOption('44 × 33 mm');
  await expect(page.getByLabel('Circle, line 1')).toHaveValue('55.0');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await page.getByRole('link', { name: 'Next: add your back' }).click();
  await page.getByLabel('Name', { exact: true }).fill('My camera');
  await page.getByLabel('Format').selectOption('24 × 36 mm');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await page.getByRole('link', { name: 'Next: put them together as a rig' }).click();
  await page.getByRole('button', { name: 'Assemble a rig' }).click();
  await page.getByRole('button', { name: 'Choose the lens' }).click();
  await page.getByRole('option', { name: /My 35/ }).click();
  await page.getByRole('button', { name: 'Choose the back' }).click();
  await page.getByRole('option', { name: /My camera/ }).click();
  // Neither mounts nor registers were told: it may work, and what decides is listed.
  await expect(page.getByText('May work, 4 not known')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Not known' })).toContainText(
    'Register of “My 35” decides whether infinity is reached.',
  );
  await page.getByRole('button', { name: 'Begin a station' }).click();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByRole('slider', { name: 'Rise', exact: true })).toBeVisible();
  await expect(page.getByText('mm to spare').first()).toBeVisible();
  await page.getByRole('button', { name: 'Assumed: Sharp core there' }).click();
  await expect(page.getByRole('dialog')).toContainText('80 % of it is taken');
  await page.keyboard.press('Escape');
  await page.keyboard.press('1');
  await page.getByRole('link', { name: 'Rig and settings' }).click();
  await expect(page.getByRole('heading', { name: 'Lens' })).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true }).first()).toHaveValue('My 35');
});
