import type { BuildWrite } from '@zero-lash/contract/builds';
import type { OtherRound } from '@zero-lash/contract/measuring';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const move = (from: string, to: string, points: readonly string[], who = LEAD) =>
  shop.call<BuildWrite & { code: string }>(who, 'POST', `rounds/${from}/moved`, { to, points });
const reload = async (work: Work) => (work.build = await shop.build(work.build.id));

/** Two engines of one pattern, one measured as found, and one that is opened only after that. */
async function mixedUp() {
  const wrong = await Work.on(shop, 'Frost fan 9, River Terrace');
  await wrong.reach('as-found');
  const [one, two, three] = wrong.points as [string, string, string];
  for (const point of [one, two]) await wrong.measure(point);
  await wrong.measure(three, 'tight');
  const right = await Work.on(shop, 'Frost fan 9, River Terrace');
  await right.reach('as-found');
  return {
    wrong,
    right,
    points: [one, two, three],
    from: wrong.build.rounds[0]!.id,
    to: right.build.rounds[0]!.id,
  };
}

describe('what was read of another engine', () => {
  it('moves to it as it was taken, by whom and when, and is struck out where it was, each with where from and to', async () => {
    const { wrong, right, points, from, to } = await mixedUp();
    const before = wrong.build.rounds[0]!.readings;
    const others = await shop.call<OtherRound[]>(VIEWER, 'GET', `rounds/${from}/others`);
    expect(others.body.map(({ roundId }) => roundId)).toContain(to);
    const [one, , three] = points as [string, string, string];
    expect(await move(from, to, [one, three])).toMatchObject({ status: 200 });
    await reload(wrong);
    await reload(right);
    const there = right.build.rounds[0]!.readings;
    expect(there.map(({ point, verdict }) => [point, verdict])).toEqual([
      [one, 'in-spec'],
      [three, 'tight'],
    ]);
    const was = before.find(({ point }) => point === one)!;
    expect(there[0]).toMatchObject({ by: was.by, takenAt: was.takenAt, asTyped: was.asTyped });
    expect(there[0]!.reason).toContain(`read at ${wrong.build.engine.name}`);
    const left = wrong.build.rounds[0]!.readings;
    const stands = left.filter(({ reading }) => !(reading.kind === 'tries' && reading.tries.length === 0));
    expect(stands.map(({ point }) => point)).toEqual([points[1]]);
    expect(left.find(({ point }) => point === one)!.reason).toContain(`it was of ${right.build.engine.name}`);
    // moved once: what was struck out is nothing that could be moved again
    expect((await move(from, to, [one])).body.code).toBe('nothing_to_move');
  });

  it('goes into no round of its own engine, of another kind, or that is not measured in', async () => {
    const { wrong, from, to, points } = await mixedUp();
    expect((await move(from, from, points)).body.code).toBe('wrong_round');
    const set = await Work.on(shop, 'Frost fan 9, River Terrace');
    await set.reach('set');
    expect((await move(from, set.build.rounds.at(-1)!.id, points)).body.code).toBe('wrong_round');
    expect((await move(from, set.build.rounds[0]!.id, points)).body.code).toBe('wrong_round');
    expect((await move(from, to, points, VIEWER)).status).toBe(403);
    const other = await Work.on(shop, 'Edger, Pellow Mill');
    await other.reach('as-found');
    expect((await move(from, other.build.rounds[0]!.id, points)).body.code).toBe('unknown_point');
    // and of what was refused nothing was done
    await reload(wrong);
    expect(wrong.build.rounds[0]!.readings.every(({ reason }) => reason === '')).toBe(true);
  });

  it('is not lost where two move one another’s at once', async () => {
    const { wrong, right, from, to, points } = await mixedUp();
    await right.measure(points[1]!);
    const [there, back] = await Promise.all([
      move(from, to, [points[0]!], BENCH),
      move(to, from, [points[1]!], LEAD),
    ]);
    expect([there.status, back.status]).toEqual([200, 200]);
    await reload(wrong);
    await reload(right);
    const standing = (work: Work) =>
      work.build.rounds[0]!.readings.filter(
        ({ reading }) => !(reading.kind === 'tries' && reading.tries.length === 0),
      )
        .map(({ point }) => point)
        .toSorted();
    expect(standing(right)).toEqual([points[0]]);
    expect(standing(wrong)).toEqual([points[1], points[2]].toSorted());
  });
});
