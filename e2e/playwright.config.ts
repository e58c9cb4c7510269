import { defineConfig } from '@playwright/test';
import { BROWSER_ARGS } from '../scripts/lib/browser.mjs';

/** What a browser keeps through trouble is tried in a browser that has never been here. */
const KEPT = ['conflict', 'drafts', 'outage', 'start', 'trial', 'two-servers'].map(
  (name) => `${name}.spec.ts`,
);

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  globalSetup: './global-setup.ts',
  fullyParallel: false,
  workers: 2,
  timeout: 240_000,
  expect: { timeout: Number(process.env.PATIENCE_MS ?? 40_000) },
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      // Painted in the browser's own process: a machine without a graphics card is quicker so.
      args: [...BROWSER_ARGS, '--disable-gpu'],
    },
    // A trace of every step costs a fifth of the time: asked for when one is hunted.
    trace: process.env.TRACE ? 'retain-on-failure' : 'off',
  },
  projects: [
    { name: 'kept', testMatch: KEPT },
    {
      name: 'pages',
      testMatch: '*.spec.ts',
      testIgnore: KEPT,
      // Most of a short test's time went into compiling the app's scripts for a context that knows
      // none. Between tests cookies and storage are emptied; the app keeps nothing anywhere else.
      use: { reuseContext: true },
    },
  ],
});
