import { expect, test } from '@playwright/test';
import { demo, enter, freshStation, saved, scale, stored, typed } from './helpers.js';

test('from a rig to a verdict: lens and back typed in, movements set, kept and found again', async ({
  page,
}) => {
  const { station, api } = await freshStation();
  await page.goto(`${station}/view/rig`);
  await enter(page.getByLabel('Focal length'), '47');
  await enter(page.getByLabel('Widest stop'), 'f/5.6');
  await enter(page.getByLabel('Smallest stop'), '32');
  await page.getByLabel('Format').selectOption('6 × 9 cm');
  await enter(page.getByLabel('Circle, line 1'), '123');
  for (let line = 5; line > 2; line--) {
    await page.getByRole('button', { name: `Remove line ${line}` }).click();
  }
  await enter(page.getByLabel('Stop, line 2'), '22');
  await enter(page.getByLabel('Stop, line 1'), '5.6');
  await enter(page.getByLabel('Circle, line 2'), '166 mm');
  await page.keyboard.press('Escape');
  await enter(page.getByLabel('Rise to'), '40');
  await enter(page.getByLabel('Fall to'), '40');
  await page.getByRole('link', { name: /^Cover/ }).click();
  await enter(typed(page, 'Aperture'), '11');
  await enter(typed(page, 'Distance'), '8m');
  await enter(typed(page, 'Rise'), '10');
  // The ray-traced case of this rig: 144.22 mm at f/11, 31.14 mm of rise, 19.79 mm to either side.
  await expect(page.getByText('144.2').first()).toBeVisible();
  const limits = page.getByRole('complementary', { name: 'Coverage' });
  await expect(limits).toContainText('31.1');
  await expect(limits).toContainText('47.28');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuetext', '10.0 mm up');
  const { document } = await stored(api);
  expect(document.movements.rise_mm).toBe(10);
  expect(document.lens.focal_length_mm).toBe(47);
});

test('a scale is dragged, typed in and moved by keys; undo takes each as one step', async ({
  page,
}) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  const rise = scale(page, 'Rise');
  await expect(rise).toHaveAttribute('aria-valuetext', '9.0 mm up');
  const box = (await rise.boundingBox())!;
  const middle = box.x + box.width / 2;
  await page.mouse.move(middle + 60, box.y + 12);
  await page.mouse.down();
  await page.mouse.move(middle + 20, box.y + 12, { steps: 8 });
  await page.mouse.move(middle, box.y + 12, { steps: 8 });
  await page.mouse.up();
  await expect(rise).toHaveAttribute('aria-valuetext', '0.0 mm');
  for (let i = 0; i < 4; i++) await page.keyboard.down('ArrowUp');
  await page.keyboard.up('ArrowUp');
  await expect(rise).toHaveAttribute('aria-valuetext', '2.0 mm up');
  await page.keyboard.press('m');
  await expect(rise).toHaveAttribute('aria-valuetext', '12.0 mm up');
  await page.keyboard.press('0');
  await expect(rise).toHaveAttribute('aria-valuetext', '0.0 mm');
  await page.keyboard.press('s');
  await expect(scale(page, 'Shift')).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(scale(page, 'Shift')).toHaveAttribute('aria-valuetext', '0.5 mm left');
  // Shift, zero, last allowed, the held key, the drag: five steps.
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  await expect(rise).toHaveAttribute('aria-valuetext', '9.0 mm up');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  await page.keyboard.press('Control+Shift+z');
  await expect(rise).toHaveAttribute('aria-valuetext', '0.0 mm');
  await page.keyboard.press('r');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(rise).toHaveAttribute('aria-valuetext', '5.0 mm up');
  await page.keyboard.press('Alt+ArrowDown');
  await expect(rise).toHaveAttribute('aria-valuetext', '4.95 mm up');
});

test('the frame is dragged in the drawing, kept within what is allowed', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  const centre = page.getByRole('slider', { name: 'Centre of the frame' });
  const box = (await centre.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 300, y, { steps: 10 });
  await page.mouse.up();
  await expect(page.getByRole('link', { name: /^Cover:/ })).not.toHaveAccessibleName(/outside/);
  await expect(scale(page, 'Shift')).toHaveAttribute('aria-valuetext', /mm right$/);
  await centre.focus();
  const before = await centre.getAttribute('aria-valuenow');
  await page.keyboard.press('ArrowDown');
  await expect(centre).not.toHaveAttribute('aria-valuenow', before!);
});

test('a corner that is out lists ways out; one press tries, one undoes', async ({ page }) => {
  const { cover } = await freshStation(undefined, demo('3-customs-house-hall'));
  await page.goto(cover);
  const verdict = page.getByRole('link', { name: /^Cover:/ });
  await expect(verdict).toHaveAccessibleName(/top right corner lies 2\.1 mm outside the circle/);
  const tries = page.getByRole('button', { name: /^Try: / });
  const titles = await tries.evaluateAll((all) => all.map((each) => each.ariaLabel ?? ''));
  expect(titles.length).toBeGreaterThanOrEqual(3);
  expect(titles).toEqual(expect.arrayContaining([expect.stringMatching(/Stop down to f\/11/)]));
  for (const title of titles) {
    await page.getByRole('button', { name: title, exact: true }).click();
    await expect(verdict).not.toHaveAccessibleName(/outside/);
    await page.getByRole('button', { name: title.replace('Try', 'Undo') }).click();
    await expect(verdict).toHaveAccessibleName(/2\.1 mm outside/);
  }
});

test('results open to formula, numbers and source', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  for (const [name, formula] of [
    ['Why: margin of the worst corner', 'tan α = C / 2f'],
    ['Why: limits of the movements', 'R = v · C / 2f'],
    ['Why: image distance', 'v = (D − √(D² − 4 D f / a_z)) / 2'],
  ] as const) {
    await page.getByRole('button', { name }).click();
    await expect(page.getByRole('dialog')).toContainText(formula);
    await page.keyboard.press('Escape');
  }
});

test('fields refuse with a sentence, and lose nothing', async ({ page }) => {
  const { station } = await freshStation();
  await page.goto(`${station}/view/rig`);
  const refused: [string, string, RegExp][] = [
    ['Focal length', 'abc', /“abc” is not a length/],
    ['Focal length', '0', /a number of mm from 1 to 10,000/],
    ['Focal length', '-24', /a number of mm from 1 to 10,000/],
    ['Focal length', 'NaN', /not a length/],
    ['Focal length', '1e400', /too large/],
    ['Stop, line 2', '3.5', /repeats f\/3.5/],
    ['Short side', '50', /at most width_mm/],
    ['From the sensor, straight ahead', '5 cm', /nearer than a 24 mm lens can focus/],
  ];
  for (const [label, text, sentence] of refused) {
    const field = page.getByLabel(label, { exact: true });
    await enter(field, text);
    await expect(field).toHaveValue(text);
    await expect(field).toHaveAccessibleDescription(sentence);
    await field.press('Escape');
  }
  // The lines of a circle are taken in any order.
  await enter(page.getByLabel('Stop, line 2', { exact: true }), '2');
  await expect(page.getByLabel('Stop, line 1', { exact: true })).toHaveValue('f/2');
  await page.getByRole('link', { name: /^Cover/ }).click();
  await enter(typed(page, 'Aperture'), 'f/2');
  await expect(page.getByRole('alert')).toHaveText('This lens opens from f/3.5 to f/22.');
  await enter(typed(page, 'Rise'), '14');
  await expect(page.getByText('Rise goes from −12.0 to 12.0 mm on this rig.')).toBeVisible();
  await page.reload();
  await expect(typed(page, 'Rise')).toHaveValue('14');
  await expect(typed(page, 'Aperture')).toHaveValue('f/2');
});

test('a half-typed word survives a reload', async ({ page }) => {
  const { station } = await freshStation();
  await page.goto(`${station}/view/rig`);
  await page.getByLabel('Focal length').fill('12 inch');
  await page.waitForTimeout(300);
  await page.reload();
  await expect(page.getByLabel('Focal length')).toHaveValue('12 inch');
});

test('lights, units and ground glass are chosen and remembered', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  await page.getByRole('button', { name: 'Light: Daylight; change' }).click();
  await page.getByRole('button', { name: /^Units: millimetres and metres/ }).click();
  await page.keyboard.press('f');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-light', 'darkcloth');
  await expect(typed(page, 'Distance')).toHaveValue('72′ 2″');
  await expect(page.getByRole('button', { name: /ground glass/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await enter(typed(page, 'Distance'), '7\' 10"');
  await expect(scale(page, 'Distance')).toHaveAttribute('aria-valuetext', '7′ 10″');
});

test('keys reach steps, the key sheet and the commands', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  await expect(scale(page, 'Rise')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('1');
  await expect(page.getByRole('group', { name: 'Plan of the site' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What to do').fill('go to cover');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/cover$/);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What to do').fill('set tilt');
  await page.keyboard.press('Enter');
  await expect(scale(page, 'Tilt')).toBeFocused();
});

test('an earlier version is taken back as an edit', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  await enter(typed(page, 'Rise'), '3');
  await expect(saved(page)).toBeVisible();
  await saved(page).click();
  // Versions are listed by their times; one is looked at before it is taken.
  await page.getByRole('button', { name: 'Look at version 1' }).click();
  await expect(page.getByRole('dialog')).toContainText('Customs house');
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuetext', '9.0 mm up');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuetext', '3.0 mm up');
});

test('focus is set by magnification, and says the same as a distance', async ({ page }) => {
  const bench = demo('2-glassblower-bench');
  const movements = { rise_mm: 0, shift_mm: 0, tilt_deg: 7, swing_deg: 0 };
  const { station } = await freshStation(undefined, { ...bench, movements });
  await page.goto(`${station}/view/rig`);
  await page.getByLabel('Set', { exact: true }).selectOption('By magnification');
  await enter(page.getByLabel('Magnification', { exact: true }), '1:2');
  await expect(page.getByLabel('Magnification', { exact: true })).toHaveValue('0.5');
  await page.getByLabel('Set', { exact: true }).selectOption('On the bed');
  // v = f (1 + m) / cos 7°, worked here.
  const image = page.getByLabel('On the bed, lens straight');
  await expect(image).toHaveValue((165 / Math.cos((7 * Math.PI) / 180)).toFixed(3));
  await page.getByLabel('Set', { exact: true }).selectOption('By distance');
  // D = v + v f / (v cos 7° − f) = 498.7 mm.
  await expect(scale(page, 'Distance')).toHaveAttribute('aria-valuetext', '0.499 m');
});

test('the wheel moves the scale under it, and undo takes it back', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  const rise = scale(page, 'Rise');
  await rise.hover();
  await page.mouse.wheel(0, -120);
  await expect(rise).toHaveAttribute('aria-valuetext', '10.5 mm up');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(rise).toHaveAttribute('aria-valuetext', '9.0 mm up');
  await rise.hover();
  await page.mouse.wheel(0, 200);
  await expect(rise).toHaveAttribute('aria-valuetext', '6.5 mm up');
});

test('a way out is taken from the commands; the back is turned by hand', async ({ page }) => {
  const { cover } = await freshStation(undefined, demo('3-customs-house-hall'));
  await page.goto(cover);
  const verdict = page.getByRole('link', { name: /^Cover:/ });
  await expect(verdict).toHaveAccessibleName(/outside/);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What to do').fill('stop down');
  await page.keyboard.press('Enter');
  await expect(verdict).not.toHaveAccessibleName(/outside/);
  await expect(scale(page, 'Aperture')).toHaveAttribute('aria-valuetext', 'f/11');
  await page.getByRole('button', { name: 'Turn the back level' }).click();
  await expect(page.getByRole('button', { name: 'Turn the back upright' })).toBeVisible();
});

test('a name that cannot be is refused beside it and kept', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  const name = page.getByLabel('Name of the station');
  await enter(name, '   ');
  await expect(page.getByRole('alert')).toHaveText('Give the station a name.');
  await enter(name, 'x'.repeat(201));
  await expect(page.getByRole('alert')).toHaveText('This must be at most 200 characters long.');
  await expect(name).toHaveValue('x'.repeat(201));
  await name.press('Escape');
  await expect(name).toHaveValue('Customs house, north front');
});

test('undo survives a reload; a page prints without its controls, on white', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  await enter(typed(page, 'Rise'), '4');
  await enter(typed(page, 'Rise'), '5');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuenow', '4');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuenow', '5');

  await page.getByRole('button', { name: /^Light: Daylight/ }).click();
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('html')).toHaveAttribute('data-light', 'daylight');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeHidden();
  await expect(scale(page, 'Rise')).toBeHidden();
  await expect(page.getByText('Worst corner, ')).toBeVisible();
  await page.emulateMedia({ media: null });
  await expect(page.locator('html')).toHaveAttribute('data-light', 'darkcloth');
});
