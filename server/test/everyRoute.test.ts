// Long because every route has its sample here, and all of them are tried in the same ways.
import { randomUUID } from 'node:crypto';
import { zipRecord } from '../records/read.ts';
import type { Owner } from '@zero-lash/contract/owners';
import type { PieceOrder } from '@zero-lash/contract/pieces';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { EngineList, EngineRow, EngineView } from '@zero-lash/contract/engines';
import type { Tools } from '@zero-lash/contract/instruments';
import type { Person, Session } from '@zero-lash/contract/people';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { routesOf } from '../routes.ts';
import { BENCH, LEAD, parsePublished, TestShop, VIEWER } from './shop.ts';
import { aPicture } from './pictures.ts';
import { hotEngine } from './hotSheet.ts';
import { Work } from './worked.ts';

/** Pieces of the demo's sheets, whose drawer has a price. */
const DRAWER_SYSTEM = 'shim under-bucket 9.5';

type Method = 'GET' | 'POST' | 'PATCH' | 'PUT' | 'DELETE';

let shop: TestShop;
/** A body each write takes, and where it goes, by its route. */
let samples: ReadonlyMap<string, { readonly path: string; readonly body: object }>;
beforeAll(async () => {
  shop = await TestShop.open({ watchAnswers: parsePublished() });
  samples = new Map(Object.entries(await makeSamples()));
});
afterAll(() => shop.close());

const routes = () => routesOf(shop.app);

/** Writes that change a row people edit, and say which version of it they saw. */
const VERSIONED =
  /^P(?:ATCH|UT) |sign-off$|stage$|publication$|abandon$|restore$|put-away$|bring-back$|move$|bench-day$|late-left$|revision$|job$|set-cold$/;
/** The last of them is let in by its address, which nobody guesses. */
const OPEN = ['GET /api/health', 'POST /api/session', 'GET /api/calendar/:token'];
/** Writes of a person's own session, whoever they are. */
const OF_ONES_OWN = [
  ...['POST /api/session', 'DELETE /api/session', 'DELETE /api/session/everywhere'],
  'PATCH /api/session/passphrase',
  ...['POST /api/calendar-feeds', 'DELETE /api/calendar-feeds/:id', 'POST /api/morning/looked'],
];

/** A build whose book was not here as it was opened, and the revision that has its limits since. */
async function bookArrived(shop: TestShop) {
  const { body } = DEMO_SHEETS.sawSingle;
  const publish = async ({ id, version }: SheetRevision) =>
    (await shop.call<SheetRevision>('Osk Velland', 'POST', `sheet-revisions/${id}/publication`, { version }))
      .body;
  const first = await shop.call<SheetRevision>(BENCH, 'POST', 'sheets', {
    ...{ maker: 'Vessany', name: 'Book to come', body: { ...body, limits: [], limitsToCome: true } },
  });
  const { id: revisionId, sheetId } = await publish(first.body);
  const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
    ...{ name: 'Unread', serial: '', owner: '', duty: '', usage: 1, sheetId },
  });
  const unread = await Work.on(shop, '', { engineId: engine.id, revisionId });
  const next = await shop.call<SheetRevision>(BENCH, 'POST', `sheets/${sheetId}/revisions`, { body });
  return { unread, known: await publish(next.body) };
}

async function makeSamples() {
  const build = await shop.buildOf('Frost fan 7, Chapel Slope');
  const [round] = build.rounds;
  const { body: tools } = await shop.call<Tools>(LEAD, 'GET', 'tools');
  const gauge = tools.instruments.find(({ kind }) => kind === 'digital-gauge')!;
  const blades = tools.instruments.find(({ kind }) => kind === 'blade-set')!;
  const { id: _, version: __, lastCheck: ___, overdue: ____, active: _____, ...set } = blades;
  const [bench] = tools.benches;
  const { body } = DEMO_SHEETS.sawSingle;
  const sheet = { maker: 'Vessany', name: 'Every route', body };
  const draftOf = async (name: string) =>
    (await shop.call<SheetRevision>(BENCH, 'POST', 'sheets', { ...sheet, name })).body;
  const [draft, toCheck] = [await draftOf('A draft'), await draftOf('A draft to check')];
  const alone = await draftOf('Published by who wrote it');
  await shop
    .db('sheet_revisions')
    .where({ id: alone.id })
    .update({
      ...{ status: 'published', published_at: shop.db.fn.now(), checked_by: shop.db.ref('entered_by') },
    });
  const { body: found } = await shop.call<EngineList>(LEAD, 'GET', 'engines?search=shelf');
  const shelf = found.engines[0]!;
  const people = await shop.call<Person[]>(LEAD, 'GET', 'people');
  const osk = people.body.find(({ name }) => name === 'Osk Velland')!;
  const beginning = await Work.on(shop, 'Edger, Pellow Mill');
  await beginning.tickAll();
  const [mixed, meant] = [
    await Work.on(shop, 'Edger, Pellow Mill'),
    await Work.on(shop, 'Edger, Pellow Mill'),
  ];
  for (const work of [mixed, meant]) await work.reach('as-found');
  await mixed.measure(mixed.points[0]!);
  const setting = await Work.on(shop, 'Edger, Pellow Mill');
  await setting.reach('set');
  await setting.set(setting.points[0]!);
  const setHere = setting.build.settings[0]!;
  const closing = await Work.on(shop, 'Edger, Pellow Mill');
  await closing.reach('close');
  await closing.tickAll();
  const signedOff = async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('close');
    await work.tickAll();
    await work.signOff();
    return work;
  };
  const running = await signedOff();
  const recheck = await running.recheck();
  const { unread, known } = await bookArrived(shop);
  const mistaken = await Work.on(shop, 'Edger, Pellow Mill');
  const abandoned = await Work.on(shop, 'Edger, Pellow Mill');
  await abandoned.abandon('the wrong engine');
  const added = async (name: string) =>
    (
      await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
        ...{ name, serial: '', owner: '', duty: '', usage: 1, sheetId: build.sheet.sheetId },
      })
    ).body;
  const [sold, away] = [await added('Sold on'), await added('Away')];
  const { id: checked } = await added('Checked');
  const check = await Work.on(shop, '', {
    ...{ engineId: checked, revisionId: build.sheet.id, job: 'valve-check' },
  });
  const put = await shop.call<EngineRow>(BENCH, 'POST', `engines/${away.id}/put-away`, {
    ...{ version: away.version, why: 'twice in the list' },
  });
  const { body: session } = await shop.call<Session>(LEAD, 'GET', 'session');
  const { body: engineOf } = await shop.call<EngineView>(LEAD, 'GET', `engines/${build.engine.id}`);
  const engine = { name: 'Fan', serial: '1', owner: 'Orchard', duty: 'frost' };
  const photograph = await setting.write('photographs', {
    ...{ stage: 'open-up', about: 'tray', note: '', file: await aPicture() },
  });
  const learned = await setting.write('know-how', {
    stage: 'open-up',
    text: 'The breather comes off first',
  });
  const { body: ordered } = await shop.call<PieceOrder[]>(BENCH, 'POST', 'drawer/orders', {
    ...{ system: DRAWER_SYSTEM, lines: [{ thickness: 2.45, count: 2 }] },
  });
  const aPlanned = async () => (await signedOff()).build.rechecks.find(({ status }) => status === 'planned')!;
  const [plannedOf, benched] = [await aPlanned(), await aPlanned()];
  const lateOf = await aPlanned();
  const proof = (await shop.db('rounds').where({ build_id: lateOf.buildId, kind: 'proved' }).first('id'))!;
  await shop.db('rechecks').where({ id: lateOf.id }).update({ late_round: proof.id, after_outcome: 'out' });
  const hot = await hotEngine(shop, ['intake', 'exhaust']);
  const { body: owners } = await shop.call<Owner[]>(LEAD, 'GET', 'owners');
  const { id: logged } = (await shop.db('usages').where({ engine_id: build.engine.id }).first('id'))!;
  const [line] = await shop
    .db('meter_lines')
    .insert({ serial: 'X9', at: new Date(), usage: 3, state: 'asked', why: 'no engine' })
    .returning('id');
  const rowOf = (answer: { readonly body: unknown }) =>
    (answer.body as BuildWrite).changes[0]!.row as { id: string; version: number };
  const at = (path: string, sample: object) => ({ path, body: sample });
  return {
    'POST /api/session': at('session', { name: 'Nobody', passphrase: 'nothing' }),
    'POST /api/engines': at('engines', { ...engine, sheetId: build.sheet.sheetId, usage: 3 }),
    'PATCH /api/engines/:id': at(`engines/${build.engine.id}`, {
      ...{ ...engine, name: 'Fan, changed', version: engineOf.version },
    }),
    'PUT /api/engines/:id/plan': at(`engines/${shelf.id}/plan`, {
      ...{ steps: [{ afterUsage: 9, afterDays: null }], why: 'Runs at night', version: shelf.version },
    }),
    'POST /api/engines/:id/last-check': at(`engines/${shelf.id}/last-check`, {
      ...{ on: '2020-01-05', usage: 0, by: 'The owner’s own fitter' },
    }),
    'POST /api/engines/:id/usages': at(`engines/${build.engine.id}/usages`, {
      usage: 90_000,
      sure: true,
      reason: '',
    }),
    'POST /api/engines/:id/builds': at(`engines/${shelf.id}/builds`, {
      revisionId: build.sheet.id,
      complaint: 'Again',
    }),
    'POST /api/sheets': at('sheets', sheet),
    'POST /api/sheets/:id/revisions': at(`sheets/${build.sheet.sheetId}/revisions`, { body }),
    'PUT /api/sheet-revisions/:id': at(`sheet-revisions/${draft.id}`, {
      ...{ ...sheet, name: 'A draft', version: draft.version },
    }),
    'POST /api/sheet-revisions/:id/second-reading': at(`sheet-revisions/${alone.id}/second-reading`, {}),
    'POST /api/sheet-revisions/:id/publication': at(`sheet-revisions/${toCheck.id}/publication`, {
      version: toCheck.version,
    }),
    'PATCH /api/shop': at('shop', {
      ...{
        name: 'Overmere',
        unit: 'mm',
        zone: 'Europe/Vienna',
        gaugesOnNetwork: false,
        ...{ quietFrom: '20:00', quietTo: '06:30', remindDays: 10, meterFeed: '' },
        provesAgain: 'cylinder',
        lockedStands: false,
        allowOver: [],
        version: session.shop.version,
      },
    }),
    'PATCH /api/builds/:id': at(`builds/${build.id}`, {
      ...{ version: build.version, complaint: 'Ticks', aim: 'loose-end' },
    }),
    'POST /api/builds/:id/stage': at(`builds/${beginning.build.id}/stage`, {
      to: 'open-up',
      version: beginning.build.version,
    }),
    'POST /api/builds/:id/job': at(`builds/${check.build.id}/job`, {
      ...{ version: check.build.version, job: 'rebuild' },
    }),
    'POST /api/builds/:id/set-cold': at(`builds/${hot.build.id}/set-cold`, {
      ...{ version: hot.build.version, setCold: { figures: [], why: 'no fuel in it' } },
    }),
    'POST /api/builds/:id/revision': at(`builds/${unread.build.id}/revision`, {
      ...{ version: unread.build.version, revisionId: known.id },
    }),
    'POST /api/builds/:id/abandon': at(`builds/${mistaken.build.id}/abandon`, {
      ...{ version: mistaken.build.version, why: 'opened twice' },
    }),
    'POST /api/builds/:id/restore': at(`builds/${abandoned.build.id}/restore`, {
      version: abandoned.build.version,
    }),
    'POST /api/engines/:id/put-away': at(`engines/${sold.id}/put-away`, {
      ...{ version: sold.version, why: 'sold' },
    }),
    'POST /api/engines/:id/bring-back': at(`engines/${away.id}/bring-back`, { version: put.body.version }),
    'POST /api/builds/:id/settings/:setting/taken-back': at(
      `builds/${setting.build.id}/settings/${setHere.id}/taken-back`,
      { reason: 'another point was meant' },
    ),
    'POST /api/builds/:id/settings': at(`builds/${setting.build.id}/settings`, {
      ...{
        point: setting.points[0]!,
        kind: 'turned',
        degrees: 10,
        installed: 2.5,
        fitted: 2.45,
        mark: '245',
        note: 'tight',
      },
    }),
    'POST /api/builds/:id/sign-off': at(`builds/${closing.build.id}/sign-off`, {
      version: closing.build.version,
      seq: closing.build.seq,
      statement: 'ran',
    }),
    'POST /api/builds/:id/ticks': at(`builds/${running.build.id}/ticks`, {
      ...{ stage: 'close', check: 'cover', done: true },
    }),
    'POST /api/builds/:id/notes': at(`builds/${build.id}/notes`, { stage: 'wear', text: 'worn' }),
    'POST /api/builds/:id/wear': at(`builds/${build.id}/wear`, {
      lines: [
        {
          ...{ kind: 'figure', item: 'stem-guide', place: '1I', field: 'stem', values: [6.97, 6.98] },
          ...{ asTyped: '6.97 6.98', how: 'measured', set: 'found', doubtKept: false },
        },
        { kind: 'mark', part: 'valve', place: '1E', damage: 'pitting', note: 'at the edge', gone: false },
        { kind: 'fate', part: 'valve', place: '1E', fate: 'replace', order: 'to-order', reason: 'thin' },
        {
          ...{ kind: 'limit', part: 'cam-runout', of: 'both', place: '', nominal: null, limit: 0.05 },
          ...{ min: null, max: null, unit: 'mm', source: 'maker’s letter' },
        },
      ],
    }),
    'POST /api/builds/:id/headwork': at(`builds/${build.id}/headwork`, {
      lines: [
        {
          ...{ step: randomUUID(), valve: '1I', operation: 'seat-cut', depth: 0.1, normalDepth: null },
          ...{ seatAngle: null, done: null, dropped: false },
        },
      ],
    }),
    'POST /api/builds/:id/ledger': at(`builds/${build.id}/ledger`, {
      lines: [
        {
          ...{ key: 'rocker 1i', group: 'gear', name: 'Rocker', place: '1I', expected: 1, out: 1 },
          ...{ in: null, note: '', dropped: false },
        },
      ],
    }),
    'POST /api/builds/:id/photographs': at(`builds/${build.id}/photographs`, {
      ...{ stage: 'take-in', about: 'as it came', note: 'oil below', file: await aPicture() },
    }),
    'PUT /api/builds/:id/photographs/:photograph': at(
      `builds/${setting.build.id}/photographs/${rowOf(photograph).id}`,
      { dropped: true },
    ),
    'POST /api/builds/:id/pattern-parts': at(`builds/${build.id}/pattern-parts`, {
      lines: [
        { key: 'dowel', group: 'caps', name: 'Dowel', place: 'cam caps', expected: 10, dropped: false },
      ],
    }),
    'POST /api/builds/:id/know-how': at(`builds/${build.id}/know-how`, {
      ...{ stage: 'open-up', text: 'A short bent key for the rear bolt' },
    }),
    'PATCH /api/know-how/:id': at(`know-how/${rowOf(learned).id}`, {
      ...{
        version: rowOf(learned).version,
        text: 'The breather comes off first, and its clip',
        dropped: false,
      },
    }),
    'POST /api/benches': at('benches', { name: 'Third', bladeSetId: bench!.bladeSetId, maxStack: 2 }),
    'PATCH /api/benches/:id': at(`benches/${bench!.id}`, {
      ...{ name: 'First', bladeSetId: bench!.bladeSetId, maxStack: 2, version: bench!.version },
    }),
    'POST /api/rounds/:id/moved': at(`rounds/${mixed.build.rounds[0]!.id}/moved`, {
      ...{ to: meant.build.rounds[0]!.id, points: [mixed.points[0]] },
    }),
    'POST /api/rounds/:id/conditions': at(`rounds/${round!.id}/conditions`, {
      ...{ engineTempC: 18, hoursSinceRun: 12, condition: 'cold' },
    }),
    'PUT /api/rounds/:id/turning': at(`rounds/${round!.id}/turning`, { school: 'fewest', at: 0, done: [0] }),
    'POST /api/rounds/:id/readings': at(`rounds/${round!.id}/readings`, {
      point: '1I',
      reading: { kind: 'tries', tries: [{ thickness: 0.1, result: 'goes' }], repeatability: 0.01 },
      asTyped: '0.10 goes',
      doubtKept: false,
      crankAngle: 0,
      instrumentId: gauge.id,
      takenAt: new Date().toISOString(),
      blind: false,
      over: randomUUID(),
      reason: '',
    }),
    'POST /api/rechecks/:id/round': at(`rechecks/${recheck}/round`, {}),
    'POST /api/rechecks/:id/outcome': at(`rechecks/${recheck}/outcome`, {}),
    'POST /api/instruments': at('instruments', { ...set, name: 'Set of every route' }),
    'PATCH /api/instruments/:id': at(`instruments/${blades.id}`, {
      ...set,
      active: true,
      version: blades.version,
    }),
    'POST /api/instruments/:id/checks': at(`instruments/${gauge.id}/checks`, {
      ...{ block: 1, found: 1.001, nextDue: '2031-01-01', note: 'clean' },
    }),
    'POST /api/drawer/moves': at('drawer/moves', {
      ...{ system: DRAWER_SYSTEM, why: 'bought', lines: [{ thickness: 2.5, count: 3 }], note: '' },
    }),
    'POST /api/drawer/counts': at('drawer/counts', {
      ...{ system: DRAWER_SYSTEM, lines: [{ thickness: 2.5, count: 2 }], note: 'counted twice' },
    }),
    'POST /api/builds/:id/ran': at(`builds/${running.build.id}/ran`, {
      lines: [{ kind: 'power', value: 42.5, unit: 'kW', text: 'smooth' }],
    }),
    'POST /api/rechecks/:id/move': at(`rechecks/${plannedOf.id}/move`, {
      ...{ kind: 'on-hold', why: 'away', version: plannedOf.version },
    }),
    'POST /api/rechecks/:id/bench-day': at(`rechecks/${benched.id}/bench-day`, {
      ...{ day: null, version: benched.version },
    }),
    'PATCH /api/owners/:id': at(`owners/${owners[0]!.id}`, {
      ...{ name: owners[0]!.name, email: '', tells: 'mail', note: '', version: owners[0]!.version },
    }),
    'POST /api/engines/:id/usages/:usage/struck-out': at(
      `engines/${build.engine.id}/usages/${logged}/struck-out`,
      {
        why: 'of another engine',
      },
    ),
    'POST /api/rechecks/:id/late-left': at(`rechecks/${lateOf.id}/late-left`, {
      ...{ why: 'of another engine', version: lateOf.version },
    }),
    'POST /api/usage/round': at('usage/round', {
      lines: [{ engineId: build.engine.id, usage: 99_999, heatCycles: 4, reason: '' }],
    }),
    'POST /api/usage/questions/:id': at(`usage/questions/${line!.id}`, { is: 'left' }),
    'PATCH /api/session/passphrase': at('session/passphrase', {
      ...{ currentPassphrase: 'brass-and-feeler', passphrase: 'feeler-and-brass' },
    }),
    'POST /api/time-questions/:key/left': at(`time-questions/${randomUUID()}/left`, {}),
    'POST /api/usage/feed': at('usage/feed', {}),
    'POST /api/reminders/now': at('reminders/now', {}),
    'POST /api/morning/looked': at('morning/looked', {}),
    'POST /api/calendar-feeds': at('calendar-feeds', {}),
    'POST /api/records/preview': at('records/preview', {
      file: (await zipRecord(shop.db, build.engine.id)).toString('base64'),
    }),
    'POST /api/records': at('records', {
      file: (await zipRecord(shop.db, build.engine.id)).toString('base64'),
    }),
    'POST /api/drawer/orders': at('drawer/orders', {
      ...{ system: DRAWER_SYSTEM, lines: [{ thickness: 2.5, count: 2 }], buildId: null, note: 'by post' },
    }),
    'POST /api/drawer/orders/:id/delivery': at(`drawer/orders/${ordered[0]!.id}/delivery`, {
      ...{ lines: [{ thickness: 2.45, count: 1 }], closes: false },
    }),
    'PUT /api/drawer/systems/:system': at(`drawer/systems/${encodeURIComponent(DRAWER_SYSTEM)}`, {
      ...{ price: 7.5, reorder: 1, version: 1 },
    }),
    'POST /api/people': at('people', { name: 'Runa Felt', role: 'bench', passphrase: 'a long enough one' }),
    'PATCH /api/people/:id': at(`people/${osk.id}`, { version: osk.version, role: 'lead', active: true }),
    'DELETE /api/people/:id/sessions': at(`people/${osk.id}/sessions`, {}),
    'POST /api/gauges/:id/hold': at(`gauges/${gauge.id}/hold`, { device: randomUUID() }),
    'POST /api/gauges/:id/release': at(`gauges/${gauge.id}/release`, { device: randomUUID() }),
    'POST /api/gauges/:id/simulation': at(`gauges/${gauge.id}/simulation`, { gap: 0.15 }),
  };
}

/** Its path with an id of nothing in it. */
const filled = (route: string) =>
  route
    .slice(route.indexOf('/api/') + 5)
    .replace(':id', randomUUID())
    .replace(':photograph', randomUUID())
    .replace(':point', '1I');
const methodOf = (route: string) => route.slice(0, route.indexOf(' ')) as Method;

describe('every route', () => {
  it('but those that open the door asks who is there', async () => {
    expect(routes().length).toBeGreaterThan(40);
    for (const route of routes().filter((each) => !OPEN.includes(each)))
      expect(await shop.call(null, methodOf(route), filled(route), {}), route).toMatchObject({
        status: 401,
        body: { code: 'unauthenticated' },
      });
  });

  it('that writes refuses a viewer, and has a sample here', async () => {
    const writes = routes().filter((route) => methodOf(route) !== 'GET' && !OF_ONES_OWN.includes(route));
    expect([...samples.keys()].filter((route) => !OF_ONES_OWN.includes(route)).sort()).toEqual(writes.sort());
    for (const route of writes) {
      const { path, body } = samples.get(route)!;
      expect(await shop.call(VIEWER, methodOf(route), path, body), route).toMatchObject({
        status: 403,
        body: { code: 'forbidden' },
      });
    }
  });

  it('that changes a row refuses one who saw an older one, and hands over the row as it stands', async () => {
    const versioned = [...samples].filter(([, { body }]) => 'version' in body);
    expect(versioned.every(([route]) => VERSIONED.test(route))).toBe(true);
    for (const [route, { path, body }] of versioned) {
      const old = { ...body, version: 9999 };
      expect(await shop.call(LEAD, methodOf(route), path, old), route).toMatchObject({
        status: 409,
        body: { code: 'stale', current: { version: expect.any(Number) } },
      });
    }
  });

  it('that writes does it once, however often it is sent', async () => {
    const count = async () => {
      const { rows } = await shop.db.raw(
        `select table_name as name from information_schema.tables where table_schema = 'public'`,
      );
      const counts: Record<string, number> = {};
      for (const { name } of rows as { name: string }[])
        if (!UNCOUNTED.includes(name))
          counts[name] = Number((await shop.db(name).count('* as n').first())!.n);
      return counts;
    };
    for (const [route, { path, body }] of samples) {
      if (OPEN.includes(route)) continue;
      const key = randomUUID();
      const first = await shop.call(LEAD, methodOf(route), path, body, key);
      const after = await count();
      const again = await shop.call(LEAD, methodOf(route), path, body, key);
      expect(again.status, route).toBe(first.status);
      expect(await count(), route).toEqual(after);
      // no gauge stands here that could be told anything
      if (route === 'POST /api/gauges/:id/simulation') continue;
      expect(first.status, `${route} ${first.body?.code}`).toBeLessThan(300);
      expect(again.body, route).toEqual(first.body);
    }
    // every write twice, every table counted after each, and the validator of each route made
  }, 90_000);

  it('answers what it does not understand with a reason, and never breaks', async () => {
    for (const [route, { path, body }] of samples)
      for (const junk of fc.sample(damaged(body), { numRuns: 12, seed: 7 })) {
        const answer = await shop.call<{ code: string; detail: string }>(LEAD, methodOf(route), path, junk);
        const said = `${route} ${JSON.stringify(junk)} → ${JSON.stringify(answer.body)}`;
        expect(answer.status, said).toBeLessThan(500);
        if (answer.status < 400) continue;
        expect(answer.headers['content-type'], said).toContain('application/problem+json');
        expect(answer.body.code, said).toMatch(/^[a-z_]+$/);
        expect(answer.body.detail.length, said).toBeGreaterThan(0);
      }
  }, 60_000);

  it('that reads is not broken by an id or a question that is none', async () => {
    const reads = routes().filter((route) => methodOf(route) === 'GET' && !route.endsWith('/live'));
    const odd = [
      '%00',
      '%ff',
      'a%00b',
      '..%2f..',
      '%F0%9F%94%A7',
      "'; drop table people; --",
      'x'.repeat(500),
    ];
    for (const route of reads)
      for (const text of odd) {
        const path = route.slice(9).replace(':id', randomUUID()).replace(':point', text);
        for (const asked of [
          route.slice(9).replace(/:\w+/g, text),
          path,
          `${path}?search=${text}&limit=${text}`,
        ])
          expect((await shop.raw(VIEWER, `/api/${asked}`)).statusCode, asked).toBeLessThan(500);
      }
  });
});

/** Who is signed in, and how often anything was written to: neither is what was written. */
const UNCOUNTED = ['sessions', 'table_changes', 'table_counts'];

const JUNK = fc.oneof(
  fc.constantFrom<unknown>(null, '', ' ', 'a\u0000b', '\ud800', [], {}, true, -0, 1e308, -1, 2 ** 53, 0.1),
  fc.json().map((text) => JSON.parse(text) as unknown),
  fc.string({ unit: 'binary' }),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
);

/** Something in the shape of a body, with one thing in it that does not belong there, or missing. */
function damaged(body: object): fc.Arbitrary<unknown> {
  const places = placesIn(body);
  return fc.oneof(
    { weight: 1, arbitrary: JUNK },
    {
      weight: 6,
      arbitrary: fc.tuple(fc.nat(places.length), JUNK).map(([number, junk]) => {
        const copy = structuredClone(body);
        const place = places[number % Math.max(1, places.length)];
        if (!place) return copy;
        const holder = place.slice(0, -1).reduce<never>((inside, key) => inside[key] as never, copy as never);
        (holder as Record<string, unknown>)[place.at(-1)!] = junk;
        return copy;
      }),
    },
  );
}

/** The way to every value inside a body. */
function placesIn(value: unknown): string[][] {
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => [
    [key],
    ...placesIn(inner).map((rest) => [key, ...rest]),
  ]);
}
