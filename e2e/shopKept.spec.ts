import { expect, test, type Page } from './test.ts';
import { entry, onHead } from './bench.ts';
import { openOwnShop } from './shopFloor.ts';

let shop: Awaited<ReturnType<typeof openOwnShop>> | undefined;
test.afterEach(async () => {
  await shop?.stop();
  shop = undefined;
});

/** Goes to a page by its place in the navigation, and waits until it is the one that is shown. */
async function place(page: Page, name: string): Promise<void> {
  const link = page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name, exact: true });
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
  await expect(page).toHaveURL(new URL((await link.getAttribute('href'))!, page.url()).href);
}

async function signIn(page: Page, name: string, passphrase: string): Promise<void> {
  await page.goto(`${shop!.base}/sign-in`);
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Passphrase').fill(passphrase);
  await page.getByLabel('Passphrase').press('Enter');
  await expect(page.getByRole('contentinfo')).toContainText(name);
}
const asLead = (page: Page) => signIn(page, 'Ilse Marrand', 'brass-and-feeler');

test('a lead sets the shop’s zone, and every day and hour is one of it', async ({ page }) => {
  shop = await openOwnShop('zone');
  await asLead(page);
  await page.getByRole('link', { name: /Frost fan 7/ }).click();
  const opened = page.getByText(/^Round opened by/);
  await expect(opened.first()).toBeVisible();
  const before = await opened.first().textContent();
  await place(page, 'Shop');
  const zone = page.getByRole('textbox', { name: 'Time zone' });
  await expect(zone).toHaveValue('Europe/Vienna');
  await zone.fill('Mars/Base');
  await zone.press('Enter');
  await expect(page.getByRole('alert')).toHaveText(/There is no such zone/);
  await expect(zone).toHaveValue('Mars/Base');
  await zone.fill('Pacific/Kiritimati');
  await page.getByRole('form', { name: 'Time zone' }).getByRole('button').click();
  await expect(page.getByRole('form', { name: 'Time zone' }).getByRole('button')).toBeDisabled();
  const today = new Intl.DateTimeFormat('en-GB', { timeZone: 'Pacific/Kiritimati', dateStyle: 'medium' });
  await place(page, 'Today');
  await expect(page.getByText(today.format(new Date())).first()).toBeVisible();
  await page.getByRole('link', { name: /Frost fan 7/ }).click();
  await expect(opened.first()).toBeVisible();
  expect(await opened.first().textContent()).not.toBe(before);
});

test('a new meter goes on from the old one, and says so; a slip needs a word', async ({ page }) => {
  shop = await openOwnShop('meter');
  await signIn(page, 'Tobin Hask', 'two-full-turns');
  await place(page, 'Engines');
  await page.getByRole('link', { name: /Fire pump, Overmere Quay/ }).click();
  const running = page
    .getByRole('region', { name: 'Running' })
    .or(page.locator('section', { hasText: 'Running' }));
  const now = page.getByLabel(/^Now, in/);
  const shown = (await running.first().innerText()).match(/([\d,.]+)\s*\n?\s*hours/)![1]!;
  const last = Number(shown.split(',').join(''));
  await now.fill('12');
  // which of the two it is, nobody says for them
  await expect(page.getByLabel('Lower than before, because')).toHaveValue('');
  await page.getByRole('button', { name: 'Log' }).click();
  await expect(
    page.getByText(/say whether a new meter was fitted, or the last figure was a slip/),
  ).toBeVisible();
  await page.getByLabel('Lower than before, because').selectOption('new-meter');
  await page.getByLabel(/^The old one stopped at/).fill(String(last));
  await page.getByLabel('The new one began at').fill('60');
  await page.getByRole('button', { name: 'Log' }).click();
  await expect(page.getByRole('alert')).toContainText(/began at or below/);
  await expect(now).toHaveValue('12');
  await page.getByLabel('The new one began at').fill('10');
  await page.getByRole('button', { name: 'Log' }).click();
  await expect(page.getByText(/in all, over every meter it had/)).toBeVisible();
  await expect(page.getByText(new RegExp(`begun at 10; the old one stopped at ${last}`))).toBeVisible();
  await now.fill('11');
  await page.getByLabel('Lower than before, because').selectOption('slip');
  await page.getByRole('button', { name: 'Log' }).click();
  await expect(page.getByRole('alert')).toContainText(/needs a reason/);
  await page.getByLabel('What the slip was').fill('read the wrong dial');
  await page.getByRole('button', { name: 'Log' }).click();
  await expect(page.getByText(/^11$/)).toBeVisible();
});

test('whoever signs out everywhere, or is signed out by a lead, is out on every tablet', async ({
  browser,
  page,
}) => {
  shop = await openOwnShop('everywhere');
  const tablet = await (await browser.newContext()).newPage();
  await signIn(tablet, 'Tobin Hask', 'two-full-turns');
  await tablet.getByRole('link', { name: /Frost fan 7/ }).click();
  await entry(tablet).waitFor();
  await signIn(page, 'Tobin Hask', 'two-full-turns');
  await place(page, 'Shop');
  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  // the tablet's stream ended with the session, and its page asked who is there
  await expect(tablet.getByRole('button', { name: 'Sign in' })).toBeVisible({ timeout: 20_000 });

  await signIn(tablet, 'Tobin Hask', 'two-full-turns');
  await asLead(page);
  await place(page, 'Shop');
  const tobin = page.locator('form', { has: page.getByLabel('Name of Tobin Hask') });
  await page.getByRole('button', { name: 'Name, passphrase of Tobin Hask' }).click();
  await expect(tobin).toBeVisible();
  await tobin.getByRole('button', { name: 'Sign them out everywhere' }).click();
  await expect(tobin.getByRole('button', { name: 'Signed out everywhere' })).toBeVisible();
  await tablet.reload();
  await expect(tablet.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await page.getByLabel('Role of Petra Quell').selectOption('bench');
  await expect(page.getByText('role: viewer → bench')).toBeVisible();
});

test('a reading the server breaks over is set aside with why, and the ones after it arrive', async ({
  page,
}) => {
  shop = await openOwnShop('aside');
  await signIn(page, 'Tobin Hask', 'two-full-turns');
  await page.getByRole('link', { name: /Frost fan 7/ }).click();
  let broken = true;
  await page.route('**/api/rounds/*/readings', async (route) => {
    const { point } = route.request().postDataJSON() as { point: string };
    if (!broken || point !== '1I') return route.continue();
    await route.fulfill({
      status: 500,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        ...{ type: 'about:blank', title: 'Something broke here.', status: 500, code: 'broken' },
        detail: 'Something broke here. The log has it as 1a2b3c4d.',
      }),
    });
  });
  const measure = async (point: string) => {
    await onHead(page, point).click();
    await entry(page).fill('0.28 0.30');
    await entry(page).press('Enter');
  };
  await measure('1I');
  await measure('1E');
  await expect(page.getByRole('status').filter({ hasText: 'Refused, 1' })).toBeVisible({ timeout: 20_000 });
  await onHead(page, '1I').click();
  await expect(page.getByRole('alert').filter({ hasText: 'The log has it as 1a2b3c4d' })).toBeVisible();
  broken = false;
  await page.getByRole('button', { name: 'Send it again' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Refused' })).toHaveCount(0);
  await page.reload();
  await expect(onHead(page, '1I')).toHaveAccessibleName(/0\.28 to 0\.3/);
  await expect(onHead(page, '1E')).toHaveAccessibleName(/0\.28 to 0\.3/);
});

test('a device that went through a fall of the shop goes on by itself', async ({ page }) => {
  shop = await openOwnShop('fall');
  await signIn(page, 'Tobin Hask', 'two-full-turns');
  await page.getByRole('link', { name: /Frost fan 7/ }).click();
  await entry(page).waitFor();
  await shop.stop();
  await onHead(page, '2I').click();
  await entry(page).fill('0.28 0.30');
  await entry(page).press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'The server is not reached' })).toBeVisible();
  await shop.start();
  await expect(page.getByRole('status').filter({ hasText: 'Waiting to be sent' })).toHaveCount(0, {
    timeout: 30_000,
  });
  const other = await page.context().newPage();
  await other.goto(page.url());
  await expect(onHead(other, '2I')).toHaveAccessibleName(/0\.28 to 0\.3/);
});
