import { readFile } from 'node:fs/promises';
import { format, resolveConfig } from 'prettier';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { tableTypes } from '../../scripts/tableTypes.mjs';
import { json } from '../storedJson.ts';
import { TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

describe('the tables as the server knows them', () => {
  it('are those of the database as the migrations leave it: npm run schema writes them', async () => {
    const place = new URL('../tables.ts', import.meta.url).pathname;
    const options = await resolveConfig(place);
    const made = await format(await tableTypes(shop.db), { ...options, filepath: place });
    expect(await readFile(place, 'utf8')).toBe(made);
  });

  it('are typed to the words that the database holds a column to', async () => {
    const types = await tableTypes(shop.db);
    expect(types).toMatch(/usage_unit: 'hours' \| 'km' \| 'miles' \| 'starts' \| 'events' \| 'none';/);
    expect(types).toMatch(/earlier: Date\[\];/);
  });
});

describe('stored JSON', () => {
  it('that is none of what its column holds is named, and not passed on', async () => {
    expect(() => json('rechecks.points', [1])).toThrow(/^rechecks\.points cannot be read/);
    expect(json('rechecks.points', ['1Ia'])).toEqual(['1Ia']);
    const [build] = await shop.db('builds').limit(1).select('id');
    await shop
      .db('builds')
      .where({ id: build!.id })
      .update({ allow_over: JSON.stringify({ over: 1 }) });
    expect((await shop.call(VIEWER, 'GET', `builds/${build!.id}`)).status).toBe(500);
    await shop.db('builds').where({ id: build!.id }).update({ allow_over: '[]' });
  });

  it('that an older version took is read, also where nobody may write it any more', () => {
    // more than is allowed today, and a season that ends and has no first day
    expect(json('shop.allow_over', [{ role: 'intake', over: 0.2 }])).toHaveLength(1);
    const [step] = json('engine_plans.plan', [{ afterUsage: null, afterDays: 180, until: '03-01' }])!;
    expect(step).toMatchObject({ afterDays: 180, before: null, until: '03-01', points: [] });
  });
});
