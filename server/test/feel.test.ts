import type { Feel } from '@zero-lash/contract/setting';
import { feelSpread } from '@zero-lash/core/setting';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

/** of whom the demo tells no second look */
const OTHER = 'Osk Velland';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const feelOf = async (who: string) => (await shop.call<Feel>(who, 'GET', 'feel')).body;

describe('a person’s own spread of feel', () => {
  it('comes from their blind second looks alone, and nobody’s comes from another’s', async () => {
    const before = await feelOf(OTHER);
    expect(before).toEqual({ ...feelSpread({ looks: [] }), locks: [] });
    const work = await Work.on(shop, 'Railcar 1, front engine');
    await work.reach('as-found');
    const round = work.build.rounds.at(-1)!.id;
    const points = work.points.slice(0, 11);
    const look = (who: string, point: string, reading: object, blind: boolean) =>
      shop.call(who, 'POST', `rounds/${round}/readings`, { point, asTyped: 'look', blind, reading });
    const looks = points.map((point, index) => {
      const second = 0.2 + (index % 2 === 0 ? 0.02 : -0.02);
      return { point, first: { lo: 0.2, hi: 0.21 }, second: { lo: second, hi: second + 0.01 } };
    });
    for (const { point, first, second } of looks) {
      const gap = ({ lo, hi }: { lo: number; hi: number }) => ({ kind: 'bracket', go: lo, noGo: hi });
      expect((await look(BENCH, point, gap(first), false)).status).toBe(201);
      expect((await look(OTHER, point, gap(second), true)).status).toBe(201);
    }
    // one that says only one side tells nothing of a spread
    await look(BENCH, work.points[11]!, { kind: 'go-only', go: 0.2 }, false);
    await look(OTHER, work.points[11]!, { kind: 'go-only', go: 0.3 }, true);
    // the demo tells of one person's, from looks and pairs of their own
    const told = await feelOf(LEAD);
    expect(told).toMatchObject({ count: 12, locks: [{ means: 'screw', count: 8 }] });
    expect(told.locks[0]!.use).toBeCloseTo(0.0205, 4);
    const mine = await feelOf(OTHER);
    const expected = feelSpread({ looks });
    expect(mine.count).toBe(11);
    expect(mine.sd).toBeCloseTo(expected.sd!, 4);
    expect(mine.bias).toBeCloseTo(expected.bias!, 4);
    expect(mine.guard).toBeCloseTo(2 * expected.sd!, 4);
    expect(await feelOf(BENCH)).toEqual({ ...feelSpread({ looks: [] }), locks: [] });
    expect((await feelOf(VIEWER)).count).toBe(0);
  });
});
