import type { EngineRow, EngineView } from '@zero-lash/contract/engines';
import type { Instrument } from '@zero-lash/contract/instruments';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { aPicture } from './pictures.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

interface Answer {
  readonly code: string;
  readonly detail: string;
  readonly fields?: readonly { readonly path: string; readonly message: string }[];
}
const send = (path: string, body: object, who = LEAD) => shop.call<Answer>(who, 'POST', path, body);

describe('what no rebuilder means is refused, by the interface for programs too', () => {
  it('at a point: a gap of 25 mm, a text that says otherwise, a torque wrench for a blade', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const round = `rounds/${build.rounds.at(-1)!.id}/readings`;
    const taken = {
      point: '1I',
      asTyped: '0.15',
      reading: { kind: 'value', value: 0.15, uncertainty: 0.01 },
    };
    const wide = { ...taken, asTyped: '25', reading: { ...taken.reading, value: 25 } };
    expect((await send(round, wide)).body.detail).toContain('no clearance is over 10 mm');
    expect((await send(round, { ...taken, asTyped: '0.30' })).body.code).toBe('typed_otherwise');
    const { body: wrench } = await shop.call<Instrument>(LEAD, 'POST', 'instruments', {
      ...{ name: 'Wrench, small', kind: 'torque-wrench', unit: 'mm', uncertainty: 4, angled: false },
      ...{ blades: [], missing: [], address: null, torque: { from: 2, to: 25 }, checkDue: null },
    });
    expect((await send(round, { ...taken, instrumentId: wrench.id })).body.fields).toEqual([
      { path: 'instrumentId', message: 'measures no gap' },
    ]);
    expect((await send(round, taken)).status).toBe(201);
  });

  it.each([
    ['a shim of 50 mm', { kind: 'fitted', fitted: 50 }, /no such piece is over 15 mm/],
    ['7,200°', { kind: 'turned', degrees: 7200 }, /no screw is set by over four turns/],
    ['a full stop for a reason', { kind: 'left', note: '.' }, /say why/],
  ])('%s', async (_what, setting, why) => {
    const build = await shop.buildOf('Edger, Pellow Mill');
    const { status, body } = await send(`builds/${build.id}/settings`, { point: '1I', ...setting });
    expect([status, body.detail]).toEqual([400, expect.stringMatching(why)]);
  });

  it('a seat cut of 10 mm', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const line = {
      ...{ step: randomUUID(), valve: '1I', operation: 'seat-cut', depth: 10, normalDepth: null },
      ...{ seatAngle: null, done: null, dropped: false },
    };
    const { status, body } = await send(`builds/${build.id}/headwork`, { lines: [line], reason: '' });
    expect([status, body.detail]).toEqual([400, expect.stringContaining('nothing is cut over 3 mm deep')]);
  });

  it.each<[string, object, RegExp]>([
    ['a band of 0 to 10 mm', { limits: [{ role: 'intake', min: 0, max: 10, asWritten: '' }] }, /over 5 mm/],
    [
      'a band of 0 to 4 mm',
      { limits: [{ role: 'intake', min: 0, max: 4, asWritten: '' }] },
      /bounds nothing/,
    ],
    ['99,999 N·m', torques('99999 N·m'), /tightened to over 500/],
    ['a torque of nothing', torques('0 Nm, then 20 Nm'), /finger-tight/],
    ['marks that are one', pattern({ marks: [0, 180, 180.4] }), /cannot be told apart/],
  ])('of a sheet: %s', async (_what, change, why) => {
    const body = { ...DEMO_SHEETS.sawSingle.body, ...change };
    const answer = await send('sheets', { maker: 'Vessany', name: `Odd ${randomUUID()}`, body });
    expect([answer.status, answer.body.detail]).toEqual([400, expect.stringMatching(why)]);
  });

  it('cylinders that fire all at once, where two may; 72 marks are a graduated wheel', async () => {
    const four = DEMO_SHEETS.orchardFour.body;
    const fires = (angles: readonly number[]) => ({
      ...four.pattern,
      cylinders: four.pattern.cylinders.map((each, index) => ({ ...each, firesAt: angles[index]! })),
      marks: Array.from({ length: 72 }, (_, index) => index * 5),
    });
    const write = (angles: readonly number[]) =>
      send('sheets', {
        ...{ maker: 'Vessany', name: `Four ${randomUUID()}`, body: { ...four, pattern: fires(angles) } },
      });
    expect((await write([0, 0, 0, 0])).body.detail).toContain('no more than 2 cylinders fire at once');
    expect((await write([0, 360, 360, 0])).status).toBe(201);
  });

  it('a check that was due in 1900, a recheck in 2199, and a reason that gives none', async () => {
    const tools = await shop.call<{ instruments: Instrument[] }>(LEAD, 'GET', 'tools');
    const {
      lastCheck: _,
      overdue: __,
      id,
      ...set
    } = tools.body.instruments.find(({ kind }) => kind === 'blade-set')!;
    const change = (checkDue: string) =>
      shop.call<Answer>(LEAD, 'PATCH', `instruments/${id}`, { ...set, checkDue });
    expect((await change('1900-01-01')).status).toBe(400);
    expect((await change('1990-01-01')).body.fields).toEqual([
      { path: 'checkDue', message: 'that is over 10 years ago' },
    ]);
    const build = await shop.buildOf('Trimmer, Pellow Mill');
    const recheck = build.rechecks.find(({ status }) => status === 'planned')!;
    const move = (day: string, why: string) =>
      send(`rechecks/${recheck.id}/move`, { kind: 'moved', day, why, version: recheck.version });
    expect((await move('2199-01-01', 'after the harvest')).body.detail).toContain('20 years from now');
    expect((await move('2031-01-01', '.')).body.detail).toContain('in a word or more');
  });

  it('more pieces by scrapping', async () => {
    const { body } = await shop.call<{ systems: { system: string; sizes: { thickness: number }[] }[] }>(
      BENCH,
      'GET',
      'drawer',
    );
    const { system, sizes } = body.systems.find((each) => each.sizes.length > 0)!;
    const lines = [{ thickness: sizes[0]!.thickness, count: 3 }];
    expect((await send('drawer/moves', { system, why: 'scrapped', lines })).body.detail).toContain(
      'goes out',
    );
  });
});

describe('a running figure', () => {
  it('that no engine has run is refused; one that is more than can have been run is asked about', async () => {
    const { engine, sheet } = await shop.buildOf('Edger, Pellow Mill');
    const log = (body: object) => send(`engines/${engine.id}/usages`, body, BENCH);
    expect((await log({ usage: engine.usage + 9_000_000, sure: true })).body.code).toBe('invalid');
    const far = { usage: engine.usage + 5000 };
    expect((await log(far)).body).toMatchObject({ code: 'usage_far', fields: [{ path: 'usage' }] });
    const meter = { usage: 2, newMeter: { lastOfOld: engine.usage + 5000, startedAt: 0 } };
    expect((await log(meter)).body.fields).toMatchObject([{ path: 'newMeter.lastOfOld' }]);
    expect((await log({ ...far, sure: true })).status).toBe(201);
    const { body } = await shop.call<EngineView>(VIEWER, 'GET', `engines/${engine.id}`);
    expect(body.usages[0]!.reason).toBe('asked about, and right');
    // a new engine has not run that long either
    const fresh = { name: 'Old Edger', serial: '', owner: '', duty: '', sheetId: sheet.sheetId };
    expect((await send('engines', { ...fresh, usage: 9_000_000 })).body.code).toBe('invalid');
    // nor by a line of a file
    const round = { source: 'csv', lines: [{ engineId: engine.id, usage: engine.usage + 99_000 }] };
    const taken = await shop.call<{ lines: { code: string }[] }>(BENCH, 'POST', 'usage/round', round);
    expect(taken.body.lines[0]!.code).toBe('usage_far');
  });
});

describe('an engine that was retired', () => {
  it('runs no more and is looked at no more before it is back, but may be photographed', async () => {
    const build = await shop.buildOf('Trimmer, Pellow Mill');
    const { body: engine } = await shop.call<EngineRow>(LEAD, 'GET', `engines/${build.engine.id}`);
    const at = (way: string, body: object) =>
      shop.call<EngineRow & Answer>(LEAD, 'POST', `engines/${engine.id}/${way}`, body);
    const away = await at('put-away', { version: engine.version, why: 'sold to the coast' });
    expect(away.status).toBe(200);
    const recheck = build.rechecks.find(({ status }) => status === 'planned')!;
    const refused = [
      await at('usages', { usage: engine.usage + 1 }),
      await send(`rechecks/${recheck.id}/round`, { takenAt: null }),
      await send(`rechecks/${recheck.id}/move`, {
        ...{ kind: 'on-hold', day: null, why: 'sold', version: recheck.version },
      }),
    ];
    expect(refused.map(({ body }) => body.code)).toEqual(refused.map(() => 'engine_put_away'));
    const picture = {
      ...{ stage: 'run-in', about: 'as it was sold', note: '', file: await aPicture() },
    };
    expect((await send(`builds/${build.id}/photographs`, picture)).status).toBe(201);
    expect((await at('bring-back', { version: away.body.version })).status).toBe(200);
    expect((await at('usages', { usage: engine.usage + 1 })).status).toBe(201);
  });
});

function torques(steps: string) {
  return { torques: [{ fastening: 'Head nuts', steps, order: '', rows: [], sequence: [] }] };
}

function pattern(change: object) {
  return { pattern: { ...DEMO_SHEETS.sawSingle.body.pattern, ...change } };
}
