import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AnswerCache } from '../answerCache.ts';
import { BENCH, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** A database in which nobody writes: the tests' own is never quiet, for all of them share its cluster. */
function quiet() {
  let asked = 0;
  const raw = () => {
    asked += 1;
    return Promise.resolve({ rows: [{ snapshot: '7:7:', zone: 'UTC' }] });
  };
  return { db: { raw } as unknown as Knex, asked: () => asked };
}

describe('what is kept of an answer', () => {
  it('is given as long as nothing was written, however many ask', async () => {
    const { db, asked } = quiet();
    const cache = new AnswerCache(db);
    let made = 0;
    const count = () => cache.read('count', () => Promise.resolve((made += 1)));
    expect([await count(), await count()]).toEqual(['1', '1']);
    const before = asked();
    expect(new Set(await Promise.all(Array.from({ length: 50 }, count)))).toEqual(new Set(['1']));
    // the one that is on its way as the rest come, and one for all of those
    expect(asked() - before).toBe(2);
  });

  it('is not given a write longer, whoever wrote it', async () => {
    const cache = new AnswerCache(shop.db);
    let made = 0;
    const count = () => cache.read('count', () => Promise.resolve((made += 1)));
    await count();
    const before = made;
    const build = await shop.buildOf('Snow groomer 2');
    await shop.write(BENCH, 'POST', `builds/${build.id}/notes`, { stage: build.stage, text: 'seen' });
    expect(Number(await count())).toBeGreaterThan(before);
    const again = made;
    // past the server, as another program on the same database would
    await shop.db('shop').update({ name: 'Overmere' });
    expect(Number(await count())).toBeGreaterThan(again);
  });

  it('is asked for again after it failed', async () => {
    const cache = new AnswerCache(shop.db);
    await expect(cache.read('x', () => Promise.reject(new Error('not there')))).rejects.toThrow('not there');
    expect(await cache.read('x', () => Promise.resolve('there'))).toBe('"there"');
  });

  it('goes, the longest unasked first, where it is too much', async () => {
    const cache = new AnswerCache(quiet().db, 20);
    const made: string[] = [];
    const large = (name: string) =>
      cache.read(name, () => {
        made.push(name);
        return Promise.resolve('xxxxx');
      });
    for (const name of ['a', 'b', 'a', 'c', 'a', 'b']) await large(name);
    expect(made).toEqual(['a', 'b', 'c', 'b']);
  });

  it('is the same for whoever asks, and has nothing of who asked before', async () => {
    const build = await shop.buildOf('Snow groomer 2');
    const [theirs, mine] = await Promise.all(
      [BENCH, VIEWER].map((who) => shop.call(who, 'GET', `builds/${build.id}/rounds`)),
    );
    expect(theirs!.body).toEqual(mine!.body);
  });
});
