import type { ProblemBody } from '@zero-lash/contract/problems';
import type { Try } from '@zero-lash/core/measuring';
import Dexie, { type EntityTable } from 'dexie';
import { brought, type EarlierItem } from './earlierItems.ts';

/** Something written at the bench, on its way to the server. Its key is its row's id, so it is written once. */
export interface OutboxItem {
  readonly key: string;
  /** in the order it was done */
  readonly order: number;
  readonly personId: string;
  readonly by: string;
  /** empty where it belongs to no build: a figure off a meter */
  readonly buildId: string;
  /** what kind of row it brings */
  readonly kind: string;
  /** the part of the build it belongs to: a round, a recheck; null where it is the build's own */
  readonly within: string | null;
  /** what it is about, in a word or two: a point, a check */
  readonly about: string;
  /** what was written, as a person would say it */
  readonly said: string;
  readonly method: 'POST' | 'PUT';
  readonly path: string;
  /** when it was done, by this device's clock */
  readonly takenAt: string;
  readonly body: unknown;
  /** what the server would not have; null while it waits to be sent */
  readonly refused: ProblemBody | null;
  /** by which release of the program it was refused; not in what was kept before that was asked */
  readonly refusedBy?: string | null;
}

/** An answer of the server, kept so that the page opens without it. */
interface KeptAnswer {
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
  answers: EntityTable<KeptAnswer, 'url'>;
  tries: EntityTable<KeptTries, 'place'>;
};

const TABLES = { outbox: 'key, order', answers: 'url', tries: 'place' };
deviceStore.version(1).stores(TABLES);
deviceStore
  .version(2)
  .stores(TABLES)
  .upgrade(async (transaction) => {
    const items = (await transaction.table('outbox').toArray()) as (EarlierItem | OutboxItem)[];
    await transaction.table('outbox').bulkPut(items.map(brought));
    // an older program's answers have another shape
    await transaction.table('answers').clear();
  });
deviceStore
  .version(3)
  .stores(TABLES)
  // a sheet says more than it did
  .upgrade((transaction) => transaction.table('answers').clear());
