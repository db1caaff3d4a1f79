import type { EngineView } from '@zero-lash/contract/engines';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import type { SheetFile, SheetRevision, SheetSummary } from '@zero-lash/contract/sheets';
import { addDays } from '@zero-lash/core/rechecks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { shopDay } from '../clock.ts';
import { keepForecastsUp } from '../rechecks/keepUp.ts';
import { meterless } from './meterless.ts';
import { readPdf } from './pdf.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
let today: string;
beforeAll(async () => {
  shop = await TestShop.open();
  today = await shopDay(shop.db);
});
afterAll(() => shop.close());

const EIGHT = 'Frost fan 9, River Terrace';
const STEP = { afterUsage: null, afterDays: null, afterCycles: null, before: null, until: null };

/** A signed build on a single that is counted in starts, or on an engine of eight points. */
async function signed(like = 'Edger, Pellow Mill'): Promise<Work> {
  const work = await Work.on(shop, like);
  await work.reach('close');
  await work.tickAll();
  await work.signOff();
  return work;
}

const engineOf = async (work: Work) =>
  (await shop.call<EngineView>(VIEWER, 'GET', `engines/${work.build.engine.id}`)).body;
const plannedOf = async (work: Work): Promise<PastRecheck> => {
  work.build = await shop.build(work.build.id);
  return work.build.rechecks.find(({ status }) => status === 'planned')!;
};

async function give(work: Work, steps: object[] | null, why = 'It runs day and night', who = LEAD) {
  const { id, version } = await engineOf(work);
  return shop.call<EngineView & { code: string }>(who, 'PUT', `engines/${id}/plan`, { steps, why, version });
}

/** Opens the round of the planned recheck and measures some of its points. */
async function look(
  work: Work,
  points: readonly string[],
  how: 'sound' | 'tight' | 'edge' = 'sound',
): Promise<string> {
  const { id } = await plannedOf(work);
  await work.write(`../../rechecks/${id}/round`, {});
  for (const point of points) await work.measure(point, how);
  return id;
}

describe('an engine without a meter', () => {
  it('is looked at by the calendar and by heat cycles, and nothing is counted or forecast by running', async () => {
    const sheet = await meterless(shop, 'S1 Rescue');
    expect(
      await shop.call(LEAD, 'POST', 'sheets', sheet([{ ...STEP, afterUsage: 10, afterDays: 90 }])),
    ).toMatchObject({ status: 400, body: { detail: expect.stringMatching(/afterUsage: it has no meter/) } });
    const { body: draft } = await shop.call<SheetRevision>(
      LEAD,
      'POST',
      'sheets',
      sheet([{ ...STEP, afterDays: 90, afterCycles: 40 }]),
    );
    await shop.call('Osk Velland', 'POST', `sheet-revisions/${draft.id}/publication`, { version: 1 });
    const engine = { name: 'Rescue drive', serial: '', owner: '', duty: '', sheetId: draft.sheetId };
    expect(await shop.call(BENCH, 'POST', 'engines', { ...engine, usage: 12 })).toMatchObject({
      status: 400,
      body: { detail: expect.stringMatching(/it has no meter/) },
    });
    const { body: added } = await shop.call<EngineView>(BENCH, 'POST', 'engines', { ...engine, usage: 0 });
    const work = await Work.on(shop, '', { engineId: added.id, revisionId: draft.id });
    await work.reach('close');
    await work.tickAll();
    await work.signOff();
    expect(await plannedOf(work)).toMatchObject({
      ...{ dueUsage: null, dueDate: addDays(today, 90), dueCycles: 40 },
      forecast: { points: [] },
    });
    const usages = `engines/${added.id}/usages`;
    expect((await shop.call(BENCH, 'POST', usages, { usage: 5 })).status).toBe(400);
    expect((await shop.call(BENCH, 'POST', usages, { usage: 0, heatCycles: 41 })).status).toBeLessThan(300);
    expect((await plannedOf(work)).state).toBe('overdue');
    expect(await give(work, [{ ...STEP, afterUsage: 25 }])).toMatchObject({
      ...{ status: 400, body: { code: 'invalid' } },
    });
    expect((await shop.call(VIEWER, 'GET', `engines/${added.id}/trend`)).body).toBeNull();
    const id = await look(work, work.points);
    expect(await work.judge(id)).toMatchObject({ status: 201 });
    expect(await shop.db('point_checks').where({ engine_id: added.id }).pluck('said_mean')).toEqual([
      null,
      null,
    ]);
    const paper = await shop.raw(LEAD, `/api/builds/${work.build.id}/owner-sheet`);
    expect((await readPdf(paper.rawPayload)).text).toContain('no meter');
    expect((await shop.call(VIEWER, 'GET', `fleet/${draft.sheetId}`)).status).toBe(200);
  });
});

describe('a plan of an engine’s own', () => {
  it('is given by a lead with a reason, plans the next recheck again, and is kept when the sheet’s takes its place', async () => {
    const work = await signed();
    const before = await plannedOf(work);
    expect((await engineOf(work)).plan).toMatchObject({ own: null });
    const own = [{ ...STEP, afterUsage: 25, afterDays: 20 }];
    expect((await give(work, own, 'as seen', BENCH)).status).toBe(403);
    expect((await give(work, own, ' ')).status).toBe(400);
    expect((await give(work, [])).status).toBe(400);
    expect((await give(work, [STEP])).status).toBe(400);
    const given = await give(work, own);
    expect(given.status).toBe(200);
    expect(given.body.plan).toMatchObject({
      ...{ steps: [{ afterUsage: 25, afterDays: 20 }], own: { why: 'It runs day and night', by: LEAD } },
    });
    const again = await plannedOf(work);
    expect(again).toMatchObject({ id: before.id, dueUsage: 35, dueDate: addDays(today, 20) });
    expect(again.changes[0]).toMatchObject({ kind: 'replanned', why: 'It runs day and night', by: LEAD });
    expect(again.version).toBe(before.version + 1);
    // what is judged next is planned by it too
    await work.judge(await look(work, work.points));
    expect((await plannedOf(work)).dueDate).toBe(addDays(today, 20));
    expect((await give(work, null, 'Runs as the others do')).body.plan).toMatchObject({ own: null });
    expect((await plannedOf(work)).dueUsage).not.toBe(35);
    const kept = await shop.db('engine_plans').where({ engine_id: work.build.engine.id }).select('why');
    expect(kept.map(({ why }) => why).sort()).toEqual(['It runs day and night', 'Runs as the others do']);
  });

  it('is the only one of an engine whose sheet gives none: no recheck is planned until a lead gives it one', async () => {
    const { body: sheets } = await shop.call<SheetSummary[]>(BENCH, 'GET', 'sheets');
    const { id: sheetId, revisionId } = sheets.find(({ name }) => name === 'M1 Minnow')!;
    const { body: engine } = await shop.call<EngineView>(BENCH, 'POST', 'engines', {
      ...{ name: 'Boathouse pump', serial: '', owner: '', duty: '', usage: 10, sheetId },
    });
    const work = await Work.on(shop, '', { engineId: engine.id, revisionId });
    expect((await give(work, null)).status).toBe(200);
    await work.reach('close');
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    expect(work.build.rechecks).toEqual([]);
    expect((await engineOf(work)).plan).toEqual({ steps: [], own: null });
    const paper = await shop.raw(LEAD, `/api/builds/${work.build.id}/owner-sheet`);
    expect(paper.statusCode).toBe(200);
    for (const path of ['today', 'rechecks', 'engines'])
      expect((await shop.call(VIEWER, 'GET', path)).status).toBe(200);
    await give(work, [{ ...STEP, afterDays: 20 }], 'the owner asks for it');
    expect(await plannedOf(work)).toMatchObject({ sequence: 1, dueDate: addDays(today, 20) });
    await work.judge(await look(work, work.points));
    expect(await plannedOf(work)).toMatchObject({ sequence: 2 });
    // back to its sheet, which has none: what was planned is planned no more, and can be again
    await give(work, null, 'the owner has sold it');
    work.build = await shop.build(work.build.id);
    expect(work.build.rechecks.map(({ status }) => status).sort()).toEqual(['done', 'dropped']);
    await give(work, [{ ...STEP, afterDays: 60 }], 'and bought it back');
    expect((await plannedOf(work)).dueDate).toBe(addDays(today, 60));
  });

  it('leaves alone what a lead moved and what is being measured, and takes off the bench what is due sooner now', async () => {
    const work = await signed();
    let recheck = await plannedOf(work);
    await shop.call(BENCH, 'POST', `rechecks/${recheck.id}/bench-day`, {
      ...{ day: addDays(today, 25), version: recheck.version },
    });
    await give(work, [{ ...STEP, afterDays: 20 }]);
    recheck = await plannedOf(work);
    expect([recheck.dueDate, recheck.benchDay]).toEqual([addDays(today, 20), null]);
    await shop.call(LEAD, 'POST', `rechecks/${recheck.id}/move`, {
      ...{ kind: 'moved', day: addDays(today, 90), why: 'away', version: recheck.version },
    });
    await give(work, [{ ...STEP, afterDays: 5 }]);
    expect((await plannedOf(work)).dueDate).toBe(addDays(today, 90));
    const begun = await signed();
    await look(begun, begun.points.slice(0, 1));
    const { dueDate } = await plannedOf(begun);
    await give(begun, [{ ...STEP, afterDays: 5 }]);
    expect((await plannedOf(begun)).dueDate).toBe(dueDate);
  });

  it('is refused on an engine that somebody changed meanwhile, and where it names what the head does not have', async () => {
    const work = await signed();
    const { id, version } = await engineOf(work);
    const body = { steps: [{ ...STEP, afterDays: 9 }], why: 'as seen', version };
    expect((await shop.call(LEAD, 'PUT', `engines/${id}/plan`, body)).status).toBe(200);
    expect(await shop.call(LEAD, 'PUT', `engines/${id}/plan`, body)).toMatchObject({
      ...{ status: 409, body: { code: 'stale' } },
    });
    expect(await give(work, [{ ...STEP, afterDays: 9, points: ['1I', '9Z'] }])).toMatchObject({
      status: 400,
      body: {
        code: 'invalid',
        fields: [{ path: 'steps.0.points', message: 'there is no point 9Z on this head' }],
      },
    });
  });
});

describe('a short look', () => {
  const sampled = (work: Work) => [{ ...STEP, afterDays: 30, points: work.points.slice(0, 2) }];

  it('is judged by its sample where that holds, and plans the next', async () => {
    const work = await signed(EIGHT);
    await give(work, sampled(work));
    expect((await plannedOf(work)).points).toEqual(work.points.slice(0, 2));
    const id = await look(work, work.points.slice(0, 1));
    expect(await work.judge(id)).toMatchObject({
      ...{ status: 409, body: { code: 'recheck_incomplete', points: [work.points[1]] } },
    });
    await work.measure(work.points[1]!);
    expect((await work.judge(id)).status).toBe(201);
    expect((await plannedOf(work)).sequence).toBe(2);
    expect(await shop.db('point_checks').where({ recheck_id: id })).toHaveLength(2);
  });

  it('is of the whole head once a point of it does not hold, and so is the next', async () => {
    const work = await signed(EIGHT);
    await give(work, sampled(work));
    const id = await look(work, work.points.slice(0, 2), 'tight');
    const answer = await work.judge(id);
    expect(answer).toMatchObject({ status: 409, body: { points: work.points.slice(2) } });
    for (const point of work.points.slice(2)) await work.measure(point);
    expect((await work.judge(id)).status).toBe(201);
    expect((await plannedOf(work)).points).toBeNull();
  });

  it('takes in a point that may be out by then, though the sample does not name it', async () => {
    const work = await signed(EIGHT);
    const odd = work.points.at(-1)!;
    // a look at everything at which one point is near its edge already
    const { id } = await plannedOf(work);
    await shop.call(BENCH, 'POST', `engines/${work.build.engine.id}/usages`, { usage: 20 });
    await work.write(`../../rechecks/${id}/round`, {});
    for (const point of work.points.slice(0, -1)) await work.measure(point);
    const limit = work.build.sheet.limits.at(-1)!;
    await shop.read(BENCH, id, {
      ...{ point: odd, asTyped: 'near', crankAngle: null },
      reading: { kind: 'value', value: limit.min! + 0.003, uncertainty: 0.002 },
    });
    expect((await shop.call(BENCH, 'POST', `rechecks/${id}/outcome`)).status).toBe(201);
    await give(work, sampled(work));
    expect((await plannedOf(work)).points).toEqual([...work.points.slice(0, 2), odd]);
  });
});

describe('a season', () => {
  it('has its first and its last day, and one that ends begins as well', async () => {
    const work = await signed();
    const before = addDays(today, 40).slice(5);
    const until = addDays(today, 100).slice(5);
    expect((await give(work, [{ ...STEP, afterDays: 200, until }])).status).toBe(400);
    await give(work, [{ ...STEP, afterDays: 200, before, until, season: 'the first frost' }]);
    expect(await plannedOf(work)).toMatchObject({
      ...{ season: 'the first frost', seasonFrom: addDays(today, 40), seasonUntil: addDays(today, 100) },
      dueDate: addDays(today, 40),
    });
    // it is named though another day comes first
    await give(work, [{ ...STEP, afterDays: 10, before, season: 'the first frost' }]);
    expect(await plannedOf(work)).toMatchObject({
      ...{ dueDate: addDays(today, 10), seasonFrom: addDays(today, 40), seasonUntil: null },
    });
  });

  it('and a sample of points are checked in a sheet and in its file', async () => {
    const work = await signed();
    const { body: file } = await shop.call<SheetFile>(
      ...([LEAD, 'GET', `sheet-revisions/${work.build.sheet.id}/file`] as const),
    );
    const { format: _, formatVersion: __, name: ___, maker, ...body } = file;
    const add = (step: object) =>
      shop.call<{ fields: { path: string }[] }>(BENCH, 'POST', 'sheets', {
        ...{ name: 'Sampled', maker, body: { ...body, recheckPlan: [{ ...STEP, afterDays: 9, ...step }] } },
      });
    expect((await add({ points: ['9Z'] })).body.fields[0]!.path).toBe('body.recheckPlan.0.points');
    expect((await add({ until: '03-01' })).body.fields[0]!.path).toBe('body.recheckPlan.0.before');
    const sound = await add({ points: ['1I'], before: '10-01', until: '03-31' });
    expect(sound).toMatchObject({
      ...{ status: 201, body: { recheckPlan: [{ points: ['1I'], until: '03-31' }] } },
    });
  });
});

describe('a forecast', () => {
  it('is made again once the shop has learned something of its pattern, and told where it brings a look forward', async () => {
    const work = await signed(EIGHT);
    const recheck = await plannedOf(work);
    await shop.db('rechecks').update({ forecast_at: shop.db.fn.now() });
    await shop.db('point_checks').update({ at: new Date('2020-01-01T00:00:00Z') });
    expect(await keepForecastsUp(shop.db)).toBe(0);
    // of the pattern's other engines every point is found to close fast
    await shop
      .db('point_checks')
      .whereIn('sheet_id', shop.db('sheet_revisions').where({ id: work.build.sheet.id }).select('sheet_id'))
      .update({ per_unit: -0.01, se: 0.00001, at: new Date(Date.now() + 120_000) });
    expect(await keepForecastsUp(shop.db)).toBeGreaterThan(0);
    const sooner = await plannedOf(work);
    expect(sooner.forecast!.priors.every(({ from }) => from === 'own')).toBe(true);
    expect(sooner.byForecast).toBe(true);
    expect(sooner.dueUsage!).toBeLessThan(recheck.planUsage!);
    expect(sooner.version).toBe(recheck.version + 1);
  });
});
