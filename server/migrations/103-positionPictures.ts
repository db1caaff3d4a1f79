import type { Knex } from 'knex';

/** Pictures of what is seen at positions of the crank stand with the sheet that they belong to. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`alter table sheet_revisions add column pictures jsonb not null default '[]'`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table sheet_revisions drop column pictures');
}
