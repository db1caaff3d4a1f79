import { createHash, X509Certificate } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { networkInterfaces, tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type Page } from './test.ts';
import { entry, onHead } from './bench.ts';
import { atAsFound } from './onTheStand.ts';
import { CHROMIUM } from './playwright.config.ts';
import { openOwnShop } from './shopFloor.ts';

// the device keeps the whole application, and goes on without the server
test.use({ serviceWorkers: 'allow' });

/** An address of this machine that is not its loopback, where it has one. */
const [address = '127.0.0.1'] = Object.values(networkInterfaces())
  .flatMap((each) => each ?? [])
  .filter(({ family, internal }) => family === 'IPv4' && !internal)
  .map((each) => each.address);

async function signInAt(page: Page, base: string): Promise<void> {
  await page.goto(`${base}/sign-in`);
  await page.getByLabel('Name').fill('Tobin Hask');
  await page.getByLabel('Passphrase').fill('two-full-turns');
  await page.getByLabel('Passphrase').press('Enter');
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
}

test('a tablet on the shop’s network learns to trust the shop, and measures there with no server too', async ({
  page: untrusting,
  browser,
  request,
}) => {
  const folder = await mkdtemp(join(tmpdir(), 'zero-lash-share-'));
  const shop = await openOwnShop('shared', 'yes', {
    ...{ ZERO_LASH_SHARE: 'yes', ZERO_LASH_SHARE_FOLDER: folder, ZERO_LASH_SHARE_ADDRESSES: address },
  });
  await expect.poll(() => shop.said()).toContain('fingerprint');
  const [base] = /https:\/\/\S+/.exec(shop.said())!;
  const [welcome] = new RegExp(`http://${address}:\\d+`).exec(shop.said())!;
  // what a browser that was told nothing says
  const first = await browser.newPage();
  await expect(first.goto(base)).rejects.toThrow(/ERR_CERT/);
  await first.close();
  await untrusting.goto(welcome);
  await expect(untrusting.getByRole('heading', { name: 'Bring this tablet to the bench' })).toBeVisible();
  const [fingerprint] = /(?:[0-9A-F]{2}:){31}[0-9A-F]{2}/.exec(shop.said())!;
  await expect(untrusting.getByText(fingerprint)).toBeVisible();
  await expect(untrusting.getByRole('link', { name: base })).toHaveAttribute('href', base);
  const file = await (await request.get(`${welcome}/zero-lash-shop.crt`)).body();
  const authority = new X509Certificate(file);

  const key = authority.publicKey.export({ type: 'spki', format: 'der' });
  const mark = createHash('sha256').update(key).digest('base64');
  const tablet = await chromium.launch({
    ...CHROMIUM,
    args: [...CHROMIUM.args, `--ignore-certificate-errors-spki-list=${mark}`],
  });
  const context = await tablet.newContext({ viewport: { width: 800, height: 1180 } });
  const page = await context.newPage();
  await signInAt(untrusting, shop.base);
  await atAsFound(untrusting, 'S1 Sawyer', 'On a tablet', shop.base);
  await page.goto(`${base}/sign-in`);
  expect(await page.evaluate(() => window.isSecureContext)).toBe(true);
  await signInAt(page, base);
  await page.goto(`${base}${new URL(untrusting.url()).pathname}`);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload();
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  await context.setOffline(true);
  await entry(page).fill('0.10 0.12');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '1I')).toHaveAccessibleName(/in spec.*waiting to be sent/);
  await context.setOffline(false);
  await expect(onHead(page, '1I')).not.toHaveAccessibleName(/waiting/);
  await tablet.close();
  await shop.stop();
  await rm(folder, { recursive: true });
});
