import { percent, under } from './rows.mjs';

/** Frames a turn, and before it. */
const FRAMES = 60;
const WARM_UP = 60;
const LATE_MS = 20;

/** Turns the crank wheel of a 16-valve engine a degree a frame; the share of frames that came late, against an empty page's. */
export async function wheel({ base, viewer, browser }) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies([viewer.inBrowser]);
  const page = await context.newPage();
  await page.goto(`${base}/sheets`);
  await page.getByRole('link', { name: 'Tarnholt T16 Rack' }).click();
  const slider = page.getByRole('slider', { name: /Crank wheel/ });
  await slider.scrollIntoViewIfNeeded();
  await page.getByRole('img', { name: /Valve lift/ }).waitFor();
  await slider.focus();
  const empty = await context.newPage();
  await empty.setContent('<p tabindex="0">0</p>');
  await empty.locator('p').focus();
  const late = (taken) => taken.filter((ms) => ms > LATE_MS).length / taken.length;
  return {
    turn: async () => {
      await empty.bringToFront();
      const bare = late(await empty.evaluate(framesOf, [FRAMES, WARM_UP]));
      await page.bringToFront();
      const from = Number(await slider.getAttribute('aria-valuenow'));
      const ours = late(await page.evaluate(framesOf, [FRAMES, WARM_UP]));
      const to = Number(await slider.getAttribute('aria-valuenow'));
      if (from === to) throw new Error(`the wheel still stands at ${to}°`);
      return { bare, ours };
    },
    rows: [
      {
        name: 'wheel',
        what: (middle) =>
          `Crank wheel of 16 valves turned a degree a frame: frames over ${LATE_MS} ms; an empty page ${percent(middle((turn) => turn.bare))}`,
        figures: [under((turn) => turn.ours, 0.05, percent)],
        aim: 'under 5 %',
      },
    ],
  };
}

/** In the page: how long each frame took while a key was pressed in each. */
function framesOf([frames, warmUp]) {
  return new Promise((resolve) => {
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
  });
}
