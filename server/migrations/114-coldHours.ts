import type { Knex } from 'knex';

/**
 * A shop says after how many hours a stopped engine is cold where its sheet does not; a build goes by what was said when it was opened.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(
    ['shop', 'builds']
      .map(
        (table) =>
          `alter table ${table} add column cold_hours smallint not null default 6 check (cold_hours between 1 and 72);`,
      )
      .join('\n'),
  );
}

/** The schema before goes by six hours everywhere. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(
    'alter table shop drop column cold_hours; alter table builds drop column cold_hours;',
  );
}
