import type {
  BuildParts,
  BuildRoom,
  BuildRowChange,
  ChangeKind,
  KindsOf,
  RowOf,
} from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { readKnowHow } from '../knowHow/read.ts';
import { readConditions, readReadings, readRoundRows, readRounds, readTurning } from '../measuring/rounds.ts';
import { readPhotographs } from '../photographs/read.ts';
import { readRechecks } from '../rechecks/read.ts';
import { readSettings } from '../setting/read.ts';
import { readEntries, type EntryRoom } from './entries.ts';
import { readHead, readNotes, readTicks } from './read.ts';

/** How a kind of row is named, and how it is read again as it is by then. */
interface RowKind<Kind extends ChangeKind> {
  readonly idOf: (row: RowOf<Kind>) => string;
  readonly again: (db: Knex, build: string, id: string) => Promise<RowOf<Kind> | undefined>;
}

/** The kinds of row of a room. */
type RowKinds<Room extends BuildRoom> = {
  readonly [Kind in KindsOf<Room> & ChangeKind]: RowKind<Kind>;
};

/** A room of a build: how it is read, and the kinds of row that a write in it brings. */
interface Room<Name extends keyof BuildParts> {
  readonly read: (db: Knex, build: string) => Promise<BuildParts[Name]>;
  readonly kinds: RowKinds<Name>;
}

const byId = ({ id }: { readonly id: string }) => id;

/** A room whose rows are read alike, all of them or one. */
const rowsById = <Row extends { readonly id: string }>(
  read: (db: Knex, build: string, id?: string) => Promise<Row[]>,
) => ({
  read: (db: Knex, build: string) => read(db, build),
  kind: { idOf: byId, again: async (db: Knex, build: string, id: string) => (await read(db, build, id))[0] },
});

const entries = <Name extends EntryRoom>(room: Name) =>
  rowsById((db, build, id) => readEntries(db, build, room, id));

const settings = rowsById(readSettings);
const notes = rowsById(readNotes);
const photographs = rowsById(readPhotographs);
const [wear, headwork, ledger, ran] = [
  entries('wear'),
  entries('headwork'),
  entries('ledger'),
  entries('ran'),
];

/** Every room of a build but the build itself: its routes, what a write is answered with, and what a record is held against follow. */
export const ROOMS: { readonly [Name in keyof BuildParts]: Room<Name> } = {
  rounds: {
    read: readRounds,
    kinds: {
      round: { idOf: byId, again: async (db, build, id) => (await readRoundRows(db, build, id))[0] },
      reading: {
        idOf: byId,
        again: async (db, _build, id) =>
          (await readReadings(db, (query) => query.where('g.id', id), 'all'))[0],
      },
      conditions: { idOf: byId, again: async (db, build, id) => (await readConditions(db, build, id))[0] },
      turning: { idOf: ({ roundId }) => roundId, again: (db, _build, id) => readTurning(db, id) },
    },
  },
  settings: { read: settings.read, kinds: { setting: settings.kind } },
  ticks: {
    read: readTicks,
    kinds: {
      tick: {
        idOf: ({ stage, check }) => `${stage}:${check}`,
        again: async (db, build, id) =>
          (await readTicks(db, build)).find(({ stage, check }) => `${stage}:${check}` === id),
      },
    },
  },
  notes: { read: notes.read, kinds: { note: notes.kind } },
  rechecks: {
    read: (db, build) => readRechecks(db, { build_id: build }),
    kinds: { recheck: { idOf: byId, again: async (db, _build, id) => (await readRechecks(db, { id }))[0] } },
  },
  wear: { read: wear.read, kinds: { wear: wear.kind } },
  headwork: { read: headwork.read, kinds: { headwork: headwork.kind } },
  ledger: { read: ledger.read, kinds: { ledger: ledger.kind } },
  ran: { read: ran.read, kinds: { ran: ran.kind } },
  photographs: { read: photographs.read, kinds: { photograph: photographs.kind } },
  'know-how': {
    read: (db, build) => readKnowHow(db, { build }),
    kinds: {
      'know-how': { idOf: byId, again: async (db, _build, id) => (await readKnowHow(db, { id }))[0] },
    },
  },
};

const HEAD: RowKinds<'head'> = {
  head: { idOf: byId, again: async (db, build) => (await readHead(db, build)).rows },
};

const KINDS = Object.assign({}, HEAD, ...Object.values(ROOMS).map(({ kinds }) => kinds)) as {
  readonly [Kind in ChangeKind]: RowKind<Kind>;
};

/** What of a row is kept for a retry: which it is, not what it says. */
export interface RowName {
  readonly kind: ChangeKind;
  readonly id: string;
}

/** Which row a change is about; null where the row itself was too large to tell. */
export function rowNameOf({ kind, row }: BuildRowChange): RowName | null {
  return row === null ? null : { kind, id: (KINDS[kind].idOf as (row: unknown) => string)(row) };
}

/** Reads rows again as they are now; what is gone by now is left out. */
export async function readAgain(
  db: Knex,
  build: string,
  names: readonly RowName[],
): Promise<BuildRowChange[]> {
  const changes: BuildRowChange[] = [];
  for (const { kind, id } of names) {
    const row = await KINDS[kind].again(db, build, id);
    if (row) changes.push({ kind, row } as BuildRowChange);
  }
  return changes;
}
