import { checkKey, disturbances } from '@zero-lash/core/builds';
import type { Shop } from '@zero-lash/contract/people';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LEAD, TestShop } from './shop.ts';
import { dayIn } from '../clock.ts';
import { Work } from './worked.ts';

/** Set by screws, so that a change disturbs its own point and no other. */
const SCREWS = 'Edger, Pellow Mill';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const days = (work: Work) =>
  // the day it was in the shop, which is another than elsewhere for an hour or two a night
  (Date.parse(work.build.rechecks[0]!.dueDate!) -
    Date.parse(dayIn('Europe/Vienna', new Date(work.build.signOff!.at)))) /
  86_400_000;

describe('a point left alone at the edge', () => {
  it('is let stand by a lead alone, named at sign-off, and looked at in half the time', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('prove');
    const [watched, ...others] = work.points;
    // what is read before the two turns proves nothing
    await work.tickAll();
    for (const point of others) await work.measure(point);
    await work.measure(watched!, 'edge');
    expect((await work.tick('prove', checkKey('accepted', watched!), { who: LEAD })).body.code).toBe(
      'not_acceptable',
    );
    await work.go('set');
    await work.set(watched!, { kind: 'left', note: 'at the edge, watched' });
    await work.go('prove');
    // nothing was changed: the two turns and the marks hold, and so do the proofs
    expect(work.ticked('prove').sort()).toEqual(['marks', 'tensioner', 'two-turns']);
    expect(await work.go('close')).toMatchObject({ status: 409, body: { points: [watched] } });
    expect(await work.tick('prove', checkKey('accepted', watched!))).toMatchObject({
      status: 403,
      body: { code: 'forbidden' },
    });
    expect((await work.tick('prove', checkKey('accepted', watched!), { who: LEAD })).status).toBe(200);
    expect((await work.go('close')).status).toBe(200);
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    expect(work.build.signOff!.accepted).toEqual([watched]);

    const plain = await Work.on(shop, SCREWS);
    await plain.reach('close');
    await plain.tickAll();
    await plain.signOff();
    expect(plain.build.signOff!.accepted).toEqual([]);
    expect(days(work)).toBe(Math.floor(days(plain) / 2));
  });

  it('is not let stand where it is tight, not at another stage, and not where there is no such point', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('prove');
    const [point] = work.points;
    for (const each of work.points) await work.measure(each, each === point ? 'tight' : 'sound');
    await work.go('set');
    await work.set(point!, { kind: 'left', note: 'no time' });
    expect((await work.tick('set', checkKey('accepted', point!), { who: LEAD })).body.code).toBe(
      'unknown_check',
    );
    await work.tickAll();
    await work.go('prove');
    expect((await work.tick('prove', checkKey('accepted', point!), { who: LEAD })).body.code).toBe(
      'not_acceptable',
    );
    expect((await work.tick('prove', checkKey('accepted', '9X'), { who: LEAD })).body.code).toBe(
      'unknown_check',
    );
  });
});

describe('what was slackened while points were set', () => {
  it('is proved again, every point of it, with the turns and the marks', async () => {
    const work = await Work.on(shop, SCREWS);
    await work.reach('close');
    await work.go('set');
    const [rockers] = disturbances(work.build.sheet.pattern);
    expect((await work.tick('set', 'cam-Z')).body.code).toBe('unknown_check');
    expect((await work.tick('set', rockers!.key)).status).toBe(200);
    await work.go('prove');
    expect(work.ticked('prove')).toEqual([]);
    await work.tickAll();
    const refused = await work.go('close');
    expect(refused).toMatchObject({ status: 409, body: { points: rockers!.points } });
    for (const point of rockers!.points) await work.measure(point);
    expect((await work.go('close')).status).toBe(200);
  });
});

describe('the shop’s own rule of what is proved again', () => {
  it('holds for builds opened from then on, and adds to what a change bears on', async () => {
    const before = await Work.on(shop, SCREWS);
    const { body: session } = await shop.call<{ shop: Shop }>(LEAD, 'GET', 'session');
    const rule = { ...session.shop, provesAgain: 'every-point' };
    expect((await shop.call(LEAD, 'PATCH', 'shop', rule)).status).toBe(200);
    expect((await shop.call(LEAD, 'PATCH', 'shop', { ...rule, provesAgain: 'nothing' })).status).toBe(400);
    const after = await Work.on(shop, SCREWS);
    expect([before.build.provesAgain, after.build.provesAgain]).toEqual(['disturbed', 'every-point']);
    for (const [work, points] of [
      [before, before.points.slice(0, 1)],
      [after, after.points],
    ] as const) {
      await work.reach('close');
      await work.go('set');
      await work.set(work.points[0]!);
      await work.go('prove');
      await work.tickAll();
      expect(await work.go('close')).toMatchObject({ status: 409, body: { points } });
    }
  });
});
