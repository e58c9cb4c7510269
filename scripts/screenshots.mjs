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
const WIDE = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const VIEWS = [
  { name: 'jobs', path: '/jobs' },
  { name: 'job', path: JOB },
  { name: 'view', path: `${station(1)}/view` },
  { name: 'cover', path: `${station(1)}/cover` },
  { name: 'cover-darkcloth', path: `${station(1)}/cover`, light: 'darkcloth' },
  { name: 'cover-corner-outside', path: `${station(3)}/cover` },
  { name: 'cover-leaned-darkcloth', path: `${station(5)}/cover`, light: 'darkcloth' },
  {
    name: 'cover-why',
    path: `${station(1)}/cover`,
    act: (page) => page.getByRole('button', { name: /^Why: margin/ }).click(),
  },
  { name: 'cover-phone', path: `${station(1)}/cover`, size: PHONE },
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
