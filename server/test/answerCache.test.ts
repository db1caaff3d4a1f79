import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AnswerCache } from '../answerCache.ts';
import { UNNOTED } from '../migrations/119-tableChanges.ts';
import { readNoted, sumTableChanges, TableVersions, tablesIn, type Versions } from '../tableVersions.ts';
import { BENCH, LEAD, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** What is read from a table, with how often it was. */
function counting(cache: AnswerCache, table: string) {
  let made = 0;
  return async () => {
    await cache.read(table, () => {
      made += 1;
      return shop.db(table).count('* as n').first();
    });
    return made;
  };
}

describe('what is kept of an answer', () => {
  it('is given until one of the tables it was read from is written to, whoever writes', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db));
    const [notes, sheets] = [counting(cache, 'stage_notes'), counting(cache, 'sheets')];
    expect([await notes(), await notes(), await sheets(), await sheets()]).toEqual([1, 1, 1, 1]);
    const build = await shop.buildOf('Snow groomer 2');
    await shop.write(BENCH, 'POST', `builds/${build.id}/notes`, { stage: build.stage, text: 'seen' });
    expect([await notes(), await sheets()]).toEqual([2, 1]);
    // past the server, as another program on the same database would; and what is undone was not written
    await shop.db('sheets').update({ name: shop.db.ref('name') });
    await shop.db
      .transaction(async (transaction) => {
        await transaction('stage_notes').delete();
        throw new Error('not after all');
      })
      .catch(() => undefined);
    expect([await notes(), await sheets()]).toEqual([2, 2]);
    await shop.db.raw('truncate stage_notes cascade');
    expect(await notes()).toBe(3);
  });

  it('is known by every table that is asked for it, however late and in a transaction of its own', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db));
    let made = 0;
    const read = () =>
      cache.read('both', async () => {
        made += 1;
        await shop.db('owners').first('id');
        return shop.db.transaction((transaction) => transaction.raw('select count(*) from benches b'));
      });
    await read();
    await read();
    expect(made).toBe(1);
    await shop.db('benches').update({ name: shop.db.ref('name') });
    await read();
    expect(made).toBe(2);
    await shop.db('owners').update({ name: shop.db.ref('name') });
    await read();
    expect(made).toBe(3);
  });

  it('is nothing where a table is in it of which nobody notes when it is written to', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db));
    await expect(cache.read('s', () => shop.db('writes').first('key'))).rejects.toThrow(/writes/);
    const { noted, others } = await readNoted(shop.db);
    expect([...others].sort()).toEqual([...UNNOTED].sort());
    expect(noted.size).toBeGreaterThan(30);
    // a function that read a table where something is read would hide its name
    const { rows } = await shop.db.raw(
      `select proname as name from pg_proc p where p.pronamespace = 'public'::regnamespace and p.prorettype <> 'trigger'::regtype
          and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e') order by 1`,
    );
    expect((rows as { name: string }[]).map(({ name }) => name)).toEqual(['folded', 'note_changes_of']);
  });

  it('of a build hangs on the build’s own count only where that is in it', async () => {
    const schema = await readNoted(shop.db);
    const tables = (sql: string) => tablesIn(sql, schema).tables;
    expect(tables('select b.stage from builds b join engines e on e.id = b.engine_id')).toEqual([
      'builds',
      'engines',
    ]);
    for (const sql of ['select b.seq from builds b', 'select b.* from builds b', 'select * from "builds"'])
      expect(tables(sql), sql).toEqual(['builds', 'seq']);
    // any other column is noted as a table is, also one that is added one day
    const { rows } = await shop.db.raw(
      `select a.attname as name from pg_attribute a where a.attrelid = 'builds'::regclass and a.attnum > 0 and not a.attisdropped
          and not exists (select from pg_trigger t where t.tgrelid = a.attrelid and t.tgname = 'changes_noted' and a.attnum = any(t.tgattr))`,
    );
    expect(rows).toEqual([{ name: 'seq' }]);
  });

  it('may have parts that are kept by themselves, and hangs on what they hang on', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db));
    const made = { whole: 0, part: 0 };
    const read = () =>
      cache.read('whole', async (_day, part) => {
        made.whole += 1;
        await shop.db('benches').first('id');
        return part('owners', () => {
          made.part += 1;
          return shop.db('owners').count('* as n').first();
        });
      });
    const touch = (table: 'benches' | 'owners') => shop.db(table).update({ name: shop.db.ref('name') });
    expect(await read()).toBe(await read());
    await touch('benches');
    await read();
    expect(made).toEqual({ whole: 2, part: 1 });
    await touch('owners');
    await read();
    expect(made).toEqual({ whole: 3, part: 2 });
  });

  it('is counted alike before what was noted is added up and after, while others write', async () => {
    const name = 'stage_notes';
    const before = (await new TableVersions(shop.db).now()).tables;
    const writes = Array.from({ length: 20 }, () => shop.db('owners').update({ name: shop.db.ref('name') }));
    await Promise.all([...writes, ...Array.from({ length: 5 }, () => sumTableChanges(shop.db))]);
    await sumTableChanges(shop.db);
    const after = (await new TableVersions(shop.db).now()).tables;
    expect(after.owners! - before.owners!).toBe(20);
    expect(after[name]).toBe(before[name]);
    expect(await shop.db('table_changes').count('* as n').first()).toEqual({ n: 0 });
  });

  it('is read once for all who ask meanwhile, and again on another day', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db));
    let made = 0;
    const seen: Versions = { ...(await new TableVersions(shop.db).now()), day: '2031-03-12' };
    const read = (day: string) =>
      cache.read(
        'day',
        (given) => {
          made += 1;
          return Promise.resolve(given);
        },
        { ...seen, day },
      );
    expect(new Set(await Promise.all(Array.from({ length: 50 }, () => read('2031-03-12'))))).toEqual(
      new Set(['"2031-03-12"']),
    );
    expect(made).toBe(1);
    expect(await read('2031-03-13')).toBe('"2031-03-13"');
  });

  it('is asked for again after it failed', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db));
    await expect(cache.read('x', () => Promise.reject(new Error('not there')))).rejects.toThrow('not there');
    expect(await cache.read('x', () => Promise.resolve('there'))).toBe('"there"');
  });

  it('goes, the longest unasked first, where it is too much', async () => {
    const cache = new AnswerCache(shop.db, new TableVersions(shop.db), 20);
    const seen = await new TableVersions(shop.db).now();
    const made: string[] = [];
    const large = (name: string) =>
      cache.read(
        name,
        () => {
          made.push(name);
          return Promise.resolve('xxxxx');
        },
        seen,
      );
    for (const name of ['a', 'b', 'a', 'c', 'a', 'b']) await large(name);
    expect(made).toEqual(['a', 'b', 'c', 'b']);
  });

  it('is the same for whoever asks, has nothing of who asked before, and is never older than what one wrote', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const [theirs, mine] = await Promise.all(
      [BENCH, VIEWER].map((who) => shop.call(who, 'GET', `builds/${build.id}/rounds`)),
    );
    expect(theirs!.body).toEqual(mine!.body);
    const listed = async () =>
      (await shop.call<{ engines: { name: string }[] }>(VIEWER, 'GET', 'engines')).body.engines;
    const { engine } = build;
    for (const name of ['Groomer A', 'Groomer B', engine.name]) {
      const { version } = (await shop.call<{ version: number }>(LEAD, 'GET', `engines/${engine.id}`)).body;
      const { name: _, ...rest } = (await shop
        .db('engines')
        .where({ id: engine.id })
        .first('name', 'serial', 'owner', 'duty', 'place'))!;
      await shop.call(LEAD, 'PATCH', `engines/${engine.id}`, { ...rest, name, version });
      expect((await listed()).some((each) => each.name === name)).toBe(true);
    }
  });
});
