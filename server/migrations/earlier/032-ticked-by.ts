import type { Knex } from 'knex';

/**
 * Who ticked a check before it was ticked again or taken back stays known, beside when; of what was ticked until now nobody knows.
 * Indexes that another one stands in for go, and those that reading an order and counting a sheet's builds lacked come.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table stage_ticks add column earlier_by uuid[] not null default '{}';
    update stage_ticks set earlier_by = array_fill(null::uuid, array[cardinality(earlier)]) where cardinality(earlier) > 0;
    alter table stage_ticks add check (cardinality(earlier_by) <= cardinality(earlier));
    drop index builds_engine;
    drop index readings_round;
    drop index rechecks_build;
    drop index rechecks_engine;
    create index builds_revision on builds (revision_id);
    create index piece_moves_of_build on piece_moves (build_id) where build_id is not null;
    create index piece_moves_of_order on piece_moves (order_id) where order_id is not null;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop index piece_moves_of_order;
    drop index piece_moves_of_build;
    drop index builds_revision;
    create index rechecks_engine on rechecks (engine_id) where status = 'planned';
    create index rechecks_build on rechecks (build_id);
    create index readings_round on readings (round_id);
    create index builds_engine on builds (engine_id, number desc);
    alter table stage_ticks drop column earlier_by;
  `);
}
