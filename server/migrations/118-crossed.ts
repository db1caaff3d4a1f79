import type { Knex } from 'knex';

/** Of two people who wrote one point without seeing each other, a reading names the other's: both are told, and one is taken by a person. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(
    `alter table readings add column crosses uuid references readings (id);
    create index readings_crossed on readings (crosses) where crosses is not null;`,
  );
}

/** The schema before says of it only in the reason. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table readings drop column crosses;');
}
