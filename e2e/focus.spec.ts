import { expect, test } from '@playwright/test';
import { dragBy, enter, freshStation, saved } from './helpers.js';
import { bench, document, line, told, unset, verdict } from './focus-bench.js';

test('marks by tape are told a lean, a focus and a stop; one press sets the scales', async ({
  page,
}) => {
  const { marks: _, ...bare } = unset();
  const { station, api } = await freshStation(undefined, bare);
  await page.goto(`${station}/focus`);
  await expect(page.getByRole('heading', { name: 'Nothing to hold yet' })).toBeVisible();
  await expect(verdict(page)).toHaveAccessibleName(/No marks are set/);
  for (const [i, [name, x, y, z]] of [
    ['Label', '-50', '1000', '890mm'],
    ['Stopper', '7cm', '1.1 m', '1150'],
    ['Rim', '-1cm', '1200 mm', '1.41m'],
  ].entries()) {
    await page.getByRole('button', { name: 'Add a mark' }).click();
    const fields = line(page, `Mark ${i + 1}`);
    // It opens with the keyboard in its name.
    await expect(fields.getByLabel('Name')).toBeFocused();
    await enter(fields.getByLabel('Right of the axis'), x!);
    await enter(fields.getByLabel('Above ground'), y!);
    await enter(fields.getByLabel('Ahead'), z!);
    await enter(fields.getByLabel('Name'), name!);
  }
  await expect(told(page).getByText(/^Lean the lens forward 9\.0°\.$/)).toBeVisible();
  await expect(told(page).getByText(/^Stop down to f\/\d/)).toBeVisible();
  await expect(verdict(page)).toHaveAccessibleName(/is not as wanted/);
  await page.getByRole('button', { name: 'Set the scales so' }).click();
  await expect(page.getByText('Already set.')).toBeVisible();
  await expect(verdict(page)).toHaveAccessibleName(
    'Focus: f/11 holds all 3 marks as they are wanted.',
  );
  await expect(saved(page)).toBeVisible();
  const set = await document(api);
  expect(set.movements.tilt_deg).toBeCloseTo(9.02, 1);
  expect(set.marks.map(({ z_m }) => z_m)).toEqual([0.89, 1.15, 1.41]);
  await page.reload();
  await expect(page.getByText('Already set.')).toBeVisible();
  await page.getByText('Look at the marks in this order').click();
  await expect(page.getByText(/crisp with the lens wide open/)).toBeVisible();
  await page.getByText('Without scales: focus far, lean near').click();
  await expect(page.getByText(/Repeat from the focus on|does not come to rest/)).toBeVisible();
  await page.getByRole('button', { name: 'Why: lean, focus and stop' }).click();
  await expect(page.getByText(/Thin-lens conjugates/)).toBeVisible();
});

test('a figure that cannot be is refused beside its field and kept', async ({ page }) => {
  const { station } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus`);
  const label = line(page, 'Label');
  await label.getByText('Label', { exact: true }).click();
  await enter(label.getByLabel('Ahead'), 'yonder');
  await expect(label.getByRole('alert')).toHaveText(/yonder/);
  await expect(label.getByLabel('Ahead')).toHaveValue('yonder');
  await page.reload();
  await label.getByText('Label', { exact: true }).click();
  await expect(label.getByLabel('Ahead')).toHaveValue('yonder');
});

test('a mark is dragged, and the settings follow when they are to', async ({ page }) => {
  const { station, api } = await freshStation(undefined, {
    ...bench(),
    solve: { tilt: true, swing: true },
  });
  await page.goto(`${station}/focus`);
  const rim = page.getByRole('slider', { name: 'Rim, from the side' });
  await dragBy(page, rim, 0, -8);
  await expect(verdict(page)).toHaveAccessibleName(/holds [12] of 3/);
  await expect(saved(page)).toBeVisible();
  const loose = await document(api);
  expect(loose.movements.tilt_deg).toBeCloseTo(9.024, 3);
  expect(loose.marks[2]!.y_m).toBeGreaterThan(1.2);
  await page.getByLabel('Settings follow the marks').check();
  await expect(verdict(page)).toHaveAccessibleName(/holds all 3/);
  await page.getByRole('slider', { name: 'Label, from the side' }).press('ArrowDown');
  await expect(verdict(page)).toHaveAccessibleName(/holds all 3/);
  await expect(saved(page)).toBeVisible();
  const followed = await document(api);
  expect(followed.marks[0]!.y_m).toBeCloseTo(0.995, 6);
  expect(followed.movements.tilt_deg).not.toBeCloseTo(9.024, 2);
  await page.getByRole('slider', { name: 'Stopper, in the finder' }).press('ArrowLeft');
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).marks[1]!.x_m).toBeLessThan(0.07);
});

test('plane, hinge and lens are moved in the sections, by hand and by key', async ({ page }) => {
  const { station, api } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus`);
  const plane = page.getByRole('slider', { name: 'Plane of sharp focus' });
  const before = await document(api);
  await plane.press('ArrowUp');
  await expect(saved(page)).toBeVisible();
  const focused = await document(api);
  expect(focused.movements.tilt_deg).toBe(before.movements.tilt_deg);
  expect(focused.focus.distance_m).not.toBeCloseTo(before.focus.distance_m!, 4);
  const hinge = page.getByRole('slider', { name: 'Hinge line, from the side' });
  await expect(hinge).toHaveAttribute('aria-valuetext', /^hinge line, 701 mm below the lens$/);
  await dragBy(page, hinge, 0, 25);
  await expect(hinge).toHaveAttribute('aria-valuetext', /7[2-9]\d mm below/);
  const lens = page.getByRole('slider', { name: 'Lens, tilt' });
  await lens.press('ArrowRight');
  await expect(saved(page)).toBeVisible();
  const leaned = await document(api);
  expect(leaned.movements.tilt_deg).not.toBe(focused.movements.tilt_deg);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(hinge).toHaveAttribute('aria-valuetext', /701 mm/);
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await dragBy(page, page.getByRole('slider', { name: 'Lens, swing' }), 0, 0);
  await page.getByRole('slider', { name: 'Lens, swing' }).press('ArrowUp');
  await expect(page.getByRole('slider', { name: 'Lens, swing' })).toHaveAttribute(
    'aria-valuetext',
    /0\.5° (left|right)/,
  );
  await page.getByRole('button', { name: 'Both' }).click();
  await page.getByRole('button', { name: 'Camera' }).click();
  await expect(page.getByText(/off the sheet/).first()).toBeVisible();
  await expect(page.getByRole('group', { name: /^Side section\./ })).toBeVisible();
  await expect(page.getByRole('group', { name: /^Plan\./ })).toBeVisible();
});

test('marks are picked from the site, asked to be soft, put to infinity, taken away', async ({
  page,
}) => {
  const { station, api } = await freshStation(undefined, bench());
  await page.goto(`${station}/focus`);
  await page.getByLabel('From the site').selectOption({ label: 'four corners of its top' });
  await expect(page.getByText('Bench near left', { exact: true }).first()).toBeVisible();
  await page.getByLabel('From the site').selectOption({ label: 'top, middle' });
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).marks).toHaveLength(9);
  const one = line(page, 'Bench far left');
  await one.getByText('Bench far left', { exact: true }).click();
  await one.getByLabel('Must be').selectOption('soft');
  await enter(one.getByLabel('Blur at least'), '120');
  await one.getByLabel('At infinity, in this direction').check();
  await page.getByRole('button', { name: 'Remove Bench far left' }).click();
  await expect(saved(page)).toBeVisible();
  expect((await document(api)).marks).toHaveLength(8);
});

test('marks that cannot be say so in a sentence, with the best that can be done', async ({
  page,
}) => {
  const station = bench();
  const behind = {
    ...station,
    marks: [...station.marks, { label: 'Door', x_m: 0, y_m: 1.3, z_m: -2, must: 'sharp' }],
  };
  const { station: address } = await freshStation(undefined, behind);
  await page.goto(`${address}/focus`);
  await expect(page.getByText(/^Door lies behind the camera/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'The best that can be done' })).toBeVisible();
  await expect(page.getByText(/^Lean the lens forward/)).toBeVisible();
});
