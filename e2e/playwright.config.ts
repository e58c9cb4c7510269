import { defineConfig } from '@playwright/test';
import { BROWSER_ARGS } from '../scripts/lib/browser.mjs';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
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
      args: BROWSER_ARGS,
    },
    trace: 'retain-on-failure',
  },
});
