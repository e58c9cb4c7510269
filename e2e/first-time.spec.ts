import { expect, test, type Locator, type Page } from '@playwright/test';
import { startStack, type Stack } from './stack.js';

/** Somebody new, on an empty database. Nothing is known but the data sheet. */
let stack: Stack;
test.beforeAll(async () => {
  stack = await startStack('test-first', 4470, 'off');
});
test.afterAll(async () => {
  await stack.end();
});

/** A hand that counts what it does. */
function counting() {
  const done = { presses: 0, fields: 0 };
  return {
    done,
    press: async (target: Locator): Promise<void> => {
      done.presses += 1;
      await target.click();
    },
    fill: async (target: Locator, text: string): Promise<void> => {
      done.fields += 1;
      await target.fill(text);
      await target.blur();
    },
    choose: async (target: Locator, option: string): Promise<void> => {
      done.fields += 1;
      await target.selectOption(option);
    },
  };
}

/** A shift lens of one’s own before a façade, from the first page to a verdict and its ways out. */
async function toVerdict(page: Page) {
  const { done, press, fill, choose } = counting();
  await page.goto(stack.address);
  await expect(page.getByRole('heading', { name: 'New here' })).toBeVisible();
  await press(page.getByRole('link', { name: 'Enter a lens' }));
  await fill(page.getByLabel('Focal length'), '24');
  await fill(page.getByLabel('Widest stop'), '3.5');
  await fill(page.getByLabel('Image circle'), '60');
  await choose(page.getByLabel('Sensor or film behind it'), '24 × 36 mm');
  await fill(page.getByLabel('Shifts by up to'), '12');
  await press(page.getByRole('button', { name: 'Begin', exact: true }));
  const strip = page.getByRole('navigation', { name: 'Steps' });
  await expect(strip).toContainText('mm to spare');
  const wall = page.locator('section', { hasText: 'Façade or wall' });
  await press(wall.getByRole('button', { name: 'Add', exact: true }));
  await fill(page.getByLabel('Distance, level'), '18');
  await fill(page.getByLabel('Top above ground'), '19');
  await fill(page.getByLabel('Width', { exact: true }), '14');
  await press(page.getByRole('link', { name: /^Cover:/ }));
  await expect(strip).toContainText('Cut');
  await expect(page.getByText('Ways to get it all in')).toBeVisible();
  return done;
}

for (const [width, height] of [
  [1280, 800],
  [390, 844],
] as const) {
  test(`from empty to a verdict in few presses and fields, ${width} px wide`, async ({
    browser,
  }) => {
    const page = await browser.newPage({
      viewport: { width, height },
      hasTouch: width < 600,
    });
    const { presses, fields } = await toVerdict(page);
    expect(presses).toBeLessThanOrEqual(15);
    expect(fields).toBeLessThanOrEqual(12);
    await page.close();
  });
}

test('what is missing is asked where it is missing; what was typed outlives a reload', async ({
  page,
}) => {
  await page.goto(`${stack.address}/begin`);
  await page.getByLabel('Focal length').fill('thirty');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByText('“thirty” is not a length')).toBeVisible();
  await expect(page.getByText('Give the widest stop, as f/2.8.')).toBeVisible();
  await expect(page.getByText('Choose the size of the sensor or film.')).toBeVisible();
  await page.getByLabel('Widest stop').fill('2.8');
  await page.reload();
  await expect(page.getByLabel('Widest stop')).toHaveValue('2.8');
});

test('the demo is there for the asking, once; a new station asks which rig', async ({ page }) => {
  await page.goto(`${stack.address}/jobs`);
  await page.getByRole('button', { name: 'Open the day' }).click();
  await expect(page.getByRole('link', { name: /^Salt marsh at low water/ })).toBeVisible();
  await page.request.post(`${stack.address}/api/demo`);
  await page.goto(`${stack.address}/jobs`);
  await expect(page.getByRole('link', { name: /Orrin Quay/ })).toHaveCount(1);
  await page.getByRole('link', { name: /Orrin Quay/ }).click();
  await expect(page.getByRole('heading', { name: 'Orrin Quay' })).toBeVisible();
  await page.getByRole('button', { name: 'New station' }).click();
  await page.getByLabel('Name of the station').fill('Chapel');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText('Choose a rig, or another lens.');
  await page
    .getByRole('radio', { name: /^24 mm f\/3.5 on 24 × 36 mm/ })
    .first()
    .check();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByLabel('Name of the station')).toHaveValue('Chapel');
  await page.getByRole('link', { name: 'Rig and settings' }).click();
  await expect(page.getByLabel('Name', { exact: true }).first()).toHaveValue('24 mm f/3.5');
  await expect(page.getByRole('link', { name: 'Kit' })).toBeVisible();
});

test('from an empty kit to a rig piece by piece; what is not known is told', async ({ page }) => {
  await page.goto(`${stack.address}/kit/new/lens`);
  await page.getByLabel('Name', { exact: true }).fill('My 35');
  await page.getByLabel('Focal length').fill('35');
  await page.getByLabel('Widest stop').fill('2.8');
  // The circle is on no data sheet: what it was made for will do.
  await page.getByLabel('Not known? Made for').selectOption('44 × 33 mm');
  await expect(page.getByLabel('Circle, line 1')).toHaveValue('55.0');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await page.goto(`${stack.address}/kit/new/back`);
  await page.getByLabel('Name', { exact: true }).fill('My camera');
  await page.getByLabel('Format').selectOption('24 × 36 mm');
  await page.getByLabel('Pixels along the long side').fill('4.36 µm');
  await page.getByRole('button', { name: 'Add to the kit' }).click();
  await expect(page.getByRole('link', { name: /My camera/ })).toContainText('4.36 µm');
  await page.goto(`${stack.address}/rigs`);
  await page.getByRole('button', { name: 'Assemble a rig' }).click();
  await page.getByRole('button', { name: 'Choose the lens' }).click();
  await page.getByRole('option', { name: /My 35/ }).click();
  await page.getByRole('button', { name: 'Choose the back' }).click();
  await page.getByRole('option', { name: /My camera/ }).click();
  await expect(page.getByLabel('Name of the rig')).toHaveValue('My 35 on My camera');
  // Neither mounts nor registers were told: it may work, and what decides is listed.
  await expect(page.getByText('May work, 4 not known')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Not known' })).toContainText(
    'Register of “My 35” decides whether infinity is reached.',
  );
  await page.getByRole('button', { name: 'Begin a station' }).click();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByText('mm to spare').first()).toBeVisible();
  await page.getByRole('link', { name: /^Cover:/ }).click();
  await page.getByRole('button', { name: 'Assumed: Sharp core there' }).click();
  await expect(page.getByRole('dialog')).toContainText('80 % of it is taken');
});
