import type { Knex } from 'knex';

/**
 * A point is left alone by choice, because it cannot be reached, or because what it is measured by came apart before anybody measured it.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table settings
      add column cause text not null default 'chosen' check (cause in ('chosen', 'unreached', 'apart')),
      add constraint settings_cause_said check ((cause = 'chosen') or (kind = 'left'));
  `);
}

/** In the schema before it is left alone, with what was said of why. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table settings drop constraint settings_cause_said, drop column cause;
  `);
}
