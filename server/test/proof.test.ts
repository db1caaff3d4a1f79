import { STAGE_KEYS, stageOf } from '@zero-lash/core/builds';
import { whyNoProof } from '@zero-lash/core/measuring';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, type BuildView } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

describe('a proof', () => {
  it('is no reading taken off the base circle: the build is not signed off on it', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('prove');
    await work.tickAll();
    const [first, ...rest] = work.points as [string, ...string[]];
    for (const point of rest) await work.measure(point);
    await work.measure(first, 'off-base');
    expect(await work.go('close')).toMatchObject({ status: 409, body: { points: [first] } });
    expect((await work.go('close')).body['detail' as never]).toContain('off the base circle');
    await work.measure(first);
    expect((await work.go('close')).status).toBe(200);
  });

  it('of a recheck is none either', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('close');
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    const [recheck] = work.build.rechecks;
    await shop.call(BENCH, 'POST', `rechecks/${recheck!.id}/round`, {});
    work.build = await shop.build(work.build.id);
    const [first, ...rest] = work.points as [string, ...string[]];
    for (const point of rest) await work.measure(point);
    await work.measure(first, 'off-base');
    expect(await shop.call(BENCH, 'POST', `rechecks/${recheck!.id}/outcome`)).toMatchObject({
      ...{ status: 409, body: { code: 'recheck_incomplete', points: [first] } },
    });
    await work.measure(first);
    expect((await shop.call(BENCH, 'POST', `rechecks/${recheck!.id}/outcome`)).status).toBe(201);
  });
});

describe('going back', () => {
  it('from Prove to Set and forth keeps what proving found, until it is set', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('prove');
    const [first] = work.points as [string];
    await work.measure(first, 'tight');
    await work.go('set');
    expect(await work.go('prove')).toMatchObject({ status: 409, body: { points: [first] } });
    await work.set(first, { kind: 'left', note: 'watched' });
    expect((await work.go('prove')).status).toBe(200);
    await work.go('set');
    // the empty round in between found nothing, and forgets nothing
    expect(work.build.rounds.filter(({ kind }) => kind === 'proved')).toHaveLength(2);
    await work.set(first);
    expect((await work.go('prove')).status).toBe(200);
  });

  it('from Close to Set unticks what is no longer true: counted in, cover on, first start; after a change the turns as well', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('close');
    await work.tickAll();
    expect(work.ticked('close').length).toBeGreaterThan(1);
    expect(work.ticked('prove').length).toBeGreaterThan(0);
    await work.go('set');
    expect([work.ticked('close'), work.ticked('prove').length]).toEqual([[], 3]);
    expect(work.ticked('open-up').length).toBeGreaterThan(0);
    await work.set(work.points[0]!);
    await work.go('prove');
    expect(work.ticked('prove')).toEqual([]);
    await work.reach('close');
    expect(await work.signOff()).toMatchObject({ status: 409, body: { code: 'not_provable' } });
  });
});

describe('a second look', () => {
  it('is another person’s, and measuring twice oneself is nobody else’s writing', async () => {
    const build = await shop.buildOf('Frost fan 7, Chapel Slope');
    const take = (who: string, change: object) =>
      shop.read(who, build.rounds.at(-1)!.id, {
        ...{ point: '4I', reading: { kind: 'bracket', go: 0.28, noGo: 0.3 }, asTyped: '0.28 0.30' },
        ...change,
      });
    await take(BENCH, {});
    expect((await take(BENCH, { over: null })).body.reason).toBe('measured again');
    expect(await take(BENCH, { blind: true })).toMatchObject({ status: 409, body: { code: 'own_second' } });
    expect((await take(LEAD, { over: null })).body.reason).toContain(`written while ${BENCH}`);
    expect((await take(BENCH, { blind: true })).body.reason).toContain('without seeing the first');
  });
});

describe('a setting', () => {
  it('is of the means its point has', async () => {
    const turned = { kind: 'turned', degrees: 30 };
    const fitted = { kind: 'fitted', installed: 2.45, fitted: 2.35 };
    for (const [engine, good, bad] of [
      ['Railcar 1', fitted, turned],
      ['Edger, Pellow Mill', turned, fitted],
    ] as const) {
      const work = await Work.on(shop, engine === 'Railcar 1' ? await railcar() : engine);
      await work.reach('set');
      const [first] = work.points as [string];
      expect(await work.set(first, bad)).toMatchObject({ status: 422, body: { code: 'other_means' } });
      expect((await work.set(first, good)).status).toBe(201);
    }
  });

  const railcar = async () =>
    (await shop.db('engines').whereRaw(`name like 'Railcar 1%'`).first('name'))!.name;
});

describe('any way a build may be gone', () => {
  const step = fc.oneof(
    fc.record({ what: fc.constant('on' as const) }),
    fc.record({ what: fc.constant('back' as const), to: fc.constantFrom(...STAGE_KEYS) }),
    fc.record({ what: fc.constant('tick' as const) }),
    fc.record({ what: fc.constant('sign' as const) }),
    fc.record({
      what: fc.constant('measure' as const),
      point: fc.nat(1),
      how: fc.constantFrom(
        'sound' as const,
        'sound' as const,
        'tight' as const,
        'off-base' as const,
        'withdrawn' as const,
      ),
    }),
    fc.record({ what: fc.constant('set' as const), point: fc.nat(1), left: fc.boolean() }),
  );

  it('leaves one reading standing at a point, no tick of what was undone, and nothing unproved signed off', async () => {
    let signed = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 14 }), async (steps) => {
        const work = await Work.on(shop, 'Edger, Pellow Mill');
        await work.reach('prove');
        await work.tickAll();
        for (const point of work.points) await work.measure(point);
        for (const next of steps) {
          const before = work.build;
          if (next.what === 'tick') await work.tickAll();
          if (next.what === 'sign') await work.signOff();
          if (next.what === 'measure') await work.measure(work.points[next.point]!, next.how);
          if (next.what === 'set')
            await work.set(
              work.points[next.point]!,
              next.left ? { kind: 'left', note: 'watched' } : { kind: 'turned', degrees: 10 },
            );
          if (next.what === 'on') await work.go(STAGE_KEYS[STAGE_KEYS.indexOf(before.stage) + 1] ?? 'run-in');
          if (next.what === 'back') await work.go(next.to);
          await holds(work, before);
        }
        if (work.build.signOff) signed += 1;
      }),
      { numRuns: 4, seed: 8 },
    );
    expect(signed).toBeGreaterThan(0);
  }, 120_000);

  /** What must hold after any step, whatever it was answered. */
  async function holds({ build, points }: Work, before: BuildView): Promise<void> {
    for (const round of build.rounds)
      expect(new Set(round.readings.map(({ point }) => point)).size).toBe(round.readings.length);
    const open = build.rounds.filter(({ closedAt }) => closedAt === null).map(({ kind }) => kind);
    expect(new Set(open).size, open.join()).toBe(open.length);
    const went = STAGE_KEYS.indexOf(build.stage) - STAGE_KEYS.indexOf(before.stage);
    expect(went).toBeLessThanOrEqual(1);
    if (went < 0)
      for (const stage of stageOf(build.stage).unticks)
        expect(build.ticks.filter((tick) => tick.stage === stage && tick.done)).toEqual([]);
    if (!build.signOff || before.signOff) return;
    const proofs = build.rounds.filter(({ kind }) => kind === 'proved').flatMap(({ readings }) => readings);
    for (const point of points) {
      const changed = build.settings.find((row) => row.point === point && row.kind !== 'left');
      const sound = proofs.filter((row) => row.point === point && !whyNoProof(row, changed?.at ?? null));
      expect(sound.at(-1)?.verdict, point).toBe('in-spec');
    }
    const changes = build.settings.filter(({ kind }) => kind !== 'left').map(({ at }) => Date.parse(at));
    const turns = build.ticks.filter(({ stage, done }) => stage === 'prove' && done);
    expect(turns.length).toBeGreaterThan(0);
    for (const { at } of turns) expect(Date.parse(at)).toBeGreaterThanOrEqual(Math.max(0, ...changes));
    expect(build.rechecks.filter(({ status }) => status === 'planned')).toHaveLength(1);
  }
});
