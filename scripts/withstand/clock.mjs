import { randomUUID } from 'node:crypto';
import { ask } from '../database.mjs';
import { addressOf, startServer, stopped } from '../server.mjs';
import { BENCH, buildOf, signIn } from './shop.mjs';

const DAYS = [2, -2];
const READINGS = 40;
/** Days from now that are before any round of the demo was begun. */
const LONG_BEFORE = -4000;
/** What clocks may be apart; ms. */
const APART_MS = 2 * 60_000;

/**
 * Servers whose clock is days wrong write readings, one after another with one whose clock is right: each is dated by the database,
 * and stands or gives way by when it was taken, whichever server it came in by. Devices say their own times, too: wrong ones are
 * asked about.
 */
export async function wrongClocks({ url, here, library }) {
  const right = await signIn(here, BENCH);
  const build = await buildOf(right, 'Frost fan 7');
  const round = build.rounds.at(-1).id;
  const reading = (call, text, takenAt) =>
    call(
      'POST',
      `rounds/${round}/readings`,
      {
        ...{ point: '4E', reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: text, takenAt },
      },
      randomUUID(),
    );
  const came = { written: 0, wrongDay: 0, lastStands: 0, asked: 0, ahead: [] };
  for (const days of DAYS) {
    const server = startServer(
      {
        ...{ DATABASE_URL: url, LOG_LEVEL: 'silent', PORT: '0', LD_PRELOAD: library },
        ...{ FAKETIME: `${days > 0 ? '+' : ''}${days}d`, FAKETIME_DONT_FAKE_MONOTONIC: '1' },
      },
      'pipe',
    );
    try {
      const base = await addressOf(server);
      const wrong = await signIn(base, BENCH);
      came.ahead.push((await (await fetch(`${base}/api/health`)).json()).clockAhead);
      for (let number = 0; number < READINGS; number += 1) {
        const text = `clock ${days} ${number}`;
        const [first, second] = number % 2 ? [wrong, right] : [right, wrong];
        const before = await reading(first, `${text} before`, null);
        const { status, body } = await reading(second, text, null);
        if (before.status !== 201 || status !== 201) continue;
        came.written += 2;
        if (!body.changes[0].row.superseded) came.lastStands += 1;
        // a device that says a time of another day is asked about it
        const day = Date.now() + (days > 0 ? days : LONG_BEFORE) * 86_400_000;
        const asked = await reading(wrong, `${text} odd`, new Date(day).toISOString());
        if (asked.body?.code === 'taken_when') came.asked += 1;
      }
    } finally {
      await stopped(server);
    }
  }
  const [{ wrongDay }] = await ask(
    url,
    `select count(*)::int as "wrongDay" from readings where as_typed like 'clock %' and as_typed not like '% odd'
       and abs(extract(epoch from taken_at - at)) * 1000 > $1`,
    [APART_MS],
  );
  return { ...came, wrongDay, pairs: DAYS.length * READINGS };
}
