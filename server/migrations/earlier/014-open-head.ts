import type { Knex } from 'knex';

const STAGES = "('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')";

/**
 * What is written while a head is open: wear sheets, head work and counts of parts, an entry of one hand at one moment each;
 * photographs; and what a shop has learned of a pattern. Entries are never changed: a later one stands.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table build_entries (
      id uuid primary key,
      build_id uuid not null references builds (id),
      room text not null check (room in ('wear', 'headwork', 'ledger')),
      lines jsonb not null check (jsonb_typeof(lines) = 'array' and jsonb_array_length(lines) >= 1),
      format smallint not null default 1 check (format >= 1),
      by uuid not null references people (id),
      at timestamptz not null
    );
    create index build_entries_of_build on build_entries (build_id, room, at, id);
    create trigger build_entries_append_only before update or delete on build_entries
      for each row execute function is_final();
    create table photographs (
      id uuid primary key,
      build_id uuid not null references builds (id),
      stage text not null check (stage in ${STAGES}),
      about text not null,
      note text not null,
      width int not null check (width between 1 and 4000),
      height int not null check (height between 1 and 4000),
      picture bytea not null check (length(picture) between 1 and 8000000),
      dropped_at timestamptz,
      dropped_by uuid references people (id),
      by uuid not null references people (id),
      at timestamptz not null,
      check ((dropped_at is null) = (dropped_by is null))
    );
    create index photographs_of_build on photographs (build_id, at);
    create table know_how (
      id uuid primary key,
      sheet_id uuid not null references sheets (id),
      build_id uuid not null references builds (id),
      stage text not null check (stage in ${STAGES}),
      text text not null check (length(trim(text)) between 1 and 300),
      dropped boolean not null default false,
      by uuid not null references people (id),
      at timestamptz not null,
      version int not null default 1
    );
    create index know_how_of_sheet on know_how (sheet_id, at);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop table know_how;
    drop table photographs;
    drop table build_entries;
  `);
}
