import type { Knex } from 'knex';

/** A recheck that found a point out is told of as well. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table reminders
      drop constraint reminders_stage_check,
      add constraint reminders_stage_check check (stage in ('coming', 'overdue', 'not-held'));
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    delete from reminders where stage = 'not-held';
    alter table reminders
      drop constraint reminders_stage_check,
      add constraint reminders_stage_check check (stage in ('coming', 'overdue'));
  `);
}
