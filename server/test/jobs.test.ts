import { randomUUID } from 'node:crypto';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { RecordFile } from '@zero-lash/contract/records';
import type { EngineRow, EngineView } from '@zero-lash/contract/engines';
import { checkKey, jobOf, JOBS, stageOf, type JobKey } from '@zero-lash/core/builds';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrationSource } from '../migrations/index.ts';
import { zipRecord } from '../records/read.ts';
import { lookThrough } from '../records/unpack.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
let revisionId: string;
let sheetId: string;
beforeAll(async () => {
  shop = await TestShop.open();
  const { sheet } = await shop.buildOf('Edger, Pellow Mill');
  revisionId = sheet.id;
  ({ sheetId } = sheet);
});
afterAll(() => shop.close());

async function engine(): Promise<string> {
  const { body } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
    ...{ name: `Job ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 10, sheetId },
  });
  return body.id;
}

const opened = async (job: JobKey): Promise<Work> =>
  Work.on(shop, '', { engineId: await engine(), revisionId, job });
const enlarge = (work: Work, job: string) => work.write('job', { version: work.build.version, job });

describe('a build', () => {
  it.each(JOBS.filter(({ opened: by }) => by === 'by-hand').map(({ key }) => key))(
    'that is a %s goes through the stages of that and no others, to its signature',
    async (job) => {
      const work = await opened(job);
      const { stages } = jobOf(job);
      const been = [work.build.stage];
      while (work.build.stage !== stages.at(-2)) {
        await work.reach(stages[stages.indexOf(work.build.stage) + 1]!);
        been.push(work.build.stage);
        // where nothing was found each point is measured as it is set
        if (stageOf(work.build.stage).sets)
          for (const point of work.points) {
            await work.set(point);
            await work.measure(point);
          }
      }
      await work.tickAll();
      expect(await work.signOff()).toMatchObject({ status: 201 });
      expect(been).toEqual(stages.slice(0, -1));
      const { body } = await shop.call<EngineView>(VIEWER, 'GET', `engines/${work.build.engine.id}`);
      expect(body.builds).toMatchObject([{ job, stage: stages.at(-1) }]);
    },
  );

  it('skips no stage of its job, goes to none that it has not, and asks only for what is ticked there', async () => {
    const work = await opened('valve-check');
    expect(await work.go('open-up')).toMatchObject({ status: 409, body: { code: 'stage_not_ready' } });
    await work.tick('take-in', 'cold');
    await work.tick('take-in', 'isolated');
    expect((await work.go('open-up')).status).toBe(200);
    expect(await work.go('as-found')).toMatchObject({ status: 409, body: { code: 'stage_skipped' } });
    await work.reach('set');
    expect(work.build.rounds.map(({ kind }) => kind)).toEqual(['as-found', 'as-set']);
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { points: work.points } });
    expect((await work.go('open-up')).status).toBe(200);
    expect((await work.go('set')).status).toBe(200);
    // how it was found is measured once, however often it is gone back
    expect(work.build.rounds.filter(({ kind }) => kind === 'as-found')).toHaveLength(1);
  });

  it('in which the valves are checked proves what it touched, and nothing else', async () => {
    const work = await opened('valve-check');
    await work.reach('set');
    const [touched, ...others] = work.points;
    for (const point of others) await work.measure(point);
    await work.measure(touched!, 'tight');
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { points: [touched] } });
    await work.set(touched!);
    await work.measure(touched!);
    const readIn = (kind: string) =>
      work.build.rounds
        .findLast((round) => round.kind === kind)!
        .readings.map(({ point, verdict }) => `${point} ${verdict}`);
    // what was found and what was left are both on the record
    expect(readIn('as-found')).toContain(`${touched} tight`);
    expect(readIn('as-found')).toHaveLength(work.points.length);
    expect(readIn('as-set')).toEqual([`${touched} in-spec`]);
    expect((await work.go('prove')).status).toBe(200);
    await work.tickAll();
    const refused = await work.go('close');
    expect(refused).toMatchObject({ status: 409, body: { points: [touched] } });
    await work.measure(touched!);
    expect((await work.go('close')).status).toBe(200);
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    // what was never touched stands by what it was found at
    const paper = await shop.raw(LEAD, `/api/builds/${work.build.id}/owner-sheet`);
    expect(paper.statusCode).toBe(200);
    expect(work.build.rechecks.filter(({ status }) => status === 'planned')).toHaveLength(1);
  });

  it('in which nothing was out goes past proving in one step, and is proved by what was found', async () => {
    const work = await opened('valve-check');
    await work.reach('set');
    for (const point of work.points) await work.measure(point);
    expect((await work.go('close')).status).toBe(200);
    expect(work.build.stage).toBe('close');
    const rounds = work.build.rounds.filter(({ kind }) => kind !== 'proved');
    // what is measured there has ended, as if somebody had stood there
    expect(rounds.every(({ closedAt }) => closedAt !== null)).toBe(true);
    await expect(
      shop.db('stage_moves').where({ build_id: work.build.id }).orderBy('at').pluck('to_stage'),
    ).resolves.toEqual(expect.arrayContaining(['prove', 'close']));
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    const skipped = await opened('rebuild');
    await skipped.reach('set');
    expect(await skipped.go('close')).toMatchObject({ status: 409, body: { code: 'stage_skipped' } });
  });

  it('keeps a reading of how it was set apart from how it was found, though its device did not know of the turn', async () => {
    const work = await opened('valve-check');
    await work.reach('set');
    const [point] = work.points;
    const [found, set] = work.build.rounds;
    await work.measure(point!, 'tight');
    const felt = new Date().toISOString();
    await work.set(point!);
    // another tablet, which has not heard of it, reads the point as found: the turn came before
    const body = {
      ...{ point, asTyped: '0.2', reading: { kind: 'value', value: 0.2, uncertainty: 0.001 } },
      crankAngle: null,
    };
    const late = await shop.call<BuildWrite>(BENCH, 'POST', `rounds/${found!.id}/readings`, body);
    expect(late.body.changes[0]).toMatchObject({ kind: 'reading', row: { roundId: set!.id } });
    // and what it read before the turn is how it was found
    const early = await shop.call<BuildWrite>(BENCH, 'POST', `rounds/${found!.id}/readings`, {
      ...body,
      takenAt: felt,
    });
    expect(early.body.changes[0]).toMatchObject({ kind: 'reading', row: { roundId: found!.id } });
    // so is what a paper says of before, whichever round it was typed into
    const paper = await shop.call<BuildWrite>(BENCH, 'POST', `rounds/${set!.id}/readings`, {
      ...body,
      takenAt: felt,
    });
    expect(paper.body.changes[0]).toMatchObject({ kind: 'reading', row: { roundId: found!.id } });
  });

  it('that is a first check has the head tightened again where its sheet asks for it, and every gap read after it', async () => {
    const { sheet } = await shop.buildOf('Emergency set, Overmere Infirmary');
    expect(sheet.runIn.retorque).toBe(true);
    const { body: made } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: `Job ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 10 },
      sheetId: sheet.sheetId,
    });
    const on = (job: JobKey) => Work.on(shop, '', { engineId: made.id, revisionId: sheet.id, job });
    const work = await on('first-check');
    await work.reach('set');
    for (const point of work.points) await work.measure(point);
    const refused = await work.go('prove');
    expect(refused).toMatchObject({
      status: 409,
      body: { detail: expect.stringMatching(/head A and B tightened again/) },
    });
    for (const bank of ['A', 'B']) await work.tick('set', `head-${bank}`);
    // what was felt before says nothing of how it is now
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { points: work.points } });
    for (const point of work.points) await work.measure(point);
    expect(work.build.rounds.map(({ kind, readings }) => [kind, readings.length])).toEqual([
      ['as-found', work.points.length],
      ['as-set', work.points.length],
    ]);
    expect((await work.go('prove')).status).toBe(200);
    // it ran in long ago: no heat cycles are asked for
    expect(await work.go('close')).toMatchObject({ status: 409, body: { points: work.points } });
    await work.tickAll();
    for (const point of work.points) await work.measure(point);
    expect((await work.go('close')).status).toBe(200);
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
  });

  it('passes over what cannot be reached: said with why, let stand by a lead, and no recheck waits for it', async () => {
    const work = await opened('valve-check');
    await work.reach('set');
    const [hidden, apart, ...others] = work.points;
    for (const point of others) await work.measure(point);
    const why = { kind: 'left', note: 'behind the manifold' };
    expect(await work.set(hidden!, { kind: 'turned', degrees: 10, cause: 'unreached' })).toMatchObject({
      status: 400,
    });
    expect(await work.set(hidden!, { ...why, cause: 'unreached', note: ' ' })).toMatchObject({ status: 400 });
    expect((await work.set(hidden!, { ...why, cause: 'unreached' })).status).toBe(201);
    expect((await work.set(apart!, { ...why, cause: 'apart', note: 'its rocker is in a box' })).status).toBe(
      201,
    );
    expect((await work.go('prove')).status).toBe(200);
    await work.tickAll();
    // what came apart is proved as any other; what cannot be reached waits for a lead
    const refused = await work.go('close');
    expect(refused.body).toMatchObject({
      points: [apart, hidden],
      detail: expect.stringMatching(/not to be reached/),
    });
    await work.measure(apart!);
    expect(await work.tick('prove', checkKey('accepted', hidden!))).toMatchObject({ status: 403 });
    expect((await work.tick('prove', checkKey('accepted', hidden!), { who: LEAD })).status).toBe(200);
    expect((await work.go('close')).status).toBe(200);
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    expect(work.build.signOff!.accepted).toEqual([hidden]);
    expect((await shop.raw(LEAD, `/api/builds/${work.build.id}/owner-sheet`)).statusCode).toBe(200);
    // at the recheck nobody waits for it, and nothing is said to be unreachable there
    const { id } = work.build.rechecks.find(({ status }) => status === 'planned')!;
    await shop.call(BENCH, 'POST', `rechecks/${id}/round`, {});
    work.build = await shop.build(work.build.id);
    expect(await work.set(apart!, { ...why, cause: 'unreached' })).toMatchObject({ status: 409 });
    for (const point of [apart!, ...others]) await work.measure(point);
    expect((await work.judge(id)).status).toBe(201);
  });

  it('is opened with a reason where its job wants one, and as the whole of it where none is named', async () => {
    const open = async (body: object) =>
      shop.call<{ changes: { row: { job: string; stage: string } }[] }>(
        BENCH,
        'POST',
        `engines/${await engine()}/builds`,
        { revisionId, ...body },
      );
    expect(await open({ job: 'rebuild', complaint: ' ' })).toMatchObject({
      status: 400,
      body: { detail: expect.stringMatching(/complaint: say in a line/) },
    });
    expect(await open({ job: 'paint', complaint: 'x' })).toMatchObject({ status: 400 });
    expect(await open({ job: 'set-again', complaint: 'x' })).toMatchObject({
      status: 400,
      body: { detail: expect.stringMatching(/job: an engine is set again/) },
    });
    const said = await opened('valve-check');
    const change = { version: said.build.version, aim: 'middle', complaint: '' };
    expect(await shop.call(BENCH, 'PATCH', `builds/${said.build.id}`, change)).toMatchObject({
      status: 400,
      body: { detail: expect.stringMatching(/is not unsaid/) },
    });
    const silent = await open({ job: 'valve-check', complaint: '' });
    expect(silent.body.changes[0]!.row).toMatchObject({ job: 'valve-check', stage: 'take-in' });
    const unnamed = await open({ complaint: 'burnt valve' });
    expect(unnamed.body.changes[0]!.row).toMatchObject({ job: 'rebuild', stage: 'take-in' });
  });

  it('becomes a larger job, never a smaller one, and keeps what was measured', async () => {
    const work = await opened('valve-check');
    await work.reach('set');
    for (const point of work.points) await work.measure(point);
    const found = work.build.rounds.find(({ kind }) => kind === 'as-found')!.readings;
    expect(await enlarge(work, 'first-check')).toMatchObject({ status: 409, body: { code: 'job_smaller' } });
    const stale = await work.write('job', { version: work.build.version - 1, job: 'rebuild' });
    expect(stale).toMatchObject({ status: 409, body: { code: 'stale' } });
    expect(await enlarge(work, 'rebuild')).toMatchObject({ status: 200 });
    // what was not felt yet is felt before anything is undone
    expect(work.build).toMatchObject({ job: 'rebuild', stage: 'as-found' });
    expect(await enlarge(work, 'valve-check')).toMatchObject({ status: 409 });
    // what it takes more is gone back to, and on from there
    expect((await work.go('wear')).status).toBe(200);
    expect(work.build.rounds.find(({ kind }) => kind === 'as-found')!.readings).toEqual(found);
    await work.reach('prove');
    // two at once: one makes it larger, and the other sees that it is
    const both = await opened('valve-check');
    const { id, version } = both.build;
    const answers = await Promise.all(
      [0, 1].map(() => shop.call(BENCH, 'POST', `builds/${id}/job`, { version, job: 'rebuild' })),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  it('that is signed stays what it was', async () => {
    const work = await opened('valve-check');
    await work.reach('close');
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    expect(await enlarge(work, 'rebuild')).toMatchObject({
      status: 409,
      body: { code: 'already_signed_off' },
    });
    const id = await work.recheck(work.points[0]);
    await work.judge(id);
    const again = await work.setAgain(id);
    expect(again.build).toMatchObject({ job: 'set-again', stage: 'set' });
    expect(await again.go('as-found')).toMatchObject({ status: 409, body: { code: 'stage_skipped' } });
  });

  it('is set again after a recheck that held, too: what that found proves what is left alone', async () => {
    const work = await opened('rebuild');
    await work.reach('close');
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    const held = await work.recheck();
    expect((await work.judge(held)).status).toBe(201);
    const again = await work.setAgain(held);
    expect(again.build).toMatchObject({ job: 'set-again', stage: 'set', carried: { sequence: 1 } });
    const [turned] = again.points;
    await again.set(turned!);
    await again.measure(turned!);
    expect((await again.go('prove')).status).toBe(200);
    await again.tickAll();
    expect(await again.go('close')).toMatchObject({ status: 409, body: { points: [turned] } });
    // the long build gave way, and its recheck is not set again twice
    expect(
      await shop.call(BENCH, 'POST', `engines/${work.build.engine.id}/builds`, {
        ...{ revisionId, complaint: 'twice', recheckId: held },
      }),
    ).toMatchObject({ status: 409 });
  });

  it('goes out with its job and comes in with it; a record of before has the whole of it, or what sets it again', async () => {
    const work = await opened('valve-check');
    const files = unzipSync(await zipRecord(shop.db, work.build.engine.id));
    const record = JSON.parse(strFromU8(files['record.json']!)) as RecordFile;
    expect(record).toMatchObject({ formatVersion: 2, tables: { builds: [{ job: 'valve-check' }] } });
    const read = (change: (row: Record<string, unknown>) => void, formatVersion = 1) => {
      const changed = structuredClone({ ...record, formatVersion });
      change(changed.tables.builds[0] as Record<string, unknown>);
      return lookThrough(zipSync({ ...files, 'record.json': strToU8(JSON.stringify(changed)) }));
    };
    const job = (looked: ReturnType<typeof lookThrough>) => looked.rows.builds[0]!.job;
    expect(job(read(() => undefined, 2))).toBe('valve-check');
    expect(job(read((row) => delete row.job))).toBe('rebuild');
    expect(() => read((row) => (row.job = 'paint'), 2)).toThrow(/paint is no job/);
  });

  it('that was open as jobs came stays the whole of it, and one that sets a recheck again that', async () => {
    const other = await TestShop.open();
    const isDone = async () => (await other.db('knex_migrations').pluck('name')).includes('110-jobs');
    const { body: one } = await other.call<EngineRow>(LEAD, 'POST', 'engines', {
      ...{ name: 'Silent', serial: '', owner: '', duty: '', usage: 1, sheetId },
    });
    await other.call(LEAD, 'POST', `engines/${one.id}/builds`, {
      revisionId,
      job: 'valve-check',
      complaint: '',
    });
    while (await isDone()) await other.db.migrate.down({ migrationSource });
    const silent = await other.db('builds').where({ engine_id: one.id }).first('complaint');
    expect(silent!.complaint).toBe('valve check');
    await other.db.migrate.latest({ migrationSource });
    const jobs = await other.db('builds').select('job', 'carried_round');
    for (const { job, carried_round: carried } of jobs)
      expect(job).toBe(carried === null ? 'rebuild' : 'set-again');
    await other.close();
  });
});
