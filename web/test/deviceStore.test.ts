import 'fake-indexeddb/auto';
import Dexie from 'dexie';
import { describe, expect, it } from 'vitest';

const TABLES = { outbox: 'key, order', answers: 'url', tries: 'place' };
const WAITING = { key: 'k', order: 1, kind: 'reading', path: 'rounds/r/readings', body: {} };

describe('a device of the release before', () => {
  it('still sends what waits, and shows no answer of another shape', async () => {
    const before = new Dexie('zero-lash');
    before.version(3).stores(TABLES);
    await before.table('answers').put({ url: 'builds/b', value: { rows: { stage: 'set' } } });
    await before.table('tries').put({ place: 'r 1I', tries: [] });
    await before.table('outbox').put(WAITING);
    before.close();
    const { deviceStore } = await import('../app/deviceStore.ts');
    expect(await deviceStore.answers.toArray()).toEqual([]);
    expect(await deviceStore.outbox.toArray()).toEqual([WAITING]);
    expect(await deviceStore.tries.toArray()).toEqual([{ place: 'r 1I', tries: [] }]);
    deviceStore.close();
  });
});
