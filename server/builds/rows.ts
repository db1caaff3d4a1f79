import type { BuildRowChange, ChangeKind } from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { readConditions, readReadings, readRoundRows, readTurning } from '../measuring/rounds.ts';
import { readRechecks } from '../rechecks/read.ts';
import { readSettings } from '../setting/read.ts';
import { readKnowHow } from '../knowHow/read.ts';
import { readPhotographs } from '../photographs/read.ts';
import { readEntries } from './entries.ts';
import { readHead, readNotes, readTicks } from './read.ts';

/** What of a row is kept for a retry: which it is, not what it says. */
export interface KeptRow {
  readonly kind: ChangeKind;
  readonly id: string;
}

type Row<Kind extends ChangeKind> = NonNullable<Extract<BuildRowChange, { kind: Kind }>['row']>;

/** How each kind of row is named, and how it is read again as it stands by then. */
const ROWS: {
  readonly [Kind in ChangeKind]: {
    readonly idOf: (row: Row<Kind>) => string;
    readonly read: (db: Knex, build: string, id: string) => Promise<Row<Kind> | undefined>;
  };
} = {
  head: { idOf: ({ id }) => id, read: async (db, build) => (await readHead(db, build)).rows },
  round: { idOf: ({ id }) => id, read: async (db, build, id) => (await readRoundRows(db, build, id))[0] },
  reading: {
    idOf: ({ id }) => id,
    read: async (db, _build, id) => (await readReadings(db, (query) => query.where('g.id', id), 'all'))[0],
  },
  conditions: {
    idOf: ({ id }) => id,
    read: async (db, build, id) => (await readConditions(db, build, id))[0],
  },
  turning: { idOf: ({ roundId }) => roundId, read: (db, _build, id) => readTurning(db, id) },
  setting: { idOf: ({ id }) => id, read: async (db, build, id) => (await readSettings(db, build, id))[0] },
  tick: {
    idOf: ({ stage, check }) => `${stage}:${check}`,
    read: async (db, build, id) =>
      (await readTicks(db, build)).find(({ stage, check }) => `${stage}:${check}` === id),
  },
  note: { idOf: ({ id }) => id, read: async (db, build, id) => (await readNotes(db, build, id))[0] },
  recheck: { idOf: ({ id }) => id, read: async (db, _build, id) => (await readRechecks(db, { id }))[0] },
  wear: {
    idOf: ({ id }) => id,
    read: async (db, build, id) => (await readEntries(db, build, 'wear', id))[0],
  },
  headwork: {
    idOf: ({ id }) => id,
    read: async (db, build, id) => (await readEntries(db, build, 'headwork', id))[0],
  },
  ledger: {
    idOf: ({ id }) => id,
    read: async (db, build, id) => (await readEntries(db, build, 'ledger', id))[0],
  },
  ran: {
    idOf: ({ id }) => id,
    read: async (db, build, id) => (await readEntries(db, build, 'ran', id))[0],
  },
  photograph: {
    idOf: ({ id }) => id,
    read: async (db, build, id) => (await readPhotographs(db, build, id))[0],
  },
  'know-how': { idOf: ({ id }) => id, read: async (db, _build, id) => (await readKnowHow(db, { id }))[0] },
};

/** Which row a change is about; null where the row itself was too large to tell. */
export function keptRowOf({ kind, row }: BuildRowChange): KeptRow | null {
  return row === null ? null : { kind, id: (ROWS[kind].idOf as (row: unknown) => string)(row) };
}

/** Reads rows again as they stand now; what is gone by now is left out. */
export async function readAgain(
  db: Knex,
  build: string,
  kept: readonly KeptRow[],
): Promise<BuildRowChange[]> {
  const changes: BuildRowChange[] = [];
  for (const { kind, id } of kept) {
    const row = await ROWS[kind].read(db, build, id);
    if (row) changes.push({ kind, row } as BuildRowChange);
  }
  return changes;
}
