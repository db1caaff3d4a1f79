import { lashPoints } from '@zero-lash/core/sheets';
import type { EngineRow } from '@zero-lash/contract/engines';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, TestShop } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

describe('a check with one head finished before the other is opened', () => {
  it('proves the first, goes back, finds the other as found, and signs for both', async () => {
    const { sheet } = await shop.buildOf('Hose pump, Overmere Quay');
    const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{
        name: 'Two heads, Quay',
        serial: '',
        owner: '',
        duty: '',
        usage: 10,
        sheetId: sheet.sheetId,
      },
    });
    const work = await Work.on(shop, '', { engineId: engine.id, revisionId: sheet.id, job: 'valve-check' });
    const { pattern } = sheet;
    const of = (bank: string) =>
      lashPoints(pattern)
        .filter(({ cylinder }) => pattern.cylinders.find(({ id }) => id === cylinder)!.bank === bank)
        .map(({ key }) => key);
    const [a, b] = [of('A'), of('B')];
    await work.reach('set');
    expect((await work.tick('set', 'unopened B')).status).toBe(200);
    expect((await work.tick('set', 'unopened C')).status).toBeGreaterThanOrEqual(400);
    for (const point of a) await work.measure(point, point === a[0] ? 'tight' : 'sound');
    expect((await work.set(a[0]!)).status).toBe(201);
    await work.measure(a[0]!);
    const proving = await work.go('prove');
    expect(proving).toMatchObject({ status: 200 });
    await work.tickAll();
    await work.measure(a[0]!);
    // what it was found at proves the rest of the head; the other one is still to come
    expect(await work.go('close')).toMatchObject({
      body: { code: 'stage_not_ready', detail: expect.stringMatching(/Head B is not opened yet/), points: b },
    });
    expect((await work.go('set')).status).toBe(200);
    expect((await work.tick('set', 'unopened B', { done: false })).status).toBe(200);
    for (const point of b) await work.measure(point);
    const found = work.build.rounds.find(({ kind }) => kind === 'as-found')!;
    expect(found.readings.map(({ point }) => point).sort()).toEqual([...a, ...b].sort());
    expect((await work.go('prove')).status).toBe(200);
    await work.tickAll();
    const closing = await work.go('close');
    expect(closing).toMatchObject({ status: 200 });
    await work.tickAll();
    expect(await work.signOff()).toMatchObject({ status: 201 });
  });
});
