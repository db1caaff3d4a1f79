// Long because one shop is opened once and everything about it is tried there, one thing after the other.
import { createHash, randomUUID } from 'node:crypto';
import type { Owner } from '@zero-lash/contract/owners';
import type { Person, PersonChanged } from '@zero-lash/contract/people';
import type { Mailbox } from '@zero-lash/contract/reminders';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { FastifyInstance } from 'fastify';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { makeReminders } from '../reminders/make.ts';
import { routesOf } from '../routes.ts';
import { BENCH, cookiesOf, LEAD, TestShop, VIEWER } from './shop.ts';
import { ask, sendRaw } from './wire.ts';

let shop: TestShop;
let base: string;
let second: FastifyInstance;
beforeAll(async () => {
  shop = await TestShop.open();
  base = await shop.app.listen({ port: 0, host: '127.0.0.1' });
  second = await TestShop.server(shop.db, { trustProxy: 'loopback', receivedWithinMs: 600 });
});
afterAll(async () => {
  await second.close();
  await shop.close();
});

const signIn = (name: string, passphrase: string, headers: Record<string, string> = {}, app = shop.app) =>
  app.inject({ method: 'POST', url: '/api/session', headers, payload: { name, passphrase } });
const PASSPHRASE = 'a long enough one';
async function newcomer(role: 'bench' | 'lead' | 'viewer' = 'bench'): Promise<Person & { cookie: string }> {
  const name = `Runa ${randomUUID().slice(0, 8)}`;
  const { body } = await shop.call<Person>(LEAD, 'POST', 'people', { name, role, passphrase: PASSPHRASE });
  return { ...body, cookie: cookiesOf((await signIn(name, PASSPHRASE)).headers['set-cookie']) };
}
const withKey = (cookie: string) => ({ cookie, 'idempotency-key': randomUUID() });
const stands = async (cookie: string, app = shop.app) =>
  (await app.inject({ url: '/api/session', headers: { cookie } })).statusCode;

describe('a stranger', () => {
  /** Ways to write one address that a router may take for another. */
  const WAYS: readonly ((path: string) => string)[] = [
    (path) => path,
    (path) => path.replace('/api/', '/%61pi/'),
    (path) => path.replace('/api/', '/a%70%69/'),
    (path) => `${path.slice(0, -1)}%${path.charCodeAt(path.length - 1).toString(16)}`,
    (path) => `http://x${path}`,
    (path) => `HTTP://x${path.replace('/api/', '/%61pi/')}`,
    (path) => `/${path}`,
    (path) => path.replace('/api/', '/api//'),
    (path) => path.replace('/api/', '/x/../api/'),
    (path) => path.replace('/api/', '/./api/'),
    (path) => path.toUpperCase(),
    (path) => `${path}/`,
    (path) => `${path}?/api/health`,
    (path) => `${path};/api/health`,
    (path) => `${path}#/api/health`,
  ];

  it('reads nothing, however the address is written', async () => {
    const reads = routesOf(shop.app).filter((route) => /^GET \/api\/(?!health)/.test(route));
    expect(reads.length).toBeGreaterThan(13);
    let refused = 0;
    for (const route of reads)
      for (const way of WAYS)
        for (const method of ['GET', 'HEAD']) {
          const target = way(route.slice(4).replace(/:\w+/g, randomUUID()));
          const { status } = await ask(base, target, {}, method);
          expect([400, 401, 404], `${method} ${target}`).toContain(status);
          if (status === 401) refused += 1;
        }
    expect(refused).toBeGreaterThan(reads.length * 4);
  });

  it('is refused where somebody signed in is answered by the same writing', async () => {
    const cookie = await shop.cookieOf(VIEWER);
    for (const target of ['/%61pi/engines', '/a%70i/engines', '/api/%65ngines']) {
      expect(await ask(base, target, { cookie }), target).toMatchObject({ status: 200 });
      expect(await ask(base, target), target).toMatchObject({ status: 401 });
    }
  });

  it('is answered as a problem whatever comes over the wire', async () => {
    for (const [bytes, status, code] of [
      ['GET /%zz HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n\r\n', 400, 'address_malformed'],
      [
        'GET /api/health HTTP/1.1\r\nhost: localhost\r\nexpect: a miracle\r\nconnection: close\r\n\r\n',
        417,
        'expectation',
      ],
      ['this is no HTTP\r\n\r\n', 400, 'malformed'],
      [`GET / HTTP/1.1\r\nhost: localhost\r\nx: ${'y'.repeat(40_000)}\r\n\r\n`, 413, 'too_large'],
    ] as const) {
      const answer = await sendRaw(base, bytes);
      expect(answer, code).toContain(`HTTP/1.1 ${status}`);
      expect(answer, code).toContain('application/problem+json');
      expect(answer, code).toContain(`"code":"${code}"`);
    }
  });

  it('is hung up on who sends half a request', async () => {
    const other = await second.listen({ port: 0, host: '127.0.0.1' });
    const half =
      'POST /api/session HTTP/1.1\r\nhost: localhost\r\ncontent-type: application/json\r\ncontent-length: 99\r\n\r\n{';
    expect(await sendRaw(other, half)).toMatch(/^HTTP\/1\.1 408[^]*"code":"too_slow"/);
    expect(await sendRaw(other, 'GET /api/health HTTP/1.1\r\nhost: ')).toMatch(/^HTTP\/1\.1 408/);
  });
});

describe('a session', () => {
  it('cannot be made from a copy of the database', async () => {
    const cookie = await shop.cookieOf(VIEWER);
    const sid = decodeURIComponent(/zero_lash=([^;.]+)/.exec(cookie)![1]!);
    const rows = await shop.db('sessions').select('*');
    expect(JSON.stringify(rows)).not.toContain(sid);
    expect(rows.map(({ sid: kept }) => kept)).not.toContain(createHash('sha256').update(sid).digest('hex'));
    expect(Object.keys((await shop.db('shop').first())!)).not.toContain('cookie_secret');
    for (const { sid: kept } of rows) expect(await stands(`zero_lash=${encodeURIComponent(kept)}`)).toBe(401);
  });

  it('goes over HTTPS only where it came over HTTPS, by the word of a proxy that is trusted', async () => {
    const asked = { 'x-forwarded-proto': 'https' };
    const through = await signIn(VIEWER, 'only-looking-on', asked, second);
    for (const set of [through.headers['set-cookie']].flat()) expect(set).toMatch(/; Secure/);
    const stranger = await signIn(VIEWER, 'only-looking-on', asked);
    for (const set of [stranger.headers['set-cookie']].flat()) expect(set).not.toMatch(/; Secure/);
  });

  it('ends everywhere at one word of its own person, or of a lead', async () => {
    const { cookie, name, id } = await newcomer();
    const another = cookiesOf((await signIn(name, PASSPHRASE)).headers['set-cookie']);
    await shop.app.inject({ method: 'DELETE', url: '/api/session/everywhere', headers: withKey(cookie) });
    expect([await stands(cookie), await stands(another)]).toEqual([401, 401]);
    const third = cookiesOf((await signIn(name, PASSPHRASE)).headers['set-cookie']);
    expect(await stands(third, second)).toBe(200);
    expect((await shop.call(BENCH, 'DELETE', `people/${id}/sessions`)).status).toBe(403);
    expect((await shop.call(LEAD, 'DELETE', `people/${id}/sessions`)).status).toBe(204);
    expect(await stands(third, second)).toBe(401);
  });

  it('needs a key to be ended, as every write does', async () => {
    const { cookie } = await newcomer();
    const ended = await shop.app.inject({ method: 'DELETE', url: '/api/session', headers: { cookie } });
    expect(ended.json()).toMatchObject({ code: 'key_missing' });
    expect(await stands(cookie)).toBe(200);
  });
});

describe('a live stream', () => {
  async function listen(cookie: string): Promise<{ over: boolean; stop: () => void }> {
    const stop = new AbortController();
    const stream = { over: false, stop: () => stop.abort() };
    const { body, status } = await fetch(`${base}/api/live`, { headers: { cookie }, signal: stop.signal });
    expect(status).toBe(200);
    const reader = body!.getReader();
    const drain = async () => {
      while (!(await reader.read()).done);
      stream.over = true;
    };
    drain().catch(() => undefined);
    return stream;
  }

  it.each<[string, (person: Person & { cookie: string }) => Promise<unknown>]>([
    [
      'signs out on another server',
      ({ cookie }) => second.inject({ method: 'DELETE', url: '/api/session', headers: withKey(cookie) }),
    ],
    [
      'leaves the shop',
      ({ id, version }) => shop.call(LEAD, 'PATCH', `people/${id}`, { version, active: false }),
    ],
    [
      'is given another role',
      ({ id, version }) => shop.call(LEAD, 'PATCH', `people/${id}`, { version, role: 'viewer' }),
    ],
    [
      'is given another passphrase',
      ({ id, version }) =>
        shop.call(LEAD, 'PATCH', `people/${id}`, { version, passphrase: 'another long one' }),
    ],
  ])('ends when its person %s, and nobody else’s does', async (_what, doIt) => {
    const person = await newcomer();
    const [theirs, ours] = [await listen(person.cookie), await listen(await shop.cookieOf(VIEWER))];
    await doIt(person);
    await expect.poll(() => theirs.over).toBe(true);
    expect(ours.over).toBe(false);
    ours.stop();
  });
});

describe('whoever guesses at the door', () => {
  const guesses = async (name: string, count: number, headers: Record<string, string> = {}, app = second) =>
    (
      await Promise.all(
        Array.from({ length: count }, (_, index) => signIn(name, `guess number ${index}`, headers, app)),
      )
    ).filter(({ statusCode }) => statusCode === 401).length;

  it('has five tries, also sixty at once on two servers, and under any spelling', async () => {
    const { name } = await newcomer();
    const [here, there] = await Promise.all([
      guesses(name, 30, { 'x-forwarded-for': '10.1.1.1' }),
      guesses(name, 30, {}, shop.app),
    ]);
    expect(here + there).toBe(5);
    expect((await signIn(name.toUpperCase(), PASSPHRASE)).statusCode).toBe(429);
    expect(await guesses(name.replace('u', 'U'), 5)).toBe(0);
  });

  it('does not lock out whoever signed in on this device before, nor the rest of the shop', async () => {
    const { name, cookie } = await newcomer('lead');
    expect(await guesses(name, 12, { 'x-forwarded-for': '10.1.1.2' })).toBe(5);
    expect((await signIn(name, PASSPHRASE)).statusCode).toBe(429);
    const own = await signIn(name, PASSPHRASE, { cookie });
    expect(own.statusCode).toBe(200);
    // a device is known for its own person, not for everybody
    const { name: other } = await newcomer();
    expect(await guesses(other, 8, { cookie, 'x-forwarded-for': '10.1.1.3' })).toBe(5);
    expect((await signIn(VIEWER, 'only-looking-on')).statusCode).toBe(200);
  });

  it('is told from fifty honest people at once, who all come in, by one door or by two', async () => {
    const people = await Promise.all(Array.from({ length: 10 }, () => newcomer()));
    const from = { 'x-forwarded-for': '10.1.9.9' };
    const answers = await Promise.all(
      Array.from({ length: 50 }, (_, index) =>
        signIn(people[index % 10]!.name, PASSPHRASE, from, index % 2 ? second : shop.app),
      ),
    );
    expect(answers.map(({ statusCode }) => statusCode).filter((status) => status !== 200)).toEqual([]);
    const { rows } = await shop.db.raw('select sum(pending)::int as pending from sign_in_tries');
    expect(rows[0].pending).toBe(0);
  }, 30_000);

  it('leaves a bounded trace, without a word of what was guessed', async () => {
    const guessed = 'brass-and-feeler, typed into the wrong field';
    await guesses(guessed, 1, { 'x-forwarded-for': '10.1.1.7' });
    const subjects = (await shop.db('sign_in_tries').pluck('subject')) as string[];
    expect(subjects.filter((subject) => subject.startsWith('name:')).length).toBeGreaterThan(0);
    for (const subject of subjects)
      expect(subject).toMatch(/^(name:[0-9a-f]{3}|(person|device|address):.+)$/);
    expect(JSON.stringify(subjects)).not.toContain('brass');
  });

  it('is counted by the network of a long address, of which they have as many as they like', async () => {
    let tried = 0;
    for (let round = 0; round < 30; round += 1)
      tried += await guesses(`Nobody at ${round}`, 1, { 'x-forwarded-for': `2001:db8:7:7::${round + 1}` });
    expect(tried).toBe(20);
  });

  it('has few tries on a device that is known, too', async () => {
    const { name, cookie } = await newcomer();
    expect(await guesses(name, 9, { cookie })).toBe(5);
    expect((await signIn(name, PASSPHRASE, { cookie })).statusCode).toBe(429);
  });

  it('is slowed down by their address, whosever names they try, and cannot clear it by signing in themself', async () => {
    const from = { 'x-forwarded-for': '10.1.1.4' };
    const { name } = await newcomer();
    let tried = 0;
    for (let round = 0; round < 8; round += 1) {
      tried += await guesses(`Nobody ${round}`, 4, from);
      await signIn(name, PASSPHRASE, from, second);
    }
    expect(tried).toBe(20);
  });
});

describe('a passphrase of one’s own', () => {
  const change = (cookie: string, body: object, key = randomUUID()) =>
    shop.app.inject({
      ...{ method: 'PATCH', url: '/api/session/passphrase', payload: body },
      headers: { cookie, 'idempotency-key': key },
    });

  it('is given by who knows the old one, and every other device is signed out', async () => {
    const { name, cookie } = await newcomer('viewer');
    const elsewhere = cookiesOf((await signIn(name, PASSPHRASE)).headers['set-cookie']);
    const next = 'chosen by nobody else';
    const wrong = await change(cookie, { currentPassphrase: 'not this one', passphrase: next });
    expect(wrong.json()).toMatchObject({ status: 409, code: 'other_passphrase' });
    const short = await change(cookie, { currentPassphrase: PASSPHRASE, passphrase: 'short' });
    expect(short.statusCode).toBe(400);
    const key = randomUUID();
    const body = { currentPassphrase: PASSPHRASE, passphrase: next };
    expect((await change(cookie, body, key)).statusCode).toBe(204);
    // its answer was lost: asked for again it is done once, and another under its key is refused
    expect((await change(cookie, body, key)).statusCode).toBe(204);
    expect((await change(cookie, { ...body, passphrase: 'another long one' }, key)).json()).toMatchObject({
      code: 'key_reused',
    });
    expect([await stands(cookie), await stands(elsewhere)]).toEqual([200, 401]);
    expect((await signIn(name, PASSPHRASE)).statusCode).toBe(401);
    expect((await signIn(name, next)).statusCode).toBe(200);
    const { body: changes } = await shop.call<PersonChanged[]>(LEAD, 'GET', 'people/changes');
    expect(changes[0]).toMatchObject({ person: name, by: name, what: ['new passphrase'] });
  });

  it('is no way to guess the old one', async () => {
    const { cookie } = await newcomer();
    const tries = [];
    for (let guess = 0; guess < 8; guess += 1)
      tries.push(
        (await change(cookie, { currentPassphrase: `guess ${guess}`, passphrase: 'x'.repeat(12) }))
          .statusCode,
      );
    expect(tries.filter((status) => status === 409)).toHaveLength(5);
    expect(tries.at(-1)).toBe(429);
  });
});

describe('where owners are written to', () => {
  it('is not seen by who only looks on: in owners, letters and records', async () => {
    const { body: owners } = await shop.call<Owner[]>(VIEWER, 'GET', 'owners');
    expect(owners.filter(({ email }) => email === null).length).toBeGreaterThan(2);
    expect(owners.filter(({ email }) => email)).toEqual([]);
    expect((await shop.call<Owner[]>(BENCH, 'GET', 'owners')).body.some(({ email }) => email)).toBe(true);
    await makeReminders(shop.db);
    await shop.db('reminders').update({ tries: 1, complaint: 'no yard@sellend.example here' });
    const { body: mail } = await shop.call<Mailbox>(VIEWER, 'GET', 'reminders');
    expect(mail.reminders.length).toBeGreaterThan(0);
    expect(JSON.stringify(mail)).not.toMatch(/@sellend|@orrel|@overmereworks/);
    const { id } = await shop
      .db('engines as e')
      .join('owners as o', 'o.id', 'e.owner_id')
      .whereNot({ 'o.email': '' })
      .first('e.id');
    const recordOf = async (who: string) => {
      const zip = (await shop.raw(who, `/api/engines/${id}/record`)).rawPayload;
      return strFromU8(unzipSync(zip)['record.json']!);
    };
    expect(await recordOf(BENCH)).toMatch(/"email": "[^"]+@/);
    expect(await recordOf(VIEWER)).not.toMatch(/"email": "[^"]+@/);
  });
});

describe('what is kept of a write', () => {
  it('is no hash that can be guessed, and says nothing of a passphrase', async () => {
    const key = randomUUID();
    const body = { name: `Kept ${key.slice(0, 8)}`, role: 'bench', passphrase: 'one that is never kept' };
    await shop.call(LEAD, 'POST', 'people', body, key);
    const kept = (await shop.db('writes').where({ key }).first())!;
    const lead = (await shop.call<Person[]>(LEAD, 'GET', 'people')).body.find(({ name }) => name === LEAD)!;
    const told = `${lead.id} POST /api/people ${JSON.stringify(body)}`;
    for (const guess of [told, told.replace(/,"passphrase":"[^"]+"/, '')])
      expect(kept.fingerprint).not.toBe(createHash('sha256').update(guess).digest('hex'));
    expect(JSON.stringify(kept)).not.toContain(body.passphrase);
    expect((await shop.call(LEAD, 'POST', 'people', body, key)).status).toBe(201);
    // another passphrase is another write, and whoever sent it is not told that it stands
    for (const passphrase of ['a different one of ten', ''])
      expect((await shop.call(LEAD, 'POST', 'people', { ...body, passphrase }, key)).status).not.toBe(201);
    expect(await shop.call(LEAD, 'POST', 'people', { ...body, role: 'viewer' }, key)).toMatchObject({
      body: { code: 'key_reused' },
    });
  });

  it('is small: a build’s answer is not kept with it', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const key = randomUUID();
    const note = { stage: build.stage, text: 'Gasket face clean' };
    const first = await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, note, key);
    const again = await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, note, key);
    expect(again.body).toEqual(first.body);
    const { answer } = (await shop.db('writes').where({ key }).first('answer'))!;
    expect(JSON.stringify(answer).length).toBeLessThan(200);
  });
});

describe('changes to people', () => {
  it('stay on the record, and a lead put out of office by the author still counts as the second', async () => {
    const author = await newcomer('lead');
    const as = async (method: 'POST' | 'PATCH', url: string, payload: object) => {
      const answer = await shop.app.inject({ method, url, payload, headers: withKey(author.cookie) });
      return { status: answer.statusCode, body: answer.json() };
    };
    const sheet = { maker: 'Vessany', name: 'On my own word', body: DEMO_SHEETS.sawSingle.body };
    const draft = (await as('POST', '/api/sheets', sheet)).body as SheetRevision;
    const publish = () =>
      as('POST', `/api/sheet-revisions/${draft.id}/publication`, { version: draft.version });
    expect(await publish()).toMatchObject({ body: { code: 'second_person' } });
    const { body: people } = await shop.call<Person[]>(LEAD, 'GET', 'people');
    const others = people.filter(({ id, role, active }) => id !== author.id && role === 'lead' && active);
    expect(others.length).toBeGreaterThan(1);
    for (const { id, version } of others)
      expect(await as('PATCH', `/api/people/${id}`, { version, active: false })).toMatchObject({
        status: 200,
      });
    expect(await publish()).toMatchObject({ status: 409, body: { code: 'second_person' } });
    for (const { id, version } of others)
      expect(await as('PATCH', `/api/people/${id}`, { version: version + 1, active: true })).toMatchObject({
        status: 200,
      });
    shop.forgetCookies();
    const changes = (await shop.call<PersonChanged[]>(LEAD, 'GET', 'people/changes')).body;
    expect(changes[0]).toMatchObject({ by: author.name, what: ['is back'] });
    expect(changes.filter(({ by }) => by === author.name)).toHaveLength(2 * others.length);
    await expect(shop.db('people_changes').update({ passphrase_set: false })).rejects.toThrow(/stays/);
  });
});

describe('what no column takes', () => {
  it('is refused with a reason, and never breaks', async () => {
    const sheetOf = (change: object) => ({
      ...{ maker: 'Vessany', name: 'Odd' },
      body: { ...DEMO_SHEETS.sawSingle.body, ...change },
    });
    const { pattern } = DEMO_SHEETS.sawSingle.body;
    const brake = { cylinder: pattern.cylinders[0]!.id, opens: 600, closes: 700 };
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const engine = `engines/${build.engine.id}`;
    const names = { serial: '', owner: '', duty: '' };
    for (const [path, body] of [
      ['sheets', sheetOf({ limits: [{ role: 'intake', min: 0.1, max: 0.10004, asWritten: '' }] })],
      ['sheets', sheetOf({ pattern: { ...pattern, brakes: [brake, brake] } })],
      ['sheets', sheetOf({ notes: 'half a sign: \ud83d' })],
      ['instruments', { name: 'Odd', kind: 'caliper', checkDue: '0000-01-01' }],
      [`${engine}/usages`, { usage: 1e300 }],
      ...['\u202egnp', '\u2066x\u2069', 'Fan\u200b', '\ufeffFan 3', 'Fa\u00adn'].map(
        (mark) =>
          ['engines', { ...names, name: `Fan ${mark} 3`, sheetId: build.sheet.sheetId, usage: 1 }] as const,
      ),
      ['engines', { ...names, name: 'Fan\nand pump', sheetId: build.sheet.sheetId, usage: 1 }],
      ['engines', { ...names, name: 'Fan\u2028and pump', sheetId: build.sheet.sheetId, usage: 1 }],
    ] as const)
      expect(await shop.call(LEAD, 'POST', path, body), JSON.stringify(body)).toMatchObject({
        status: 400,
        body: { code: 'invalid' },
      });
    expect(await shop.call(LEAD, 'PATCH', engine, { ...names, name: 'Fan', version: 2 ** 31 })).toMatchObject(
      { status: 400, body: { fields: [{ path: 'version' }] } },
    );
    const deep = `{"text":${'['.repeat(40_000)}${']'.repeat(40_000)}}`;
    expect((await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, deep)).status).toBe(400);
    expect((await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, deep.slice(8, -1))).status).toBe(400);
  });
});
