import type { Knex } from 'knex';

/**
 * Where the figures of a sheet are from: of sheets from before nobody said, and that is what they say. A sheet whose source gives no plan has
 * none.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions
      add column origins jsonb not null default '{}',
      drop constraint sheet_revisions_recheck_plan_check;
  `);
}

/** The schema before has no sheet without a plan: one is looked at once a year, from then on. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions disable trigger user;
    update sheet_revisions set recheck_plan = '[{"afterUsage": null, "afterDays": 365, "afterCycles": null,
      "before": null, "until": null, "season": "", "points": []}]' where jsonb_array_length(recheck_plan) = 0;
    alter table sheet_revisions enable trigger user;
    alter table sheet_revisions
      add constraint sheet_revisions_recheck_plan_check check (jsonb_array_length(recheck_plan) >= 1),
      drop column origins;
  `);
}
