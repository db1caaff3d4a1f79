import type { Try } from '@zero-lash/core/measuring';
import Dexie, { type EntityTable } from 'dexie';
import { upgradeItem, type EarlierItem } from './earlierItems.ts';
import type { OutboxItem } from './outboxItem.ts';

/** An answer of the server, kept so that the page opens without it. */
interface CachedAnswer {
  readonly url: string;
  readonly value: unknown;
}

/** The tries of a point that is not decided yet. */
interface KeptTries {
  readonly place: string;
  readonly tries: readonly Try[];
}

/** What this device keeps: what is not sent yet, tries not decided yet, and the last answers of the server. */
export const deviceStore = new Dexie('zero-lash') as Dexie & {
  outbox: EntityTable<OutboxItem, 'key'>;
  answers: EntityTable<CachedAnswer, 'url'>;
  tries: EntityTable<KeptTries, 'place'>;
};

const TABLES = { outbox: 'key, order', answers: 'url', tries: 'place' };
deviceStore.version(1).stores(TABLES);
deviceStore
  .version(2)
  .stores(TABLES)
  .upgrade(async (transaction) => {
    const items = (await transaction.table('outbox').toArray()) as (EarlierItem | OutboxItem)[];
    await transaction.table('outbox').bulkPut(items.map(upgradeItem));
    // an older program's answers have another shape
    await transaction.table('answers').clear();
  });
deviceStore
  .version(3)
  .stores(TABLES)
  // a sheet says more than it did
  .upgrade((transaction) => transaction.table('answers').clear());
deviceStore
  .version(4)
  .stores(TABLES)
  // a build says its job
  .upgrade((transaction) => transaction.table('answers').clear());
