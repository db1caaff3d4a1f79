import type { Knex } from 'knex';

const allow = (words: readonly string[]) =>
  ['sheet_revisions', 'engines']
    .map(
      (table) => `
    alter table ${table} drop constraint ${table}_usage_unit_check;
    alter table ${table} add constraint ${table}_usage_unit_check
      check (usage_unit in (${words.map((word) => `'${word}'`).join(', ')}));`,
    )
    .join('');

/** An engine may have no meter: it is looked at by date, heat cycles and season. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(allow(['hours', 'km', 'miles', 'starts', 'events', 'none']));
}

/** The schema before counts something on every engine: events, of which none are counted. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions disable trigger user;
    update sheet_revisions set usage_unit = 'events' where usage_unit = 'none';
    alter table sheet_revisions enable trigger user;
    update engines set usage_unit = 'events' where usage_unit = 'none';
    ${allow(['hours', 'km', 'miles', 'starts', 'events'])}
  `);
}
