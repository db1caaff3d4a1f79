import type { Morning } from '@zero-lash/contract/morning';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';
import { Work } from './worked.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

const morning = async (who: string) => (await shop.call<Morning>(who, 'GET', 'morning')).body;

describe('the morning', () => {
  it('says what stands still, and for what', async () => {
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    const mine = async (what: Morning['waits'][number]['for']) =>
      (await morning(VIEWER)).waits.filter((each) => each.buildId === work.build.id && each.for === what);
    expect(await mine('cold')).toHaveLength(1);
    await work.tickAll();
    expect(await mine('cold')).toEqual([]);
    await work.reach('close');
    expect(await mine('lead')).toEqual([]);
    await work.tickAll();
    expect(await mine('lead')).toHaveLength(1);
    await work.signOff();
    expect(await mine('lead')).toEqual([]);
  });

  it('tells each person what others did since they looked, and nothing of their own', async () => {
    const { body: looked } = await shop.call<Morning>(BENCH, 'POST', 'morning/looked');
    expect(looked.since).not.toBeNull();
    expect(looked.changed).toEqual([]);
    const work = await Work.on(shop, 'Edger, Pellow Mill');
    await work.reach('close');
    await work.tickAll();
    await work.signOff();
    const engine = work.build.engine.name;
    const told = async (who: string) =>
      (await morning(who)).changed.filter((each) => each.engine === engine).map(({ text }) => text);
    // the bench moved it on, the lead signed it
    expect(await told(BENCH)).toEqual(['is signed off']);
    expect(await told(LEAD)).toContain('is at Close and sign off');
    expect(await told(LEAD)).not.toContain('is signed off');
    const recheck = work.build.rechecks.find(({ status }) => status === 'planned')!;
    await shop.call(LEAD, 'POST', `rechecks/${recheck.id}/move`, {
      ...{ kind: 'held', why: 'harvest', version: recheck.version },
    });
    expect((await told(BENCH))[0]).toBe('its recheck was held: harvest');
    expect((await shop.call<Morning>(BENCH, 'POST', 'morning/looked')).body.changed).toEqual([]);
  });
});
