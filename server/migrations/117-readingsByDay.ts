import type { Knex } from 'knex';

/** What others measured since somebody looked is asked by when it came in: rows come in that order, so that a small index finds them. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw('create index readings_came on readings using brin (at);');
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('drop index readings_came;');
}
