import { expect, test, type Page } from './test.ts';
import {
  changeHands,
  entry,
  ledOnTo,
  nothingToCount,
  onHead,
  openEngine,
  pairs,
  eachAtHand,
  selected,
  signInByKeyboard,
} from './bench.ts';

const ENGINE = 'Keyboard four';

async function tickAll(page: Page, texts: readonly RegExp[]): Promise<void> {
  for (const text of texts) await page.getByRole('checkbox', { name: text }).press('Space');
}

async function goOn(page: Page, to: string): Promise<void> {
  const onward = page.getByRole('button', { name: `Go on to ${to}` });
  await expect(onward).toBeEnabled();
  await onward.press('Enter');
  await expect(page.getByRole('heading', { name: to, level: 2 })).toBeVisible();
}

async function typeRound(page: Page, texts: Readonly<Record<string, string>>): Promise<void> {
  await eachAtHand(page, Object.keys(texts).length, async (key) => {
    const text = texts[key]!;
    await expect(entry(page)).toBeFocused();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    // one side alone is a try, which the next blade narrows: a second Enter goes on with what is known
    if (/^[<>]/.test(text)) await page.keyboard.press('Enter');
    await expect(onHead(page, key)).not.toHaveAttribute('data-state', 'not-measured');
  });
}

test('a screw engine, from the stand to its second recheck, by keyboard', async ({ page }) => {
  await signInByKeyboard(page, 'Tobin Hask');
  await page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name: 'Engines' }).press('Enter');
  await page.getByRole('button', { name: 'New engine' }).press('Enter');
  await page.getByLabel('What it is called here').pressSequentially(ENGINE);
  await page.getByLabel('Pattern and spec sheet').selectOption('Quillmere Q4 Orchard');
  await page.getByLabel('Has run, in hours').pressSequentially('1200');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: ENGINE, level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Rebuild', exact: true }).press('Enter');
  await expect(page.getByText('Say in a line what the engine is here for.')).toBeVisible();
  await page.getByLabel(/what is it here for/).pressSequentially('Rebuild after a burnt valve');
  await page.getByRole('button', { name: 'Rebuild', exact: true }).press('Enter');

  await expect(page.getByRole('button', { name: 'Go on to Open up' })).toBeDisabled();
  await tickAll(page, [/Engine cold/, /Cannot start/, /Outside cleaned/]);
  await ledOnTo(page, 'Open up');
  await tickAll(page, [/Timing marks/, /counted off/, /Every opening/, /Gasket/, /lobe/]);
  await expect(page.getByText(/no part is counted: count them, or write down here why/)).toBeVisible();
  await nothingToCount(page);
  await goOn(page, 'As found');

  await typeRound(page, {
    '1I': '0.23 0.25',
    '1E': '0.25 0.28',
    '2I': '0.30 0.32',
    '2E': '0.33',
    '3I': '>0.32',
    '3E': '14 thou',
    '4I': '0.25',
    '4E': '0.28 0.33',
  });
  await expect(onHead(page, '1E')).toHaveAttribute('data-state', 'tight');
  await expect(onHead(page, '2I')).toHaveAttribute('data-state', 'undecided-high');
  await expect(onHead(page, '3I')).toHaveAttribute('data-state', 'loose');
  await expect(onHead(page, '3E')).toHaveAttribute('data-state', 'in-spec');
  await expect(onHead(page, '4E')).toHaveAttribute('data-state', 'undecided-low');
  await goOn(page, 'Wear');
  await tickAll(page, [/Before anything of the train/, /Wear measured/]);
  await ledOnTo(page, 'Head and cam work');
  await tickAll(page, [/Head work finished/]);
  await ledOnTo(page, 'Set');

  await selected(page, '1E');
  await expect(page.getByText('Loosen 30°')).toBeVisible();
  for (const key of ['1E', '2I', '3I', '4E']) {
    await selected(page, key);
    if (key === '3I') {
      await page.getByLabel(/Or what was turned/).pressSequentially('-25');
      await page.keyboard.press('Enter');
    } else {
      // what no blade decided is set by the blade, and by no angle
      const how =
        key === '2I' || key === '4E' ? 'Turned by the blade, and locked' : 'Turned and locked as said';
      await page.getByRole('button', { name: how }).press('Enter');
    }
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'changed-since');
    // locked, and measured again where it was set, before the next
    await entry(page).pressSequentially(key.endsWith('I') ? '0.23 0.25' : '0.33 0.35');
    await page.keyboard.press('Enter');
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  }
  await goOn(page, 'Prove');
  await tickAll(page, [/Two full turns/, /Timing marks/]);
  await entry(page).focus();
  await typeRound(
    page,
    Object.fromEntries(pairs(4).map((key) => [key, key.endsWith('I') ? '0.23 0.25' : '0.33 0.35'])),
  );
  await goOn(page, 'Close and sign off');
  await tickAll(page, [/counted back/, /Cover on/, /Oil and coolant in/, /First start/]);
  await expect(page.getByText('A lead signs it off.')).toBeVisible();
  await changeHands(page, 'Ilse Marrand');
  await page.getByRole('button', { name: 'Sign off and plan the recheck' }).press('Enter');
  await expect(page.getByText(/at 1210 hours, whichever is first; .*now at 1200/)).toBeVisible();

  await openEngine(page, ENGINE);
  await page.getByLabel('Now, in hours').pressSequentially('1211');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1,211')).toBeVisible();
  await page.getByRole('link', { name: 'Today' }).press('Enter');
  await expect(page.getByRole('link', { name: new RegExp(`overdue.*${ENGINE}`) })).toBeVisible();
  await page.getByRole('link', { name: new RegExp(`overdue.*${ENGINE}`) }).press('Enter');
  await page.getByRole('button', { name: 'Measure it now' }).press('Enter');
  await typeRound(
    page,
    Object.fromEntries(
      pairs(4).map((key) => [
        key,
        key === '3E' ? '0.27 0.29' : key.endsWith('I') ? '0.22 0.24' : '0.32 0.34',
      ]),
    ),
  );
  // the entry has the keys again before anything else is gone to
  await expect(entry(page)).toBeFocused();
  await page.getByRole('button', { name: 'Judge the recheck' }).press('Enter');
  await expect(page.getByText(/a gap has left its band, by Ilse Marrand/)).toBeVisible();
  await expect(page.getByText(/Recheck 2/)).toBeVisible();

  await openEngine(page, ENGINE);
  const row = page.getByRole('row', { name: /^3E/ });
  await expect(row).toContainText('0.33–0.35');
  await expect(row).toContainText('0.27–0.29');
  await expect(row.getByRole('img', { name: 'tight', exact: true })).toBeVisible();
});
