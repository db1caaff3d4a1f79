import type { EngineRow } from '@zero-lash/contract/engines';
import type { Today } from '@zero-lash/contract/today';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeReminders } from '../reminders/make.ts';
import { BENCH, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

/** Set by screws, so that a change disturbs its own point and no other. */
const SCREWS = 'Edger, Pellow Mill';

let shop: TestShop;
let work: Work;
beforeAll(async () => {
  shop = await TestShop.open();
  work = await Work.on(shop, SCREWS);
  await work.reach('close');
  await work.tickAll();
  expect((await work.signOff()).status).toBe(201);
});
afterAll(() => shop.close());

const today = async () => (await shop.call<Today>(VIEWER, 'GET', 'today')).body.rechecks;
const openAgain = (body: object) =>
  shop.call<{ code: string }>(BENCH, 'POST', `engines/${work.build.engine.id}/builds`, {
    ...{ revisionId: work.build.sheet.id, complaint: 'Did not hold', ...body },
  });

describe('a recheck that did not hold', () => {
  let failed: string;
  let again: Work;

  it('is not set again before it is judged', async () => {
    const held = await work.recheck();
    expect(await openAgain({ recheckId: held })).toMatchObject({
      status: 409,
      body: { code: 'nothing_to_set' },
    });
    expect((await work.judge(held)).status).toBe(201);
    expect((await shop.build(work.build.id)).closedAt).toBeNull();
  });

  it('comes before everything that is due, on Today and among the engines', async () => {
    const before = (await today()).counts['not-held'];
    const [point] = work.points;
    failed = await work.recheck(point);
    expect((await work.judge(failed)).status).toBe(201);
    const { counts, list } = await today();
    expect(counts['not-held']).toBe(before + 1);
    expect(list.slice(0, before + 1).map(({ state }) => state)).toEqual(Array(before + 1).fill('not-held'));
    expect(list.map(({ buildId }) => buildId)).toContain(work.build.id);
    const { body } = await shop.call<{ engines: EngineRow[] }>(VIEWER, 'GET', 'engines?sort=recheck&limit=1');
    expect(body.engines[0]!.recheck!.state).toBe('not-held');
  });

  it('is told of once by letter, with what was found', async () => {
    await makeReminders(shop.db);
    await makeReminders(shop.db);
    const ofThis = await shop
      .db('reminders as m')
      .join('rechecks as r', 'r.id', 'm.recheck_id')
      .where({ 'r.build_id': work.build.id, 'm.stage': 'not-held', 'm.recipient': 'lead' })
      .select('m.subject', 'm.body');
    expect(ofThis).toMatchObject([
      {
        subject: `Tight clearances: ${work.build.engine.name}`,
        body: expect.stringMatching(new RegExp(`found ${work.points[0]} tight[^]*do not run it on`)),
      },
    ]);
  });

  it('opens a short build at Set with what was found, and the long one gives way', async () => {
    again = await work.setAgain(failed);
    expect(again.build).toMatchObject({
      stage: 'set',
      carried: { buildId: work.build.id, number: 1, sequence: 2 },
      rounds: [
        { id: failed, kind: 'as-found', carried: true, recheckId: failed },
        { kind: 'as-set', carried: false, recheckId: null, readings: [] },
      ],
    });
    expect(again.build.rounds[0]!.readings).toHaveLength(again.points.length);
    expect((await shop.build(work.build.id)).closedAt).not.toBeNull();
    expect((await today()).list.map(({ buildId }) => buildId)).not.toContain(work.build.id);
    expect((await openAgain({ recheckId: failed })).body.code).toBe('build_open');
  });

  it('takes no further reading in the round it was found in, but measures again where it is set', async () => {
    const late = await shop.call(BENCH, 'POST', `rounds/${failed}/readings`, {
      ...{
        point: again.points[1],
        asTyped: '0.2',
        reading: { kind: 'value', value: 0.2, uncertainty: 0.01 },
      },
    });
    expect(late.status).toBe(409);
    const [point] = again.points;
    await again.set(point!);
    expect((await again.measure(point!, 'tight')).status).toBe(201);
    const unset = await again.go('prove');
    expect(unset).toMatchObject({ status: 409, body: { code: 'stage_not_ready', points: [point] } });
  });

  it('is set, and proved only where that changed something, before a lead signs it off', async () => {
    const [point] = again.points;
    await again.set(point!);
    await again.measure(point!);
    await again.tickAll();
    expect((await again.go('prove')).status).toBe(200);
    await again.tickAll();
    expect(await again.go('close')).toMatchObject({ status: 409, body: { points: [point] } });
    await again.measure(point!);
    expect((await again.go('close')).status).toBe(200);
    await again.tickAll();
    expect((await again.signOff()).status).toBe(201);
    expect(again.build.rechecks).toMatchObject([{ sequence: 1, status: 'planned', state: 'coming' }]);
  });

  it('is named where the short build stands among the engine’s', async () => {
    expect(again.build.number).toBe(2);
    expect(again.build.carried?.sequence).toBe(2);
  });
});

describe('going back from Prove to Set', () => {
  it('keeps what was proved, but for the points that are touched', async () => {
    const back = await Work.on(shop, SCREWS);
    await back.reach('prove');
    await back.tickAll();
    for (const point of back.points) await back.measure(point, point === back.points[1] ? 'tight' : 'sound');
    expect((await back.go('set')).status).toBe(200);
    await back.set(back.points[1]!);
    await back.tickAll();
    expect((await back.go('prove')).status).toBe(200);
    await back.tickAll();
    expect(await back.go('close')).toMatchObject({ status: 409, body: { points: [back.points[1]] } });
    await back.measure(back.points[1]!);
    expect((await back.go('close')).status).toBe(200);
  });
});
