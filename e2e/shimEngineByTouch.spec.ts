import { expect, test, type Page } from './test.ts';
import {
  changeHands,
  entry,
  onHead,
  standingStill,
  openEngine,
  eachAtHand,
  selected,
  signIn,
  camBackIn,
  ledOnTo,
  nothingToCount,
  tickEverything,
} from './bench.ts';

const ENGINE = 'Railcar 3, front engine';
const POINTS = [1, 2, 3, 4].flatMap((n) => [`${n}Ia`, `${n}Ib`, `${n}Ea`, `${n}Eb`]);

/** The keys a figure is tapped in by, and the one that keeps it. */
const KEYS = /^(\d|\.|Keep reading)$/;

test.use({ viewport: { width: 768, height: 1024 }, hasTouch: true, isMobile: true });

async function tapIn(page: Page, text: string): Promise<void> {
  // what is typed stands in the entry as it is tapped: nobody goes on before it does
  await expect(entry(page)).toHaveValue('');
  let typed = '';
  for (const sign of text) {
    await page.getByRole('button', { name: sign === ' ' ? 'and' : sign, exact: true }).tap();
    typed += sign;
    await expect(entry(page)).toHaveValue(typed);
  }
  await page.getByRole('button', { name: 'Keep reading' }).tap();
}

async function goOn(page: Page, to: string): Promise<void> {
  await page.getByRole('button', { name: `Go on to ${to}` }).tap();
  await expect(page.getByRole('heading', { name: to, level: 2 })).toBeVisible();
}

test('a shim engine with sixteen valves, from the stand to its recheck, by touch', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await openEngine(page, ENGINE);
  await page.getByLabel(/what is it here for/).fill('Noise at the front');
  await page.getByRole('button', { name: 'Rebuild', exact: true }).tap();
  await expect(page.getByRole('heading', { name: 'Book in', level: 2 })).toBeVisible();
  await tickEverything(page, 'finger');
  await ledOnTo(page, 'Open up');
  await tickEverything(page, 'finger');
  await nothingToCount(page);
  await goOn(page, 'As found');
  await page.getByLabel('Measured by').selectOption('One blade, light drag');
  await standingStill(page, KEYS, () =>
    eachAtHand(page, POINTS.length, async (key) => {
      await tapIn(page, key === '2Ea' ? '.13 .15' : key.includes('I') ? '.15' : '.25');
      await expect(onHead(page, key)).not.toHaveAttribute('data-state', 'not-measured');
    }),
  );
  await expect(onHead(page, '2Ea')).toHaveAccessibleName(/^2Ea, exhaust, tight, 0\.13 to 0\.15/);
  await goOn(page, 'Wear');
  await tickEverything(page, 'finger');
  await ledOnTo(page, 'Head and cam work');
  await tickEverything(page, 'finger');
  await ledOnTo(page, 'Set');

  await selected(page, '2Ea');
  await page.getByRole('button', { name: 'Write down' }).tap();
  await expect(page.getByText(/The thickness in there now/)).toBeVisible();
  await page.getByLabel('in now, mm').fill('2.45');
  await expect(page.getByText('Fit 2.35 mm: thinner opens the gap'.replace(' mm', '\u202fmm'))).toBeVisible();
  await expect(page.getByText('leaves 0.23–0.25')).toBeVisible();
  // where the one taken out goes is said in the same tap
  await page.getByLabel('The one out goes to').selectOption('scrapped');
  await page.getByRole('button', { name: 'Fitted 2.35' }).tap();
  await expect(onHead(page, '2Ea')).toHaveAccessibleName(/set$/);
  await onHead(page, '2Ea').tap();
  await page.getByRole('button', { name: 'Take it back…' }).tap();
  await page.getByLabel('Taken back because').fill('the tray was upside down');
  await page.getByRole('button', { name: 'Take it back', exact: true }).tap();
  await expect(onHead(page, '2Ea')).not.toHaveAccessibleName(/set$/);
  await page.getByLabel('in now, mm').fill('2.45');
  await page.getByLabel('The one out goes to').selectOption('scrapped');
  await page.getByRole('button', { name: 'Fitted 2.35' }).tap();
  await expect(onHead(page, '2Ea')).toHaveAccessibleName(/set$/);
  await onHead(page, '1Ia').tap();
  await page.getByRole('button', { name: 'Leave it alone…' }).tap();
  await page.getByLabel('Left alone because').fill('quiet and in the middle');
  await page.getByRole('button', { name: 'Leave it', exact: true }).tap();
  // the cam was out for it
  await expect(page.getByText(/A cam was out, and its caps are not tightened since/)).toBeVisible();
  await camBackIn(page);
  await goOn(page, 'Prove');
  await tickEverything(page, 'finger');
  await standingStill(page, KEYS, () =>
    eachAtHand(page, POINTS.length, async (key) => {
      await tapIn(page, key.includes('I') ? '.15' : '.25');
      await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
    }),
  );
  await goOn(page, 'Close and sign off');
  await tickEverything(page, 'finger');
  await changeHands(page, 'Osk Velland');
  await page.getByRole('button', { name: 'Sign off and plan the recheck' }).tap();
  await expect(page.getByText('Recheck 1', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Measure it now' }).tap();
  await standingStill(page, KEYS, () =>
    eachAtHand(page, POINTS.length, async (key) => {
      await tapIn(page, key.includes('I') ? '.15' : '.25');
      await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
    }),
  );
  await page.getByRole('button', { name: 'Judge the recheck' }).tap();
  await expect(page.getByText(/every gap held, by Osk Velland/)).toBeVisible();
  await openEngine(page, ENGINE);
  await expect(page.getByRole('row', { name: /^2Ea in spec/ })).toContainText('0.13–0.15');
  await expect(page.getByRole('link', { name: /Build 2/ })).toContainText('finished');
});
