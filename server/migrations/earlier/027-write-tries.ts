import type { Knex } from 'knex';

/** One row that each server writes every few seconds, to know that it can. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table write_tries (
      only_one boolean primary key default true check (only_one),
      at timestamptz not null default now()
    );
    insert into write_tries default values;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('drop table write_tries');
}
