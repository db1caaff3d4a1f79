import type { Knex } from 'knex';

/**
 * What knowing when an engine is due wants: owners kept once, with how they wish to be told; usage with heat cycles, from a
 * hand, a file or a meter's feed; rechecks that are brought forward, moved, held back or dropped, and by whom; what each point
 * was found at, held against what had been forecast; reminders, each of them once; addresses of calendar feeds; and what a
 * sheet says of an engine's first hours.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions
      add column run_in jsonb not null default '{"heatCycles": 0, "retorque": false}',
      drop constraint sheet_revisions_usage_unit_check,
      add constraint sheet_revisions_usage_unit_check check (usage_unit in ('hours', 'km', 'starts', 'events'));

    create table owners (
      id uuid primary key default gen_random_uuid(),
      name text not null check (length(trim(name)) between 1 and 80),
      email text not null default '' check (length(email) <= 120),
      -- by mail, or left in peace
      tells text not null default 'mail' check (tells in ('mail', 'peace')),
      note text not null default '',
      version int not null default 1,
      created_at timestamptz not null default now()
    );
    create unique index owners_name on owners (lower(name));

    alter table engines
      drop constraint engines_usage_unit_check,
      add constraint engines_usage_unit_check check (usage_unit in ('hours', 'km', 'starts', 'events')),
      add column owner_id uuid references owners (id),
      add column place text not null default '',
      add column heat_cycles int not null default 0 check (heat_cycles >= 0);
    create index engines_owner_id on engines (owner_id);
    -- an engine says its owner by name; the owner is kept once, and every engine of one says the same name
    create function engine_has_owner() returns trigger language plpgsql as $$
    begin
      new.owner := trim(new.owner);
      if new.owner = '' then
        new.owner_id := null;
      else
        insert into owners (name) values (new.owner) on conflict (lower(name)) do nothing;
        select o.id, o.name into new.owner_id, new.owner from owners o where lower(o.name) = lower(new.owner);
      end if;
      return new;
    end $$;
    create trigger engines_has_owner before insert or update of owner on engines
      for each row execute function engine_has_owner();
    create function owner_is_called() returns trigger language plpgsql as $$
    begin
      update engines set owner = new.name where owner_id = new.id;
      return null;
    end $$;
    create trigger owners_called after update of name on owners
      for each row when (old.name is distinct from new.name) execute function owner_is_called();
    update engines set owner = owner where owner <> '';
    create or replace function engine_is_sought_by() returns trigger language plpgsql as $$
    begin
      new.sought := lower(concat_ws(' ', new.name, new.serial, new.owner, new.duty, new.place,
        (select s.name from sheets s where s.id = new.sheet_id)));
      return new;
    end $$;
    drop trigger engines_sought on engines;
    create trigger engines_sought before insert or update of name, serial, owner, duty, place, sheet_id on engines
      for each row execute function engine_is_sought_by();

    alter table usages
      -- heat cycles in all, as they were then
      add column heat_cycles int check (heat_cycles >= 0),
      add column source text not null default 'hand' check (source in ('hand', 'csv', 'feed'));
    create unique index usages_fed_once on usages (engine_id, read_at) where source = 'feed';

    alter table rechecks
      drop constraint rechecks_check,
      add column due_cycles int,
      add column planned_cycles int not null default 0,
      -- what begins on the day it is due before, in the sheet's words
      add column season text not null default '',
      -- as the plan had it, where the forecast or a lead has it sooner or later
      add column plan_usage numeric(12, 1),
      add column plan_date date,
      add column by_forecast boolean not null default false,
      add column held boolean not null default false,
      add column bench_day date,
      add column expected_day date,
      add column earliest_day date,
      add column latest_day date,
      add column forecast jsonb,
      add column version int not null default 1;
    update rechecks set plan_usage = due_usage, plan_date = due_date, expected_day = due_date;
    alter table rechecks add constraint rechecks_due_by_something
      check (due_usage is not null or due_date is not null or due_cycles is not null);
    create index rechecks_planned on rechecks (expected_day) where status = 'planned';

    create table recheck_changes (
      id uuid primary key,
      recheck_id uuid not null references rechecks (id),
      kind text not null check (kind in ('moved', 'held', 'released', 'dropped', 'bench')),
      day date,
      why text not null default '',
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index recheck_changes_of on recheck_changes (recheck_id, at);
    create trigger recheck_changes_final before update or delete on recheck_changes
      for each row execute function is_final();

    -- one point at one recheck: what it was found at, and what had been said of it
    create table point_checks (
      recheck_id uuid not null references rechecks (id),
      point text not null,
      sheet_id uuid not null references sheets (id),
      engine_id uuid not null references engines (id),
      role text not null,
      -- run since it was set
      since numeric(12, 1) not null,
      lo int not null,
      hi int not null,
      -- tenths of a micrometre, as it was proved
      from_lo int not null,
      from_hi int not null,
      verdict text not null,
      -- mm a unit of usage, from when it was set, with its standard error
      per_unit double precision,
      se double precision,
      said_mean double precision,
      said_sd double precision,
      at timestamptz not null,
      -- of this point of this engine nothing was found later
      newest boolean not null default true,
      primary key (recheck_id, point)
    );
    create index point_checks_of_sheet on point_checks (sheet_id, role);
    create index point_checks_of_engine on point_checks (engine_id);
    create index point_checks_newest on point_checks (sheet_id) where newest;

    alter table people
      add column email text not null default '' check (length(email) <= 120),
      add column looked_at timestamptz;
    alter table shop
      add column quiet_from time not null default '19:00',
      add column quiet_to time not null default '07:00',
      add column remind_days int not null default 14 check (remind_days between 0 and 120);

    alter table shop add column meter_feed text not null default '' check (length(meter_feed) <= 80);
    -- what a meter's feed sent: taken, or asked about because it cannot be as it stands
    create table meter_lines (
      id uuid primary key default gen_random_uuid(),
      serial text not null,
      at timestamptz not null,
      usage numeric(9, 1) not null,
      heat_cycles int,
      engine_id uuid references engines (id),
      state text not null check (state in ('taken', 'asked', 'left')),
      why text not null default '',
      answered_by uuid references people (id),
      unique (serial, at)
    );
    create index meter_lines_asked on meter_lines (at) where state = 'asked';

    create table reminders (
      id uuid primary key default gen_random_uuid(),
      recheck_id uuid not null references rechecks (id),
      -- what is told: that it comes, or that it is overdue; of this due day or running
      stage text not null check (stage in ('coming', 'overdue')),
      about text not null,
      address text not null,
      recipient text not null check (recipient in ('owner', 'lead')),
      subject text not null,
      body text not null,
      made_at timestamptz not null default now(),
      not_before timestamptz not null default now(),
      sent_at timestamptz,
      tries int not null default 0,
      complaint text not null default '',
      unique (recheck_id, stage, about, address)
    );
    create index reminders_unsent on reminders (not_before) where sent_at is null;

    create table calendar_feeds (
      id uuid primary key default gen_random_uuid(),
      person_id uuid not null references people (id),
      token_hash bytea not null unique,
      made_at timestamptz not null default now(),
      withdrawn_at timestamptz
    );
    create index calendar_feeds_of on calendar_feeds (person_id);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop table meter_lines;
    alter table shop drop column meter_feed;
    drop table calendar_feeds, reminders, point_checks, recheck_changes;
    alter table shop drop column remind_days, drop column quiet_to, drop column quiet_from;
    alter table people drop column looked_at, drop column email;
    drop index rechecks_planned;
    update rechecks set due_date = coalesce(expected_day, current_date) where due_usage is null and due_date is null;
    alter table rechecks
      drop constraint rechecks_due_by_something,
      add constraint rechecks_check check (due_usage is not null or due_date is not null),
      drop column version, drop column forecast, drop column latest_day, drop column earliest_day, drop column expected_day,
      drop column bench_day, drop column held, drop column by_forecast, drop column plan_date, drop column plan_usage,
      drop column season, drop column planned_cycles, drop column due_cycles;
    drop index usages_fed_once;
    alter table usages drop column source, drop column heat_cycles;
    drop trigger engines_sought on engines;
    create or replace function engine_is_sought_by() returns trigger language plpgsql as $$
    begin
      new.sought := lower(concat_ws(' ', new.name, new.serial, new.owner, new.duty,
        (select s.name from sheets s where s.id = new.sheet_id)));
      return new;
    end $$;
    create trigger engines_sought before insert or update of name, serial, owner, duty, sheet_id on engines
      for each row execute function engine_is_sought_by();
    drop trigger owners_called on owners;
    drop function owner_is_called();
    drop trigger engines_has_owner on engines;
    drop function engine_has_owner();
    update engines set usage_unit = 'starts' where usage_unit = 'events';
    alter table engines
      drop column heat_cycles, drop column place, drop column owner_id,
      drop constraint engines_usage_unit_check,
      add constraint engines_usage_unit_check check (usage_unit in ('hours', 'km', 'starts'));
    drop table owners;
    alter table sheet_revisions disable trigger user;
    update sheet_revisions set usage_unit = 'starts' where usage_unit = 'events';
    alter table sheet_revisions enable trigger user;
    alter table sheet_revisions
      drop constraint sheet_revisions_usage_unit_check,
      add constraint sheet_revisions_usage_unit_check check (usage_unit in ('hours', 'km', 'starts')),
      drop column run_in;
  `);
}
