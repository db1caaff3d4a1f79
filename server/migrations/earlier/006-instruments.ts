import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table instruments (
      id uuid primary key default gen_random_uuid(),
      name text not null check (length(trim(name)) between 1 and 60),
      kind text not null check (kind in ('blade-set', 'indicator', 'micrometer', 'caliper', 'digital-gauge')),
      unit text not null check (unit in ('mm', 'in')),
      uncertainty int not null check (uncertainty between 0 and 10000),
      angled boolean not null default false,
      thicknesses int[] not null default '{}',
      missing int[] not null default '{}',
      address text,
      check_due date,
      active boolean not null default true,
      version int not null default 1,
      check ((kind = 'blade-set') = (cardinality(thicknesses) > 0)),
      check (missing <@ thicknesses),
      check ((kind = 'digital-gauge') = (address is not null))
    );
    create unique index instruments_name on instruments (lower(name));
    create table instrument_checks (
      id uuid primary key default gen_random_uuid(),
      instrument_id uuid not null references instruments (id),
      block int not null check (block > 0),
      found int not null check (found >= 0),
      passed boolean not null,
      note text not null default '',
      next_due date not null,
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index instrument_checks_instrument on instrument_checks (instrument_id, at desc);
    create trigger instrument_checks_final before update or delete on instrument_checks
      for each row execute function is_final();
    create table benches (
      id uuid primary key default gen_random_uuid(),
      name text not null check (length(trim(name)) between 1 and 60),
      blade_set_id uuid references instruments (id),
      max_stack int not null default 2 check (max_stack between 1 and 4),
      version int not null default 1
    );
    create unique index benches_name on benches (lower(name));
    create table gauge_holds (
      instrument_id uuid primary key references instruments (id),
      device uuid not null,
      person_id uuid not null references people (id),
      until timestamptz not null
    );
    alter table rounds add column condition text check (condition in ('cold', 'hot'));
    create table round_conditions (
      id uuid primary key default gen_random_uuid(),
      round_id uuid not null references rounds (id),
      engine_temp_c numeric(5, 1),
      hours_since_run numeric(8, 1) check (hours_since_run >= 0),
      condition text check (condition in ('cold', 'hot')),
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index round_conditions_round on round_conditions (round_id, at);
    create trigger round_conditions_final before update or delete on round_conditions
      for each row execute function is_final();
    alter table readings
      add column instrument_id uuid references instruments (id),
      add column taken_at timestamptz not null default now(),
      add column blind boolean not null default false;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table readings drop column blind, drop column taken_at, drop column instrument_id;
    drop trigger round_conditions_final on round_conditions;
    drop table round_conditions;
    alter table rounds drop column condition;
    drop trigger instrument_checks_final on instrument_checks;
    drop table gauge_holds, benches, instrument_checks, instruments;
  `);
}
