import { expect, test } from './test.ts';
import { entry, onHead, open, place, selected, signIn } from './bench.ts';

/** What a check of two valves with nothing wrong takes from its job to its signature: every tap, every tick, a typed gap as one. */
const MOST_TAPS = 18;

test('two valves with nothing wrong are checked: found once, proved by that, signed, and the next recheck planned', async ({
  page,
}) => {
  await signIn(page, 'Ilse Marrand');
  await open(page, '/engines');
  await page.getByRole('link', { name: 'Trimmer, Pellow Mill' }).first().click();
  let taps = 0;
  const tap = async (name: string) => {
    taps += 1;
    await page.getByRole('button', { name, exact: true }).click();
  };
  const tick = async (name: RegExp) => {
    taps += 1;
    await page.getByRole('checkbox', { name }).click();
  };
  const typed = async (point: string, text: string) => {
    taps += 1;
    await selected(page, point);
    await entry(page).fill(text);
    await entry(page).press('Enter');
    await expect(onHead(page, point)).toHaveAttribute('data-state', 'in-spec');
  };

  await tap('Valve check');
  await expect(page.getByRole('heading', { name: 'Take in', level: 2 })).toBeVisible();
  // nobody complains of it: no pressures are asked for
  await expect(page.getByRole('heading', { name: 'Compression and leak-down' })).toHaveCount(0);
  await tick(/Engine cold/);
  await tick(/isolated/);
  await tap('Go on to Open up');
  await tick(/Timing marks/);
  await tick(/Gasket/);
  await tap('Go on to As found');
  await typed('1I', '0.10 0.11');
  await typed('1E', '0.16 0.17');
  await tap('Go on to Set');
  await tap('Go on to Prove');
  await tick(/Two full turns/);
  await tick(/Timing marks/);
  // nothing was touched: what was found proves it, and no gap is read again
  await expect(page.getByRole('region', { name: 'Every point' })).toContainText('as found');
  await tap('Go on to Close and sign off');
  await tick(/counted in/);
  await tick(/Cover on/);
  await tick(/First start/);
  await expect(page.getByRole('region', { name: 'What is signed' })).toContainText(
    '2 of 2 in spec; 2 of them as found, and left alone',
  );
  await tap('Sign off and plan the recheck');
  await expect(page.getByRole('heading', { name: 'Signed off' })).toBeVisible();
  expect(taps).toBeLessThanOrEqual(MOST_TAPS);

  await place(page, 'Rechecks');
  await expect(page.getByRole('link', { name: /Trimmer, Pellow Mill/ }).first()).toBeVisible();
});
