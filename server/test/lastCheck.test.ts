import { randomUUID } from 'node:crypto';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { EngineRow, EngineView, NewLastCheck } from '@zero-lash/contract/engines';
import { addDays } from '@zero-lash/core/rechecks';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { lashPoints } from '@zero-lash/core/sheets';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { shopDay } from '../clock.ts';
import { migrationSource } from '../migrations/index.ts';
import { zipRecord } from '../records/read.ts';
import { lookThrough } from '../records/unpack.ts';
import { meterless } from './meterless.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
let sheetId: string;
let today: string;
beforeAll(async () => {
  shop = await TestShop.open();
  today = await shopDay(shop.db);
  ({ sheetId } = (await shop.buildOf('Frost fan 9, River Terrace')).sheet);
});
afterAll(() => shop.close());

async function engine(usage = 500): Promise<string> {
  const { body } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
    ...{ name: `In service ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage, sheetId },
  });
  return body.id;
}
const say = (id: string, check: Partial<NewLastCheck> = {}, who = BENCH) =>
  shop.call<BuildWrite & { code: string }>(who, 'POST', `engines/${id}/last-check`, {
    ...{ on: addDays(today, -30), usage: 400, by: 'The owner’s own fitter', ...check },
  });
const view = async (id: string) => (await shop.call<EngineView>(VIEWER, 'GET', `engines/${id}`)).body;
const gap = (point: string, go: number, noGo: number) => ({
  ...{ point, reading: { kind: 'bracket' as const, go, noGo }, asTyped: `${go} ${noGo}` },
});

describe('an engine in service', () => {
  it('is due by its plan’s last step from when it was last checked, in every list, without a build that is worked on', async () => {
    const id = await engine();
    expect((await view(id)).recheck).toBeNull();
    const { status, body } = await say(id);
    expect({ status, body }).toMatchObject({ status: 201 });
    const steps = (await view(id)).plan!.steps;
    const last = steps.at(-1)!;
    expect(steps.length).toBeGreaterThan(1);
    const { recheck, stage, usages, builds } = await view(id);
    expect(stage).toBe('run-in');
    expect(builds).toMatchObject([{ job: 'in-service', signedOffAt: null }]);
    // from 400, where it was checked, and not from the 500 that it shows today
    expect(recheck).toMatchObject({
      dueUsage: 400 + last.afterUsage!,
    });
    expect(usages.map(({ usage }) => usage)).toContain(400);
    const build = await shop.build(body.build);
    expect(build.lastChecked).toEqual({ on: addDays(today, -30), usage: 400, by: 'The owner’s own fitter' });
    const listed = await shop.call<{ rows?: unknown[] }>(VIEWER, 'GET', 'rechecks');
    expect(JSON.stringify(listed.body)).toContain(id);
  });

  it('keeps what gaps are known as the check that they were, and forecasts by them', async () => {
    const id = await engine();
    const fine = await shop.buildOf('Frost fan 9, River Terrace');
    const limit = fine.sheet.limits.find(({ role }) => role === 'intake')!;
    const middle = (limit.min! + limit.max!) / 2;
    const known = [gap('1I', middle - 0.01, middle + 0.01), gap('2I', limit.min! - 0.05, limit.min! - 0.04)];
    const { body, status } = await say(id, { gaps: known });
    expect({ body, status }).toMatchObject({ status: 201 });
    const build = await shop.build(body.build);
    const round = build.rounds.find(({ kind }) => kind === 'recheck')!;
    expect(round.closedAt).not.toBeNull();
    expect(round.readings.map(({ point, verdict }) => [point, verdict])).toEqual([
      ['1I', 'in-spec'],
      ['2I', 'tight'],
    ]);
    expect(build.rechecks.map(({ sequence, status, outcome }) => [sequence, status, outcome])).toEqual([
      [2, 'planned', null],
      [1, 'done', 'out'],
    ]);
    // every point is forecast from its own gap, where there is one
    const { gaps } = await view(id);
    expect(gaps.map(({ point, usage }) => [point, usage])).toEqual([
      ['1I', 400],
      ['2I', 400],
    ]);
    // and its next recheck is measured as any other
    const next = build.rechecks.find(({ status }) => status === 'planned')!;
    const opened = await shop.call(BENCH, 'POST', `rechecks/${next.id}/round`, {});
    expect(opened.status).toBe(201);
  });

  it('gives way to a build that is opened, goes with the record, and stands under what is signed', async () => {
    const id = await engine();
    await say(id, { gaps: [] });
    const packed = lookThrough(await zipRecord(shop.db, id));
    expect(packed.rows.builds).toMatchObject([
      { job: 'in-service', last_checked_by: 'The owner’s own fitter', last_checked_usage: 400 },
    ]);
    // said again, better: the newer word stands
    expect((await say(id, { usage: 410, by: 'Tobin Hask' })).status).toBe(201);
    const { builds, recheck } = await view(id);
    expect(builds).toHaveLength(2);
    expect(builds[1]!.closedAt).not.toBeNull();
    expect(recheck?.dueUsage === null || recheck!.dueUsage! > 410).toBe(true);
    const { revisionId } = await shop.build(builds[0]!.id);
    const work = await Work.on(shop, '', { engineId: id, revisionId, job: 'valve-check' });
    expect(work.build.number).toBe(3);
    expect((await say(id)).body.code).toBe('build_open');
  });

  it('is taken back as a build that runs, with what was said in a note', async () => {
    const other = await TestShop.open();
    const { body: made } = await other.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: 'Taken back', serial: '', owner: '', duty: '', usage: 500, sheetId },
    });
    const { body } = await other.call<BuildWrite>(BENCH, 'POST', `engines/${made.id}/last-check`, {
      ...{ on: addDays(today, -30), usage: 400, by: 'Old fitter' },
    });
    const isDone = async () => (await other.db('knex_migrations').pluck('name')).includes('112-lastChecked');
    while (await isDone()) await other.db.migrate.down({ migrationSource });
    const [build] = await other.db('builds').where({ id: body.build }).select('job', 'stage');
    expect(build).toEqual({ job: 'rebuild', stage: 'run-in' });
    const [note] = await other.db('stage_notes').where({ build_id: body.build }).pluck('text');
    expect(note).toMatch(/^Last checked on .* at 400\.0 by Old fitter$/);
    await other.db.migrate.latest({ migrationSource });
    expect((await other.build(body.build)).lastChecked).toBeNull();
    await other.close();
  });

  it('without a meter is looked at by the calendar, from the day it was checked', async () => {
    const sheet = await meterless(shop, 'S1 Siren');
    const step = { afterUsage: null, afterCycles: null, before: null, until: null, afterDays: 90 };
    const { body: draft } = await shop.call<SheetRevision>(LEAD, 'POST', 'sheets', sheet([step]));
    await shop.call('Osk Velland', 'POST', `sheet-revisions/${draft.id}/publication`, { version: 1 });
    const { body: made } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: 'Siren', serial: '', owner: '', duty: '', usage: 0, sheetId: draft.sheetId },
    });
    expect(await say(made.id, { usage: 0 })).toMatchObject({ status: 201 });
    expect((await view(made.id)).recheck).toMatchObject({ dueUsage: null, dueDate: addDays(today, 60) });
  });

  it('refuses a day to come, a figure it cannot have shown then, a stranger’s point, and a viewer', async () => {
    const id = await engine();
    expect((await say(id, { on: addDays(today, 2) })).status).toBe(409);
    expect((await say(id, { usage: 600 })).status).toBeGreaterThanOrEqual(400);
    expect((await say(id, { by: ' ' })).status).toBe(400);
    expect((await say(id, { gaps: [gap('9Ix', 0.1, 0.2)] })).body.code).toBe('unknown_point');
    expect((await say(id, {}, VIEWER)).status).toBe(403);
    // and nothing of what was refused is there
    expect(await view(id)).toMatchObject({ builds: [], recheck: null, usage: 500 });
    expect(
      (
        await shop.call(BENCH, 'POST', `engines/${id}/builds`, {
          ...{
            revisionId: (await shop.buildOf('Frost fan 9, River Terrace')).sheet.id,
            complaint: '',
            job: 'in-service',
          },
        })
      ).status,
    ).toBe(400);
    expect((await say(id, {}, LEAD)).status).toBe(201);
  });
});

describe('a point that cannot be reached at a recheck', () => {
  it('is not waited for, with why and who, and the next recheck comes sooner', async () => {
    const id = await engine();
    const { body } = await say(id);
    const { plan } = await view(id);
    const build = await shop.build(body.build);
    const { id: recheck } = build.rechecks.find(({ status }) => status === 'planned')!;
    await shop.call(BENCH, 'POST', `rechecks/${recheck}/round`, {});
    const [hidden, ...rest] = lashPoints(build.sheet.pattern).map(({ key }) => key);
    const read = (point: string, asTyped: string, reading: object, reason = '') =>
      shop.call(BENCH, 'POST', `rounds/${recheck}/readings`, { point, asTyped, reading, reason });
    for (const point of rest) {
      const limit = build.sheet.limits.find(({ role }) => point.includes(role === 'intake' ? 'I' : 'E'))!;
      const middle = (limit.min! + limit.max!) / 2;
      await read(point, String(middle), { kind: 'value', value: middle, uncertainty: 0.001 });
    }
    const close = () => shop.call(BENCH, 'POST', `rechecks/${recheck}/outcome`, {});
    expect((await close()).status).toBe(409);
    const none = { kind: 'tries', tries: [], repeatability: 0.01 };
    // struck out it is still to be measured; without a reason nothing is passed over
    await read(hidden!, 'struck out', none, 'a slip');
    expect((await close()).status).toBe(409);
    expect((await read(hidden!, 'cannot be reached', none)).status).toBe(400);
    expect((await read(hidden!, 'cannot be reached', none, 'the exhaust is hot')).status).toBe(201);
    expect((await close()).status).toBe(201);
    const { recheck: next, running } = await view(id);
    const last = plan!.steps.at(-1)!.afterUsage!;
    expect(next!.dueUsage).toBe(running + last / 2);
  });
});
