import type { Knex } from 'knex';

/** A try at the door that is still being looked at is no miss; what names were guessed is kept in no clear words any more. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sign_in_tries
      add column pending int not null default 0 check (pending >= 0),
      add column pending_at timestamptz;
    delete from sign_in_tries where subject like 'name:%';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table sign_in_tries drop column pending, drop column pending_at');
}
