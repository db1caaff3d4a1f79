import { randomUUID } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { expect, test } from './test.ts';
import { open, openEngine, place, signIn } from './bench.ts';
import { figure, measureAll, signedOff } from './ran.ts';
import { openOwnShop } from './shopFloor.ts';

test('a meter is read down the list, and its engine becomes due; a meter that was replaced is asked about', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await signedOff(page, 'Bark mill');
  await expect(page.getByText('coming').first()).toBeVisible();
  await place(page, 'Usage');
  await page.getByLabel('Find').fill('Bark mill');
  await figure(page, 'Bark mill').fill('29.5');
  await page.getByRole('button', { name: 'Write down 1' }).click();
  await expect(page.getByText('written down')).toBeVisible();
  await place(page, 'Rechecks');
  await page.getByRole('button', { name: /^\d+ due$/ }).click();
  await expect(page.getByRole('article', { name: 'Bark mill' })).toContainText('at 30 starts');
  // its meter was replaced: a figure below the last is a question first
  await place(page, 'Usage');
  await page.getByLabel('Find').fill('Bark mill');
  await figure(page, 'Bark mill').fill('2');
  await expect(page.getByText(/is it a new meter, or was there a slip/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Write down/ })).toBeDisabled();
  await page.getByLabel('A new meter was fitted').check();
  await page.getByLabel(/^The old one stopped at/).fill('31');
  await page.getByRole('button', { name: 'Write down 1' }).click();
  await expect(page.getByText('written down')).toBeVisible();
  await openEngine(page, 'Bark mill');
  await expect(page.getByText(/33 starts in all, over every meter it had/)).toBeVisible();
  await expect(page.getByText(/new meter, begun at 0; the old one stopped at 31/).first()).toBeVisible();
  await place(page, 'Rechecks');
  await page.getByRole('button', { name: /^\d+ overdue$/ }).click();
  await expect(page.getByRole('article', { name: 'Bark mill' })).toContainText('3 starts ago');
});

test('a point that closes fast has the next look brought forward, and a lead moves it with a reason', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await signedOff(page, 'Slab edger');
  const look = async (usage: string, exhaust: string) => {
    await openEngine(page, 'Slab edger');
    await page.getByLabel('Now, in starts').fill(usage);
    await page.getByRole('button', { name: 'Log' }).click();
    await expect(page.getByText(`${usage}`, { exact: true }).first()).toBeVisible();
    await page.getByRole('link', { name: /^Build 1/ }).click();
    await page.getByRole('button', { name: 'Measure it now' }).click();
    // at whichever point it was left
    await expect(page.getByRole('region', { name: /^Point / })).toBeVisible();
    await measureAll(page, 2, (key) => (key === '1I' ? '0.105 0.115' : exhaust));
    await page.getByRole('button', { name: 'Judge the recheck' }).click();
    await expect(page.getByText(/every gap held/).first()).toBeVisible();
  };
  await look('30', '0.160 0.165');
  await look('330', '0.147 0.151');
  await expect(page.getByText(/Sooner by its forecast/)).toBeVisible();
  await expect(page.getByText(/1E may be tight by then/)).toBeVisible();
  await place(page, 'Rechecks');
  const line = page.getByRole('article', { name: 'Slab edger' });
  await expect(line).toContainText('sooner by its forecast');
  // the course of the point, by keyboard and as a table
  await openEngine(page, 'Slab edger');
  const trend = page.getByRole('region', { name: 'Lash trend' });
  await trend.getByRole('radio', { checked: true }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(trend.getByRole('radio', { checked: true })).toHaveAttribute('data-point', '1E');
  await expect(trend.getByRole('table', { name: /^1E, limits/ })).toContainText('0.147–0.151');
  await place(page, 'Rechecks');
  await line.getByRole('button', { name: 'Reschedule Slab edger' }).click();
  const later = new Date(Date.now() + 40 * 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel('To the day').fill(later);
  await page.getByLabel('Because').fill('Its owner cuts until then');
  await page.getByRole('button', { name: 'Move it to a day' }).click();
  await expect(line).not.toContainText('sooner by its forecast');
  await line.getByRole('link', { name: 'Slab edger' }).click();
  await expect(page.getByText(/moved to .*, by Ilse Marrand.*: Its owner cuts until then/)).toBeVisible();
});

test('an engine is dragged to the day it stands on the bench, no later than it is due', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await place(page, 'Rechecks');
  await page.getByLabel('Owner').selectOption('Sellend Orchards');
  await page.getByLabel('Shown').selectOption('as a calendar');
  const chip = page.getByRole('button', { name: /^Frost fan 14/ });
  await expect(chip).toBeVisible();
  const from = (await chip.boundingBox())!;
  const today = await page.locator('.calendar-day[data-today]').getAttribute('data-day');
  const day = new Date(Date.parse(today!) + 86_400_000 * 2).toISOString().slice(0, 10);
  const to = (await page.locator(`[data-day="${day}"]`).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(to.x + 40, to.y + 50, { steps: 12 });
  await page.mouse.up();
  await expect(page.locator(`[data-day="${day}"]`)).toContainText('Frost fan 14, Long Acre · on the bench');
  // by keyboard: chosen, and the day typed
  await chip.focus();
  await page.getByRole('button', { name: /^Frost fan 14/ }).click();
  await page.getByRole('button', { name: 'Take it off the bench' }).click();
  await expect(page.locator(`[data-day="${day}"]`)).not.toContainText('on the bench');
});

test('a calendar of one’s own is read at its address, until it is withdrawn', async ({ page, browser }) => {
  await signIn(page, 'Petra Quell');
  await place(page, 'Rechecks');
  await page.getByText('In your own calendar').click();
  await page.getByRole('button', { name: 'Create an address' }).click();
  const address = (await page.getByRole('status').filter({ hasText: '/api/calendar/' }).innerText()).trim();
  const stranger = await browser.newContext();
  const read = () => stranger.request.get(address);
  expect(await (await read()).text()).toContain('BEGIN:VEVENT');
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByText(/, withdrawn/)).toBeVisible();
  expect((await read()).status()).toBe(404);
  await stranger.close();
});

test('reminders are each sent once by two servers, one of them killed', async ({ page }) => {
  const folder = `.data/mailbox-two-${process.pid}`;
  const shop = await openOwnShop('reminded', 'yes', { MAILBOX: folder });
  const second = await openOwnShop('reminded', 'yes', { MAILBOX: folder });
  try {
    await page.goto(`${shop.base}/sign-in`);
    await page.getByLabel('Name').fill('Ilse Marrand');
    await page.getByLabel('Passphrase').fill('brass-and-feeler');
    await page.getByLabel('Passphrase').press('Enter');
    await place(page, 'Shop');
    // none of the night is quiet here
    await page.getByRole('textbox', { name: 'Quiet hours, to' }).fill('19:00');
    await page.getByRole('form', { name: 'Quiet hours, to' }).getByRole('button').click();
    await expect(page.getByRole('form', { name: 'Quiet hours, to' }).getByRole('button')).toBeDisabled();
    const cookies = await page.context().cookies();
    const now = (base: string) =>
      page.request.post(`${base}/api/reminders/now`, {
        headers: {
          cookie: cookies.map(({ name, value }) => `${name}=${value}`).join('; '),
          'idempotency-key': randomUUID(),
        },
      });
    // both at once, and one of them goes in the middle
    const both = Promise.allSettled([now(shop.base), now(second.base)]);
    await second.kill();
    await both;
    // what the one that fell was sending is its own for two minutes
    await expect
      .poll(
        async () => {
          expect((await now(shop.base)).ok()).toBe(true);
          const { reminders } = (await (await page.request.get(`${shop.base}/api/reminders`)).json()) as {
            reminders: { sentAt: string | null }[];
          };
          return reminders.filter(({ sentAt }) => sentAt === null).length;
        },
        { timeout: 150_000 },
      )
      .toBe(0);
    await place(page, 'Rechecks');
    await page.getByText('Reminders by mail').click();
    await expect(page.getByText(/yard@sellend.example · sent/).first()).toBeVisible();
    await expect(page.getByText(/waits until/)).toHaveCount(0);
    const letters = (await readdir(folder)).filter((name) => name.endsWith('.eml'));
    const { reminders } = (await (await page.request.get(`${shop.base}/api/reminders`)).json()) as {
      reminders: { id: string; sentAt: string | null }[];
    };
    expect(letters.sort()).toEqual(reminders.map(({ id }) => `${id}.eml`).sort());
    // looked at again, nothing more is sent
    await page.getByRole('button', { name: 'Check and send now' }).click();
    await expect.poll(async () => (await readdir(folder)).length).toBe(letters.length);
  } finally {
    await shop.stop();
    await second.stop();
  }
});

test('what the owners wish is kept once, and what all engines say is read', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await place(page, 'Rechecks');
  await page.getByRole('link', { name: 'Owners' }).click();
  const brigade = page.getByRole('region', { name: 'Brackwater Brigade' });
  await expect(brigade).toContainText('no address, so no reminders');
  await brigade.getByRole('button', { name: 'Change Brackwater Brigade' }).click();
  await brigade.getByLabel('Mail address').fill('nobody');
  await brigade.getByRole('button', { name: 'Save' }).click();
  await expect(brigade.getByText(/is no mail address/)).toBeVisible();
  await brigade.getByLabel('Mail address').fill('watch@brackwater.example');
  await brigade.getByRole('button', { name: 'Save' }).click();
  await expect(brigade).toContainText('watch@brackwater.example');
  await open(page, '/fleet');
  await page.getByRole('button', { name: /^Quillmere Q4 Orchard/ }).click();
  await expect(page.getByText(/forecasts came true/)).toBeVisible();
  await page.getByRole('radio', { name: /^3E, exhaust, .* µm tighter per 100 hours/ }).click();
  const worst = page.getByRole('status', { name: '3E on all engines' });
  await expect(worst.getByRole('link', { name: /Frost fan/ }).first()).toBeVisible();
});
