import type { FleetList, FleetSays } from '@zero-lash/contract/fleet';
import { calibrationOf, fleetPrior, intervalSays, LEAST_ENGINES, wasInside } from '@zero-lash/core/fleet';
import { mmFromTenths } from '@zero-lash/core/length';
import { USUAL_FEEL, type UsageUnit } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { Refusal } from '../plugins/errors.ts';
import { findSheet, newestPublished } from '../sheets/read.ts';

/** So many of the newest findings, and of the newest estimates, say what more of them would say again. */
const MOST = 2000;

/** So many engines are named, the most trouble first, and so many at each place. */
const NAMED = 12;
const NAMED_AT_PLACE = 3;
/** So many findings are drawn. */
const DRAWN = 300;

/** Patterns that anything was rechecked of, the most trouble first; those that nothing is said of last. */
export async function listFleet(db: Knex): Promise<FleetList> {
  const { rows } = await db.raw(
    `select s.id as "sheetId", s.maker || ' ' || s.name as name, count(distinct c.engine_id)::int as engines,
        count(distinct c.recheck_id)::int as rechecks,
        (count(distinct c.recheck_id) filter (where c.verdict in ('tight', 'loose')))::int as out
       from point_checks c join sheets s on s.id = c.sheet_id
      group by s.id
      order by count(distinct c.engine_id) < :least,
        (count(distinct c.recheck_id) filter (where c.verdict in ('tight', 'loose')))::float8 / count(distinct c.recheck_id) desc,
        3 desc, 2`,
    { least: LEAST_ENGINES },
  );
  return rows as FleetList;
}

/** What all engines of one pattern say. */
export async function readFleet(db: Knex, sheetId: string): Promise<FleetSays> {
  const sheet = await db('sheets as s')
    .where('s.id', sheetId)
    .first(
      's.name',
      's.maker',
      db.raw(`(select r.usage_unit from sheet_revisions r where r.sheet_id = s.id
      order by r.status = 'published' desc, r.number desc limit 1) as unit`),
    );
  if (!sheet) throw new Refusal('not_found', { detail: 'There is no such spec sheet.' });
  const { pattern } = (await newestPublished(db, sheetId)) ?? (await findSheet(db, sheetId))[0]!;
  const [positions, byEngine, { checks, ...whole }, findings, drifts, expected] = await Promise.all([
    readPositions(db, sheetId),
    readEngines(db, sheetId),
    readChecks(db, sheetId),
    readFindings(db, sheetId),
    readDrifts(db, sheetId),
    readExpectedOut(db, sheetId),
  ]);
  const roles = [...new Set(drifts.map(({ role }) => role))].sort().flatMap((role) => {
    const own = drifts.filter((drift) => drift.role === role);
    const engines = new Set(own.map(({ engine }) => engine)).size;
    const { count, mean, betweenSd } = fleetPrior({ estimates: own });
    return engines < LEAST_ENGINES || mean === null
      ? []
      : [{ role, engines, points: count, perUnit: mean, betweenSd: betweenSd! }];
  });
  const calibration = calibrationOf(findings, USUAL_FEEL);
  const out = checks.reduce((sum, each) => sum + each.out, 0);
  return {
    ...{ sheetId, name: `${sheet.maker} ${sheet.name}`, usageUnit: sheet.unit as UsageUnit, pattern },
    ...{ engines: whole.engines, rechecks: whole.rechecks, roles },
    positions: positions.filter(({ engines }) => engines >= LEAST_ENGINES),
    checks: checks.filter(({ engines }) => engines >= LEAST_ENGINES),
    byEngine: whole.engines >= LEAST_ENGINES ? byEngine : [],
    calibration,
    findings: (calibration ? findings : []).slice(0, DRAWN).map((finding) => ({
      ...{ said: finding.saidMean, found: finding.found, inside: wasInside(finding, USUAL_FEEL) },
    })),
    interval: intervalSays({
      ...{ engines: whole.engines, rechecks: whole.rechecks, out, expectedOut: expected },
    }),
  };
}

/** Each place: how fast it moves in the mean of its engines, how often it was out, on how many engines it goes first. */
async function readPositions(db: Knex, sheetId: string): Promise<FleetSays['positions']> {
  const { rows } = await db.raw(
    `with newest as (
       select engine_id, point, per_unit from point_checks
        where sheet_id = :sheet and newest and per_unit is not null
     ), drift as (
       select point, count(*)::int as engines, avg(per_unit) as per_unit from newest group by 1
     ), first as (
       -- the greatest drift of each engine, with the place it is at behind it
       select substr(most, 17) as point, count(*)::int as engines from (
         select max(to_char(abs(per_unit), 'FM000000.000000000') || point) as most from newest group by engine_id) f group by 1
     ), checked as (
       select point, min(role) as role, count(*)::int as checks,
           (count(*) filter (where verdict in ('tight', 'loose')))::int as out
         from point_checks where sheet_id = :sheet group by 1
     ), troubled as (
       select point, engine_id, out, per_unit,
           row_number() over (partition by point order by out desc, abs(per_unit) desc, engine_id) as rank
         from (select point, engine_id, (count(*) filter (where verdict in ('tight', 'loose')))::int as out,
             (array_agg(per_unit) filter (where newest and per_unit is not null))[1] as per_unit
           from point_checks where sheet_id = :sheet group by 1, 2) each_one where per_unit is not null
     )
     select c.point, c.role, d.engines, d.per_unit as "perUnit", c.checks, c.out, coalesce(f.engines, 0) as "goesFirst",
         (select json_agg(json_build_object('engineId', e.id, 'engine', e.name, 'perUnit', t.per_unit, 'out', t.out) order by t.rank)
           from troubled t join engines e on e.id = t.engine_id where t.point = c.point and t.rank <= :named) as on
       from checked c join drift d on d.point = c.point left join first f on f.point = c.point order by c.point`,
    { sheet: sheetId, named: NAMED_AT_PLACE },
  );
  return rows as FleetSays['positions'];
}

/** The engines that gave most trouble, with the place on each that moves fastest. */
async function readEngines(db: Knex, sheetId: string): Promise<FleetSays['byEngine']> {
  const { rows } = await db.raw(
    `with looked as (
       select engine_id, recheck_id, bool_or(verdict in ('tight', 'loose')) as out
         from point_checks where sheet_id = :sheet group by 1, 2
     ), fastest as (
       select distinct on (engine_id) engine_id, point, per_unit
         from point_checks where sheet_id = :sheet and newest and per_unit is not null
        order by engine_id, abs(per_unit) desc, point
     ), counts as (
       select engine_id, count(*)::int as rechecks, (count(*) filter (where out))::int as out from looked group by 1
     )
     select e.id as "engineId", e.name as engine, e.place, c.rechecks, c.out,
         case when f.point is not null then json_build_object('point', f.point, 'perUnit', f.per_unit) end as fastest
       from counts c join engines e on e.id = c.engine_id left join fastest f on f.engine_id = c.engine_id
      order by c.out desc, abs(f.per_unit) desc nulls last, e.name limit ${NAMED}`,
    { sheet: sheetId },
  );
  return rows as FleetSays['byEngine'];
}

/** How much there is in all, and each check of the plan: how many found a point out, and what the engines had run by then. */
async function readChecks(
  db: Knex,
  sheetId: string,
): Promise<Pick<FleetSays, 'checks' | 'engines' | 'rechecks'>> {
  const { rows } = await db.raw(
    `with looked as materialized (
       select c.recheck_id, min(c.engine_id::text) as engine, bool_or(c.verdict in ('tight', 'loose')) as out,
           max(c.since) as since
         from point_checks c where c.sheet_id = :sheet group by 1
     ), by_check as (
       select r.sequence, count(distinct l.engine)::int as engines, count(*)::int as rechecks,
           (count(*) filter (where l.out))::int as out, round(avg(l.since), 1)::float8 as since
         from looked l join rechecks r on r.id = l.recheck_id group by 1
     )
     select (select count(distinct engine)::int from looked) as engines, (select count(*)::int from looked) as rechecks,
       (select coalesce(json_agg(b order by b.sequence), '[]') from by_check b) as checks`,
    { sheet: sheetId },
  );
  return rows[0] as Pick<FleetSays, 'checks' | 'engines' | 'rechecks'>;
}

async function readFindings(db: Knex, sheetId: string) {
  const rows = (await db('point_checks')
    .where({ sheet_id: sheetId })
    .whereNotNull('said_mean')
    .orderBy('at', 'desc')
    .limit(MOST)
    .select({ engine: 'engine_id', lo: 'lo', hi: 'hi', saidMean: 'said_mean', saidSd: 'said_sd' })) as {
    engine: string;
    lo: number;
    hi: number;
    saidMean: number;
    saidSd: number;
  }[];
  return rows.map(({ lo, hi, ...row }) => ({
    ...row,
    found: (mmFromTenths(lo) + mmFromTenths(hi)) / 2,
    width: mmFromTenths(hi - lo),
  }));
}

async function readDrifts(db: Knex, sheetId: string) {
  const { rows } = await db.raw(
    `select engine_id as engine, role, per_unit as value, se from point_checks
      where sheet_id = :sheet and newest and se > 0 order by at desc limit ${MOST}`,
    { sheet: sheetId },
  );
  return rows as { engine: string; role: string; value: number; se: number }[];
}

/** How likely a planned recheck of the pattern will find a point out, in the mean, by its forecast; null where none is. */
async function readExpectedOut(db: Knex, sheetId: string): Promise<number | null> {
  const { rows } = await db.raw(
    `select avg(worst)::float8 as share from (
       select (select max((f->>'pTight')::float8 + (f->>'pLoose')::float8)
           from jsonb_array_elements(r.forecast->'points') f) as worst
         from rechecks r join engines e on e.id = r.engine_id
        where e.sheet_id = :sheet and r.status = 'planned' and r.forecast is not null limit ${MOST}) w`,
    { sheet: sheetId },
  );
  return rows[0].share as number | null;
}
