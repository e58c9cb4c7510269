import { expect, test, type Page } from '@playwright/test';
import { freePort } from '../scripts/lib/ports.mjs';
import { ended, startServer } from '../scripts/lib/server.mjs';
import { ADDRESS, enter, freshStation, saved, scale, stored, typed } from './helpers.js';

/** Two people, each with a browser of their own, each on a server of their own; one database. */
test('what one saves shows with the other, who is told before a save of theirs would be refused', async ({
  browser,
}) => {
  const second = await startServer({
    port: await freePort(4390),
    databaseUrl: process.env.GANGWAY_DATABASE_URL ?? '',
    logLevel: 'silent',
    demo: 'off',
  });
  try {
    const { cover, api } = await freshStation();
    const there = cover.replace(ADDRESS, second.address);
    const pages: Page[] = [];
    for (const address of [cover, there]) {
      const page = await (await browser.newContext()).newPage();
      await page.goto(address);
      await expect(saved(page)).toBeVisible();
      pages.push(page);
    }
    const [here, other] = pages as [Page, Page];
    // Nothing is unsaved: the page follows, either way.
    await enter(typed(here, 'Rise'), '3');
    await expect(scale(other, 'Rise')).toHaveAttribute('aria-valuetext', '3.0 mm up');
    await enter(typed(other, 'Rise'), '4');
    await expect(scale(here, 'Rise')).toHaveAttribute('aria-valuetext', '4.0 mm up');

    // An edit that cannot be sent is unsaved; word of the other's save puts the question first.
    let sent = 0;
    await other.route('**/api/stations/*', async (route) => {
      if (route.request().method() !== 'PUT') return route.continue();
      sent += 1;
      return route.abort();
    });
    await enter(typed(other, 'Rise'), '5');
    await expect.poll(() => sent).toBeGreaterThan(0);
    await enter(typed(here, 'Shift'), '2');
    const dialog = other.getByRole('dialog', { name: 'Changed elsewhere' });
    await expect(dialog).toContainText('movements shift mm');
    await other.unroute('**/api/stations/*');
    await dialog.getByRole('button', { name: 'Take the other' }).click();
    await expect(scale(other, 'Shift')).toHaveAttribute('aria-valuetext', '2.0 mm right');
    await expect(scale(other, 'Rise')).toHaveAttribute('aria-valuetext', '4.0 mm up');
    expect((await stored(api)).document.movements).toMatchObject({ rise_mm: 4, shift_mm: 2 });
    for (const page of pages) await page.context().close();
  } finally {
    second.child.kill('SIGTERM');
    await ended(second.child);
  }
});
