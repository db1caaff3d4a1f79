import type { Knex } from 'knex';

/**
 * An engine that its sheet has measured hot, and that cannot be run, is set cold: to what figures, why, and who stands for it.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table builds
      add column set_cold jsonb check (jsonb_typeof(set_cold) = 'object'),
      add column set_cold_by uuid references people (id),
      add constraint builds_set_cold_said check ((set_cold is null) = (set_cold_by is null));
    create index builds_set_cold_by on builds (set_cold_by) where set_cold_by is not null;
  `);
}

/** In the schema before it is judged by the hot figures alone; what was said of it stays in a note. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    insert into stage_notes (build_id, stage, text, by)
      select id, 'set', left('Set cold, because: ' || (set_cold ->> 'why') || '. Figures: ' || (set_cold -> 'figures')::text, 1000), set_cold_by
      from builds where set_cold is not null;
    alter table builds
      drop constraint builds_set_cold_said,
      drop column set_cold, drop column set_cold_by;
  `);
}
