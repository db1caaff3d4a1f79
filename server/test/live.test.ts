import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import type { EngineList } from '@zero-lash/contract/engines';
import type { Instrument, Tools } from '@zero-lash/contract/instruments';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { announceChange, LiveBus } from '../plugins/bus.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

/** A day on which the next check may be due. */
const NEXT_YEAR = new Date(Date.now() + 365 * 86_400_000).toISOString().slice(0, 10);

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

async function linkedBus(): Promise<LiveBus> {
  const bus = new LiveBus(shop.db, shop.app.log);
  bus.start();
  await expect.poll(() => bus.linked).toBe(true);
  return bus;
}

describe('what is told live', () => {
  it('is told after a write is committed, to every process, and not at all of one rolled back', async () => {
    const [one, other] = [await linkedBus(), await linkedBus()];
    const heard: string[] = [];
    one.subscribe((event) => heard.push(`one ${event.kind}`));
    const leave = other.subscribe((event) => heard.push(`other ${event.kind}`));
    await shop.db
      .transaction(async (transaction) => {
        await announceChange(transaction, ['tools']);
        throw new Error('rolled back');
      })
      .catch(() => undefined);
    await shop.db.transaction((transaction) => announceChange(transaction, ['tools']));
    await expect.poll(() => [...heard].sort()).toEqual(['one changed', 'other changed']);
    leave();
    one.tellHere({ kind: 'changed', topics: ['tools'], write: null });
    expect(heard.filter((line) => line.startsWith('one'))).toHaveLength(2);
    await Promise.all([one.close(), other.close()]);
  });

  it('says of every write which pages it changes, and which write it was', async () => {
    const bus = await linkedBus();
    const told: unknown[] = [];
    bus.subscribe((event) => event.kind === 'changed' && told.push([event.topics, event.write]));
    const { body: found } = await shop.call<EngineList>(BENCH, 'GET', 'engines?search=rack');
    const engine = found.engines[0]!;
    const [renamed, refused] = [randomUUID(), randomUUID()];
    const rename = (key: string) =>
      shop.call(
        BENCH,
        'PATCH',
        `engines/${engine.id}`,
        {
          ...{ name: engine.name, serial: engine.serial, owner: engine.owner, duty: engine.duty },
          ...{ place: 'Depot, second road', version: engine.version },
        },
        key,
      );
    expect((await rename(renamed)).status).toBe(200);
    // the second comes late: nothing is changed, and nobody is told
    expect((await rename(refused)).status).toBe(409);
    const began = Date.now() - 1;
    const build = await shop.buildOf('Edger, Pellow Mill');
    const noted = randomUUID();
    await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, { text: 'Oil on the blade.' }, noted);
    const moved = await shop.call(LEAD, 'POST', `builds/${build.id}/abandon`, {
      ...{ why: 'the wrong engine was opened', version: build.version },
    });
    expect(moved.status).toBeLessThan(300);
    await expect.poll(() => told.length).toBeGreaterThanOrEqual(2);
    // a page that was read before the last of them asks again; one that was read since need not
    expect(bus.quietFor).toBeLessThan(Date.now() - began);
    // a note stands on its build's page alone, which hears of it row by row
    expect(told).toEqual([
      [['engines'], renamed],
      [['bench'], expect.any(String)],
    ]);
    await bus.close();
  });

  it('is told once of a reading that is sent twice', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const bus = await linkedBus();
    const told: string[] = [];
    bus.subscribe((event) => {
      const [first] = event.kind === 'build' ? event.changes : [];
      if (first?.kind === 'reading') told.push(first.row!.point);
    });
    const key = randomUUID();
    const send = (point: string, withKey: string) =>
      shop.read(
        BENCH,
        build.rounds.at(-1)!.id,
        { point, reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: '0.28 0.3' },
        withKey,
      );
    const [first, again] = [await send('3I', key), await send('3I', key)];
    expect(again.body.id).toBe(first.body.id);
    await send('4I', randomUUID());
    await expect.poll(() => told).toEqual(['3I', '4I']);
    await bus.close();
  });
});

describe('work in a build', () => {
  it('is said to whoever shows how far builds are, now and then, and to who follows it row by row', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const base = await shop.app.listen({ host: '127.0.0.1', port: 0 });
    const stop = new AbortController();
    const listen = async (query: string) => {
      const heard: { kind: string; topics?: string[] }[] = [];
      const { body } = await fetch(`${base}/api/live${query}`, {
        headers: { cookie: await shop.cookieOf(VIEWER) },
        signal: stop.signal,
      });
      void (async () => {
        for await (const chunk of body!.pipeThrough(new TextDecoderStream()))
          for (const [, event] of chunk.matchAll(/^data: (.*)$/gm)) heard.push(JSON.parse(event!) as never);
      })().catch(() => undefined);
      await expect.poll(() => heard.length).toBeGreaterThan(0);
      return heard;
    };
    const [looking, following] = [await listen(''), await listen(`?build=${build.id}`)];
    for (const point of ['5I', '6I', '5E'])
      await shop.read(
        BENCH,
        build.rounds.at(-1)!.id,
        { point, reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: '0.28 0.3' },
        randomUUID(),
      );
    const changes = () => looking.filter(({ kind }) => kind !== 'quiet');
    await expect
      .poll(changes, { timeout: 5000 })
      .toEqual([{ kind: 'changed', topics: ['work'], write: null }]);
    expect(following.filter(({ kind }) => kind === 'build')).toHaveLength(3);
    stop.abort();
  });
});

describe('who may what at the bench', () => {
  it('is refused: a stranger everything, a viewer every write', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const round = build.rounds.at(-1)!;
    for (const path of ['tools', 'gauges', 'live'])
      expect(await shop.call(null, 'GET', path)).toMatchObject({
        status: 401,
        body: { code: 'unauthenticated' },
      });
    const { body } = await shop.call<Tools>(VIEWER, 'GET', 'tools');
    const gauge = body.instruments.find(({ kind }) => kind === 'digital-gauge')!;
    for (const [method, path, payload] of [
      ['PUT', `rounds/${round.id}/turning`, { school: 'fewest', at: null, done: [] }],
      ['POST', `rounds/${round.id}/conditions`, { engineTempC: 1, hoursSinceRun: 1, condition: 'cold' }],
      ['POST', `gauges/${gauge.id}/hold`, { device: randomUUID() }],
      ['POST', `gauges/${gauge.id}/simulation`, { press: true }],
      ['POST', 'benches', { name: 'Mine', bladeSetId: null, maxStack: 1 }],
      ['POST', `sheets/${build.sheet.sheetId}/revisions`, { body: build.sheet }],
    ] as const)
      expect(await shop.call(VIEWER, method, path, payload), path).toMatchObject({
        status: 403,
        body: { code: 'forbidden' },
      });
  });

  it('is answered with the field where it cannot be: turning, conditions, checks', async () => {
    const round = (await shop.buildOf('Snow groomer 2')).rounds.at(-1)!;
    const { body } = await shop.call<Tools>(VIEWER, 'GET', 'tools');
    const [set] = body.instruments as [Instrument];
    for (const [method, path, payload, field] of [
      ['PUT', `rounds/${round.id}/turning`, { school: 'by-ear', at: null, done: [] }, 'school'],
      ['PUT', `rounds/${round.id}/turning`, { school: 'fewest', at: -1, done: [] }, 'at'],
      ['PUT', `rounds/${round.id}/turning`, { school: 'fewest', at: 0, done: [900] }, 'done.0'],
      ['POST', `rounds/${round.id}/conditions`, { engineTempC: 900, hoursSinceRun: 1 }, 'engineTempC'],
      ['POST', `rounds/${round.id}/conditions`, { engineTempC: 9, hoursSinceRun: -1 }, 'hoursSinceRun'],
      ['POST', `instruments/${set.id}/checks`, { block: 0, found: 0.5, nextDue: NEXT_YEAR }, 'block'],
      ['POST', `instruments/${set.id}/checks`, { block: 1, found: 0.5, nextDue: 'soon' }, 'nextDue'],
    ] as const)
      expect(await shop.call(LEAD, method, path, payload), path).toMatchObject({
        status: 400,
        body: { code: 'invalid', fields: [expect.objectContaining({ path: field })] },
      });
    for (const path of [`rounds/${randomUUID()}/turning`, `rounds/${randomUUID()}/conditions`])
      expect(
        await shop.call(
          BENCH,
          path.endsWith('turning') ? 'PUT' : 'POST',
          path,
          path.endsWith('turning') ? round.turning : { engineTempC: 1, hoursSinceRun: 1 },
        ),
      ).toMatchObject({ status: 404, body: { code: 'not_found' } });
    expect(
      await shop.call(BENCH, 'POST', `instruments/${randomUUID()}/checks`, {
        block: 1,
        found: 1,
        nextDue: NEXT_YEAR,
      }),
    ).toMatchObject({ status: 404 });
  });

  it('is refused in a round that is closed', async () => {
    const build = await shop.buildOf('Summit drive, Kestrel Ridge');
    const closed = build.rounds.find(({ kind }) => kind === 'as-found')!;
    expect(await shop.write(BENCH, 'PUT', `rounds/${closed.id}/turning`, closed.turning)).toMatchObject({
      status: 409,
      body: { code: 'round_closed' },
    });
  });
});

describe('a server that is closed', () => {
  it('waits for nobody who keeps a connection open, or never ends what they began to ask', async () => {
    const app = await TestShop.server(shop.db);
    const { port } = new URL(await app.listen({ port: 0, host: '127.0.0.1' }));
    const slow = connect({ host: '127.0.0.1', port: Number(port) });
    slow.on('error', () => undefined);
    await new Promise((resolve) => slow.write('GET /api/health HTTP/1.1\r\nhost: localhost\r\n', resolve));
    const hungUp = new Promise((resolve) => slow.once('close', resolve));
    await app.close();
    await hungUp;
  }, 15_000);
});
