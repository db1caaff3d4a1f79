import type { Knex } from 'knex';

/**
 * What setting wants besides: readings taken before a lock nut is tightened, from which the shift by locking is learned; a
 * build's own figures to aim at; how far over the greatest clearance a shop still takes a point, as it was when the build was
 * opened; points with nothing in them; a head on the bench,
 * whose cams are turned by themselves; orders of pieces, with what came of
 * them, and what a size costs that costs something else; the chart a maker prints; and what
 * a sheet says of putting an engine together.
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
    alter table settings drop constraint settings_kind_check;
    alter table settings drop constraint settings_check;
    alter table settings
      add constraint settings_kind_check check (kind in ('turned', 'fitted', 'left', 'bare')),
      add constraint settings_fitted_said check (kind <> 'fitted' or fitted is not null);
    -- what was left alone stands beside what was last changed there, and does not make it undone
    drop index settings_current;
    create unique index settings_current on settings (build_id, point, (kind = 'left')) where not superseded;
    alter table rounds drop constraint rounds_turn_school_check;
    alter table rounds add constraint rounds_turn_school_check
      check (turn_school in
        ('maker', 'fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away', 'cam-by-hand'));
    alter table build_entries drop constraint build_entries_room_check;
    alter table build_entries add constraint build_entries_room_check
      check (room in ('wear', 'headwork', 'ledger', 'ran'));
    create table piece_orders (
      id uuid primary key,
      system text not null check (length(system) between 1 and 40),
      lines jsonb not null,
      note text not null default '',
      build_id uuid references builds (id),
      by uuid not null references people (id),
      at timestamptz not null default now(),
      -- what has not come by then is not waited for any more
      closed_at timestamptz
    );
    create index piece_orders_of_system on piece_orders (system, at);
    alter table sheet_revisions add column piece_charts jsonb not null default '[]';
    alter table sheet_revisions add column assembly jsonb not null default '[]';
    alter table piece_systems add column size_prices jsonb not null default '[]';
    alter table piece_moves add column order_id uuid references piece_orders (id);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table piece_systems drop column size_prices;
    alter table sheet_revisions drop column assembly, drop column piece_charts;
    alter table piece_moves drop column order_id;
    drop table piece_orders;
    alter table build_entries disable trigger build_entries_append_only;
    delete from build_entries where room = 'ran';
    alter table build_entries enable trigger build_entries_append_only;
    alter table build_entries drop constraint build_entries_room_check;
    alter table build_entries add constraint build_entries_room_check
      check (room in ('wear', 'headwork', 'ledger'));
    update rounds set turn_school = null where turn_school = 'cam-by-hand';
    alter table rounds drop constraint rounds_turn_school_check;
    alter table rounds add constraint rounds_turn_school_check
      check (turn_school in ('maker', 'fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away'));
    alter table settings disable trigger settings_append_only;
    delete from settings where kind = 'bare' or (kind = 'fitted' and installed is null);
    update settings s set superseded = true where not superseded and exists (
      select 1 from settings n
       where n.build_id = s.build_id and n.point = s.point and not n.superseded
         and (n.kind = 'left') <> (s.kind = 'left') and (n.at, n.id) > (s.at, s.id));
    alter table settings enable trigger settings_append_only;
    drop index settings_current;
    create unique index settings_current on settings (build_id, point) where not superseded;
    alter table settings drop constraint settings_fitted_said;
    alter table settings drop constraint settings_kind_check;
    alter table settings
      add constraint settings_kind_check check (kind in ('turned', 'fitted', 'left')),
      add constraint settings_check check (kind <> 'fitted' or (installed is not null and fitted is not null));
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
