import { expect, test, type Page } from '@playwright/test';
import { demo, dragBy, enter, freshStation, saved, stored } from './helpers.js';

interface Marked {
  movements: { tilt_deg: number; swing_deg: number };
  aperture: number;
  marks: { label: string; x_m: number; y_m: number; z_m: number; must: string }[];
}

const document = async (api: string): Promise<Marked> =>
  (await stored(api)).document as unknown as Marked;

const told = (page: Page) => page.getByRole('complementary', { name: 'Focus' });
const verdict = (page: Page) => page.getByRole('link', { name: /^Focus:/ });
const undo = (page: Page) => page.getByRole('button', { name: 'Undo', exact: true });

const bench = () => demo('2-glassblower-bench');
const following = () => ({ ...bench(), solve: { tilt: true, swing: true, follow: true } });

test('a held key on a mark is one step of undo, the settings that followed with it', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, following());
  await page.goto(`${station}/focus`);
  const rim = page.getByRole('slider', { name: 'Rim, from the side' });
  const before = await document(api);
  await rim.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.down('ArrowDown');
  await page.keyboard.up('ArrowDown');
  await expect(saved(page)).toBeVisible();
  const after = await document(api);
  expect(after.marks[2]!.y_m).toBeCloseTo(before.marks[2]!.y_m - 0.03, 6);
  expect(after.movements.tilt_deg).not.toBeCloseTo(before.movements.tilt_deg, 2);
  await expect(verdict(page)).toHaveAccessibleName(/holds all 3/);
  await undo(page).click();
  await expect(undo(page)).toBeDisabled();
  await expect(saved(page)).toBeVisible();
  const back = await document(api);
  expect(back.marks).toEqual(before.marks);
  expect(back.movements).toEqual(before.movements);
});

test('a mark moved among the buildings takes the settings along as well', async ({ page }) => {
  const { station, api } = await freshStation(undefined, following());
  const before = await document(api);
  await page.goto(`${station}/view`);
  const rim = page.getByRole('slider', { name: 'Rim, from the side' });
  await rim.press('ArrowDown');
  await expect(verdict(page)).toHaveAccessibleName(/holds all 3/);
  await expect(saved(page)).toBeVisible();
  const after = await document(api);
  // Near work moves by half a centimetre, not by a brick.
  expect(after.marks[2]!.y_m).toBeCloseTo(before.marks[2]!.y_m - 0.005, 6);
  expect(after.movements.tilt_deg).not.toBe(before.movements.tilt_deg);
});

test('a close-up is shown by its marks first; whole and camera are one press away', async ({
  page,
}) => {
  const { station } = await freshStation(undefined, demo('8-beetle-on-a-leaf'));
  await page.goto(`${station}/focus`);
  const zoom = page.getByRole('group', { name: 'Zoom on' });
  await expect(zoom.getByRole('button', { name: 'Marks' })).toHaveAttribute('aria-pressed', 'true');
  const [eye, horn] = ['Eye', 'Horn'].map((name) =>
    page.getByRole('slider', { name: `${name}, from the side` }),
  );
  const gap = async (): Promise<number> => {
    const [a, b] = [(await eye!.boundingBox())!, (await horn!.boundingBox())!];
    return Math.hypot(a.x - b.x, a.y - b.y);
  };
  await expect(eye!).toBeVisible();
  const apart = await gap();
  // The lens is off this sheet, and not to be reached on it.
  const lens = page.getByRole('slider', { name: 'Lens, tilt' });
  await expect(lens).toHaveCount(0);
  await zoom.getByRole('button', { name: 'Scene' }).click();
  await expect(lens).toBeVisible();
  expect(await gap()).toBeLessThan(apart / 2);
  await zoom.getByRole('button', { name: 'Camera' }).click();
  await expect(page.getByText(/mm image distance/)).toBeVisible();
  await expect(eye!).toHaveCount(0);
});

test('distances stand under the marks, in the units that are chosen', async ({ page }) => {
  const { station } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus`);
  const side = page.getByRole('group', { name: /^Side section/ });
  for (const far of ['890 mm', '1150 mm', '1410 mm'])
    await expect(side.getByText(far)).toBeVisible();
  await expect(side.getByText('701 mm', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Units: millimetres and metres/ }).click();
  await expect(side.getByText('890 mm')).toHaveCount(0);
  await expect(side.getByText(/2′ 11/)).toBeVisible();
  await expect(told(page).getByText(/^Set the focusing ring to 3′/)).toBeVisible();
});

test('on a phone a mark is placed, the scales are set and a stop is chosen', async ({
  browser,
}) => {
  const { marks, ...bare } = bench() as unknown as Marked & Record<string, unknown>;
  const { station, api } = await freshStation(undefined, {
    ...bare,
    marks: marks.slice(0, 2),
    movements: { ...(bare.movements as object), tilt_deg: 0 },
  });
  const page = await browser.newPage({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  await page.goto(`${station}/focus`);
  // Other ways come in above the marks and move them down.
  await expect(page.getByRole('heading', { name: 'Or', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Add a mark' }).tap();
  const fields = page
    .getByRole('complementary')
    .getByRole('group')
    .filter({ has: page.getByText('Mark 3', { exact: true }) });
  await enter(fields.getByLabel('Right of the axis'), '-1cm');
  await enter(fields.getByLabel('Above ground'), '1200mm');
  await enter(fields.getByLabel('Ahead'), '1.41 m');
  await expect(told(page).getByText(/^Lean the lens forward 9\.\d°\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Set the scales so' }).tap();
  await expect(page.getByText('Already set.')).toBeVisible();
  await page.getByRole('link', { name: 'Stop', exact: true }).tap();
  await page.getByRole('button', { name: /^Set f\/16/ }).tap();
  await expect(saved(page)).toBeVisible();
  const set = await document(api);
  expect(set.marks).toHaveLength(3);
  expect(set.movements.tilt_deg).toBeCloseTo(9.02, 0);
  expect(set.aperture).toBeCloseTo(16, 0);
  expect(await page.evaluate(() => window.document.documentElement.scrollWidth)).toBe(390);
  await page.close();
});

test('a section is drawn anew while it is dragged, and lies still under the hand', async ({
  page,
}) => {
  const { station } = await freshStation(undefined, following());
  await page.goto(`${station}/focus`);
  const label = page.getByRole('slider', { name: 'Label, from the side' });
  const rim = page.getByRole('slider', { name: 'Rim, from the side' });
  await expect(label).toBeVisible();
  const [still, box] = [(await label.boundingBox())!, (await rim.boundingBox())!];
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y - 25, { steps: 6 });
  await expect
    .poll(async () => {
      const now = (await rim.boundingBox())!;
      return Math.round(now.x + now.width / 2 - x);
    })
    .toBe(20);
  // Another mark has not moved: only the one in the hand does.
  const after = (await label.boundingBox())!;
  expect(Math.abs(after.x - still.x)).toBeLessThan(1);
  expect(Math.abs(after.y - still.y)).toBeLessThan(1);
  await page.mouse.up();
  await expect(verdict(page)).toHaveAccessibleName(/holds all 3/);
});

test('two people on one station: what was dragged is not lost', async ({ page, context }) => {
  const { station, api } = await freshStation(undefined, bench());
  const other = await context.newPage();
  // Neither hears of the other.
  for (const each of [page, other]) {
    await each.route('**/api/changes', (route) => route.abort());
  }
  await page.goto(`${station}/focus`);
  await other.goto(`${station}/focus`);
  await expect(other.getByText('Already set.')).toBeVisible();
  await page.getByRole('slider', { name: 'Label, from the side' }).press('ArrowUp');
  await expect(saved(page)).toBeVisible();
  await dragBy(other, other.getByRole('slider', { name: 'Rim, from the side' }), 0, -12);
  const dialog = other.getByRole('dialog');
  await expect(dialog).toBeVisible();
  const mine = (await document(api)).marks[2]!.y_m;
  await dialog.getByRole('button', { name: /Keep mine/ }).click();
  await expect(saved(other)).toBeVisible();
  expect((await document(api)).marks[2]!.y_m).toBeGreaterThan(mine);
  await other.close();
});
