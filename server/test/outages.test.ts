// Long because one shop is opened once and everything about it is tried there, one thing after the other.
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createServer, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Instrument, Tools } from '@zero-lash/contract/instruments';
import type { LiveEvent } from '@zero-lash/contract/live';
import type { FastifyInstance } from 'fastify';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../database.ts';
import { startServer } from '../../scripts/server.mjs';
import { startSimulatedGauge } from '../gauges/simulator.ts';
import { BENCH, cookiesOf, emptyDatabase, LEAD, TEST_SECRET, TestShop } from './shop.ts';
import { Cable } from './wire.ts';

/** Whole servers are started here: on a machine that is busy that takes its time. */
const SLOWLY = { timeout: 90_000, interval: 100 };

let shop: TestShop;
let cable: Cable;
let db: Knex;
let app: FastifyInstance;
let base: string;
beforeAll(async () => {
  shop = await TestShop.open();
  cable = new Cable(new URL(shop.url));
  await cable.mend();
  db = connect(cable.urlOf(shop.url));
  app = await TestShop.server(db);
  base = await app.listen({ port: 0, host: '127.0.0.1' });
});
afterAll(async () => {
  await app.close();
  await db.destroy();
  await cable.cut();
  await shop.close();
});

const health = async (at = base) => {
  const answer = await fetch(`${at}/api/health`).catch(() => null);
  return answer && { status: answer.status, ...((await answer.json()) as object) };
};

/** What a device hears on its stream, and whether the stream is over. */
async function hear(device: string) {
  const events: LiveEvent[] = [];
  const stream = { events, over: false };
  const headers = { cookie: await shop.cookieOf(BENCH) };
  const { body } = await fetch(`${base}/api/live?device=${device}`, { headers });
  const drain = async () => {
    for await (const chunk of body!.pipeThrough(new TextDecoderStream()))
      for (const line of chunk.split('\n'))
        if (line.startsWith('data: ')) events.push(JSON.parse(line.slice(6)) as LiveEvent);
  };
  drain().then(
    () => (stream.over = true),
    () => (stream.over = true),
  );
  return stream;
}

async function addGauge(port: number, device: string): Promise<Instrument> {
  const { body } = await shop.call<Instrument>(LEAD, 'POST', 'instruments', {
    ...{ name: `Gauge ${randomUUID().slice(0, 8)}`, kind: 'digital-gauge', unit: 'mm', uncertainty: 0.002 },
    ...{ angled: false, blades: [], missing: [], address: `127.0.0.1:${port}`, checkDue: null },
  });
  await shop.call(BENCH, 'POST', `gauges/${body.id}/hold`, { device });
  return body;
}

const isConnected = async (gauge: string) =>
  (await shop.call<{ instrument: string; connected: boolean }[]>(BENCH, 'GET', 'gauges')).body.some(
    ({ instrument, connected }) => instrument === gauge && connected,
  );
const reachedHere = async (gauge: string) => {
  const headers = { cookie: await shop.cookieOf(BENCH) };
  const answer = await app.inject({ url: '/api/gauges', headers });
  return (answer.json() as { instrument: string; connected: boolean }[]).some(
    ({ instrument, connected }) => instrument === gauge && connected,
  );
};

describe('a database that goes away', { timeout: 180_000 }, () => {
  it('is said so of, stops no server, and is worked with again when it is back', async () => {
    const device = randomUUID();
    const simulated = await startSimulatedGauge(0);
    const gauge = await addGauge(simulated.port, device);
    await expect.poll(() => reachedHere(gauge.id), SLOWLY).toBe(true);
    const headers = { cookie: await shop.cookieOf(BENCH) };
    const stream = await hear(device);
    const press = () =>
      shop.call(BENCH, 'POST', `gauges/${gauge.id}/simulation`, { gap: 0.2, noise: 0, press: true });
    await press();
    await expect.poll(() => stream.events.filter(({ kind }) => kind === 'gauge').length, SLOWLY).toBe(1);

    await cable.cut();
    await expect.poll(() => stream.over, SLOWLY).toBe(true);
    expect(await health()).toMatchObject({ status: 503, ok: false, database: 'away' });
    const refused = await app.inject({ url: '/api/engines', headers });
    expect(refused.statusCode).toBe(503);
    expect(refused.json()).toMatchObject({ code: 'database_away' });
    expect(refused.headers['content-type']).toContain('application/problem+json');
    expect((await app.inject({ url: '/api/live', headers })).statusCode).toBe(503);
    // a press that cannot be passed on ends nothing, and is missed
    await press();

    await cable.mend();
    await expect.poll(() => health(), SLOWLY).toMatchObject({ status: 200, ok: true });
    expect((await app.inject({ url: '/api/engines', headers })).statusCode).toBe(200);
    await expect.poll(async () => (await fetch(`${base}/api/live`, { headers })).status, SLOWLY).toBe(200);
    const again = await hear(device);
    await press();
    await expect
      .poll(() => again.events.filter(({ kind }) => kind === 'gauge'), SLOWLY)
      .toEqual([expect.objectContaining({ value: 0.2, trouble: 'lost-before' })]);
    await simulated.stop();
  });
});

describe('a gauge', { timeout: 180_000 }, () => {
  it('that is written down as it cannot be reached stops nobody, and no other gauge', async () => {
    for (const address of [
      '127.0.0.1:0',
      '127.0.0.1:99999',
      '10.0.0.5:4519',
      'example.org:80',
      '256.0.0.1:80',
    ])
      expect(
        await shop.call(LEAD, 'POST', 'instruments', {
          ...{ name: 'Nowhere', kind: 'digital-gauge', unit: 'mm', uncertainty: 0.002, angled: false },
          ...{ blades: [], missing: [], address, checkDue: null },
        }),
        address,
      ).toMatchObject(
        address.startsWith('10.')
          ? { status: 422, body: { code: 'address_not_allowed' } }
          : { status: 400, body: { fields: [{ path: 'address' }] } },
      );
    // as an older program took it, and as somebody may write it by hand
    for (const [index, address] of ['127.0.0.1:99999', 'nonsense', '127.0.0.1:1'].entries())
      await shop.db('instruments').insert({
        ...{ name: `Old gauge ${index}`, kind: 'digital-gauge', unit: 'mm', uncertainty: 20, address },
      });
    const simulated = await startSimulatedGauge(0);
    const gauge = await addGauge(simulated.port, randomUUID());
    const third = await TestShop.server(shop.db);
    await expect.poll(() => isConnected(gauge.id), SLOWLY).toBe(true);
    expect((await third.inject({ url: '/api/health' })).statusCode).toBe(200);
    await third.close();
    await simulated.stop();
  });

  it('on the shop’s own network is reached only while a lead allows it', async () => {
    const { shop: now } = (await shop.call<{ shop: { version: number } }>(LEAD, 'GET', 'session')).body;
    const allow = (gaugesOnNetwork: boolean, version: number) =>
      shop.call(LEAD, 'PATCH', 'shop', {
        ...{ name: 'Overmere Valley Engine Works', unit: 'mm', zone: 'Europe/Vienna' },
        ...{ gaugesOnNetwork, provesAgain: 'disturbed', lockedStands: false, allowOver: [], version },
        ...{ quietFrom: '19:00', quietTo: '07:00', remindDays: 14, meterFeed: '', coldHours: 6 },
      });
    expect((await allow(true, now.version)).status).toBe(200);
    const far = await shop.call<Instrument>(LEAD, 'POST', 'instruments', {
      ...{ name: 'Yard gauge', kind: 'digital-gauge', unit: 'mm', uncertainty: 0.002, angled: false },
      // this machine by another of its own addresses would do as well: nothing is sent to it here
      ...{ blades: [], missing: [], address: '192.168.0.1:4519', checkDue: '2031-01-01' },
    });
    expect(far.status).toBe(201);
    // put away before anybody could reach for it, and no more allowed afterwards
    await shop.db('instruments').where({ id: far.body.id }).update({ active: false });
    expect((await allow(false, now.version + 1)).status).toBe(200);
    const { instruments } = (await shop.call<Tools>(LEAD, 'GET', 'tools')).body;
    const { id, overdue: _, lastCheck: __, ...kept } = instruments.find(({ name }) => name === 'Yard gauge')!;
    expect(await shop.call(LEAD, 'PATCH', `instruments/${id}`, { ...kept, active: true })).toMatchObject({
      status: 422,
      body: { code: 'address_not_allowed' },
    });
  });

  it('that babbles is hung up on: nothing it sends holds up the rest', async () => {
    const line = `${'x'.repeat(60)}\n`.repeat(20_000);
    let calls = 0;
    const babbling = createServer((socket: Socket) => {
      calls += 1;
      socket.on('error', () => undefined);
      for (let times = 0; times < 20; times += 1) socket.write(line);
    });
    await new Promise<void>((resolve) => babbling.listen(0, '127.0.0.1', resolve));
    const { port } = babbling.address() as { port: number };
    const simulated = await startSimulatedGauge(0);
    const device = randomUUID();
    await addGauge(port, device);
    const good = await addGauge(simulated.port, device);
    await expect.poll(() => calls, SLOWLY).toBeGreaterThan(0);
    await expect.poll(() => reachedHere(good.id), SLOWLY).toBe(true);
    const stream = await hear(device);
    await shop.call(BENCH, 'POST', `gauges/${good.id}/simulation`, { gap: 0.31, noise: 0, press: true });
    await expect
      .poll(
        () => stream.events.find((event) => event.kind === 'gauge' && event.instrument === good.id),
        SLOWLY,
      )
      .toMatchObject({ value: 0.31 });
    expect(await health()).toMatchObject({ ok: true });
    await simulated.stop();
    babbling.close();
  });
});

describe('a server', { timeout: 180_000 }, () => {
  const running: ChildProcess[] = [];
  afterEach(async () => {
    for (const one of running.splice(0)) {
      const gone = new Promise((resolve) => one.once('exit', resolve));
      if (one.exitCode === null && one.kill('SIGTERM')) await gone;
    }
  });

  function start(env: Record<string, string>) {
    const child = startServer({ PORT: '0', ZERO_LASH_SECRET: TEST_SECRET, ...env }, 'pipe', 'pipe');
    running.push(child);
    const one = { child, said: '', address: () => /open at (http:\S+)/.exec(one.said)?.[1] };
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (chunk) => {
        one.said += String(chunk);
      });
    return one;
  }

  it('that starts before its database waits for it, and says so', async () => {
    const empty = await emptyDatabase();
    const later = new Cable(new URL(empty));
    await later.mend();
    const url = later.urlOf(empty);
    await later.cut();
    const [port] = [20_000 + Math.floor(Math.random() * 20_000)];
    const one = start({ DATABASE_URL: url, PORT: String(port), SHOP_ZONE: 'Europe/Vienna' });
    const at = `http://127.0.0.1:${port}`;
    await expect
      .poll(() => health(at), SLOWLY)
      .toMatchObject({ status: 503, ok: false, database: 'away', awake: false });
    const refused = await fetch(`${at}/api/engines`);
    expect(await refused.json()).toMatchObject({ status: 503, code: 'waking' });
    await expect.poll(() => one.said, SLOWLY).toContain('Waiting for the database');
    await later.mend();
    await expect.poll(() => health(at), SLOWLY).toMatchObject({ status: 200, ok: true, awake: true });
    await expect.poll(() => one.said, SLOWLY).toContain('sign in as First lead');
    running.pop()!.kill('SIGKILL');
    await later.cut();
  });

  it('beside two more fills one empty database once', async () => {
    const url = await emptyDatabase();
    const three = [1, 2, 3].map(() => start({ DATABASE_URL: url, ZERO_LASH_DEMO: 'yes' }));
    for (const one of three) await expect.poll(() => one.address(), SLOWLY).toBeDefined();
    for (const one of three) expect(await health(one.address()!), one.said).toMatchObject({ ok: true });
    const other = connect(url);
    expect(await other('people').count('* as n').first()).toEqual({ n: 4 });
    await other.destroy();
    const signIn = await fetch(`${three[2]!.address()}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: LEAD, passphrase: 'brass-and-feeler' }),
    });
    // one secret for all of them: a session of one is a session of each
    const cookie = cookiesOf(signIn.headers.getSetCookie());
    const elsewhere = await fetch(`${three[0]!.address()}/api/session`, { headers: { cookie } });
    expect(elsewhere.status).toBe(200);
  });

  it('killed in the middle of a migration leaves nothing that stops the next', async () => {
    const url = await emptyDatabase();
    const other = connect(url);
    await other.schema.raw(
      `create table knex_migrations_lock (index serial primary key, is_locked int);
       insert into knex_migrations_lock (is_locked) values (1)`,
    );
    await other.destroy();
    const one = start({ DATABASE_URL: url });
    await expect.poll(() => one.address(), SLOWLY).toBeDefined();
  });

  it('that cannot be started says why in one line, and need not be tried again', async () => {
    for (const [env, words] of [
      [
        { DATABASE_URL: shop.url, SHOP_ZONE: 'Mars/Base' },
        /SHOP_ZONE is Mars\/Base, and there is no such time zone/,
      ],
      [{ DATABASE_URL: shop.url, PORT: new URL(base).port }, /Port \d+ is taken/],
      [{ DATABASE_URL: shop.url, ZERO_LASH_SECRET: 'short' }, /shorter than 32 characters/],
    ] as const) {
      const one = start(env);
      expect(await new Promise((resolve) => one.child.once('exit', resolve))).toBe(78);
      expect(one.said).toMatch(words);
      expect(one.said.trim().split('\n')).toHaveLength(1);
    }
  });

  it('makes its secret once, for itself only', async () => {
    const file = join(tmpdir(), `zero-lash-secret-${randomUUID()}`);
    const { shopSecret } = await import('../secret.ts');
    const { readFileSync, rmSync, statSync } = await import('node:fs');
    const made = await shopSecret(file, undefined);
    expect(made).toMatch(/^[0-9a-f]{64}$/);
    expect(await shopSecret(file, undefined)).toBe(made);
    expect(readFileSync(file, 'utf8').trim()).toBe(made);
    expect(statSync(file).mode & 0o777).toBe(0o600);
    rmSync(file);
  });
});
