import { randomUUID } from 'node:crypto';
import type { BuildWrite, BuildRowChange, TickRow } from '@zero-lash/contract/builds';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { LiveEvent } from '@zero-lash/contract/live';
import { lashPoints } from '@zero-lash/core/sheets';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LiveBus } from '../plugins/bus.ts';
import { BENCH, LEAD, TestShop, type BuildView } from './shop.ts';
import { bandOf } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const minutesAgo = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString();
const gap = (point: string, change: object = {}) => ({
  ...{ point, reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: 'goes, will not' },
  ...change,
});
const send = (
  path: string,
  body: object,
  who = BENCH,
  key?: string,
  method: 'POST' | 'PUT' | 'PATCH' = 'POST',
) => shop.call<BuildWrite & { code: string }>(who, method, path, body, key);

/** Everything one build is written in at the bench. */
function writesIn(build: BuildView): [method: 'POST' | 'PUT' | 'PATCH', path: string, body: object][] {
  const round = `rounds/${build.rounds.at(-1)!.id}`;
  return [
    ['POST', `builds/${build.id}/ticks`, { stage: 'as-found', check: 'nothing', done: true }],
    ['POST', `builds/${build.id}/notes`, { stage: 'as-found', text: 'Lobe of 3E polished' }],
    ['POST', `${round}/readings`, gap('3I')],
    ['POST', `${round}/readings`, gap('3I', { reading: { kind: 'drag', blade: 0.3 } })],
    ['POST', `${round}/conditions`, { engineTempC: 18, hoursSinceRun: 20, condition: 'cold' }],
    ['PUT', `${round}/turning`, { school: 'companion', at: 120, done: [0] }],
    ['PATCH', `builds/${build.id}`, { version: build.version, complaint: 'Ticks when warm', aim: 'middle' }],
  ];
}

describe('a write in a build', () => {
  it('answers what it wrote, is told the same to everybody, and raises the number by one; a refused one does not', async () => {
    const bus = new LiveBus(shop.db, shop.app.log);
    bus.start();
    await expect.poll(() => bus.linked).toBe(true);
    const told: LiveEvent[] = [];
    bus.subscribe((event) => told.push(event as LiveEvent));
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    let { seq } = build;
    const answers: BuildWrite[] = [];
    for (const [method, path, body] of writesIn(build)) {
      const { status, body: answer } = await send(path, body, BENCH, undefined, method);
      if (status === 422) continue;
      expect(status, path).toBeLessThan(300);
      expect(answer, path).toMatchObject({ build: build.id, seq: (seq += 1) });
      answers.push(answer);
    }
    expect(answers).toHaveLength(6);
    await expect
      .poll(() => told.filter(({ kind }) => kind === 'build'))
      .toEqual(answers.map((answer) => ({ kind: 'build', ...answer })));
    const after = await shop.build(build.id);
    expect(after.seq).toBe(seq);
    const rowOf = (change: BuildRowChange) => change.row;
    const [note, , reading, conditions, , head] = answers.map(({ changes }) => rowOf(changes[0]!));
    expect(after.notes).toContainEqual(note);
    expect(after.rounds.at(-1)!.readings).toContainEqual(reading);
    expect(after.rounds.at(-1)!.conditions).toContainEqual(conditions);
    expect(after).toMatchObject(head!);
    await bus.close();
  });

  it('of many hands at once is numbered without a gap', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, index) =>
        send(`builds/${build.id}/notes`, { stage: 'take-in', text: `hand ${index}` }),
      ),
    );
    const numbers = answers.map(({ body }) => body.seq).sort((a, b) => a - b);
    expect(numbers).toEqual(numbers.map((_, index) => build.seq + 1 + index));
  });

  it('costs no more queries for what else is in the build', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const round = build.rounds.at(-1)!.id;
    await send(`rounds/${round}/readings`, gap('1I'));
    const counted = async (path: string, body: object) => {
      let queries = 0;
      const count = () => (queries += 1);
      shop.db.on('query', count);
      expect((await send(path, body)).status).toBeLessThan(300);
      shop.db.off('query', count);
      return queries;
    };
    const pump = await shop.buildOf('Fire pump, Brackwater');
    const tick = { stage: 'open-up', check: 'counted-out', done: true };
    // with the two that see what was written meanwhile, the transaction's two ends, the key's claim and the telling; a reading asks for hollows too
    expect(await counted(`builds/${pump.id}/ticks`, tick)).toBeLessThanOrEqual(10);
    expect(await counted(`rounds/${round}/readings`, gap('1I'))).toBeLessThanOrEqual(14);
  });

  it('that is sent again is answered with what it wrote, as it stands by then', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const path = `rounds/${build.rounds.at(-1)!.id}/readings`;
    const key = randomUUID();
    const first = await send(path, gap('2I'), BENCH, key);
    expect(first.body.changes[0]!.row).toMatchObject({ id: key, superseded: false });
    await send(path, gap('2I'), 'Osk Velland');
    const again = await send(path, gap('2I'), BENCH, key);
    expect(again.body.changes).toMatchObject([{ kind: 'reading', row: { id: key, superseded: true } }]);
  });
});

describe('what was done earlier and comes in later', () => {
  it('of a tick, where the crank is, and a setting, is kept behind what was done last', async () => {
    const pump = await shop.buildOf('Fire pump, Brackwater');
    const tick = (done: boolean, minutes: number) =>
      send(`builds/${pump.id}/ticks`, {
        stage: 'open-up',
        check: 'gasket',
        done,
        takenAt: minutesAgo(minutes),
      });
    await tick(false, 1);
    const late = await tick(true, 5);
    expect(late.body.changes).toMatchObject([{ kind: 'tick', row: { check: 'gasket', done: false } }]);
    // who ticked it, and when, stays known though it is taken back
    const { earlier, earlierBy } = late.body.changes[0]!.row as TickRow;
    expect(earlierBy).toHaveLength(earlier!.length);
    expect(earlierBy!.at(-1)).toBe(BENCH);

    const groomer = await shop.buildOf('Snow groomer 2');
    const turn = (at: number, minutes: number) =>
      send(
        `rounds/${groomer.rounds.at(-1)!.id}/turning`,
        { school: 'fewest', at, done: [], takenAt: minutesAgo(minutes) },
        ...([BENCH, undefined, 'PUT'] as const),
      );
    await turn(240, -1);
    expect((await turn(120, 3)).body.changes).toMatchObject([{ kind: 'turning', row: { at: 240 } }]);

    const railcar = await shop.buildOf('Railcar 1, front engine');
    const fit = (fitted: number, minutes: number) =>
      send(`builds/${railcar.id}/settings`, {
        ...{ point: '3Ia', kind: 'fitted', installed: 2.5, fitted, takenAt: minutesAgo(minutes) },
      });
    await fit(2.4, 2);
    expect((await fit(2.45, 9)).body.changes).toMatchObject([{ row: { fitted: 2.45, superseded: true } }]);
    const { settings } = await shop.build(railcar.id);
    expect(settings.filter(({ point }) => point === '3Ia')).toMatchObject([{ fitted: 2.4 }]);
  });

  it('of a note keeps its own time', async () => {
    const build = await shop.buildOf('Fire pump, Brackwater');
    const takenAt = minutesAgo(3);
    const { body } = await send(`builds/${build.id}/notes`, { stage: 'open-up', text: 'Late', takenAt });
    const { at } = body.changes[0]!.row as { at: string };
    expect(Math.abs(Date.parse(at) - Date.parse(takenAt))).toBeLessThan(1000);
  });
});

describe('a second look and a third', () => {
  it('are both held against what the first one saw', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const look = async (who: string, go: number, blind: boolean) =>
      (
        await shop.read(who, build.rounds.at(-1)!.id, {
          ...gap('1E', { blind, reading: { kind: 'bracket', go, noGo: go + 0.02 } }),
        })
      ).body;
    await look(BENCH, 0.3, false);
    expect((await look('Osk Velland', 0.34, true)).firstLook).toMatchObject({ by: BENCH, lo: 0.3 });
    expect((await look(LEAD, 0.3, true)).firstLook).toMatchObject({ by: BENCH, lo: 0.3 });
    expect(await look('Osk Velland', 0.3, true)).toMatchObject({ code: 'own_second' });
  });
});

describe('a recheck', () => {
  /** Takes every point of a recheck's round, and judges it. */
  async function measureAll(build: BuildView, round: string, but: readonly string[] = []): Promise<void> {
    for (const { key, role } of lashPoints(build.sheet.pattern)) {
      const { min, max } = bandOf(build.sheet, role);
      const middle = Math.round(((min + max) / 2) * 100) / 100;
      if (!but.includes(key))
        await send(`rounds/${round}/readings`, {
          ...gap(key, { reading: { kind: 'value', value: middle, uncertainty: 0.01 } }),
        });
    }
  }
  const planned = ({ rechecks }: BuildView) => rechecks.find(({ status }) => status === 'planned')!;

  it('begun on two devices has one round; judged before all came in, it is open again when it comes, and what was to follow is planned again', async () => {
    const build = await shop.buildOf('Trimmer, Pellow Mill');
    const recheck = planned(build);
    const here = await send(`rechecks/${recheck.id}/round`, { takenAt: minutesAgo(30) });
    const there = await send(`rechecks/${recheck.id}/round`, {}, 'Osk Velland');
    for (const { body } of [here, there])
      expect(body.changes).toMatchObject([{ kind: 'round', row: { id: recheck.id } }]);
    // the engine ran on after the recheck was begun
    const usage = build.engine.usage + 5;
    await shop.call(BENCH, 'POST', `engines/${build.engine.id}/usages`, { usage });
    await measureAll(build, recheck.id);
    const round = (await shop.db('rounds').where({ id: recheck.id }).first('usage'))!;
    expect(round.usage).toBe(build.engine.running + 5);
    const judged = await send(`rechecks/${recheck.id}/outcome`, {});
    expect(judged.body.changes).toContainEqual(
      expect.objectContaining({ row: expect.objectContaining({ id: recheck.id, outcome: 'held' }) }),
    );
    const next = planned(await shop.build(build.id));
    expect(next.sequence).toBe(recheck.sequence + 1);

    // held by the other tablet until now, and taken before it was judged, but before the one that stands: history only
    const [point] = lashPoints(build.sheet.pattern);
    const behind = await send(`rounds/${recheck.id}/readings`, gap(point!.key, { takenAt: minutesAgo(20) }));
    expect(behind.body.changes).toMatchObject([{ row: { superseded: true } }]);
    expect(planned(await shop.build(build.id)).id).toBe(next.id);

    const before = (await shop.db('rechecks').where({ id: recheck.id }).first('done_at'))!;
    const late = await send(
      `rounds/${recheck.id}/readings`,
      gap(point!.key, {
        reading: { kind: 'value', value: 0.02, uncertainty: 0.01 },
        takenAt: new Date(before.done_at!.getTime() - 1).toISOString(),
      }),
      'Osk Velland',
    );
    const row = late.body.changes[0]!.row as ReadingRow;
    expect(row).toMatchObject({ verdict: 'tight', superseded: false, by: 'Osk Velland' });
    const open = await shop.build(build.id);
    expect(planned(open)).toMatchObject({ id: recheck.id, outcome: null });
    expect(open.rechecks.find(({ id }) => id === next.id)!.status).toBe('dropped');

    const after = await send(`rounds/${recheck.id}/readings`, gap(point!.key));
    expect(after.status).toBe(201);
    await send(`rounds/${recheck.id}/readings`, {
      ...gap(point!.key),
      reading: { kind: 'value', value: 0.02, uncertainty: 0.01 },
    });
    const again = await send(`rechecks/${recheck.id}/outcome`, {});
    expect(again.status).toBe(201);
    const end = await shop.build(build.id);
    expect(end.rechecks.find(({ id }) => id === recheck.id)!.outcome).toBe('out');
    expect(planned(end).sequence).toBe(recheck.sequence + 1);
    // what was taken after it was judged belongs to the next one
    expect(await send(`rounds/${recheck.id}/readings`, gap(point!.key))).toMatchObject({
      status: 409,
      body: { code: 'round_closed' },
    });
  });
});
