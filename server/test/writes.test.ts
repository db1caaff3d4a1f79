import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../database.ts';
import { writes } from '../plugins/writeHealth.ts';
import { databaseRefusalCode } from '../plugins/databaseErrors.ts';
import { BENCH, LEAD, TestShop } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

describe('what keeps a database from writing', () => {
  it('is told from what broke: a disk, a read-only database, a connection lost behind the query’s own text', () => {
    for (const code of ['53100', '53200', '58030', '25006', 'ENOSPC'])
      expect(databaseRefusalCode({ code }), code).toBe('cannot_write');
    const query = 'insert into "readings" ("as_typed") values (\'0.1 - 0.2\') returning *';
    for (const lost of ['Connection terminated unexpectedly', 'timeout expired', 'Connection terminated'])
      expect(databaseRefusalCode({ message: `${query} - ${lost}` }), lost).toBe('database_away');
    // what a person typed is not what became of it
    const typed = `insert into "stage_notes" values ('x - Connection terminated') - null value in column "by"`;
    expect(databaseRefusalCode({ message: typed })).toBeNull();
    expect(databaseRefusalCode({ message: 'x is not a function' })).toBeNull();
  });

  it('is 503 with what to do, on health too, and over once it can write again', async () => {
    const { database } = (await shop.db.raw('select current_database() as database')).rows[0];
    // whoever signs in while nothing can be written is told that, too: these came in before
    for (const who of [LEAD, BENCH]) await shop.cookieOf(who);
    const refused = async (says: 'on' | 'off') => {
      await shop.db.raw(`alter database ${database} set default_transaction_read_only = ${says}`);
      // only who connects from now on is told
      const db = connect(shop.url);
      const app = await TestShop.server(db);
      const cookie = await shop.cookieOf(LEAD);
      const answer = await app.inject({
        ...{
          method: 'POST',
          url: '/api/benches',
          headers: { cookie, 'idempotency-key': crypto.randomUUID() },
        },
        payload: { name: `Bench ${says}`, bladeSetId: null, maxStack: 2 },
      });
      await writes.attempt(db);
      const health = (await app.inject({ url: '/api/health' })).json<{ writes: string; ok: boolean }>();
      // what is read is read as ever
      const read = await app.inject({ url: '/api/today', headers: { cookie: await shop.cookieOf(BENCH) } });
      await app.close();
      await db.destroy();
      return {
        status: answer.statusCode,
        code: answer.json<{ code: string }>().code,
        health,
        read: read.statusCode,
      };
    };
    expect(await refused('on')).toMatchObject({
      ...{ status: 503, code: 'cannot_write', health: { writes: 'read-only', ok: true }, read: 200 },
    });
    expect(await refused('off')).toMatchObject({ status: 201, health: { writes: 'fine' }, read: 200 });
  });
});
