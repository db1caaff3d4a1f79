import type { Knex } from 'knex';

/**
 * What a plan of rechecks of an engine's own wants, and a short look: every plan that an engine was ever given, and why; what
 * a recheck counts from, so that it can be planned anew; the points of a short look; and the season it comes before.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table engine_plans (
      id uuid primary key,
      engine_id uuid not null references engines (id),
      -- null: as its sheet says, again
      plan jsonb,
      why text not null check (length(trim(why)) between 1 and 200),
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index engine_plans_of on engine_plans (engine_id, at);
    create trigger engine_plans_final before update or delete on engine_plans
      for each row execute function is_final();

    alter table recheck_changes drop constraint recheck_changes_kind_check;
    alter table recheck_changes add constraint recheck_changes_kind_check
      check (kind in ('moved', 'held', 'released', 'dropped', 'bench', 'replanned'));

    alter table rechecks
      -- the day it is counted from, and whether half of its plan is counted
      add column planned_on date,
      add column watched boolean not null default false,
      -- the points its plan names; none for every point
      add column sample jsonb not null default '[]',
      -- the points it takes, with those that are suspect; null for every point
      add column points jsonb,
      add column season_from date,
      add column season_until date,
      add column forecast_at timestamptz;
    create index point_checks_lately on point_checks (sheet_id, at);
    update rechecks r set planned_on = (coalesce(
      (select max(before.done_at) from rechecks before where before.build_id = r.build_id and before.sequence < r.sequence),
      (select s.at from sign_offs s where s.build_id = r.build_id),
      now()) at time zone coalesce((select zone from shop limit 1), 'UTC'))::date;
    update rechecks set season_from = due_date where season <> '';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop index point_checks_lately;
    alter table rechecks
      drop column forecast_at, drop column season_until, drop column season_from, drop column points, drop column sample,
      drop column watched, drop column planned_on;
    alter table recheck_changes disable trigger user;
    delete from recheck_changes where kind = 'replanned';
    alter table recheck_changes enable trigger user;
    alter table recheck_changes drop constraint recheck_changes_kind_check;
    alter table recheck_changes add constraint recheck_changes_kind_check
      check (kind in ('moved', 'held', 'released', 'dropped', 'bench'));
    drop table engine_plans;
  `);
}
