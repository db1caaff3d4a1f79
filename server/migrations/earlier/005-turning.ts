import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions
      add column wear_limits jsonb not null default '[]',
      add column torques jsonb not null default '[]';
    alter table rounds
      add column turn_school text
        check (turn_school in ('fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away')),
      add column turn_at numeric(7, 3) check (turn_at >= 0 and turn_at < 720),
      add column turn_done jsonb not null default '[]';
    alter table readings
      add column crank_angle numeric(7, 3) check (crank_angle >= 0 and crank_angle < 720),
      add column off_base boolean not null default false,
      add check (not off_base or crank_angle is not null);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table readings drop column off_base, drop column crank_angle;
    alter table rounds drop column turn_done, drop column turn_at, drop column turn_school;
    alter table sheet_revisions drop column torques, drop column wear_limits;
  `);
}
