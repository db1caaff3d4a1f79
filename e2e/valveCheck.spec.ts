import { expect, test, type Locator, type Page } from './test.ts';
import { entry, onHead, open, place, selected, signIn } from './bench.ts';
import { onSheet } from './onTheStand.ts';

/**
 * What a check takes from its job to its signature: every tap on the screen as the browser counts it, every tick among them, a typed
 * figure as one; by keyboard every key that does something, and nothing on the screen. Signing in is apart.
 */
const MOST_TAPS = { two: 13, twelve: 40, sixteen: 65 };

/** What was tapped on the screen, and which keys did something: a figure that is typed is one, by its Enter. */
interface Taps {
  screen: number;
  keys: number;
}

/** Counts what is really tapped and typed, in the browser, from now on. */
async function tapsOf(page: Page): Promise<() => Promise<Taps>> {
  await page.evaluate(() => {
    const taps: Taps = ((window as unknown as { taps: Taps }).taps = { screen: 0, keys: 0 });
    addEventListener('pointerdown', ({ isTrusted }) => void (taps.screen += isTrusted ? 1 : 0), true);
    addEventListener(
      'keydown',
      ({ isTrusted, key, target }) => {
        // a space within what is typed does nothing by itself
        const pressed = key === 'Enter' || (key === ' ' && !(target as Element).matches('input[inputmode]'));
        taps.keys += isTrusted && pressed ? 1 : 0;
      },
      true,
    );
  });
  return () => page.evaluate(() => (window as unknown as { taps: Taps }).taps);
}

/** The work of a check at its page: each of it as a hand does it, on the screen or by keyboard. */
function hands(page: Page, by: 'touch' | 'keyboard' = 'touch') {
  const press = (control: Locator, key: 'Enter' | 'Space') =>
    by === 'touch' ? control.click() : control.press(key);
  const point = page.getByRole('region', { name: /^Point / });
  const guide = page.getByRole('region', { name: 'Where to turn' });
  return {
    guide,
    tap: (name: string | RegExp) => press(page.getByRole('button', { name, exact: true }), 'Enter'),
    tick: (name: RegExp) => press(page.getByRole('checkbox', { name }), 'Space'),
    stage: (title: string) => expect(page.getByRole('heading', { name: title, level: 2 })).toBeVisible(),
    /** the point at hand, by our key */
    at: async () =>
      (await point.getByRole('heading', { level: 2 }).innerText()).replace(/^.*\((.+)\)$/, '$1'),
    /** types a gap and keeps it; what it is judged to be is awaited */
    typed: async (key: string, text: string, state: string) => {
      await entry(page).pressSequentially(text);
      await entry(page).press('Enter');
      await expect(onHead(page, key)).toHaveAttribute('data-state', state);
    },
    /** stands at a stop that is named: the crank was turned there */
    arrive: async (number: number) => {
      await expect(guide).toContainText(`Stop ${number} of`);
      await press(guide.getByRole('button', { name: 'In position' }), 'Enter');
      await expect(guide).toContainText('the crank stands here');
    },
  };
}

/** Everything that was tapped or typed. */
const all = async ({ taps }: { readonly taps: () => Promise<Taps> }) => {
  const { screen, keys } = await taps();
  return screen + keys;
};

/** A point as the guide names it. */
const pointNamed = (key: string) => ` ${key}`;

/** Books an engine in for its valves, as far as where they are checked. */
async function bookIn(page: Page, engine: string, by: 'touch' | 'keyboard' = 'touch') {
  await open(page, '/engines');
  await page.getByRole('link', { name: engine }).first().click();
  await expect(page.getByRole('heading', { name: engine, level: 1 })).toBeVisible();
  const taps = await tapsOf(page);
  const work = hands(page, by);
  await work.tap('Valve check');
  await work.stage('Book in');
  // nobody complains of it: no pressures are asked for
  await expect(page.getByRole('heading', { name: 'Compression and leak-down' })).toHaveCount(0);
  await work.tick(/Cannot start/);
  // the last tick of a stage is its way on
  await work.tick(/Engine cold/);
  await work.stage('Cover off');
  await work.tick(/Gasket/);
  await work.stage('Check and set');
  return { ...work, taps };
}

/** Everything back, started, and signed by the lead who did it. */
async function closeAndSign(page: Page, { tap, tick, stage }: ReturnType<typeof hands>, said: string) {
  await stage('Close and sign off');
  await tick(/Everything back/);
  await tick(/Started/);
  await expect(page.getByRole('region', { name: 'What is signed' })).toContainText(said);
  await tap('Sign off and plan the recheck');
  await expect(page.getByRole('heading', { name: 'Signed off' })).toBeVisible();
}

test('two valves with nothing wrong are checked: found once, proved by that, signed, and the next recheck planned', async ({
  page,
}) => {
  await signIn(page, 'Ilse Marrand');
  const work = await bookIn(page, 'Trimmer, Pellow Mill');
  await work.arrive(1);
  await selected(page, '1I');
  await work.typed('1I', '0.10 0.11', 'in-spec');
  await selected(page, '1E');
  await work.typed('1E', '0.16 0.17', 'in-spec');
  // nothing was touched: what was found proves it, and no gap is read again
  await work.tap('Go on to Close and sign off');
  await closeAndSign(page, work, '2 of 2 in spec; 2 of them as found, and left alone');
  expect(await all(work)).toBeLessThanOrEqual(MOST_TAPS.two);

  await place(page, 'Rechecks');
  await expect(page.getByRole('link', { name: /Trimmer, Pellow Mill/ }).first()).toBeVisible();
});

test('a V-six of twelve self-locking points, two of them out, takes one lap, and one proof of the two, by keyboard', async ({
  page,
}) => {
  await signIn(page, 'Ilse Marrand');
  await onSheet(page, 'V6 Ridge', 'Road train 11');
  const work = await bookIn(page, 'Road train 11', 'keyboard');
  const out = new Map([
    ['3I', '0.12 0.14'],
    ['4E', '0.42 0.44'],
  ]);
  for (let stop = 1, read = 0; read < 12; stop += 1) {
    await work.arrive(stop);
    let key = await work.at();
    for (let here = 0; here < 2; here += 1, read += 1) {
      const sound = key.endsWith('I') ? '0.22 0.23' : '0.32 0.33';
      if (out.has(key)) {
        await work.typed(key, out.get(key)!, key === '3I' ? 'tight' : 'loose');
        // it stays at the point, and says what to do there and then
        expect(await work.at()).toBe(key);
        await work.tap('Turned by the blade');
        await expect(onHead(page, key)).toHaveAttribute('data-state', 'changed-since');
      }
      await work.typed(key, sound, 'in-spec');
      if (here === 0) {
        await expect.poll(work.at).not.toBe(key);
        key = await work.at();
      }
    }
  }
  await work.tap('Go on to Prove');
  await work.stage('Prove');
  await work.tick(/Two full turns/);
  for (let stop = 0; stop < 2; stop += 1) {
    await work.tap('In position');
    const key = await work.at();
    expect([...out.keys()]).toContain(key);
    await work.typed(key, key.endsWith('I') ? '0.22 0.23' : '0.32 0.33', 'in-spec');
  }
  await work.tap('Go on to Close and sign off');
  await closeAndSign(page, work, '12 of 12 in spec; 10 of them as found, and left alone');
  const { screen, keys } = await work.taps();
  expect({ screen, keys: keys <= MOST_TAPS.twelve || keys }).toEqual({ screen: 0, keys: true });
});

test('sixteen on buckets, three of them out, pieces in the drawer: fitted at the stop, the tool out, felt again, and proved', async ({
  page,
}) => {
  await signIn(page, 'Ilse Marrand');
  await onSheet(page, 'R4 Rime', 'Rime racer 12');
  const work = await bookIn(page, 'Rime racer 12');
  const out = ['1Ia', '2Ea', '4Ib'];
  const sound = (key: string) => (key.includes('I') ? '0.12 0.13' : '0.22 0.23');
  let stop = 0;
  for (let read = 0; read < 16;) {
    stop += 1;
    await work.arrive(stop);
    while ((await work.guide.innerText()).includes('the crank stands here')) {
      const key = await work.at();
      if (out.includes(key)) {
        await work.typed(key, key.includes('I') ? '0.06 0.07' : '0.16 0.17', 'tight');
        await work.tick(/Tool in at/);
        await page.getByLabel('in now, mm').fill('2.75');
        await work.tap(/^Fitted /);
        await expect(onHead(page, key)).toHaveAttribute('data-state', 'changed-since');
        await work.tick(/Tool in at/);
      }
      await work.typed(key, sound(key), 'in-spec');
      read += 1;
      if (read === 16) break;
      await expect.poll(work.at).not.toBe(key);
    }
  }
  await work.tap('Go on to Prove');
  await work.stage('Prove');
  await work.tick(/Two full turns/);
  // what the tool held down beside what was fitted was disturbed with it
  for (let proved = 0; proved < 2 * out.length; proved += 1) {
    const there = work.guide.getByRole('button', { name: 'In position' });
    if (await there.isVisible()) {
      await there.click();
      await expect(work.guide).toContainText('the crank stands here');
    }
    const key = await work.at();
    await work.typed(key, sound(key), 'in-spec');
    await expect.poll(async () => (await work.guide.innerText()).includes(pointNamed(key))).toBe(false);
  }
  await work.tap('Go on to Close and sign off');
  await closeAndSign(page, work, '16 of 16 in spec; 10 of them as found, and left alone');
  expect(await all(work)).toBeLessThanOrEqual(MOST_TAPS.sixteen);
});
