import type { EngineList, EngineRow, EngineView } from '@zero-lash/contract/engines';
import type { Today } from '@zero-lash/contract/today';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

const SCREWS = 'Edger, Pellow Mill';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const today = async () => (await shop.call<Today>(VIEWER, 'GET', 'today')).body;
const engineOf = async (work: Work) =>
  (await shop.call<EngineView>(VIEWER, 'GET', `engines/${work.build.engine.id}`)).body;

/** A build that was signed off, and waits for its first recheck. */
async function running(): Promise<Work> {
  const work = await Work.on(shop, SCREWS);
  await work.reach('close');
  await work.tickAll();
  await work.signOff();
  return work;
}

/** Another build on the same engine. */
const openedOn = async ({ build }: Work) =>
  shop.call<{ build: string; code: string }>(BENCH, 'POST', `engines/${build.engine.id}/builds`, {
    ...{ revisionId: build.sheet.id, complaint: 'Ticks again' },
  });
const act = (id: string, action: 'abandon' | 'restore', version: number) =>
  shop.call<{ code: string }>(BENCH, 'POST', `builds/${id}/${action}`, { version, why: 'the wrong engine' });

describe('a build opened by mistake', () => {
  it('is put out of the way with its record, and the one before it goes on with its recheck', async () => {
    const former = await running();
    const { id: recheck } = former.build.rechecks[0]!;
    const { body: opened } = await openedOn(former);
    expect((await shop.build(former.build.id)).rechecks[0]).toMatchObject({ id: recheck, status: 'dropped' });
    const mistaken = await shop.build(opened.build);
    expect((await act(opened.build, 'abandon', mistaken.version)).status).toBe(200);
    const again = await shop.build(former.build.id);
    expect(again.closedAt).toBeNull();
    expect(again.rechecks).toMatchObject([{ id: recheck, status: 'planned' }]);
    const engine = await engineOf(former);
    expect(engine.buildId).toBe(former.build.id);
    expect(engine.builds[0]).toMatchObject({
      number: 2,
      abandoned: { by: BENCH, why: 'the wrong engine' },
    });
    // nothing more is written in it
    const { version } = await shop.build(opened.build);
    expect((await act(opened.build, 'abandon', version)).body.code).toBe('build_closed');
  });

  it('gives the recheck back that was next, and not the one that had been planned after a judgement taken back', async () => {
    const former = await running();
    const first = await former.recheck();
    // after the reading that stands, before the judgement
    const before = new Date().toISOString();
    await former.judge(first);
    // a reading that comes in late opens it again, and drops what was to follow
    const late = await shop.call(BENCH, 'POST', `rounds/${first}/readings`, {
      ...{ point: former.points[0], asTyped: '0.2', takenAt: before },
      reading: { kind: 'value', value: 0.2, uncertainty: 0.01 },
    });
    expect(late.status).toBe(201);
    const statuses = async () =>
      (await shop.build(former.build.id)).rechecks
        .map(({ sequence, status }) => [sequence, status])
        .sort(([a], [b]) => Number(a) - Number(b));
    expect(await statuses()).toEqual([
      [1, 'planned'],
      [2, 'dropped'],
    ]);
    const { body: opened } = await openedOn(former);
    await act(opened.build, 'abandon', (await shop.build(opened.build)).version);
    expect(await statuses()).toEqual([
      [1, 'planned'],
      [2, 'dropped'],
    ]);
  });

  it('is brought back where it was, and the one before it gives way again', async () => {
    const former = await running();
    const { body: opened } = await openedOn(former);
    await act(opened.build, 'abandon', (await shop.build(opened.build)).version);
    const { version } = await shop.build(opened.build);
    expect((await act(opened.build, 'restore', version)).status).toBe(200);
    expect(await shop.build(opened.build)).toMatchObject({
      closedAt: null,
      abandoned: null,
      stage: 'take-in',
    });
    const gone = await shop.build(former.build.id);
    expect(gone.closedAt).not.toBeNull();
    expect(gone.rechecks[0]!.status).toBe('dropped');
    const back = await shop.build(opened.build);
    expect((await act(opened.build, 'restore', back.version)).body.code).toBe('not_abandoned');
  });

  it('stays away while another one is on the bench', async () => {
    const work = await Work.on(shop, SCREWS);
    expect((await work.abandon('the wrong sheet')).status).toBe(200);
    const { body: other } = await openedOn(work);
    expect((await work.restore()).body.code).toBe('build_open');
    await act(other.build, 'abandon', (await shop.build(other.build)).version);
    expect((await work.restore()).status).toBe(200);
  });

  it('counts for nothing: what was measured in it is in no course of gaps', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('wear');
    const measured = work.points.length;
    expect((await engineOf(work)).gaps).toHaveLength(measured);
    await work.abandon('the wrong engine');
    expect((await engineOf(work)).gaps).toEqual([]);
    await work.restore();
    expect((await engineOf(work)).gaps).toHaveLength(measured);
  });

  it('is never one that a lead has signed', async () => {
    const work = await running();
    expect((await work.abandon('thought better of it')).body.code).toBe('already_signed_off');
  });

  it('wants a reason', async () => {
    const work = await Work.on(shop, SCREWS);
    expect((await work.abandon('  ')).status).toBe(400);
  });
});

describe('an engine that is put away', () => {
  const listed = async (query: string) =>
    (await shop.call<EngineList>(VIEWER, 'GET', `engines?limit=500${query}`)).body.engines.map(
      ({ id }) => id,
    );

  it('is in no list and nothing of it is due, until it is brought back', async () => {
    const work = await running();
    const { id } = work.build.engine;
    const before = await today();
    const { version } = await engineOf(work);
    const put = await shop.call<EngineRow>(BENCH, 'POST', `engines/${id}/put-away`, { version, why: 'sold' });
    expect(put).toMatchObject({ status: 200, body: { putAway: { by: BENCH, why: 'sold' }, recheck: null } });
    expect(await listed('')).not.toContain(id);
    expect(await listed('&away=true')).toContain(id);
    expect((await engineOf(work)).rechecks.map(({ state }) => state)).toEqual([null]);
    const after = await today();
    const sum = ({ rechecks }: Today) => Object.values(rechecks.counts).reduce((all, one) => all + one, 0);
    expect(sum(after)).toBe(sum(before) - 1);
    expect((await openedOn(work)).body.code).toBe('engine_put_away');
    const taken = await shop.call<{ detail: string }>(BENCH, 'POST', 'engines', {
      ...{ name: work.build.engine.name, serial: '', owner: '', duty: '', usage: 1 },
      sheetId: work.build.sheet.sheetId,
    });
    expect(taken.body.detail).toContain('was retired');
    const back = await shop.call<EngineRow>(BENCH, 'POST', `engines/${id}/bring-back`, {
      version: put.body.version,
    });
    expect(back).toMatchObject({ status: 200, body: { putAway: null, recheck: { state: 'coming' } } });
    expect(sum(await today())).toBe(sum(before));
    expect(await listed('&away=true')).not.toContain(id);
  });

  it('has no build on the bench', async () => {
    const work = await Work.on(shop, SCREWS);
    const { id } = work.build.engine;
    const { version } = await engineOf(work);
    expect(
      (await shop.call<{ code: string }>(BENCH, 'POST', `engines/${id}/put-away`, { version, why: 'sold' }))
        .body.code,
    ).toBe('engine_on_bench');
    await work.abandon('sold before it was begun');
    expect((await shop.call(BENCH, 'POST', `engines/${id}/put-away`, { version, why: 'sold' })).status).toBe(
      200,
    );
    expect((await work.restore()).body.code).toBe('engine_put_away');
  });
});
