import type { EngineView } from '@zero-lash/contract/engines';
import type { SheetFile, SheetRevision } from '@zero-lash/contract/sheets';
import type { FleetList, FleetSays } from '@zero-lash/contract/fleet';
import type { PastRecheck, RecheckList } from '@zero-lash/contract/rechecks';
import { addDays } from '@zero-lash/core/rechecks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { shopDay } from '../clock.ts';
import { BENCH, LEAD, TestShop, VIEWER, type BuildView } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const planned = ({ rechecks }: Pick<BuildView, 'rechecks'>) =>
  rechecks.find(({ status }) => status === 'planned')!;
const list = async (query = '') => (await shop.call<RecheckList>(VIEWER, 'GET', `rechecks${query}`)).body;

/** A signed build on a screw engine that is counted in starts. */
async function signed(): Promise<Work> {
  const work = await Work.on(shop, 'Edger, Pellow Mill');
  await work.reach('close');
  await work.tickAll();
  await work.signOff();
  return work;
}

const move = (recheck: PastRecheck, body: object, who = LEAD) =>
  shop.call(who, 'POST', `rechecks/${recheck.id}/move`, { version: recheck.version, ...body });

describe('a planned recheck', () => {
  it('comes with a forecast of every point, by what is stated while the shop knows too little', async () => {
    const work = await signed();
    const { forecast, planUsage, dueUsage } = planned(work.build);
    expect(forecast!.points.map(({ point }) => point)).toEqual(work.points);
    expect(forecast!.priors.every(({ from }) => from === 'stated')).toBe(true);
    for (const { pTight, pLoose, sd } of forecast!.points) {
      expect(pTight + pLoose).toBeLessThan(0.2);
      expect(sd).toBeGreaterThan(0);
    }
    expect(dueUsage).toBe(planUsage);
  });

  it('is moved, held back, let go and dropped by a lead with a reason, and by nobody else', async () => {
    const work = await signed();
    const again = async () => planned((work.build = await shop.build(work.build.id)));
    const today = await shopDay(shop.db);
    const later = addDays(today, 200);
    let recheck = planned(work.build);
    expect((await move(recheck, { kind: 'moved', day: later, why: 'away' }, BENCH)).status).toBe(403);
    expect((await move(recheck, { kind: 'moved', why: 'no day' })).status).toBe(400);
    expect((await move(recheck, { kind: 'on-hold', why: '' })).status).toBe(400);
    expect(await move(recheck, { kind: 'moved', day: '2020-01-01', why: 'as seen' })).toMatchObject({
      ...{ status: 409, body: { code: 'recheck_move' } },
    });
    expect(
      (await move(recheck, { kind: 'moved', day: later, why: 'The pump is out at the quay' })).status,
    ).toBe(201);
    recheck = await again();
    expect(recheck).toMatchObject({ dueDate: later, dueUsage: null, expectedDay: later, byForecast: false });
    expect(recheck.changes[0]).toMatchObject({
      kind: 'moved',
      day: later,
      why: 'The pump is out at the quay',
    });
    // as it was seen before: somebody else was there in between
    expect(await move({ ...recheck, version: 1 }, { kind: 'on-hold', why: 'as seen' })).toMatchObject({
      ...{ status: 409, body: { code: 'stale' } },
    });
    expect((await move(recheck, { kind: 'released', why: 'as seen' })).status).toBe(409);
    await move(recheck, { kind: 'on-hold', why: 'Its owner is ill' });
    recheck = await again();
    expect([recheck.onHold, recheck.state]).toEqual([true, 'waiting']);
    expect((await list('?state=waiting&limit=500')).rechecks.map(({ id }) => id)).toContain(recheck.id);
    await move(recheck, { kind: 'released', why: 'Well again' });
    recheck = await again();
    expect(recheck.onHold).toBe(false);
    await move(recheck, { kind: 'dropped', why: 'Looked at by its maker' });
    const next = await again();
    expect([next.sequence, next.status]).toEqual([recheck.sequence + 1, 'planned']);
    expect(work.build.rechecks.find(({ id }) => id === recheck.id)!.status).toBe('dropped');
    expect((await move(recheck, { kind: 'on-hold', why: 'as seen' })).status).toBe(409);
  });

  it('is put on the bench no later than it is due, and taken off again', async () => {
    const work = await signed();
    const recheck = planned(work.build);
    const put = (day: string | null, version: number) =>
      shop.call(BENCH, 'POST', `rechecks/${recheck.id}/bench-day`, { day, version });
    const today = await shopDay(shop.db);
    expect((await put(addDays(recheck.dueDate!, 1), 1)).status).toBe(409);
    expect((await put(addDays(today, -1), 1)).status).toBe(409);
    expect((await put(addDays(today, 3), 1)).status).toBe(201);
    const on = addDays(today, 3);
    const found = await list(`?from=${on}&to=${on}`);
    expect(found.rechecks.find(({ id }) => id === recheck.id)).toMatchObject({ benchDay: on, version: 2 });
    expect((await put(null, 2)).status).toBe(201);
    expect(planned(await shop.build(work.build.id)).benchDay).toBeNull();
  });

  it('is brought forward by a point that moves fast, and found against what was said', async () => {
    const work = await signed();
    const [fast, ...rest] = work.points as [string, ...string[]];
    const { id: engineId } = work.build.engine;
    const look = async (usage: number, gap: number) => {
      await shop.call(BENCH, 'POST', `engines/${engineId}/usages`, { usage, sure: true });
      const { id } = planned((work.build = await shop.build(work.build.id)));
      await shop.write(BENCH, 'POST', `rechecks/${id}/round`, {});
      work.build = await shop.build(work.build.id);
      for (const point of rest) await work.measure(point);
      await shop.read(BENCH, id, {
        ...{ point: fast, reading: { kind: 'value', value: gap, uncertainty: 0.002 }, asTyped: String(gap) },
      });
      const answer = await shop.call(BENCH, 'POST', `rechecks/${id}/outcome`);
      expect(answer.status).toBe(201);
      work.build = await shop.build(work.build.id);
      return id;
    };
    const first = await look(30, 0.098);
    const second = await look(330, 0.089);
    const checks = await shop
      .db('point_checks')
      .where({ point: fast })
      .whereIn('recheck_id', [first, second]);
    expect(checks.map(({ since }) => since).sort((a, b) => a - b)).toEqual([20, 320]);
    for (const { said_sd: sd, from_lo: from, engine_id: engine } of checks) {
      expect(sd).toBeGreaterThan(0);
      expect(from).toBeGreaterThan(1000);
      expect(engine).toBe(engineId);
    }
    const next = planned(work.build);
    const point = next.forecast!.points.find((each) => each.point === fast)!;
    expect(point.perUnit).toBeLessThan(-0.00001);
    expect(point.outAt).not.toBeNull();
    expect(next.byForecast).toBe(true);
    expect(next.planUsage).toBe(630);
    expect(next.dueUsage).toBeLessThan(630);
    expect(next.dueUsage).toBeGreaterThan(330);
  });

  it('may be due by heat cycles alone, as they are counted', async () => {
    const like = await shop.buildOf('Edger, Pellow Mill');
    const { body: sheet } = await shop.call<SheetFile>(LEAD, 'GET', `sheet-revisions/${like.sheet.id}/file`);
    const { format: _, formatVersion: __, name: ___, maker, ...body } = sheet;
    const step = { afterUsage: null, afterDays: null, afterCycles: 5 };
    const { body: draft } = await shop.call<SheetRevision>(BENCH, 'POST', 'sheets', {
      ...{ name: 'By heat', maker, body: { ...body, recheckPlan: [step] } },
    });
    await shop.call(LEAD, 'POST', `sheet-revisions/${draft.id}/publication`, { version: draft.version });
    const { body: engine } = await shop.call<EngineView>(BENCH, 'POST', 'engines', {
      ...{ name: 'By heat', serial: '', owner: '', duty: '', usage: 10, sheetId: draft.sheetId },
    });
    const work = await Work.on(shop, 'Edger, Pellow Mill', { engineId: engine.id, revisionId: draft.id });
    await work.reach('close');
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    expect(planned(work.build)).toMatchObject({
      dueCycles: 5,
      dueUsage: null,
      dueDate: null,
      state: 'coming',
    });
    const count = async (heatCycles: number) => {
      await shop.call(BENCH, 'POST', `engines/${engine.id}/usages`, { usage: 10, heatCycles });
      return planned(await shop.build(work.build.id)).state;
    };
    expect([await count(4), await count(5), await count(6)]).toEqual(['coming', 'due', 'overdue']);
  });

  it('that is opened again by a late reading says nothing of all engines until it is judged again', async () => {
    const work = await signed();
    const id = await work.recheck();
    const before = new Date().toISOString();
    await work.judge(id);
    const checks = async () => shop.db('point_checks').where({ recheck_id: id });
    expect((await checks()).every(({ newest }) => newest)).toBe(true);
    expect((await checks()).length).toBe(work.points.length);
    await shop.read(BENCH, id, {
      ...{
        point: work.points[0],
        reading: { kind: 'value', value: 0.1, uncertainty: 0.002 },
        asTyped: '0.1',
      },
      takenAt: before,
    });
    expect(await checks()).toEqual([]);
  });

  it('is looked for by owner, place and pattern, the most pressing first', async () => {
    const whole = await list('?limit=500');
    expect(whole.total).toBe(whole.rechecks.length);
    const order = ['not-held', 'overdue', 'due', 'coming', 'waiting'];
    const ranks = whole.rechecks.map(({ state }) => order.indexOf(state));
    expect(ranks).toEqual([...ranks].sort());
    for (const [state, count] of Object.entries(whole.counts)) {
      const narrowed = await list(`?state=${state}&limit=500`);
      expect([narrowed.total, narrowed.rechecks.length], state).toEqual([count, count]);
    }
    const { body: filters } = await shop.call<{
      owners: { id: string; name: string }[];
      places: string[];
      sheets: { id: string; name: string }[];
    }>(VIEWER, 'GET', 'rechecks/filters');
    const orrel = filters.owners.find(({ name }) => name === 'Orrel and Daughters')!;
    const own = await list(`?owner=${orrel.id}`);
    expect(own.rechecks.length).toBe(2);
    expect(own.rechecks.every(({ owner }) => owner === orrel.name)).toBe(true);
    const [place] = own.rechecks.map((each) => each.place);
    expect(filters.places).toContain(place);
    const there = await list(`?place=${encodeURIComponent(place!)}`);
    expect(there.rechecks.map(({ engine }) => engine)).toEqual([expect.stringContaining(place!)]);
    const of = await list(`?sheet=${filters.sheets[0]!.id}&limit=500`);
    expect(new Set(of.rechecks.map(({ sheetName }) => sheetName)).size).toBe(1);
    expect((await shop.call(VIEWER, 'GET', 'rechecks?owner=me')).status).toBe(400);
    expect((await shop.call(VIEWER, 'GET', 'rechecks?state=soon')).status).toBe(400);
  });

  it('names the points of the demo that move unlike their neighbours, and the season that begins', async () => {
    const { rechecks, day } = await list('?limit=500');
    const cold = rechecks.find(({ engine }) => engine.startsWith('Frost fan 18'))!;
    expect(cold.unlike).toEqual([{ point: '3E', way: 'tighter' }]);
    const season = rechecks.filter(({ season }) => season === 'the first frost');
    expect(season.length).toBeGreaterThan(2);
    for (const { dueDate } of season.filter(({ dueDate }) => dueDate! > day))
      expect(dueDate! <= addDays(day, 22)).toBe(true);
  });
});

describe('what all our engines say', () => {
  it('is said by pattern and place, with the engines behind it, and not from under three', async () => {
    const { body: patterns } = await shop.call<FleetList>(VIEWER, 'GET', 'fleet');
    const fans = patterns.find(({ name }) => name === 'Quillmere Q4 Orchard')!;
    expect(fans.engines).toBeGreaterThanOrEqual(5);
    const { body: says } = await shop.call<FleetSays>(VIEWER, 'GET', `fleet/${fans.sheetId}`);
    const exhaust = says.roles.find(({ role }) => role === 'exhaust')!;
    // 0.004 to 0.006 mm in a hundred days of about 0.9 hours, as the demo world has it
    expect(exhaust.perUnit).toBeLessThan(-0.00002);
    expect(exhaust.perUnit).toBeGreaterThan(-0.0001);
    expect(exhaust.engines).toBe(fans.engines);
    expect(says.positions.map(({ point }) => point)).toContain('3E');
    expect(says.positions.reduce((sum, { goesFirst }) => sum + goesFirst, 0)).toBe(fans.engines);
    const { count, inside, engines } = says.calibration!;
    expect(engines).toBeGreaterThanOrEqual(3);
    expect(inside / count).toBeGreaterThan(0.6);
    expect(says.checks[0]).toMatchObject({ sequence: 1 });
    const few = patterns.find(({ engines: count }) => count < 3)!;
    const { body: quiet } = await shop.call<FleetSays>(VIEWER, 'GET', `fleet/${few.sheetId}`);
    expect([quiet.roles, quiet.positions, quiet.checks, quiet.calibration]).toEqual([[], [], [], null]);
    expect(quiet.interval.says).toBe('too-few');
    expect((await shop.call(VIEWER, 'GET', `fleet/${crypto.randomUUID()}`)).status).toBe(404);
  });

  it('speaks for an engine without that engine’s own voice', async () => {
    const build = await shop.buildOf('Frost fan 12, Quarry Rows');
    const { forecast } = planned(build);
    const [exhaust] = forecast!.priors.filter(({ role }) => role === 'exhaust');
    const own = await shop
      .db('point_checks')
      .where({ engine_id: build.engine.id, role: 'exhaust' })
      .distinct('point');
    const all = await shop
      .db('point_checks')
      .where({ sheet_id: build.sheet.sheetId, role: 'exhaust' })
      .distinct('engine_id', 'point');
    expect(exhaust).toMatchObject({ from: 'own', count: all.length - own.length });
  });
});

describe('an owner', () => {
  it('is kept once: every engine of theirs says the same name, and a rename is theirs all', async () => {
    const { body: owners } = await shop.call<
      { id: string; name: string; engines: number; version: number; email: string }[]
    >(BENCH, 'GET', 'owners');
    const sellend = owners.find(({ name }) => name === 'Sellend Orchards')!;
    const { body: engines } = await shop.call<{ engines: EngineView[] }>(
      VIEWER,
      'GET',
      'engines?search=Sellend&limit=500',
    );
    expect(engines.engines.length).toBe(sellend.engines);
    const change = (body: object) =>
      shop.call(BENCH, 'PATCH', `owners/${sellend.id}`, {
        ...{ name: sellend.name, email: sellend.email, tells: 'mail', note: '', version: sellend.version },
        ...body,
      });
    expect(await change({ email: 'nobody' })).toMatchObject({ status: 400 });
    expect(await change({ name: 'orrel AND daughters' })).toMatchObject({
      ...{ status: 409, body: { code: 'name_taken' } },
    });
    expect((await change({ name: 'Sellend Fruit' })).status).toBe(200);
    expect((await change({ name: 'Late' })).body).toMatchObject({ code: 'stale' });
    const { body: renamed } = await shop.call<{ engines: EngineView[] }>(
      VIEWER,
      'GET',
      'engines?search=Sellend%20Fruit&limit=500',
    );
    expect(renamed.engines.length).toBe(sellend.engines);
    // an engine that is taken in under their name, however it is written, is theirs
    const { sheet } = await shop.buildOf('Frost fan 12, Quarry Rows');
    const { body: engine } = await shop.call<EngineView>(BENCH, 'POST', 'engines', {
      ...{
        name: 'Frost fan 30',
        serial: '',
        owner: ' SELLEND fruit',
        duty: '',
        usage: 1,
        sheetId: sheet.sheetId,
      },
    });
    expect([engine.owner, engine.ownerId]).toEqual(['Sellend Fruit', sellend.id]);
  });
});
