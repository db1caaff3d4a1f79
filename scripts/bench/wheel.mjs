const FRAMES = 300;
const WARM_UP = 60;
const LATE_MS = 20;

/** Turns the crank wheel of a 16-valve engine a degree a frame; the share of frames that came late. */
export async function benchWheel(base, cookie, chromium) {
  const { chromium: launcher } = await import('@playwright/test');
  const browser = await launcher.launch(chromium);
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addCookies([cookie]);
    const page = await context.newPage();
    await page.goto(`${base}/sheets`);
    await page.getByRole('link', { name: 'Tarnholt T16 Rack' }).click();
    const wheel = page.getByRole('slider', { name: /Crank wheel/ });
    await wheel.scrollIntoViewIfNeeded();
    await page.getByRole('img', { name: /Valve lift/ }).waitFor();
    await wheel.focus();
    const gaps = await page.evaluate(
      ([frames, warmUp]) =>
        new Promise((resolve) => {
          const element = document.activeElement;
          const taken = [];
          let last = null;
          const step = (now) => {
            if (last !== null) taken.push(now - last);
            last = now;
            element.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
            if (taken.length < frames + warmUp) requestAnimationFrame(step);
            else resolve(taken.slice(warmUp));
          };
          requestAnimationFrame(step);
        }),
      [FRAMES, WARM_UP],
    );
    const turned = Number(await wheel.getAttribute('aria-valuenow'));
    if (turned < FRAMES) throw new Error(`the wheel stands at ${turned}°, not past ${FRAMES}°`);
    return { late: gaps.filter((ms) => ms > LATE_MS).length / gaps.length };
  } finally {
    await browser.close();
  }
}
