import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addManyEngines } from '../../scripts/bench/manyEngines.mjs';
import { addressesOf } from '../../scripts/bench/today.mjs';
import { LEAD, TestShop } from './shop.ts';

/** Engines of the smaller shop, and of the larger one: five times as many. */
const FEW = 200;
const MANY = 1000;
const ROUNDS_EACH = 2;
/** What grows with the shop touches a row more for at least every second engine that came. */
const GROWS = (MANY - FEW) / 2;

/**
 * Tables that a page's data still looks through as the shop grows, though their answers are kept until one of them is written to. A page
 * or a table that is not named here must not: nor one that is, once it does not any more.
 */
const GROW: Readonly<Record<string, readonly string[]>> = {
  // which recheck is due is worked out by day and by what the engine has run; the bench counts what stands at each stage
  today: ['builds', 'engines', 'rechecks'],
  // how many there are in all
  engines: ['engines'],
  'engines-by-recheck': ['builds', 'engines', 'rechecks'],
  // so few are found by their names sooner than by the index of words
  search: ['engines'],
  engine: [],
  build: [],
  readings: [],
  // how many engines each is of
  sheets: ['engines'],
  rechecks: ['engines', 'rechecks'],
  'rechecks-month': ['engines', 'rechecks'],
  // what all engines of a pattern say is summed over all that was found on them
  fleet: ['engines', 'point_checks', 'rechecks'],
  drawer: [],
};

/** Which tables have changed since when: asked at every request, and summed up every two seconds. */
const OF_THE_CACHE = new Set(['table_changes', 'table_counts']);

interface Asked {
  readonly sql: string;
  readonly bindings: readonly unknown[];
}

/** A node of a plan, as far as it is read here. */
interface Plan {
  readonly 'Relation Name'?: string;
  readonly 'Actual Rows': number;
  readonly 'Actual Loops': number;
  readonly 'Rows Removed by Filter'?: number;
  readonly 'Rows Removed by Index Recheck'?: number;
  readonly Plans?: readonly Plan[];
}

/** Rows that a plan touches, by table: those it gives and those it looks at and lets fall. */
function touchedIn(plan: Plan, sums: Map<string, number> = new Map()): Map<string, number> {
  const table = plan['Relation Name'];
  if (table !== undefined) {
    const rows =
      plan['Actual Rows'] +
      (plan['Rows Removed by Filter'] ?? 0) +
      (plan['Rows Removed by Index Recheck'] ?? 0);
    sums.set(table, (sums.get(table) ?? 0) + rows * plan['Actual Loops']);
  }
  for (const each of plan.Plans ?? []) touchedIn(each, sums);
  return sums;
}

let shop: TestShop;
let reader: pg.Client;
let cookie: string;
beforeAll(async () => {
  shop = await TestShop.open();
  await addManyEngines(shop.url, FEW, ROUNDS_EACH);
  reader = new pg.Client({ connectionString: shop.url });
  await reader.connect();
  // small as the shop is here, a plan that needs no scan is taken wherever there is one
  await reader.query('set enable_seqscan = off');
  cookie = await shop.cookieOf(LEAD);
}, 120_000);
afterAll(async () => {
  await reader.end();
  await shop.close();
});

/** Rows that the data of a page touches, by table, read again as after a write to any of them. */
async function touchedBy(path: string): Promise<ReadonlyMap<string, number>> {
  await shop.db.raw('insert into table_changes (name) select name from table_counts');
  const asked: Asked[] = [];
  const note = (query: Asked) => void asked.push(query);
  shop.db.on('query', note);
  const answer = await shop.app.inject({ method: 'GET', url: path, headers: { cookie } });
  shop.db.removeListener('query', note);
  expect(answer.statusCode, path).toBe(200);
  const reads = asked.filter(({ sql }) => /^\s*(select|with)\b/i.test(sql));
  expect(reads, path).not.toEqual([]);
  const sums = new Map<string, number>();
  for (const { sql, bindings } of reads) {
    const explained = { text: `explain (analyze, timing off, format json) ${sql}`, values: [...bindings] };
    const { rows } = await reader.query(explained);
    touchedIn(rows[0]['QUERY PLAN'][0].Plan as Plan, sums);
  }
  return sums;
}

describe('what is read for a page', () => {
  it('touches no more rows in a shop of five times the engines, but for what is known to', async () => {
    const base = await shop.app.listen({ port: 0, host: '127.0.0.1' });
    const pages = (await addressesOf(base, cookie)) as [string, string, string][];
    const few = new Map<string, ReadonlyMap<string, number>>();
    for (const [name, , path] of pages) few.set(name, await touchedBy(path));
    await addManyEngines(shop.url, MANY - FEW, ROUNDS_EACH, 'C');
    const grown: Record<string, string[]> = {};
    for (const [name, , path] of pages) {
      const before = few.get(name)!;
      grown[name] = [...(await touchedBy(path))]
        .filter(([table, rows]) => !OF_THE_CACHE.has(table) && rows - (before.get(table) ?? 0) > GROWS)
        .map(([table]) => table)
        .sort();
    }
    expect(grown).toEqual(GROW);
  }, 120_000);
});
