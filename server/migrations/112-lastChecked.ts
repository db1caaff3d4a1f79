import type { Knex } from 'knex';

/**
 * An engine in service has its next recheck planned from when it was last checked, before it was in the record or elsewhere: on which
 * day, at which running figure, and by whom.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table builds
      add column last_checked_on date,
      add column last_checked_usage numeric(12, 1) check (last_checked_usage >= 0),
      add column last_checked_by text check (length(trim(both from last_checked_by)) between 1 and 80),
      add constraint builds_last_checked_said check (
        ((last_checked_on is null) = (last_checked_usage is null)) and ((last_checked_on is null) = (last_checked_by is null)));
  `);
}

/** In the schema before, which knows no such job, it is a rebuild that runs, with when it was last checked in a note. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    insert into stage_notes (build_id, stage, text, by)
      select id, 'run-in', 'Last checked on ' || last_checked_on || ' at ' || last_checked_usage || ' by ' || last_checked_by, opened_by
      from builds where last_checked_on is not null;
    update builds set job = 'rebuild', complaint = 'In service' where last_checked_on is not null;
    alter table builds
      drop constraint builds_last_checked_said,
      drop column last_checked_on, drop column last_checked_usage, drop column last_checked_by;
  `);
}
