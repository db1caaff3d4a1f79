import { randomUUID } from 'node:crypto';
import type { PastReading } from '@zero-lash/contract/measuring';
import type { Bench, Instrument, Tools } from '@zero-lash/contract/instruments';
import type { LiveEvent } from '@zero-lash/contract/live';
import { conditionCautions } from '@zero-lash/core/measuring';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { readGaugeLine } from '../gauges/protocol.ts';
import { startSimulatedGauge } from '../gauges/simulator.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

/** A day on which the next check may be due. */
const NEXT_YEAR = new Date(Date.now() + 365 * 86_400_000).toISOString().slice(0, 10);

let shop: TestShop;
let base: string;
beforeAll(async () => {
  shop = await TestShop.open();
  base = await shop.app.listen({ port: 0, host: '127.0.0.1' });
});
afterAll(() => shop.close());

const tools = async () => (await shop.call<Tools>(VIEWER, 'GET', 'tools')).body;
const blades = (change: object = {}) => ({
  name: `Set ${randomUUID().slice(0, 8)}`,
  kind: 'blade-set',
  unit: 'mm',
  uncertainty: 0.01,
  angled: false,
  blades: [0.1, 0.05, 0.15],
  missing: [0.1],
  address: null,
  checkDue: null,
  ...change,
});

describe('what the shop measures with', () => {
  it('has its demo sets with what is missing and what is overdue', async () => {
    const { instruments, benches } = await tools();
    expect(instruments.find(({ name }) => name === 'Angled blades')).toMatchObject({
      overdue: true,
      angled: true,
    });
    expect(instruments.find(({ name }) => name === 'Long blades, bench 1')).toMatchObject({
      overdue: false,
      missing: [0.13],
      lastCheck: { block: 0.5, passed: true, by: LEAD },
    });
    expect(benches.map(({ name }) => name)).toEqual(['Bench 1', 'Field box', 'Railway bay']);
  });

  it('has torque wrenches with their range, checked against a tester by a share of what they are set to', async () => {
    const wrench = blades({ kind: 'torque-wrench', blades: [], missing: [], uncertainty: 4 });
    const { body } = await shop.call<Instrument>(BENCH, 'POST', 'instruments', {
      ...wrench,
      torque: { from: 20, to: 110.5 },
    });
    expect(body).toMatchObject({ torque: { from: 20, to: 110.5 }, uncertainty: 4, overdue: false });
    const check = async (block: number, found: number) =>
      (
        await shop.call<Instrument>(BENCH, 'POST', `instruments/${body.id}/checks`, {
          ...{ block, found, nextDue: NEXT_YEAR },
        })
      ).body;
    expect(await check(100, 103.9)).toMatchObject({
      overdue: false,
      lastCheck: { block: 100, passed: true },
    });
    expect(await check(20, 21)).toMatchObject({ overdue: true, lastCheck: { found: 21, passed: false } });
    // a block of that length there is not
    const set = (await tools()).instruments.find(({ kind }) => kind === 'blade-set')!;
    expect(
      await shop.call(BENCH, 'POST', `instruments/${set.id}/checks`, {
        ...{ block: 201, found: 201, nextDue: NEXT_YEAR },
      }),
    ).toMatchObject({ status: 400, body: { fields: [{ path: 'block' }] } });
  });

  it('is written down, changed, and checked against a block; what cannot be is refused by field', async () => {
    const known = { worn: [0.05], measured: [{ blade: 0.15, is: 0.1486 }] };
    const { body: set } = await shop.call<Instrument>(BENCH, 'POST', 'instruments', blades(known));
    expect(set).toMatchObject({ blades: [0.05, 0.1, 0.15], missing: [0.1], version: 1, ...known });
    for (const [change, field] of [
      [{ blades: [] }, 'blades'],
      [{ missing: [0.9] }, 'missing'],
      [{ worn: [0.9] }, 'worn'],
      [{ measured: [{ blade: 0.9, is: 0.9 }] }, 'measured'],
      [{ measured: [{ blade: 0.15, is: 0.1 }] }, 'measured'],
      [
        {
          measured: [
            { blade: 0.15, is: 0.149 },
            { blade: 0.15, is: 0.148 },
          ],
        },
        'measured',
      ],
      [{ kind: 'caliper' }, 'blades'],
      [{ kind: 'digital-gauge', blades: [], missing: [], address: 'example.org:80' }, 'address'],
      [{ uncertainty: -1 }, 'uncertainty'],
      [{ uncertainty: 4 }, 'uncertainty'],
      [{ torque: { from: 2, to: 25 } }, 'torque'],
      [{ kind: 'torque-wrench', blades: [], missing: [] }, 'torque'],
      [{ kind: 'torque-wrench', blades: [], missing: [], torque: { from: 25, to: 2 } }, 'torque.to'],
    ] as const)
      expect(await shop.call(BENCH, 'POST', 'instruments', blades(change))).toMatchObject({
        status: 400,
        body: { code: 'invalid', fields: expect.arrayContaining([expect.objectContaining({ path: field })]) },
      });
    expect(
      await shop.call(BENCH, 'POST', 'instruments', blades({ name: set.name.toUpperCase() })),
    ).toMatchObject({
      status: 409,
      body: { code: 'name_taken' },
    });
    expect((await shop.call(VIEWER, 'POST', 'instruments', blades())).status).toBe(403);

    const change = { ...blades({ name: set.name, missing: [] }), active: true, version: 1 };
    expect(
      (await shop.call<Instrument>(BENCH, 'PATCH', `instruments/${set.id}`, change)).body.missing,
    ).toEqual([]);
    expect(await shop.call(BENCH, 'PATCH', `instruments/${set.id}`, change)).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { version: 2 } },
    });

    const check = (found: number) =>
      shop.call<Instrument>(BENCH, 'POST', `instruments/${set.id}/checks`, {
        block: 0.5,
        found,
        nextDue: NEXT_YEAR,
      });
    expect((await check(0.51)).body).toMatchObject({ overdue: false, lastCheck: { passed: true } });
    expect((await check(0.52)).body).toMatchObject({ overdue: true, lastCheck: { passed: false } });
  });

  it('goes with a bench, a blade set and a limit on stacking', async () => {
    const { instruments } = await tools();
    const caliper = instruments.find(({ kind }) => kind === 'caliper')!;
    const bench = { name: 'Yard', bladeSetId: caliper.id, maxStack: 2 };
    expect(await shop.call(BENCH, 'POST', 'benches', bench)).toMatchObject({
      status: 400,
      body: { fields: [{ path: 'bladeSetId' }] },
    });
    const { body: kept } = await shop.call<Bench>(BENCH, 'POST', 'benches', { ...bench, bladeSetId: null });
    const changed = await shop.call<Bench>(BENCH, 'PATCH', `benches/${kept.id}`, { ...kept, maxStack: 3 });
    expect(changed.body).toMatchObject({ maxStack: 3, version: 2 });
    expect(await shop.call(BENCH, 'PATCH', `benches/${kept.id}`, { ...kept, maxStack: 9 })).toMatchObject({
      status: 400,
    });
  });
});

/** Hears what the server says live, as a browser would. */
async function hear(query: string, who = BENCH) {
  const cookie = await shop.cookieOf(who);
  const stop = new AbortController();
  const answer = await fetch(`${base}/api/live?${query}`, { headers: { cookie }, signal: stop.signal });
  const events: LiveEvent[] = [];
  void (async () => {
    const decoder = new TextDecoder();
    for await (const chunk of answer.body!)
      for (const line of decoder.decode(chunk as Uint8Array).split('\n'))
        if (line.startsWith('data: ')) events.push(JSON.parse(line.slice(6)));
  })().catch(() => undefined);
  const until = async (fits: (event: LiveEvent) => boolean) => {
    await vi.waitFor(() => expect(events.filter(fits), JSON.stringify(events)).not.toEqual([]), 5000);
    return events.find(fits)!;
  };
  return { events, until, stop: () => stop.abort() };
}

describe('a round on two tablets', () => {
  it('tells the other within a second, keeps both of one point, and says who wrote while whom', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const other = await shop.buildOf('Snow groomer 2');
    const round = build.rounds.at(-1)!;
    const [here, elsewhere] = [await hear(`build=${build.id}`), await hear(`build=${other.id}`)];
    const measure = (who: string, over: string | null, change: object = {}) =>
      shop.read(who, round.id, {
        point: '4E',
        reading: {
          kind: 'tries',
          tries: [
            { thickness: 0.35, result: 'goes' },
            { thickness: 0.4, result: 'wont' },
          ],
        },
        asTyped: '0.35 goes, 0.4 won’t',
        over,
        ...change,
      });
    // a little before its round was begun is a clock that goes a little wrong
    const wrong = new Date(Date.parse(round.openedAt) - 60_000).toISOString();
    const first = await measure(BENCH, null, { takenAt: wrong });
    expect(first.body).toMatchObject({
      verdict: 'in-spec',
      takenAt: new Date(round.openedAt).toISOString(),
      reason: '',
    });
    expect(await here.until(({ kind }) => kind === 'build')).toMatchObject({
      build: build.id,
      seq: build.seq + 1,
      changes: [{ kind: 'reading', row: { point: '4E', by: BENCH } }],
    });
    const second = await measure('Osk Velland', null);
    expect(second.body).toMatchObject({
      by: 'Osk Velland',
      reason: `written while ${BENCH} wrote this point too`,
      // both are told, and the other is there to be taken
      crosses: first.body.id,
      crossed: { id: first.body.id, by: BENCH, reading: first.body.reading },
    });
    // the first is taken: as it was felt and when, so that it proves nothing of what was done since
    const chosen = await measure(LEAD, second.body.id, { takes: first.body.id, takenAt: null });
    expect(chosen.body).toMatchObject({
      ...{ by: LEAD, takenAt: first.body.takenAt, reading: first.body.reading, superseded: false },
      ...{ supersedes: second.body.id, crosses: null, crossed: null },
    });
    expect(await measure(LEAD, chosen.body.id, { takes: randomUUID() })).toMatchObject({ status: 404 });
    const again = await measure('Osk Velland', chosen.body.id);
    expect(again.body).toMatchObject({ by: 'Osk Velland', crosses: null });
    const blind = await measure(LEAD, again.body.id, {
      ...{ blind: true, takenAt: new Date(Date.now() + 60_000).toISOString() },
    });
    expect(blind.body).toMatchObject({
      blind: true,
      firstLook: { by: 'Osk Velland', lo: 0.35, hi: 0.4 },
      reason: 'second look, without seeing the first',
      ...{ crosses: null, crossed: null },
    });
    expect(Date.parse(blind.body.takenAt)).toBeLessThanOrEqual(Date.now() + 1000);
    const history = await shop.call<PastReading[]>(VIEWER, 'GET', `rounds/${round.id}/points/4E`);
    expect(history.body.map(({ by, supersededBy }) => [by, supersededBy])).toEqual([
      [LEAD, null],
      ['Osk Velland', LEAD],
      ['Osk Velland', LEAD],
      [LEAD, 'Osk Velland'],
      [BENCH, 'Osk Velland'],
    ]);
    expect(await measure(BENCH, null, { instrumentId: randomUUID() })).toMatchObject({ status: 404 });
    expect(elsewhere.events.filter(({ kind }) => kind !== 'quiet')).toEqual([
      { kind: 'here', build: other.id, seq: other.seq },
    ]);
    here.stop();
    elsewhere.stop();
  });

  it('keeps what was said of its conditions, with what did not fit the sheet', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const round = build.rounds.at(-1)!;
    const say = (said: object) => shop.write(BENCH, 'POST', `rounds/${round.id}/conditions`, said);
    await say({ engineTempC: 48, hoursSinceRun: 2, condition: 'hot' });
    const { body } = await say({ engineTempC: 18, hoursSinceRun: 20, condition: 'cold' });
    const said = body.rounds.at(-1)!.conditions.slice(-2);
    expect(said[1]).toMatchObject({ engineTempC: 18, condition: 'cold', by: BENCH });
    expect(said.map((each) => conditionCautions(body.sheet, each).length)).toEqual([3, 0]);
  });
});

describe('a digital gauge', () => {
  it.each([
    ['V 12 0.152 mm', { kind: 'value', press: 12, mm: 0.152 }],
    ['V 3 0.006 in', { kind: 'value', press: 3, mm: 0.1524 }],
    ['V 4 150 um\r', { kind: 'value', mm: 0.15 }],
    ['ZLG 1 Bench gauge simulated', { kind: 'greeting', name: 'Bench gauge', simulated: true }],
    ['ZLG 1 Bench gauge', { kind: 'greeting', simulated: false }],
    ['V 12 0.1', { kind: 'unreadable' }],
    ['V x 0.1 mm', { kind: 'unreadable' }],
    ['', { kind: 'unreadable' }],
  ])('line “%s”', (line, said) => {
    expect(readGaugeLine(line)).toMatchObject(said);
  });

  it('speaks to the device that holds it, in any unit, and its lost and cut presses are noticed', async () => {
    let fate = 0.99;
    const gauge = await startSimulatedGauge(0, 'Test gauge', () => fate);
    const { body: instrument } = await shop.call<Instrument>(
      BENCH,
      'POST',
      'instruments',
      blades({ kind: 'digital-gauge', blades: [], missing: [], address: `127.0.0.1:${gauge.port}` }),
    );
    const device = randomUUID();
    const [mine, theirs] = [await hear(`device=${device}`), await hear(`device=${randomUUID()}`)];
    await mine.until(({ kind }) => kind === 'gauge-link').catch(() => undefined);
    const told = async (nature: object) => {
      const reached = () => shop.call(BENCH, 'POST', `gauges/${instrument.id}/simulation`, nature);
      await vi.waitFor(async () => expect((await reached()).status).toBe(200), 5000);
    };
    await told({ gap: 0.152, noise: 0 });
    expect((await shop.call(BENCH, 'POST', `gauges/${instrument.id}/hold`, { device })).status).toBe(200);
    const next = async (nature: object) => {
      const from = mine.events.length;
      await told({ ...nature, press: true });
      return mine.until((event) => mine.events.indexOf(event) >= from && event.kind === 'gauge');
    };
    expect(await next({})).toMatchObject({ value: 0.152, text: '0.152 mm', trouble: 'none' });
    expect(await next({ unit: 'in' })).toMatchObject({ value: 0.1519, text: '0.00598 in' });
    expect(await next({ unit: 'mm', drift: 0.02 })).toMatchObject({ value: 0.172 });
    fate = 0.7;
    expect(await next({ dropOuts: 1 })).toMatchObject({ value: null, trouble: 'unreadable' });
    fate = 0.1;
    const before = gauge.presses();
    await told({ press: true });
    await expect.poll(gauge.presses).toBe(before + 1);
    fate = 0.99;
    expect(await next({ dropOuts: 0, drift: 0 })).toMatchObject({ trouble: 'lost-before' });
    expect(theirs.events.filter(({ kind }) => kind === 'gauge')).toEqual([]);

    await gauge.stop();
    expect(await mine.until((event) => event.kind === 'gauge-link' && !event.connected)).toBeTruthy();
    expect(await shop.call(BENCH, 'POST', `gauges/${instrument.id}/simulation`, { gap: 1 })).toMatchObject({
      status: 409,
      body: { code: 'gauge_unreached' },
    });
    expect((await shop.call(BENCH, 'POST', `gauges/${randomUUID()}/hold`, { device })).status).toBe(404);
    mine.stop();
    theirs.stop();
  });
});
