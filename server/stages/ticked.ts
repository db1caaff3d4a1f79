import type { Knex } from 'knex';

/** When a check was ticked, where it is taken back or ticked again now. */
export const tickedBefore = (db: Knex) =>
  db.raw(
    'case when stage_ticks.done then array_append(stage_ticks.earlier, stage_ticks.at) else stage_ticks.earlier end',
  );
