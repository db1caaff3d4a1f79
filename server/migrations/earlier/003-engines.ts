import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table engines (
      id uuid primary key default gen_random_uuid(),
      sheet_id uuid not null references sheets (id),
      name text not null check (length(trim(name)) between 1 and 60),
      serial text not null default '',
      owner text not null default '',
      duty text not null default '',
      usage_unit text not null check (usage_unit in ('hours', 'km', 'starts')),
      usage numeric(9, 1) not null default 0 check (usage >= 0),
      usage_at timestamptz not null default now(),
      version int not null default 1,
      created_at timestamptz not null default now()
    );
    create unique index engines_name on engines (lower(name));
    create index engines_sheet on engines (sheet_id);
    create table usages (
      id uuid primary key default gen_random_uuid(),
      engine_id uuid not null references engines (id),
      usage numeric(9, 1) not null check (usage >= 0),
      reason text not null default '',
      read_at timestamptz not null default now(),
      by uuid not null references people (id)
    );
    create index usages_engine on usages (engine_id, read_at desc);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('drop table usages, engines');
}
