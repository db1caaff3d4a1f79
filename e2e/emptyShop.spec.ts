import { expect, test, type Page } from './test.ts';
import { entry, ledOnTo, nothingToCount, onHead, selected, tickEverything } from './bench.ts';
import { openOwnShop } from './shopFloor.ts';
import { readPdf } from '../server/test/pdf.ts';

let shop: Awaited<ReturnType<typeof openOwnShop>> | undefined;
test.afterEach(async () => {
  await shop?.stop();
  shop = undefined;
});

/** What nobody in an inch shop asked for, on a page or beside a field of it. */
const METRIC = /(?<![\p{L}\d])(mm|µm|N·?m|bar|kPa|°C)(?![\p{L}])/u;

/** Looks for what is said in metric on the page, but for the buttons that turn it to that. */
async function noMillimetres(page: Page, where: string): Promise<void> {
  const said = await page.evaluate((source) => {
    const metric = new RegExp(source, 'u');
    const main = document.querySelector('main')!;
    const words: string[] = [];
    const walk = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
    // what may be chosen instead is offered, and not said
    while (walk.nextNode())
      if (!walk.currentNode.parentElement!.closest('option, [hidden], .zl-hint'))
        words.push(walk.currentNode.textContent ?? '');
    for (const each of main.querySelectorAll('[aria-label], [placeholder]'))
      words.push(each.getAttribute('aria-label') ?? '', each.getAttribute('placeholder') ?? '');
    return words.filter((each) => metric.test(each));
  }, METRIC.source);
  expect(said, where).toEqual([]);
}

test('an empty inch shop of one, from its first lead to its first engine signed off', async ({ page }) => {
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
  await page.getByLabel('Units').selectOption('thou');
  await page.getByRole('form', { name: 'Shop name' }).getByRole('button').click();
  await expect(page.getByRole('contentinfo')).toContainText('Lower Valley Works');
  await expect(page.getByRole('contentinfo')).toContainText('Runa Felt');

  await place('Instruments');
  await page.getByRole('button', { name: 'New instrument' }).click();
  await page.getByLabel('What it is called').fill('First blades');
  // a set in inches is as such sets are made
  await expect(page.getByLabel(/Blades in the set/)).toHaveValue('0.0015, 0.002–0.025 by 0.001');
  await page.getByLabel('Where a micrometer says otherwise').fill('0.006 is 0.0058');
  await noMillimetres(page, 'a new set');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('25 blades, 1.5 to 25.0')).toBeVisible();
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
  await expect(page.getByLabel('Bare figures are in')).toHaveValue('thou');
  await page.getByLabel(/^intake, as the source/).fill('4-6');
  await page.getByLabel(/^exhaust, as the source/).fill('5-7.3');
  await page.getByLabel('Means', { exact: true }).first().selectOption('shim');
  await page.getByLabel('Lies').first().selectOption('on-bucket');
  await page.getByLabel('Stamped in').selectOption('in');
  await page.getByLabel('Thinnest, thou').fill('80');
  await page.getByLabel('Thickest, thou').fill('120');
  await page.getByLabel('In steps of, thou').fill('1');
  await page.getByText('Wear limits', { exact: true }).click();
  await page.getByRole('button', { name: 'Add a wear limit' }).click();
  await page.locator('[name="wear.0.part"]').selectOption('stem-guide');
  await page.getByLabel('New, thou').fill('1.5');
  await page.getByLabel('Limit, thou').fill('3');
  await page.getByRole('button', { name: 'Add a wear limit' }).click();
  await page.locator('[name="wear.1.part"]').selectOption('compression');
  await page.getByLabel('At least, psi').fill('90');
  await page.getByText('Torques and orders', { exact: true }).click();
  await page.getByRole('button', { name: 'Add a torque' }).click();
  await page.getByLabel('Fastening').fill('Cover bolts');
  await page.getByLabel('Steps', { exact: true }).fill('7 lbf·ft');
  await page.getByLabel('hours', { exact: true }).fill('20');
  await page.getByLabel('Manual').fill('Vessany splitter leaflet');
  await page.getByRole('button', { name: 'Keep as a draft' }).click();
  await expect(page.getByText(/There is no other lead here to read it/)).toBeVisible();
  await page.getByRole('button', { name: /publish/ }).click();
  await expect(page.getByText('Nobody else has read this sheet.')).toBeVisible();

  await noMillimetres(page, 'the sheet');

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
  await noMillimetres(page, 'the engine as it is found');
  await page.getByLabel('Measured by').selectOption('Go and no-go');
  await page.getByRole('button', { name: 'Both: 4.0 goes, 2.0 + 4.0 won’t' }).click();
  await expect(onHead(page, '1I')).toHaveAccessibleName(/in spec/);
  await selected(page, '1E');
  // a stack by what its blades measure, each called what is stamped on it
  const noGo = page.getByRole('group', { name: 'No-go blade' });
  await expect(noGo).toContainText('1.5 + 6.0 = 7.3 thou6.0 measures 5.8');
  await entry(page).fill('8 9');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '1E')).toHaveAccessibleName(/loose/);
  await noMillimetres(page, 'the engine measured');
  const goOn = async (to: string) => {
    await page.getByRole('button', { name: `Go on to ${to}` }).click();
    await ledOnTo(page, to);
  };
  await goOn('Wear');
  await noMillimetres(page, 'its wear');
  await tickEverything(page);
  await ledOnTo(page, 'Head and cam work');
  await tickEverything(page);
  await ledOnTo(page, 'Set');
  await noMillimetres(page, 'set');

  await selected(page, '1E');
  await page.getByLabel('in now, thou').fill('100');
  await expect(page.getByText('leaves 6.0–7.0')).toBeVisible();
  await page.getByLabel('The one out goes to').selectOption('drawer');
  await page.getByLabel('It comes from').selectOption('bought');
  await page.getByRole('button', { name: 'Fitted 102.0' }).click();
  await expect(onHead(page, '1E')).toHaveAccessibleName(/set$/);
  await noMillimetres(page, 'a piece fitted');
  await goOn('Prove');
  await tickEverything(page);
  for (const [key, typed] of [
    ['1I', '4 6'],
    ['1E', '6 7'],
  ] as const) {
    await selected(page, key);
    await entry(page).fill(typed);
    await page.keyboard.press('Enter');
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  }
  await noMillimetres(page, 'proved');
  await goOn('Close and sign off');
  await tickEverything(page);
  await noMillimetres(page, 'to be closed');
  await page.getByRole('button', { name: 'Sign off and plan the recheck' }).click();
  await expect(page.getByText('Recheck 1', { exact: true })).toBeVisible();
  await noMillimetres(page, 'signed off');
  for (const paper of ['owner-sheet', 'measuring-sheet', 'parts-list']) {
    const pdf = await page.request.get(page.url().replace('/builds/', '/api/builds/') + '/' + paper);
    const { text } = await readPdf(await pdf.body());
    expect(text).toContain('Log splitter');
    expect(text.match(METRIC), paper).toBeNull();
  }

  await place('Drawer');
  await expect(page.getByLabel('Sizes, thou, with how many')).toHaveAttribute('placeholder', /^104/);
  await page.getByLabel('Sizes, thou, with how many').fill('101 × 2, 102.5');
  await expect(page.getByText('102.5 thou is not made.')).toBeVisible();
  await page.getByLabel('Sizes, thou, with how many').fill('101 × 2');
  await page.getByRole('button', { name: 'Write down' }).click();
  await expect(page.getByText('101.0 thou').first()).toBeVisible();
  await noMillimetres(page, 'the drawer');
  for (const name of ['Engines', 'Rechecks', 'Usage', 'Instruments', 'Today']) {
    await place(name);
    await noMillimetres(page, name);
  }
});
