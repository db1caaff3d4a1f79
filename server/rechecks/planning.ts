import { randomUUID } from 'node:crypto';
import { tenthsFromMm } from '@zero-lash/core/length';
import type { RecheckForecast } from '@zero-lash/contract/rechecks';
import {
  isBeforeService,
  nextRecheck,
  planWhereSetCold,
  stepsOn,
  ownDrift,
  pointsOfLook,
  saidOf,
  suspectsOf,
  type Day,
  type RecheckOutcome,
  type RecheckStep,
  hasMeter,
} from '@zero-lash/core/rechecks';
import { rolesOf } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { jobOf, RUNNING, type JobKey } from '@zero-lash/core/builds';
import type { LockedBuild } from '../builds/lock.ts';
import { shopDay } from '../clock.ts';
import { json } from '../storedJson.ts';
import { findRevision } from '../sheets/read.ts';
import {
  forecastNext,
  readCourses,
  readPriors,
  refreshExpected,
  runningBy,
  type BuildCourses,
} from './forecast.ts';
import { readOwnPlan } from './ownPlan.ts';

interface PlannedAfter {
  readonly sequence: number;
  /** what the engine has run when it is planned */
  readonly usage: number;
  /** the day it is planned from; today where it is left out */
  readonly on?: Day;
  /** what the recheck before it came to; null for the first */
  readonly after: RecheckOutcome | null;
  /** a point was let stand as it is: it is looked at sooner */
  readonly watched?: boolean;
}

/** A step of a plan, with what begins on its day and the points it takes. */
type PlanStep = RecheckStep & { readonly season?: string; readonly points?: readonly string[] };

interface CountedFrom {
  readonly day: Day;
  readonly usage: number;
  readonly cycles: number;
  /** a point was let stand as it is: it is looked at sooner */
  readonly watched?: boolean;
  /** what the recheck before it came to; null for the first */
  readonly after: RecheckOutcome | null;
}

/** What a recheck is due by, as the columns of its row. */
export function dueColumns(
  plan: readonly PlanStep[],
  sequence: number,
  { watched = false, after, ...from }: CountedFrom,
) {
  const { dueUsage, dueDate, dueCycles, season } = nextRecheck(plan, sequence, from, watched);
  const step = plan[Math.min(sequence, plan.length) - 1]!;
  const begins = season !== null || isBeforeService(step) ? (step.season ?? '') : '';
  // what nobody could decide is looked at whole
  const sample = after === null || after === 'held' ? (step.points ?? []) : [];
  return {
    ...{ sequence, watched, after_outcome: after },
    ...{ planned_usage: from.usage, planned_cycles: from.cycles, planned_on: from.day },
    ...{ due_usage: dueUsage, due_date: dueDate, due_cycles: dueCycles },
    ...{ plan_usage: dueUsage, plan_date: dueDate },
    ...{ season: begins, sample: JSON.stringify(sample) },
    ...{ season_from: season?.from ?? null, season_until: season?.until ?? null },
  };
}

/** What an engine is looked at by: a plan of its own where it was given one, else its sheet's. */
async function planOf(
  db: Knex,
  { id, engineId, revisionId }: Pick<LockedBuild, 'id' | 'engineId' | 'revisionId'>,
  sequence: number,
): Promise<readonly PlanStep[]> {
  const own = await readOwnPlan(db, engineId);
  const { usage_unit: unit } = (await db('engines').where({ id: engineId }).first('usage_unit'))!;
  const steps = stepsOn<PlanStep>(own?.steps ?? (await findRevision(db, revisionId)).recheckPlan, unit);
  const { job, set_cold: cold } = (await db('builds').where({ id }).first('job', 'set_cold'))!;
  const run = jobOf(job as JobKey).isRunIn ? steps.slice(-1) : steps;
  return cold === null ? run : planWhereSetCold(run, sequence);
}

/**
 * Plans the recheck that follows a sign-off or a recheck, by the engine's own plan or the build's own spec sheet, and sooner
 * where its forecast asks for it. One that was planned before, and dropped because what it followed was opened again, is
 * planned again. Where neither has a plan, none is planned: a lead gives the engine one.
 */
export async function planRecheck(
  db: Knex,
  build: Pick<LockedBuild, 'id' | 'engineId' | 'revisionId'>,
  { sequence, usage, on, after, watched = false }: PlannedAfter,
): Promise<void> {
  const plan = await planOf(db, build, sequence);
  if (plan.length === 0) return;
  const engine = (await db('engines').where({ id: build.engineId }).first('heat_cycles'))!;
  const from = {
    day: on ?? (await shopDay(db)),
    usage,
    cycles: engine.heat_cycles as number,
    watched,
    after,
  };
  const [row] = await db('rechecks')
    .insert({
      ...{ build_id: build.id, engine_id: build.engineId },
      ...dueColumns(plan, sequence, from),
      ...{ status: 'planned', by_forecast: false, held: false, bench_day: null },
    })
    .onConflict(['build_id', 'sequence'])
    .merge()
    .returning('id');
  await refreshForecast(db, row!.id);
  await refreshExpected(db, build.engineId);
}

/**
 * Plans an engine's next recheck again, because the plan it goes by was changed. One that a lead moved stays where it was moved
 * to, and one that is being measured is measured as it was begun. An engine that went by no plan has its first one planned; one that
 * goes by none from now on has none.
 *
 * @returns the build whose rechecks were planned again, or null where none were
 */
export async function replan(
  db: Knex,
  engineId: string,
  { why, personId }: { readonly why: string; readonly personId: string },
): Promise<string | null> {
  const recheck = await db('rechecks as r')
    .join('builds as b', 'b.id', 'r.build_id')
    .where({ 'r.engine_id': engineId, 'r.status': 'planned' })
    // a build before what is in it, as every write does
    .forNoKeyUpdate('b')
    .first('r.*', 'b.revision_id');
  if (!recheck) return planFirst(db, engineId);
  if ((await isMoved(db, recheck.id)) || (await isBegun(db, recheck.id))) return null;
  const plan = await planOf(
    db,
    { id: recheck.build_id, engineId, revisionId: recheck.revision_id },
    recheck.sequence,
  );
  const changed = { recheck_id: recheck.id, day: null, why, by: personId };
  if (plan.length === 0) {
    await db('rechecks').where({ id: recheck.id }).update({ status: 'dropped' });
    await db('recheck_changes').insert({ ...changed, id: randomUUID(), kind: 'dropped' });
    await refreshExpected(db, engineId);
    return recheck.build_id as string;
  }
  const due = dueColumns(plan, recheck.sequence, {
    ...{ day: recheck.planned_on, usage: recheck.planned_usage, cycles: recheck.planned_cycles },
    ...{ watched: recheck.watched, after: recheck.after_outcome },
  });
  const late = recheck.bench_day !== null && due.due_date !== null && recheck.bench_day > due.due_date;
  await db('rechecks')
    .where({ id: recheck.id })
    .update({
      ...due,
      ...(late ? { bench_day: null } : {}),
      by_forecast: false,
      version: recheck.version + 1,
    });
  await db('recheck_changes').insert({ ...changed, id: randomUUID(), kind: 'replanned' });
  await refreshForecast(db, recheck.id);
  await refreshExpected(db, engineId);
  return recheck.build_id as string;
}

/** Plans the next recheck of an engine that runs on a signed build and has none planned, because it went by no plan. */
async function planFirst(db: Knex, engineId: string): Promise<string | null> {
  const build = await db('builds as b')
    .leftJoin('sign_offs as s', 's.build_id', 'b.id')
    .join('engines as e', 'e.id', 'b.engine_id')
    .where({ 'b.engine_id': engineId, 'b.closed_at': null, 'b.stage': RUNNING })
    .forNoKeyUpdate('b')
    .first('b.id', 'b.revision_id as revisionId', 's.accepted', 'e.running');
  if (!build) return null;
  const last = await db('rechecks')
    .where({ build_id: build.id })
    .orderBy('sequence', 'desc')
    .first('sequence', 'outcome');
  await planRecheck(
    db,
    { id: build.id, engineId, revisionId: build.revisionId },
    {
      ...{ sequence: (last?.sequence ?? 0) + 1, usage: Number(build.running) },
      ...{ after: last?.outcome ?? null, watched: !last && (build.accepted ?? []).length > 0 },
    },
  );
  return build.id as string;
}

const isMoved = async (db: Knex, id: string): Promise<boolean> =>
  Boolean(await db('recheck_changes').where({ recheck_id: id, kind: 'moved' }).first('id'));

const isBegun = async (db: Knex, id: string): Promise<boolean> =>
  Boolean(await db('rounds').where({ recheck_id: id }).first('id'));

/**
 * Forecasts a planned recheck again, from what its points measured and what the shop's other engines say by now; brings it
 * forward where the forecast has a point out before the plan looks. It never puts one back, and leaves one alone that a lead moved.
 */
export async function refreshForecast(db: Knex, id: string): Promise<void> {
  const recheck = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .where('r.id', id)
    .first(
      'r.build_id as buildId',
      'r.plan_usage as planUsage',
      'r.plan_date as planDate',
      'r.engine_id as engineId',
      'r.sample',
      'e.running',
    );
  const moved = await isMoved(db, id);
  const courses = await readCourses(db, recheck.buildId);
  const { forecast, brought } = await forecastNext(db, courses, {
    dueUsage: recheck.planUsage,
    now: recheck.running,
    // by the calendar alone: what it will have run by that day, as it is used
    then: recheck.planUsage === null ? await runningBy(db, recheck.engineId, recheck.planDate) : null,
  });
  await db('rechecks')
    .where({ id })
    .update({
      forecast: JSON.stringify(forecast),
      forecast_at: db.fn.now(),
      // what is asked of somebody who measures already is not asked otherwise
      ...((await isBegun(db, id))
        ? {}
        : { points: pointsAsked(courses, json('rechecks.sample', recheck.sample), forecast) }),
      ...(moved ? {} : { by_forecast: brought !== null, due_usage: brought ?? recheck.planUsage }),
    });
}

/** The points of a short look as its column has them: those the plan names, and whatever is suspect beside them. */
function pointsAsked(
  { courses }: BuildCourses,
  sample: readonly string[],
  { points }: RecheckForecast,
): string | null {
  const asked = pointsOfLook(
    courses.map(({ point }) => point),
    sample,
    suspectsOf(points),
  );
  return asked && JSON.stringify(asked);
}

/** Writes down what each point of a recheck was found at, held against what had been forecast of it. */
export async function recordChecks(db: Knex, recheckId: string): Promise<void> {
  const recheck = await db('rechecks as r')
    .join('rounds as n', 'n.recheck_id', 'r.id')
    .where('r.id', recheckId)
    .first('r.build_id as buildId', 'n.usage', 'r.done_at as doneAt');
  const { build, setAt, courses } = await readCourses(db, recheck.buildId);
  const unit = build.engine.usageUnit;
  const metered = hasMeter(unit);
  const roles = rolesOf(build.sheet.pattern);
  const priors = await readPriors(db, { sheetId: build.sheet.sheetId, unit, but: build.engine.id }, roles);
  const since = Math.max(0, (recheck.usage ?? setAt) - setAt);
  const found = build.rounds.find((round) => round.recheckId === recheckId && !round.carried)!.readings;
  const rows = courses.flatMap((course) => {
    const reading = found.find(({ point }) => point === course.point);
    const until = course.observations.filter(({ usage }) => usage <= since);
    const now = until.at(-1);
    const [set] = until;
    const before = until.slice(0, -1);
    if (!reading || reading.hi === null || !now || !set || before.length === 0) return [];
    const own = ownDrift({ observations: until }, unit);
    const said = saidOf({ ...course, observations: before }, unit, priors, since);
    return [
      {
        ...{ recheck_id: recheckId, point: course.point, role: course.role, since },
        ...{ sheet_id: build.sheet.sheetId, engine_id: build.engine.id, verdict: reading.verdict },
        ...{ lo: tenthsFromMm(now.lo), hi: tenthsFromMm(now.hi) },
        ...{ from_lo: tenthsFromMm(set.lo), from_hi: tenthsFromMm(set.hi) },
        ...{ per_unit: own?.value ?? null, se: own?.se ?? null },
        // without a meter nothing was forecast that it could be held against
        ...{ said_mean: metered ? said.mean : null, said_sd: metered ? said.sd : null },
        at: recheck.doneAt,
      },
    ];
  });
  if (rows.length === 0) return;
  // a recheck that was opened again is judged again: it stays the newest
  await db('point_checks')
    .where({ engine_id: build.engine.id })
    .whereIn(
      'point',
      rows.map(({ point }) => point),
    )
    .update({ newest: false });
  await db('point_checks')
    .insert(rows.map((row) => ({ ...row, newest: true })))
    .onConflict(['recheck_id', 'point'])
    .merge();
}

/** Takes back what a recheck was found to say, until it is judged again: what was found before it is the newest again. */
export async function forgetChecks(db: Knex, recheckId: string): Promise<void> {
  const gone = (await db('point_checks')
    .where({ recheck_id: recheckId })
    .delete()
    .returning(['engine_id'])) as {
    engine_id: string;
  }[];
  if (gone.length === 0) return;
  await db.raw(
    `update point_checks c set newest = true
      where c.engine_id = :engine and not exists (
        select 1 from point_checks l where l.engine_id = c.engine_id and l.point = c.point and l.at > c.at)`,
    { engine: gone[0]!.engine_id },
  );
}
