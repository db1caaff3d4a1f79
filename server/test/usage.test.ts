import type { EngineRow, EngineView, UsageStruckOut } from '@zero-lash/contract/engines';
import type { Morning } from '@zero-lash/contract/morning';
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
  const { id } = (await shop.db('engines').where('name', 'like', `${name}%`).first('id'))!;
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
    // a clock that goes ahead puts nothing into the future: a little is put right, and more is asked about
    const ahead = (ms: number) => new Date(Date.now() + ms).toISOString();
    const tomorrow = await log({ usage: fan.usage + 5, takenAt: ahead(86_400_000) });
    expect(tomorrow).toMatchObject({ status: 409, body: { code: 'taken_when' } });
    expect((await log({ usage: fan.usage + 5, takenAt: ahead(60_000) })).status).toBe(201);
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
    const read = fan.usages.filter(({ newMeter }) => !newMeter);
    const days = (a: string, b: string) => (Date.parse(a) - Date.parse(b)) / 86_400_000;
    const newer = read.findIndex(({ readAt }, index) => days(readAt, read[index + 1]!.readAt) > 5);
    const [last, before] = [read[newer], read[newer + 1]];
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
      (await shop.db('rechecks').where({ engine_id: fan.id, status: 'planned' }).first('expected_day'))!
        .expected_day;
    // by running alone, so that nothing else says when
    await shop
      .db('rechecks')
      .where({ engine_id: fan.id, status: 'planned' })
      .update({ due_date: null, due_usage: fan.running + 400 });
    const today = await shopDay(shop.db);
    await round({ engineId: fan.id, usage: fan.usage + 1 });
    const slow = (await expected())!;
    await round({ engineId: fan.id, usage: fan.usage + 380, sure: true });
    expect((await expected())! < slow).toBe(true);
    expect((await expected())! >= today).toBe(true);
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

  it('has bad lines in it, which are asked about once and keep no other back', async () => {
    const good = await engineOf('Frost fan 16');
    const at = (minutes: number) => new Date(Date.now() + minutes * 60_000).toISOString();
    const day = 24 * 60;
    // of tomorrow, no line at all, more than can have been run, in another unit: and then one that is as it should be
    feed.add({ serial: good.serial, at: at(day), usage: good.usage + 5 });
    feed.add('{"serial":"Q4-2301","at":"yesterday","usage":1}');
    feed.add('no\u0007thing');
    feed.add({ serial: good.serial, at: at(-0.9), usage: good.usage + 9000 });
    feed.add(JSON.stringify({ serial: good.serial, at: at(-0.8), usage: good.usage + 6, unit: 'km' }));
    feed.add({ serial: good.serial, at: at(-0.5), usage: good.usage + 1 });
    expect((await look()).body).toMatchObject({ taken: 1, asked: 5 });
    expect((await look()).body).toMatchObject({ taken: 0, asked: 0 });
    expect((await engineOf('Frost fan 16')).usage).toBe(good.usage + 1);
    const { questions: asked } = await questions();
    expect(asked.map(({ usage, line, why }) => [usage, line, why])).toEqual(
      expect.arrayContaining([
        [good.usage + 5, '', expect.stringContaining('has not come yet')],
        [null, '{"serial":"Q4-2301","at":"yesterday","usage":1}', expect.stringContaining('at ')],
        [null, 'no\uFFFDthing', expect.stringContaining('cannot be read')],
        [good.usage + 9000, '', expect.stringContaining('more than can have been run')],
        [good.usage + 6, '', expect.stringContaining('in km')],
      ]),
    );
    expect((await shop.call<Morning>(LEAD, 'GET', 'morning')).body.questions).toBe(5);
    // what comes after a line from the future is heard all the same
    feed.add({ serial: good.serial, at: at(-0.1), usage: good.usage + 2 });
    expect((await look()).body).toMatchObject({ taken: 1 });
    const answer = (id: string, is: string) =>
      shop.call<{ code: string }>(BENCH, 'POST', `usage/questions/${id}`, {
        is,
        reason: 'its clock was wrong',
      });
    const ahead = asked.find(({ usage }) => usage === good.usage + 5)!;
    expect((await answer(ahead.id, 'right')).status).toBe(200);
    // as of now: nothing stands in the future
    const now = await engineOf('Frost fan 16');
    expect([now.usage, Date.parse(now.usages[0]!.readAt) <= Date.now()]).toEqual([good.usage + 5, true]);
    const none = asked.find(({ usage }) => usage === null)!;
    expect((await answer(none.id, 'right')).body.code).toBe('feed_answered');
    for (const { id } of asked) await answer(id, 'left');
  });

  it('that is away is said, and nothing of it is taken', async () => {
    const before = await shop.db('meter_lines').count('id as count').first();
    await setFeed('127.0.0.1:9');
    expect(await look()).toMatchObject({ status: 409, body: { code: 'feed_away' } });
    expect((await look()).body.detail).toContain('cannot be read');
    await setFeed('');
    expect(await shop.db('meter_lines').count('id as count').first()).toEqual(before);
  });

  it('is set up by a lead, at an address that can be one', async () => {
    const { body } = await shop.call<{ shop: Record<string, unknown> }>(LEAD, 'GET', 'session');
    const set = (meterFeed: string) => shop.call(LEAD, 'PATCH', 'shop', { ...body.shop, meterFeed });
    expect((await set('http://somewhere')).status).toBe(400);
    expect((await set('meters.overmere.example:80')).status).toBe(400);
    expect((await set('192.168.7.20:4529')).status).toBe(200);
  });
});

describe('a log that is put right', () => {
  const log = (id: string, body: object) =>
    shop.call<EngineRow & { code: string }>(BENCH, 'POST', `engines/${id}/usages`, body);
  const strike = (id: string, usage: string, who = LEAD, why = 'another engine’s') =>
    shop.call<UsageStruckOut & { code: string }>(who, 'POST', `engines/${id}/usages/${usage}/struck-out`, {
      why,
    });
  /** A fan of its own, with a recheck that it has to run for. */
  async function fan(usage: number) {
    const build = await shop.buildOf('Frost fan 12, Quarry Rows');
    const sheetId = build.sheet.sheetId;
    const { body } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: `Fan ${crypto.randomUUID()}`, serial: '', owner: '', duty: '', sheetId, usage },
    });
    return body.id;
  }
  const view = async (id: string) => (await shop.call<EngineView>(VIEWER, 'GET', `engines/${id}`)).body;

  it('keeps what was struck out, with who and why, and goes by the rest', async () => {
    const id = await fan(100);
    await log(id, { usage: 9000, sure: true });
    expect((await log(id, { usage: 120 })).body.code).toBe('usage_back');
    const slip = (await view(id)).usages.find(({ usage }) => usage === 9000)!;
    expect((await strike(id, slip.id, BENCH)).status).toBe(403);
    expect((await strike(id, slip.id, LEAD, ' ')).status).toBe(400);
    expect((await strike(id, slip.id)).body.engine).toMatchObject({ usage: 100, running: 100 });
    expect((await strike(id, slip.id)).status).toBe(404);
    expect((await view(id)).usages.find((each) => each.id === slip.id)!.struck).toMatchObject({
      ...{ by: LEAD, why: 'another engine’s' },
    });
    // it is in nobody's way any more
    expect((await log(id, { usage: 120 })).body).toMatchObject({ usage: 120, running: 120 });
    const [, only] = [...(await view(id)).usages].filter(({ struck }) => !struck);
    expect((await strike(id, only!.id)).status).toBe(200);
    const [left] = (await view(id)).usages.filter(({ struck }) => !struck);
    expect((await strike(id, left!.id)).body.code).toBe('usage_last');
    await expect(shop.db('usages').where({ id: slip.id }).delete()).rejects.toThrow(/stays/);
    await expect(shop.db('usages').where({ id: slip.id }).update({ usage: 1 })).rejects.toThrow(/stays/);
    await expect(shop.db('usages').where({ id: slip.id }).update({ struck_at: null })).rejects.toThrow(
      /stays/,
    );
  });

  it('undoes a change of meter, and moves what was due by it', async () => {
    const fanOf = await engineOf('Frost fan 18');
    const { id, usage, running } = fanOf;
    // a slip, taken for a new meter
    const slip = await log(id, { usage: usage - 4, newMeter: { lastOfOld: usage, startedAt: 0 } });
    expect(slip.body.running).toBeCloseTo(running + usage - 4, 6);
    await log(id, { usage: usage + 1 });
    const later = new Date(Date.now() + 1000);
    await shop
      .db('rechecks')
      .where({ engine_id: id, status: 'planned' })
      .update({ due_usage: slip.body.running + 50 });
    await shop.db('sign_offs').whereIn('build_id', shop.db('builds').where({ engine_id: id }).select('id'));
    await shop.db('rechecks').where({ engine_id: id, status: 'done' }).update({ done_at: later });
    const fitted = (await view(id)).usages.find(({ newMeter }) => newMeter)!;
    const { body } = await strike(id, fitted.id, LEAD, 'no new meter: a slip');
    expect(body.engine).toMatchObject({ usage: usage + 1 });
    expect(body.engine.running).toBeCloseTo(running + 1, 6);
    const done = await shop.db('rechecks').where({ engine_id: id, status: 'done' }).first('id');
    const due = (await shop.db('rechecks').where({ engine_id: id, status: 'planned' }).first('due_usage'))!
      .due_usage;
    // one that was planned after it moves with it, and says so; one from before stands
    if (done) expect([due, body.moved[0]?.to]).toEqual([running + 46, running + 46]);
    else expect(body.moved).toEqual([]);
  });

  it('takes a change of meter in that nobody wrote down as it was made', async () => {
    const id = await fan(1000);
    const before = new Date(Date.now() - 40 * 86_400_000);
    await shop.db('usages').insert({
      ...{
        engine_id: id,
        usage: 900,
        running: 900,
        read_at: before,
        by: (await shop.db('people').first('id'))!.id,
      },
    });
    const day = addDays(await shopDay(shop.db), -10);
    // ten days ago it got a new one, which showed 990 as it was fitted and reads 1000 today
    const fitted = await log(id, { usage: 990, day, newMeter: { lastOfOld: 950, startedAt: 990 } });
    expect(fitted.status).toBe(201);
    expect((await view(id)).running).toBe(960);
    expect((await log(id, { usage: 1010 })).body.running).toBe(970);
  });

  it('lets a figure from the future stand in the way of nothing', async () => {
    const id = await fan(100);
    const ahead = new Date(Date.now() + 2 * 86_400_000);
    await shop.db('usages').insert({
      ...{
        engine_id: id,
        usage: 5000,
        running: 5000,
        read_at: ahead,
        by: (await shop.db('people').first('id'))!.id,
      },
    });
    await shop.db('engines').where({ id }).update({ usage: 5000, usage_at: ahead });
    expect((await log(id, { usage: 104 })).body).toMatchObject({ usage: 104, running: 104 });
    const future = (await view(id)).usages.find(({ usage }) => usage === 5000)!;
    expect((await strike(id, future.id)).body.engine).toMatchObject({ usage: 104 });
  });
});
