import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table sheets (
      id uuid primary key default gen_random_uuid(),
      name text not null check (length(trim(name)) between 1 and 80),
      maker text not null check (length(trim(maker)) between 1 and 60),
      created_at timestamptz not null default now(),
      unique (maker, name)
    );
    create table sheet_revisions (
      id uuid primary key default gen_random_uuid(),
      sheet_id uuid not null references sheets (id),
      number int not null check (number >= 1),
      status text not null check (status in ('draft', 'published')),
      pattern jsonb not null,
      condition text not null check (condition in ('cold', 'hot')),
      temperature jsonb,
      usage_unit text not null check (usage_unit in ('hours', 'km', 'starts')),
      recheck_plan jsonb not null check (jsonb_array_length(recheck_plan) >= 1),
      source jsonb not null check (length(trim(source ->> 'manual')) >= 1),
      notes text not null default '',
      entered_by uuid not null references people (id),
      checked_by uuid references people (id),
      created_at timestamptz not null default now(),
      published_at timestamptz,
      version int not null default 1,
      unique (sheet_id, number),
      check ((status = 'published') = (published_at is not null)),
      check (status = 'draft' or checked_by is not null)
    );
    create unique index sheet_revisions_one_draft on sheet_revisions (sheet_id) where status = 'draft';
    create table sheet_limits (
      revision_id uuid not null references sheet_revisions (id) on delete cascade,
      role text not null check (role in ('intake', 'exhaust', 'intake-closing', 'exhaust-closing', 'brake')),
      min_tenths int not null check (min_tenths >= 0),
      max_tenths int not null,
      as_written text not null default '',
      primary key (revision_id, role),
      check (min_tenths < max_tenths)
    );
    create table lash_points (
      revision_id uuid not null references sheet_revisions (id) on delete cascade,
      key text not null,
      ordinal int not null,
      cylinder text not null,
      role text not null,
      primary key (revision_id, key),
      foreign key (revision_id, role) references sheet_limits (revision_id, role)
    );
    create function sheet_revision_is_fixed() returns trigger language plpgsql as $$
    begin
      if old.status = 'published' then
        raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001';
      end if;
      if tg_op = 'DELETE' then return old; end if;
      return new;
    end $$;
    create trigger sheet_revision_fixed before update or delete on sheet_revisions
      for each row execute function sheet_revision_is_fixed();
    create function sheet_part_is_fixed() returns trigger language plpgsql as $$
    begin
      if exists (select 1 from sheet_revisions r where r.id = old.revision_id and r.status = 'published') then
        raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001';
      end if;
      if tg_op = 'DELETE' then return old; end if;
      return new;
    end $$;
    create trigger sheet_limits_fixed before update or delete on sheet_limits
      for each row execute function sheet_part_is_fixed();
    create trigger lash_points_fixed before update or delete on lash_points
      for each row execute function sheet_part_is_fixed();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop table lash_points, sheet_limits, sheet_revisions, sheets;
    drop function sheet_revision_is_fixed();
    drop function sheet_part_is_fixed();
  `);
}
