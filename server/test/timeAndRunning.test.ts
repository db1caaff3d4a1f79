import type { BuildWrite } from '@zero-lash/contract/builds';
import type { PastReading, ReadingRow } from '@zero-lash/contract/measuring';
import type { EngineRow, EngineView } from '@zero-lash/contract/engines';
import type { Session } from '@zero-lash/contract/people';
import type { SheetSummary } from '@zero-lash/contract/sheets';
import type { Today } from '@zero-lash/contract/today';
import { addDays, dueState, onMeter, recheckDay } from '@zero-lash/core/rechecks';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { nearnessOn, RECHECK_DAY_SQL } from '../rechecks/nearness.ts';
import { clock, dayIn, isAhead } from '../clock.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const MINUTE = 60_000;
const inMinutes = (minutes: number, from = Date.now()) => new Date(from + minutes * MINUTE).toISOString();

describe('readings', () => {
  async function round() {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    return build.rounds.at(-1)!;
  }
  const take = async (roundId: string, point: string, go: number, takenAt: string | null, clock?: string) => {
    const answer = await shop.app.inject({
      method: 'POST',
      url: `/api/rounds/${roundId}/readings`,
      headers: {
        cookie: await shop.cookieOf(BENCH),
        'idempotency-key': crypto.randomUUID(),
        ...(clock ? { 'device-clock': clock } : {}),
      },
      payload: {
        ...{ point, reading: { kind: 'bracket', go, noGo: go + 0.05 }, asTyped: `${go}`, takenAt },
      },
    });
    expect(answer.statusCode, answer.body).toBe(201);
    return answer.json<BuildWrite>().changes[0]!.row as ReadingRow;
  };
  const current = async (point: string) => (await round()).readings.find((row) => row.point === point)!;

  it('stand in the order they were taken, whichever came in first', async () => {
    const { id } = await round();
    const newer = await take(id, '3I', 0.3, inMinutes(-2));
    const late = await take(id, '3I', 0.1, inMinutes(-9));
    expect(late).toMatchObject({ superseded: true, verdict: 'tight' });
    expect(late.reason).toContain('came in after it');
    expect((await current('3I')).id).toBe(newer.id);
    const newest = await take(id, '3I', 0.25, inMinutes(-1));
    expect(await current('3I')).toMatchObject({ id: newest.id, supersedes: newer.id, earlier: 2 });
    const history = await shop.call<PastReading[]>(VIEWER, 'GET', `rounds/${id}/points/3I`);
    expect(history.body.map(({ lo }) => lo)).toEqual([0.25, 0.3, 0.1]);
  });

  it('are not made later by a slow network: the one taken first does not stand for coming in last', async () => {
    const { id } = await round();
    const seconds = (ago: number) => new Date(Date.now() - ago * 1000).toISOString();
    // sent four seconds ago, and on its way until now
    const slow = { takenAt: seconds(6), clock: seconds(4) };
    const first = await take(id, '4I', 0.3, seconds(3), seconds(0));
    const late = await take(id, '4I', 0.1, slow.takenAt, slow.clock);
    expect(late).toMatchObject({ superseded: true });
    expect((await current('4I')).id).toBe(first.id);
    expect(Date.parse(late.takenAt)).toBeCloseTo(Date.parse(slow.takenAt), -2);
    // a clock that is an hour slow is another matter
    const wrong = await take(id, '4I', 0.25, inMinutes(-60), inMinutes(-60));
    expect(wrong.superseded).toBe(false);
  });

  it('of any number of devices leave one that stands: the one taken last', async () => {
    const { id } = await round();
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.integer({ min: 1, max: 5000 }), { minLength: 2, maxLength: 5 }),
        async (ages) => {
          const rows = [];
          for (const age of ages)
            rows.push(await take(id, '2E', 0.3, new Date(Date.now() - age * 1000).toISOString()));
          const last = rows.reduce((a, b) => (Date.parse(b.takenAt) > Date.parse(a.takenAt) ? b : a));
          const { body } = await shop.call<PastReading[]>(VIEWER, 'GET', `rounds/${id}/points/2E`);
          const now = await current('2E');
          expect(Date.parse(now.takenAt)).toBeGreaterThanOrEqual(Date.parse(last.takenAt));
          expect(now.id).toBe(body[0]!.id);
        },
      ),
      { numRuns: 6 },
    );
  });

  it('are timed by the server’s clock, however wrong the device’s own is', async () => {
    const { id } = await round();
    for (const wrong of [-500_000, 400, 2 * 365 * 24 * 60]) {
      const clock = inMinutes(wrong);
      const { takenAt } = await take(id, '4I', 0.3, inMinutes(-3, Date.parse(clock)), clock);
      expect(Math.abs(Date.parse(takenAt) - (Date.now() - 3 * MINUTE)), String(wrong)).toBeLessThan(20_000);
    }
  });

  it('are neither older than their round nor from the future: a minute is put right, more is asked about', async () => {
    const { id, openedAt } = await round();
    const opened = Date.parse(openedAt);
    expect((await take(id, '1E', 0.3, inMinutes(-1, opened))).takenAt).toBe(new Date(openedAt).toISOString());
    expect(Date.parse((await take(id, '1E', 0.3, inMinutes(1))).takenAt)).toBeLessThanOrEqual(Date.now());
    const before = (await current('1E')).id;
    for (const takenAt of ['1970-01-01T00:00:00Z', inMinutes(-3, opened), inMinutes(900), inMinutes(3)]) {
      const asked = await shop.call<{ code: string; detail: string }>(
        BENCH,
        'POST',
        `rounds/${id}/readings`,
        {
          ...{ point: '1E', reading: { kind: 'drag', blade: 0.3 }, asTyped: '0.3', takenAt },
        },
      );
      expect(asked, takenAt).toMatchObject({ status: 409, body: { code: 'taken_when' } });
      expect(asked.body.detail).toContain('that clock was wrong');
    }
    expect((await current('1E')).id).toBe(before);
    for (const takenAt of ['0001-01-01T00:00:00Z', '9999-12-31T23:59:59Z'])
      expect(
        await shop.call(BENCH, 'POST', `rounds/${id}/readings`, {
          ...{ point: '1E', reading: { kind: 'drag', blade: 0.3 }, asTyped: '0.3', takenAt },
        }),
      ).toMatchObject({ status: 400, body: { fields: [{ path: 'takenAt' }] } });
  });

  it('give way to what comes, where they are from when a clock was days ahead', async () => {
    const { id } = await round();
    const { id: wrong } = await take(id, '2I', 0.1, null);
    await shop.db.raw('alter table readings disable trigger user');
    await shop
      .db('readings')
      .where({ id: wrong })
      .update({ taken_at: new Date(inMinutes(2 * 24 * 60)) });
    await shop.db.raw('alter table readings enable trigger user');
    const { id: right } = await take(id, '2I', 0.3, null);
    expect(await current('2I')).toMatchObject({ id: right, supersedes: wrong });
  });

  it('taken where an angle rounds to the end of the cycle are kept at its beginning', async () => {
    const { id } = await round();
    const answer = await shop.read(BENCH, id, {
      ...{ point: '1I', reading: { kind: 'drag', blade: 0.3 }, asTyped: '0.3', crankAngle: 719.9995 },
    });
    expect(answer).toMatchObject({ status: 201, body: { crankAngle: 0 } });
    for (const at of [719.99951, 0.0004, 360.1234567])
      expect(
        (await shop.call(BENCH, 'PUT', `rounds/${id}/turning`, { school: 'fewest', at, done: [at] })).status,
      ).toBe(200);
  });
});

describe('the time', () => {
  it('is the database’s, however wrong this machine’s own clock is, or goes in between', async () => {
    vi.useFakeTimers({ toFake: ['Date'] });
    try {
      await clock.ask(shop.db);
      const truth = clock.now().getTime();
      for (const days of [2, -2]) {
        vi.setSystemTime(truth + days * 86_400_000);
        expect(Math.abs(clock.now().getTime() - truth)).toBeLessThan(10_000);
        expect(Math.abs(clock.ahead() - days * 86_400)).toBeLessThan(10);
        const health = await shop.app.inject({ url: '/api/health' });
        expect(health.json()).toMatchObject({ ok: true, clockAhead: clock.ahead() });
        expect(isAhead(new Date(truth + 86_400_000))).toBe(true);
        expect(isAhead(new Date(truth + 30_000))).toBe(false);
        const at = whenTaken(null, { clockAhead: 0 } as WriteContext, new Date(0));
        expect(Math.abs(at.getTime() - truth)).toBeLessThan(10_000);
      }
    } finally {
      vi.useRealTimers();
    }
  });
});

describe('running', () => {
  const log = (id: string, body: object) =>
    shop.call<EngineRow & { code: string }>(BENCH, 'POST', `engines/${id}/usages`, body);
  const stateOf = async (id: string) => {
    const { body } = await shop.call<EngineView>(VIEWER, 'GET', `engines/${id}`);
    return { body, next: body.rechecks.find(({ status }) => status === 'planned')! };
  };

  it('goes on over a new meter, so that a recheck comes due on it', async () => {
    const build = await shop.buildOf('Fire pump, Overmere Quay');
    const { id, usage } = build.engine;
    const { next } = await stateOf(id);
    const left = next.dueUsage! - build.engine.running;
    expect(left).toBeGreaterThan(0);
    expect(await log(id, { usage: 0 })).toMatchObject({ status: 409, body: { code: 'usage_back' } });
    const lastOfOld = usage + 1;
    const fitted = await log(id, { usage: 2, newMeter: { lastOfOld, startedAt: 0 } });
    expect(fitted.body).toMatchObject({ usage: 2, running: usage + 3 });
    const due = onMeter(next.dueUsage!, fitted.body);
    expect(due).toBeCloseTo(2 + left - 3, 6);
    await log(id, { usage: due + 0.1, sure: true });
    const after = await stateOf(id);
    expect(after.next.state).toBe('overdue');
    expect(after.body.usages.find(({ newMeter }) => newMeter)).toMatchObject({
      usage: 2,
      reason: `new meter, begun at 0; the old one stopped at ${lastOfOld}`,
    });
    const today = (await shop.call<Today>(VIEWER, 'GET', 'today')).body;
    expect(today.rechecks.list.find(({ engineId }) => engineId === id)).toMatchObject({
      state: 'overdue',
      running: after.body.running,
    });
  });

  it('is put right after a slip with a reason, but never below where its meter began', async () => {
    const build = await shop.buildOf('Edger, Pellow Mill');
    const { id, usage } = build.engine;
    expect((await log(id, { usage: usage - 5, reason: 'read wrongly' })).body.running).toBe(usage - 5);
    await log(id, { usage: 1210, newMeter: { lastOfOld: usage, startedAt: 1200 } });
    const slip = await log(id, { usage: 1199, reason: 'read wrongly' });
    expect(slip).toMatchObject({ status: 409, body: { code: 'usage_back' } });
    expect(slip.body.detail).toContain('1200');
    expect((await log(id, { usage: 1204, reason: 'read wrongly' })).body.running).toBe(usage + 4);
    for (const newMeter of [
      { lastOfOld: 1, startedAt: 0 },
      { lastOfOld: 2000, startedAt: 60 },
    ])
      expect((await log(id, { usage: 50, newMeter })).status).toBeGreaterThanOrEqual(400);
    await expect(shop.db('engines').where({ id }).update({ usage: 3 })).rejects.toThrow(/check/);
  });
});

describe('when a recheck is due', () => {
  it('is counted by the database as the core counts it, to the tenth', async () => {
    const build = await shop.buildOf('Fire pump, Overmere Quay');
    const recheck = build.rechecks.find(({ status }) => status === 'planned')!;
    const tenths = (most: number) => fc.integer({ min: 0, max: most }).map((figure) => figure / 10);
    await fc.assert(
      fc.asyncProperty(
        tenths(2_000_000),
        tenths(5000),
        fc.oneof(
          tenths(6000),
          fc.constantFrom(0.9, 0.95, 1).map((share) => -share),
        ),
        fc.record({
          dueCycles: fc.option(fc.integer({ min: 1, max: 30 })),
          cycles: fc.integer({ min: 0, max: 32 }),
          held: fc.boolean(),
          days: fc.tuple(...Array.from({ length: 3 }, () => fc.option(fc.integer({ min: -9, max: 30 })))),
        }),
        async (planned, after, ran, { dueCycles, cycles, held, days }) => {
          const { day: today } = (await shop.call<Today>(VIEWER, 'GET', 'today')).body;
          const [benchDay, expectedDay, dueDate] = days.map((left) =>
            left === null ? null : addDays(today, left),
          ) as [string | null, string | null, string | null];
          const due = Math.round((planned + after) * 10) / 10;
          // figures at the very edge are what the two would differ on
          const usage = Math.round((planned + (ran < 0 ? after * -ran : ran)) * 10) / 10;
          await shop
            .db('engines')
            .where({ id: build.engine.id })
            .update({ usage, ran_before: 0, meter_from: 0, heat_cycles: cycles });
          await shop
            .db('rechecks')
            .where({ id: recheck.id })
            .update({
              ...{ planned_usage: planned, due_usage: due, due_date: dueDate, held },
              ...{ bench_day: benchDay, expected_day: expectedDay },
              ...{ due_cycles: dueCycles, planned_cycles: 0 },
            });
          const state = dueState(
            { dueUsage: due, dueDate, dueCycles },
            { usage: planned, cycles: 0 },
            { day: today, usage, cycles },
            null,
            held,
          );
          const { rows } = await shop.db.raw(
            `select (${RECHECK_DAY_SQL})::text as day from rechecks r join engines e on e.id = r.engine_id where r.id = :id`,
            { ...nearnessOn(today), id: recheck.id },
          );
          const dated = { benchDay, expectedDay, dueDate, dueUsage: due, dueCycles };
          expect(rows[0].day).toBe(
            recheckDay({ ...dated, running: usage, heatCycles: cycles }, today)?.day ?? null,
          );
          const others = await shop.db('rechecks').where({ status: 'planned' }).whereNot({ id: recheck.id });
          const { counts } = (await shop.call<Today>(VIEWER, 'GET', 'today')).body.rechecks;
          expect(Object.values(counts).reduce((sum, count) => sum + count, 0)).toBe(others.length + 1);
          const without = await countsWithout(recheck.id);
          expect({ ...counts, [state]: counts[state] - 1 }).toEqual(without);
        },
      ),
      { numRuns: 40 },
    );
  });

  /** The counts of Today without one recheck. */
  async function countsWithout(id: string): Promise<Today['rechecks']['counts']> {
    await shop.db('rechecks').where({ id }).update({ status: 'dropped' });
    const { body } = await shop.call<Today>(VIEWER, 'GET', 'today');
    await shop.db('rechecks').where({ id }).update({ status: 'planned' });
    return body.rechecks.counts;
  }

  it('is not refused a figure for what it was rounded to itself', async () => {
    const build = await shop.buildOf('Edger, Pellow Mill');
    const log = (usage: number) =>
      shop.call<EngineRow>(BENCH, 'POST', `engines/${build.engine.id}/usages`, { usage, sure: true });
    const figure = Math.floor(build.engine.usage) + 700.26;
    expect((await log(figure)).body.usage).toBeCloseTo(figure + 0.04, 6);
    expect((await log(figure)).status).toBe(201);
  });
});

describe('the shop’s zone', () => {
  const session = async () => (await shop.call<Session>(LEAD, 'GET', 'session')).body.shop;
  const change = async (zone: string) => shop.call(LEAD, 'PATCH', 'shop', { ...(await session()), zone });

  it('is one there is, set by a lead', async () => {
    for (const zone of ['Mars/Base', '', 'Europe/Nowhere', '../etc'])
      expect(await change(zone), zone).toMatchObject({ status: 400, body: { fields: [{ path: 'zone' }] } });
    expect(await shop.call(BENCH, 'PATCH', 'shop', { ...(await session()) })).toMatchObject({ status: 403 });
    expect((await change('America/Los_Angeles')).status).toBe(200);
    expect((await session()).zone).toBe('America/Los_Angeles');
  });

  it('dates what was logged late in the evening there, and its sheets, and its day', async () => {
    const build = await shop.buildOf('Edger, Pellow Mill');
    const late = new Date('2026-03-26T05:30:00Z');
    await shop.db('engines').where({ id: build.engine.id }).update({ usage_at: late });
    const { body } = await shop.call<EngineView>(VIEWER, 'GET', `engines/${build.engine.id}`);
    expect(body.usageOn).toBe('2026-03-25');
    await change('Pacific/Kiritimati');
    const sheets = (await shop.call<SheetSummary[]>(VIEWER, 'GET', 'sheets')).body;
    const published = await shop.db('sheet_revisions').where({ id: sheets[0]!.revisionId }).first();
    expect(sheets[0]!.updatedOn).toBe(dayIn('Pacific/Kiritimati', published!.published_at!));
    expect((await shop.call<Today>(VIEWER, 'GET', 'today')).body.day).toBe(dayIn('Pacific/Kiritimati'));
    await change('Europe/Vienna');
  });

  it('that this machine does not know any more breaks nothing', async () => {
    await shop.db('shop').update({ zone: 'Mars/Base' });
    for (const path of ['today', 'engines', 'tools', 'sheets'])
      expect((await shop.call(VIEWER, 'GET', path)).status, path).toBe(200);
    await shop.db('shop').update({ zone: 'Europe/Vienna' });
  });
});
