import { expect, type Page } from '@playwright/test';
import { changeHands, entry, onHead, tickEverything } from './bench.ts';
import { withHeadOpen } from './onTheStand.ts';

/** Where the figure of an engine's meter is typed in the list of all. */
export const figure = (page: Page, engine: string) => page.getByLabel(new RegExp(`^${engine}.*, now in`));

/** Measures points of what is measured, each as it is told, from whichever it stands at. */
export async function measureAll(page: Page, count: number, gap: (key: string) => string): Promise<void> {
  const heading = page.getByRole('region', { name: /^Point / }).getByRole('heading', { level: 2 });
  for (let done = 0; done < count; done += 1) {
    const key = await heading.innerText();
    await entry(page).fill(gap(key));
    await entry(page).press('Enter');
    await expect(onHead(page, key)).not.toHaveAttribute('data-state', 'not-measured');
    if (done < count - 1) await expect(heading).not.toHaveText(key);
  }
}

/** Signs an engine off and gives its name: every gap in the middle of its band. */
export async function signedOff(page: Page, name: string): Promise<void> {
  await withHeadOpen(page, 'S1 Sawyer', name, 'set', (key) => (key === '1I' ? 0.11 : 0.17));
  await page.getByRole('button', { name: 'Go on to Prove' }).click();
  await expect(page.getByRole('heading', { name: 'Prove', level: 2 })).toBeVisible();
  await tickEverything(page.getByRole('group', { name: 'Tick off' }));
  await measureAll(page, 2, (key) => (key === '1I' ? '0.105 0.115' : '0.165 0.175'));
  await page.getByRole('button', { name: 'Go on to Close and sign off' }).click();
  await expect(page.getByRole('heading', { name: 'Close and sign off', level: 2 })).toBeVisible();
  await tickEverything(page.getByRole('group', { name: 'Tick off' }));
  await changeHands(page, 'Ilse Marrand');
  await page.getByRole('button', { name: 'Sign off and plan the recheck' }).click();
  await expect(page.getByText('Recheck 1', { exact: true })).toBeVisible();
}
