import type { EngineView } from '@zero-lash/contract/engines';
import type { FeedTaken, MeterQuestion, UsageRoundTaken } from '@zero-lash/contract/usage';
import { addDays } from '@zero-lash/core/rechecks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { shopDay } from '../clock.ts';
import { startSimulatedFeed, type SimulatedFeed } from '../usage/simulator.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
let feed: SimulatedFeed;
beforeAll(async () => {
  shop = await TestShop.open();
  feed = await startSimulatedFeed(0);
});
afterAll(async () => {
  await feed.stop();
  await shop.close();
});

const engineOf = async (name: string) => {
  const { id } = await shop.db('engines').where('name', 'like', `${name}%`).first('id');
  return (await shop.call<EngineView>(VIEWER, 'GET', `engines/${id}`)).body;
};
const round = async (...lines: object[]) =>
  (await shop.call<UsageRoundTaken>(BENCH, 'POST', 'usage/round', { lines })).body.lines;

describe('a figure off a meter', () => {
  it('that was kept on a device stands where it was read, and not where it came in', async () => {
    const fan = await engineOf('Frost fan 3');
    const log = (body: object) =>
      shop.call<{ code: string }>(BENCH, 'POST', `engines/${fan.id}/usages`, body);
    const readAt = new Date(Date.now() - 3_600_000).toISOString();
    expect((await log({ usage: fan.usage + 4 })).status).toBe(201);
    // an hour ago it showed less, and this was written down with no network
    expect((await log({ usage: fan.usage + 3, takenAt: readAt })).status).toBe(201);
    const after = await engineOf('Frost fan 3');
    expect(after.usage).toBe(fan.usage + 4);
    expect(after.usages.find(({ usage }) => usage === fan.usage + 3)?.readAt).toBe(readAt);
    // then it cannot have shown more than it did later
    expect((await log({ usage: fan.usage + 9, takenAt: readAt })).body.code).toBe('usage_order');
    // a clock that goes ahead puts nothing into the future
    await log({ usage: fan.usage + 5, takenAt: new Date(Date.now() + 86_400_000).toISOString() });
    const [newest] = (await engineOf('Frost fan 3')).usages;
    expect(Date.parse(newest!.readAt)).toBeLessThanOrEqual(Date.now());
    expect((await log({ usage: fan.usage + 6, day: addDays(await shopDay(shop.db), 2) })).body.code).toBe(
      'usage_order',
    );
  });
});

describe('a round of meters', () => {
  it('takes each line by itself, and says what is wrong with the others', async () => {
    const [fan, pump] = [await engineOf('Frost fan 12'), await engineOf('Fire pump, Brackwater')];
    const lines = await round(
      { engineId: fan.id, usage: fan.usage + 12, heatCycles: 40 },
      { engineId: pump.id, usage: pump.usage - 50 },
      { engineId: crypto.randomUUID(), usage: 3 },
    );
    expect(lines.map(({ state, code }) => [state, code])).toEqual([
      ['taken', null],
      ['refused', 'usage_back'],
      ['refused', 'not_found'],
    ]);
    expect(lines[1]!.detail).toContain(String(pump.usage));
    const [now, same] = [await engineOf('Frost fan 12'), await engineOf('Fire pump, Brackwater')];
    expect([now.usage, now.heatCycles, same.usage]).toEqual([fan.usage + 12, 40, pump.usage]);
    // fewer heat cycles than were counted want a reason
    expect((await round({ engineId: fan.id, usage: now.usage, heatCycles: 3 }))[0]!.code).toBe('usage_back');
    expect(
      (await round({ engineId: fan.id, usage: now.usage, heatCycles: 3, reason: 'counted two fans' }))[0]!
        .state,
    ).toBe('taken');
    expect((await shop.call(VIEWER, 'POST', 'usage/round', { lines: [] })).status).toBeGreaterThanOrEqual(
      400,
    );
  });

  it('puts a day that was passed over where it belongs, once, and refuses one that does not fit', async () => {
    const fan = await engineOf('Frost fan 16');
    const today = await shopDay(shop.db);
    const [last, before] = fan.usages.filter(({ newMeter }) => !newMeter);
    const middle = Math.round(((last!.usage + before!.usage) / 2) * 10) / 10;
    const day = addDays(last!.readAt.slice(0, 10), -3);
    const line = { engineId: fan.id, usage: middle, day };
    expect((await round(line))[0]!.state).toBe('taken');
    expect((await round(line))[0]).toMatchObject({ state: 'already' });
    expect((await engineOf('Frost fan 16')).usage).toBe(fan.usage);
    expect((await round({ ...line, usage: last!.usage + 500 }))[0]!.code).toBe('usage_order');
    expect((await round({ ...line, usage: 1 }))[0]!.code).toBe('usage_order');
    expect((await round({ ...line, day: addDays(today, 1) }))[0]!.detail).toContain('has not come yet');
    const logged = (await engineOf('Frost fan 16')).usages.filter(({ usage }) => usage === middle);
    expect(logged).toHaveLength(1);
  });

  it('moves the day a recheck is expected, by how the engine is really used', async () => {
    const fan = await engineOf('Frost fan 12');
    const expected = async () =>
      (await shop.db('rechecks').where({ engine_id: fan.id, status: 'planned' }).first('expected_day'))
        .expected_day;
    // by running alone, so that nothing else says when
    await shop
      .db('rechecks')
      .where({ engine_id: fan.id, status: 'planned' })
      .update({ due_date: null, due_usage: fan.running + 400 });
    const today = await shopDay(shop.db);
    await round({ engineId: fan.id, usage: fan.usage + 1 });
    const slow = await expected();
    await round({ engineId: fan.id, usage: fan.usage + 380 });
    expect((await expected()) < slow).toBe(true);
    expect((await expected()) >= today).toBe(true);
  });

  it('goes on over a new meter of the demo world', async () => {
    const fan = await engineOf('Frost fan 14');
    expect(fan.usage).toBeLessThan(fan.running);
    expect(fan.usages.filter(({ newMeter }) => newMeter)).toHaveLength(1);
    const running = [...fan.usages].reverse().map((each) => each.running);
    expect(running).toEqual([...running].sort((a, b) => a - b));
  });
});

describe('a meter feed', () => {
  const setFeed = (address: string) => shop.db('shop').update({ meter_feed: address });
  const look = () => shop.call<FeedTaken & { code: string; detail: string }>(BENCH, 'POST', 'usage/feed');
  const questions = async () =>
    (await shop.call<{ feed: boolean; questions: MeterQuestion[] }>(VIEWER, 'GET', 'usage/questions')).body;

  it('is taken once however often it is sent; what cannot be is asked about, and answered', async () => {
    expect(await questions()).toEqual({ feed: false, questions: [] });
    expect((await look()).body).toEqual({ taken: 0, asked: 0, seen: 0 });
    await setFeed(`127.0.0.1:${feed.port}`);
    const [good, back] = [await engineOf('Frost fan 16'), await engineOf('Frost fan 1,')];
    const at = (minutes: number) => new Date(Date.now() + minutes * 60_000).toISOString();
    feed.add({ serial: good.serial.toLowerCase(), at: at(-5), usage: good.usage + 3, heatCycles: 12 });
    feed.add({ serial: back.serial, at: at(-4), usage: 6 });
    feed.add({ serial: 'X9-0001', at: at(-3), usage: 88 });
    // of two engines it may be either
    await shop.db('engines').where('name', 'like', 'Chipper%').update({ serial: 'TWICE' });
    await shop.db('engines').where('name', 'like', 'Edger%').update({ serial: 'twice' });
    feed.add({ serial: 'Twice', at: at(-2), usage: 9000 });
    expect((await look()).body).toEqual({ taken: 1, asked: 3, seen: 4 });
    expect((await engineOf('Frost fan 16')).usage).toBe(good.usage + 3);
    expect((await look()).body).toMatchObject({ taken: 0, asked: 0 });
    const asked = await questions();
    expect(asked.questions.map(({ engine, why }) => [engine, why])).toEqual([
      [back.name, expect.stringContaining('A lower one needs a reason')],
      [null, 'No engine here has this serial.'],
      [null, 'More than one engine here has this serial.'],
    ]);
    const [backwards, stranger, either] = asked.questions as MeterQuestion[] as [
      MeterQuestion,
      MeterQuestion,
      MeterQuestion,
    ];
    const answer = (id: string, body: object, who = BENCH) =>
      shop.call<{ code: string }>(who, 'POST', `usage/questions/${id}`, body);
    expect((await answer(backwards.id, { is: 'left' }, VIEWER)).status).toBe(403);
    expect(await answer(backwards.id, { is: 'new-meter', lastOfOld: back.usage - 5 })).toMatchObject({
      ...{ status: 409, body: { code: 'usage_back' } },
    });
    expect((await answer(backwards.id, { is: 'new-meter', lastOfOld: back.usage + 2 })).status).toBe(200);
    const now = await engineOf('Frost fan 1,');
    expect([now.usage, now.running]).toEqual([6, back.running + 8]);
    expect((await answer(stranger.id, { is: 'right' })).status).toBe(409);
    expect((await answer(stranger.id, { is: 'left' })).status).toBe(200);
    expect((await answer(stranger.id, { is: 'left' })).body).toMatchObject({ code: 'feed_answered' });
    await answer(either.id, { is: 'left' });
    expect((await questions()).questions).toEqual([]);
  });

  it('that is broken, or away, is said, and nothing of it is taken', async () => {
    const before = await shop.db('meter_lines').count('id as count').first();
    feed.add({ serial: 'Q4-2301', at: new Date(Date.now() + 1000).toISOString(), usage: 9000 });
    feed.add('{"serial":"Q4-2301","at":"yesterday","usage":1}');
    expect(await look()).toMatchObject({ status: 409, body: { code: 'feed_away' } });
    expect((await look()).body.detail).toMatch(/Line \d+ of the meter feed is none: at/);
    await setFeed('127.0.0.1:9');
    expect((await look()).body.detail).toContain('cannot be read');
    await setFeed('');
    expect(await shop.db('meter_lines').count('id as count').first()).toEqual(before);
  });

  it('is set up by a lead, at an address that can be one', async () => {
    const { body } = await shop.call<{ shop: Record<string, unknown> }>(LEAD, 'GET', 'session');
    const set = (meterFeed: string) => shop.call(LEAD, 'PATCH', 'shop', { ...body.shop, meterFeed });
    expect((await set('http://somewhere')).status).toBe(400);
    expect((await set('meters.overmere.example:80')).status).toBe(200);
  });
});
