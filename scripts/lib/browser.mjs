import { ensureChromium } from './install.mjs';

/** Flags for a browser that must not look outside, started by any user. */
export const BROWSER_ARGS = [
  '--no-sandbox',
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
];

/** Runs `work` with a browser and the app on a database of its own, and puts all away after. */
export async function withApp(name, firstPort, say, work) {
  const { buildServer, buildWeb } = await import('./build.mjs');
  await Promise.all([buildServer(), buildWeb()]);
  const { localPostgres } = await import('./postgres.mjs');
  const { freePort } = await import('./ports.mjs');
  const { ended, startServer } = await import('./server.mjs');
  const { chromium } = await import('@playwright/test');
  const database = localPostgres(name, say);
  const databaseUrl = await database.start();
  const { child, address } = await startServer({ port: await freePort(firstPort), databaseUrl });
  const browser = await chromium.launch({
    executablePath: ensureChromium(say),
    args: BROWSER_ARGS,
  });
  try {
    await work(browser, address, databaseUrl);
  } finally {
    await browser.close();
    child.kill('SIGTERM');
    await ended(child);
    await database.stop();
    database.forget();
  }
}
