import type { Knex } from 'knex';

/** When a check was ticked, and by whom, where it is taken back or ticked again now. */
export const tickedBefore = (db: Knex) => ({
  earlier: db.raw(
    'case when stage_ticks.done then array_append(stage_ticks.earlier, stage_ticks.at) else stage_ticks.earlier end',
  ),
  earlier_by: db.raw(
    'case when stage_ticks.done then array_append(stage_ticks.earlier_by, stage_ticks.by) else stage_ticks.earlier_by end',
  ),
});
