import { randomUUID } from 'node:crypto';
import type { EngineRow, EngineView } from '@zero-lash/contract/engines';
import type { SheetBody, SheetRevision } from '@zero-lash/contract/sheets';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { migrationSource } from '../migrations/index.ts';
import { zipRecord } from '../records/read.ts';
import { lookThrough } from '../records/unpack.ts';
import { readPdf } from './pdf.ts';
import { BENCH, LEAD, TestShop } from './shop.ts';
import { Work } from './worked.ts';

const OTHER_LEAD = 'Osk Velland';
let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const { body: KNOWN } = DEMO_SHEETS.sawSingle;
const TO_COME: SheetBody = { ...KNOWN, limits: [], limitsToCome: true };

async function publish(draft: SheetRevision): Promise<SheetRevision> {
  const { body } = await shop.call<SheetRevision>(
    OTHER_LEAD,
    'POST',
    `sheet-revisions/${draft.id}/publication`,
    {
      version: draft.version,
    },
  );
  return body;
}

async function sheetWithout(body = TO_COME): Promise<SheetRevision> {
  const name = `S1 ${randomUUID().slice(0, 8)}`;
  const { body: draft } = await shop.call<SheetRevision>(LEAD, 'POST', 'sheets', {
    maker: 'Vessany',
    name,
    body,
  });
  return publish(draft);
}

async function revised({ sheetId }: SheetRevision, body: SheetBody): Promise<SheetRevision> {
  const { body: draft } = await shop.call<SheetRevision>(LEAD, 'POST', `sheets/${sheetId}/revisions`, {
    body,
  });
  return publish(draft);
}

async function buildOn({ sheetId, id: revisionId }: SheetRevision): Promise<Work> {
  const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
    ...{ name: `Unknown ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 10 },
    sheetId,
  });
  return Work.on(shop, '', { engineId: engine.id, revisionId });
}

const goOver = (work: Work, revisionId: string) =>
  work.write('revision', { version: work.build.version, revisionId });

const read = (work: Work, point: string, value: number) => work.measure(point, value);
const standing = (work: Work, point: string) =>
  work.build.rounds.at(-1)!.readings.find((each) => each.point === point)!;

/** As far as the stage before anything is set, with every point read. */
async function readThrough(work: Work): Promise<void> {
  for (const stage of ['open-up', 'as-found', 'wear', 'head-work'] as const) {
    await work.tickAll();
    expect((await work.go(stage)).status, stage).toBe(200);
    if (stage === 'as-found') {
      await read(work, '1I', 0.05);
      await read(work, '1E', 0.3);
    }
  }
  await work.tickAll();
}

describe('an engine whose book is not here yet', () => {
  it('has a sheet that says so: one that only forgets its limits is refused', async () => {
    for (const body of [
      { ...KNOWN, limits: [] },
      { ...KNOWN, limits: KNOWN.limits.slice(0, 1) },
    ])
      expect(await shop.call(LEAD, 'POST', 'sheets', { maker: 'Vessany', name: 'S9', body })).toMatchObject({
        status: 400,
        body: { code: 'invalid', detail: expect.stringMatching(/missing for exhaust/) },
      });
    const sheet = await sheetWithout();
    expect(sheet).toMatchObject({ limits: [], limitsToCome: true, status: 'published' });
    const { body: file } = await shop.call(BENCH, 'GET', `sheet-revisions/${sheet.id}/file`);
    expect(file).toMatchObject({ limits: [], limitsToCome: true });
  });

  it('is read, and goes no further than what needs no limits', async () => {
    const work = await buildOn(await sheetWithout());
    await readThrough(work);
    expect(standing(work, '1I')).toMatchObject({ verdict: 'undecided', onLimit: false, limits: null });
    expect(await work.go('set')).toMatchObject({
      status: 409,
      body: { code: 'stage_not_ready', detail: expect.stringMatching(/no limits for 1I, 1E yet/) },
    });
    const paper = await shop.raw(LEAD, `/api/builds/${work.build.id}/measuring-sheet`);
    expect((await readPdf(paper.rawPayload)).text).toContain('limits to come');
    const { body: engine } = await shop.call<EngineView>(BENCH, 'GET', `engines/${work.build.engine.id}`);
    expect(engine.limits).toEqual([]);
    expect(engine.gaps.map(({ verdict, limits }) => [verdict, limits])).toEqual([
      ['undecided', null],
      ['undecided', null],
    ]);
  });

  it('has its valves checked as far as what is felt: nothing is set there', async () => {
    const sheet = await sheetWithout();
    const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: `Unknown ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 10 },
      sheetId: sheet.sheetId,
    });
    const work = await Work.on(shop, '', {
      ...{ engineId: engine.id, revisionId: sheet.id, job: 'valve-check' },
    });
    await work.reach('set');
    await read(work, '1I', 0.05);
    await read(work, '1E', 0.3);
    expect(await work.set('1I')).toMatchObject({
      status: 409,
      body: { detail: expect.stringMatching(/no limits for 1I yet/) },
    });
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { points: ['1I', '1E'] } });
  });

  it('goes over to the revision that has them, and what was read is judged by it, once', async () => {
    const sheet = await sheetWithout();
    const work = await buildOn(sheet);
    await readThrough(work);
    const known = await revised(sheet, KNOWN);
    const before = await shop.db('readings').where({ round_id: work.build.rounds[0]!.id }).orderBy('point');
    expect(await goOver(work, known.id)).toMatchObject({ status: 200 });
    work.build = await shop.build(work.build.id);
    expect(work.build.sheet.id).toBe(known.id);
    const [intake] = KNOWN.limits;
    expect(standing(work, '1I')).toMatchObject({
      verdict: 'tight',
      limits: { min: intake!.min, max: intake!.max },
    });
    const after = await shop.db('readings').where({ round_id: work.build.rounds[0]!.id }).orderBy('point');
    const felt = ({ id, reading, as_typed: typed, lo, hi, by, taken_at: when }: (typeof after)[number]) => ({
      ...{ id, reading, typed, lo, hi, by, when },
    });
    expect(after.map(felt)).toEqual(before.map(felt));
    expect(after.map(({ min_tenths: min }) => min)).not.toContain(null);
    // what is judged stays as it is judged
    await expect(
      shop.db('readings').where({ id: after[0]!.id }).update({ min_tenths: 1 }),
    ).rejects.toMatchObject({ code: 'ZL002' });
    const { body: engine } = await shop.call<EngineView>(BENCH, 'GET', `engines/${work.build.engine.id}`);
    expect(engine.gaps.find(({ point }) => point === '1I')).toMatchObject({ verdict: 'tight' });
    // with its limits it is set and proved as any other, and its record is whole
    expect((await work.go('set')).status).toBe(200);
    for (const point of work.points) {
      await work.set(point);
      await work.measure(point);
    }
    await work.tickAll();
    expect((await work.go('prove')).status).toBe(200);
    const zip = await zipRecord(shop.db, work.build.engine.id);
    expect(() => lookThrough(zip)).not.toThrow();
    expect(await goOver(work, known.id)).toMatchObject({ status: 409, body: { code: 'revision_stays' } });
  });

  it('goes over to no draft, no older or other sheet, none with other points; and not on what somebody changed since', async () => {
    const sheet = await sheetWithout();
    const work = await buildOn(sheet);
    const other = await sheetWithout(KNOWN);
    expect(await goOver(work, other.id)).toMatchObject({ status: 409, body: { code: 'revision_stays' } });
    expect(await goOver(work, sheet.id)).toMatchObject({ status: 409, body: { code: 'revision_stays' } });
    const { body: draft } = await shop.call<SheetRevision>(
      LEAD,
      'POST',
      `sheets/${sheet.sheetId}/revisions`,
      {
        body: KNOWN,
      },
    );
    expect(await goOver(work, draft.id)).toMatchObject({
      status: 409,
      body: { code: 'sheet_not_published' },
    });
    await publish(draft);
    expect(
      await work.write('revision', { version: work.build.version + 1, revisionId: draft.id }),
    ).toMatchObject({ status: 409, body: { code: 'stale' } });
    const four = await revised(sheet, {
      ...KNOWN,
      pattern: { ...KNOWN.pattern, valves: { intake: 2, exhaust: 1 } },
    });
    expect(await goOver(work, four.id)).toMatchObject({
      status: 409,
      body: { detail: expect.stringMatching(/other lash points/) },
    });
    // two at once: one of them goes over, and the other is told
    const answers = await Promise.all(
      [0, 1].map(() =>
        shop.call(BENCH, 'POST', `builds/${work.build.id}/revision`, {
          ...{ version: work.build.version, revisionId: draft.id },
        }),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  it('is kept where the schema is taken back, and is there again', async () => {
    const other = await TestShop.open();
    const { body: draft } = await other.call<SheetRevision>(LEAD, 'POST', 'sheets', {
      ...{ maker: 'Vessany', name: 'S8', body: TO_COME },
    });
    const isDone = async () => (await other.db('knex_migrations').pluck('name')).includes('107-limitsToCome');
    while (await isDone()) await other.db.migrate.down({ migrationSource });
    const rows = await other.db('sheet_limits').where({ revision_id: draft.id }).orderBy('role');
    expect(rows.map(({ role, as_written: words }) => [role, words])).toEqual([
      ['exhaust', 'limits to come'],
      ['intake', 'limits to come'],
    ]);
    await other.db.migrate.latest({ migrationSource });
    expect(await isDone()).toBe(true);
    await other.close();
  });
});
