import type { NewReading } from '@zero-lash/contract/measuring';
import type { ProblemBody } from '@zero-lash/contract/problems';
import type { Try } from '@zero-lash/core/measuring';
import Dexie, { type EntityTable } from 'dexie';

/** A reading on its way to the server. Its key makes it written once, however often it is sent. */
export interface OutboxItem {
  readonly key: string;
  /** in the order it was taken */
  readonly order: number;
  readonly personId: string;
  readonly by: string;
  readonly buildId: string;
  readonly roundId: string;
  readonly reading: NewReading & { readonly takenAt: string };
  /** what the server would not have; null while it waits to be sent */
  readonly refused: ProblemBody | null;
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

/** What this device keeps: readings not sent yet, tries not decided yet, and the last answers of the server. */
export const deviceStore = new Dexie('zero-lash') as Dexie & {
  outbox: EntityTable<OutboxItem, 'key'>;
  answers: EntityTable<KeptAnswer, 'url'>;
  tries: EntityTable<KeptTries, 'place'>;
};

deviceStore.version(1).stores({ outbox: 'key, order', answers: 'url', tries: 'place' });
