import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { open, openBuildOf, openEngine, signIn } from './bench.ts';

async function expectNoSeriousFinding(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
  expect(serious).toEqual([]);
}

for (const colorScheme of ['light', 'dark'] as const)
  test(`every page is accessible in the ${colorScheme} scheme`, async ({ browser }) => {
    const page = await (
      await browser.newContext({ colorScheme, viewport: { width: 1280, height: 800 } })
    ).newPage();
    await open(page, '/sign-in');
    await expect(page.getByRole('heading', { name: 'Zero Lash' })).toBeVisible();
    await expectNoSeriousFinding(page);
    await signIn(page, 'Ilse Marrand');
    await expect(page.getByText('On the bench')).toBeVisible();
    await expectNoSeriousFinding(page);
    for (const [path, heading] of [
      ['/engines', 'Engines'],
      ['/sheets', 'Spec sheets'],
      ['/sheets/new', 'New spec sheet'],
      ['/instruments', 'Instruments'],
      ['/shop', 'Shop'],
    ] as const) {
      await open(page, path);
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
      await page.waitForLoadState('networkidle');
      await expectNoSeriousFinding(page);
    }
    await openEngine(page, 'Frost fan 5, Mill Field');
    await expectNoSeriousFinding(page);
    await page.getByRole('link', { name: 'Q4 Orchard' }).click();
    await expect(page.getByRole('heading', { name: 'Quillmere Q4 Orchard' })).toBeVisible();
    await expectNoSeriousFinding(page);
    for (const engine of ['Head saw', 'Railcar 1', 'Edger', 'Fire pump, Overmere Quay', 'Snow groomer 2']) {
      await openBuildOf(page, engine);
      await expect(page.getByRole('radiogroup')).toBeVisible();
      await expectNoSeriousFinding(page);
    }
  });
