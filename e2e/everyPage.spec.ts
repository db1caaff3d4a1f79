import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from './test.ts';
import { open, openBuildOf, openEngine, signIn, signInByKeyboard } from './bench.ts';

test.use({ holdsAnswers: true });

const BENCH = { width: 1280, height: 800 };
const TABLET = { width: 768, height: 1024 };
const PHONE = { width: 390, height: 844 };
const PAPER = { width: 794, height: 1123 };

/** Goes to every page of the shop as a lead, and has a look at each. */
async function atEveryPageOfTheShop(page: Page, look: (page: Page) => Promise<void>): Promise<void> {
  await open(page, '/sign-in');
  await expect(page.getByRole('heading', { name: 'Zero Lash' })).toBeVisible();
  await look(page);
  await signInByKeyboard(page, 'Ilse Marrand');
  await expect(page.getByText('On the bench')).toBeVisible();
  await look(page);
  for (const [path, heading] of [
    ['/engines', 'Engines'],
    ['/sheets', 'Spec sheets'],
    ['/sheets/new', 'New spec sheet'],
    ['/instruments', 'Instruments'],
    ['/drawer', 'Drawer'],
    ['/rechecks', 'Rechecks'],
    ['/usage', 'Usage'],
    ['/owners', 'Owners'],
    ['/fleet', 'What our engines say'],
    ['/shop', 'Shop'],
    ['/guide', 'Your first day'],
  ] as const) {
    await open(page, path);
    await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
    await look(page);
  }
  await openEngine(page, 'Frost fan 5, Mill Field');
  await look(page);
  await page.getByRole('link', { name: 'Q4 Orchard' }).click();
  await expect(page.getByRole('heading', { name: 'Quillmere Q4 Orchard' })).toBeVisible();
  await look(page);
}

/** Engines of every kind and at every stage. */
const ENGINES = [
  ...['Frost fan 3', 'Fire pump, Brackwater', 'Line trolley', 'Head saw', 'Railcar 2', 'Railcar 1', 'Edger'],
  ...['Fire pump, Overmere Quay', 'Snow groomer 2'],
];

/** Goes to the page of a build at every stage, and has a look at each, and at what it has behind tabs. */
async function atEveryBuild(page: Page, look: (page: Page) => Promise<void>): Promise<void> {
  await signIn(page, 'Ilse Marrand');
  for (const engine of ENGINES) {
    await openBuildOf(page, engine);
    await expect(page.getByRole('radiogroup')).toBeVisible();
    await page.waitForLoadState('networkidle');
    await look(page);
    for (const name of ['Valves and seats', 'Result']) {
      const tab = page.getByRole('tab', { name });
      if ((await tab.count()) === 0) continue;
      await tab.click();
      await page.waitForLoadState('networkidle');
      await look(page);
    }
  }
}

/** What repeats itself: the first of a list speak for the colours of the rest. */
const REPEATED = ['tbody tr:nth-child(n+6)', 'li:nth-child(n+6)', 'svg [role="radio"]:nth-of-type(n+9)'];

/** Has a page looked through for what keeps a person out; `rules` narrows it to some of them, and to what does not repeat itself. */
async function expectNoSeriousFinding(page: Page, rules?: string[]): Promise<void> {
  // what is sound is not listed: that takes as long as finding what is not
  const asked = new AxeBuilder({ page })
    .options({ resultTypes: ['violations'], ...(rules ? { runOnly: rules } : {}) })
    // there are no frames in these pages: it is all done in the page itself
    .setLegacyMode();
  if (rules) for (const repeated of REPEATED) asked.exclude(repeated);
  const { violations } = await asked.analyze();
  const serious = violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
  expect(serious).toEqual([]);
}

/** In the page: what reaches past its right edge, is written too small, or is too small to be tapped. */
function findMisfits(): string[] {
  const LEAST_TEXT = 14;
  const LEAST_TARGET = 44;
  const targets =
    'button, select, input, textarea, summary, nav a, a.zl-tool, [role="radio"], [role="slider"]';
  const scrolls = (element: Element | null): boolean =>
    element !== null &&
    element.id !== 'sheet' &&
    (['auto', 'scroll'].includes(getComputedStyle(element).overflowX) || scrolls(element.parentElement));
  const hidden = (element: Element) =>
    !element.checkVisibility({ visibilityProperty: true }) || element.closest('[aria-hidden="true"]');
  const name = (element: Element) =>
    `${element.tagName.toLowerCase()} “${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 40)}”`;
  const found: string[] = [];
  for (const element of document.body.querySelectorAll('*')) {
    const { right, width, height } = element.getBoundingClientRect();
    if (width < 2 || height < 2 || hidden(element)) continue;
    if (right > window.innerWidth + 1 && !scrolls(element)) found.push(`past the edge: ${name(element)}`);
    const written = [...element.childNodes].some(
      (node) => node.nodeType === Node.TEXT_NODE && node.textContent!.trim(),
    );
    const drawn = element instanceof SVGGraphicsElement ? (element.getScreenCTM()?.a ?? 1) : 1;
    const size = Math.round(parseFloat(getComputedStyle(element).fontSize) * Math.abs(drawn) * 10) / 10;
    if (written && size < LEAST_TEXT) found.push(`${size} px written: ${name(element)}`);
    // a box that is ticked is tapped by its label too
    const target = (element.closest('label') ?? element).getBoundingClientRect();
    if (element.matches(targets) && Math.min(target.width, target.height) < LEAST_TARGET - 0.5)
      found.push(`a target of ${Math.round(target.width)} × ${Math.round(target.height)}: ${name(element)}`);
  }
  return [...new Set(found)];
}

/** Finds nothing that does not fit, once the page has settled on its size. */
const expectFits = (page: Page, size: { readonly width: number; readonly height: number }) =>
  page
    .setViewportSize(size)
    .then(() => expect.poll(() => page.evaluate(findMisfits), { message: page.url() }).toEqual([]));

/** A page fits a phone, a tablet and a bench screen, keeps nobody out in the light or in the dark, and prints whole. */
async function expectSound(page: Page, touched: (enabled: boolean) => Promise<void>): Promise<void> {
  await touched(true);
  await expectFits(page, PHONE);
  await expectFits(page, TABLET);
  await touched(false);
  await expectFits(page, BENCH);
  await expectNoSeriousFinding(page);
  // nothing but its colours is other in the dark
  await page.emulateMedia({ colorScheme: 'dark' });
  await expectNoSeriousFinding(page, ['color-contrast', 'link-in-text-block']);
  await page.emulateMedia({ colorScheme: 'light' });
  await page.setViewportSize(PAPER);
  await page.emulateMedia({ media: 'print' });
  await expectPrintsWhole(page);
  await page.emulateMedia({ media: 'screen' });
  await page.setViewportSize(BENCH);
}

for (const [which, walk] of [
  ['every page of the shop', atEveryPageOfTheShop],
  ['a build at every stage', atEveryBuild],
] as const)
  test(`${which} fits a phone, a tablet and a bench screen, is accessible in the light and in the dark, and prints whole`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ colorScheme: 'light', viewport: BENCH });
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    const coarse = () => page.evaluate(() => matchMedia('(pointer: coarse)').matches);
    const touched = async (enabled: boolean) => {
      await session.send('Emulation.setTouchEmulationEnabled', { enabled, maxTouchPoints: 1 });
      expect(await coarse()).toBe(enabled);
    };
    await walk(page, (each) => expectSound(each, touched));
  });

async function expectPrintsWhole(page: Page): Promise<void> {
  await expect(page.locator('.title-block')).toBeHidden();
  const sheet = page.locator('#sheet');
  if ((await sheet.count()) > 0)
    // what comes in a moment later makes the page longer, and its paper with it
    await expect
      .poll(() =>
        sheet.evaluate((part) => [
          part.scrollHeight - part.clientHeight,
          part.scrollWidth - part.clientWidth,
        ]),
      )
      .toEqual([0, 0]);
  // nothing that is pressed stands on paper
  expect(
    await page
      .getByRole('button')
      .evaluateAll((all) =>
        all.filter((one) => one.checkVisibility()).map((one) => one.outerHTML.slice(0, 120)),
      ),
  ).toEqual([]);
}
