import { readFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { demo, dragBy, enter, freshStation, saved, scale, stored, typed } from './helpers.js';

const quay = () => demo('6-customs-house-quay');
const ropewalk = () => demo('4-ropewalk');

interface Sited {
  facade: { distance_m: number; top_m: number; measured?: { reading_m: number } };
  site: { boxes: { name: string; x_m: number; z_m: number }[]; room?: { length_m: number } };
  camera: { height_m: number; yaw_deg: number };
  movements: { rise_mm: number; shift_mm: number };
  variants?: { present: string; kept: { name: string }[] };
  crop?: { across: number; up: number };
}

const document = async (api: string): Promise<Sited> =>
  (await stored(api)).document as unknown as Sited;

const verdict = (page: Page): Locator => page.getByRole('link', { name: /^Cover:/ });

test('a site is typed in from nothing: façade, room, box, level line; impossible ones are refused', async ({
  page,
}) => {
  const { facade: _, ...bare } = demo('1-customs-house-front');
  const { station, api } = await freshStation(undefined, bare);
  await page.goto(`${station}/view`);
  await expect(page.getByText('Nothing stands in front yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await enter(page.getByLabel('Distance, level'), '20');
  await enter(page.getByLabel('Top above ground'), '49\' 3"');
  await enter(page.getByLabel('Foot above ground'), '0');
  await expect(page.getByRole('slider', { name: 'Top of the façade' })).toHaveAttribute(
    'aria-valuetext',
    '15.0 m',
  );
  for (const [label, text, why] of [
    ['Distance, level', '0', /from 0.001/],
    ['Distance, level', '0.01', /inside the wall/],
    ['Foot above ground', '16', /must lie below the top/],
  ] as const) {
    await enter(page.getByLabel(label), text);
    await expect(page.getByRole('alert')).toHaveText(why);
    await expect(page.getByLabel(label)).toHaveValue(text);
    await page.getByLabel(label).press('Escape');
  }
  await page.getByRole('button', { name: 'Add a room' }).click();
  await enter(page.getByLabel('Length', { exact: true }), '40');
  await enter(page.getByLabel('Camera from the left wall'), '99');
  await expect(page.getByRole('alert')).toHaveText(/outside the room/);
  await page.getByLabel('Camera from the left wall').press('Escape');
  await page.getByRole('button', { name: 'Add a box' }).click();
  await enter(page.getByLabel('Name', { exact: true }), 'Rope chest');
  await enter(page.getByLabel('Middle, ahead'), '−3');
  await expect(page.getByRole('alert')).toHaveText(/behind the camera/);
  await enter(page.getByLabel('Middle, ahead'), '4');
  await page.getByRole('button', { name: 'Add a level line' }).click();
  await enter(page.getByLabel('Height of line 1'), '3.2');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Rope chest/ })).toBeVisible();
  const kept = await document(api);
  expect(kept.facade).toMatchObject({ distance_m: 20, top_m: 15.0114 });
  expect(kept.site.boxes[0]).toMatchObject({ name: 'Rope chest', z_m: 4 });
  expect(kept.site.room!.length_m).toBe(40);
});

test('a distance is read along the slope from the tripod, and kept as it was read', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, quay());
  await page.goto(`${station}/view`);
  await page.getByRole('button', { name: 'Distance from a reading …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Reading').fill('2');
  await dialog.getByLabel('Read', { exact: true }).selectOption('slope');
  await dialog.getByLabel('Aimed at a height of').fill('9.6');
  await dialog.getByLabel('Held at a height of').fill('1.6');
  await expect(dialog).toContainText('shorter than the height it spans, 8.00 m');
  await dialog.getByLabel('Reading').fill('17');
  await dialog.getByLabel('From').selectOption('tripod');
  await dialog.getByLabel('Sensor ahead of the tripod by').fill('10 cm');
  // 17, 8, 15: less the 0.1 m.
  await expect(dialog).toContainText('14.900');
  await dialog.getByRole('button', { name: 'Use this distance' }).click();
  await expect(page.getByText('Read 17.00 m along the slope, from the tripod.')).toBeVisible();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).facade).toMatchObject({
    distance_m: 14.9,
    measured: { reading_m: 17 },
  });
});

test('things are dragged in plan and elevation, or moved by key; undo takes each back', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, quay());
  await page.goto(`${station}/view`);
  const plan = page.getByRole('group', { name: 'Plan of the site' });
  const front = plan.getByRole('slider', { name: 'Façade, from above' });
  await expect(front).toHaveAttribute('aria-valuetext', '16.0 m away, straight ahead');
  await dragBy(page, front, 0, -30);
  await expect(front).not.toHaveAttribute('aria-valuetext', /^16\.0 m/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(front).toHaveAttribute('aria-valuetext', '16.0 m away, straight ahead');
  await front.press('Shift+ArrowUp');
  await expect(front).toHaveAttribute('aria-valuetext', '17.0 m away, straight ahead');
  const shed = plan.getByRole('slider', { name: 'Net shed' });
  await dragBy(page, shed, 20, 0);
  await expect(shed).not.toHaveAttribute('aria-valuetext', /11\.5 m to the right/);
  const side = page.getByRole('group', { name: 'The site from the side' });
  const camera = side.getByRole('slider', { name: 'Camera, from the side' });
  await camera.press('Shift+ArrowUp');
  await expect(camera).toHaveAttribute('aria-valuetext', '2.60 m high');
  const top = side.getByRole('slider', { name: 'Top of the façade' });
  await dragBy(page, top, 0, 25);
  await expect(top).not.toHaveAttribute('aria-valuetext', '18.4 m');
  // Held under the ground the foot stays where it last could be.
  await plan.getByRole('slider', { name: 'Camera, from above' }).press('ArrowDown');
  await expect(front).toHaveAttribute('aria-valuetext', /^17\.1 m away/);
  await expect(saved(page)).toBeVisible();
  const kept = await document(api);
  expect(kept.camera.height_m).toBe(2.6);
  expect(kept.facade.distance_m).toBe(17.1);
});

test('a façade that is cut lists ways to get it in; each is looked at, taken, undone', async ({
  page,
}) => {
  const { cover } = await freshStation(undefined, quay());
  await page.goto(cover);
  await expect(verdict(page)).toHaveAccessibleName(/does not fit into the frame from here/);
  const aside = page.getByRole('complementary', { name: 'Coverage' });
  await expect(aside.getByText('Ways to get it all in')).toBeVisible();
  const tries = aside.getByRole('button', { name: /^Try: / });
  await expect(tries.nth(4)).toBeVisible();
  const titles = await tries.evaluateAll((all) => all.map((each) => each.ariaLabel ?? ''));
  for (const kind of [/Turn the back/, /Step back/, /Use .*19/, /Point the camera/, /Raise/]) {
    expect(titles).toEqual(expect.arrayContaining([expect.stringMatching(kind)]));
  }
  // Looked at first: the drawing shows it, the station stays.
  await aside.getByRole('button', { name: /^Look at: Step back/ }).click();
  await expect(page.getByText('Looking at:')).toBeVisible();
  await expect(verdict(page)).toHaveAccessibleName(/does not fit/);
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(page.getByText('Looking at:')).toBeHidden();
  for (const title of titles) {
    await page.getByRole('button', { name: title, exact: true }).click();
    await expect(verdict(page)).not.toHaveAccessibleName(/cut|does not fit|outside/);
    await page.getByRole('button', { name: title.replace('Try', 'Undo') }).click();
    await expect(verdict(page)).toHaveAccessibleName(/does not fit/);
    await expect(page.getByRole('button', { name: title, exact: true })).toBeVisible();
  }
});

test('limits by stop come as a table, a strip in SVG and one in PDF', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  await page.getByRole('link', { name: 'Limits by stop' }).click();
  await expect(page.getByRole('row', { name: /^f\/4 63\.4/ })).toContainText('11.3');
  const save = async (name: string): Promise<Buffer> => {
    const waiting = page.waitForEvent('download');
    await page.getByRole('button', { name }).click();
    return readFileSync(await (await waiting).path());
  };
  const table = (await save('Table (CSV)')).toString('utf8');
  expect(table).toMatch(/^f_number,circle_mm,circle_is,level_up_mm,/);
  expect(table.trim().split('\r\n')).toHaveLength(8);
  expect((await save('Strip (SVG)')).toString('utf8')).toContain('100 mm long');
  expect((await save('Strip (PDF)')).subarray(0, 5).toString()).toBe('%PDF-');
});

test('turn in, shift back: a stretched thing is picked, the amount chosen, the turn made', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, ropewalk());
  await page.goto(`${station}/cover/turn-in`);
  const aside = page.getByRole('complementary', { name: 'Turn in, shift back' });
  await aside.getByRole('button', { name: 'Ease: Tool cupboard' }).click();
  await expect(aside.getByRole('radio', { name: 'Left edge' })).toHaveAttribute(
    'aria-checked',
    'true',
  );
  await enter(aside.getByLabel('Yaw, right positive'), '−6');
  await expect(aside.getByText('Shift to')).toBeVisible();
  await aside.getByRole('button', { name: 'Why: shift that holds the picture' }).click();
  await expect(page.getByRole('dialog')).toContainText('tan(β − ψ)');
  await page.keyboard.press('Escape');
  await enter(aside.getByLabel('Yaw, right positive'), '−40');
  await expect(aside.getByRole('status')).toContainText('More than circle or mechanism allow');
  await expect(aside.getByRole('button', { name: 'Set yaw and shift' })).toBeDisabled();
  await enter(aside.getByLabel('Yaw, right positive'), '−6');
  await aside.getByRole('button', { name: 'Set yaw and shift' }).click();
  await expect(saved(page)).toBeVisible();
  const kept = await document(api);
  expect(kept.camera.yaw_deg).toBe(-6);
  expect(kept.movements.shift_mm).toBeGreaterThan(0);
});

test('shift or software: the same picture both ways, with what it costs', async ({ page }) => {
  const { cover } = await freshStation();
  await page.goto(cover);
  await page.getByRole('link', { name: 'Shift or software' }).click();
  const aside = page.getByRole('complementary', { name: 'Shift or software' });
  await expect(aside).toContainText('20.5');
  await expect(aside).toContainText('37.4 of 45.4');
  await expect(page.getByText('Pointed, corrected')).toBeVisible();
  await enter(typed(page, 'Rise'), '0');
  await expect(aside).toContainText('No rise is set');
});

test('variants are kept, laid side by side, chosen, renamed, removed', async ({ page }) => {
  const { cover, api } = await freshStation(undefined, quay());
  await page.goto(`${cover}/variants`);
  await page.getByRole('button', { name: 'Keep this, go on with a copy' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name of the new variant').fill('As set');
  await dialog.getByRole('button', { name: 'Go on with it' }).click();
  await expect(dialog.getByRole('alert')).toHaveText(/one named “As set” already/);
  await dialog.getByLabel('Name of the new variant').fill('Upright');
  await dialog.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByRole('listitem')).toHaveCount(2);
  await enter(typed(page, 'Rise'), '8');
  await page.getByRole('button', { name: 'Choose As set' }).click();
  await expect(scale(page, 'Rise')).toHaveAttribute('aria-valuetext', '0.0 mm');
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).variants).toMatchObject({
    present: 'As set',
    kept: [{ name: 'Upright', settings: { movements: { rise_mm: 8 } } }],
  });
  await page.reload();
  await page.getByRole('button', { name: 'More for Upright' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await dialog.getByLabel('New name').fill('Tall');
  await dialog.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('button', { name: 'Choose Tall' })).toBeVisible();
  await page.getByRole('button', { name: 'More for Tall' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Choose Tall' })).toBeVisible();
});

test('a crop is chosen, slid and taken off; thirds are laid over', async ({ page }) => {
  const { cover, api } = await freshStation();
  await page.goto(cover);
  const shape = page.getByLabel('Across : up');
  await enter(shape, '4 by 5');
  await expect(page.getByRole('alert')).toContainText('write for example 4:5');
  await enter(shape, '1:1');
  await expect(page.getByLabel('Slide')).toBeVisible();
  await page.getByRole('button', { name: 'With thirds' }).click();
  await expect(page.getByRole('button', { name: 'Without thirds' })).toBeVisible();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).crop).toMatchObject({ across: 1, up: 1 });
  await page.getByRole('button', { name: 'Whole picture' }).click();
  await expect(shape).toHaveValue('');
});

test('a turning lens is told its turn and goes onto its stop', async ({ page }) => {
  const hall = demo('3-customs-house-hall');
  const { cover } = await freshStation(undefined, {
    ...hall,
    movement_limits: {
      radial_shift_mm: 12,
      moves: 'front',
      turn_stops_deg: [0, 30, 60, 90],
      tilt_deg: [0, 0],
      swing_deg: [0, 0],
    },
    movements: { rise_mm: 6, shift_mm: 6, tilt_deg: 0, swing_deg: 0 },
  });
  await page.goto(cover);
  await expect(
    page.getByText(/No stop gives all that is set: (30|60)° comes nearest/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Set what comes nearest' }).click();
  await expect(page.getByText(/No stop gives/)).toBeHidden();
  await expect(
    page.getByText(/^Turn the lens to its (30|60)° stop, clockwise as seen from behind, and there/),
  ).toBeVisible();
});
