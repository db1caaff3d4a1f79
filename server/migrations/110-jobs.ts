import type { Knex } from 'knex';

/**
 * A build is opened as what it is: a job, whose stages follow from it. What is open stays the whole of it; what was opened for what a recheck
 * found sets that again. Whoever only has the valves checked need not say why.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table builds
      add column job text not null default 'rebuild' check (job ~ '^[a-z][a-z-]{1,30}$'),
      drop constraint builds_complaint_check,
      add constraint builds_complaint_check check (length(complaint) <= 300);
    update builds set job = 'set-again' where carried_round is not null;
  `);
}

/** In the schema before every build goes through every stage, and each says what the engine is here for. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    update builds set complaint = replace(job, '-', ' ') where length(trim(both from complaint)) = 0;
    alter table builds
      drop constraint builds_complaint_check,
      add constraint builds_complaint_check check (length(trim(both from complaint)) >= 1 and length(trim(both from complaint)) <= 300),
      drop column job;
  `);
}
