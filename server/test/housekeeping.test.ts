import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import type { Instrument, Tools } from '@zero-lash/contract/instruments';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keepRunning, UNSTARTABLE } from '../../scripts/supervise.mjs';
import { everySoOften } from '../background.ts';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { Papers } from '../paperPool.ts';
import { cleanUp } from '../cleanup.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const asViewer = async (url: string, headers: Record<string, string> = {}) =>
  shop.app.inject({ url, headers: { cookie: await shop.cookieOf(VIEWER), ...headers } });

describe('what lies about', () => {
  it('is tidied: sessions that ran out, old misses, devices long gone, answers long given; nothing younger', async () => {
    const { db } = shop;
    const person = await db('people').first('id');
    const old = `now() - interval '401 days'`;
    const [young, gone] = [randomUUID(), randomUUID()];
    for (const [mark, at] of [
      [young, 'now()'],
      [gone, old],
    ] as const) {
      const moment = db.raw(at);
      await db('sessions').insert({ sid: mark, data: '{}', expires_at: db.raw(`${at} + interval '1 hour'`) });
      await db('sign_in_tries').insert({ subject: mark, misses: 3, last_at: moment });
      await db('known_devices').insert({ mark, person_id: person!.id, last_at: moment });
      await db('writes').insert({ key: mark, route: 'x', fingerprint: 'x', status: 200, at: moment });
    }
    await cleanUp(db);
    for (const [table, column] of [
      ['sessions', 'sid'],
      ['sign_in_tries', 'subject'],
      ['known_devices', 'mark'],
      ['writes', 'key'],
    ] as const)
      expect(await db(table).whereIn(column, [young, gone]).pluck(column), table).toEqual([young]);
  });

  it('is tidied again and again, one at a time, also after it failed once', async () => {
    let [running, most, times] = [0, 0, 0];
    const stop = everySoOften(shop.app.log, 'counting', 1, async () => {
      running += 1;
      most = Math.max(most, running);
      times += 1;
      // it takes its time, as the database does
      await shop.db.raw('select 1');
      running -= 1;
      if (times === 1) throw new Error('the first time');
    });
    await expect.poll(() => times).toBeGreaterThan(3);
    stop();
    expect(most).toBe(1);
    const after = times;
    // another one goes round and round meanwhile
    let rounds = 0;
    const stopOther = everySoOften(shop.app.log, 'counting beside', 1, async () => {
      rounds += 1;
    });
    await expect.poll(() => rounds).toBeGreaterThan(5);
    stopOther();
    expect(times).toBeLessThanOrEqual(after + 1);
  });
});

describe('answers', () => {
  it('go compressed to whoever takes them so, a stream never', async () => {
    const plain = await asViewer('/api/sheets');
    const packed = await asViewer('/api/sheets', { 'accept-encoding': 'gzip' });
    expect(packed.headers['content-encoding']).toBe('gzip');
    expect(plain.headers['content-encoding']).toBeUndefined();
    expect(packed.rawPayload.length).toBeLessThan(plain.rawPayload.length / 3);
    const small = await asViewer('/api/session', { 'accept-encoding': 'gzip' });
    expect(small.headers['content-encoding']).toBeUndefined();
  });

  it('about gauges tell whose they are, and no device’s own name', async () => {
    const { body } = await shop.call<Tools>(VIEWER, 'GET', 'tools');
    const gauge = body.instruments.find(({ kind }) => kind === 'digital-gauge') as Instrument;
    const device = randomUUID();
    await shop.call(BENCH, 'POST', `gauges/${gauge.id}/hold`, { device });
    const others = await asViewer('/api/gauges');
    expect(others.body).not.toContain(device);
    const of = (answer: typeof others) =>
      answer.json<{ instrument: string }[]>().find(({ instrument }) => instrument === gauge.id);
    expect(of(others)).toMatchObject({ heldBy: BENCH, heldHere: false });
    expect(of(await asViewer(`/api/gauges?device=${device}`))).toMatchObject({ heldHere: true });
    await shop.call(LEAD, 'POST', `gauges/${gauge.id}/release`, { device: randomUUID() });
    expect(of(await asViewer(`/api/gauges?device=${device}`))).toMatchObject({ heldHere: true });
  });
});

describe('stop cards', () => {
  const sheet = async () => (await shop.buildOf('Frost fan 7, Chapel Slope')).sheet satisfies SheetRevision;

  it('of a twelve with a brake rocker on every cylinder are drawn', async () => {
    const { pattern } = DEMO_SHEETS.sawSingle.body;
    const cylinders = Array.from({ length: 12 }, (_, index) => ({
      ...{ id: String(index + 1), bank: 'A' as const, place: index + 1, firesAt: index * 60 },
    }));
    const twelve = {
      ...pattern,
      ...{ layout: 'inline' as const, bankAngle: null, cylinders, margin: 0 },
      marks: Array.from({ length: 72 }, (_, index) => index * 10),
      brakes: cylinders.map(({ id }, index) => ({
        cylinder: id,
        opens: 60 + index * 7,
        closes: 725 + index * 7,
      })),
    };
    const limit = { min: 0.2, max: 0.3, figure: null, asWritten: '', also: [] };
    const cards = new Papers();
    const card = await cards.draw('stop-card', {
      school: 'fewest',
      sheet: {
        ...(await sheet()),
        pattern: twelve,
        limits: [
          { role: 'intake', ...limit },
          { role: 'exhaust', ...limit },
          { role: 'brake', ...limit },
        ],
      },
    });
    expect(card.subarray(0, 5).toString()).toBe('%PDF-');
    await cards.close();
  });

  it('are refused when too many wait, rather than kept waiting', async () => {
    const cards = new Papers();
    const drawn = await Promise.allSettled(
      await Promise.all(Array.from({ length: 60 }, async () => sheet())).then((sheets) =>
        sheets.map((one) => cards.draw('stop-card', { sheet: one, school: 'companion' })),
      ),
    );
    const refused = drawn.filter(({ status }) => status === 'rejected') as PromiseRejectedResult[];
    expect(refused.length).toBeGreaterThan(0);
    expect(new Set(refused.map(({ reason }) => (reason as { code: string }).code))).toEqual(
      new Set(['busy']),
    );
    expect(drawn.length - refused.length).toBeGreaterThanOrEqual(20);
    await cards.close();
  });
});

describe('what falls', () => {
  const ends = (code: string) => spawn(process.execPath, ['-e', code], { stdio: 'ignore' });
  const QUICK = { firstPauseMs: 10, longestPauseMs: 40 };

  it('is started again after a pause that grows, and said so', async () => {
    const said: string[] = [];
    let starts = 0;
    const kept = keepRunning(
      'The thing',
      () => {
        starts += 1;
        return ends(starts < 5 ? 'process.exit(3)' : 'setInterval(() => {}, 1000)');
      },
      (text: string) => said.push(text),
      QUICK,
    );
    await expect.poll(() => starts, { timeout: 20_000 }).toBe(5);
    expect(said).toEqual(
      ['0.01', '0.02', '0.04', '0.04'].map(
        (pause) => `The thing fell (exit 3); started again in ${pause} s.`,
      ),
    );
    kept.child().kill('SIGKILL');
    await expect.poll(() => starts, { timeout: 20_000 }).toBe(6);
    await kept.stop();
    expect(await kept.ended).toBeDefined();
  });

  it('is left where starting again mends nothing, or where it ended well', async () => {
    for (const code of [0, UNSTARTABLE]) {
      let starts = 0;
      const kept = keepRunning(
        'The thing',
        () => {
          starts += 1;
          return ends(`process.exit(${code})`);
        },
        () => undefined,
        QUICK,
      );
      expect(await kept.ended).toBe(code);
      expect(starts).toBe(1);
    }
  });
});

describe('what a script started', () => {
  /** A script that starts two things, says so, and goes on until it is told to stop. */
  const SCRIPT = `
    import { stopsAtEnd } from '${new URL('../../scripts/supervise.mjs', import.meta.url).href}';
    const all = stopsAtEnd();
    all.add(() => console.log('first stopped'));
    all.add(async () => { await new Promise((done) => setTimeout(done, 50)); console.log('second stopped'); });
    all.add(() => { throw new Error('cannot be stopped'); });
    console.log('begun');
    setInterval(() => {}, 1000);`;

  it('is stopped when the script is interrupted, the last first, also where one cannot be', async () => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) {
      const script = spawn(process.execPath, ['--input-type=module', '-e', SCRIPT], {
        stdio: ['ignore', 'pipe', 'ignore'],
      });
      let said = '';
      script.stdout.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        if (said === 'begun\n') script.kill(signal);
      });
      const code = await new Promise((resolve) => script.once('exit', resolve));
      expect([code, said.split('\n').filter(Boolean)]).toEqual([
        ...[130, ['begun', 'second stopped', 'first stopped']],
      ]);
    }
  });
});

describe('the route that others are measured by', () => {
  it('is there only where it is asked for', async () => {
    expect((await shop.app.inject({ url: '/api/bare' })).statusCode).toBe(404);
    const bench = await TestShop.server(shop.db, { bareRoute: true, watchAnswers: () => undefined });
    expect((await bench.inject({ url: '/api/bare' })).json()).toEqual({ ok: true });
    await bench.close();
  });
});
