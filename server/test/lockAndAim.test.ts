import { checkKey } from '@zero-lash/core/builds';
import type { Drawer } from '@zero-lash/contract/pieces';
import type { EngineRow } from '@zero-lash/contract/engines';
import type { Feel } from '@zero-lash/contract/setting';
import type { Shop } from '@zero-lash/contract/people';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { adjusterAt, lockShift } from '@zero-lash/core/setting';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop } from './shop.ts';
import { Work } from './worked.ts';

/** another lead, who locked nothing */
const OTHER = 'Osk Velland';
const SCREWS = 'Edger, Pellow Mill';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** An engine whose shims lie on top of their buckets, of those the demo has. */
async function onBuckets(): Promise<string> {
  const { body } = await shop.call<{ engines: { name: string }[] }>(BENCH, 'GET', 'engines?limit=100');
  for (const { name } of body.engines) {
    const { means } = (await shop.buildOf(name)).sheet.pattern;
    if (means.kind === 'shim' && means.seat === 'on-bucket') return name;
  }
  throw new Error('the demo has no engine with shims on top of its buckets');
}

const roundOf = (work: Work) => work.build.rounds.at(-1)!.id;

describe('a tool that holds a valve down', () => {
  it('keeps the crank and the build where they are until it is out, and is ticked nowhere else', async () => {
    const work = await Work.on(shop, await onBuckets());
    await work.reach('set');
    const [point, other] = work.points;
    const turn = (at: number) =>
      shop.call<{ code: string; detail: string }>(BENCH, 'PUT', `rounds/${roundOf(work)}/turning`, {
        ...{ school: 'fewest', at, done: [] },
      });
    expect((await turn(0)).status).toBe(200);
    work.build = await shop.build(work.build.id);
    expect((await work.tick('prove', checkKey('tool', point!))).body.code).toBe('unknown_check');
    expect((await work.tick('set', checkKey('tool', '9X'))).body.code).toBe('unknown_check');
    expect((await work.tick('set', checkKey('tool', point!))).status).toBe(200);
    const refused = await turn(180);
    expect([refused.status, refused.body.code]).toEqual([409, 'tool_in']);
    expect(refused.body.detail).toContain(point);
    // where it stands already it may be said to stand
    expect((await turn(0)).status).toBe(200);
    work.build = await shop.build(work.build.id);
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { code: 'stage_not_ready' } });
    expect(await work.go('head-work')).toMatchObject({ status: 409, body: { points: [point] } });
    // the other point may be set meanwhile
    expect((await work.set(other!, { kind: 'fitted', installed: 2.5, fitted: 2.45, note: '' })).status).toBe(
      201,
    );
    expect((await work.tick('set', checkKey('tool', point!), { done: false })).status).toBe(200);
    expect((await turn(180)).status).toBe(200);
    work.build = await shop.build(work.build.id);
    expect((await work.go('prove')).status).toBe(200);
  });

  it('is none where a screw is turned', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('set');
    expect((await work.tick('set', checkKey('tool', work.points[0]!))).body.code).toBe('unknown_check');
  });
});

const feelOf = async (who: string) => (await shop.call<Feel>(who, 'GET', 'feel')).body;

describe('what locking does to a person’s gaps', () => {
  it('is learned from their own readings round it, with nothing turned in between', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('set');
    const round = roundOf(work);
    const point = work.points[0]!;
    const read = (value: number, beforeLock: boolean, who = BENCH) =>
      shop.call(who, 'POST', `rounds/${round}/readings`, {
        ...{ point, asTyped: String(value), beforeLock },
        reading: { kind: 'value', value, uncertainty: 0.005 },
      });
    const pairs = [0.011, 0.012, 0.01, 0.011, 0.009, 0.012].map((shift, index) => ({
      before: { lo: 0.2 + index / 100 - 0.005, hi: 0.2 + index / 100 + 0.005 },
      after: { lo: 0.2 + index / 100 + shift - 0.005, hi: 0.2 + index / 100 + shift + 0.005 },
    }));
    for (const { before, after } of pairs) {
      expect((await read(before.lo + 0.005, true)).status).toBe(201);
      expect((await read(Math.round((after.lo + 0.005) * 1e4) / 1e4, false)).status).toBe(201);
    }
    const { locks } = await feelOf(BENCH);
    const expected = lockShift({ pairs });
    expect(locks).toHaveLength(1);
    expect(locks[0]).toMatchObject({
      ...{ means: 'screw', locking: 'lock-nut', count: 6 },
      adjuster: adjusterAt(work.build.sheet.pattern, 'intake'),
    });
    expect(locks[0]!.mean).toBeCloseTo(expected.mean!, 4);
    expect(locks[0]!.use).toBeCloseTo(expected.mean!, 4);
    // turned in between it is no pair, and neither is another’s reading, nor two before locking
    await read(0.2, true);
    work.build = await shop.build(work.build.id);
    await work.set(point);
    await read(0.3, false);
    await read(0.2, true);
    await read(0.9, false, OTHER);
    await read(0.2, true);
    expect((await feelOf(BENCH)).locks[0]!.count).toBe(6);
    expect((await feelOf(OTHER)).locks).toEqual([]);
    // one before locking is no finding
    work.build = await shop.build(work.build.id);
    expect(work.build.rounds.at(-1)!.readings.find((row) => row.point === point)!.beforeLock).toBe(true);
  });

  it('is not read where nothing is locked', async () => {
    const work = await Work.on(shop, await onBuckets());
    await work.reach('set');
    const body = {
      ...{ point: work.points[0], asTyped: '0.2', beforeLock: true },
      reading: { kind: 'value', value: 0.2, uncertainty: 0.005 },
    };
    const refused = await shop.call(BENCH, 'POST', `rounds/${roundOf(work)}/readings`, body);
    expect(refused).toMatchObject({ status: 422, body: { code: 'other_means' } });
    const screws = await Work.on(shop, SCREWS);
    await screws.reach('as-found');
    const early = { ...body, point: screws.points[0] };
    expect((await shop.call(BENCH, 'POST', `rounds/${roundOf(screws)}/readings`, early)).status).toBe(422);
  });
});

const aimAt = (work: Work, who: string, own: object, complaint = 'Proof') =>
  shop.call<{ code: string; detail: string }>(who, 'PATCH', `builds/${work.build.id}`, {
    ...{ version: work.build.version, complaint, aim: 'own' },
    ...own,
  });

describe('figures of the shop’s own to aim at', () => {
  it('inside the band are anybody’s; outside it a lead stands for them, says why, and the points are judged by them', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('set');
    const { limits } = work.build.sheet;
    const inside = limits.map(({ role, max }) => ({ role, target: max }));
    expect((await aimAt(work, BENCH, {})).status).toBe(400);
    expect((await aimAt(work, BENCH, { ownAims: inside })).status).toBe(200);
    work.build = await shop.build(work.build.id);
    expect(work.build.ownAims).toEqual({ figures: inside, reason: '', by: BENCH });
    expect(work.build.aim).toBe('own');

    const wide = limits.map(({ role, max }) => ({ role, target: Math.round((max! + 0.3) * 1e4) / 1e4 }));
    expect((await aimAt(work, BENCH, { ownAims: wide, aimReason: 'race' })).status).toBe(403);
    expect(await aimAt(work, LEAD, { ownAims: wide })).toMatchObject({
      status: 400,
      body: { fields: [{ path: 'aimReason' }] },
    });
    const brake = [{ role: 'brake', target: 0.4 }];
    expect((await aimAt(work, LEAD, { ownAims: brake })).status).toBe(400);
    expect((await aimAt(work, LEAD, { ownAims: wide, aimReason: 'ice race, one day' })).status).toBe(200);
    work.build = await shop.build(work.build.id);
    expect(work.build.ownAims).toMatchObject({ reason: 'ice race, one day', by: LEAD });

    for (const point of work.points) await work.set(point);
    await work.tickAll();
    await work.go('prove');
    await work.tickAll();
    // in the maker's band, and so out by what is aimed at
    for (const point of work.points) await work.measure(point);
    expect(await work.go('close')).toMatchObject({ status: 409, body: { points: work.points } });
    const atAim = (point: string) =>
      shop.call(BENCH, 'POST', `rounds/${roundOf(work)}/readings`, {
        ...{ point, asTyped: 'aim' },
        reading: {
          kind: 'value',
          value: wide.find(({ role }) => point.endsWith('E') === (role === 'exhaust'))!.target,
          uncertainty: 0.001,
        },
      });
    for (const point of work.points) expect((await atAim(point)).status).toBe(201);
    work.build = await shop.build(work.build.id);
    expect((await work.go('close')).status).toBe(200);
    // back to the maker's band, and what was proved by the other is out
    await work.go('prove');
    await shop.call(LEAD, 'PATCH', `builds/${work.build.id}`, {
      ...{ version: work.build.version, complaint: 'Proof', aim: 'middle' },
    });
    work.build = await shop.build(work.build.id);
    await work.tickAll();
    expect(await work.go('close')).toMatchObject({ status: 409 });
  });
});

describe('what a shop takes over the greatest clearance', () => {
  it('is a matter of the sheet, each with its reason; an open build keeps its own, and nothing goes under the least', async () => {
    const before = await Work.on(shop, SCREWS);
    const { body: session } = await shop.call<{ shop: Shop }>(LEAD, 'GET', 'session');
    const rule = { ...session.shop, allowOver: [{ role: 'exhaust', over: 0.02 }] };
    for (const over of [-0.01, 0.5])
      expect(
        (await shop.call(LEAD, 'PATCH', 'shop', { ...rule, allowOver: [{ role: 'exhaust', over }] })).status,
      ).toBe(400);
    expect((await shop.call(LEAD, 'PATCH', 'shop', rule)).status).toBe(200);
    // the shop's figure only proposes it: a sheet that was published without one takes nothing over
    expect((await Work.on(shop, SCREWS)).build.allowOver).toEqual([]);
    const { id: _id, sheetId: _sheet, ...like } = before.build.sheet as SheetRevision;
    const limits = (why: string) =>
      like.limits.map((limit) => ({
        ...limit,
        allowance: limit.role === 'exhaust' ? { over: 0.02, why } : null,
      }));
    const draft = (why: string) =>
      shop.call<SheetRevision>(BENCH, 'POST', 'sheets', {
        ...{ name: 'Worn guides', maker: 'Hadderby', body: { ...like, limits: limits(why) } },
      });
    expect((await draft('')).status).toBe(400);
    const { body: drafted } = await draft('its guides are worn to their limit');
    const published = await shop.call<SheetRevision>(
      LEAD,
      'POST',
      `sheet-revisions/${drafted.id}/publication`,
      { version: drafted.version },
    );
    expect(published.body.limits.map(({ allowance }) => allowance?.over)).toEqual([0, 0.02]);
    const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: 'Worn guides 1', serial: '', owner: '', duty: '', usage: 10 },
      sheetId: drafted.sheetId,
    });
    const after = await Work.on(shop, SCREWS, { engineId: engine.id, revisionId: drafted.id });
    expect([before.build.allowOver, after.build.allowOver]).toEqual([[], rule.allowOver]);
    const readingOf = async (work: Work, point: string) => {
      await work.reach('as-found');
      await work.measure(point, 'edge');
      return work.build.rounds.at(-1)!.readings.find((row) => row.point === point)!;
    };
    const exhaust = after.points.find((point) => point.includes('E'))!;
    const intake = after.points.find((point) => point.includes('I'))!;
    expect(await readingOf(before, exhaust)).toMatchObject({ verdict: 'undecided-high', onLimit: false });
    const allowed = await readingOf(after, exhaust);
    expect(allowed).toMatchObject({ verdict: 'in-spec', onLimit: true, limits: { allowOver: 0.02 } });
    expect(await readingOf(after, intake)).toMatchObject({ verdict: 'undecided-high', onLimit: false });
  });
});

describe('a point left alone after it was changed', () => {
  it('stays changed: what it was proved by before proves nothing of it', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('close');
    await work.go('set');
    const [point] = work.points;
    await work.set(point!);
    await work.set(point!, { kind: 'left', note: 'near enough' });
    const current = work.build.settings.filter((row) => row.point === point);
    expect(current.map(({ kind }) => kind).sort()).toEqual(['left', 'turned']);
    await work.go('prove');
    await work.tickAll();
    expect(await work.go('close')).toMatchObject({ status: 409, body: { points: [point] } });
    // each kind supersedes its own
    await work.go('set');
    await work.set(point!, { kind: 'left', note: 'said again' });
    await work.set(point!, { kind: 'turned', degrees: -10 });
    const again = work.build.settings.filter((row) => row.point === point);
    expect(again.map(({ kind, note, degrees }) => [kind, note, degrees]).sort()).toEqual([
      ['left', 'said again', null],
      ['turned', '', -10],
    ]);
  });
});

describe('a point with nothing in it', () => {
  it('is not left so, its piece goes where it is said to go, and only a shim is taken out to measure bare', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    await work.reach('set');
    const [point, other] = work.points;
    const system = 'shim under-bucket 9.5';
    const lies = async (thickness: number) => {
      const { body } = await shop.call<Drawer>(BENCH, 'GET', 'drawer');
      const sizes = body.systems.find((each) => each.system === system)!.sizes;
      return sizes.find((each) => each.thickness === thickness)?.count ?? 0;
    };
    const before = await lies(2.45);
    expect((await work.set(point!, { kind: 'bare', installed: 2.45, to: 'drawer' })).status).toBe(201);
    expect((await work.set(other!, { kind: 'bare', fitted: 2.45 })).status).toBe(400);
    expect(await lies(2.45)).toBe(before + 1);
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { points: [point] } });
    // nothing came out as this went in
    const fitted = { kind: 'fitted', installed: null, fitted: 2.45, from: 'drawer' };
    expect((await work.set(point!, fitted)).status).toBe(201);
    expect(await lies(2.45)).toBe(before);
    // a cam was out for it: its caps are tightened before anything is turned, whoever ticked the first of them
    const loose = await work.go('prove');
    expect(loose.body).toMatchObject({
      code: 'stage_not_ready',
      detail: expect.stringContaining('Cam caps'),
    });
    const held = work.build.sheet.assembly.flatMap(({ hold }, index) =>
      hold ? [checkKey('step', index)] : [],
    );
    expect(held.length).toBeGreaterThan(0);
    for (const check of ['pass 0.0', 'pass 0.1', ...held]) await work.tick('set', check);
    expect((await work.go('prove')).status).toBe(200);
    expect((await work.set(point!, { kind: 'fitted', installed: 2.45, fitted: null })).status).toBe(400);

    const screws = await Work.on(shop, SCREWS);
    await screws.reach('set');
    expect((await screws.set(screws.points[0]!, { kind: 'bare' })).body.code).toBe('other_means');
    const buckets = await Work.on(shop, 'Emergency set, Overmere Infirmary');
    await buckets.reach('set');
    expect((await buckets.set(buckets.points[0]!, { kind: 'bare' })).body.code).toBe('other_means');
  });
});
