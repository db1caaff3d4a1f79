import type { EngineTrend, RecheckForecast } from '@zero-lash/contract/rechecks';
import { headsToTorque, lastChange, provenBy, stageOf } from '@zero-lash/core/builds';
import { boundedGap, limitsFromMm, limitsHeld, specOf, whyNoProof } from '@zero-lash/core/measuring';
import {
  broughtForward,
  daysBetween,
  FORECAST_THRESHOLD,
  pointForecasts,
  recheckDue,
  rolePriors,
  type Day,
  type OwnDrift,
  type PointCourse,
  type RolePrior,
  type UsageUnit,
  hasMeter,
} from '@zero-lash/core/rechecks';
import { firstKnown, leftByPiece } from '@zero-lash/core/setting';
import { lashPoints, rolesOf } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { readWhole, type WholeBuild } from '../builds/readWhole.ts';
import { AHEAD_MS, clock, dayIn, shopZone } from '../clock.ts';

/** What each point of a signed build measured since it was set, and what it had run by then. */
export interface BuildCourses {
  readonly build: WholeBuild;
  /** running in all when it was signed off */
  readonly setAt: number;
  readonly courses: readonly PointCourse[];
}

/** Collects what the points of a build measured since they were set: as proved, and at every recheck. */
export async function readCourses(db: Knex, buildId: string): Promise<BuildCourses> {
  const build = await readWhole(db, buildId);
  const ran = new Map(
    (
      (await db('rounds').where({ build_id: buildId }).select('id', 'usage')) as {
        id: string;
        usage: number | null;
      }[]
    ).map(({ id, usage }) => [id, usage]),
  );
  const setAt = build.signOff?.usage ?? build.lastChecked?.usage ?? build.engine.running;
  const proofs = provenBy(build);
  // what was read as it was set, locked, since it was last changed
  const lockedAt = new Map(
    build.rounds
      .filter(({ kind }) => kind === 'as-set')
      .flatMap(({ readings }) => readings)
      .filter(
        (reading) => whyNoProof(reading, lastChange(build.settings, reading.point)?.at ?? null) === null,
      )
      .map((reading) => [reading.point, reading]),
  );
  // a head that was tightened again is a step and no drift: what was measured under it before says nothing of where it is now
  const steps = new Map<string, number>();
  for (const { key, points } of headsToTorque(build.sheet.pattern))
    for (const tick of build.ticks)
      if (tick.done && tick.check === key && stageOf(tick.stage).measures === 'recheck')
        for (const point of points) steps.set(point, Date.parse(tick.at));
  const courses = lashPoints(build.sheet.pattern).flatMap(({ key, role }): PointCourse[] => {
    const row = build.sheet.limits.find((limit) => limit.role === role);
    if (!row) return [];
    const setTo = limitsFromMm(row);
    // at the next look nobody will have touched it: what may be left alone is what it has to stay in
    const limits = specOf(limitsFromMm(limitsHeld(row, 'in-service')));
    // what was read cold says nothing of where it is hot
    const proof = row.whenHot ? undefined : proofs.get(key);
    const seen = build.rounds
      .filter(({ kind, carried }) => kind === 'recheck' && !carried)
      .flatMap(({ id, readings }) =>
        readings
          .filter(
            (reading) =>
              reading.point === key &&
              whyNoProof(reading, null) === null &&
              Date.parse(reading.takenAt) > (steps.get(key) ?? -Infinity),
          )
          .map((reading) => ({ usage: Math.max(0, (ran.get(id) ?? setAt) - setAt), reading })),
      );
    const observations = [
      ...(proof && !steps.has(key) ? [{ usage: 0, reading: proof }] : []),
      ...seen,
    ].flatMap(({ usage, reading }) => {
      // one that is open on a side, or contradicts itself, says nothing of where it is
      const gap = boundedGap(reading);
      if (!gap) return [];
      if (reading !== proof) return [{ usage, ...gap }];
      const asSet = lockedAt.get(key);
      const besides = [asSet ? boundedGap(asSet) : null, leftByPiece(build, { key, role, limits: setTo })];
      return [{ usage, ...firstKnown(gap, besides) }];
    });
    return [{ point: key, role, limits, observations }];
  });
  return { build, setAt, courses };
}

const MOST = 2000;

/** What the shop's own closed rechecks of a pattern say of its roles; one engine is left out, so that none speaks for itself. */
export async function readPriors(
  db: Knex,
  { sheetId, unit, but }: { readonly sheetId: string; readonly unit: UsageUnit; readonly but: string },
  roles: readonly string[],
): Promise<readonly RolePrior[]> {
  const drifts = (await db('point_checks')
    .where({ sheet_id: sheetId, newest: true })
    .whereNot({ engine_id: but })
    .whereNotNull('per_unit')
    // more of them would say the same again
    .orderBy('at', 'desc')
    .limit(MOST)
    .select('role', 'per_unit as value', 'se')) as OwnDrift[];
  return rolePriors(
    roles,
    unit,
    drifts.filter(({ se }) => se > 0),
  );
}

/** A forecast for the next look, and the running it brings that look forward to; null where the plan looks soon enough. */
export async function forecastNext(
  db: Knex,
  { build, setAt, courses }: BuildCourses,
  {
    dueUsage,
    now,
    then = null,
  }: {
    readonly dueUsage: number | null;
    readonly now: number;
    /** what it will have run when it is looked at, where no running says when */
    readonly then?: number | null;
  },
): Promise<{ readonly forecast: RecheckForecast; readonly brought: number | null }> {
  const unit = build.engine.usageUnit;
  if (!hasMeter(unit))
    return { brought: null, forecast: { threshold: FORECAST_THRESHOLD, priors: [], points: [] } };
  const priors = await readPriors(
    db,
    { sheetId: build.sheet.sheetId, unit, but: build.engine.id },
    rolesOf(build.sheet.pattern),
  );
  const points = pointForecasts(courses, unit, priors, {
    now: Math.max(0, now - setAt),
    at: Math.max(0, (dueUsage ?? then ?? now) - setAt),
  });
  return {
    brought: broughtForward(points, { now, dueUsage: dueUsage ?? then, setAt }),
    forecast: {
      threshold: FORECAST_THRESHOLD,
      priors: priors.map(({ role, from, count, perUnit, sd }) => ({ role, from, count, perUnit, sd })),
      points: points.map((point) => ({
        ...point,
        outAt: point.outAt === null ? null : Math.round((point.outAt + setAt) * 10) / 10,
      })),
    },
  };
}

/** How the gaps of an engine's last signed build moved with its running; null where none is signed, and where nothing counts that. */
export async function readTrend(db: Knex, engineId: string): Promise<EngineTrend | null> {
  const signed = await db('builds as b')
    .leftJoin('sign_offs as s', 's.build_id', 'b.id')
    .where('b.engine_id', engineId)
    // an engine in service was signed by nobody here, and is looked at all the same
    .whereRaw('(s.build_id is not null or b.last_checked_on is not null)')
    .orderBy('b.number', 'desc')
    .first('b.id', 'b.number');
  if (!signed) return null;
  const { build, setAt, courses } = await readCourses(db, signed.id);
  const unit = build.engine.usageUnit;
  if (!hasMeter(unit)) return null;
  const [next] = (await db('rechecks')
    .where({ build_id: signed.id, status: 'planned' })
    .select({
      ...{ recheckId: 'id', dueUsage: 'due_usage', planUsage: 'plan_usage', dueDate: 'due_date' },
      byForecast: 'by_forecast',
    })) as NonNullable<EngineTrend['next']>[];
  const priors = await readPriors(
    db,
    { sheetId: build.sheet.sheetId, unit, but: engineId },
    rolesOf(build.sheet.pattern),
  );
  const now = build.engine.running;
  const since = Math.max(0, now - setAt);
  const odd = new Map(
    pointForecasts(courses, unit, priors, { now: since, at: since }).map(({ point, unlike }) => [
      point,
      unlike,
    ]),
  );
  return {
    ...{
      buildId: signed.id,
      number: signed.number,
      pattern: build.sheet.pattern,
      usageUnit: unit,
      setAt,
      now,
    },
    next: next ?? null,
    priors: [...priors],
    points: courses.map(({ observations, ...course }) => ({
      ...course,
      observations: [...observations],
      unlike: odd.get(course.point) ?? null,
    })),
  };
}

/** What an engine had run in all at the end of each day it was logged, oldest first. */
export async function readLog(
  db: Knex,
  engineId: string,
  zone: string,
): Promise<{ day: Day; usage: number }[]> {
  const rows = (await db('usages')
    .where({ engine_id: engineId, struck_at: null })
    .where('read_at', '<=', new Date(clock.now().getTime() + AHEAD_MS))
    .orderBy(['read_at', 'id'])
    .select('running', 'read_at')) as {
    running: number;
    read_at: Date;
  }[];
  return rows.map(({ running, read_at }) => ({ day: dayIn(zone, read_at), usage: running }));
}

/** What an engine will have run in all by a day, at the rate of its log; null where that does not say. */
export async function runningBy(db: Knex, engineId: string, day: Day | null): Promise<number | null> {
  const log = await readLog(db, engineId, await shopZone(db));
  const [first, last] = [log[0], log.at(-1)];
  if (day === null || !first || !last || first.day === last.day) return null;
  const rate = (last.usage - first.usage) / daysBetween(first.day, last.day);
  return last.usage + Math.max(0, rate * daysBetween(last.day, day));
}

/** Reckons again on which day an engine's planned recheck will be, by how it is really used. */
export async function refreshExpected(db: Knex, engineId: string): Promise<void> {
  const planned = (await db('rechecks as r')
    .where({ 'r.engine_id': engineId, 'r.status': 'planned' })
    .select('r.id', 'r.due_usage as dueUsage', 'r.due_date as dueDate')) as {
    id: string;
    dueUsage: number | null;
    dueDate: Day | null;
  }[];
  if (planned.length === 0) return;
  const zone = await shopZone(db);
  const log = await readLog(db, engineId, zone);
  for (const { id, dueUsage, dueDate } of planned)
    await db('rechecks')
      .where({ id })
      .update(expectedDays(log, { dueUsage, dueDate }, dayIn(zone)));
}

/** The day a recheck will be, with its spread, as columns of its row. */
export function expectedDays(
  log: readonly { readonly day: Day; readonly usage: number }[],
  { dueUsage, dueDate }: { readonly dueUsage: number | null; readonly dueDate: Day | null },
  today: Day,
) {
  if (dueUsage === null) return { expected_day: dueDate, earliest_day: dueDate, latest_day: dueDate };
  // what it is due at stands: counted from nothing
  const from = { day: dueDate === null ? today : earlier(today, dueDate), usage: 0 };
  const { expectedDay, earliestDay, latestDay } = recheckDue({
    from,
    step: {
      afterUsage: dueUsage,
      afterDays: dueDate === null ? null : Math.max(0, daysBetween(from.day, dueDate)),
    },
    log,
  });
  return { expected_day: expectedDay, earliest_day: earliestDay, latest_day: latestDay };
}

const earlier = (a: Day, b: Day) => (a < b ? a : b);
