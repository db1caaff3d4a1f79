import type { Knex } from 'knex';

/**
 * What setting wants besides: readings taken before a lock nut is tightened, from which the shift by locking is learned; a
 * build's own figures to aim at; and how far over the greatest clearance a shop still takes a point, as it was when the build
 * was opened.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table readings add column before_lock boolean not null default false;
    create index readings_before_lock on readings (by, taken_at) where before_lock;
    alter table builds drop constraint builds_aim_check;
    alter table builds
      add constraint builds_aim_check
        check (aim in ('middle', 'exhaust-loose', 'loose-end', 'tight-end', 'own')),
      add column own_aims jsonb,
      add column aim_by uuid references people (id),
      add column allow_over jsonb not null default '[]',
      add constraint builds_own_aims_said check (aim <> 'own' or own_aims is not null);
    alter table shop add column allow_over jsonb not null default '[]';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table shop drop column allow_over;
    update builds set aim = 'middle' where aim = 'own';
    alter table builds
      drop constraint builds_own_aims_said,
      drop column allow_over,
      drop column aim_by,
      drop column own_aims,
      drop constraint builds_aim_check,
      add constraint builds_aim_check check (aim in ('middle', 'exhaust-loose', 'loose-end', 'tight-end'));
    alter table readings drop column before_lock;
  `);
}
