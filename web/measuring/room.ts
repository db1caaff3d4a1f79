import type { NewConditions, NewReading, ReadingRow, Round } from '@zero-lash/contract/measuring';
import { pointsHeld } from '@zero-lash/core/builds';
import { hasLimits } from '@zero-lash/core/measuring';
import { toRound, withRow, type RowsOfRoom, type WriteOfRoom } from '../builds/rooms.ts';
import { readingHere } from './readingHere.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    reading: {
      readonly roundId: string;
      readonly body: NewReading;
      /** where it was not taken now */
      readonly takenAt?: string | undefined;
    };
    conditions: { readonly roundId: string; readonly body: NewConditions };
  }
}

export const roundRows: RowsOfRoom<'rounds'> = {
  round: (rounds, row) =>
    rounds.some(({ id }) => id === row.id)
      ? rounds.map((round) => (round.id === row.id ? { ...round, ...row } : round))
      : [...rounds, { ...row, turning: { school: null, at: null, done: [] }, conditions: [], readings: [] }],
  reading: (rounds, row) => inRound(rounds, row.roundId, (round) => withReading(round, row)),
  conditions: (rounds, row) =>
    inRound(rounds, row.roundId, (round) => ({ ...round, conditions: withRow(round.conditions, row) })),
  turning: (rounds, { roundId, school, at, done }) =>
    inRound(rounds, roundId, (round) => ({ ...round, turning: { school, at, done } })),
};

function inRound(rounds: readonly Round[], id: string, change: (round: Round) => Round): Round[] {
  return rounds.map((round) => (round.id === id ? change(round) : round));
}

/** Of a point's two readings the one taken later stands; one that came in late stands behind it. */
function withReading(round: Round, row: ReadingRow): Round {
  const current = round.readings.find(({ point }) => point === row.point);
  if (current?.id === row.id && !row.superseded) return replaced(round, row);
  // one that was taken of two stands, however long ago it was read
  const isTaken = current !== undefined && row.supersedes === current.id;
  if (current && (row.superseded || (isLater(current, row) && !isTaken)))
    return replaced(round, {
      ...current,
      earlier: Math.max(current.earlier, row.earlier + 1),
      // whoever looks at the one that stands is told of the other too
      crossed: row.crosses === current.id ? row : current.crossed,
    });
  return row.superseded ? round : replaced(round, row);
}

function replaced(round: Round, row: ReadingRow): Round {
  return { ...round, readings: [...round.readings.filter(({ point }) => point !== row.point), row] };
}

const isLater = (row: ReadingRow, other: ReadingRow) => Date.parse(row.takenAt) > Date.parse(other.takenAt);

export const readingWrite: WriteOfRoom<'reading', 'reading'> = {
  brings: 'reading',
  send: (_buildId, { roundId, body, takenAt }) => ({
    ...toRound(roundId, 'readings'),
    ...{ about: body.point, said: body.asTyped, body, takenAt },
  }),
  pending: (item, build) => {
    const body = item.body as NewReading;
    const round = build.rounds.find(({ id }) => id === item.within);
    const points = pointsHeld(build.sheet, round?.kind ?? null, build.settings);
    const at = points.find(({ key }) => key === body.point);
    const before = round?.readings.find(({ point }) => point === body.point);
    const limits = at && (hasLimits(at) ? at : null);
    return limits === undefined ? null : readingHere(item, body, limits, build.sheet.pattern, before);
  },
};

export const conditionsWrite: WriteOfRoom<'conditions', 'conditions'> = {
  brings: 'conditions',
  send: (_buildId, { roundId, body }) => ({
    ...toRound(roundId, 'conditions'),
    ...{ about: 'conditions', said: 'What the round is taken under', body },
  }),
  pending: (item) => {
    const { engineTempC, hoursSinceRun, condition = null } = item.body as NewConditions;
    return {
      ...{ id: item.key, roundId: item.within!, engineTempC, hoursSinceRun, condition },
      ...{ by: item.by, at: item.takenAt },
    };
  },
};
