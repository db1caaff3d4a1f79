import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from './test.ts';
import { allSent, fours, signIn } from './bench.ts';
import { atOpenUp, withHeadOpen } from './onTheStand.ts';

// the device keeps the whole application, and goes on without the server
test.use({ serviceWorkers: 'allow' });

/** Sixteen valves in head order, as their places are called. */
const SIXTEEN = fours(4);
const INTAKES = /I/;

/** The row of a place in the table of a characteristic. */
const rowOf = (page: Page, item: string, place: string) =>
  page.getByRole('table', { name: item, exact: true }).getByRole('row', { name: new RegExp(`^${place}`) });
const cell = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });

/** Types figures straight down a column, from the field that has the focus. */
async function downTheColumn(page: Page, first: string, figures: readonly string[]): Promise<void> {
  await cell(page, first).focus();
  for (const text of figures) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
}

const folder = mkdtempSync(join(tmpdir(), 'open-head-'));
function file(name: string, content: string | Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

test('a wear sheet of sixteen valves is typed straight down its columns, half of it with no network', async ({
  page,
  context,
}) => {
  await signIn(page, 'Tobin Hask');
  await withHeadOpen(page, 'T16 Rack', 'Wear by keyboard', 'wear', (key) =>
    INTAKES.test(key) ? 0.15 : 0.25,
  );
  await page.getByRole('tab', { name: 'Valves and seats' }).click();
  await downTheColumn(
    page,
    'Stem in guide 1Ia, Stem',
    SIXTEEN.map((key) => (INTAKES.test(key) ? '6.97 6.968' : '6.96')),
  );
  await allSent(page);
  await context.setOffline(true);
  await downTheColumn(
    page,
    'Stem in guide 1Ia, Guide',
    SIXTEEN.map((key) => (key === '3Eb' ? '7.07 7.065' : '7.012')),
  );
  await downTheColumn(
    page,
    'Margin 1Ia, Margin',
    SIXTEEN.map(() => '1.1'),
  );
  // the verdict needs no server
  await expect(rowOf(page, 'Stem in guide', '3Eb')).toContainText('replace');
  await expect(rowOf(page, 'Stem in guide', '1Ia')).toContainText('clearance 0.044');
  await page.reload();
  await page.getByRole('tab', { name: 'Valves and seats' }).click();
  await expect(cell(page, 'Margin 4Eb, Margin')).toHaveValue('1.10');
  await context.setOffline(false);
  await allSent(page);
  await page.reload();
  await page.getByRole('tab', { name: 'Result' }).click();
  await expect(page.getByRole('row', { name: /^Valve guide 3Eb/ })).toContainText('replace');
  await page.getByRole('button', { name: 'Decide about Valve guide 3Eb' }).click();
  await page.getByLabel('It is').selectOption('replaced');
  await page
    .getByRole('form', { name: /What becomes of/ })
    .getByLabel('Why')
    .fill('worn egg-shaped');
  await page
    .getByRole('form', { name: /What becomes of/ })
    .getByRole('button', { name: 'Write down' })
    .click();
  await expect(page.getByRole('row', { name: /^Valve guide 3Eb/ })).toContainText('to order');
  await allSent(page);
  const list = await page.request.get(
    `${process.env.BASE_URL}${await page.getByRole('link', { name: 'Parts list as PDF' }).getAttribute('href')}`,
  );
  expect(list.headers()['content-type']).toBe('application/pdf');
});

test('two people write on one wear sheet at once, and neither loses a figure', async ({ page, browser }) => {
  await signIn(page, 'Tobin Hask');
  const id = await withHeadOpen(page, 'S1 Sawyer', 'Two at one sheet', 'wear', () => 0.15);
  await page.getByRole('tab', { name: 'Valves and seats' }).click();
  const other = await (await browser.newContext()).newPage();
  await signIn(other, 'Osk Velland');
  await other.goto(`${process.env.BASE_URL}/builds/${id}`);
  await other.getByRole('tab', { name: 'Valves and seats' }).click();
  await downTheColumn(page, 'Margin 1I, Margin', ['1.1']);
  await expect(cell(other, 'Margin 1I, Margin')).toHaveValue('1.10');
  await downTheColumn(other, 'Margin 1E, Margin', ['0.9']);
  await expect(cell(page, 'Margin 1E, Margin')).toHaveValue('0.90');
  await cell(other, 'Margin 1I, Margin').fill('1.05');
  await cell(other, 'Margin 1I, Margin').press('Enter');
  await expect(page.getByText('1.10 by Tobin Hask before')).toBeVisible();
  await expect(cell(page, 'Margin 1I, Margin')).toHaveValue('1.05');
  await other.close();
});

test('a CSV with bad lines, a photograph that is none, and a limit that the sheet lacks', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await withHeadOpen(page, 'S1 Sawyer', 'Figures from a file', 'wear', () => 0.15);
  await page.getByRole('tab', { name: 'Valves and seats' }).click();
  const readings = page.getByLabel('CSV of readings');
  await readings.setInputFiles(file('wrong.csv', 'valve,wear\n1I,0.1\n'));
  await expect(page.getByRole('alert')).toContainText('needs the columns what, place, figure, readings');
  await readings.setInputFiles(
    file(
      'wear.csv',
      'what,place,figure,readings\nvalve-margin,1I,value,1.1\nvalve-margin,7I,value,1.1\nstem-runout,1E,value,0.02\n',
    ),
  );
  const preview = page.getByRole('region', { name: 'What is in the file' });
  await expect(preview).toContainText('2 fields can be taken, 1 cannot');
  await expect(preview).toContainText('Line 3');
  await expect(preview).toContainText('this engine has no 7I');
  await preview.getByRole('button', { name: 'Take 2 in' }).click();
  await expect(cell(page, 'Margin 1I, Margin')).toHaveValue('1.10');
  // what was measured and has no limit is not judged until there is one, with its source
  await expect(rowOf(page, 'Stem runout', '1E')).toContainText('no limit');
  await page.getByRole('button', { name: 'Add one for this build' }).click();
  const limit = page.getByRole('form', { name: 'Limit of stem runout' });
  await limit.getByLabel('Limit, mm').fill('0.03');
  await limit.getByRole('button', { name: 'Add' }).click();
  await expect(limit.getByRole('alert')).toContainText('Say where it comes from');
  await limit.getByLabel('Source').fill('maker’s letter of last spring');
  await limit.getByRole('button', { name: 'Add' }).click();
  await expect(rowOf(page, 'Stem runout', '1E')).toContainText('keep');

  const photograph = page.getByLabel('Photograph at Wear');
  await photograph.setInputFiles(file('picture.png', 'only called a picture'));
  await expect(page.getByRole('alert')).toContainText('is no picture: PNG, JPEG and WebP are taken');
  await photograph.setInputFiles(file('torn.png', Buffer.from('89504e470d0a1a0a0000', 'hex')));
  await expect(page.getByText('torn.png is damaged: it begins like a picture, and is none.')).toBeVisible();
  // with no network it is shown from the device, and sent when the server is reached
  await page.context().setOffline(true);
  await page.getByLabel('The next one is of').fill('seat 1E');
  await photograph.setInputFiles(file('seat.png', await page.screenshot()));
  const shown = page.getByRole('img', { name: 'seat 1E' });
  await expect(page.getByText('waiting to be sent', { exact: false }).first()).toBeVisible();
  await page.context().setOffline(false);
  await expect(shown).toHaveAttribute('src', /^\/api\/photographs\//);
  await expect
    .poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(100);
});

test('head work that nothing made would bring in is changed before anybody cuts, and then fits', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await withHeadOpen(page, 'T16 Rack', 'Seats cut deep', 'head-work', (key) =>
    INTAKES.test(key) ? 0.15 : 0.25,
  );
  const budget = page.getByRole('region', { name: 'Lash budget' });
  await expect(budget.getByText('No work is planned yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Wear', exact: false }).first().click();
  await page.getByRole('tab', { name: 'Pieces and pushrods' }).click();
  await downTheColumn(
    page,
    'Piece as found 1Ia, Thickness',
    SIXTEEN.map(() => '2.15'),
  );
  await allSent(page);
  await page.getByRole('button', { name: /Head and cam work/ }).click();
  const plan = budget.getByRole('form', { name: 'Plan a piece of work' });
  await plan.getByLabel('At').selectOption('every exhaust');
  await plan.getByLabel('How deep, mm').fill('0.25');
  await plan.getByRole('button', { name: 'Add to the work' }).click();
  await expect(budget.getByRole('alert')).toContainText('8 valves will not come in');
  await expect(budget.getByRole('list', { name: 'What would bring 1Ea in' })).toContainText('cut 0.06');
  await budget.getByRole('button', { name: 'Change or write down what was done' }).click();
  for (const key of SIXTEEN.filter((each) => !INTAKES.test(each))) {
    const planned = cell(page, `Seat cut at ${key}, planned`);
    await planned.fill('0.12');
    await planned.press('Enter');
  }
  await expect(budget.getByText('Every gap comes in with what is made.')).toBeVisible();
  await allSent(page);
  await page.reload();
  await expect(page.getByText('Every gap comes in with what is made.')).toBeVisible();
});

test('parts are counted out into their places and in again, and what is missing is named', async ({
  page,
}) => {
  await signIn(page, 'Ilse Marrand');
  await atOpenUp(page, 'Q4 Orchard', 'Counted for a journey');
  const count = page.getByRole('region', { name: 'Parts off' });
  await expect(count.getByRole('img', { name: /^Tray of 4 places, 0 counted/ })).toBeVisible();
  await count.getByRole('button', { name: 'All of it as listed' }).click();
  const washers = count.getByRole('textbox', { name: 'Sealing washer, off' });
  await washers.fill('3');
  await washers.press('Enter');
  await expect(count.getByRole('img', { name: /^Tray of 4 places, 4 counted/ })).toBeVisible();
  await count.getByLabel('Group').selectOption({ label: 'Cam caps' });
  await count.getByRole('button', { name: 'Every arrow looks to the front' }).click();
  const arrow = count.getByLabel(/, its arrow looks$/).last();
  await expect(arrow).toHaveValue('front');
  await arrow.selectOption({ label: 'arrow to the rear' });
  await expect(arrow).toHaveValue('rear');
  await count.getByLabel('Group').selectOption({ label: 'Plugs and seals' });
  await count.getByRole('button', { name: 'All of it as listed' }).click();
  await count.getByLabel('Also there').fill('Breather clip');
  await count.getByLabel('Where').fill('rear, open end up');
  await count.getByRole('button', { name: 'Add to the list' }).click();
  await expect(count.getByRole('textbox', { name: 'Breather clip rear, open end up, off' })).toHaveValue('1');
  await allSent(page);
  await page.reload();
  await count.getByLabel('Group').selectOption({ label: 'Plugs and seals ✓' });
  await expect(count.getByRole('row', { name: /Breather clip/ })).toBeVisible();
  const seals = page.getByRole('region', { name: 'Gaskets and seals' });
  await seals.getByRole('button', { name: 'Head gasket is replaced' }).click();
  await seals.getByRole('button', { name: 'Stem seals, intake is used again' }).click();
  await allSent(page);
  await page.reload();
  await expect(seals.getByRole('button', { name: 'Head gasket is replaced' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.getByLabel('Note at Open up').fill('The breather clip sits with its open end up.');
  await page.getByRole('button', { name: 'Keep for this pattern' }).click();
  await expect(page.getByRole('region', { name: 'What the shop has learned' })).toContainText('open end up');
  await allSent(page);
});
