import type { EngineView } from '@zero-lash/contract/engines';
import { dueState } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { shopDay } from '../clock.ts';

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
      'r.status',
      'r.outcome',
      'r.done_at as doneAt',
      'p.name as doneBy',
      'e.running',
      'e.put_away_at as awayAt',
    );
  return rows.map(({ plannedUsage, after, running, awayAt, ...row }) => ({
    ...row,
    state:
      // nothing of an engine that was put away is due
      row.status === 'planned' && !awayAt
        ? dueState(row, plannedUsage, { day: today, usage: running }, after)
        : null,
  }));
}
