import { withApp } from './lib/browser.mjs';
const light = process.argv[2] ?? 'daylight';
const width = Number(process.argv[3] ?? 1280);
const pages = process.argv.slice(4);
await withApp(
  'shots',
  4590,
  () => {},
  async (browser, address) => {
    const context = await browser.newContext({
      viewport: { width, height: width < 600 ? 844 : 800 },
    });
    await context.addInitScript(
      (l) => localStorage.setItem('gangway.preferences', JSON.stringify({ light: l })),
      light,
    );
    const page = await context.newPage();
    for (const each of pages) {
      const [path, name, click] = each.split('@');
      await page.goto(address + path);
      await page.waitForTimeout(2200);
      if (click) {
        for (const c of click.split('|')) {
          await page.locator(c).first().click();
          await page.waitForTimeout(600);
        }
      }
      await page.screenshot({ path: `/tmp/shot-${name}.png` });
    }
  },
);
