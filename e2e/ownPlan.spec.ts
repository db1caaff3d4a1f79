import { expect, test } from './test.ts';
import { cached, entry, onHead, openEngine, place, signIn } from './bench.ts';
import { figure, measureAll, signedOff } from './ran.ts';

// the device keeps the whole application, and goes on without the server
test.use({ serviceWorkers: 'allow' });

test('an engine gets a plan of its own, a short look that holds is enough, and one that does not is of the whole head', async ({
  page,
}) => {
  await signIn(page, 'Tobin Hask');
  await signedOff(page, 'Cross-cut saw');
  await openEngine(page, 'Cross-cut saw');
  const looked = page.getByRole('region', { name: 'Recheck plan', exact: true });
  await expect(looked).toContainText('As its spec sheet says.');
  await looked.getByRole('button', { name: 'Give it a plan of its own' }).click();
  const form = page.getByRole('region', { name: /^A plan of its own for/ });
  // the sheet's second step goes, and the first is another
  await form.getByRole('button', { name: 'Take recheck 2 out' }).click();
  await form.getByLabel('starts', { exact: true }).fill('15');
  await form.getByLabel('or days').fill('');
  await form.getByLabel('at points').fill('1e 9e');
  await form.getByRole('button', { name: 'Keep its plan' }).click();
  await expect(form.getByText('Say in a line why.')).toHaveCount(0);
  await expect(form.getByText('There is no point 9E on this head.')).toBeVisible();
  await form.getByLabel('at points').fill('1e');
  await form.getByRole('button', { name: 'Keep its plan' }).click();
  await expect(form.getByText('Say in a line why.')).toBeVisible();
  await form.getByLabel('Because').fill('It cuts frozen logs');
  await form.getByRole('button', { name: 'Keep its plan' }).click();
  await expect(form).toHaveCount(0);
  await expect(looked).toContainText('after 15 starts, at 1E');
  await expect(looked).toContainText('A plan of its own, by Ilse Marrand');
  await expect(looked).toContainText('It cuts frozen logs');

  await page.getByRole('link', { name: /^Build 1/ }).click();
  await expect(page.getByText(/A short check: 1E, 1 of 2 points/)).toBeVisible();
  await expect(page.getByText(/planned again, by Ilse Marrand.*: It cuts frozen logs/)).toBeVisible();
  await page.getByRole('button', { name: 'Measure it now' }).click();
  await expect(onHead(page, '1I')).toHaveAccessibleName(/not in this look/);
  await measureAll(page, 1, () => '0.165 0.175');
  await page.getByRole('button', { name: 'Judge the recheck' }).click();
  await expect(page.getByText(/the one gap looked at held/).first()).toBeVisible();
  // the next one finds its point tight, and wants the other too
  await page.getByRole('button', { name: 'Measure it now' }).click();
  await measureAll(page, 1, () => '0.05 0.06');
  await expect(onHead(page, '1I')).toHaveAccessibleName(/not measured/);
  await expect(page.getByText('1 point to measure')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Judge the recheck' })).toBeDisabled();
  await onHead(page, '1I').click();
  await entry(page).fill('0.105 0.115');
  await entry(page).press('Enter');
  await page.getByRole('button', { name: 'Judge the recheck' }).click();
  await expect(page.getByText(/did not hold/).first()).toBeVisible();
});

test('meters are read on a round with no network, and are in the log as they were read once it is back', async ({
  page,
  context,
}) => {
  await signIn(page, 'Tobin Hask');
  await signedOff(page, 'Pole saw');
  await place(page, 'Rechecks');
  await expect(page.getByRole('article', { name: 'Pole saw' })).toBeVisible();
  await place(page, 'Usage');
  // a long list makes the rows in sight: an engine is looked for
  const find = () => page.getByLabel('Find').fill('pole saw');
  await find();
  await expect(figure(page, 'Pole saw')).toBeVisible();
  await page.evaluate(() => navigator.serviceWorker.ready);
  // what the page opens with is cached a moment after it came
  await cached(page, 'engines?');
  await context.setOffline(true);
  await page.reload();
  await find();
  await figure(page, 'Pole saw').fill('24');
  await page.reload();
  await find();
  await expect(figure(page, 'Pole saw')).toHaveValue('24');
  await page.getByRole('button', { name: 'Write down 1' }).click();
  const row = page.getByRole('row', { name: /Pole saw/ });
  await expect(row).toContainText('24 starts waits to be sent');
  await expect(page.getByRole('status').filter({ hasText: 'Pole saw' })).toContainText('kept on this device');
  // a slip, which nobody can know of here
  await figure(page, 'Pole saw').fill('21');
  await page.getByRole('button', { name: 'Write down 1' }).click();
  await place(page, 'Rechecks');
  await expect(page.getByRole('article', { name: 'Pole saw' })).toContainText('coming');
  await place(page, 'Usage');
  await find();
  await context.setOffline(false);
  await expect(row).not.toContainText('waits to be sent', { timeout: 20_000 });
  await expect(row).toContainText('21 starts of Pole saw was not written: The last figure was 24.');
  await expect(page.getByRole('status').filter({ hasText: 'Refused, 1' })).toContainText('Usage says why');
  await row.getByRole('button', { name: 'Throw it away' }).click();
  await expect(row).toContainText('24 starts');
  await expect(row.getByRole('alert')).toHaveCount(0);
});
