import { tenthsFromMm } from '@zero-lash/core/length';
import {
  isEmptyStep,
  nextRecheck,
  ownDrift,
  saidOf,
  type Day,
  type RecheckOutcome,
  type RecheckStep,
} from '@zero-lash/core/rechecks';
import { rolesOf } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { TakenUp } from '../builds/course.ts';
import { shopDay } from '../clock.ts';
import { forecastNext, readCourses, readPriors, refreshExpected, runningBy } from './forecast.ts';

interface PlannedAfter {
  readonly sequence: number;
  /** what the engine has run when it is planned */
  readonly usage: number;
  /** what the recheck before it came to; null for the first */
  readonly after: RecheckOutcome | null;
  /** a point was let stand as it is: it is looked at sooner */
  readonly watched?: boolean;
}

/** A step of a sheet's plan, with what begins on its day. */
type SheetStep = RecheckStep & { readonly season?: string };

/** What a recheck is due by, as the columns of its row. */
export function dueColumns(
  plan: readonly SheetStep[],
  sequence: number,
  from: { readonly day: Day; readonly usage: number; readonly cycles: number },
  watched = false,
) {
  const { dueUsage, dueDate, dueCycles } = nextRecheck(plan, sequence, from, watched);
  const step = plan[Math.min(sequence, plan.length) - 1];
  return {
    sequence,
    planned_usage: from.usage,
    planned_cycles: from.cycles,
    ...{ due_usage: dueUsage, due_date: dueDate, due_cycles: dueCycles },
    ...{ plan_usage: dueUsage, plan_date: dueDate },
    season: step && !isEmptyStep(step) && step.before ? (step.season ?? '') : '',
  };
}

/**
 * Plans the recheck that follows a sign-off or a recheck, by the build's own spec sheet, and sooner where its forecast asks for
 * it. One that was planned before, and dropped because what it followed was opened again, is planned anew.
 */
export async function planRecheck(
  db: Knex,
  build: Pick<TakenUp, 'id' | 'engineId'>,
  plan: readonly SheetStep[],
  { sequence, usage, after, watched = false }: PlannedAfter,
): Promise<void> {
  const engine = await db('engines').where({ id: build.engineId }).first('heat_cycles');
  const from = { day: await shopDay(db), usage, cycles: engine.heat_cycles as number };
  const [row] = await db('rechecks')
    .insert({
      ...{ build_id: build.id, engine_id: build.engineId },
      ...dueColumns(plan, sequence, from, watched),
      ...{ after_outcome: after, status: 'planned', by_forecast: false, held: false, bench_day: null },
    })
    .onConflict(['build_id', 'sequence'])
    .merge()
    .returning('id');
  await refreshForecast(db, row.id);
  await refreshExpected(db, build.engineId);
}

/**
 * Forecasts a planned recheck anew, from what its points measured and what the shop's other engines say by now; brings it
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
      'e.running',
    );
  const moved = await db('recheck_changes').where({ recheck_id: id, kind: 'moved' }).first('id');
  const { forecast, brought } = await forecastNext(db, await readCourses(db, recheck.buildId), {
    dueUsage: recheck.planUsage,
    now: recheck.running,
    // by the calendar alone: what it will have run by that day, as it is used
    then: recheck.planUsage === null ? await runningBy(db, recheck.engineId, recheck.planDate) : null,
  });
  await db('rechecks')
    .where({ id })
    .update({
      forecast: JSON.stringify(forecast),
      ...(moved ? {} : { by_forecast: brought !== null, due_usage: brought ?? recheck.planUsage }),
    });
}

/** Writes down what each point of a recheck was found at, held against what had been forecast of it. */
export async function recordChecks(db: Knex, recheckId: string): Promise<void> {
  const recheck = await db('rechecks as r')
    .join('rounds as n', 'n.recheck_id', 'r.id')
    .where('r.id', recheckId)
    .first('r.build_id as buildId', 'n.usage', 'r.done_at as doneAt');
  const { build, setAt, courses } = await readCourses(db, recheck.buildId);
  const unit = build.engine.usageUnit;
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
        ...{ per_unit: own?.value ?? null, se: own?.se ?? null, said_mean: said.mean, said_sd: said.sd },
        at: recheck.doneAt,
      },
    ];
  });
  if (rows.length === 0) return;
  // a recheck that was opened again is judged anew: it stays the newest
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

/** Takes back what a recheck was found to say, until it is judged anew: what was found before it is the newest again. */
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
