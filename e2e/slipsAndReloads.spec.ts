import { expect, test } from './test.ts';
import { entry, onHead, open, openBuildOf, openEngine, place, selected, signIn } from './bench.ts';
import { atAsFound } from './onTheStand.ts';

test('a slip of unit or point is asked about, and no answer is pushed', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await openBuildOf(page, 'Frost fan 7');
  await selected(page, '3E');
  for (const [text, sentence] of [
    ['thick', /“thick” is not a length/],
    ['-0.2', /never negative/],
    ['0.3 0.2', /goes comes first/],
    ['999', /No clearance is 999 mm/],
    ['', /Type a length/],
  ] as const) {
    await entry(page).fill(text);
    await page.keyboard.press('Enter');
    await expect(page.locator('#entry-note')).toHaveText(sentence);
    await expect(entry(page)).toHaveValue(text);
  }
  await expect(onHead(page, '3E')).toHaveAttribute('data-state', 'not-measured');
  await entry(page).fill('3.4');
  await page.keyboard.press('Enter');
  // what was typed and what it may have been stand side by side, and Enter alone takes neither
  await expect(page.getByRole('alert')).toContainText('far outside the limits');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '3E')).toHaveAttribute('data-state', 'not-measured');
  await page.getByRole('button', { name: /^Use 0\.34/ }).click();
  await expect(onHead(page, '3E')).toHaveAccessibleName(/^3E, exhaust, in spec, 0\.33 to 0\.35/);

  await selected(page, '4I');
  await entry(page).fill('9.8 thou');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '4I')).toHaveAttribute('data-state', 'in-spec');
  await selected(page, '4E');
  await entry(page).fill('2');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Keep as typed/ }).click();
  await expect(onHead(page, '4E')).toHaveAttribute('data-state', 'loose');
  await selected(page, '2E');
  await onHead(page, '4E').click();
  await expect(page.getByText(/kept although it looked like a slip/)).toBeVisible();
  await entry(page).fill('0.35');
  await page.keyboard.press('Enter');
  await selected(page, '2E');
  await onHead(page, '4E').click();
  await page.getByText('Measured 2 times in this round').click();
  await expect(
    page.getByRole('listitem').filter({ hasText: /superseded by Tobin Hask: measured again/ }),
  ).toBeVisible();
});

test('a page stays where it was scrolled to, whatever comes to pass on it', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await page.setViewportSize({ width: 1280, height: 500 });
  await atAsFound(page, 'Q4 Orchard', 'Stays where it is');
  const sheet = page.locator('#sheet');
  await onHead(page, '2I').click();
  await selected(page, '2I');
  const scrolled = await sheet.evaluate((box) => {
    box.scrollTop = box.scrollHeight;
    return box.scrollTop;
  });
  expect(scrolled).toBeGreaterThan(100);
  // a point that is out of sight is selected: all the while that the head would take to follow, a second of frames
  await onHead(page, '1I').dispatchEvent('click');
  await selected(page, '1I');
  const places = await sheet.evaluate(
    (box, frames) =>
      new Promise<number[]>((resolve) => {
        const seen = new Set<number>();
        const look = (left: number) => {
          seen.add(box.scrollTop);
          if (left === 0) resolve([...seen]);
          else requestAnimationFrame(() => look(left - 1));
        };
        look(frames);
      }),
    60,
  );
  expect(places).toEqual([scrolled]);
});

test('the head stays where it is under the finger as the first reading says that the crank stands there', async ({
  page,
}) => {
  await page.setViewportSize({ width: 768, height: 1024 });
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'T16 Rack', 'Stays under the finger');
  await expect(page.getByRole('button', { name: 'In position' })).toBeVisible();
  const place = async () => (await onHead(page, '2Ia').boundingBox())!.y;
  const before = await place();
  await entry(page).fill('0.14 0.16');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/the crank stands here/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'In position' })).toHaveCount(0);
  expect(await place()).toBe(before);
  // turned on its side it says what it has to in as much room as that takes
  await page.setViewportSize({ width: 1024, height: 768 });
  const guide = page.getByRole('region', { name: 'Where to turn' });
  await expect.poll(async () => (await guide.boundingBox())!.height).toBeLessThan(90);
});

test('the page reloaded in mid-round loses nothing, typed or sent', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await openBuildOf(page, 'Irrigation pump');
  await expect(page.getByRole('heading', { name: 'Prove', level: 2 })).toBeVisible();
  await onHead(page, '4I').click();
  await entry(page).fill('0.24 0.26');
  await page.keyboard.press('Enter');
  await expect(onHead(page, '4I')).toHaveAttribute('data-state', 'in-spec');
  await onHead(page, '4E').click();
  await entry(page).fill('0.33 0.3');
  await page.reload();
  await selected(page, '4E');
  await expect(entry(page)).toHaveValue('0.33 0.3');
  await expect(onHead(page, '4I')).toHaveAttribute('data-state', 'in-spec');
  await entry(page).fill('');
});

test('what was tapped in the very instant the page went is there when it comes back', async ({ page }) => {
  await signIn(page, 'Tobin Hask');
  await atAsFound(page, 'S1 Sawyer', 'Gone in an instant');
  await page.getByLabel('Measured by').selectOption('Step by step');
  const tapAndGo = async (name: string) => {
    await page.getByRole('button', { name, exact: true }).evaluate((button: HTMLElement) => {
      button.click();
      location.reload();
    });
    await page.waitForLoadState();
  };
  await expect(page.getByText('ry 0.08')).toBeVisible();
  await tapAndGo('goes');
  await expect(page.getByText('ry 0.14')).toBeVisible();
  await tapAndGo('won’t');
  await expect(onHead(page, '1I')).toHaveAccessibleName(/in spec, 0\.08 to 0\.14/);
  await page.reload();
  await expect(onHead(page, '1I')).toHaveAccessibleName(/in spec, 0\.08 to 0\.14/);
});

test('the arrow keys walk the head, and an empty entry walks too', async ({ page }) => {
  await signIn(page, 'Petra Quell');
  await openBuildOf(page, 'Railcar 1');
  await onHead(page, '1Ia').click();
  for (const [key, reached] of [
    ['ArrowRight', '1Ib'],
    ['ArrowRight', '2Ia'],
    ['ArrowDown', '2Ea'],
    ['ArrowLeft', '1Eb'],
    ['ArrowUp', '1Ib'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(onHead(page, reached)).toBeFocused();
    await selected(page, reached);
  }
});

test('a viewer sees everything and is refused every write', async ({ page }) => {
  await signIn(page, 'Petra Quell');
  await openBuildOf(page, 'Frost fan 3');
  await expect(page.getByRole('checkbox').first()).toBeDisabled();
  await expect(page.getByRole('button', { name: /Go on to/ })).toHaveCount(0);
  const buildId = new URL(page.url()).pathname.split('/').at(-1);
  const refused = await page.request.post(`${process.env.BASE_URL}/api/builds/${buildId}/ticks`, {
    data: { stage: 'take-in', check: 'cold', done: true },
    headers: { 'idempotency-key': '6b1f0a52-6a1e-4c5e-9a8e-0d5f3f9c2b11' },
  });
  expect(refused.status()).toBe(403);
  expect(await refused.json()).toMatchObject({ code: 'forbidden' });
  await openEngine(page, 'Spare, shelf 4');
  await expect(page.getByRole('button', { name: 'Rebuild', exact: true })).toHaveCount(0);
  await page.getByRole('link', { name: 'Shop', exact: true }).click();
  await expect(page.getByText(/A lead looks after the people/)).toBeVisible();
});

test('two people changing one engine both see what the other wrote', async ({ page, browser }) => {
  await signIn(page, 'Tobin Hask');
  const other = await (await browser.newContext()).newPage();
  await signIn(other, 'Osk Velland');
  for (const each of [page, other]) {
    await openEngine(each, 'Ropeway rescue drive');
    await each.getByRole('button', { name: 'Change details' }).click();
  }
  await other.getByLabel('Owner').fill('Kestrel Ridge Ropeway Company');
  await other.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(other.getByText(/Kestrel Ridge Ropeway Company/)).toBeVisible();
  await page.getByLabel('What it drives').fill('rescue drive, upper station');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Somebody changed this since you opened it.')).toBeVisible();
  await expect(page.getByText('now: Kestrel Ridge Ropeway Company')).toBeVisible();
  await page.getByRole('button', { name: 'Take theirs into the form' }).click();
  await page.getByLabel('What it drives').fill('rescue drive, upper station');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/Ropeway Company · rescue drive, upper station/)).toBeVisible();
});

test('a lead looks after the people, and everybody reads in their own unit', async ({ page }) => {
  await signIn(page, 'Ilse Marrand');
  await place(page, 'Shop');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Mirre Sool');
  await page.getByLabel('Passphrase', { exact: true }).fill('short');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('a passphrase has at least 10 characters')).toBeVisible();
  await page.getByLabel('Passphrase', { exact: true }).fill('long enough now');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByLabel('Role of Mirre Sool')).toBeVisible();
  await open(page, '/sheets');
  await page.getByRole('link', { name: /HV2 Pumper/ }).click();
  await expect(page.getByText('0.0762–0.127\u202fmm')).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByText('3.0–5.0\u202fthou')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
});
