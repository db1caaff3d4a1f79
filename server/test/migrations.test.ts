import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect, migrate } from '../database.ts';
import { EARLIER_NAMES, earlierSource } from '../migrations/earlier/index.ts';
import { migrationSource } from '../migrations/index.ts';
import { takeBack } from './earlierSteps.ts';
import { emptyDatabase, TestShop } from './shop.ts';

/** Everything that a database's tables are made of, in the words of PostgreSQL itself. */
async function schemaOf(db: Knex): Promise<object> {
  const asked = async (sql: string) => (await db.raw(sql)).rows as object[];
  return {
    columns: await asked(
      `select table_name, column_name, data_type, udt_name, is_nullable, column_default, generation_expression,
         identity_generation from information_schema.columns
        where table_schema = 'public' and table_name not like 'knex%' order by table_name, ordinal_position`,
    ),
    constraints: await asked(
      `select conrelid::regclass::text as of, conname, pg_get_constraintdef(oid) as is from pg_constraint
        where connamespace = 'public'::regnamespace and conrelid::regclass::text not like 'knex%' order by 1, 2`,
    ),
    indexes: await asked(
      `select tablename, indexname, indexdef from pg_indexes
        where schemaname = 'public' and tablename not like 'knex%' order by 1, 2`,
    ),
    triggers: await asked(
      `select tgrelid::regclass::text as of, tgname, pg_get_triggerdef(oid) as is from pg_trigger where not tgisinternal order by 1, 2`,
    ),
    functions: await asked(
      `select proname, regexp_replace(prosrc, '\\s+', ' ', 'g') as is, prorettype::regtype::text as gives, provolatile
         from pg_proc p where pronamespace = 'public'::regnamespace
           and not exists (select 1 from pg_depend d where d.objid = p.oid and d.deptype = 'e') order by 1`,
    ),
  };
}

const recorded = (db: Knex): Promise<string[]> => db('knex_migrations').orderBy('id').pluck('name');
const ours = async () => (await migrationSource.getMigrations([])) as string[];

let fresh: Knex;
let whole: object;
beforeAll(async () => {
  fresh = connect(await emptyDatabase());
  await migrate(fresh);
  whole = await schemaOf(fresh);
});
afterAll(() => fresh.destroy());

describe('the first schema', () => {
  it('is what the steps that led to it leave, to the last check, index and trigger', async () => {
    const db = connect(await emptyDatabase());
    await db.migrate.latest({ migrationSource: earlierSource });
    const first = connect(await emptyDatabase());
    await first.migrate.up({ migrationSource });
    const asWritten = await schemaOf(first);
    expect(await schemaOf(db)).toEqual(asWritten);
    expect(Object.keys(asWritten)).toHaveLength(5);
    await first.destroy();
    await migrate(db);
    expect(await recorded(db)).toEqual(await ours());
    expect(await schemaOf(db)).toEqual(whole);
    await db.destroy();
  });

  it('is never taken back: with it everything would go', async () => {
    const db = connect(await emptyDatabase());
    await db.migrate.up({ migrationSource });
    const before = await schemaOf(db);
    await expect(db.migrate.down({ migrationSource })).rejects.toThrow('is not taken back');
    expect(await schemaOf(db)).toEqual(before);
    await db.destroy();
  });
});

describe('the steps after the first schema', () => {
  it('are taken back and done again, and keep a worked shop', async () => {
    const shop = await TestShop.open();
    const limits = () => shop.db('sheet_limits').orderBy(['revision_id', 'role']).select('*');
    const before = await limits();
    const steps = (await ours()).slice(1);
    for (const _step of steps) await shop.db.migrate.down({ migrationSource });
    expect(await recorded(shop.db)).toEqual((await ours()).slice(0, 1));
    await migrate(shop.db);
    const single = before.filter(({ figure_tenths: figure }) => figure !== null);
    // what the schema before had no place for is the band that it is usually given
    expect(await limits()).toEqual(
      before.map((row) => {
        const { figure_tenths: figure } = row;
        if (figure === null) return { ...row, also: [] };
        const by = Math.min(200, Math.floor(figure / 10));
        return { ...row, figure_tenths: null, min_tenths: figure - by, max_tenths: figure + by, also: [] };
      }),
    );
    expect(single.length).toBeGreaterThan(0);
    expect(await schemaOf(shop.db)).toEqual(whole);
    await shop.close();
  });
});

describe('a database of an earlier version', () => {
  it.each(
    // the steps are the same from wherever they begin
    EARLIER_NAMES.map((name, index) => [name, index] as const).filter(
      ([, index]) => index % 10 === 0 || index === EARLIER_NAMES.length - 1,
    ),
  )('that was left at %s is brought over', async (_name, index) => {
    const db = connect(await emptyDatabase());
    for (let step = 0; step <= index; step += 1) await db.migrate.up({ migrationSource: earlierSource });
    expect(await recorded(db)).toHaveLength(index + 1);
    await migrate(db);
    expect(await recorded(db)).toEqual(await ours());
    expect(await schemaOf(db)).toEqual(whole);
    await db.destroy();
  });

  it('keeps its worked shop on the way', async () => {
    const shop = await TestShop.open();
    const kept = async () => ({
      engines: await shop.db('engines').orderBy('id').select('id', 'name', 'usage'),
      readings: await shop.db('readings').count('* as n').first(),
      signOffs: await shop.db('sign_offs').orderBy('build_id').select('build_id', 'usage'),
    });
    const before = await kept();
    // the newest carry a shop's rows over; before them a shop has to be empty of what they added
    await takeBack(shop.db, 22);
    await migrate(shop.db);
    expect(await kept()).toEqual(before);
    expect(await recorded(shop.db)).toEqual(await ours());
    await shop.close();
  });

  it('knows of nobody who ticked a check before that was kept, and when it was ticked still', async () => {
    const shop = await TestShop.open();
    const at = new Date('2026-03-01T09:00:00Z');
    const { build_id, stage, check_key } = (await shop.db('stage_ticks').first())!;
    const one = () => shop.db('stage_ticks').where({ build_id, stage, check_key });
    await one().update({ earlier: [at] });
    await takeBack(shop.db, 1);
    await migrate(shop.db);
    expect(await one().first('earlier', 'earlier_by')).toEqual({ earlier: [at], earlier_by: [null] });
    await shop.close();
  });

  it('that is ended as its names give way goes on from there', async () => {
    const db = connect(await emptyDatabase());
    await db.migrate.latest({ migrationSource: earlierSource });
    // the names are exchanged in one transaction: what comes to nothing leaves them as they were
    await db.raw(`alter table knex_migrations add constraint not_yet check (name not like '100%')`);
    await expect(migrate(db)).rejects.toThrow('not_yet');
    expect(await recorded(db)).toEqual([...EARLIER_NAMES]);
    await db.raw('alter table knex_migrations drop constraint not_yet');
    await migrate(db);
    expect(await recorded(db)).toEqual(await ours());
    await db.destroy();
  });
});
