import { build16 } from './build16.mjs';
import { median } from './table.mjs';

const POINTS = 16;

/** Two tablets on one round: how long after a tap on the one its verdict is drawn on the other; ms. */
export async function benchTwoTablets(base, cookie, asBrowserCookie, chromium) {
  const { chromium: launcher } = await import('@playwright/test');
  const browser = await launcher.launch(chromium);
  try {
    const id = await build16(base, cookie, 'Bench two tablets');
    const [tapping, watching] = await Promise.all(
      [0, 1].map(async () => {
        const context = await browser.newContext({ viewport: { width: 768, height: 1024 }, hasTouch: true });
        await context.addCookies([asBrowserCookie]);
        const page = await context.newPage();
        await page.goto(`${base}/builds/${id}`);
        await page.locator('[data-point]').first().waitFor();
        return page;
      }),
    );
    await tapping.getByLabel('Measured by').selectOption('go-no-go');
    await watching.waitForLoadState('networkidle');
    await watching.evaluate(watchPoints);
    const taps = [];
    const panel = tapping.getByRole('region', { name: /^Point / });
    for (let point = 0; point < POINTS; point += 1) {
      await panel.getByRole('button', { name: 'goes', exact: true }).first().tap();
      taps.push(Date.now());
      await panel.getByRole('button', { name: 'won’t', exact: true }).first().tap();
      await watching.waitForFunction((count) => globalThis.drawnAt.length >= count, point + 1);
    }
    const drawn = await watching.evaluate(() => globalThis.drawnAt);
    const delays = drawn.map((at, index) => Math.max(0, at - taps[index]));
    return { median: median(delays), worst: Math.max(...delays) };
  } finally {
    await browser.close();
  }
}

/** In the page: notes when each point's state was drawn. */
function watchPoints() {
  globalThis.drawnAt = [];
  new MutationObserver((changes) => {
    for (const { target } of changes)
      if (target.getAttribute('data-state') === 'in-spec') globalThis.drawnAt.push(Date.now());
  }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['data-state'] });
}
