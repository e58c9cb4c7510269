import { expect, test, type Locator, type Page } from '@playwright/test';
import { demo, dragBy, enter, freshStation, saved, stored } from './helpers.js';

interface Mosaic {
  pattern: string;
  columns?: number;
  overlap?: number;
  places?: { x_mm: number; y_mm: number }[];
  wish?: object;
}

const mosaic = async (api: string): Promise<Mosaic | undefined> =>
  ((await stored(api)).document as { mosaic?: Mosaic }).mosaic;

const verdict = (page: Page): Locator => page.getByRole('link', { name: /^Mosaic:/ });
const aside = (page: Page, name: string): Locator => page.getByRole('complementary', { name });

/** The ropewalk on its stitching adapter, with nothing laid out. */
const bare = () => {
  const { mosaic: _, ...station } = demo('10-ropewalk-frames') as { mosaic: unknown };
  return {
    ...station,
    movement_limits: { moves: 'rear', rise_mm: [0, 0], shift_mm: [-20, 20], detent_mm: 1 },
  };
};

test('from a station with a lens to frames in order takes three presses; it survives a reload', async ({
  page,
}) => {
  const { cover, api } = await freshStation(undefined, bare());
  await page.goto(cover);
  await expect(verdict(page)).toHaveAccessibleName(/no mosaic is laid out/);
  await verdict(page).click();
  await page.getByRole('button', { name: 'Row of three' }).click();
  await expect(verdict(page)).toHaveAccessibleName(/come out of 3 frames/);
  await page.getByRole('link', { name: 'In order' }).click();
  const order = aside(page, 'In order');
  await expect(order.getByRole('button').filter({ hasText: 'Shift the back' })).toHaveCount(4);
  await expect(order.getByText('Set the focusing ring to 21.0 m.')).toBeVisible();
  await expect(order.getByText(/Once more, to see that nothing moved/)).toBeVisible();
  await expect(order.getByText(/Fix the white balance/)).toBeVisible();

  // One frame at a time, by keys.
  await page.keyboard.press('n');
  await page.keyboard.press('n');
  await expect(page.getByText('Frame 2 of 3')).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByText('Frame 1 of 3')).toBeVisible();

  await page.getByRole('link', { name: 'Layout' }).click();
  await enter(page.getByLabel('Frames share, wanted'), '37.5');
  await expect(aside(page, 'Layout').getByText('102 MP', { exact: true })).toBeVisible();
  await expect(aside(page, 'Layout').getByText(/136 MP claimed/)).toBeVisible();
  await expect(saved(page)).toBeVisible();
  expect(await mosaic(api)).toMatchObject({ pattern: 'grid', columns: 3, overlap: 0.375 });
  await page.reload();
  await expect(verdict(page)).toHaveAccessibleName(/102 MP/);
  // An overlap that nobody can lay out is refused in words, and stays written.
  await enter(page.getByLabel('Frames share, wanted'), '99');
  await expect(page.getByText(/Write from 0 to 95/)).toBeVisible();

  await page.getByRole('button', { name: 'Take one frame instead' }).click();
  await expect(verdict(page)).toHaveAccessibleName(/no mosaic/);
});

test('a wish is answered with layouts, looked at, taken and undone; one that cannot be says what limits', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, bare());
  await page.goto(`${station}/mosaic/wish`);
  const wish = aside(page, 'Wish');
  await wish.getByRole('button', { name: 'So many megapixels' }).click();
  await enter(wish.getByLabel('At least'), '95');
  const offer = wish.getByRole('button', { name: /^Try: 3 frames upright, 3 × 1/ });
  await expect(offer).toBeVisible();
  await wish
    .getByRole('button', { name: /^Look at: 3 frames upright, 3 × 1.*no fewer do by shift/ })
    .click();
  await expect(page.getByText('Looking at:')).toBeVisible();
  await offer.click();
  await expect(verdict(page)).toHaveAccessibleName(/MP come out of 3 frames/);
  await expect(saved(page)).toBeVisible();
  expect((await mosaic(api))!.wish).toEqual({ megapixels: 95 });
  await wish.getByRole('button', { name: /^Undo: 3 frames/ }).click();
  await expect(verdict(page)).toHaveAccessibleName(/come out of 1 frame/);

  await enter(wish.getByLabel('At least'), '500');
  await expect(wish.getByRole('alert')).toContainText(/The nearest by shift is/);
  // The camera turned reaches it all the same.
  await expect(
    wish.getByRole('button', { name: /^Try: \d+ frames.*camera turned/ }).first(),
  ).toBeVisible();

  await page.getByRole('link', { name: 'Shift or turn' }).click();
  await expect(page.getByRole('heading', { name: /serves$/ })).toBeVisible();
  await expect(page.getByRole('table').getByRole('row', { name: /Pixels as shot/ })).toBeVisible();
});

test('frames are placed by hand, and a seam is moved off what it would spoil', async ({ page }) => {
  const { station, api } = await freshStation(undefined, {
    ...bare(),
    marks: [{ label: 'Bell', x_m: -1.256, y_m: 1.7, z_m: 9, must: 'free', at_seams: 'fine' }],
    mosaic: { pattern: 'grid', columns: 3, overlap: 0.375, moves: 'rear' },
  });
  await page.goto(`${station}/mosaic`);
  const layout = aside(page, 'Layout');
  await expect(layout.getByText('The seam of frames 1 and 2 runs through Bell.')).toBeVisible();
  await layout.getByRole('button', { name: /^Try: Move all frames/ }).click();
  await expect(layout.getByText(/runs through Bell/)).toBeHidden();

  await layout.getByRole('button', { name: 'Move each by itself' }).click();
  const third = page.getByRole('slider', { name: 'Frame 3' });
  const before = await third.getAttribute('aria-valuenow');
  await third.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(third).not.toHaveAttribute('aria-valuenow', before!);
  await dragBy(page, third, 12, 0);
  await layout.getByRole('button', { name: 'Add a frame' }).click();
  await expect(page.getByRole('slider', { name: 'Frame 4' })).toBeVisible();
  await page.getByRole('slider', { name: 'Frame 4' }).focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('slider', { name: 'Frame 4' })).toBeHidden();
  await expect(saved(page)).toBeVisible();
  const { places } = (await mosaic(api))!;
  expect(places).toHaveLength(3);
  // The adapter clicks at whole millimetres.
  for (const { x_mm } of places!) expect(Math.abs(x_mm - Math.round(x_mm))).toBeLessThan(1e-6);

  await layout.getByRole('button', { name: 'Camera turned' }).click();
  await expect(verdict(page)).toHaveAccessibleName(/come out of 3 frames/);
  await expect(page.getByRole('group', { name: /the camera turned/ })).toBeVisible();
  await layout.getByRole('button', { name: 'Its own stops' }).click();
  await expect(page.getByText(/Nothing on this rig stops at places of its own/)).toBeVisible();
});
