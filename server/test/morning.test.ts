import type { Morning } from '@zero-lash/contract/morning';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const morning = async (who: string) => (await shop.call<Morning>(who, 'GET', 'morning')).body;

describe('the morning', () => {
  it('says what stands still, and for what', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    const mine = async (what: Morning['waits'][number]['for']) =>
      (await morning(VIEWER)).waits.filter(
        (each) => each.path === `/builds/${work.build.id}` && each.for === what,
      );
    expect(await mine('cold')).toHaveLength(1);
    await work.tickAll();
    expect(await mine('cold')).toEqual([]);
    await work.reach('close');
    expect(await mine('lead')).toEqual([]);
    await work.tickAll();
    expect(await mine('lead')).toHaveLength(1);
    await work.signOff();
    expect(await mine('lead')).toEqual([]);
  });

  it('says what waits on a device for an answer, until it is written or thrown away there', async () => {
    const { id, rounds } = await shop.buildOf('Frost fan 7, Chapel Slope');
    const waiting = async () => (await morning(VIEWER)).waits.filter((each) => each.for === 'device');
    const path = `rounds/${rounds.at(-1)!.id}/readings`;
    const body = { point: '1E', reading: { kind: 'drag', blade: 0.3 }, asTyped: '0.3' };
    const send = (key: string, takenAt: string | null) =>
      shop.call(BENCH, 'POST', path, { ...body, takenAt }, key);
    const leave = (key: string, who = BENCH) => shop.call(who, 'POST', `time-questions/${key}/left`, {});
    const [written, thrown] = [crypto.randomUUID(), crypto.randomUUID()];
    for (const key of [written, thrown, written])
      expect((await send(key, '2190-01-01T00:00:00Z')).status).toBe(409);
    expect(await waiting()).toEqual(
      Array.from({ length: 2 }, () => ({
        ...{ for: 'device', path: `/builds/${id}`, engine: 'Frost fan 7, Chapel Slope' },
        text: `1E: 0.3, by ${BENCH}: when was it?`,
      })),
    );
    expect((await send(written, null)).status).toBe(201);
    expect(await waiting()).toHaveLength(1);
    // told twice it is told
    expect((await leave(thrown, VIEWER)).status).toBe(403);
    for (let times = 0; times < 2; times += 1) expect((await leave(thrown)).status).toBe(200);
    expect(await waiting()).toEqual([]);
    // a figure off a meter belongs to no build
    const fan = (await shop.buildOf('Frost fan 12, Quarry Rows')).engine;
    const meter = crypto.randomUUID();
    const figure = { usage: fan.usage + 1, takenAt: '2190-01-01T00:00:00Z' };
    expect((await shop.call(BENCH, 'POST', `engines/${fan.id}/usages`, figure, meter)).status).toBe(409);
    expect(await waiting()).toMatchObject([{ path: `/engines/${fan.id}`, engine: fan.name }]);
    expect((await leave(meter, LEAD)).status).toBe(200);
    expect(await waiting()).toEqual([]);
  });

  it('tells each person what others did since they looked, and nothing of their own', async () => {
    const { body: looked } = await shop.call<Morning>(BENCH, 'POST', 'morning/looked');
    expect(looked.since).not.toBeNull();
    expect(looked.changed).toEqual([]);
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('close');
    await work.tickAll();
    await work.signOff();
    const engine = work.build.engine.name;
    const told = async (who: string) =>
      (await morning(who)).changed.filter((each) => each.engine === engine).map(({ text }) => text);
    // the bench moved it on, the lead signed it
    expect(await told(BENCH)).toEqual(['is signed off']);
    expect(await told(LEAD)).toContain('is at Close and sign off');
    expect(await told(LEAD)).not.toContain('is signed off');
    // what was measured is one line a day, and meters are read too
    expect((await told(LEAD)).filter((text) => text.endsWith('measured'))).toEqual([
      expect.stringMatching(/^\d+ gaps measured$/),
    ]);
    await shop.call(BENCH, 'POST', `engines/${work.build.engine.id}/usages`, {
      usage: work.build.engine.usage + 2,
      sure: true,
    });
    expect((await told(LEAD))[0]).toBe(`meter read: ${work.build.engine.usage + 2} starts`);
    const recheck = work.build.rechecks.find(({ status }) => status === 'planned')!;
    await shop.call(LEAD, 'POST', `rechecks/${recheck.id}/move`, {
      ...{ kind: 'on-hold', why: 'harvest', version: recheck.version },
    });
    expect((await told(BENCH))[0]).toBe('its recheck was put on hold: harvest');
    expect((await shop.call<Morning>(BENCH, 'POST', 'morning/looked')).body.changed).toEqual([]);
  });
});
