import { randomUUID } from 'node:crypto';
import type { Person } from '@zero-lash/contract/people';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cookiesOf, BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('who may come in', () => {
  it('is nobody without signing in, but for health', async () => {
    for (const path of ['today', 'engines', 'sheets', 'session', 'people'])
      expect(await shop.call(null, 'GET', path)).toMatchObject({
        status: 401,
        body: { code: 'unauthenticated' },
      });
    expect((await shop.call(null, 'GET', 'health')).status).toBe(200);
  });

  it('is told the same for a wrong name and a wrong passphrase, and is slowed down', async () => {
    const wrong = (name: string) => shop.call(null, 'POST', 'session', { name, passphrase: 'not this one' });
    const [unknown, known] = [await wrong('Nobody Here'), await wrong('Osk Velland')];
    expect(unknown.body).toEqual(known.body);
    for (let tries = 1; tries < 5; tries += 1) expect((await wrong('Osk Velland')).status).toBe(401);
    const slowed = await shop.call(null, 'POST', 'session', {
      name: 'Osk Velland',
      passphrase: 'second-look-twice',
    });
    expect(slowed).toMatchObject({ status: 429, body: { code: 'too_many_tries' } });
    expect(Number(slowed.headers['retry-after'])).toBeGreaterThan(0);
  });

  it('gets a cookie that no script reads and no other site sends, and loses it on signing out', async () => {
    const reply = await shop.app.inject({
      method: 'POST',
      url: '/api/session',
      payload: { name: 'petra quell', passphrase: 'only-looking-on' },
    });
    for (const cookie of [reply.headers['set-cookie']].flat()) {
      expect(cookie).toMatch(/HttpOnly/);
      expect(cookie).toMatch(/SameSite=Strict/);
    }
    const headers = { cookie: cookiesOf(reply.headers['set-cookie']), 'idempotency-key': randomUUID() };
    expect((await shop.app.inject({ url: '/api/today', headers })).statusCode).toBe(200);
    await shop.app.inject({ method: 'DELETE', url: '/api/session', headers });
    expect((await shop.app.inject({ url: '/api/today', headers })).statusCode).toBe(401);
  });

  it('is kept by leads, of whom one must stay', async () => {
    expect((await shop.call(BENCH, 'GET', 'people')).status).toBe(403);
    const added = await shop.call<{ id: string; version: number }>(LEAD, 'POST', 'people', {
      name: 'Runa Felt',
      role: 'bench',
      passphrase: 'a long enough one',
    });
    expect(added.status).toBe(201);
    const twice = { name: 'runa felt', role: 'viewer', passphrase: 'a long enough one' };
    expect(await shop.call(LEAD, 'POST', 'people', twice)).toMatchObject({
      status: 409,
      body: { code: 'name_taken' },
    });
    const people = await shop.call<{ id: string; name: string; role: string; version: number }[]>(
      LEAD,
      'GET',
      'people',
    );
    const leads = people.body.filter(({ role }) => role === 'lead');
    const leave = (person: { id: string; version: number }) =>
      shop.call(LEAD, 'PATCH', `people/${person.id}`, { version: person.version, role: 'viewer' });
    const me = leads.find(({ name }) => name === LEAD)!;
    const other = leads.find(({ name }) => name !== LEAD)!;
    expect((await leave(other)).status).toBe(200);
    expect(await leave(me)).toMatchObject({ status: 409, body: { code: 'last_lead' } });
  });
});

describe('a person', () => {
  it('may be called something else, but not what another is called', async () => {
    const people = async () => (await shop.call<Person[]>(LEAD, 'GET', 'people')).body;
    const viewer = (await people()).find(({ name }) => name === VIEWER)!;
    const call = (name: string, version: number) =>
      shop.call<Person>(LEAD, 'PATCH', `people/${viewer.id}`, { version, name });
    expect(await call('tobin HASK', viewer.version)).toMatchObject({
      status: 409,
      body: { code: 'name_taken', fields: [{ path: 'name' }] },
    });
    const renamed = await call('Petra Quell-Marrand', viewer.version);
    expect(renamed).toMatchObject({ status: 200, body: { name: 'Petra Quell-Marrand' } });
    expect((await call(VIEWER, renamed.body.version)).status).toBe(200);
  });

  it('stays a lead where two leads take each other’s lead away at once', async () => {
    const second = await shop.call<Person>(LEAD, 'POST', 'people', {
      ...{ name: 'Second Lead', role: 'lead', passphrase: 'a long enough one' },
    });
    const others = () => shop.db('people').where({ role: 'lead', active: true }).whereNot({ name: LEAD });
    const everybody = (await shop.call<Person[]>(LEAD, 'GET', 'people')).body;
    for (const person of everybody.filter(({ name, role }) => role === 'lead' && name !== LEAD))
      if (person.id !== second.body.id)
        await shop.call(LEAD, 'PATCH', `people/${person.id}`, { version: person.version, role: 'bench' });
    const me = everybody.find(({ name }) => name === LEAD)!;
    const answers = await Promise.all(
      [me, second.body].map(({ id, version }) =>
        shop.call(LEAD, 'PATCH', `people/${id}`, { version, role: 'viewer' }),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    await shop.db('people').where({ name: LEAD }).update({ role: 'lead' });
    await others().update({ role: 'bench' });
  });
});

describe('what is sent wrongly', () => {
  it.each([
    ['POST', 'engines', { name: 'x', serial: '', owner: '', duty: '', sheetId: NOBODY, usage: 0 }],
    ['POST', `engines/${NOBODY}/builds`, { revisionId: NOBODY, complaint: 'x' }],
    ['POST', `engines/${NOBODY}/usages`, { usage: 1 }],
    ['POST', `builds/${NOBODY}/notes`, { stage: 'set', text: 'x' }],
    [
      'POST',
      `rounds/${NOBODY}/readings`,
      { point: '1I', reading: { kind: 'drag', blade: 0.1 }, asTyped: '0.1' },
    ],
    ['POST', `rechecks/${NOBODY}/round`, {}],
  ] as const)('%s %s is refused to a viewer, and unknown to the bench', async (method, path, body) => {
    expect(await shop.call(VIEWER, method, path, body)).toMatchObject({
      status: 403,
      body: { code: 'forbidden' },
    });
    expect(await shop.call(BENCH, method, path, body)).toMatchObject({
      status: 404,
      body: { code: 'not_found' },
    });
  });

  it('is named field by field, and nothing is written', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const path = `rounds/${build.rounds[0]!.id}/readings`;
    const before = await shop.db('readings').count('* as n').first();
    const drag = (blade: unknown) => ({ point: '4I', reading: { kind: 'drag', blade }, asTyped: 'x' });
    for (const [body, status, code, field] of [
      [drag(-0.1), 400, 'invalid', /reading\.blade/],
      [drag(26), 400, 'invalid', /reading\.blade: no clearance is over 10 mm/],
      [drag('0.1'), 400, 'invalid', /reading\.blade/],
      [{ ...drag(0.1), reading: { kind: 'bracket', go: 0.2, noGo: 0.1 } }, 400, 'invalid', /thicker/],
      [{ ...drag(0.1), reading: { kind: 'tries', tries: [] } }, 400, 'invalid', /at least one blade/],
      [{ ...drag(0.1), asTyped: '0.1\u0000' }, 400, 'invalid', /asTyped: .*can be written/],
      [{ ...drag(0.1), point: '9E' }, 422, 'unknown_point', /no lash point 9E/],
      ['{"point": ', 400, 'malformed', /read/],
      [{ ...drag(0.1), asTyped: 'x'.repeat(300_000) }, 413, 'too_large', /more/],
    ] as const) {
      const answer = await shop.call<{ code: string; detail: string }>(BENCH, 'POST', path, body);
      expect(answer.headers['content-type']).toContain('application/problem+json');
      expect(answer).toMatchObject({ status, body: { code, detail: expect.stringMatching(field) } });
    }
    expect(await shop.db('readings').count('* as n').first()).toEqual(before);
  });

  it('is a 4xx for unknown routes, ids that are none, other types and missing keys', async () => {
    expect((await shop.call(BENCH, 'GET', 'nothing')).status).toBe(404);
    expect((await shop.call(BENCH, 'GET', 'builds/none')).body).toMatchObject({
      code: 'not_found',
      detail: 'There is nothing at this address.',
    });
    expect((await shop.call(BENCH, 'GET', `builds/${NOBODY}`)).status).toBe(404);
    expect((await shop.call(BENCH, 'GET', 'engines?limit=many')).status).toBe(400);
    expect(await shop.call(BENCH, 'POST', `rechecks/${NOBODY}/round`, {}, 'not-a-key')).toMatchObject({
      status: 400,
      body: { code: 'key_missing' },
    });
    const xml = await shop.app.inject({
      method: 'POST',
      url: '/api/session',
      headers: { 'content-type': 'application/xml' },
      payload: '<name/>',
    });
    expect(xml.statusCode).toBe(415);
  });

  it('is a stage skipped, a build not ready for signing, a setting out of its stage', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const move = (to: string, version = build.version) =>
      shop.call(BENCH, 'POST', `builds/${build.id}/stage`, { to, version });
    expect(await move('set')).toMatchObject({ status: 409, body: { code: 'stage_skipped' } });
    expect(await move('wear')).toMatchObject({ status: 409, body: { code: 'stage_not_ready' } });
    expect(await move('wear', 99)).toMatchObject({ status: 409, body: { code: 'stale' } });
    expect(
      await shop.call(LEAD, 'POST', `builds/${build.id}/sign-off`, {
        version: build.version,
        seq: build.seq,
      }),
    ).toMatchObject({
      status: 409,
      body: { code: 'not_provable' },
    });
    expect(
      await shop.call(BENCH, 'POST', `builds/${build.id}/settings`, {
        point: '1I',
        kind: 'turned',
        degrees: 5,
      }),
    ).toMatchObject({ status: 409, body: { code: 'wrong_stage' } });
    const edger = await shop.buildOf('Edger, Pellow Mill');
    expect(
      await shop.call(LEAD, 'POST', `builds/${edger.id}/sign-off`, {
        version: edger.version,
        seq: edger.seq,
      }),
    ).toMatchObject({
      status: 409,
      body: { code: 'not_provable', detail: expect.stringMatching(/first start/) },
    });
  });
});
