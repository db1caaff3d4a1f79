import type {
  BuildParts,
  BuildRoom,
  BuildRowChange,
  ChangeKind,
  KindsOf,
  RowOf,
} from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { readHead } from './read.ts';

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
export interface RoomDefinition<Name extends keyof BuildParts> {
  readonly read: (db: Knex, build: string) => Promise<BuildParts[Name]>;
  readonly kinds: RowKinds<Name>;
}

/** Every room of a build but the build itself. */
export type RoomDefinitions = { readonly [Name in keyof BuildParts]: RoomDefinition<Name> };

/** Names a row by its own id, as most are. */
export const byId = ({ id }: { readonly id: string }): string => id;

/** How rows that are read alike, all of them or one, are named and read again. */
export const rowsById = <Row extends { readonly id: string }>(
  read: (db: Knex, build: string, id?: string) => Promise<Row[]>,
) => ({
  read: (db: Knex, build: string) => read(db, build),
  kind: { idOf: byId, again: async (db: Knex, build: string, id: string) => (await read(db, build, id))[0] },
});

const HEAD: RowKinds<'head'> = {
  head: { idOf: byId, again: async (db, build) => (await readHead(db, build)).rows },
};

let definitions: RoomDefinitions | null = null;
let kinds: { readonly [Kind in ChangeKind]: RowKind<Kind> };

/**
 * Says which rooms a build has. The application does so once as it is put together, so that a build knows none of its rooms, and every
 * room may ask for another's rows.
 */
export function registerRooms(rooms: RoomDefinitions): void {
  definitions = rooms;
  kinds = Object.assign({}, HEAD, ...Object.values(rooms).map((room) => room.kinds));
}

/**
 * Every room of a build but the build itself: its routes, what a write is answered with, and what a record is held against follow.
 *
 * @throws Error where the application was not put together
 */
export function buildRooms(): RoomDefinitions {
  if (!definitions) throw new Error('No room of a build is registered: server/buildRooms.ts does it.');
  return definitions;
}

/** Reads the rows of a room of a build. */
export const readRoom = <Name extends keyof BuildParts>(
  db: Knex,
  build: string,
  room: Name,
): Promise<BuildParts[Name]> => buildRooms()[room].read(db, build) as Promise<BuildParts[Name]>;

/** Which row a change is about, without what it says: what is kept of it for a retry. */
export interface RowName {
  readonly kind: ChangeKind;
  readonly id: string;
}

/** Which row a change is about; null where the row itself was too large to tell. */
export function rowNameOf({ kind, row }: BuildRowChange): RowName | null {
  return row === null ? null : { kind, id: (kinds[kind].idOf as (row: unknown) => string)(row) };
}

/** Reads rows as they are now, as changes that a write brought; what is gone by now is left out. */
export async function readRows(
  db: Knex,
  build: string,
  names: readonly RowName[],
): Promise<BuildRowChange[]> {
  const changes: BuildRowChange[] = [];
  for (const { kind, id } of names) {
    const row = await kinds[kind].again(db, build, id);
    if (row) changes.push({ kind, row } as BuildRowChange);
  }
  return changes;
}
