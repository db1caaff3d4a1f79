import {
  reading as readingSchema,
  type ConditionsRow,
  type ReadingRow,
  type Round,
  type RoundRow,
} from '@zero-lash/contract/measuring';
import type { TurningRow } from '@zero-lash/contract/turning';
import { mmFromTenths } from '@zero-lash/core/length';
import { intervalOf, type Limits, type Reading } from '@zero-lash/core/measuring';
import type { Knex } from 'knex';
import { mmOrNull } from '../length.ts';
import { stored } from '../stored.ts';
import { json } from '../storedJson.ts';

/** Parses a stored reading, by the number of its format. */
export const parseReading: (format: number, value: unknown) => Reading = stored('a reading', {
  1: readingSchema,
});

const ROUND_FIELDS = [
  'r.id',
  'r.number',
  'r.recheck_id as recheckId',
  'r.opened_at as openedAt',
  'p.name as openedBy',
  'r.closed_at as closedAt',
];

const TURNING_FIELDS = [
  'r.turn_school as school',
  'r.turn_at as at',
  'r.turn_done as done',
  'r.turn_said_at as saidAt',
];

/** Of the rounds `r` only a build's own, and the one whose finding it carries over. */
function inBuild(query: Knex.QueryBuilder, db: Knex, buildId: string): void {
  query.where((either) =>
    either
      .where('r.build_id', buildId)
      .orWhere('r.id', db('builds').where({ id: buildId }).select('carried_round')),
  );
}

function roundQuery(db: Knex, buildId: string): Knex.QueryBuilder {
  const query = db('rounds as r')
    .join('people as p', 'p.id', 'r.opened_by')
    .orderBy('r.opened_at')
    // of two that were opened as one how it was found comes first
    .orderByRaw(`r.kind <> 'as-found', r.number`)
    // what a recheck found is, in the build that sets it again, how the engine was found
    .select(
      db.raw(`case when r.build_id = ? then r.kind else 'as-found' end as kind`, [buildId]),
      db.raw('r.build_id <> ? as carried', [buildId]),
    );
  inBuild(query, db, buildId);
  return query;
}

/** The rounds of a build without what was taken in them, in the order they were opened; one where it is named. */
export async function readRoundRows(db: Knex, buildId: string, id?: string): Promise<RoundRow[]> {
  const query = roundQuery(db, buildId).select(ROUND_FIELDS);
  if (id !== undefined) query.where('r.id', id);
  return query;
}

/** Reads the rounds of a build with the readings that stand in them, in the order they were opened. */
export async function readRounds(db: Knex, buildId: string): Promise<Round[]> {
  const rounds: (RoundRow & TurningFields)[] = await roundQuery(db, buildId).select([
    ...ROUND_FIELDS,
    ...TURNING_FIELDS,
  ]);
  const readings = await readReadings(db, (query) => inBuild(query, db, buildId));
  const conditions = await readConditions(db, buildId);
  return rounds.map(({ school, at, done, saidAt: _, ...round }) => ({
    ...round,
    turning: turningOf({ school, at, done }),
    conditions: conditions.filter(({ roundId }) => roundId === round.id),
    readings: readings.filter(({ roundId }) => roundId === round.id),
  }));
}

const turningOf = ({ school, at, done }: Omit<TurningFields, 'saidAt'>): Round['turning'] => ({
  school,
  at,
  done: json('rounds.turn_done', done),
});

/** Where the crank stands, as the table has it. */
interface TurningFields extends Omit<Round['turning'], 'done'> {
  readonly done: unknown;
  readonly saidAt: string;
}

/** Where the crank was last said to stand in a round. */
export async function readTurning(db: Knex, roundId: string): Promise<TurningRow | undefined> {
  const row = await db('rounds as r').where('r.id', roundId).first(TURNING_FIELDS);
  return row && { roundId, ...turningOf(row), saidAt: row.saidAt };
}

/** What was said of the conditions of a build's rounds, oldest first; one of them where it is named. */
export async function readConditions(db: Knex, buildId: string, id?: string): Promise<ConditionsRow[]> {
  const query = db('round_conditions as c')
    .join('rounds as r', 'r.id', 'c.round_id')
    .join('people as p', 'p.id', 'c.by')
    .orderBy(['c.at', 'c.id'])
    .select(
      'c.id',
      'c.round_id as roundId',
      'c.engine_temp_c as engineTempC',
      'c.hours_since_run as hoursSinceRun',
      'c.condition',
      'p.name as by',
      'c.at',
    );
  inBuild(query, db, buildId);
  if (id !== undefined) query.where('c.id', id);
  return query;
}

/** Reads the reading that stands at each point, or all there were; `narrow` says of which rounds. */
export async function readReadings(
  db: Knex,
  narrow: (query: Knex.QueryBuilder) => void,
  which: 'current' | 'all' = 'current',
): Promise<ReadingRow[]> {
  const query = db('readings as g')
    .join('rounds as r', 'r.id', 'g.round_id')
    .join('people as p', 'p.id', 'g.by')
    .leftJoin('instruments as i', 'i.id', 'g.instrument_id')
    .leftJoin('readings as f', 'f.id', 'g.first_look')
    .leftJoin('people as fp', 'fp.id', 'f.by')
    .select(
      'g.id',
      'g.round_id as roundId',
      'g.point',
      'g.reading',
      'g.format',
      'g.as_typed as asTyped',
      'g.verdict',
      'g.on_limit as onLimit',
      ...JUDGED_BY,
      'g.narrow_blade as narrowBlade',
      'g.doubt_kept as doubtKept',
      'g.crank_angle as crankAngle',
      'g.off_base as offBase',
      'i.name as instrument',
      'g.taken_at as takenAt',
      'g.blind',
      'g.before_lock as beforeLock',
      'fp.name as firstBy',
      'f.reading as firstReading',
      'f.format as firstFormat',
      'p.name as by',
      'g.at',
      'g.supersedes',
      'g.reason',
      'g.superseded',
      'g.crosses',
      db.raw(`case when not g.superseded then (
        select json_build_object('id', o.id, 'by', op.name, 'asTyped', o.as_typed, 'reading', o.reading, 'format', o.format,
            'takenAt', o.taken_at, 'beforeLock', o.before_lock, 'narrowBlade', o.narrow_blade, 'crankAngle', o.crank_angle)
          from readings o join people op on op.id = o.by where o.id = g.crosses or o.crosses = g.id
         order by o.taken_at desc limit 1) end as crossed`),
      db.raw(`(select count(*)::int from readings o
        where o.round_id = g.round_id and o.point = g.point and o.id <> g.id and o.superseded) as earlier`),
    );
  if (which === 'current') query.where('g.superseded', false);
  narrow(query);
  const rows = await query;
  return rows.map(({ format, firstBy, firstReading, firstFormat, min, max, allowOver, ...row }) => {
    const reading = parseReading(format, row.reading);
    return {
      ...row,
      // as text, to the millisecond, as everything compares them
      takenAt: row.takenAt.toISOString(),
      at: row.at.toISOString(),
      reading,
      ...gapInMm(reading),
      limits: limitsInMm({ min, max, allowOver }),
      crossed: row.crossed && crossedOf(row.crossed),
      firstLook: firstBy ? { by: firstBy, ...gapInMm(parseReading(firstFormat, firstReading)) } : null,
    };
  });
}

/** The other reading of two that were written without seeing each other. */
function crossedOf({
  format,
  reading: stored,
  ...other
}: {
  readonly id: string;
  readonly by: string;
  readonly asTyped: string;
  readonly reading: unknown;
  readonly format: number;
  readonly takenAt: string;
  readonly beforeLock: boolean;
  readonly narrowBlade: boolean;
  readonly crankAngle: number | null;
}): NonNullable<ReadingRow['crossed']> {
  const reading = parseReading(format, stored);
  const takenAt = new Date(other.takenAt).toISOString();
  return { ...other, takenAt, reading: reading as ReadingRow['reading'], ...gapInMm(reading) };
}

/** What a reading proves as it was felt, in mm. */
export function gapInMm(reading: Reading): { lo: number; hi: number | null; floor: boolean } {
  const { lo, hi, floor } = intervalOf(reading);
  return { lo: mmFromTenths(lo), hi: mmOrNull(hi), floor };
}

/** The columns of what a reading `g` was judged by. */
export const JUDGED_BY = [
  'g.min_tenths as min',
  'g.max_tenths as max',
  'g.allow_over_tenths as allowOver',
] as const;

/** What a reading was judged by, as its row has it: nothing where its sheet had no limits yet. */
export interface JudgedByRow {
  readonly min: number | null;
  readonly max: number | null;
  readonly allowOver: number;
}

/** What a reading was judged by, in tenths of a micrometre; null where its sheet had no limits yet. */
export const judgedByRow = ({ min, max, allowOver }: JudgedByRow): Limits | null =>
  min === null || max === null ? null : { min, max, allowOver };

/** The same in mm. */
export function limitsInMm(row: JudgedByRow) {
  const limits = judgedByRow(row);
  return (
    limits && {
      min: mmFromTenths(limits.min),
      max: mmFromTenths(limits.max),
      allowOver: mmFromTenths(row.allowOver),
    }
  );
}
