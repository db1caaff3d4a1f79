import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { mmFromTenths } from '@zero-lash/core/length';
import { conditionCautions } from '@zero-lash/core/measuring';
import type { Knex } from 'knex';

const mmOrNull = (tenths: number | null) => (tenths === null ? null : mmFromTenths(tenths));

/** Reads the rounds of a build with the readings that stand in them. */
export async function readRounds(db: Knex, buildId: string, sheet: SheetRevision): Promise<Round[]> {
  const rounds = await db('rounds as r')
    .join('people as p', 'p.id', 'r.opened_by')
    .where('r.build_id', buildId)
    .orderBy('r.opened_at')
    .select(
      'r.id',
      'r.kind',
      'r.number',
      'r.recheck_id as recheckId',
      'r.opened_at as openedAt',
      'p.name as openedBy',
      'r.closed_at as closedAt',
      'r.engine_temp_c as engineTempC',
      'r.hours_since_run as hoursSinceRun',
      'r.condition',
      'r.turn_school as school',
      'r.turn_at as at',
      'r.turn_done as done',
    );
  const readings = await readReadings(db, (query) =>
    query.whereIn(
      'g.round_id',
      rounds.map(({ id }) => id),
    ),
  );
  const past = await readConditions(
    db,
    rounds.map(({ id }) => id),
  );
  return rounds.map(({ school, at, done, ...round }) => ({
    ...round,
    pastConditions: past
      .filter(({ roundId }) => roundId === round.id)
      .map(({ roundId: _, ...said }) => ({ ...said, cautions: conditionCautions(sheet, said) })),
    instruments: [
      ...new Set(
        readings
          .filter(({ roundId, instrument }) => roundId === round.id && instrument !== null)
          .map(({ instrument }) => instrument!),
      ),
    ],
    turning: { school: school ?? 'fewest', at, done },
    readings: readings.filter(({ roundId }) => roundId === round.id),
  }));
}

/** What was said of rounds' conditions, oldest first. */
async function readConditions(db: Knex, roundIds: readonly string[]) {
  return db('round_conditions as c')
    .join('people as p', 'p.id', 'c.by')
    .whereIn('c.round_id', roundIds)
    .orderBy('c.at')
    .select(
      'c.round_id as roundId',
      'c.engine_temp_c as engineTempC',
      'c.hours_since_run as hoursSinceRun',
      'c.condition',
      'p.name as by',
      'c.at',
    );
}

/** Reads the reading that stands at each point, or all there were; `narrow` says of which rounds. */
export async function readReadings(
  db: Knex,
  narrow: (query: Knex.QueryBuilder) => void,
  which: 'standing' | 'all' = 'standing',
): Promise<ReadingRow[]> {
  const query = db('readings as g')
    .join('people as p', 'p.id', 'g.by')
    .leftJoin('instruments as i', 'i.id', 'g.instrument_id')
    .leftJoin('readings as f', 'f.id', 'g.supersedes')
    .leftJoin('people as fp', 'fp.id', 'f.by')
    .select(
      'g.id',
      'g.round_id as roundId',
      'g.point',
      'g.reading',
      'g.as_typed as asTyped',
      'g.lo',
      'g.hi',
      'g.verdict',
      'g.on_limit as onLimit',
      'g.doubt_kept as doubtKept',
      'g.crank_angle as crankAngle',
      'g.off_base as offBase',
      'i.name as instrument',
      'g.taken_at as takenAt',
      'g.blind',
      db.raw(`case when g.blind and f.id is not null
        then json_build_object('by', fp.name, 'lo', f.lo, 'hi', f.hi) end as "firstLook"`),
      'p.name as by',
      'g.at',
      'g.supersedes',
      'g.reason',
      'g.superseded',
      db.raw(`(select count(*)::int from readings o
        where o.round_id = g.round_id and o.point = g.point and o.id <> g.id and o.superseded) as earlier`),
    );
  if (which === 'standing') query.where('g.superseded', false);
  narrow(query);
  const rows = await query;
  return rows.map(({ firstLook, ...row }) => ({
    ...row,
    lo: mmFromTenths(row.lo),
    hi: mmOrNull(row.hi),
    firstLook: firstLook && { ...firstLook, lo: mmFromTenths(firstLook.lo), hi: mmOrNull(firstLook.hi) },
  }));
}
