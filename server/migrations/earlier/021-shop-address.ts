import type { Knex } from 'knex';

/** Where the shop's program is reached by others: what is printed leads there. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table shop add column address text not null default '' check (length(address) <= 120);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table shop drop column address');
}
