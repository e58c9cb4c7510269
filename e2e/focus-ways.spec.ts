import { expect, test } from '@playwright/test';
import { ADDRESS, demo, enter, freshStation, newStation, saved } from './helpers.js';
import { bench, document, unset, verdict } from './focus-bench.js';

test('other ways are looked at and tried: straight, the back instead', async ({ page }) => {
  const { station, api } = await freshStation(undefined, {
    ...demo('5-salt-marsh'),
    movement_limits: {
      moves: 'front',
      tilt_deg: [-25, 25],
      swing_deg: [-20, 20],
      rear_tilt_deg: [-20, 20],
      rear_swing_deg: [-15, 15],
    },
  });
  await page.goto(`${station}/focus`);
  await expect(page.getByText(/^Lean the front standard forward 11\.\d°\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Try: Lean the back instead' }).click();
  await expect(page.getByText(/^Lean the rear standard back at its top/)).toBeVisible();
  await expect(page.getByLabel('the back, not the lens')).toBeChecked();
  await expect(saved(page)).toBeVisible();
  const back = await document(api);
  expect(back.movements.rear_tilt_deg).toBeGreaterThan(5);
  expect(back.movements.tilt_deg).toBe(0);
  await expect(page.getByText('Lines: uprights converge')).toBeVisible();
  await enter(page.getByLabel('Back tilts, top away'), '0');
  await expect(page.getByText('Set the scales so')).toBeVisible();
  await page.getByRole('button', { name: /^Try: No lean, f\// }).click();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).movements.rear_tilt_deg ?? 0).toBe(0);
});

test('every stop is told, the best is marked, one is set; the standard is kept for the job', async ({
  page,
}) => {
  const { station, api, job } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus/stop`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'f/11 is best; f/5.6 to f/22 hold',
  );
  await expect(page.getByRole('img', { name: /^Blur, Airy disc and both together/ })).toBeVisible();
  const row = page.getByRole('row', { name: /^f\/16/ });
  await expect(row).toContainText('3 of 3');
  await row.getByRole('button', { name: 'Set f/16' }).click();
  await expect(row.getByText('set', { exact: true })).toBeVisible();
  await page.getByLabel('Standard').selectOption('coc');
  await enter(page.getByLabel('Circle of confusion'), '0.02');
  await page.getByRole('button', { name: 'Keep for this job' }).click();
  await expect(page.getByText('New stations of this job begin with it.')).toBeVisible();
  await expect(saved(page)).toBeVisible();
  expect(await document(api)).toMatchObject({ aperture: 16, criterion: { coc_mm: 0.02 } });
  await page.goto(job);
  await newStation(page);
  await page.getByRole('link', { name: 'Rig and settings' }).click();
  await expect(page.getByLabel('Circle of confusion')).toHaveValue('0.02');
});

test('one of three is left sharp; looks lean as they say', async ({ page }) => {
  const { station, api } = await freshStation(undefined, demo('7-three-ropemakers'));
  await page.goto(`${station}/focus/soft`);
  const row = page.getByRole('row', { name: /^Left face/ });
  await expect(row).toContainText('soft');
  await expect(page.getByText('Darkest corner falls off')).toBeVisible();
  await page.getByRole('button', { name: 'Try: A toy town' }).click();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).movements.tilt_deg).toBeLessThan(-5);
  await page.getByRole('button', { name: 'Try: Only Middle face' }).click();
  await expect(saved(page)).toBeVisible();
  const set = await document(api);
  expect(Math.abs(set.movements.swing_deg)).toBeGreaterThan(1);
  expect(set.movements.tilt_deg).toBe(0);
});

test('a lean and a stack are weighed against each other', async ({ page }) => {
  const { station, api } = await freshStation(undefined, unset());
  await page.goto(`${station}/focus/stack`);
  const stack = page.getByRole('listitem').filter({ hasText: 'A stack, straight' });
  await expect(stack).toContainText('61');
  // As slices through the scene, beside the one wedge.
  await expect(page.getByRole('group', { name: 'A stack, straight: 61 frames' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'One frame, leaned: one frame' })).toBeVisible();
  await enter(page.getByLabel('Frames share'), '50');
  await expect(stack).toContainText('98');
  await enter(page.getByLabel('Frames share'), '120');
  await expect(page.getByRole('alert')).toHaveText(/0\.95/);
  await page.getByRole('button', { name: 'Set for: One frame, leaned' }).click();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).movements.tilt_deg).toBeCloseTo(9.02, 1);
});

test('a leaned back is told until it is saved; its own rise and shift are set beside it', async ({
  page,
}) => {
  const rope = demo('4-ropewalk');
  const { station, api } = await freshStation(undefined, {
    ...rope,
    movement_limits: {
      ...(rope.movement_limits as object),
      rear_tilt_deg: [-20, 20],
      rear_rise_mm: [-30, 30],
    },
    movements: { ...(rope.movements as object), rear_tilt_deg: 8 },
  });
  await page.goto(`${station}/focus`);
  await expect(page.getByText(/read anew: it turns about its own middle/)).toBeVisible();
  const rise = page.getByLabel('Back looks higher');
  await enter(rise, '45');
  await expect(page.getByRole('alert')).toHaveText(/from −30\.0 mm to 30\.0 mm/);
  await enter(rise, '10');
  await expect(saved(page)).toBeVisible();
  await expect(page.getByText(/read anew/)).toHaveCount(0);
  const kept = (await document(api)) as unknown as Record<string, unknown>;
  expect(kept).toMatchObject({ lean_checked: true, movements: { rear_rise_mm: 10 } });
  await page.getByRole('link', { name: /^Cover/ }).click();
  await expect(page.getByText('The back, by itself')).toBeVisible();
});

test('the bed scale gives focus, stop and lean without a plan', async ({ page }) => {
  const { station, api } = await freshStation(undefined, { ...demo('5-salt-marsh') });
  await page.goto(`${station}/focus/bed`);
  await enter(page.getByLabel('Nearest thing crisp at'), '14');
  await enter(page.getByLabel('Farthest thing crisp at'), '10');
  await expect(page.getByText('f/38.7')).toBeVisible();
  await enter(page.getByLabel('Infinity crisp at'), '0');
  await enter(page.getByLabel('Nearest thing, above the middle of the glass'), '-60');
  await enter(page.getByLabel('Farthest thing, above the middle of the glass'), '20');
  await page.getByRole('button', { name: 'Set this lean' }).click();
  await expect(saved(page)).toBeVisible();
  const set = await document(api);
  expect(set.bed!.near_mm).toBe(14);
  expect(set.movements.tilt_deg).toBeGreaterThan(0.5);
});

test('close up begins with the magnification and hands a panorama on', async ({ page }) => {
  const { station, api } = await freshStation(undefined, demo('8-beetle-on-a-leaf'));
  await page.goto(`${station}/focus/close`);
  await expect(page.getByText('55.6')).toBeVisible();
  await enter(page.getByLabel('Magnification on the back'), '1:1');
  await expect(page.getByText('36.0 × 24.0')).toBeVisible();
  await page.getByRole('button', { name: 'Plan three frames at this focus' }).click();
  await expect(page).toHaveURL(/\/mosaic$/);
  await expect(page.getByRole('link', { name: /^Mosaic:/ })).toHaveAccessibleName(
    /Frames 1 and 3 have black corners/,
  );
  await expect(saved(page)).toBeVisible();
  const set = await document(api);
  expect(set.focus.magnification).toBeCloseTo(1, 6);
  expect(set.mosaic).toMatchObject({ columns: 3 });
});

test('a lens held off the body is told what it gives, with care', async ({ page }) => {
  const { station, api } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus/held-off`);
  await expect(page.getByRole('note')).toContainText('never let the sun fall');
  await enter(page.getByLabel('Gap between the flanges, at the middle'), '3');
  await enter(page.getByLabel('Width of the lens’s back'), '60');
  await enter(page.getByLabel('Lean', { exact: true }), '9');
  await expect(page.getByText(/At 9\.0° the flanges touch/)).toBeVisible();
  await enter(page.getByLabel('Register of the lens'), '44');
  await enter(page.getByLabel('Register of the body'), '18');
  await expect(page.getByText('Infinity at a gap of')).toBeVisible();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).held_off).toMatchObject({ gap_mm: 3, lens_register_mm: 44 });
  await page.reload();
  await expect(page.getByLabel('Gap between the flanges, at the middle')).toHaveValue('3');
  // By hand in the drawing, by key as well.
  await page.getByRole('slider', { name: 'Lens, its gap' }).press('ArrowRight');
  await expect(page.getByLabel('Gap between the flanges, at the middle')).toHaveValue('3.5');
  // From the marks: gap, lean and side; then nothing is judged as if the lens were mounted.
  await page.getByRole('button', { name: 'Set it so' }).click();
  await expect(page.getByText('Already set.')).toBeVisible();
  await expect(verdict(page)).toHaveAccessibleName(/ahead at .*2 of 3 marks|marks are as they/);
  await expect(page.getByRole('link', { name: /^Cover: The lens is held off/ })).toBeVisible();
  // The pages for a mounted lens judge nothing meanwhile, and lead back.
  await page.getByRole('link', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('The lens is in the hand');
  await page.getByRole('link', { name: 'Gap and lean' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Held off the body');
  await page.getByRole('button', { name: 'Mount it again' }).click();
  await expect(page.getByRole('link', { name: /^Cover: The whole frame/ })).toBeVisible();
});

test('two hundred marks are solved beside the page', async ({ page }) => {
  const station = bench();
  const marks = Array.from({ length: 200 }, (_, i) => ({
    label: `m${i}`,
    x_m: -0.1 + 0.01 * (i % 20),
    y_m: 1 + 0.01 * Math.floor(i / 20) + 0.003 * (i % 3),
    z_m: 0.9 + 0.05 * Math.floor(i / 20),
    must: 'sharp',
  }));
  const { station: address } = await freshStation(undefined, { ...station, marks });
  await page.goto(`${address}/focus`);
  await expect(page.getByText(/^200 marks, set so$/)).toBeVisible();
  await page.getByRole('button', { name: 'Set the scales so' }).click();
  await expect(page.getByText('Already set.')).toBeVisible();
});

test('what is sharp is marked in the user’s colour, and remembered', async ({ page }) => {
  const { station } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus`);
  await page.getByLabel('How what is sharp is marked').selectOption('magenta');
  await page.reload();
  await expect(page.getByLabel('How what is sharp is marked')).toHaveValue('magenta');
  await page.goto(`${ADDRESS}/jobs`);
});
