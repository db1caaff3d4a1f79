import { randomUUID } from 'node:crypto';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { Drawer, DrawerMove, PieceOrder } from '@zero-lash/contract/pieces';
import type { EngineList, PieceThere } from '@zero-lash/contract/engines';
import type { Setting } from '@zero-lash/contract/setting';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readPdf } from './pdf.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

const SYSTEM = 'shim under-bucket 9.5';
let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const lying = async (system = SYSTEM) => {
  const { systems } = (await shop.call<Drawer>(VIEWER, 'GET', 'drawer')).body;
  return systems.find((each) => each.system === system)!;
};
const countOf = async (thickness: number) =>
  (await lying()).sizes.find((each) => each.thickness === thickness)?.count ?? 0;
const ledger = async () =>
  (await shop.call<DrawerMove[]>(VIEWER, 'GET', `drawer/moves?system=${encodeURIComponent(SYSTEM)}`)).body;
const move = (why: string, lines: object[], who: typeof BENCH | typeof LEAD | typeof VIEWER = BENCH) =>
  shop.call<Drawer>(who, 'POST', 'drawer/moves', { system: SYSTEM, why, lines });

describe('the drawer', () => {
  it('has every system the sheets are set by, with what is made, what lies there and what it costs', async () => {
    const { systems } = (await shop.call<Drawer>(VIEWER, 'GET', 'drawer')).body;
    expect(systems.map(({ system }) => system)).toContain('shim on-bucket 29');
    const own = await lying();
    expect(own).toMatchObject({ title: 'Shims under buckets, 9.5 mm', price: 7.5, reorder: 2 });
    expect(own.made[0]).toBe(2);
    expect(own.made.at(-1)).toBe(3.2);
  });

  it('is what its ledger adds up to, whatever came and went', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.record({
            way: fc.constantFrom('bought', 'scrapped', 'count'),
            thickness: fc.constantFrom(2.05, 2.1),
            count: fc.integer({ min: 1, max: 4 }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        async (steps) => {
          for (const { way, thickness, count } of steps) {
            const before = await countOf(thickness);
            if (way === 'count') {
              await shop.call(BENCH, 'POST', 'drawer/counts', {
                system: SYSTEM,
                lines: [{ thickness, count }],
              });
              expect(await countOf(thickness)).toBe(count);
            } else {
              const signed = way === 'scrapped' ? -count : count;
              const { status } = await move(way, [{ thickness, count: signed }]);
              expect(status).toBe(before + signed < 0 ? 409 : 201);
              expect(await countOf(thickness)).toBe(before + signed < 0 ? before : before + signed);
            }
          }
          const all = (
            await shop.db('piece_moves').where({ system: SYSTEM, thickness: 20_500 }).sum({ n: 'count' })
          )[0];
          expect(Number(all?.n ?? 0)).toBe(await countOf(2.05));
        },
      ),
      { numRuns: 6 },
    );
  });

  it('gives no more than lies there, and of a list it refuses nothing is written', async () => {
    const [before, moves] = [await lying(), (await ledger()).length];
    const answer = await move('scrapped', [
      { thickness: 2.85, count: -1 },
      { thickness: 3.1, count: -1 },
    ]);
    expect(answer).toMatchObject({
      status: 409,
      body: {
        code: 'not_there',
        detail: expect.stringContaining('Of 3.1 mm there are 0'),
        fields: [{ path: 'lines.1.count' }],
      },
    });
    expect(await lying()).toEqual(before);
    expect(await ledger()).toHaveLength(moves);
  });

  it('gives its last piece once, however many reach for it', async () => {
    await shop.call(BENCH, 'POST', 'drawer/counts', {
      system: SYSTEM,
      lines: [{ thickness: 2.95, count: 1 }],
    });
    const answers = await Promise.all(
      Array.from({ length: 5 }, () => move('scrapped', [{ thickness: 2.95, count: -1 }])),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409, 409, 409]);
    expect(await countOf(2.95)).toBe(0);
  });

  it('refuses a price that is none, a stranger’s pieces, an older page, and who only looks on', async () => {
    const { version } = await lying();
    const price = (body: object, who: typeof LEAD | typeof VIEWER = LEAD) =>
      shop.call(who, 'PUT', `drawer/systems/${encodeURIComponent(SYSTEM)}`, { reorder: 2, version, ...body });
    expect(await price({ price: -1 })).toMatchObject({ status: 400, body: { fields: [{ path: 'price' }] } });
    expect(await price({ price: 'seven' })).toMatchObject({ status: 400 });
    expect(await price({ price: 8 }, VIEWER)).toMatchObject({ status: 403 });
    expect(await price({ price: 8 })).toMatchObject({ status: 200 });
    expect(await price({ price: 9 })).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { price: 8 } },
    });
    expect((await lying()).price).toBe(8);
    const stranger = { system: 'shim on-bucket 77', why: 'bought', lines: [{ thickness: 2, count: 1 }] };
    expect(await shop.call(BENCH, 'POST', 'drawer/moves', stranger)).toMatchObject({ status: 404 });
    expect(await move('fitted', [{ thickness: 2, count: 1 }])).toMatchObject({ status: 400 });
  });
});

describe('a piece that is fitted', () => {
  it('goes out of the drawer, and the one taken out into it, in the same write', async () => {
    const { body } = await shop.call<EngineList>(VIEWER, 'GET', 'engines?limit=500');
    const engine = body.engines.find(({ name }) => name.startsWith('Railcar 1, front'))!;
    const fit = (point: string, installed: number, fitted: number, more: object) =>
      shop.call<BuildWrite>(BENCH, 'POST', `builds/${engine.buildId}/settings`, {
        ...{ point, kind: 'fitted', installed, fitted, ...more },
      });
    const [before, other] = [await countOf(2.5), await countOf(2.55)];
    const answer = await fit('4Ia', 2.55, 2.5, { from: 'drawer', to: 'drawer' });
    expect(answer.body.changes[0]!.row as Setting).toMatchObject({ from: 'drawer', to: 'drawer' });
    expect([await countOf(2.5), await countOf(2.55)]).toEqual([before - 1, other + 1]);
    expect((await ledger()).slice(0, 2)).toMatchObject([
      { point: '4Ia', engine: engine.name, by: BENCH },
      { point: '4Ia', engine: engine.name },
    ]);
    // within the engine the drawer is not touched, and neither is it by what was never said
    await fit('4Ib', 2.6, 2.65, { from: 'engine', to: 'engine' });
    await fit('4Ib', 2.65, 2.6, {});
    expect(await countOf(2.6)).toBe(0);
    // what the ledger knew nothing of was there all the same
    await fit('4Ib', 2.6, 2.6, { from: 'drawer', to: 'scrapped' });
    expect(await countOf(2.6)).toBe(0);
    expect(
      (await ledger())
        .slice(0, 2)
        .map(({ why, count }) => [why, count])
        .sort(),
    ).toEqual([
      ['fitted', -1],
      ['found', 1],
    ]);
  });
});

describe('an order of pieces', () => {
  const orders = async () => (await shop.call<PieceOrder[]>(BENCH, 'GET', 'drawer/orders')).body;
  const order = (lines: object[], change: object = {}) =>
    shop.call<PieceOrder[] & { code: string }>(BENCH, 'POST', 'drawer/orders', {
      ...{ system: SYSTEM, lines },
      ...change,
    });
  const came = (id: string, lines: object[], closes = false) =>
    shop.call<PieceOrder[] & { code: string; fields: { path: string }[] }>(
      BENCH,
      'POST',
      `drawer/orders/${id}/delivery`,
      { lines, closes },
    );

  it('comes in parts, never more than is waited for, and is closed when it is all there', async () => {
    const before = [await countOf(2.6), await countOf(2.65)];
    const placed = await order([
      { thickness: 2.6, count: 3 },
      { thickness: 2.65, count: 1 },
    ]);
    expect(placed.status).toBe(201);
    const { id } = placed.body[0]!;
    // nothing lies there before it came
    expect([await countOf(2.6), await countOf(2.65)]).toEqual(before);
    expect((await came(id, [{ thickness: 2.6, count: 2 }])).status).toBe(200);
    expect(await countOf(2.6)).toBe(before[0]! + 2);
    const tooMany = await came(id, [
      { thickness: 2.65, count: 1 },
      { thickness: 2.6, count: 2 },
    ]);
    expect(tooMany).toMatchObject({
      status: 409,
      body: { code: 'not_ordered', fields: [{ path: 'lines.1.count' }] },
    });
    // nothing of what was refused came in
    expect(await countOf(2.65)).toBe(before[1]!);
    expect((await orders()).find((each) => each.id === id)).toMatchObject({
      ...{ open: true, engine: null },
      lines: [
        { thickness: 2.6, count: 3, came: 2 },
        { thickness: 2.65, count: 1, came: 0 },
      ],
    });
    await came(id, [
      { thickness: 2.6, count: 1 },
      { thickness: 2.65, count: 1 },
    ]);
    expect((await orders()).find((each) => each.id === id)!.open).toBe(false);
    expect((await came(id, [])).body.code).toBe('order_closed');
    const { body: moves } = await shop.call<DrawerMove[]>(
      BENCH,
      'GET',
      `drawer/moves?system=${encodeURIComponent(SYSTEM)}`,
    );
    expect(moves.filter(({ note }) => note === 'as ordered')).toHaveLength(3);
  });

  it('whose rest will not come is closed by a word, and two who take it in at once take it in once', async () => {
    const { id } = (await order([{ thickness: 2.7, count: 2 }])).body[0]!;
    const before = await countOf(2.7);
    const both = await Promise.all([
      came(id, [{ thickness: 2.7, count: 2 }]),
      came(id, [{ thickness: 2.7, count: 2 }]),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(await countOf(2.7)).toBe(before + 2);
    const other = (await order([{ thickness: 2.7, count: 5 }])).body[0]!.id;
    await came(other, [], true);
    expect((await orders()).find((each) => each.id === other)!.open).toBe(false);
  });

  it('is of pieces that a sheet is set by, each size once, for a build there is, and not a viewer’s', async () => {
    expect((await order([])).status).toBe(400);
    expect((await order([{ thickness: 2.6, count: 0 }])).status).toBe(400);
    const twice = [
      { thickness: 2.6, count: 1 },
      { thickness: 2.6, count: 2 },
    ];
    expect((await order(twice)).status).toBe(400);
    expect((await order(twice.slice(1), { system: 'shim of nothing' })).status).toBe(404);
    expect((await order(twice.slice(1), { buildId: randomUUID() })).status).toBe(404);
    const line = [{ thickness: 2.6, count: 1 }];
    expect((await shop.call(VIEWER, 'POST', 'drawer/orders', { system: SYSTEM, lines: line })).status).toBe(
      403,
    );
  });

  it('is printed, with what it is for', async () => {
    const build = await shop.buildOf('Railcar 1, front engine');
    const { id } = (
      await order([{ thickness: 2.85, count: 4 }], { buildId: build.id, note: 'by the carrier' })
    ).body[0]!;
    const answer = await shop.raw(VIEWER, `/api/drawer/orders/${id}/paper`);
    const paper = await readPdf(answer.rawPayload);
    for (const said of [
      'Shims under buckets',
      'For Railcar 1, front engine.',
      'by the carrier',
      '2.85',
      (4 * (await lying()).price).toFixed(2),
    ])
      expect(paper.text).toContain(said);
    expect(paper).toMatchObject({ pages: 1, embedded: true, tagged: true });
    expect(paper.parts).toEqual(expect.arrayContaining(['H1', 'Table', 'TR', 'TH', 'TD']));
    expect((await shop.raw(VIEWER, `/api/drawer/orders/${randomUUID()}/paper`)).statusCode).toBe(404);
  });
});

describe('a chart of which piece to fit', () => {
  it('is printed for a role that is set by pieces, in the sheet’s own sizes', async () => {
    const { sheet } = await shop.buildOf('Railcar 1, front engine');
    const answer = await shop.raw(VIEWER, `/api/sheet-revisions/${sheet.id}/piece-chart?role=intake`);
    const paper = await readPdf(answer.rawPayload);
    expect(paper.text).toContain('Piece to fit, intake: Tarnholt T16 Rack');
    // in spec is kept, whatever is in
    expect(paper.text.match(/keep/g)).toHaveLength(25);
    expect(paper).toMatchObject({ pages: 1, embedded: true });
    // pieces by 0.025 are named to the thousandth: 1.225 and 1.25 are two of them
    const { sheet: fine } = await shop.buildOf('Line trolley');
    const chart = await shop.raw(VIEWER, `/api/sheet-revisions/${fine.id}/piece-chart?role=intake`);
    const printed = await readPdf(chart.rawPayload);
    for (const size of ['1.20', '1.225', '1.25', '2.575', '2.60'])
      expect(printed.text.split(/\s/), size).toContain(size);
    // as many sizes as stand whole beside one another are on a page
    expect(printed.pages).toBe(3);
    const none = await shop.raw(VIEWER, `/api/sheet-revisions/${sheet.id}/piece-chart?role=brake`);
    expect(none.statusCode).toBe(404);
    const { sheet: screws } = await shop.buildOf('Edger, Pellow Mill');
    expect(
      (await shop.raw(VIEWER, `/api/sheet-revisions/${screws.id}/piece-chart?role=intake`)).statusCode,
    ).toBe(404);
  });
});

describe('what is in an engine', () => {
  it('is what was fitted or found last, in whichever build, by whom; an abandoned build says nothing', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    const pieces = async () =>
      (await shop.call<PieceThere[]>(VIEWER, 'GET', `engines/${work.build.engine.id}/pieces`)).body;
    expect(await pieces()).toEqual([]);
    const [first, second, third] = work.points as [string, string, string];
    const found = (place: string, mm: number) => ({
      ...{ kind: 'figure', item: 'piece-in', place, field: 'value', values: [mm], asTyped: String(mm) },
      ...{ how: 'measured', set: 'found', doubtKept: false },
    });
    await work.write('wear', { lines: [found(first, 2.5), found(second, 2.55), found(third, 2.6)] });
    await work.reach('set');
    await work.set(first, { kind: 'fitted', installed: 2.5, fitted: 2.45, mark: '245' });
    await work.set(second, { kind: 'bare', installed: 2.55 });
    expect((await pieces()).map(({ point, thickness, mark, how }) => [point, thickness, mark, how])).toEqual(
      [
        [first, 2.45, '245', 'fitted'],
        [second, null, '', 'bare'],
        [third, 2.6, '', 'found'],
      ].sort(([a], [b]) => (a! < b! ? -1 : 1)),
    );
    expect((await pieces()).every(({ by, build }) => by === BENCH && build === 1)).toBe(true);
    await work.abandon('the wrong engine');
    expect(await pieces()).toEqual([]);
    expect((await shop.call(VIEWER, 'GET', `engines/${randomUUID()}/pieces`)).status).toBe(404);
  });
});

describe('a piece', () => {
  it('keeps its mark on its way, and is not in two places', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    await work.reach('set');
    const [a, b, c] = work.points as [string, string, string];
    const fit = (point: string, change: object) =>
      work.set(point, { kind: 'fitted', installed: 2.5, fitted: 2.45, ...change });
    expect((await fit(a, { mark: '245', from: 'drawer', to: 'drawer' })).status).toBe(201);
    expect((await fit(a, { installed: 2.45, fitted: 2.5, to: 'drawer' })).status).toBe(201);
    const notes = (await ledger())
      .filter(({ buildId }) => buildId === work.build.id)
      .map(({ why, note }) => [why, note]);
    expect(notes).toContainEqual(['fitted', 'marked 245']);
    expect(notes).toContainEqual(['taken-out', 'marked 245']);
    // what was in at one goes to a second, and not to a third as well
    const given = { installed: 2.4, fitted: 2.5, from: 'engine', giver: a, to: 'engine' };
    expect((await fit(b, given)).status).toBe(201);
    const twice = await fit(c, given);
    expect(twice).toMatchObject({ status: 409, body: { code: 'not_there', fields: [{ path: 'giver' }] } });
    // once something is in there again, that may be given
    expect((await fit(a, { installed: 2.5, fitted: 2.55, from: 'drawer' })).status).toBe(201);
    expect((await fit(c, { ...given, fitted: 2.55 })).status).toBe(201);
  });
});

describe('a setting that was written down wrongly', () => {
  const fitted = { kind: 'fitted', installed: 2.5, fitted: 2.45 };
  const ofPoint = (work: Work, point: string) =>
    work.build.settings.filter((each) => each.point === point).map(({ kind, fitted: mm }) => [kind, mm]);
  const takeBack = (work: Work, id: string, body: object = { reason: 'another point was meant' }) =>
    work.write(`settings/${id}/taken-back`, body);

  it('is taken back: what stood before stands again, and its pieces lie where they lay', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    await work.reach('set');
    const [a, b] = work.points as [string, string];
    await move('bought', [{ thickness: 2.45, count: 2 }]);
    const before = [await countOf(2.45), await countOf(2.5)];
    const first = (await work.set(a, { ...fitted, from: 'drawer', to: 'drawer' })).body.changes[0]!
      .row as Setting;
    const second = (
      await work.set(a, { ...fitted, installed: 2.45, fitted: 2.4, from: 'bought', to: 'engine' })
    ).body.changes[0]!.row as Setting;
    // what does not stand any more is not taken back before what does
    expect(await takeBack(work, first.id)).toMatchObject({ status: 409, body: { code: 'set_since' } });
    expect((await takeBack(work, second.id, { reason: ' ' })).status).toBe(400);
    expect((await takeBack(work, second.id)).status).toBe(200);
    expect(ofPoint(work, a)).toEqual([['fitted', 2.45]]);
    expect([await countOf(2.45), await countOf(2.5)]).toEqual([before[0]! - 1, before[1]! + 1]);
    expect((await takeBack(work, first.id)).status).toBe(200);
    expect(ofPoint(work, a)).toEqual([]);
    expect([await countOf(2.45), await countOf(2.5)]).toEqual(before);
    expect((await ledger())[0]).toMatchObject({
      why: 'taken-back',
      note: 'another point was meant',
      by: BENCH,
    });
    // once and for all, and what was left alone stands beside
    expect((await takeBack(work, first.id)).status).toBe(409);
    expect((await takeBack(work, randomUUID())).status).toBe(404);
    await work.set(b, { kind: 'left', note: 'quiet' });
    const left = work.build.settings.find(({ point }) => point === b)!;
    expect((await takeBack(work, left.id)).status).toBe(200);
    expect(ofPoint(work, b)).toEqual([]);
    await expect(
      shop.db('settings').where({ id: first.id }).update({ superseded: false }),
      'what was taken back stays so',
    ).rejects.toThrow('what was written stays');
  });

  it('stays while what it took out is in elsewhere, or out of the drawer', async () => {
    const work = await Work.on(shop, 'Railcar 1, front engine');
    await work.reach('set');
    const [a, b] = work.points as [string, string];
    const given = (await work.set(a, { ...fitted, to: 'engine' })).body.changes[0]!.row as Setting;
    await work.set(b, { ...fitted, installed: 2.6, fitted: 2.5, from: 'engine', giver: a, to: 'drawer' });
    expect(await takeBack(work, given.id)).toMatchObject({ status: 409, body: { code: 'set_since' } });
    const there = work.build.settings.find(({ point }) => point === b)!;
    await move('scrapped', [{ thickness: 2.6, count: -(await countOf(2.6)) }]);
    expect(await takeBack(work, there.id)).toMatchObject({ status: 409, body: { code: 'not_there' } });
    await move('bought', [{ thickness: 2.6, count: 1 }]);
    expect((await takeBack(work, there.id)).status).toBe(200);
    expect((await takeBack(work, given.id)).status).toBe(200);
    expect(work.build.settings).toEqual([]);
  });
});
