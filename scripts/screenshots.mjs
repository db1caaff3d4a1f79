import { mkdirSync } from 'node:fs';
import { ensureBuilt } from './build.mjs';
import { ensureDatabase, startCluster } from './database.mjs';
import { ensurePackages, ROOT } from './packages.mjs';
import { addressOf, freePort, startGauge, startMeters, startServer, stopped } from './server.mjs';
import { ensureChromium } from './system.mjs';

const FOLDER = `${ROOT}docs/screenshots`;
const TABLET = { width: 768, height: 1024 };

/** Each picture: its name, how to get to its view from Today, and how the device is. */
const VIEWS = [
  ['today', async () => {}],
  ['engines', (page) => page.getByRole('link', { name: 'Engines', exact: true }).click()],
  [
    'build-as-found',
    async (page) => {
      await page.getByRole('link', { name: /Frost fan 7/ }).click();
      await page.getByRole('textbox', { name: /^Gap at/ }).fill('0.28 0.33');
    },
  ],
  [
    'build-check',
    async (page) => {
      await page.getByRole('link', { name: /Hose pump/ }).click();
      await page.getByRole('button', { name: /Turned as said/ }).waitFor();
    },
  ],
  [
    'where-to-turn',
    async (page) => {
      await page.getByRole('link', { name: /Snow groomer 2/ }).click();
      await page.getByRole('button', { name: 'In position' }).click();
      await page.getByText('the crank stands here').first().waitFor();
      await page
        .getByRole('heading', { name: 'The crank wheel' })
        .evaluate((heading) => heading.scrollIntoView());
      await page.mouse.move(640, 400);
      await page.mouse.wheel(0, -330);
      await page.waitForTimeout(500);
    },
  ],
  [
    'build-shim-plan',
    async (page) => {
      await page.getByRole('link', { name: /Railcar 4/ }).click();
      await page.getByRole('region', { name: 'Moves of the plan' }).waitFor();
      await page.getByRole('heading', { name: 'Shim plan' }).evaluate((heading) => heading.scrollIntoView());
    },
  ],
  ['drawer', (page) => page.getByRole('link', { name: 'Drawer' }).click()],
  [
    'build-tablet',
    async (page) => {
      await page.getByRole('link', { name: /Irrigation pump/ }).click();
    },
    { viewport: TABLET, hasTouch: true, isMobile: true },
  ],
  [
    'build-count-out',
    async (page) => {
      await page.getByRole('link', { name: /Brackwater/ }).click();
      await page.getByRole('heading', { name: 'Parts off' }).evaluate((heading) => heading.scrollIntoView());
    },
  ],
  [
    'build-wear',
    async (page) => {
      await page.getByRole('link', { name: /Line trolley/ }).click();
      await page.getByRole('region', { name: 'Camshafts' }).waitFor();
    },
  ],
  [
    'build-lash-budget',
    async (page) => {
      await page.getByRole('link', { name: /Railcar 2/ }).click();
      await page
        .getByRole('heading', { name: 'What it does to the gaps' })
        .evaluate((heading) => heading.scrollIntoView());
    },
  ],
  [
    'lash-trend',
    async (page) => {
      await page.getByRole('link', { name: 'Engines', exact: true }).click();
      await page.locator('#engine-search').fill('Cold Corner');
      await page.getByRole('link', { name: 'Frost fan 18, Cold Corner' }).click();
      await page.getByRole('region', { name: 'Lash trend' }).evaluate((part) => part.scrollIntoView());
    },
  ],
  ['rechecks', (page) => page.getByRole('link', { name: 'Rechecks', exact: true }).click()],
  ['usage', (page) => page.getByRole('link', { name: 'Usage', exact: true }).click()],
  [
    'fleet',
    async (page) => {
      await page.getByRole('link', { name: 'Rechecks', exact: true }).click();
      await page.getByRole('link', { name: 'What our engines say' }).click();
      await page.getByText('Forecasts against findings').waitFor();
    },
  ],
  ['build-close', (page) => page.getByRole('link', { name: /Edger/ }).click()],
  ['build-recheck', (page) => page.getByRole('link', { name: /Fire pump, Overmere Quay/ }).click()],
  [
    'sheet',
    async (page) => {
      await page.getByRole('link', { name: 'Spec sheets' }).click();
      await page.getByRole('link', { name: 'Hadderby L6 Winder' }).click();
      await page.getByRole('heading', { name: 'Hadderby L6 Winder' }).waitFor();
    },
  ],
  [
    'sheet-form',
    async (page) => {
      await page.getByRole('link', { name: 'Spec sheets' }).click();
      await page.getByRole('link', { name: 'Vessany R4 Rime' }).click();
      await page.getByRole('link', { name: 'New revision' }).click();
      await page.getByRole('heading', { name: /a new revision/ }).waitFor();
      await page.getByRole('slider').waitFor();
    },
  ],
];

ensurePackages();
const executablePath = ensureChromium();
const { chromium } = await import('@playwright/test');
const only = process.argv.slice(2);
const cluster = await startCluster(`.data/screenshots-${process.pid}`, { throwaway: true });
const gaugePort = await freePort();
const gauge = startGauge(gaugePort);
const meterPort = await freePort();
const meters = startMeters(meterPort);
let server;
let browser;
try {
  const url = await ensureDatabase(cluster, 'screenshots');
  server = startServer(
    {
      DATABASE_URL: url,
      WEB_ROOT: ensureBuilt(),
      ZERO_LASH_DEMO: 'yes',
      PORT: '0',
      DEMO_METERS: `127.0.0.1:${meterPort}`,
      DEMO_GAUGE: `127.0.0.1:${gaugePort}`,
    },
    'pipe',
  );
  const base = await addressOf(server);
  mkdirSync(FOLDER, { recursive: true });
  browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic'],
  });
  for (const [name, reach, device = {}] of VIEWS) {
    if (only.length > 0 && !only.includes(name)) continue;
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      locale: 'en-GB',
      timezoneId: 'Europe/Vienna',
      ...device,
    });
    await page.goto(`${base}/sign-in`);
    if (reach) {
      await page.getByLabel('Name').fill('Ilse Marrand');
      await page.getByLabel('Passphrase').fill('brass-and-feeler');
      await page.getByLabel('Passphrase').press('Enter');
      await page.getByText('On the bench').waitFor();
      await reach(page);
      await page.waitForURL((url) => name.startsWith('today') || url.pathname !== '/');
    }
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.waitForLoadState('networkidle');
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: `${FOLDER}/${name}.png` });
    await page.close();
  }
} finally {
  await browser?.close();
  if (server) await stopped(server);
  await Promise.all([stopped(gauge), stopped(meters)]);
  cluster.stop();
}
