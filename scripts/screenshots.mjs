import { mkdirSync } from 'node:fs';
import { at } from './lib/paths.mjs';
import { withApp } from './lib/browser.mjs';
import { ensurePackages } from './lib/install.mjs';

/** One current picture of each main view, made from the demo data. */
const say = (text) => console.log(text);
ensurePackages(say);

const FOLDER = at('docs/screenshots');
const JOB = '/jobs/a0000000-0000-4000-8000-000000000001';
const station = (n) =>
  `${JOB}/stations/a0000000-0000-4000-8000-${String(100 + n).padStart(12, '0')}`;
const DAY = '/jobs/a0000000-0000-4000-8000-000000000002';
const planned = (n) =>
  `${DAY}/stations/a0000000-0000-4000-8000-${String(200 + n).padStart(12, '0')}`;
const rig = (n) => `/rigs/c0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const LENS = '/lenses/b0000000-0000-4000-8000-000000000001';
const WIDE = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const VIEWS = [
  { name: 'job', path: DAY, act: (page) => page.getByText('f/11 holds 1 of 1').waitFor() },
  { name: 'site', path: `${station(6)}/view` },
  { name: 'cover', path: `${station(1)}/cover` },
  {
    name: 'cover-cut',
    path: `${station(6)}/cover`,
    act: (page) => page.getByText('Ways to get it all in').waitFor(),
  },
  { name: 'focus', path: `${station(2)}/focus` },
  {
    name: 'focus-darkcloth',
    path: `${station(5)}/focus`,
    light: 'darkcloth',
    act: (page) => page.getByRole('button', { name: 'Both' }).click(),
  },
  { name: 'kit', path: '/kit' },
  { name: 'bench', path: rig(7) },
  { name: 'mosaic', path: `${station(10)}/mosaic` },
  {
    name: 'prove',
    path: `${station(10)}/mosaic/prove`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Demo: one that slipped' }).click();
      await page.getByText('It slipped').waitFor({ timeout: 60_000 });
      await page.waitForTimeout(1500);
    },
  },
  { name: 'expose', path: `${planned(2)}/expose` },
  { name: 'card-paper', path: `${planned(3)}/card/paper` },
  {
    name: 'card-phone',
    path: `${planned(3)}/card`,
    size: PHONE,
    light: 'darkcloth',
    act: (page) => page.getByRole('button', { name: 'Done, next' }).click(),
  },
  {
    name: 'log',
    path: `${DAY}/log`,
    act: (page) => page.getByRole('grid', { name: 'Log' }).waitFor(),
  },
  {
    name: 'files',
    path: `${DAY}/files`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Use the demo’s pictures' }).click();
      await page.getByText('52 sure').waitFor({ timeout: 60_000 });
    },
  },
  { name: 'packing', path: `${DAY}/sheets` },
  { name: 'cover-phone', path: `${station(1)}/cover`, size: PHONE },
  // Late: afterwards the kit's first lens is measured.
  {
    name: 'lens',
    path: `${LENS}/flat`,
    act: async (page) => {
      for (const way of ['Flat field', 'Same scene, every stop']) {
        await page.getByRole('link', { name: way }).click();
        await page.getByRole('button', { name: 'Use the demo’s pictures' }).click();
        await page.getByRole('button', { name: 'Measure', exact: true }).click();
        await page.getByRole('button', { name: 'Keep with the lens' }).click();
        await page.getByText('Kept: see the lens').waitFor();
        await page.getByRole('button', { name: 'Close message' }).last().click();
      }
      await page.getByRole('link', { name: 'Kept: see the lens' }).click();
      await page.getByText('drag one, all follow').waitFor();
      await page.waitForTimeout(1500);
    },
  },
  // Last: afterwards the station's lens is in the hand, and its other pages say only that.
  {
    name: 'held-off',
    path: `${station(2)}/focus/held-off`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Set it so' }).click();
      await page.getByText('Already set.').waitFor();
      await page.waitForTimeout(700);
    },
  },
];

mkdirSync(FOLDER, { recursive: true });
await withApp('screenshots', 4670, say, async (browser, address) => {
  for (const { name, path, light = 'daylight', size = WIDE, act } of VIEWS) {
    const page = await browser.newPage({ viewport: size, hasTouch: size === PHONE });
    await page.addInitScript(
      (chosen) => localStorage.setItem('gangway.preferences', JSON.stringify({ light: chosen })),
      light,
    );
    await page.goto(address + path);
    await page.getByRole('main').waitFor();
    await page.waitForTimeout(700);
    await act?.(page);
    await page.waitForTimeout(300);
    if (size === PHONE) {
      // The whole page in one piece; a full-page capture would forget that fingers touch it.
      const height = await page.evaluate(() => document.documentElement.scrollHeight);
      await page.setViewportSize({ ...PHONE, height });
      await page.waitForTimeout(300);
    }
    await page.screenshot({ path: `${FOLDER}/${name}.png` });
    await page.close();
    say(`docs/screenshots/${name}.png`);
  }
});
