import type { BuildWrite } from '@zero-lash/contract/builds';
import type { Drawer, DrawerMove } from '@zero-lash/contract/drawer';
import type { EngineList } from '@zero-lash/contract/engines';
import type { Setting } from '@zero-lash/contract/setting';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

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
            await shop.db('piece_moves').where({ system: SYSTEM, thickness: 20_500 }).sum('count as n')
          )[0];
          expect(Number(all?.['n'] ?? 0)).toBe(await countOf(2.05));
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
