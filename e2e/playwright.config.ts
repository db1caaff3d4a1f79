import { defineConfig } from '@playwright/test';

/** Debian's own Chromium: nothing is downloaded. */
export const CHROMIUM = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-software-rasterizer',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

const JOURNEY_MS = 300_000;
/**
 * How long a page may take to show what it should. A machine that others share has been seen to stand still for ten seconds; how
 * fast pages are is what the bench measures.
 */
const SHOWN_MS = 30_000;

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  globalSetup: './shopFloor.ts',
  workers: 2,
  fullyParallel: true,
  timeout: JOURNEY_MS,
  expect: { timeout: SHOWN_MS },
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : 'list',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    locale: 'en-GB',
    timezoneId: 'Europe/Vienna',
    actionTimeout: SHOWN_MS,
    // each journey comes as a new device: only those that go without the server keep the whole application first
    serviceWorkers: 'block',
  },
});
