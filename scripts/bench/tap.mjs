import { build16 } from './build16.mjs';

const POINTS = 16;
const SLOWED = 4;
/** From one tap to the next, of a quick hand with a blade in it. */
const HAND_MS = 400;

/**
 * A 16-valve round by go and no-go and one by tries in a browser slowed four times: taps a point, and the time from a
 * tap to the gap drawn with it.
 */
export async function benchTaps(base, cookie, asBrowserCookie, chromium) {
  const { chromium: launcher } = await import('@playwright/test');
  const browser = await launcher.launch(chromium);
  try {
    const context = await browser.newContext({ viewport: { width: 768, height: 1024 }, hasTouch: true });
    await context.addCookies([asBrowserCookie]);
    const page = await context.newPage();
    await page.addInitScript(countRenders);
    const times = [];
    const rendered = [];
    const taps = {};
    for (const [school, name] of [
      ['go-no-go', 'Bench go and no-go'],
      ['steps', 'Bench tries'],
    ]) {
      await page.goto(`${base}/builds/${await build16(base, cookie, name)}`);
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
      times.push(...(await page.evaluate(() => globalThis.tapTimes)));
      rendered.push((await page.evaluate(() => globalThis.rendered)) / count);
      await session.send('Emulation.setCPUThrottlingRate', { rate: 1 });
      await page.getByRole('status', { name: 'Points so far' }).filter({ hasText: '16 in spec' }).waitFor();
      taps[school] = count / POINTS;
    }
    const bare = await tapBare(await context.newPage());
    return { p95: p95Of(times), bareP95: p95Of(bare), taps, rendered: Math.max(...rendered) };
  } finally {
    await browser.close();
  }
}

const p95Of = (times) => times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)];

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
  for (let tap = 0; tap < 2 * POINTS; tap += 1) {
    await page.getByRole('button').tap();
    await page.waitForTimeout(HAND_MS);
  }
  return page.evaluate(() => globalThis.tapTimes);
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
