import type { Knex } from 'knex';

/** What the shop learned of a pattern stands where it is needed: at its stage, with the cover, or at a stop of the crank. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table know_how
      add column about text not null default 'stage' check (about in ('stage', 'cover', 'stop')),
      add column crank_angle numeric(7,3) check (crank_angle >= 0 and crank_angle < 720),
      add constraint know_how_stop_has_angle check ((about = 'stop') = (crank_angle is not null));
  `);
}

/** In the schema before they stand at their stage. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('alter table know_how drop column crank_angle, drop column about');
}
