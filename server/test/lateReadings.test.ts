import type { BuildHead, BuildWrite } from '@zero-lash/contract/builds';
import type { Today } from '@zero-lash/contract/today';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeReminders } from '../reminders/make.ts';
import { readOwnerSheet } from '../signoff/ownerSheet.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { bandOf, Work } from './worked.ts';

/** Set by screws, so that a change disturbs its own point and no other. */
const SCREWS = 'Edger, Pellow Mill';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const ROOM_MS = 20;
const nowAt = async () => (await shop.db.raw('select clock_timestamp() as now')).rows[0].now as Date;
/** A moment by the database's clock, with room before it for what was and after the one before for what comes between. */
async function nextMoment(): Promise<Date> {
  const before = (await nowAt()).getTime();
  let now = await nowAt();
  while (now.getTime() < before + ROOM_MS) now = await nowAt();
  return now;
}

/** A build at Close, or signed off, with the moments at which it was proved and could still be measured. */
async function proved(signed: boolean) {
  const work = await Work.on(shop, SCREWS);
  await work.reach('prove');
  await work.tickAll();
  for (const point of work.points) await work.measure(point);
  const then = (await nextMoment()).toISOString();
  await nextMoment();
  await work.go('close');
  await work.tickAll();
  if (signed) expect((await work.signOff()).status).toBe(201);
  return { work, then };
}

/** A reading of the proving round that a tablet kept until now. */
const late = (work: Work, then: string | null, value: number, point = work.points[0]!) => {
  const round = work.build.rounds.findLast(({ kind }) => kind === 'proved')!;
  return shop.call<BuildWrite & { code: string }>(BENCH, 'POST', `rounds/${round.id}/readings`, {
    ...{ point, reading: { kind: 'value', value, uncertainty: 0.005 }, asTyped: `${value}`, takenAt: then },
  });
};
const headOf = async (work: Work) =>
  (await shop.call<{ rows: BuildHead }>(VIEWER, 'GET', `builds/${work.build.id}`)).body.rows;
const onToday = async (work: Work) =>
  (await shop.call<Today>(VIEWER, 'GET', 'today')).body.rechecks.list.find(
    ({ buildId }) => buildId === work.build.id,
  );
const planned = async (work: Work) =>
  (await shop.build(work.build.id)).rechecks.find(({ status }) => status === 'planned')!;
const TIGHT = 0.02;

describe('what was measured at proving and comes in late', () => {
  it('stands against signing, where the build has gone on to Close', async () => {
    const { work, then } = await proved(false);
    expect((await late(work, then, TIGHT)).status).toBe(201);
    work.build = await shop.build(work.build.id);
    const refused = await work.signOff();
    expect(refused.body.code).toBe('not_provable');
    // what was measured after it had gone on is measured at the wrong place
    expect((await late(work, null, 0.3)).body.code).toBe('wrong_stage');
  });

  it('stands beside the signature, and says do not run it on Today and to its owner', async () => {
    const { work, then } = await proved(true);
    await shop.db('engines').where({ id: work.build.engine.id }).update({ owner: 'Orrel of the valley' });
    await shop
      .db('owners')
      .where({ name: 'Orrel of the valley' })
      .update({ email: 'orrel@valley.example', tells: 'mail' });
    const before = await headOf(work);
    expect(before.late).toEqual([]);
    const answer = await late(work, then, TIGHT);
    expect(answer.status).toBe(201);
    expect(answer.body.changes.map(({ kind }) => kind)).toEqual(['reading', 'head', 'recheck']);
    const { signOff, late: came } = await headOf(work);
    expect(signOff).toEqual(before.signOff);
    expect(came).toMatchObject([{ what: 'reading', point: work.points[0], by: BENCH, said: '0.02, tight' }]);
    expect(await onToday(work)).toMatchObject({ state: 'not-held', late: true });
    await makeReminders(shop.db);
    await makeReminders(shop.db);
    const letters = await shop.db('reminders').where({ address: 'orrel@valley.example' });
    expect(letters).toHaveLength(1);
    expect(letters[0]!.subject).toContain('Tight clearances');
    expect(letters[0]!.body).toContain('reached us only after it was signed off');
    expect(letters[0]!.body).toContain('please do not run it on');
    expect((await readOwnerSheet(shop.db, work.build.id)).cautions[0]).toContain('Do not run it on');

    // one that was taken later still, and came later still, puts it right
    const better = new Date(Date.parse(then) + 5).toISOString();
    const band = bandOf(work.build.sheet, work.build.sheet.limits[0]!.role);
    expect((await late(work, better, (band.min + band.max) / 2)).status).toBe(201);
    expect(await onToday(work)).toMatchObject({ late: false });
    expect((await planned(work)).late).toBe(false);
    expect((await headOf(work)).late).toHaveLength(2);
  });

  it('is set again as what a recheck found is, or left as it is by a lead with a reason', async () => {
    const { work, then } = await proved(true);
    await late(work, then, TIGHT);
    await makeReminders(shop.db);
    const { id, version } = await planned(work);
    const leave = (who: string, why: string, at = version) =>
      shop.call<{ code: string }>(who, 'POST', `rechecks/${id}/late-left`, { why, version: at });
    const drop = await shop.call<{ code: string }>(LEAD, 'POST', `rechecks/${id}/move`, {
      ...{ kind: 'dropped', day: null, why: 'not wanted', version },
    });
    expect(drop.body.code).toBe('recheck_move');
    expect((await leave(BENCH, 'mine')).status).toBe(403);
    expect((await leave(LEAD, ' ')).status).toBe(400);
    expect((await leave(LEAD, 'of another engine', version - 1)).body.code).toBe('stale');
    expect((await leave(LEAD, 'typed for another engine')).status).toBe(201);
    expect((await leave(LEAD, 'once more')).body.code).toBe('stale');
    expect(await onToday(work)).toMatchObject({ late: false });
    expect((await planned(work)).changes[0]).toMatchObject({
      kind: 'let-stand',
      why: 'typed for another engine',
    });
    // another that comes in asks again
    const later = new Date(Date.parse(then) + 5).toISOString();
    await late(work, later, TIGHT, work.points[1]);
    expect((await planned(work)).late).toBe(true);
    // and is told by a letter of its own, though one was told before
    await makeReminders(shop.db);
    const abouts = (await shop.db('reminders').where({ recheck_id: id }).distinct('about')) as {
      about: string;
    }[];
    expect(new Set(abouts.map(({ about }) => about))).toEqual(
      new Set([`late ${work.points[0]}`, `late ${work.points.slice(0, 2).toSorted().join(', ')}`]),
    );
    const again = await shop.call<BuildWrite>(BENCH, 'POST', `engines/${work.build.engine.id}/builds`, {
      ...{ revisionId: work.build.sheet.id, complaint: 'Came in late', recheckId: id },
    });
    expect(again.status).toBe(201);
    const build = await shop.build(again.body.build);
    expect(build).toMatchObject({ stage: 'set' });
    expect(build.rounds[0]!.readings.filter(({ verdict }) => verdict === 'tight')).toHaveLength(2);
  });

  it('says nothing where it was taken before the one that stands, or the next look has begun', async () => {
    const { work, then } = await proved(true);
    // the proof that stands was taken after it
    const early = new Date(Date.parse(then) - 5000).toISOString();
    const stale = await late(work, early, TIGHT);
    expect(stale.body.changes[0]).toMatchObject({ kind: 'reading', row: { superseded: true } });
    expect(await onToday(work)).toMatchObject({ late: false });
    work.build = await shop.build(work.build.id);
    await work.recheck();
    expect((await late(work, then, TIGHT)).status).toBe(201);
    expect((await planned(work)).late).toBe(false);
    // it is beside the signature all the same
    expect((await headOf(work)).late.length).toBeGreaterThan(0);
  });

  it('may be a setting, or a count of parts', async () => {
    const { work, then } = await proved(true);
    const point = work.points[0]!;
    const set = (takenAt: string | null) =>
      shop.call<{ code: string }>(BENCH, 'POST', `builds/${work.build.id}/settings`, {
        ...{ point, kind: 'turned', degrees: 30, takenAt },
      });
    const count = (takenAt: string | null) =>
      shop.call<{ code: string }>(BENCH, 'POST', `builds/${work.build.id}/ledger`, {
        takenAt,
        lines: [
          {
            ...{ key: randomUUID(), group: 'gear', name: 'Rocker', place: '1I', expected: 1, out: 1 },
            ...{ in: 0, note: '', dropped: false },
          },
        ],
      });
    expect((await set(null)).body.code).toBe('wrong_stage');
    expect((await count(null)).body.code).toBe('wrong_stage');
    // set before it was proved: the proof is of after it
    const moves = (await shop
      .db('stage_moves')
      .where({ build_id: work.build.id, from_stage: 'set' })
      .first('at'))!;
    expect((await set(new Date(moves.at.getTime() - 1).toISOString())).status).toBe(201);
    expect((await planned(work)).late).toBe(false);
    // a rocker that went out and did not come back
    expect((await count(then)).status).toBe(201);
    expect((await planned(work)).late).toBe(true);
    const came = (await headOf(work)).late;
    expect(came.map(({ what }) => what).toSorted()).toEqual(['ledger', 'setting']);
    // in words, as the page and the owner's sheet say it, and not by the name of its kind
    expect(came.find(({ what }) => what === 'setting')!.said).toBe('loosened 30°');
  });
});
