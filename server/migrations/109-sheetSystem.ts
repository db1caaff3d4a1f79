import type { Knex } from 'knex';

/** A sheet may have its pressures, torques and temperatures shown as its own manual says them, whatever the shop reads in. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(
    `alter table sheet_revisions add column system text check (system in ('metric', 'inch'))`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table sheet_revisions drop column system');
}
