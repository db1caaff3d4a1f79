import { randomUUID } from 'node:crypto';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { movedReadings, OtherRound } from '@zero-lash/contract/measuring';
import { measuredAt, ROUND_WORDS, type RoundKind, type StageKey, type JobKey } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import type { WriteContext } from '../plugins/writeContext.ts';
import { readReadings } from './rounds.ts';
import { addReading } from './store.ts';

interface Named {
  readonly id: string;
  readonly kind: RoundKind;
  readonly buildId: string;
  readonly job: JobKey;
  readonly stage: StageKey;
  readonly engine: string;
  readonly number: number;
  readonly closed: boolean;
}

const named = (db: Knex) =>
  db('rounds as r')
    .join('builds as b', 'b.id', 'r.build_id')
    .join('engines as e', 'e.id', 'b.engine_id')
    .select(
      ...['r.id', 'r.kind', 'b.id as buildId', 'b.job', 'b.stage', 'e.name as engine', 'b.number'],
      db.raw('(r.closed_at is not null or b.closed_at is not null) as closed'),
    ) as Knex.QueryBuilder<object, Named[]>;

const isMeasured = ({ kind, job, stage, closed }: Named) => !closed && measuredAt(job, kind) === stage;

/** The rounds of other engines in which the same is measured now: what was read here may have been of one of them. */
export async function otherRounds(db: Knex, roundId: string): Promise<OtherRound[]> {
  const [here] = await named(db).where('r.id', roundId);
  if (!here) throw new Refusal('not_found', { detail: 'There is no such round.' });
  const rows = await named(db)
    .where({ 'r.kind': here.kind, 'r.closed_at': null, 'b.closed_at': null })
    .whereNot('b.id', here.buildId)
    .orderBy('e.name');
  return rows.filter(isMeasured).map(({ id, engine, number }) => ({ roundId: id, engine, build: number }));
}

/**
 * Moves what was read in a round to the engine that it was read of: there it stands as it was taken, by whom and when, and is judged by
 * that engine's limits; here it is struck out. Both say where it went, and where from.
 *
 * @throws Refusal `wrong_round` where the other is of the same engine, of another kind, or not measured in now; `unknown_point` where the other engine has no such point
 */
export async function moveReadings(
  db: Knex,
  roundId: string,
  { to, points }: z.output<typeof movedReadings>,
  context: WriteContext,
): Promise<[BuildWrite, ...BuildWrite[]]> {
  const [from] = await named(db).where('r.id', roundId);
  const [into] = await named(db).where('r.id', to);
  if (!from || !into) throw new Refusal('not_found', { detail: 'There is no such round.' });
  if (from.buildId === into.buildId || from.kind !== into.kind || !isMeasured(into) || !isMeasured(from))
    throw new Refusal('wrong_round', {
      detail: `“${ROUND_WORDS[from.kind]}” is not measured at both now: ${from.engine}, and ${into.engine}.`,
    });
  // two builds are locked in one order, whoever moves which way
  for (const build of [from.buildId, into.buildId].toSorted())
    await db('builds').where({ id: build }).forNoKeyUpdate().first('id');
  const current = (await readReadings(db, (query) => query.where('g.round_id', roundId), 'current')).filter(
    ({ point, reading }) =>
      points.includes(point) && !(reading.kind === 'tries' && reading.tries.length === 0),
  );
  if (current.length === 0) throw new Refusal('nothing_to_move');
  const people = await db('readings')
    .whereIn(
      'id',
      current.map(({ id }) => id),
    )
    .select('id', 'by');
  const whose = new Map(people.map(({ id, by }) => [id, by]));
  const plain = { doubtKept: false, blind: false, beforeLock: false, narrowBlade: false };
  const struck: BuildWrite[] = [];
  const moved: BuildWrite[] = [];
  for (const row of current) {
    const { id, point, reading, asTyped, crankAngle, doubtKept, beforeLock, narrowBlade } = row;
    const { instrument_id: instrumentId } = (await db('readings').where({ id }).first('instrument_id'))!;
    moved.push(
      await addReading(
        db,
        to,
        {
          ...{ point, reading, asTyped, crankAngle, instrumentId, doubtKept, beforeLock, narrowBlade },
          ...{ blind: false, over: null, takenAt: row.takenAt },
          reason: `read at ${from.engine}, build ${from.number}, and moved here by ${context.name}`.slice(
            0,
            120,
          ),
        },
        { ...context, key: randomUUID(), personId: whose.get(id)!, clockAhead: 0 },
        new Date(row.takenAt),
      ),
    );
    struck.push(
      await addReading(
        db,
        roundId,
        {
          ...{ ...plain, point, reading: { kind: 'tries', tries: [], repeatability: 0.01 } },
          ...{ asTyped: 'struck out', crankAngle: null, instrumentId: null, over: id, takenAt: null },
          reason: `it was of ${into.engine}, build ${into.number}: moved there`.slice(0, 120),
        },
        { ...context, key: randomUUID() },
      ),
    );
  }
  return [struck[0]!, ...struck.slice(1), ...moved];
}
