import { randomUUID } from 'node:crypto';
import { expect, type Locator, type Page } from '@playwright/test';
import type { SheetRevision } from '@zero-lash/contract/sheets';

const PASSPHRASES = {
  'Ilse Marrand': 'brass-and-feeler',
  'Osk Velland': 'second-look-twice',
  'Tobin Hask': 'two-full-turns',
  'Petra Quell': 'only-looking-on',
} as const;

/** Somebody of the demo shop. */
export type Somebody = keyof typeof PASSPHRASES;

/** Opens a page of the running shop. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(`${process.env.BASE_URL}${path}`);
}

async function sayWho(page: Page, name: Somebody): Promise<void> {
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Passphrase').fill(PASSPHRASES[name]);
  await page.getByLabel('Passphrase').press('Enter');
}

/** Signs in before any page is opened: what signing in itself looks like other journeys see. */
export async function signIn(page: Page, name: Somebody): Promise<void> {
  const data = { name, passphrase: PASSPHRASES[name] };
  const answer = await page.request.post(`${process.env.BASE_URL}/api/session`, { data });
  expect(answer.status(), `${name} signs in`).toBe(200);
}

/** Signs in by keyboard, and stands on Today. */
export async function signInByKeyboard(page: Page, name: Somebody): Promise<void> {
  await open(page, '/sign-in');
  await sayWho(page, name);
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
}

/** Hands the bench to somebody else, who comes in on the page that was open. */
export async function changeHands(page: Page, name: Somebody): Promise<void> {
  const title = await page.getByRole('heading', { level: 1 }).innerText();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await sayWho(page, name);
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

/** Waits until everything done on this device is with the server: after a while offline that is a hundred writes, one after another. */
export const allSent = (page: Page) =>
  expect(page.getByText(/Waiting to be sent/)).toHaveCount(0, { timeout: 60_000 });

const PLACES: Readonly<Record<string, string>> = { Today: '/', 'Spec sheets': '/sheets' };

/** Goes to a page by its name at the foot; straight there where none is open yet. */
export async function place(page: Page, name: string): Promise<void> {
  if (page.url() === 'about:blank') await open(page, PLACES[name] ?? `/${name.toLowerCase()}`);
  else await page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name, exact: true }).click();
  // what is on Today has links of the same name
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
}

/** Opens an engine's page from the list. */
export async function openEngine(page: Page, name: string): Promise<void> {
  await place(page, 'Engines');
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

/** The mark of a point on the head map: its key, role, state and figures as they are spoken. */
export const onHead = (page: Page, key: string) => page.getByRole('radio', { name: new RegExp(`^${key},`) });

/** Where the gap of the selected point is typed. */
export const entry = (page: Page) => page.getByRole('textbox', { name: /^Gap at/ });

/** Waits until the selected point is the one named. */
export const selected = (page: Page, key: string) =>
  // with the maker's name before it, where it has one
  expect(page.getByRole('heading', { name: new RegExp(`^(.+ \\()?${key}\\)?$`), level: 2 })).toBeVisible();

/** Ticks everything there is to tick, once it is there: a list that is only looked up is empty while it loads. */
export async function tickEverything(
  where: Page | Locator,
  hand: 'mouse' | 'finger' = 'mouse',
): Promise<void> {
  const boxes = where.getByRole('checkbox');
  await expect(boxes.first()).toBeVisible();
  const all = await boxes.all();
  const title = pageOf(where).getByRole('heading', { level: 2 }).first();
  const before = await title.innerText();
  for (const [index, box] of all.entries()) {
    if (await box.isChecked()) continue;
    await (hand === 'finger' ? box.tap() : box.click());
    // the last tick of a stage may be its way on: then the box is gone
    if (index < all.length - 1) await expect(box).toBeChecked();
    else
      await expect
        .poll(async () => (await title.innerText()) !== before || (await box.isChecked()))
        .toBe(true);
  }
}

const pageOf = (where: Page | Locator): Page => ('page' in where ? where.page() : where);

/** The last tick of a stage is its way on: waits until the build is there. */
export const ledOnTo = (page: Page, stage: string): Promise<void> =>
  expect(page.getByRole('heading', { name: stage, level: 2 })).toBeVisible();

/** Does something at each point as it comes to hand, as many as are named; in the order that the stops have. */
export async function eachAtHand(
  page: Page,
  count: number,
  work: (key: string) => Promise<void>,
): Promise<void> {
  const heading = page.getByRole('region', { name: /^Point / }).getByRole('heading', { level: 2 });
  let before: string | null = null;
  for (let done = 0; done < count; done += 1) {
    if (before !== null) await expect(heading).not.toHaveText(before);
    const key = await heading.innerText();
    await work(key);
    before = key;
  }
}

/** What moves for less than this has moved back before a finger that aimed at it comes down. */
const OFTEN_MS = 120;

/**
 * Does some work, and sees that the buttons so called stand still meanwhile: all the while, not only where each tap comes. A
 * finger that is coming down meets what it was meant for. Some may go when they are done with.
 */
export async function standingStill(page: Page, called: RegExp, work: () => Promise<void>): Promise<void> {
  await expect(page.getByRole('button', { name: called }).first()).toBeVisible();
  const watch = await page.evaluateHandle(
    ([source, often]) => {
      const seen = { places: {} as Record<string, (readonly [number, number])[]>, watching: true };
      const named = new RegExp(source, 'u');
      const look = () => {
        // the page may be scrolled on purpose: what moves in its own part is what moves under a finger
        const scrolled = document.querySelector('#sheet')!.scrollTop;
        for (const button of document.querySelectorAll('button')) {
          const name = button.getAttribute('aria-label') ?? button.textContent;
          if (!named.test(name)) continue;
          const stuck = button.closest('.build-point-near') !== null;
          const { left, top } = button.getBoundingClientRect();
          const at = [left, top + (stuck ? 0 : scrolled)] as const;
          const places = (seen.places[name] ??= []);
          const last = places.at(-1);
          // parts of a pixel are the rounding of what is scrolled
          if (!last || Math.hypot(at[0] - last[0], at[1] - last[1]) >= 2) places.push(at);
        }
      };
      look();
      const every = setInterval(() => (seen.watching ? look() : clearInterval(every)), often);
      return seen;
    },
    [called.source, OFTEN_MS] as const,
  );
  await work();
  const places = await watch.evaluate((seen) => {
    seen.watching = false;
    return seen.places;
  });
  const moved = Object.entries(places).filter(([, where]) => where.length > 1);
  expect(Object.fromEntries(moved)).toEqual({});
}

/** The lash points of an engine with one intake and one exhaust a cylinder, in the order of the work. */
export const pairs = (cylinders: number) =>
  Array.from({ length: cylinders }, (_, index) => [`${index + 1}I`, `${index + 1}E`]).flat();

/** The lash points of an engine with two intakes and two exhausts a cylinder, in the order of the work. */
export const fours = (cylinders: number) =>
  Array.from({ length: cylinders }, (_, index) =>
    ['Ia', 'Ib', 'Ea', 'Eb'].map((side) => `${index + 1}${side}`),
  ).flat();

/** Writes down why nothing is counted out: a count is not ticked over nothing without a word. */
export async function nothingToCount(page: Page): Promise<void> {
  await page.getByLabel('Note at Open up').fill('Only the cover came off.');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Only the cover came off.')).toBeVisible();
}

/** Ticks what puts a cam back: what the sheet does not let be skipped, and the passes of its caps. */
export async function camBackIn(page: Page): Promise<void> {
  await page.getByText('Put together', { exact: true }).click();
  const steps = page.getByRole('checkbox', { name: /\(not to be skipped\)/ });
  // what is in the fold is made as it opens: a list asked for at once would be empty
  await steps.first().waitFor();
  for (const step of await steps.all()) await step.check();
  await page.getByText('Tighten, pass by pass', { exact: true }).click();
  const caps = page.getByRole('heading', { name: 'Cam caps' }).locator('..');
  for (const pass of [/^Pass 1 of 2/, /^Pass 2 of 2/]) {
    const box = caps.getByRole('checkbox', { name: pass });
    await expect(box).toBeEnabled();
    await box.check();
  }
}

/** Writes as whoever is signed in on a page. */
export async function write(page: Page, path: string, data: unknown, base = process.env.BASE_URL!) {
  const answer = await page.request.post(`${base}/api/${path}`, {
    data,
    headers: { 'idempotency-key': randomUUID() },
  });
  expect(answer.ok(), `${path}: ${answer.status()}`).toBe(true);
  return (await answer.json()) as Record<string, unknown> & { id: string };
}

/** Publishes a sheet like one that is only drafted, under a name of its own: written by who is signed in, checked by nobody else. */
export async function publishLike(page: Page, drafted: string, name: string): Promise<void> {
  const base = process.env.BASE_URL!;
  const read = async <Body>(path: string) =>
    (await (await page.request.get(`${base}/api/${path}`)).json()) as Body;
  const sheets = await read<{ id: string; name: string }[]>('sheets');
  const revisions = await read<SheetRevision[]>(`sheets/${sheets.find((each) => each.name === drafted)!.id}`);
  const { pattern, condition, temperature, limits, wearLimits, torques, wanted, ...rest } = revisions[0]!;
  const { usageUnit, recheckPlan, source, notes, maker } = rest;
  const body = {
    pattern,
    condition,
    temperature,
    limits,
    wearLimits,
    torques,
    wanted,
    pieceCharts: [],
    assembly: [],
  };
  await write(page, 'sheets', { name, maker, body: { ...body, usageUnit, recheckPlan, source, notes } });
}

/** Opens the build an engine has on the bench, whichever of the many on Today it is. */
export async function openBuildOf(page: Page, name: string): Promise<void> {
  const { engines } = (await (
    await page.request.get(`${process.env.BASE_URL}/api/engines?search=${encodeURIComponent(name)}`)
  ).json()) as { engines: { name: string; buildId: string }[] };
  await open(page, `/builds/${engines.find((engine) => engine.name.startsWith(name))!.buildId}`);
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
}

/** Every answer that this device has cached, by its path. */
const cachedPaths = (page: Page) =>
  page.evaluate(async () => {
    const there = (await indexedDB.databases()).some(({ name }) => name === 'zero-lash');
    if (!there) return [];
    return new Promise<string[]>((resolve) => {
      const asked = indexedDB.open('zero-lash');
      asked.onsuccess = () => {
        const keys = asked.result.transaction('answers').objectStore('answers').getAllKeys();
        keys.onsuccess = () => {
          asked.result.close();
          resolve(keys.result.map(String));
        };
      };
    });
  });

/** Waits until the device has cached so many answers: pages open with them without a server. */
export const cachedAtLeast = (page: Page, count: number) =>
  expect.poll(async () => (await cachedPaths(page)).length).toBeGreaterThanOrEqual(count);

/** Waits until the device has cached an answer of a path that begins so. */
export const cached = (page: Page, beginning: string) =>
  expect.poll(async () => (await cachedPaths(page)).some((path) => path.startsWith(beginning))).toBe(true);
