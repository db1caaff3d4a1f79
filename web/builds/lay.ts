import type { BuildRoom, BuildRowChange, ChangeKind, RowsOf } from '@zero-lash/contract/builds';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';

/** The room that each kind of row stands in. */
export const ROOM_OF = {
  head: 'head',
  round: 'rounds',
  reading: 'rounds',
  conditions: 'rounds',
  turning: 'rounds',
  setting: 'settings',
  tick: 'ticks',
  note: 'notes',
  recheck: 'rechecks',
  wear: 'wear',
  headwork: 'headwork',
  ledger: 'ledger',
  ran: 'ran',
  photograph: 'photographs',
  'know-how': 'know-how',
} as const satisfies Record<ChangeKind, BuildRoom>;

export type RowOf<Kind extends ChangeKind> = NonNullable<Extract<BuildRowChange, { kind: Kind }>['row']>;
type RowsFor<Kind extends ChangeKind> = RowsOf<(typeof ROOM_OF)[Kind]>;

/** Lays one row into its room's rows: the rows that do not change stay the same objects. */
const LAY: {
  readonly [Kind in ChangeKind]: (rows: RowsFor<Kind>, row: RowOf<Kind>) => RowsFor<Kind>;
} = {
  head: (_, row) => row,
  round: (rounds, row) =>
    rounds.some(({ id }) => id === row.id)
      ? rounds.map((round) => (round.id === row.id ? { ...round, ...row } : round))
      : [...rounds, { ...row, turning: { school: null, at: null, done: [] }, conditions: [], readings: [] }],
  reading: (rounds, row) => inRound(rounds, row.roundId, (round) => withReading(round, row)),
  conditions: (rounds, row) =>
    inRound(rounds, row.roundId, (round) => ({ ...round, conditions: withRow(round.conditions, row) })),
  turning: (rounds, { roundId, school, at, done }) =>
    inRound(rounds, roundId, (round) => ({ ...round, turning: { school, at, done } })),
  setting: (settings, row) =>
    row.superseded
      ? without(settings, row)
      : [
          // that it was left alone stands beside what was last changed there
          ...settings.filter(
            ({ point, kind }) => point !== row.point || (kind === 'left') !== (row.kind === 'left'),
          ),
          row,
        ],
  tick: (ticks, row) => [
    ...ticks.filter(({ stage, check }) => stage !== row.stage || check !== row.check),
    row,
  ],
  note: withRow,
  wear: withRow,
  headwork: withRow,
  ledger: withRow,
  ran: withRow,
  photograph: withRow,
  'know-how': withRow,
  recheck: (rechecks, row) =>
    [...rechecks.filter(({ id }) => id !== row.id), row].sort((a, b) => b.sequence - a.sequence),
};

/** What does not stand any more goes; where it did not stand, nothing changes. */
function without<Row extends { readonly id: string }>(rows: Row[], { id }: { readonly id: string }): Row[] {
  return rows.some((row) => row.id === id) ? rows.filter((row) => row.id !== id) : rows;
}

function inRound(rounds: readonly Round[], id: string, change: (round: Round) => Round): Round[] {
  return rounds.map((round) => (round.id === id ? change(round) : round));
}

/** Of a point's two readings the one taken later stands; one that came in late stands behind it. */
function withReading(round: Round, row: ReadingRow): Round {
  const standing = round.readings.find(({ point }) => point === row.point);
  if (standing?.id === row.id && !row.superseded) return replaced(round, row);
  if (standing && (row.superseded || isLater(standing, row)))
    return replaced(round, { ...standing, earlier: Math.max(standing.earlier, row.earlier + 1) });
  return row.superseded ? round : replaced(round, row);
}

function replaced(round: Round, row: ReadingRow): Round {
  return { ...round, readings: [...round.readings.filter(({ point }) => point !== row.point), row] };
}

const isLater = (row: ReadingRow, other: ReadingRow) => Date.parse(row.takenAt) > Date.parse(other.takenAt);

function withRow<Row extends { readonly id: string }>(rows: readonly Row[], row: Row): Row[] {
  return rows.some(({ id }) => id === row.id)
    ? rows.map((each) => (each.id === row.id ? row : each))
    : [...rows, row];
}

/** Lays what a write brought into the rows of its room. */
export function lay<Room extends BuildRoom>(rows: RowsOf<Room>, { kind, row }: BuildRowChange): RowsOf<Room> {
  if (row === null) return rows;
  return (LAY[kind] as (rows: unknown, row: unknown) => RowsOf<Room>)(rows, row);
}

/** What a change's row is told from others by: what is told of the same row twice is told of one. */
export function nameOf({ kind, row }: BuildRowChange): string {
  if (row === null) return kind;
  if (kind === 'tick') {
    const { stage, check } = row as RowOf<'tick'>;
    return `tick ${stage}:${check}`;
  }
  const { id, roundId } = row as { readonly id?: string; readonly roundId: string };
  return `${kind} ${kind === 'turning' ? roundId : id}`;
}
