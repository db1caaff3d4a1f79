import { build16 } from './build16.mjs';
import { ms } from './rows.mjs';
import { median } from './table.mjs';

const POINTS = 16;

/** Two tablets on one round: how long after a tap on the one its verdict is drawn on the other. */
export async function twoTablets({ base, bench, browser }) {
  let number = 0;
  const open = async (id) => {
    const context = await browser.newContext({ viewport: { width: 768, height: 1024 }, hasTouch: true });
    await context.addCookies([bench.inBrowser]);
    const page = await context.newPage();
    await page.goto(`${base}/builds/${id}`);
    await page.locator('[data-point]').first().waitFor();
    return page;
  };
  return {
    turn: async () => {
      number += 1;
      const id = await build16(base, bench.cookie, `Bench two tablets ${number}`);
      const [tapping, watching] = await Promise.all([open(id), open(id)]);
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
      await Promise.all([tapping, watching].map((page) => page.context().close()));
      return { half: median(delays), worst: Math.max(...delays) };
    },
    rows: [
      {
        name: 'two-tablets',
        what: (middle) =>
          `A tap drawn on a second tablet, half of them within ${ms(middle((turn) => turn.half))}: the last`,
        figures: [{ of: (turn) => turn.worst, show: ms, met: (worst) => worst < 200 }],
        aim: 'under 200 ms',
      },
    ],
  };
}

/** In the page: notes when each point's state was drawn. */
function watchPoints() {
  globalThis.drawnAt = [];
  new MutationObserver((changes) => {
    for (const { target } of changes)
      if (target.getAttribute('data-state') === 'in-spec') globalThis.drawnAt.push(Date.now());
  }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['data-state'] });
}
