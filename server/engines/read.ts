import type {
  EngineList,
  EngineRow,
  EngineSort,
  EngineView,
  GapRow,
  engineSearch,
} from '@zero-lash/contract/engines';
import { RUNNING, STAGE_KEYS } from '@zero-lash/core/builds';
import { mmFromTenths } from '@zero-lash/core/length';
import { intervalOf, judge } from '@zero-lash/core/measuring';
import { folded } from '@zero-lash/core/fleet';
import { dueState, type Day, type RecheckOutcome } from '@zero-lash/core/rechecks';
import { lashPoints, resolveLimits } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { dayIn, shopZone } from '../clock.ts';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';
import { NEARNESS_SQL, nearnessOn, RECHECK_DAY_SQL } from '../rechecks/nearness.ts';
import { readPlan } from '../rechecks/ownPlan.ts';
import { readRechecks } from '../rechecks/read.ts';
import { mmOrNull } from '../length.ts';
import { JUDGED_BY, judgedByRow, limitsInMm, parseReading } from '../measuring/rounds.ts';
import { findRevision, newestPublished } from '../sheets/read.ts';
import { shopSingleRule } from '../sheets/singleRule.ts';
import { hollowsOf } from '../wear/hollows.ts';

interface EngineRecord extends Omit<EngineRow, 'recheck' | 'usageOn' | 'putAway'> {
  awayAt: Date | null;
  awayBy: string | null;
  awayWhy: string | null;
  usageAt: Date;
  recheckId: string | null;
  sequence: number;
  plannedUsage: number;
  after: RecheckOutcome | null;
  dueUsage: number | null;
  dueDate: Day | null;
  dueCycles: number | null;
  plannedCycles: number;
  onHold: boolean;
  benchDay: Day | null;
  expectedDay: Day | null;
}

/** The day it is in the shop, and the zone that day is one of. */
interface ShopCalendar {
  readonly zone: string;
  readonly today: Day;
}

async function shopCalendar(db: Knex): Promise<ShopCalendar> {
  const zone = await shopZone(db);
  return { zone, today: dayIn(zone) };
}

function engineQuery(db: Knex): Knex.QueryBuilder {
  return db('engines as e')
    .join('sheets as s', 's.id', 'e.sheet_id')
    .leftJoin('people as ap', 'ap.id', 'e.put_away_by')
    .leftJoin('builds as b', (join) => join.on('b.engine_id', 'e.id').onNull('b.closed_at'))
    .leftJoin('rechecks as r', (join) => join.on('r.engine_id', 'e.id').onVal('r.status', 'planned'))
    .select(
      'e.id',
      'e.sheet_id as sheetId',
      's.name as sheetName',
      'e.name',
      'e.serial',
      'e.owner',
      'e.duty',
      'e.usage_unit as usageUnit',
      'e.usage',
      'e.running',
      'e.usage_at as usageAt',
      'e.version',
      'e.put_away_at as awayAt',
      'ap.name as awayBy',
      'e.put_away_why as awayWhy',
      'b.id as buildId',
      'b.stage',
      'r.id as recheckId',
      'r.sequence',
      'r.planned_usage as plannedUsage',
      'r.after_outcome as after',
      'r.due_usage as dueUsage',
      'r.due_date as dueDate',
      'r.due_cycles as dueCycles',
      'r.planned_cycles as plannedCycles',
      'r.held as onHold',
      'r.bench_day as benchDay',
      'r.expected_day as expectedDay',
      'e.heat_cycles as heatCycles',
      'e.place',
      'e.owner_id as ownerId',
    );
}

function rowFrom(record: EngineRecord, { today, zone }: ShopCalendar): EngineRow {
  const {
    awayAt,
    awayBy,
    awayWhy,
    usageAt,
    recheckId,
    sequence,
    plannedUsage,
    after,
    dueUsage,
    dueDate,
    dueCycles,
    plannedCycles,
    onHold,
    benchDay,
    expectedDay,
    ...engine
  } = record;
  return {
    ...engine,
    usageOn: dayIn(zone, usageAt),
    putAway: awayAt && { at: awayAt.toISOString(), by: awayBy!, why: awayWhy! },
    recheck:
      recheckId && !awayAt
        ? {
            id: recheckId,
            sequence,
            dueUsage,
            dueDate,
            dueCycles,
            benchDay,
            expectedDay,
            state: dueState(
              { dueUsage, dueDate, dueCycles },
              { usage: plannedUsage, cycles: plannedCycles },
              { day: today, usage: engine.running, cycles: engine.heatCycles },
              after,
              onHold,
            ),
          }
        : null,
  };
}

/** What each column is sorted by. Stages are in the order of the work, rechecks by how pressing they are. */
const SORTED_BY: Readonly<Record<EngineSort, readonly string[]>> = {
  name: ['lower(e.name)'],
  owner: ['lower(e.owner)'],
  sheetName: ['lower(s.name)'],
  usage: ['e.usage'],
  stage: [`array_position(array[${STAGE_KEYS.map((key) => `'${key}'`).join(', ')}], b.stage)`],
  recheck: [NEARNESS_SQL, RECHECK_DAY_SQL],
};

/** Columns in which some engines have nothing: those come last. */
const SOME_HAVE_NONE: ReadonlySet<EngineSort> = new Set(['stage', 'recheck']);

/** Engines whose name, serial, owner, duty or pattern holds every word looked for: one page of them, and how many. */
export async function listEngines(
  db: Knex,
  { search, away, sort, order, limit, offset }: z.output<typeof engineSearch>,
): Promise<EngineList> {
  const matching = (query: Knex.QueryBuilder) => {
    query.whereRaw(`e.put_away_at is ${away ? 'not null' : 'null'}`);
    for (const word of folded(search).split(/\s+/).filter(Boolean))
      query.whereRaw('e.sought like ?', [`%${word.replace(/[\\%_]/g, '\\$&')}%`]);
    return query;
  };
  const calendar = await shopCalendar(db);
  // what an index is in the order of is asked for in that order
  const direction = `${order}${SOME_HAVE_NONE.has(sort) ? ' nulls last' : ''}`;
  const records = (await matching(engineQuery(db))
    .orderByRaw(
      [
        ...SORTED_BY[sort].map((by) => `${by} ${direction}`),
        ...(sort === 'name' ? [] : ['lower(e.name)']),
      ].join(', '),
      bindingsOf(sort, calendar),
    )
    .limit(limit)
    .offset(offset)) as EngineRecord[];
  const counted = await matching(db('engines as e')).first(db.raw('count(*)::int as total'));
  return { engines: records.map((record) => rowFrom(record, calendar)), total: counted.total };
}

const bindingsOf = (sort: EngineSort, { today }: ShopCalendar) =>
  sort === 'recheck' ? nearnessOn(today) : {};

export async function findEngine(db: Knex, id: string): Promise<EngineRow> {
  const record = (await engineQuery(db).where('e.id', id).first()) as EngineRecord | undefined;
  if (!record) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  return rowFrom(record, await shopCalendar(db));
}

/** An engine with everything that happened to it. */
export async function viewEngine(db: Knex, id: string): Promise<EngineView> {
  const engine = await findEngine(db, id);
  const newest = await newestPublished(db, engine.sheetId);
  const limits = newest ? resolveLimits(newest.limits, await shopSingleRule(db)) : [];
  const limitOf = new Map(limits.map((limit) => [limit.role, limit]));
  return {
    ...engine,
    builds: await readBuilds(db, id),
    gaps: await readGaps(db, id),
    rechecks: await readRechecks(db, { engine_id: id }),
    plan: await readPlan(db, engine),
    usages: await db('usages as u')
      .join('people as p', 'p.id', 'u.by')
      .leftJoin('people as sp', 'sp.id', 'u.struck_by')
      .where('u.engine_id', id)
      .orderBy('u.read_at', 'desc')
      .limit(50)
      .select(
        db.raw(`case when u.struck_at is null then null
          else json_build_object('at', u.struck_at, 'by', sp.name, 'why', u.struck_why) end as struck`),
        'u.id',
        'u.usage',
        'u.running',
        'u.new_meter as newMeter',
        'u.reason',
        'u.read_at as readAt',
        'p.name as by',
      ),
    limits: newest
      ? lashPoints(newest.pattern).flatMap(({ key, role }) => {
          const limit = limitOf.get(role);
          return limit ? [{ point: key, min: limit.min, max: limit.max }] : [];
        })
      : [],
    takenIn: await readTakenIn(db, id),
  };
}

/** The records that were taken in of an engine, newest first. */
async function readTakenIn(db: Knex, engineId: string): Promise<EngineView['takenIn']> {
  const rows = await db('records_taken as t')
    .join('people as p', 'p.id', 't.by')
    .where('t.engine_id', engineId)
    .orderBy('t.at', 'desc')
    .select('t.shop', 't.at', 't.differences', 'p.name as by');
  return rows.map((row) => ({ ...row, differences: json('records_taken.differences', row.differences) }));
}

function readBuilds(db: Knex, engineId: string): Promise<EngineView['builds']> {
  return db('builds as b')
    .join('sheet_revisions as v', 'v.id', 'b.revision_id')
    .join('sheets as s', 's.id', 'v.sheet_id')
    .leftJoin('sign_offs as o', 'o.build_id', 'b.id')
    .leftJoin('people as p', 'p.id', 'o.by')
    .leftJoin('people as ap', 'ap.id', 'b.abandoned_by')
    .where('b.engine_id', engineId)
    .orderBy('b.number', 'desc')
    .select(
      'b.id',
      'b.number',
      'b.job',
      'b.stage',
      'b.complaint',
      'b.opened_at as openedAt',
      'o.at as signedOffAt',
      'p.name as signedOffBy',
      'b.closed_at as closedAt',
      's.name as sheetName',
      'v.number as revision',
      'b.version',
      db.raw(`case when b.abandoned_at is null then null
        else json_build_object('at', b.abandoned_at, 'by', ap.name, 'why', b.abandoned_why) end as abandoned`),
    );
}

/** The gap of each point as it was last proved or rechecked, in builds that are done: what it is held against when it is read again. */
export async function readLastGaps(db: Knex, engineId: string): Promise<GapRow[]> {
  const done = new Set(
    (await readBuilds(db, engineId))
      .filter(({ closedAt, stage }) => closedAt !== null || stage === RUNNING)
      .map(({ id }) => id),
  );
  // proved where it was set cold it says nothing of where it is hot
  const cold = new Set(
    await db('builds').where({ engine_id: engineId }).whereNotNull('set_cold').pluck('id'),
  );
  const last = new Map<string, GapRow>();
  for (const gap of (await readGaps(db, engineId)).filter(
    ({ buildId, round }) => round !== 'proved' || !cold.has(buildId),
  ))
    if (done.has(gap.buildId) && ['proved', 'recheck'].includes(gap.round) && gap.hi !== null)
      last.set(gap.point, gap);
  return [...last.values()];
}

async function readGaps(db: Knex, engineId: string): Promise<GapRow[]> {
  const rows = await db('readings as g')
    .join('rounds as r', 'r.id', 'g.round_id')
    .join('builds as b', 'b.id', 'r.build_id')
    .join('lash_points as p', (join) => join.on('p.revision_id', 'g.revision_id').on('p.key', 'g.point'))
    .where('b.engine_id', engineId)
    .where('g.superseded', false)
    .whereNull('b.abandoned_at')
    .orderBy([{ column: 'r.opened_at' }, { column: 'p.ordinal' }])
    .select(
      'g.point',
      'r.kind as round',
      'b.id as buildId',
      'r.opened_at as at',
      'r.usage',
      'g.reading',
      'g.format',
      'g.narrow_blade as narrowBlade',
      ...JUDGED_BY,
      'g.revision_id as revisionId',
    );
  const hollows = new Map<string, ReadonlySet<string>>();
  for (const { buildId, revisionId } of rows)
    if (!hollows.has(buildId))
      hollows.set(buildId, await hollowsOf(db, buildId, await findRevision(db, revisionId)));
  return rows.map(({ reading, format, narrowBlade, min, max, allowOver, revisionId: _, ...row }) => {
    const felt = parseReading(format, reading);
    const gap = intervalOf(felt, !narrowBlade && hollows.get(row.buildId)!.has(row.point));
    return {
      ...row,
      lo: mmFromTenths(gap.lo),
      hi: mmOrNull(gap.hi),
      floor: gap.floor,
      ...judge(gap, judgedByRow({ min, max, allowOver })),
      limits: limitsInMm({ min, max, allowOver }),
    };
  });
}
