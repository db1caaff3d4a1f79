import type { Knex } from 'knex';

/** A letter that a server is sending is that server's until a moment: no transaction stands open while a mail server is waited for. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table reminders add column sending_until timestamptz');
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table reminders drop column sending_until');
}
