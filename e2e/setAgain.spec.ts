import { expect, test, type Page } from './test.ts';
import { changeHands, onHead, selected, signInByKeyboard, tickEverything } from './bench.ts';

const ENGINE = 'Ice racer, number 14';
const PEDAL = { goes: 'PageDown', 'won’t': 'PageUp', next: 'F9' } as const;

async function teachPedal(page: Page): Promise<void> {
  await page.getByText('Pedal, voice and tones').click();
  for (const [words, key] of Object.entries(PEDAL)) {
    await page.getByRole('button', { name: new RegExp(`^Teach the key for ${words}`) }).click();
    await page.keyboard.press(key);
    await expect(page.getByRole('list', { name: 'Pedal' })).toContainText(`${words}`);
    await expect(page.getByRole('list', { name: 'Pedal' })).toContainText(key);
  }
  await page.getByText('Pedal, voice and tones').click();
}

/** Measures what is left with the pedal alone; gives how often it was pressed, for how many points. */
async function byPedal(page: Page): Promise<{ presses: number; points: number }> {
  const guide = page.getByRole('region', { name: 'Where to turn' });
  const stop = guide.getByText(/^Stop \d|^All points measured/);
  const heading = page.getByRole('region', { name: /^Point / }).getByRole('heading', { level: 2 });
  let [presses, points] = [0, 0];
  const press = async (what: keyof typeof PEDAL) => {
    await page.keyboard.press(PEDAL[what]);
    presses += 1;
  };
  await expect(stop).toBeVisible();
  while (!(await guide.getByText('All points measured').isVisible())) {
    if (await guide.getByRole('button', { name: 'In position' }).isVisible()) {
      const before = await heading.innerText();
      // nothing is said of a blade while the crank is being turned
      await press('goes');
      await expect(onHead(page, before)).not.toHaveAttribute('data-state', /undecided|in-spec/);
      presses -= 1;
      await press('next');
      await expect(guide.getByText('the crank stands here')).toBeVisible();
    }
    const key = await heading.innerText();
    await press('goes');
    await press('won’t');
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
    await expect(guide).not.toContainText(key);
    points += 1;
  }
  return { presses, points };
}

test('a recheck that did not hold is set again in a short build, measured with both hands free, and signed off', async ({
  page,
}) => {
  await signInByKeyboard(page, 'Tobin Hask');
  await page.evaluate(() => {
    const counted = { taps: 0, keys: 0 };
    Object.assign(window, { counted });
    addEventListener('pointerdown', () => (counted.taps += 1), true);
    addEventListener('keydown', () => (counted.keys += 1), true);
  });
  const failed = page.getByRole('region', { name: 'Did not hold' });
  await failed.getByRole('link', { name: new RegExp(ENGINE) }).click();
  await page.getByRole('button', { name: 'Set it again' }).click();
  await expect(page.getByText('which sets again what')).toContainText('recheck 1 of build 1');
  await selected(page, '3Ea');
  await expect(page.getByRole('button', { name: 'Go on to Prove' })).toBeDisabled();

  // a slip is asked about, with what was meant a key away
  await page.getByLabel('in now, mm').fill('24.5');
  await page.getByLabel('in now, mm').press('Enter');
  await page.getByLabel('fitted, mm').fill('2.4');
  await page.getByRole('button', { name: 'Write down' }).click();
  await expect(page.getByRole('alert')).toContainText('No shim of 24.50');
  await page.getByRole('button', { name: /^Use 2\.45/ }).click();
  await page.getByRole('button', { name: 'Write down' }).click();
  await expect(onHead(page, '3Ea')).toHaveAttribute('data-state', 'changed-since');

  // it is measured again where it is set, without leaving
  await onHead(page, '3Ea').click();
  await teachPedal(page);
  expect(await byPedal(page)).toEqual({ presses: 3, points: 1 });
  await expect(onHead(page, '3Ea')).toHaveAttribute('data-state', 'in-spec');
  await page.getByRole('button', { name: 'Go on to Prove' }).click();
  await expect(page.getByRole('heading', { name: 'Prove', level: 2 })).toBeVisible();
  await tickEverything(page);

  // what the change disturbed is proved again, and nothing else
  const states = await page
    .getByRole('radio', { name: /, (?:intake|exhaust)/ })
    .evaluateAll((points) => points.map((point) => point.getAttribute('data-state')));
  const left = states.filter((state) => state !== 'in-spec').length;
  const proof = await byPedal(page);
  expect(proof.points).toBe(left);
  expect(left).toBeLessThan(states.length);
  // two presses a point, and one at each stop
  expect(proof.presses).toBeLessThanOrEqual(2 * left + 4);

  await page.getByRole('button', { name: 'Go on to Close and sign off' }).click();
  await expect(page.getByRole('heading', { name: 'Close and sign off', level: 2 })).toBeVisible();
  await tickEverything(page);
  // the whole short build, but for the figures themselves: taps on the screen, keys and presses of the pedal
  const counted = await page.evaluate(() => {
    const { taps, keys } = (window as unknown as { counted: { taps: number; keys: number } }).counted;
    return { taps, keys };
  });
  expect(counted.taps).toBeLessThanOrEqual(18);
  // teaching the pedal three keys is among them
  expect(counted.keys).toBeLessThanOrEqual(14);
  await changeHands(page, 'Osk Velland');
  await page.getByRole('button', { name: 'Sign off and plan the recheck' }).click();
  await expect(page.getByText('Recheck 1', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  // another journey's engine may stand there
  await expect(failed.getByRole('link', { name: new RegExp(ENGINE) })).toHaveCount(0);
});
