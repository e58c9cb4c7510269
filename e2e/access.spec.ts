import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { lens, makeItem, unique } from './gear.js';
import { ADDRESS, demo, freshStation, saved } from './helpers.js';

const DEMO_LENS = 'b0000000-0000-4000-8000-000000000001';

/** What an owner may have measured. */
const MEASURED = {
  on: '14 March 2026',
  files: ['a.jpg'],
  odd: ['Every stop: the right side lags: 75 % of the detail opposite, leaned or decentred.'],
  circle: [{ f_number: 2.8, diameter_mm: 55 }, { f_number: 8, diameter_mm: 58 }],
  sharpness: [2.8, 8].map((f_number) => ({ f_number, zones: [{ zone: 'centre', radius_mm: 2, mtf50_cy_mm: 60 }, { zone: 'corner', radius_mm: 18, mtf50_cy_mm: 30 }] })),
  detail: [2.8, 8, 16].map((f_number, i) => ({ f_number, zones: [{ zone: 'centre', radius_mm: 2, kept: [0.6, 1, 0.8][i] }] })),
  centre_mm: { x: 0.4, y: -0.2 },
  diffraction_from: 16,
}; // prettier-ignore

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Goes to another place of the app without loading it anew, as a link does. */
const within = (page: Page, address: string): Promise<void> =>
  page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state: null }));
  }, address);

/** A rig of the demo, but for its last digit. */
const RIG = 'c0000000-0000-4000-8000-00000000000';

/** Read in the other light too; of the rest the tokens answer (apps/web/test/light.test.ts). */
const IN_BOTH_LIGHTS =
  /\/(cover|cover\/limits|focus|focus\/stop|mosaic|expose|card|log|kit|lenses\/[^/]+)$/;

test('screens keep WCAG 2.2 AA in both lights, and the page breaks no content policy', async ({
  page,
}) => {
  // Every screen is read whole: a slow machine takes its time over that.
  test.setTimeout(720_000);
  const errors: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(message.text());
  });
  const dark: string[] = [];
  const axe = () =>
    new AxeBuilder({ page })
      .setLegacyMode(true) // No frame is shown: no second page is needed to gather them.
      .options({ resultTypes: ['violations'] });
  const none = async (builder: AxeBuilder): Promise<void> => {
    const { violations } = await builder.analyze();
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
  };
  const lit = (light: 'daylight' | 'darkcloth') =>
    page.evaluate((chosen) => (document.documentElement.dataset.light = chosen), light);
  const check = async (): Promise<void> => {
    await none(axe().withTags(TAGS));
    const { pathname } = new URL(page.url());
    if (!IN_BOTH_LIGHTS.test(pathname)) return;
    // Only colours differ between the lights: the rest is read once.
    dark.push(pathname);
    await lit('darkcloth');
    await none(axe().withRules('color-contrast'));
    await lit('daylight');
  };
  const { cover, station, job } = await freshStation(undefined, demo('3-customs-house-hall'));
  await page.goto(cover);
  await expect(saved(page)).toBeVisible();
  await check();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await within(page, `${station}/view/rig`);
  await expect(page.getByRole('heading', { name: 'Lens' })).toBeVisible();
  await check();
  const day = `${ADDRESS}/jobs/a0000000-0000-4000-8000-000000000002`;
  await within(page, `${day}/log`);
  await expect(page.getByRole('grid', { name: 'Log' })).toHaveAttribute('aria-rowcount', '61');
  await check();
  await within(page, `${day}/files`);
  await page.getByRole('button', { name: 'Use the demo’s pictures' }).click();
  await expect(page.getByText('52 sure')).toBeVisible({ timeout: 60_000 });
  await check();
  const quay = await freshStation(undefined, demo('6-customs-house-quay'));
  for (const [path, shown] of [
    ['view', 'Façade or wall'],
    ['cover', 'Ways to get it all in'],
    ['cover/limits', 'Strip (PDF)'],
    ['cover/turn-in', 'What is stretched'],
    ['cover/software', 'Pointed, as taken'],
    ['cover/variants', 'Keep this, go on with a copy'],
  ] as const) {
    await within(page, `${quay.station}/${path}`);
    await expect(page.getByText(shown)).toBeVisible();
    await check();
  }
  const bench = await freshStation(undefined, demo('2-glassblower-bench'));
  for (const [path, shown] of [
    ['focus', 'Already set.'],
    ['focus/stop', 'Diffraction on this back'],
    ['focus/soft', 'Looks to begin from'],
    ['focus/stack', 'Frames share'],
    ['focus/bed', 'Two readings are wanted: the nearest thing and the farthest.'],
    ['focus/close', 'Focal length that acts'],
    ['focus/held-off', 'A hand must hold the gap to'],
  ] as const) {
    await within(page, `${bench.station}/${path}`);
    await expect(page.getByText(shown)).toBeVisible();
    await check();
  }
  const frames = await freshStation(undefined, demo('10-ropewalk-frames'));
  for (const [path, shown] of [
    ['mosaic', 'The whole picture'],
    ['mosaic/wish', 'What do you want?'],
    ['mosaic/order', 'In this order, each from the same side'],
    ['mosaic/schools', 'Pixels as shot'],
  ] as const) {
    await within(page, `${frames.station}/${path}`);
    await expect(page.getByText(shown)).toBeVisible();
    await check();
  }
  await within(page, `${frames.station}/mosaic/prove`);
  await expect(page.getByText('Do the frames fit?')).toBeVisible();
  await check();
  await page.getByRole('button', { name: 'Demo: one that slipped' }).click();
  await expect(page.getByText('It slipped')).toBeVisible();
  await check();
  const own = await makeItem(lens(unique('Measured'), { measured: MEASURED }));
  for (const [path, shown] of [
    ['lenses', 'Two beside each other'],
    [`lenses/${own.id}`, 'What it changes'],
    [`lenses/${own.id}/flat`, 'Drop the pictures here'],
    [`lenses/beside?a=${own.id}`, 'Two lenses beside each other'],
  ] as const) {
    await within(page, `${ADDRESS}/${path}`);
    await expect(page.getByText(shown).first()).toBeVisible();
    await check();
  }
  await within(page, `${ADDRESS}/lenses/${DEMO_LENS}/series`);
  await page.getByRole('button', { name: 'Use the demo’s pictures' }).click();
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Keep with the lens' })).toBeVisible();
  await check();
  const film = await freshStation(undefined, demo('5-salt-marsh'));
  for (const [path, shown] of [
    ['expose', 'From the meter to the shutter, in stops'],
    ['expose/bellows', 'What drawing out costs'],
    ['expose/tapes', 'Tapes (PDF)'],
    ['card', 'Done, next'],
    ['card/paper', 'The card on paper'],
  ] as const) {
    await within(page, `${film.station}/${path}`);
    await expect(page.getByText(shown)).toBeVisible();
    await check();
  }
  await within(page, `${film.job}/sheets`);
  await expect(page.getByText('To pack').first()).toBeVisible();
  await check();
  await within(page, job);
  await expect(page.getByRole('listitem')).toHaveCount(1);
  await check();
  for (const [path, headed] of [
    ['jobs', 'Jobs'],
    ['begin', 'Your own lens'],
    ['words', 'Words'],
    ['kit', 'Kit'],
    ['kit/b0000000-0000-4000-8000-000000000001', 'Shift 24 f/3.5'],
    ['kit/import', 'Import kit'],
    ['rigs', 'Rigs'],
    [`rigs/${RIG}6/match`, 'Match the picture of'],
    [`rigs/compare?rigs=${RIG}1,${RIG}4`, 'Compare rigs'],
  ] as const) {
    await within(page, `${ADDRESS}/${path}`);
    await expect(page.getByRole('heading', { level: 1, name: headed })).toBeVisible();
    await check();
  }
  await within(page, `${ADDRESS}/rigs/${RIG}7`);
  await expect(page.getByLabel('Name of the rig')).toBeVisible();
  await check();
  expect(dark.length).toBeGreaterThanOrEqual(10);
  expect(errors).toEqual([]);
});

test('on a phone nothing is wider than the screen and the scales are there', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const { cover, station } = await freshStation();
  for (const address of [
    cover,
    ...[
      'view',
      'view/rig',
      'cover/limits',
      'cover/turn-in',
      'focus',
      'focus/stop',
      'focus/soft',
      'focus/stack',
      'focus/bed',
      'focus/close',
      'focus/held-off',
      'cover/software',
      'cover/variants',
      'mosaic',
      'mosaic/wish',
      'mosaic/prove',
      'expose',
      'expose/bellows',
      'expose/tapes',
      'card',
      'card/paper',
    ].map((path) => `${station}/${path}`),
    ...[
      'jobs',
      'kit',
      'kit/new/lens',
      'kit/import',
      'rigs',
      'lenses',
      `lenses/${DEMO_LENS}`,
      `lenses/${DEMO_LENS}/zero`,
      'lenses/beside',
    ].map((path) => `${ADDRESS}/${path}`),
    `${ADDRESS}/rigs/c0000000-0000-4000-8000-000000000016`,
    `${ADDRESS}/rigs/c0000000-0000-4000-8000-000000000006/match`,
    `${ADDRESS}/rigs/compare?rigs=c0000000-0000-4000-8000-000000000001`,
  ]) {
    await (page.url().startsWith(ADDRESS) ? within(page, address) : page.goto(address));
    // The card has a phone to itself: no lists above it.
    await expect(
      page.getByRole(/\/card$/.test(address) ? 'heading' : 'banner').first(),
    ).toBeVisible();
    const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
    await page.waitForTimeout(300);
    expect(await wide()).toBeLessThanOrEqual(390);
  }
  await page.close();
});
