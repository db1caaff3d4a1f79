import type { Knex } from 'knex';

/**
 * Limits as a source prints them: one figure, whose band is the shop's and kept with a build as it is opened; what it prints besides for a
 * role, as it stands there; and a second source beside the first.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_limits
      alter column min_tenths drop not null,
      alter column max_tenths drop not null,
      add column figure_tenths integer check (figure_tenths > 0),
      add column also jsonb not null default '[]',
      add constraint sheet_limits_printed check
        ((min_tenths is null) = (max_tenths is null) and (min_tenths is null) = (figure_tenths is not null));
    alter table sheet_revisions add column second_source jsonb;
    alter table shop add column single_rule jsonb;
    alter table builds add column single_rule jsonb;
  `);
}

/** Single figures have no place in the schema before: they are the band that they are usually given, from then on. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table builds drop column single_rule;
    alter table shop drop column single_rule;
    alter table sheet_revisions drop column second_source;
    alter table sheet_limits drop constraint sheet_limits_printed;
    alter table sheet_limits disable trigger user;
    update sheet_limits set
      min_tenths = figure_tenths - least(200, figure_tenths / 10),
      max_tenths = figure_tenths + greatest(1, least(200, figure_tenths / 10))
      where figure_tenths is not null;
    alter table sheet_limits enable trigger user;
    alter table sheet_limits
      drop column also,
      drop column figure_tenths,
      alter column min_tenths set not null,
      alter column max_tenths set not null;
  `);
}
