import type { Knex } from 'knex';

const TABLES = ['sheet_revisions', 'engines'] as const;
const allow = (words: readonly string[]) =>
  TABLES.map(
    (table) => `
    alter table ${table} drop constraint ${table}_usage_unit_check;
    alter table ${table} add constraint ${table}_usage_unit_check
      check (usage_unit in (${words.map((word) => `'${word}'`).join(', ')}));`,
  ).join('');

/** Running may be counted in miles. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(allow(['hours', 'km', 'miles', 'starts', 'events']));
}

/** What ran in miles counts events from then on: the schema before has no better word, and no figure is changed. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions disable trigger user;
    update sheet_revisions set usage_unit = 'events' where usage_unit = 'miles';
    alter table sheet_revisions enable trigger user;
    update engines set usage_unit = 'events' where usage_unit = 'miles';
    ${allow(['hours', 'km', 'starts', 'events'])}
  `);
}
