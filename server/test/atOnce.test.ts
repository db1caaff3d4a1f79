import { randomUUID } from 'node:crypto';
import type { Tools } from '@zero-lash/contract/instruments';
import type { Person, Shop } from '@zero-lash/contract/people';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { BENCH, LEAD, TestShop, VIEWER, type Answer } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** Ends with every answer one of those that may be, and says which there were. */
async function answers(calls: readonly Promise<Answer<{ code?: string }>>[]): Promise<string[]> {
  return (await Promise.all(calls)).map(({ status, body }) =>
    status < 400 ? 'done' : `${status} ${body.code}`,
  );
}

describe('two at once', () => {
  it('who each change something else of the shop, a bench or a person take nothing back from each other', async () => {
    const now = async () => (await shop.call<{ shop: Shop }>(LEAD, 'GET', 'session')).body.shop;
    const { allowOver, ...before } = await now();
    const change = (by: string, body: object) => shop.call<{ code: string }>(by, 'PATCH', 'shop', body);
    expect(
      await answers([
        change(LEAD, { name: 'Lower Valley Works' }),
        change('Osk Velland', { unit: 'thou' }),
        change(LEAD, { allowOver: [{ role: 'intake', over: 0.02 }] }),
        change('Osk Velland', { allowOver: [{ role: 'exhaust', over: 0.03 }] }),
      ]),
    ).toEqual(['done', 'done', 'done', 'done']);
    const after = await now();
    expect(after).toMatchObject({
      ...before,
      name: 'Lower Valley Works',
      unit: 'thou',
      version: before.version + 4,
    });
    expect(after.allowOver.toSorted((a, b) => a.over - b.over)).toEqual([
      { role: 'intake', over: 0.02 },
      { role: 'exhaust', over: 0.03 },
    ]);
    // who says what they read is told where that is no more
    expect(await answers([change(LEAD, { name: before.name, version: before.version })])).toEqual([
      '409 stale',
    ]);
    expect(await answers([change(LEAD, { ...before, allowOver: [], version: after.version })])).toEqual([
      'done',
    ]);
    expect(allowOver).toEqual([]);

    const { benches } = (await shop.call<Tools>(LEAD, 'GET', 'tools')).body;
    const { id, bladeSetId, maxStack } = benches[0]!;
    const bench = (body: object) => shop.call<{ code: string }>(LEAD, 'PATCH', `benches/${id}`, body);
    expect(await answers([bench({ bladeSetId: null }), bench({ maxStack: 1 })])).toEqual(['done', 'done']);
    const changed = (await shop.call<Tools>(LEAD, 'GET', 'tools')).body.benches.find(
      (each) => each.id === id,
    );
    expect(changed).toMatchObject({ bladeSetId: null, maxStack: 1 });
    expect(await answers([bench({ bladeSetId, maxStack })])).toEqual(['done']);
  });

  it('who change each other are both done, one after the other', async () => {
    const people = async () => (await shop.call<Person[]>(LEAD, 'GET', 'people')).body;
    const [ilse, osk] = [LEAD, 'Osk Velland'];
    for (let round = 0; round < 15; round += 1) {
      const all = await people();
      const of = (name: string) => all.find((person) => person.name === name)!;
      const edit = (by: string, person: Person) =>
        shop.call<{ code: string }>(by, 'PATCH', `people/${person.id}`, {
          version: person.version,
          name: person.name,
        });
      expect(
        await answers([
          edit(ilse, of(osk)),
          edit(osk, of(ilse)),
          edit(ilse, of(BENCH)),
          edit(osk, of(VIEWER)),
        ]),
      ).toEqual(['done', 'done', 'done', 'done']);
    }
  });

  it('who demote each other leave one lead', async () => {
    const osk = async () =>
      (await shop.call<Person[]>(LEAD, 'GET', 'people')).body.find(({ name }) => name === 'Osk Velland')!;
    const second = await shop.call<Person>(LEAD, 'POST', 'people', {
      ...{ name: 'Maren Stoll', role: 'lead', passphrase: 'a passphrase of hers' },
    });
    const demote = (person: Person) =>
      shop.call<{ code: string }>(LEAD, 'PATCH', `people/${person.id}`, {
        ...{ version: person.version, role: 'viewer' },
      });
    expect(await answers([demote(await osk()), demote(second.body)])).toEqual(['done', 'done']);
    const me = (await shop.call<Person[]>(LEAD, 'GET', 'people')).body.find(({ name }) => name === LEAD)!;
    expect(await answers([demote(me)])).toEqual(['409 last_lead']);
  });

  const named: readonly [string, (name: string) => Promise<[string, object]>][] = [
    [
      'engine',
      async (name) => [
        'engines',
        {
          ...{ name, serial: '', owner: '', duty: '', usage: 1 },
          sheetId: (await shop.buildOf('Frost fan 7, Chapel Slope')).sheet.sheetId,
        },
      ],
    ],
    ['person', async (name) => ['people', { name, role: 'bench', passphrase: 'a long enough one' }]],
    [
      'instrument',
      async (name) => [
        'instruments',
        {
          ...{ name, kind: 'caliper', unit: 'mm', uncertainty: 0.02, angled: false },
          ...{ blades: [], missing: [], address: null, checkDue: null },
        },
      ],
    ],
    ['bench', async (name) => ['benches', { name, bladeSetId: null, maxStack: 1 }]],
    ['sheet', async (name) => ['sheets', { name, maker: 'Vessany', body: DEMO_SHEETS.sawSingle.body }]],
  ];
  it.each(named)('who give a new %s the same name: one is told that it is taken', async (_what, make) => {
    for (let round = 0; round < 8; round += 1) {
      const [path, body] = await make(`Twin ${randomUUID().slice(0, 8)}`);
      const said = await answers([1, 2, 3].map(() => shop.call<{ code: string }>(LEAD, 'POST', path, body)));
      expect(said.sort()).toEqual(['409 name_taken', '409 name_taken', 'done']);
    }
  });

  it('one opening a build, one judging the recheck it ends: neither waits for the other for ever', async () => {
    for (const name of ['Trimmer, Pellow Mill', 'Frost fan 1, Upper Terrace']) {
      const build = await shop.buildOf(name);
      const recheck = build.rechecks.find(({ status }) => status === 'planned')!;
      const opened = await shop.write(BENCH, 'POST', `rechecks/${recheck.id}/round`, {});
      const round = opened.body.rounds.find(({ recheckId }) => recheckId === recheck.id)!;
      const points = await shop.db('lash_points').where({ revision_id: build.sheet.id }).select('key');
      for (const { key } of points)
        await shop.call(BENCH, 'POST', `rounds/${round.id}/readings`, {
          ...{ point: key, reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: '0.28 0.30' },
        });
      const said = await answers([
        shop.call<{ code: string }>(BENCH, 'POST', `engines/${build.engine.id}/builds`, {
          ...{ revisionId: build.sheet.id, complaint: 'again' },
        }),
        shop.call<{ code: string }>(BENCH, 'POST', `rechecks/${recheck.id}/outcome`),
        shop.call<{ code: string }>(BENCH, 'POST', `engines/${build.engine.id}/usages`, {
          usage: build.engine.usage + 1,
        }),
      ]);
      expect(said[0]).toBe('done');
      expect(said[1]).toMatch(/^(done|409 (build_closed|recheck_done))$/);
      expect(said[2]).toBe('done');
    }
  });
});

describe('writes that wait', () => {
  it('leave connections to those who read, and are done when they may', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const holding = await shop.db.transaction();
    await holding('builds').where({ id: build.id }).forUpdate().first('id');
    const writing = Array.from({ length: 12 }, (_, index) =>
      shop.call<{ code: string }>(BENCH, 'POST', `builds/${build.id}/notes`, {
        ...{ stage: build.stage, text: `note ${index}` },
      }),
    );
    await expect.poll(async () => waiting()).toBeGreaterThan(3);
    expect(await shop.call(null, 'GET', 'health')).toMatchObject({ status: 200, body: { ok: true } });
    expect((await shop.call(VIEWER, 'GET', 'engines')).status).toBe(200);
    await holding.rollback();
    expect(new Set(await answers(writing))).toEqual(new Set(['done']));
  });

  it('for too long are refused as busy, and have written nothing', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const holding = await shop.db.transaction();
    await holding('builds').where({ id: build.id }).forUpdate().first('id');
    const note = { stage: build.stage, text: 'never written' };
    const refused = await shop.call(BENCH, 'POST', `builds/${build.id}/notes`, note);
    await holding.rollback();
    expect(refused).toMatchObject({ status: 503, body: { code: 'busy' } });
    expect(refused.headers['retry-after']).toBeDefined();
    expect(await shop.db('stage_notes').where({ text: note.text })).toEqual([]);
  });

  const waiting = async () => {
    const { rows } = await shop.db.raw(
      `select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
    );
    return rows[0].n as number;
  };
});
