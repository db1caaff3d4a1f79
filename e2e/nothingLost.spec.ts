import { expect, test, type Page } from './test.ts';
import {
  cachedAtLeast,
  allSent,
  changeHands,
  entry,
  fours,
  onHead,
  open,
  openBuildOf,
  pairs,
  selected,
  eachAtHand,
  signIn,
  signInByKeyboard,
  nothingToCount,
  tickEverything,
} from './bench.ts';
import { atAsFound, atOpenUp } from './onTheStand.ts';
import { openOwnShop } from './shopFloor.ts';

// the device keeps the whole application, and goes on without the server
test.use({ serviceWorkers: 'allow' });

const SIXTEEN = fours(4);

/** Measures as many points as they come to hand; gives which. */
async function goNoGo(page: Page, count: number): Promise<string[]> {
  const keys: string[] = [];
  await eachAtHand(page, count, async (key) => {
    keys.push(key);
    await page
      .getByRole('group', { name: 'Go blade', exact: true })
      .getByRole('button', { name: 'goes' })
      .click();
    await page
      .getByRole('group', { name: 'No-go blade', exact: true })
      .getByRole('button', { name: 'won’t' })
      .click();
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  });
  return keys;
}

let shop: Awaited<ReturnType<typeof openOwnShop>> | undefined;
test.afterEach(async () => {
  await shop?.stop();
  shop = undefined;
});

test('a server stopped in mid-round and started again loses no reading', async ({ page }) => {
  shop = await openOwnShop('stopped');
  await page.goto(`${shop.base}/sign-in`);
  await page.getByLabel('Name').fill('Tobin Hask');
  await page.getByLabel('Passphrase').fill('two-full-turns');
  await page.getByLabel('Passphrase').press('Enter');
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await atAsFound(page, 'Q4 Orchard', 'Server stopped', shop.base);
  const keys = pairs(4);
  await goNoGo(page, 3);
  await allSent(page);
  await shop.stop();
  const away = await goNoGo(page, 3);
  await expect(page.getByText(/server is not reached.*Waiting to be sent/)).toContainText(away.at(-1)!);
  for (const key of away) await expect(onHead(page, key)).toHaveAccessibleName(/waiting to be sent/);
  await shop.start();
  await allSent(page);
  await goNoGo(page, 2);
  await allSent(page);
  await page.reload();
  for (const key of keys) await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  await expect(onHead(page, away[0]!)).not.toHaveAccessibleName(/waiting/);
});

test('a round taken wholly offline, the page opened offline too, arrives complete and in order', async ({
  page,
  context,
}) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'T16 Rack', 'Offline round');
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload();
  await expect(onHead(page, '1Ia')).toBeVisible();
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  await cachedAtLeast(page, 13);
  await context.setOffline(true);
  await page.reload();
  await expect(onHead(page, '1Ia')).toBeVisible();
  await page.getByRole('button', { name: 'The whole plan, valve gear and lift' }).click();
  await page.getByRole('combobox', { name: 'Where to turn' }).selectOption('Each cylinder at its firing TDC');
  await expect(page.getByText(/Stop 1 of 4/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/Stop 1 of 4/)).toBeVisible();
  const order = await goNoGo(page, SIXTEEN.length);
  expect([...order].sort()).toEqual([...SIXTEEN].sort());
  await expect(page.getByText(/Waiting to be sent, 17/)).toBeVisible();
  await page.reload();
  await expect(onHead(page, '4Eb')).toHaveAccessibleName(/in spec.*waiting to be sent/);
  await context.setOffline(false);
  await allSent(page);
  await page.reload();
  await page.getByRole('button', { name: 'The whole plan, valve gear and lift' }).click();
  await expect(page.getByRole('combobox', { name: 'Where to turn' })).toHaveValue('each-firing');
  const build = (await (
    await page.request.get(
      `${process.env.BASE_URL}/api/builds/${new URL(page.url()).pathname.split('/').at(-1)}/rounds`,
    )
  ).json()) as { rows: { readings: { point: string; at: string; earlier: number }[] }[] };
  const readings = [...build.rows[0]!.readings].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  expect(readings.map(({ point }) => point)).toEqual(order);
  expect(readings.every(({ earlier }) => earlier === 0)).toBe(true);
});

test('ticks, notes, conditions, settings and a whole recheck are done with no server, and arrive when it is back', async ({
  page,
  context,
}) => {
  await signInByKeyboard(page, 'Tobin Hask');
  const builds: Record<string, string> = {};
  for (const name of ['Fire pump, Brackwater', 'Railcar 1', 'Trimmer']) {
    await openBuildOf(page, name);
    builds[name] = new URL(page.url()).pathname;
    // its eleven rooms and its sheet, besides what every page opens with
    await cachedAtLeast(page, 2 + 12 * Object.keys(builds).length);
  }
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload();
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  await context.setOffline(true);

  await open(page, builds['Fire pump, Brackwater']!);
  await expect(page.getByRole('checkbox')).toHaveCount(5);
  for (const box of await page.getByRole('checkbox').all()) await box.check({ force: true });
  await page.getByRole('textbox', { name: 'Note at Open up' }).fill('Cover bolt 3 was finger tight');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Cover bolt 3 was finger tight')).toBeVisible();
  await page.reload();
  await expect(page.getByText('Cover bolt 3 was finger tight')).toBeVisible();
  for (const number of [0, 1, 2, 3]) await expect(page.getByRole('checkbox').nth(number)).toBeChecked();
  await page.getByRole('button', { name: /Go on to/ }).click();
  await expect(page.getByText(/still to be sent: the build goes on when the server has it/)).toBeVisible();

  await open(page, builds['Railcar 1']!);
  await onHead(page, '2Ib').click();
  await page.getByRole('button', { name: 'Leave it alone…' }).click();
  await page.getByLabel('Left alone because').fill('Measured twice, quiet');
  await page.getByRole('button', { name: 'Leave it', exact: true }).click();
  await page.reload();
  await onHead(page, '2Ib').click();
  await expect(page.getByText('left alone: Measured twice, quiet')).toBeVisible();

  await open(page, builds.Trimmer!);
  await page.getByRole('button', { name: 'Measure it now' }).click();
  await page.getByLabel('Engine, °C').fill('17');
  const points = pairs((await page.getByRole('radio', { name: /, (?:intake|exhaust)/ }).count()) / 2);
  await eachAtHand(page, points.length, async (key) => {
    await entry(page).fill(key.endsWith('I') ? '0.10 0.12' : '0.16 0.18');
    await page.keyboard.press('Enter');
    await expect(onHead(page, key)).toHaveAccessibleName(/waiting to be sent/);
  });
  await page.reload();
  await expect(page.getByLabel('Engine, °C')).toHaveValue('17');
  await page.getByRole('button', { name: 'Judge the recheck' }).click();
  await expect(page.getByText(/still to be sent: the recheck is judged/)).toBeVisible();

  await context.setOffline(false);
  await allSent(page);
  await page.getByRole('button', { name: 'Judge the recheck' }).click();
  await expect(page.getByText(/^Recheck 1.*by Tobin Hask$/)).toBeVisible();
  await open(page, builds['Fire pump, Brackwater']!);
  await page.getByRole('button', { name: /Go on to/ }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'As found' })).toBeVisible();
  await open(page, builds['Railcar 1']!);
  await onHead(page, '2Ib').click();
  await expect(page.getByText('left alone: Measured twice, quiet')).toBeVisible();
});

test('two tablets on one round see each other; both writing one point keeps both', async ({
  page,
  browser,
}) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'Q4 Orchard', 'Two tablets');
  // a worker that is only just starting would not be cut off with its page
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const other = await context.newPage();
  await signIn(other, 'Osk Velland');
  await open(other, new URL(page.url()).pathname);
  await selected(other, '1I');
  await goNoGo(page, 1);
  await expect(onHead(other, '1I')).toHaveAttribute('data-state', 'in-spec');

  await context.setOffline(true);
  await onHead(other, '1E').click();
  await goNoGo(other, 1);
  await goNoGo(page, 1);
  await allSent(page);
  await context.setOffline(false);
  await allSent(other);
  await onHead(page, '1E').click();
  await page.getByText('Measured 2 times in this round').click();
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /Osk Velland.*taken before the one that stands, and came in after it/ }),
  ).toBeVisible();
  // both are told, on both tablets, until a person takes one of the two
  await onHead(other, '1E').click();
  for (const told of [page, other])
    await expect(told.getByText('Two of you read 1E without seeing each other.')).toBeVisible();
  await page.getByRole('button', { name: 'Take Osk Velland’s' }).click();
  for (const told of [page, other])
    await expect(told.getByText('Two of you read 1E without seeing each other.')).toHaveCount(0);
});

test('a second look is taken blind, and the two are compared', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'S1 Sawyer', 'Second look');
  const entry = page.getByRole('textbox', { name: /^Gap at/ });
  await entry.fill('0.10 0.12');
  await entry.press('Enter');
  await selected(page, '1E');
  await entry.fill('0.16 0.18');
  await entry.press('Enter');
  await allSent(page);
  await changeHands(page, 'Ilse Marrand');
  await page.getByRole('button', { name: 'Second look, blind' }).click();
  await expect(onHead(page, '1I')).toHaveAttribute('data-state', 'not-measured');
  await expect(page.getByText(/would tell what was found/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Go on to Wear' })).toBeDisabled();
  await onHead(page, '1I').click();
  await expect(page.getByText(/typed 0\.10 0\.12/)).toHaveCount(0);
  await entry.fill('0.11 0.13');
  await entry.press('Enter');
  await allSent(page);
  await onHead(page, '1E').click();
  await entry.fill('0.14 0.15');
  await entry.press('Enter');
  await allSent(page);
  await onHead(page, '1I').click();
  await expect(
    page.getByText(/Second look by Ilse Marrand: the two agree.*Tobin Hask found 0\.10–0\.12/),
  ).toBeVisible();
  await onHead(page, '1E').click();
  await expect(page.getByText(/the two differ by 0\.01/)).toBeVisible();
});

test('a reading the server will not have stays on the device until a person says', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'S1 Sawyer', 'Sent back');
  await expect(page.getByRole('group', { name: 'No-go blade', exact: true })).toBeVisible();
  const [id] = new URL(page.url()).pathname.split('/').slice(-1);
  let answer: () => void = () => undefined;
  // the server lets the device wait until both are measured, and then takes neither
  const measured = new Promise<void>((resolve) => (answer = resolve));
  await page.route('**/readings', async (route) => {
    await measured;
    await route.fulfill({
      status: 409,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        type: 'about:blank',
        title: '',
        status: 409,
        code: 'round_closed',
        detail: 'This round is closed.',
      }),
    });
  });
  await goNoGo(page, 2);
  answer();
  await expect(page.getByText(/Refused, 2/)).toBeVisible();
  await page.unroute('**/readings');
  await open(page, `/builds/${id}`);
  await onHead(page, '1I').click();
  await expect(page.getByText(/was not written: This round is closed/)).toBeVisible();
  await page.getByRole('button', { name: 'Send it again' }).click();
  await expect(onHead(page, '1I')).toHaveAttribute('data-state', 'in-spec');
  await onHead(page, '1E').click();
  await page.getByRole('button', { name: 'Throw it away' }).click();
  await expect(page.getByText(/Refused/)).toHaveCount(0);
});

test('hands that change at once leave nothing behind that the next would wait for', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atOpenUp(page, 'HV2 Pumper', 'Handed over');
  // a slow network: the first tick has no answer until signing out is asked for
  const leaving = new Promise<void>((resolve) => {
    void page.getByRole('button', { name: 'Sending…' }).waitFor().then(resolve);
  });
  await page.route('**/ticks', async (route) => {
    await leaving;
    await route.continue();
  });
  await tickEverything(page);
  await nothingToCount(page);
  await changeHands(page, 'Osk Velland');
  await expect(page.getByText(/What Tobin Hask did is sent when/)).toHaveCount(0);
  await page.getByRole('button', { name: /Go on to/ }).click();
  await expect(page.getByRole('heading', { name: 'As found', level: 2 })).toBeVisible();
});
