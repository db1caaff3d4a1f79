import { build16 } from './build16.mjs';
import { ms, under } from './rows.mjs';
import { p95 } from './table.mjs';

const POINTS = 16;
/** Taps on the bare button in a turn. */
const BARE_TAPS = 8;
const SLOWED = 4;
/** From one tap to the next, of a quick hand with a blade in it. */
const HAND_MS = 200;
const SCHOOLS = ['go-no-go', 'steps'];

/**
 * A 16-valve round by go and no-go or by tries, in a browser slowed four times: the time from a tap to the
 * gap drawn with it, against a button on a page of its own; and taps a point.
 */
export async function benchTaps({ base, bench, browser }) {
  let number = 0;
  const taps = {};
  return {
    turn: async () => {
      const context = await browser.newContext({ viewport: { width: 768, height: 1024 }, hasTouch: true });
      try {
        await context.addCookies([bench.inBrowser]);
        const bare = await tapBare(await context.newPage());
        const page = await context.newPage();
        await page.addInitScript(countRenders);
        // by one school in one turn, by the other in the next
        const school = SCHOOLS[number % SCHOOLS.length];
        number += 1;
        const id = await build16(base, bench.cookie, `Bench taps ${number}`);
        const { times, rendered, taps: count } = await tapped(context, page, `${base}/builds/${id}`, school);
        taps[school] = count;
        return { rendered, taps, p95: p95(times), bare: p95(bare) };
      } finally {
        await context.close();
      }
    },
    rows: [
      {
        name: 'tap',
        what: (middle) =>
          `Tap to drawn verdict, 16 valves, processor slowed four times: p95 over an empty page’s ${ms(middle((turn) => turn.bare))}`,
        figures: [under((turn) => turn.p95 - turn.bare, 20, ms)],
        aim: 'under 20 ms',
      },
      {
        name: 'components-a-tap',
        what: () =>
          'Components rendered for a tap, from the finger to the answer of the server and the news of it',
        figures: [
          under(
            (turn) => turn.rendered,
            60,
            (count) => count.toFixed(0),
          ),
        ],
        aim: 'under 60',
      },
      {
        name: 'taps-a-point',
        what: () => 'Taps a point: a 16-valve round in spec by go and no-go, and by tries',
        figures: SCHOOLS.map((school, index) => ({
          of: (turn) => turn.taps[school],
          show: String,
          met: (count) => count <= [2, 5][index],
        })),
        aim: 'at most 2 and 5',
      },
    ],
  };
}

/** A round measured in a school by taps alone. */
async function tapped(context, page, address, school) {
  await page.goto(address);
  await page.getByLabel('Measured by').selectOption(school);
  const session = await context.newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  await page.evaluate(watchTaps);
  await page.evaluate(() => (globalThis.rendered = 0));
  let count = 0;
  for (let point = 0; point < POINTS; point += 1)
    for (const word of ['goes', 'won’t']) {
      const panel = page.getByRole('region', { name: /^Point / });
      await panel.getByRole('button', { name: word, exact: true }).first().tap();
      await page.waitForTimeout(HAND_MS);
      count += 1;
    }
  const times = await page.evaluate(() => globalThis.tapTimes);
  const rendered = (await page.evaluate(() => globalThis.rendered)) / count;
  await session.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await page.getByRole('status', { name: 'Points so far' }).filter({ hasText: '16 in spec' }).waitFor();
  return { times, rendered, taps: count / POINTS };
}

/** The same taps on a page that holds a button and the number it counts, and nothing else. */
async function tapBare(page) {
  await page.setContent('<button style="min-height: 60px">goes</button><p>0</p>');
  await page.evaluate(() => {
    const [button, shown] = [document.querySelector('button'), document.querySelector('p')];
    let count = 0;
    button.onclick = () => (shown.textContent = String((count += 1)));
  });
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  await page.evaluate(watchTaps);
  for (let tap = 0; tap < BARE_TAPS; tap += 1) {
    await page.getByRole('button').tap();
    await page.waitForTimeout(HAND_MS);
  }
  const taken = await page.evaluate(() => globalThis.tapTimes);
  await page.close();
  return taken;
}

/** In the page: has the browser itself measure each tap, from the moment it reaches the page to the frame shown. */
function watchTaps() {
  globalThis.tapTimes = [];
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries())
      if (entry.name === 'click')
        globalThis.tapTimes.push(entry.startTime + entry.duration - entry.processingStart);
  }).observe({ type: 'event', durationThreshold: 16 });
}

/**
 * In the page, before anything of it runs: counts every component that React renders, over all that follows of a tap. It
 * reads what React tells the browser's developer tools.
 */
function countRenders() {
  globalThis.rendered = 0;
  const COMPONENTS = new Set([0, 1, 11, 14, 15]);
  const walk = (fiber, before) => {
    if (COMPONENTS.has(fiber.tag) && (fiber.flags & 1) !== 0) globalThis.rendered += 1;
    if (fiber.child === before?.child) return;
    for (let child = fiber.child; child; child = child.sibling)
      if (child !== before) walk(child, child.alternate);
  };
  globalThis.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
    isDisabled: false,
    supportsFiber: true,
    inject: () => 1,
    onScheduleFiberRoot: () => undefined,
    onCommitFiberUnmount: () => undefined,
    onPostCommitFiberRoot: () => undefined,
    onCommitFiberRoot: (_id, root) => walk(root.current, root.current.alternate),
  };
}
