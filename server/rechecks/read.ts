import type { BuildRowChange } from '@zero-lash/contract/builds';
import type { EngineView } from '@zero-lash/contract/engines';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import { dueState } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { shopDay } from '../clock.ts';
import { json } from '../storedJson.ts';

/** Rechecks, newest first; those still planned carry how near they are. */
export async function readRechecks(
  db: Knex,
  narrow: { readonly engine_id: string } | { readonly build_id: string } | { readonly id: string },
): Promise<EngineView['rechecks']> {
  const today = await shopDay(db);
  const rows = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .leftJoin('people as p', 'p.id', 'r.done_by')
    .where(Object.fromEntries(Object.entries(narrow).map(([key, value]) => [`r.${key}`, value])))
    .orderByRaw('coalesce(r.done_at, now()) desc, r.sequence desc')
    .select(
      'r.id',
      'r.build_id as buildId',
      'r.sequence',
      'r.planned_usage as plannedUsage',
      'r.after_outcome as after',
      'r.due_usage as dueUsage',
      'r.due_date as dueDate',
      'r.due_cycles as dueCycles',
      'r.planned_cycles as plannedCycles',
      'r.season',
      'r.season_from as seasonFrom',
      'r.season_until as seasonUntil',
      'r.points',
      'r.plan_usage as planUsage',
      'r.plan_date as planDate',
      'r.by_forecast as byForecast',
      'r.held as onHold',
      db.raw('r.late_round is not null as late'),
      'r.bench_day as benchDay',
      'r.expected_day as expectedDay',
      'r.earliest_day as earliestDay',
      'r.latest_day as latestDay',
      'r.forecast',
      'r.version',
      'e.heat_cycles as heatCycles',
      'r.status',
      'r.outcome',
      'r.done_at as doneAt',
      'p.name as doneBy',
      'e.running',
      'e.put_away_at as awayAt',
    );
  const changes = await readChanges(
    db,
    rows.map(({ id }) => id),
  );
  return rows.map(({ plannedUsage, plannedCycles, heatCycles, after, running, awayAt, ...row }) => ({
    ...row,
    forecast: json('rechecks.forecast', row.forecast),
    points: json('rechecks.points', row.points),
    changes: changes.get(row.id) ?? [],
    state:
      // nothing of an engine that was put away is due
      row.status === 'planned' && !awayAt
        ? dueState(
            row,
            { usage: plannedUsage, cycles: plannedCycles },
            { day: today, usage: running, cycles: heatCycles },
            after,
            row.onHold,
          )
        : null,
  }));
}

/** Every recheck of a build as it is now, as changes that a write brought. */
export const recheckChanges = async (db: Knex, buildId: string): Promise<BuildRowChange[]> =>
  (await readRechecks(db, { build_id: buildId })).map((row) => ({ kind: 'recheck', row }));

/** What was done about rechecks by a lead or at planning a bench day, newest first. */
async function readChanges(
  db: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, PastRecheck['changes']>> {
  const found = new Map<string, PastRecheck['changes']>();
  const rows = (await db('recheck_changes as c')
    .join('people as p', 'p.id', 'c.by')
    .whereIn('c.recheck_id', [...ids])
    .orderBy(['c.recheck_id', { column: 'c.at', order: 'desc' }])
    .select('c.recheck_id as id', 'c.kind', 'c.day', 'c.why', 'p.name as by', 'c.at')) as (Omit<
    PastRecheck['changes'][number],
    'kind'
  > & {
    id: string;
    // what is on hold is held in the table
    kind: Exclude<PastRecheck['changes'][number]['kind'], 'on-hold'> | 'held';
  })[];
  for (const { id, kind, ...change } of rows)
    found.set(id, [...(found.get(id) ?? []), { ...change, kind: kind === 'held' ? 'on-hold' : kind }]);
  return found;
}
