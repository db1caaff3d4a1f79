import type { Knex } from 'knex';

/**
 * Every write in a build raises its `seq`, ticks are kept when they are taken back, what a round is taken under stands in
 * its record only, a blind look knows what it is held against, and what is stored as JSON says in which format.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table builds add column seq int not null default 0;
    alter table stage_ticks add column done boolean not null default true;
    insert into round_conditions (round_id, engine_temp_c, hours_since_run, condition, by, at)
      select r.id, r.engine_temp_c, r.hours_since_run, r.condition, r.opened_by, r.opened_at from rounds r
      where (r.engine_temp_c is not null or r.hours_since_run is not null or r.condition is not null)
        and not exists (select 1 from round_conditions c where c.round_id = r.id);
    alter table rounds
      drop column engine_temp_c,
      drop column hours_since_run,
      drop column condition,
      add column turn_said_at timestamptz;
    update rounds set turn_said_at = opened_at;
    alter table rounds
      alter column turn_said_at set default now(),
      alter column turn_said_at set not null;
    alter table readings
      add column first_look uuid references readings (id),
      add column format smallint not null default 1 check (format >= 1);
    alter table readings disable trigger readings_append_only;
    update readings g set first_look = (
        select f.id from readings f
        where f.round_id = g.round_id and f.point = g.point and not f.blind and f.taken_at <= g.taken_at and f.id <> g.id
        order by f.taken_at desc limit 1)
      where g.blind;
    alter table readings enable trigger readings_append_only;
    alter table sheet_revisions add column format smallint not null default 1 check (format >= 1);
    update writes w set answer = case
        when jsonb_exists(w.answer, 'roundId') then jsonb_build_object(
          'build', (select r.build_id from rounds r where r.id::text = w.answer ->> 'roundId'),
          'rows', jsonb_build_array(jsonb_build_object('kind', 'reading', 'id', w.answer -> 'id')))
        else jsonb_build_object('build', w.answer -> 'id', 'rows', '[]'::jsonb)
      end
      where w.answer is not null
        and w.route ~ '^(POST|PATCH|PUT) /api/(builds/|rounds/|rechecks/|engines/[^/]+/builds)';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    update writes w set answer = jsonb_build_object('id', w.answer -> 'build') where jsonb_exists(w.answer, 'rows');
    alter table sheet_revisions drop column format;
    alter table readings drop column format, drop column first_look;
    alter table rounds
      drop column turn_said_at,
      add column engine_temp_c numeric(5, 1),
      add column hours_since_run numeric(8, 1) check (hours_since_run >= 0),
      add column condition text check (condition in ('cold', 'hot'));
    update rounds r set engine_temp_c = c.engine_temp_c, hours_since_run = c.hours_since_run, condition = c.condition
      from (select distinct on (round_id) * from round_conditions order by round_id, at desc) c where c.round_id = r.id;
    delete from stage_ticks where not done;
    alter table stage_ticks drop column done;
    alter table builds drop column seq;
  `);
}
