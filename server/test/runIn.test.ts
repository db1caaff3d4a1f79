import type { EngineView } from '@zero-lash/contract/engines';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { readPdf } from './pdf.ts';
import { BENCH, LEAD, TestShop } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** A build on an engine whose sheet asks for heat cycles, and for the head to be tightened again after them. */
const onFlat = () => Work.on(shop, 'Emergency set, Lower School');

describe('an engine’s first hours', () => {
  it('are gone through before it is signed off: heat cycles, the head tightened again, every gap proved again', async () => {
    const work = await onFlat();
    await work.reach('close');
    await work.tickAll();
    const codes = async () => {
      const refused = await work.signOff();
      return [refused.status, refused.body['detail' as never] as unknown as string] as const;
    };
    expect((await codes())[1]).toContain('2 times more');
    expect((await work.tick('close', 'heat 3')).status).toBe(422);
    await work.tick('close', 'heat 1');
    await work.tick('close', 'heat 2');
    expect((await codes())[1]).toMatch(/head A and B tightened again/);
    await work.go('set');
    // what ran hot ran hot; the cover is off again
    expect(work.ticked('close').toSorted()).toEqual(['heat 1', 'heat 2']);
    await work.tick('set', 'head-A');
    await work.tick('set', 'head-B');
    await work.go('prove');
    await work.tickAll();
    expect(await work.go('close')).toMatchObject({ status: 409 });
    for (const point of work.points) await work.measure(point);
    expect((await work.go('close')).status).toBe(200);
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
  });

  it('are said on the sheet, which refuses a torquing again after no heat', async () => {
    const work = await onFlat();
    const { body: all } = await shop.call<SheetRevision[]>(LEAD, 'GET', `sheets/${work.build.sheet.sheetId}`);
    const { pattern, limits, condition, temperature, source, usageUnit, notes, recheckPlan } = all[0]!;
    const body = { pattern, limits, condition, temperature, source, usageUnit, notes, recheckPlan };
    const add = (change: object) =>
      shop.call(LEAD, 'POST', 'sheets', {
        ...{ name: `Flat ${Object.keys(change)[0] ?? ''}`, maker: 'Brunnock', body: { ...body, ...change } },
      });
    expect(all[0]!.runIn).toEqual({ heatCycles: 2, retorque: true });
    expect(await add({ runIn: { heatCycles: 0, retorque: true } })).toMatchObject({
      ...{ status: 400, body: { fields: [{ path: 'body.runIn.heatCycles' }] } },
    });
    for (const wrong of ['13-01', '02-30', '1-1', 'October'])
      expect(
        (await add({ recheckPlan: [{ afterUsage: null, afterDays: null, before: wrong }] })).status,
      ).toBe(400);
    expect((await add({ recheckPlan: [{ afterUsage: null, afterDays: null }] })).status).toBe(400);
    expect(
      await add({
        recheckPlan: [{ afterUsage: null, afterDays: null, before: '10-01', season: 'first frost' }],
      }),
    ).toMatchObject({ status: 201, body: { recheckPlan: [{ before: '10-01', afterCycles: null }] } });
  });
});

describe('a sign-off', () => {
  it('is added to by a lead, with the day and a name, and is itself never changed', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('close');
    await work.tickAll();
    await work.write('notes', { stage: 'close', text: 'Breather cleaned' });
    await work.signOff();
    const add = (who: string) => work.write('notes', { stage: 'close', text: 'Idle set lower at 5 h' }, who);
    expect(await add(BENCH)).toMatchObject({ status: 403 });
    expect((await add(LEAD)).status).toBe(201);
    const pdf = await readPdf((await shop.raw(LEAD, `/api/builds/${work.build.id}/owner-sheet`)).rawPayload);
    expect(pdf.text).toMatch(/Added \d{1,2} [A-Z][a-z]{2} \d{4} by .*: Idle set lower at 5 h/);
    expect(pdf.text).not.toContain('Breather cleaned');
  });
});

describe('a head that is tightened again once the engine runs', () => {
  it('has every gap under it looked at at once, and forecast by what is measured after', async () => {
    const work = await onFlat();
    await work.reach('close');
    await work.tickAll();
    for (const check of ['heat 1', 'heat 2']) await work.tick('close', check);
    await work.go('set');
    for (const check of ['head-A', 'head-B']) await work.tick('set', check);
    await work.go('prove');
    await work.reach('close');
    await work.tickAll();
    expect((await work.signOff()).status).toBe(201);
    const planned = () => work.build.rechecks.find(({ status }) => status === 'planned')!;
    // by a plan of its own only one point of it is looked at
    const { id: engineId } = work.build.engine;
    const { body: engine } = await shop.call<EngineView>(LEAD, 'GET', `engines/${engineId}`);
    await shop.call(LEAD, 'PUT', `engines/${engineId}/plan`, {
      ...{ steps: [{ ...engine.plan!.steps[0]!, points: work.points.slice(0, 1) }], why: 'as seen' },
      version: engine.version,
    });
    work.build = await shop.build(work.build.id);
    const before = planned();
    expect(before.points).toEqual(work.points.slice(0, 1));
    expect(before.forecast!.points.length).toBe(work.points.length);
    expect((await work.tick('run-in', 'rockers-A')).status).toBe(422);
    expect((await work.tick('run-in', 'head-A')).status).toBe(200);
    const now = planned();
    expect(now.dueDate! < before.dueDate!).toBe(true);
    expect(now.state).toBe('due');
    // no sample speaks for a head whose every gap is another one
    expect(now.points).toBeNull();
    expect(now.changes[0]).toMatchObject({ kind: 'moved', why: expect.stringContaining('tightened again') });
    // of what lies under that head nothing is known by now; of the other all that was
    const known = now.forecast!.points.map(({ point }) => point);
    expect(known.length).toBeGreaterThan(0);
    expect(known.length).toBeLessThan(work.points.length);
    const id = await work.recheck();
    expect((await work.judge(id)).status).toBe(201);
    expect(planned().forecast!.points.length).toBe(work.points.length);
    // what was found after it is no drift from before it
    const checks = await shop.db('point_checks').where({ recheck_id: id }).pluck('point');
    expect(checks.sort()).toEqual([...known].sort());
  });
});
