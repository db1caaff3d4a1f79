import { expect, test, type Page } from './test.ts';
import { allSent, entry, fours, onHead, eachAtHand, selected, signIn } from './bench.ts';
import { atAsFound } from './onTheStand.ts';

const SIXTEEN = fours(4);

test('a 16-valve round by blades, at the keyboard: two keys a point where it is in spec', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'T16 Rack', 'Blades by keyboard');
  await page.getByLabel('Measured by').selectOption('Step by step');
  await page.getByRole('textbox', { name: /^Gap at/ }).focus();
  let keys = 0;
  const press = async (key: string) => {
    keys += 1;
    await page.keyboard.press(key);
  };
  await eachAtHand(page, SIXTEEN.length, async (key) => {
    await expect(page.getByText(key.includes('I') ? 'Try 0.11' : 'Try 0.21')).toBeVisible();
    await press('g');
    await expect(page.getByText(key.includes('I') ? 'Try 0.19' : 'Try 0.29')).toBeVisible();
    await press('w');
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  });
  expect(keys / SIXTEEN.length).toBeLessThanOrEqual(5);
  await expect(page.getByRole('status', { name: 'Points so far' })).toContainText('16');
  await expect(onHead(page, '1Ia')).toHaveAccessibleName(/0\.11 to 0\.19/);

  await onHead(page, '4Eb').click();
  await page.keyboard.press('w');
  await expect(page.getByText('To set by it:')).toBeVisible();
  await expect(onHead(page, '4Eb')).toHaveAttribute('data-state', 'tight');
  await page.keyboard.type('0.15');
  await page.keyboard.press('g');
  await page.keyboard.press('n');
  await page.keyboard.press('Backspace');
  await page.keyboard.type('0.18');
  await page.keyboard.press('g');
  await expect(onHead(page, '4Eb')).toHaveAccessibleName(/tight, 0\.18 to 0\.21/);
  await onHead(page, '4Eb').click();
  await page.getByText(/Measured \d times in this round/).click();
  await expect(
    page.getByRole('listitem').filter({ hasText: 'narrowed, to set by it' }).first(),
  ).toBeVisible();
});

test('blade by blade: one blade goes over every valve of the stop before the next is taken up, and what is out is left for last', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  // which blades there are comes in last: no key is taken before, to mean nothing
  await page.route('**/api/tools', async (route) => {
    await new Promise((ready) => setTimeout(ready, 1000));
    await route.continue();
  });
  await atAsFound(page, 'T16 Rack', 'Blade by blade');
  await page.getByLabel('Measured by').selectOption('Go and no-go, blade by blade');
  const guide = page.getByRole('region', { name: 'Where to turn' });
  const heading = page.getByRole('region', { name: /^Point / }).getByRole('heading', { level: 2 });
  await entry(page).focus();
  // the first of eight valves lets no blade in: it is out, and the blade goes on to the next
  const walked: string[] = [];
  for (let press = 0; press < 15; press += 1) {
    const key = await heading.innerText();
    walked.push(key);
    await page.keyboard.press(press === 0 ? 'w' : walked.indexOf(key) === press ? 'g' : 'w');
    if (press < 14) await expect(heading).not.toHaveText(key);
    // where the crank stands was said by the first of them
    if (press === 0) await expect(guide).toContainText('the crank stands here');
  }
  const intakes = walked.filter((key) => key.includes('I'));
  // the intakes' go, their no-go without the one that failed, then the exhausts' two
  expect(walked.slice(0, intakes.length)).toEqual(intakes);
  expect(new Set(walked).size).toBe(8);
  await expect(onHead(page, walked[0]!)).toHaveAttribute('data-state', 'tight');
  for (const key of new Set(walked.slice(1)))
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  // what it was left at is narrowed now, to choose a piece by
  await expect(heading).toHaveText(walked[0]!);
  await expect(page.getByText('To set by it:')).toBeVisible();
});

test('what was tried is not lost by a question, and a try taken back is taken back on the record', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  // a piece is chosen by the figure: what is out is narrowed further
  await atAsFound(page, 'T16 Rack', 'Tried and asked');
  await page.getByLabel('Measured by').selectOption('Step by step');
  for (const blade of ['0.11', '0.19', '0.20', '0.22']) {
    await expect(page.getByText(new RegExp(`(Try|To set by it:) ${blade}`))).toBeVisible();
    await page.getByRole('button', { name: 'goes', exact: true }).click();
  }
  await expect(onHead(page, '1Ia')).toHaveAccessibleName(/loose, 0\.22 to …/);
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(onHead(page, '1Ia')).toHaveAccessibleName(/loose, 0\.20 to …/);
  await allSent(page);
  await page.reload();
  await expect(onHead(page, '1Ia')).toHaveAccessibleName(/loose, 0\.20 to …/);
  await onHead(page, '1Ia').click();
  for (const left of ['0.19', '0.11', '0.00']) {
    await page.getByRole('button', { name: 'Take back' }).click();
    await expect(onHead(page, '1Ia')).toHaveAccessibleName(new RegExp(`, ${left} to …`));
  }
  await page.reload();
  await onHead(page, '1Ia').click();
  await expect(page.getByText(/typed taken back by Tobin Hask/)).toBeVisible();

  await atAsFound(page, 'S1 Sawyer', 'Asked of its base circle');
  await entry(page).fill('0.12 0.13');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '1I')).toHaveAttribute('data-state', 'in-spec');

  const guide = page.getByRole('region', { name: 'Where to turn' });
  await onHead(page, '1E').click();
  // the first reading at the stop said so
  await expect(guide).toContainText('the crank stands here');
  const wheel = page.getByRole('slider', { name: /Crank wheel/ });
  await wheel.focus();
  for (let step = 0; step < 25; step += 1) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'The crank stands here', exact: true }).click();
  await onHead(page, '1E').click();
  await page.getByRole('button', { name: 'goes', exact: true }).click();
  await page.getByRole('button', { name: 'won’t', exact: true }).click();
  await expect(page.getByText(/is not on its base circle/)).toBeVisible();
  await page.getByRole('button', { name: 'Change it' }).click();
  await page.getByRole('button', { name: 'Next point' }).click();
  await page.getByRole('button', { name: 'Keep it, marked' }).click();
  await expect(onHead(page, '1E')).toHaveAttribute('data-state', 'off-base');
});

test('a finger that bounces says nothing of the next point', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'S1 Sawyer', 'Bounced');
  const [go, noGo] = [
    page.getByRole('group', { name: 'Go blade', exact: true }),
    page.getByRole('group', { name: 'No-go blade' }),
  ];
  await go.getByRole('button', { name: 'goes' }).click();
  await noGo.getByRole('button', { name: 'won’t' }).dblclick();
  await expect(onHead(page, '1I')).toHaveAttribute('data-state', 'in-spec');
  await selected(page, '1E');
  await expect(noGo.getByRole('button', { name: 'won’t' })).toHaveAttribute('aria-pressed', 'false');
  await go.getByRole('button', { name: 'goes' }).click();
  await expect(onHead(page, '1E')).toHaveAttribute('data-state', 'not-measured');
  await expect(go.getByRole('button', { name: 'goes' })).toHaveAttribute('aria-pressed', 'true');
});

test('tries that contradict each other say so and lose nothing until a person says', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'T16 Rack', 'Blades at odds');
  await page.getByLabel('Measured by').selectOption('Step by step');
  const blade = (thickness: string) => page.locator(`[data-blade="${thickness}"]`);
  await expect(blade('0.13')).toBeDisabled();
  await blade('0.18').click();
  await page.getByRole('button', { name: 'goes' }).click();
  await blade('0.15').click();
  await page.getByRole('button', { name: 'won’t' }).click();
  await expect(page.getByText(/contradict each other: 0\.18 goes, 0\.15 won’t/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/contradict each other: 0\.18 goes, 0\.15 won’t/)).toBeVisible();
  await page.getByRole('button', { name: 'Clear the older' }).click();
  await expect(page.getByText(/contradict/)).toHaveCount(0);
  await blade('0.05').click();
  await blade('0.07').click();
  await expect(page.getByText('0.05 + 0.07 = 0.12')).toBeVisible();
  await page.getByRole('button', { name: 'goes' }).click();
  await expect(onHead(page, '1Ia')).toHaveAccessibleName(/in spec, 0\.12 to 0\.15/);
});

test('an overdue blade set is a caution where it is used, until it is checked against a block', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'S1 Sawyer', 'Measured with the field box');
  await page.getByLabel('At bench').selectOption('Field box');
  await expect(page.getByText(/Angled blades was due for its check/)).toBeVisible();
  const build = page.url();
  await page.getByRole('link', { name: 'Instruments' }).click();
  const row = page.getByRole('article', { name: 'Angled blades' });
  await expect(row).toContainText('check overdue since');
  await row.getByRole('button', { name: 'Check it' }).click();
  await row.getByRole('button', { name: 'Write down' }).click();
  await expect(row.getByRole('alert')).toContainText('as lengths such as 0.50');
  await row.getByLabel('Block, mm').fill('0.50');
  await row.getByLabel('Found, mm').fill('0.53');
  await row.getByRole('button', { name: 'Write down' }).click();
  await expect(row).toContainText('not good');
  await row.getByRole('button', { name: 'Check it' }).click();
  await row.getByLabel('Block, mm').fill('0.50');
  await row.getByLabel('Found, mm').fill('0.51');
  await row.getByRole('button', { name: 'Write down' }).click();
  await expect(row).toContainText('check due');
  await page.getByRole('button', { name: 'New instrument' }).click();
  await page.getByLabel('What it is called').fill('Short blades');
  await page.getByLabel('Blades in the set').fill('0.1, thick');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/“thick” is not a blade/)).toBeVisible();
  await page.getByLabel('Blades in the set').fill('0.10–0.20 by 0.02, 12 thou');
  await page.locator('[data-blade="0.14"]').click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('article', { name: 'Short blades' })).toContainText('6 blades, 0.10 to 0.3048');
  await page.goto(build);
  await expect(page.getByRole('radiogroup')).toBeVisible();
  await expect(page.getByText(/was due for its check/)).toHaveCount(0);
});

async function pressInGap(page: Page, gap: string): Promise<void> {
  const panel = page.getByRole('region', { name: 'Simulated gauge' });
  await panel.getByLabel('Held in a gap of, mm').fill(gap);
  await panel.getByRole('button', { name: 'Press its button' }).click();
}

test('a 16-valve round with the digital gauge, its drift, its unit and its drop-outs', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'T16 Rack', 'Gauge round');
  await page.getByLabel('Measured by').selectOption('Digital gauge');
  await expect(page.getByText(/heard, and free|heard here/)).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText(/heard here/)).toBeVisible();
  const panel = page.getByRole('region', { name: 'Simulated gauge' });
  await panel.getByLabel('Noise, mm').fill('0');

  await page.getByRole('button', { name: 'Check its zero' }).click();
  await panel.getByLabel('Zero moved by, mm').fill('0.03');
  await pressInGap(page, '0');
  await expect(page.getByText(/Its zero is off by 0\.03/)).toBeVisible();
  await pressInGap(page, '0.15');
  await expect(page.getByText(/is not taken while its zero is off/)).toBeVisible();
  await panel.getByLabel('Zero moved by, mm').fill('0');
  await page.getByRole('button', { name: 'Check its zero' }).click();
  await pressInGap(page, '0');
  await expect(page.getByText('Its zero holds.')).toBeVisible();
  await expect(onHead(page, '1Ia')).toHaveAttribute('data-state', 'not-measured');

  await panel.getByLabel('Lost or cut, 0–1').fill('1');
  await expect(async () => {
    await pressInGap(page, '0.15');
    await expect(page.getByText(/line came cut off/)).toBeVisible({ timeout: 300 });
  }).toPass();
  await panel.getByLabel('Lost or cut, 0–1').fill('0');

  await eachAtHand(page, SIXTEEN.length, async (key) => {
    if (key === '2Ia') await panel.getByLabel('Set to').selectOption('inches');
    await pressInGap(page, key.includes('I') ? '0.152' : '0.248');
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
    if (key === '2Ia') await panel.getByLabel('Set to').selectOption('mm');
  });
  await onHead(page, '4Eb').click();
  await pressInGap(page, '1.52');
  await expect(page.getByText(/1\.52.*is far outside the limits/)).toBeVisible();
  await page.getByRole('button', { name: 'Change it' }).click();
  await onHead(page, '2Ia').click();
  await expect(page.getByText(/typed 0\.0059\d in by Tobin Hask, with Digital gauge/)).toBeVisible();
  await page.getByRole('button', { name: 'Let it go' }).click();
  await expect(page.getByText(/heard, and free/)).toBeVisible();
});

test.describe('on a tablet', () => {
  test.use({ viewport: { width: 768, height: 1024 }, hasTouch: true, isMobile: true });

  test('a 16-valve round by go and no-go, by touch: two taps a point; what fails falls back to tries', async ({
    page,
  }) => {
    await signIn(page, 'Tobin Hask');
    await atAsFound(page, 'T16 Rack', 'Go and no-go by touch');
    const [go, noGo] = ['Go blade', 'No-go blade'].map((name) =>
      page.getByRole('group', { name, exact: true }),
    );
    await expect(page.getByText('Go 0.11 mm', { exact: true })).toBeVisible();
    await expect(page.getByText('No-go 0.19 mm', { exact: true })).toBeVisible();
    let taps = 0;
    let last = '';
    await eachAtHand(page, SIXTEEN.length, async (key) => {
      last = key;
      await go!.getByRole('button', { name: 'goes' }).tap();
      taps += 1;
      await expect(go!.getByRole('button', { name: 'goes' })).toHaveAttribute('aria-pressed', 'true');
      if (taps > 2 * SIXTEEN.length - 2) return;
      await noGo!.getByRole('button', { name: 'won’t' }).tap();
      taps += 1;
      await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
    });
    expect(taps / SIXTEEN.length).toBeLessThanOrEqual(2);
    await noGo!.getByRole('button', { name: 'goes' }).tap();
    await expect(page.getByText(last.includes('I') ? /Try 0\.20/ : /Try 0\.30/)).toBeVisible();
    await page.getByRole('button', { name: 'goes', exact: true }).tap();
    await expect(onHead(page, last)).toHaveAttribute('data-state', 'loose');
    await page.getByRole('button', { name: 'won’t', exact: true }).tap();
    await expect(onHead(page, last)).toHaveAccessibleName(/loose, 0\.[23]0 to 0\.[23]/);
  });
});
