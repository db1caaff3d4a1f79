import type {
  BuildRoom,
  BuildRowChange,
  ChangeKind,
  KindsOf,
  RoomOfKind,
  RowOf,
  RowsOf,
} from '@zero-lash/contract/builds';
import type { OutboxItem } from '../app/outboxItem.ts';
import type { Sent } from '../app/useOutbox.ts';
import type { BuildView } from './buildView.ts';

/** How one row is applied to the rows of its room: rows that do not change stay the same objects. */
type ApplyRow<Kind extends ChangeKind> = (
  rows: RowsOf<RoomOfKind<Kind>>,
  row: RowOf<Kind>,
) => RowsOf<RoomOfKind<Kind>>;

/** How each kind of row of a room is applied. */
export type RowsOfRoom<Room extends BuildRoom> = {
  readonly [Kind in KindsOf<Room> & ChangeKind]: ApplyRow<Kind>;
};

/**
 * What is written at the bench, which needs no server to be done, by kind. Each room declares its own here. A kind's name stays as it is
 * on devices that hold one.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- rooms merge their writes into it
export interface BenchWrites {}

/** A kind of write at the bench. */
export type WriteKind = keyof BenchWrites & string;

/** How something written at the bench is sent, and what it is until the server has answered. */
export interface WriteOfRoom<Kind extends WriteKind, Brings extends ChangeKind> {
  /** the kind of row it brings */
  readonly brings: Brings;
  /** how it is sent, and what it is called while it waits */
  readonly send: (buildId: string, write: BenchWrites[Kind]) => Omit<Sent, 'buildId' | 'kind'>;
  /** the row it will bring, as this device can tell without the server: the same core judges it there; null where nothing shows */
  readonly pending: (item: OutboxItem, build: BuildView) => RowOf<Brings> | null;
  /** of these only the last that was said is sent: what it takes the place of was never true for anybody else */
  readonly replaces?: boolean;
}

/** One definition for each room of a build, and for each kind of write in it. */
export interface RoomTable {
  readonly rows: { readonly [Room in BuildRoom]: RowsOfRoom<Room> };
  readonly writes: {
    readonly [Kind in WriteKind]: { [Brings in ChangeKind]: WriteOfRoom<Kind, Brings> }[ChangeKind];
  };
}

let table: RoomTable | null = null;
const rooms = new Map<ChangeKind, BuildRoom>();

/** Tells the build which rooms it has. It is called once, before a build is shown or sent to. */
export function registerRooms(all: RoomTable): void {
  table = all;
  for (const [room, kinds] of Object.entries(all.rows) as [BuildRoom, object][])
    for (const kind of Object.keys(kinds) as ChangeKind[]) rooms.set(kind, room);
}

function registered(): RoomTable {
  if (!table) throw new Error('No rooms of a build are registered: import start/rooms.ts first.');
  return table;
}

/** The names of all rooms of a build. */
export const roomNames = (): readonly BuildRoom[] => Object.keys(registered().rows) as BuildRoom[];

/** The room that a kind of row belongs to. */
export const roomOf = (kind: ChangeKind): BuildRoom => rooms.get(kind)!;

/** Applies what a write brought to the rows of its room. */
export function applyRow<Room extends BuildRoom>(
  rows: RowsOf<Room>,
  { kind, row }: BuildRowChange,
): RowsOf<Room> {
  if (row === null) return rows;
  const kinds = registered().rows[roomOf(kind)] as unknown as Readonly<
    Record<string, (rows: unknown, row: unknown) => RowsOf<Room>>
  >;
  return kinds[kind]!(rows, row);
}

/** How a kind of write is sent and shown; undefined for what belongs to no build, and for what a later release wrote. */
export function writeOf(kind: string): WriteOfRoom<WriteKind, ChangeKind> | undefined {
  return (registered().writes as Readonly<Record<string, unknown>>)[kind] as
    WriteOfRoom<WriteKind, ChangeKind> | undefined;
}

/** A row that takes the place of the one of its id, or is added. */
export function withRow<Row extends { readonly id: string }>(rows: readonly Row[], row: Row): Row[] {
  return rows.some(({ id }) => id === row.id)
    ? rows.map((each) => (each.id === row.id ? row : each))
    : [...rows, row];
}

/** Where something of a build's own is sent. */
export const toBuild = (buildId: string, part: string) => ({
  method: 'POST' as const,
  path: `builds/${buildId}/${part}`,
  within: null,
});

/** Where something of a round is sent. */
export const toRound = (roundId: string, part: string) => ({
  method: 'POST' as const,
  path: `rounds/${roundId}/${part}`,
  within: roundId,
});

/** Lines that one hand writes at one moment, named as a person finds them again. */
export interface EntryWrite<Body> {
  /** the cell or the part */
  readonly about: string;
  readonly body: Body;
}

/** A room that is written entry by entry: how its entries are sent and shown. */
export const entryWrite = <Kind extends WriteKind, Brings extends ChangeKind>(
  brings: Brings,
): WriteOfRoom<Kind, Brings> => ({
  brings,
  send: (buildId, write) => {
    const { about, body } = write as EntryWrite<unknown>;
    return { ...toBuild(buildId, brings), about, said: about, body };
  },
  pending: ({ key, by, takenAt, body }) =>
    ({
      id: key,
      by,
      at: takenAt,
      lines: (body as { readonly lines: unknown[] }).lines,
    }) as unknown as RowOf<Brings>,
});
