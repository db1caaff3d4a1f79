import { expect, test } from './test.ts';
import { entry, onHead, open, openBuildOf, selected, signIn } from './bench.ts';

test('every stop of an in-line six, walked; a reading off its base circle is asked about', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await openBuildOf(page, 'Snow groomer 2');
  const guide = page.getByRole('region', { name: 'Where to turn' });
  await expect(guide).toContainText(/Stop 1 of 2: Turn clockwise seen from the front to the mark/);
  await guide.getByRole('button', { name: 'Signs' }).click();
  await expect(guide).toContainText('cylinder 6 with its valves rocking');
  await guide.getByRole('button', { name: 'In position' }).click();
  await expect(guide).toContainText('the crank stands here');
  await expect(onHead(page, '2B')).toHaveAccessibleName(/may be measured here/);

  await selected(page, '2B');
  await onHead(page, '2E').click();
  await entry(page).fill('0.58 0.6');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/At 0° the follower of 2E is not on its base circle/)).toBeVisible();
  await expect(entry(page)).toHaveValue('0.58 0.6');
  await page.getByRole('button', { name: 'Keep it, marked' }).click();
  await onHead(page, '2E').click();
  await expect(onHead(page, '2E')).toHaveAttribute('data-state', 'off-base');
  await expect(page.getByText(/off its base circle at 0°: it proves nothing/)).toBeVisible();

  const gap = { I: '0.29 0.31', E: '0.59 0.61', B: '0.74 0.76' } as const;
  const keep = async (key: string) => {
    await selected(page, key);
    await entry(page).fill(gap[key.at(-1) as keyof typeof gap]);
    await page.keyboard.press('Enter');
    await expect(onHead(page, key)).toHaveAttribute('data-state', 'in-spec');
  };
  await onHead(page, '2B').click();
  for (const key of ['2B', '3E', '3B', '4I']) await keep(key);
  await page.reload();
  await expect(guide).toContainText(/Stop 1 of 2: the crank stands here/);
  for (const key of ['4B', '5I', '5E', '5B', '6B']) await keep(key);
  await expect(guide).toContainText(
    /Stop 2 of 2: Turn 360° on.*cylinder 6 at firing TDC, cylinder 1 rocking/,
  );
  await guide.getByRole('button', { name: 'Overshot' }).click();
  await expect(guide).toContainText(/come up to it again in the running direction/);
  await guide.getByRole('button', { name: 'In position' }).click();
  // what was kept off its base circle is to be measured still
  for (const key of ['2E', '3I', '4E', '6I', '6E']) await keep(key);
  await expect(guide).toContainText('All points measured');
});

test('which of the two TDCs it is, told by what is felt', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await openBuildOf(page, 'Summit drive');
  const guide = page.getByRole('region', { name: 'Where to turn' });
  await guide.getByRole('button', { name: 'Which TDC?' }).click();
  const [first, companion] = [
    guide.getByRole('group', { name: /What cylinder/ }).first(),
    guide.getByRole('group', { name: /What cylinder/ }).nth(1),
  ];
  await first.getByRole('button', { name: 'both sides loose' }).click();
  await expect(guide.getByRole('status')).toContainText('This is the stop that is meant.');
  await companion.getByRole('button', { name: 'both sides loose' }).click();
  await expect(guide.getByRole('status')).toContainText('neither of the two');
  await first.getByRole('button', { name: 'valves rocking' }).click();
  await expect(guide.getByRole('status')).toContainText('one full turn out');
  await guide.getByRole('button', { name: /the other turn/ }).click();
  await expect(page.getByRole('slider', { name: /Crank wheel/ })).toHaveAttribute('aria-valuenow', /\d+/);
  await page.getByRole('button', { name: 'I have lost my place' }).click();
  await expect(page.getByRole('button', { name: 'I have lost my place' })).toHaveCount(0);
});

test('the wheel turns by keyboard, by drag and from stop to stop; the gear beside it follows', async ({
  page,
}) => {
  await signIn(page, 'Petra Quell');
  await open(page, '/sheets');
  await page.getByRole('link', { name: 'Vessany R4 Rime' }).click();
  const wheel = page.getByRole('slider', { name: /Crank wheel/ });
  await wheel.focus();
  for (const [key, at] of [
    ['ArrowRight', '1'],
    ['Shift+ArrowRight', '11'],
    ['ArrowLeft', '10'],
    ['Home', '0'],
    ['Shift+ArrowLeft', '710'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(wheel).toHaveAttribute('aria-valuenow', at);
  }
  await page.keyboard.press('PageDown');
  await expect(wheel).toHaveAttribute('aria-valuenow', '0');
  await expect(wheel).toHaveAttribute('aria-valuetext', /^0°, first turn: .*1Ia/);
  await wheel.scrollIntoViewIfNeeded();
  const box = (await wheel.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x + box.width * 0.37, y);
  await page.mouse.down();
  await expect(wheel).toHaveAttribute('aria-valuenow', '450');
  await page.mouse.move(x + box.width * 0.26, y + box.width * 0.26, { steps: 4 });
  await page.mouse.up();
  await expect(wheel).toHaveAttribute('aria-valuenow', '495');
  await page.getByLabel('Where to turn').selectOption('Each cylinder at its firing TDC');
  await expect(page.getByRole('list', { name: 'Stops in turning order' }).getByRole('listitem')).toHaveCount(
    4,
  );
  const card = await page.request.get(
    new URL((await page.getByRole('link', { name: /Stop card/ }).getAttribute('href'))!, page.url()).href,
  );
  expect((await card.body()).subarray(0, 5).toString()).toBe('%PDF-');
});
