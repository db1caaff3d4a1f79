import { randomUUID } from 'node:crypto';
import { openedUp } from './build16.mjs';
import { slowed, typedBare, typedDown } from './keys.mjs';
import { ms, under } from './rows.mjs';
import { p95 } from './table.mjs';

const CYLINDERS = 8;
/** Fields typed into a turn. */
const TYPED = 12;

/** Writes and reads as whoever a cookie belongs to. */
function caller(base, cookie) {
  return async (method, path, body) => {
    const answer = await fetch(`${base}/api/${path}`, {
      method,
      headers: {
        cookie,
        ...(body ? { 'content-type': 'application/json', 'idempotency-key': randomUUID() } : {}),
      },
      body: body ? JSON.stringify(body) : undefined,
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${text}`);
    return { ...JSON.parse(text), bytes: text.length };
  };
}

/** An eight-cylinder engine of four valves a cylinder at Wear, with every feature measured; gives its build and how many readings. */
async function wornEight(base, benchCookie, leadCookie) {
  const bench = caller(base, benchCookie);
  const lead = caller(base, leadCookie);
  const sheets = Object.values(await bench('GET', 'sheets')).filter((each) => each?.name === 'T16 Rack');
  const like = await bench('GET', `sheet-revisions/${sheets[0].revisionId}/file`);
  const {
    pattern,
    condition,
    temperature,
    limits,
    wearLimits,
    torques,
    usageUnit,
    recheckPlan,
    source,
    notes,
  } = like;
  const cylinders = Array.from({ length: CYLINDERS }, (_, index) => ({
    ...{ id: String(index + 1), bank: 'A', place: index + 1, firesAt: index * 90 },
  }));
  const body = { condition, temperature, limits, wearLimits, torques, usageUnit, recheckPlan, source, notes };
  const sheet = await bench('POST', 'sheets', {
    ...{ name: 'Bench eight', maker: 'Tarnholt' },
    body: { ...body, pattern: { ...pattern, cylinders } },
  });
  await lead('POST', `sheet-revisions/${sheet.id}/publication`, { version: sheet.version });
  const engine = await bench('POST', 'engines', {
    ...{ name: 'Bench wear', serial: '', owner: '', duty: '', sheetId: sheet.sheetId, usage: 1 },
  });
  const opened = await bench('POST', `engines/${engine.id}/builds`, {
    revisionId: sheet.id,
    complaint: 'Bench',
  });
  const id = opened.build;
  const post = (path, content) => bench('POST', path, content);
  const version = await openedUp(post, id, opened.changes[0].row.version);
  const { rows } = await bench('GET', `builds/${id}/rounds`);
  const valves = cylinders.flatMap(({ id: name }) =>
    ['Ia', 'Ib', 'Ea', 'Eb'].map((side) => `${name}${side}`),
  );
  for (const point of valves)
    await bench('POST', `rounds/${rows[0].id}/readings`, {
      ...{ point, asTyped: point.includes('I') ? '0.15' : '0.25', crankAngle: null },
      reading: { kind: 'value', value: point.includes('I') ? 0.15 : 0.25, uncertainty: 0.005 },
    });
  await post(`builds/${id}/stage`, { to: 'wear', version });
  let readings = 0;
  let bytes = 0;
  const measured = (item, field, values) => async (place) => {
    readings += values.length;
    const line = { kind: 'figure', item, place, field, values, asTyped: values.join(' '), how: 'measured' };
    // one field a write, as a hand at the bench does it
    const answer = await bench('POST', `builds/${id}/wear`, {
      lines: [{ ...line, set: 'found', doubtKept: false }],
    });
    bytes = Math.max(bytes, answer.bytes);
  };
  const FIELDS = [
    ['lobe', 'height', [36.1, 36.12, 36.11, 36.1]],
    ['lobe', 'base', [28, 28.01, 28, 28]],
    ['stem-guide', 'stem', [6.97, 6.968, 6.969]],
    ['stem-guide', 'guide', [7.012, 7.015, 7.013]],
    ['guide-wobble', 'wobble', [0.1]],
    ['guide-wobble', 'height', [10]],
    ['guide-wobble', 'length', [41.5]],
    ['stem-runout', 'value', [0.01, 0.012]],
    ['valve-margin', 'value', [1.1, 1.08]],
    ['seat-width', 'value', [1.4, 1.42]],
    ['seat-runout', 'value', [0.02]],
    ['stem-height', 'before', [38.2, 38.21]],
    ['spring-length', 'value', [41.1]],
    ['spring-square', 'value', [0.8]],
    ['follower-bore', 'follower', [28.97, 28.968]],
    ['follower-bore', 'bore', [29.01, 29.012]],
    ['piece-in', 'value', [2.5]],
  ];
  for (const [item, field, values] of FIELDS)
    for (const valve of valves) await measured(item, field, values)(valve);
  return { id, readings, bytes };
}

/**
 * A wear sheet of 32 valves with every feature measured: how long it takes to open, and the time from a key to what it comes to, drawn, as
 * a slowed browser measures it, against a field on a page of its own; bytes of a write's answer.
 */
export async function wear({ base, bench, lead, browser }) {
  const { id, readings, bytes } = await wornEight(base, bench.cookie, lead.cookie);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies([bench.inBrowser]);
  const page = await context.newPage();
  // the first visit fetches the program itself
  await page.goto(`${base}/`);
  await page.waitForLoadState('networkidle');
  return {
    turn: async () => {
      const bare = await typedBare(context);
      await page.bringToFront();
      await slowed(page, 1);
      const from = Date.now();
      await page.goto(`${base}/builds/${id}`);
      await page.getByRole('textbox', { name: 'Lobe 1Ia, Over the nose' }).waitFor();
      const openMs = Date.now() - from;
      await page.getByLabel('What is shown').selectOption('everything there is to measure');
      await page.getByRole('tab', { name: 'Valves and seats' }).click();
      await page.getByRole('textbox', { name: 'Margin 1Ia, Margin' }).click();
      await slowed(page);
      const times = await typedDown(
        page,
        Array.from({ length: TYPED }, () => '1.05'),
      );
      return { openMs, keys: times.length, p95: p95(times), bare: p95(bare), bytes };
    },
    rows: [
      {
        name: 'wear',
        what: (middle) =>
          `A wear sheet of 32 valves with ${readings} readings, processor slowed four times: from a key to what it comes to, p95 of ${middle((turn) => turn.keys).toFixed(0)} over an empty page’s ${ms(middle((turn) => turn.bare))}`,
        figures: [under((turn) => turn.p95 - turn.bare, 25, ms)],
        aim: 'under 25 ms',
      },
      {
        name: 'wear-open',
        what: () => 'The same sheet, opened by its address',
        figures: [under((turn) => turn.openMs, 600, ms)],
        aim: 'under 600 ms',
      },
      {
        name: 'wear-bytes',
        what: () => 'Bytes answered to a figure of it, the longest',
        figures: [under((turn) => turn.bytes, 1000, String)],
        aim: 'under 1000',
      },
    ],
  };
}
