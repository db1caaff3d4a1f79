import { build16 } from './build16.mjs';
import { ms, under } from './rows.mjs';
import { p95 } from './table.mjs';

const SLOWED = 4;
const HAND_MS = 60;
const BARE_FIELDS = 12;

/** Slows the processor for a page, as a tablet is slower than a desk. */
export async function slowed(page, rate = SLOWED) {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate });
}

/** Types figures straight down from the field that has the focus; gives how long each key took to its frame, in ms. */
export async function typedDown(page, figures, down = 'Enter') {
  await page.evaluate(watchKeys);
  for (const figure of figures) {
    for (const key of figure) {
      await page.keyboard.press(key);
      await page.waitForTimeout(HAND_MS);
    }
    await page.keyboard.press(down);
    await page.waitForTimeout(2 * HAND_MS);
  }
  return page.evaluate(() => globalThis.keyTimes);
}

/** The same on a page that holds fields and nothing else. */
export async function typedBare(context) {
  const page = await context.newPage();
  await page.setContent('<input>'.repeat(BARE_FIELDS));
  await slowed(page);
  await page.locator('input').first().click();
  const times = await typedDown(
    page,
    Array.from({ length: BARE_FIELDS }, () => '1.05'),
    'Tab',
  );
  await page.close();
  return times;
}

/** In the page: has the browser itself measure each key, from the moment it reaches the page to the frame shown; a field is typed over. */
function watchKeys() {
  globalThis.keyTimes = [];
  if (globalThis.keysWatched) return;
  globalThis.keysWatched = true;
  document.addEventListener('focusin', ({ target }) => target.select?.());
  document.activeElement.select();
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries())
      if (entry.name === 'keydown')
        globalThis.keyTimes.push(entry.startTime + entry.duration - entry.processingStart);
  }).observe({ type: 'event', durationThreshold: 16 });
}

/** Figures typed straight down, in a browser slowed four times: a round from paper, and meters in the list of all engines. */
export async function columns({ base, bench, browser }) {
  let number = 0;
  return {
    turn: async () => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      try {
        await context.addCookies([bench.inBrowser]);
        const bare = await typedBare(context);
        number += 1;
        const id = await build16(base, bench.cookie, `Bench column ${number}`);
        const page = await context.newPage();
        await page.goto(`${base}/builds/${id}`);
        await page.getByRole('button', { name: 'Type a round from paper' }).click();
        await page
          .getByLabel(/^Gap at .*, from paper$/)
          .first()
          .click();
        await slowed(page);
        const column = await typedDown(
          page,
          Array.from({ length: 12 }, () => '0.15'),
        );
        await slowed(page, 1);
        await page.goto(`${base}/usage`);
        await page.locator('tbody input').first().click();
        await slowed(page);
        const usage = await typedDown(
          page,
          Array.from({ length: 8 }, () => '1500'),
        );
        return { bare: p95(bare), column: p95(column), usage: p95(usage) };
      } finally {
        await context.close();
      }
    },
    rows: [
      ['column', 'A round of 16 valves typed from paper', 25],
      ['usage-keys', 'Meters typed down the list of all engines', 25],
    ].map(([name, words, most]) => ({
      name,
      what: (middle) =>
        `${words}, processor slowed four times: from a key to its frame, p95 over an empty page’s ${ms(middle((turn) => turn.bare))}`,
      figures: [under((turn) => turn[name === 'column' ? 'column' : 'usage'] - turn.bare, most, ms)],
      aim: `under ${most} ms`,
    })),
  };
}
