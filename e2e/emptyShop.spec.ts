import { expect, test } from './test.ts';
import { entry, nothingToCount, onHead, selected, tickEverything } from './bench.ts';
import { openOwnShop } from './shopFloor.ts';

let shop: Awaited<ReturnType<typeof openOwnShop>> | undefined;
test.afterEach(async () => {
  await shop?.stop();
  shop = undefined;
});

test('an empty shop, from its first lead to a gap measured on its first engine', async ({ page }) => {
  shop = await openOwnShop('empty', 'no');
  const [, passphrase] = /First lead \(lead\): (\S+)/.exec(shop.said())!;
  const place = (name: string) =>
    page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name }).click();
  await page.goto(`${shop.base}/sign-in`);
  await page.getByLabel('Name').fill('first lead');
  await page.getByLabel('Passphrase').fill(passphrase!);
  await page.getByLabel('Passphrase').press('Enter');
  const steps = page.getByRole('list', { name: 'Where to begin' });
  await expect(steps.getByRole('listitem')).toHaveCount(4);

  await steps.getByRole('link', { name: 'Shop' }).click();
  await page.getByRole('button', { name: 'Name, passphrase' }).click();
  await page.getByLabel('Name of First lead').fill('Runa Felt');
  await page.getByLabel(/^New passphrase, or empty/).fill('short');
  const details = page.getByRole('form', { name: 'Details of First lead' });
  await details.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/at least 10 characters/)).toBeVisible();
  await page.getByLabel(/^New passphrase, or empty/).fill('');
  await details.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByLabel('Role of Runa Felt')).toBeVisible();
  await page.getByLabel('Role of Runa Felt').selectOption('bench');
  await expect(page.getByRole('alert')).toContainText(/lead/);
  await page.getByRole('textbox', { name: 'Shop name' }).fill('Lower Valley Works');
  await page.getByRole('form', { name: 'Shop name' }).getByRole('button').click();
  await expect(page.getByRole('contentinfo')).toContainText('Lower Valley Works');
  await expect(page.getByRole('contentinfo')).toContainText('Runa Felt');

  await place('Instruments');
  await page.getByRole('button', { name: 'New instrument' }).click();
  await page.getByLabel('What it is called').fill('First blades');
  await page.getByLabel(/Blades in the set/).fill('0.05 0.10 0.12 0.15 0.20');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('First blades').first()).toBeVisible();
  await page.getByLabel('Another bench').fill('The only bench');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('The only bench').first()).toBeVisible();

  await place('Spec sheets');
  await page.getByRole('button', { name: 'New spec sheet' }).click();
  await page.getByLabel('Maker', { exact: true }).fill('Vessany');
  await page.getByLabel('What the maker calls it').fill('S0 Splitter');
  await page.getByLabel('Layout').selectOption('single');
  await page
    .getByLabel(/timing|takes? a cautious default|The source gives none/)
    .first()
    .check();
  await page.getByLabel(/^intake, as the source/).fill('0.10-0.15');
  await page.getByLabel(/^exhaust, as the source/).fill('0.12-0.18');
  await page.getByLabel('hours', { exact: true }).fill('20');
  await page.getByLabel('Manual').fill('Vessany splitter leaflet');
  await page.getByRole('button', { name: 'Keep as a draft' }).click();
  await expect(page.getByText(/There is no other lead here to read it/)).toBeVisible();
  await page.getByRole('button', { name: /publish/ }).click();
  await expect(page.getByText('Nobody else has read this sheet.')).toBeVisible();

  await place('Today');
  await expect(steps.getByText('Done.')).toHaveCount(2);
  await steps.getByRole('link', { name: 'Engines' }).click();
  await page.getByRole('button', { name: 'New engine' }).click();
  await page.getByLabel('What it is called here').fill('Log splitter');
  await page.getByLabel('Pattern and spec sheet').selectOption('Vessany S0 Splitter');
  await page.getByLabel('Has run, in hours').fill('80');
  await page.keyboard.press('Enter');
  await page.getByLabel(/what is it here for/).fill('First look inside');
  await page.getByRole('button', { name: 'Rebuild', exact: true }).click();
  for (const [at, to] of [
    ['Book in', 'Open up'],
    ['Open up', 'As found'],
  ] as const) {
    await expect(page.getByRole('heading', { name: at, level: 2 })).toBeVisible();
    await tickEverything(page);
    if (at === 'Open up') {
      await nothingToCount(page);
      await page.getByRole('button', { name: `Go on to ${to}` }).click();
    }
    await expect(page.getByRole('heading', { name: to, level: 2 })).toBeVisible();
  }
  await selected(page, '1I');
  await entry(page).fill('0.12 0.15');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '1I')).toHaveAccessibleName(/in spec, 0\.12 to 0\.15/);
  await place('Today');
  await expect(page.getByRole('link', { name: /Log splitter/ })).toBeVisible();
  await expect(steps).toHaveCount(0);
});
