import type { Knex } from 'knex';

const STAGES = "('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')";

export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table builds (
      id uuid primary key default gen_random_uuid(),
      engine_id uuid not null references engines (id),
      revision_id uuid not null references sheet_revisions (id),
      number int not null check (number >= 1),
      stage text not null default 'take-in' check (stage in ${STAGES}),
      stage_since timestamptz not null default now(),
      complaint text not null check (length(trim(complaint)) between 1 and 300),
      aim text not null default 'middle' check (aim in ('middle', 'exhaust-loose', 'loose-end', 'tight-end')),
      version int not null default 1,
      opened_at timestamptz not null default now(),
      opened_by uuid not null references people (id),
      closed_at timestamptz,
      unique (engine_id, number),
      unique (id, revision_id)
    );
    create unique index builds_one_open on builds (engine_id) where closed_at is null;
    create index builds_on_bench on builds (stage, stage_since) where closed_at is null;
    create table stage_moves (
      id uuid primary key default gen_random_uuid(),
      build_id uuid not null references builds (id),
      from_stage text not null check (from_stage in ${STAGES}),
      to_stage text not null check (to_stage in ${STAGES}),
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index stage_moves_build on stage_moves (build_id, at);
    create table stage_ticks (
      build_id uuid not null references builds (id),
      stage text not null check (stage in ${STAGES}),
      check_key text not null,
      by uuid not null references people (id),
      at timestamptz not null default now(),
      primary key (build_id, stage, check_key)
    );
    create table stage_notes (
      id uuid primary key default gen_random_uuid(),
      build_id uuid not null references builds (id),
      stage text not null check (stage in ${STAGES}),
      text text not null check (length(trim(text)) between 1 and 1000),
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index stage_notes_build on stage_notes (build_id, at);
    create table sign_offs (
      build_id uuid primary key references builds (id),
      by uuid not null references people (id),
      at timestamptz not null default now(),
      usage numeric(9, 1) not null check (usage >= 0),
      statement text not null default ''
    );
    create table rechecks (
      id uuid primary key default gen_random_uuid(),
      build_id uuid not null references builds (id),
      engine_id uuid not null references engines (id),
      sequence int not null check (sequence >= 1),
      planned_usage numeric(9, 1) not null,
      due_usage numeric(9, 1),
      due_date date,
      status text not null default 'planned' check (status in ('planned', 'done', 'dropped')),
      outcome text check (outcome in ('held', 'undecided', 'out')),
      done_at timestamptz,
      done_by uuid references people (id),
      unique (build_id, sequence),
      check (due_usage is not null or due_date is not null),
      check ((status = 'done') = (outcome is not null)),
      check ((status = 'done') = (done_at is not null and done_by is not null))
    );
    create unique index rechecks_one_planned on rechecks (build_id) where status = 'planned';
    create index rechecks_engine on rechecks (engine_id) where status = 'planned';
    create index rechecks_due_date on rechecks (due_date) where status = 'planned';
    create table rounds (
      id uuid primary key default gen_random_uuid(),
      build_id uuid not null,
      revision_id uuid not null,
      recheck_id uuid references rechecks (id),
      kind text not null check (kind in ('as-found', 'proved', 'recheck')),
      number int not null check (number >= 1),
      engine_temp_c numeric(5, 1),
      hours_since_run numeric(8, 1) check (hours_since_run >= 0),
      opened_at timestamptz not null default now(),
      opened_by uuid not null references people (id),
      closed_at timestamptz,
      usage numeric(9, 1),
      foreign key (build_id, revision_id) references builds (id, revision_id),
      unique (build_id, kind, number),
      unique (id, revision_id),
      check ((kind = 'recheck') = (recheck_id is not null))
    );
    create unique index rounds_one_a_recheck on rounds (recheck_id) where recheck_id is not null;
    create table readings (
      id uuid primary key default gen_random_uuid(),
      round_id uuid not null,
      revision_id uuid not null,
      point text not null,
      reading jsonb not null,
      as_typed text not null,
      lo int not null check (lo >= 0),
      hi int check (hi >= 0),
      min_tenths int not null,
      max_tenths int not null,
      verdict text not null check (verdict in
        ('tight', 'loose', 'in-spec', 'undecided', 'undecided-low', 'undecided-high', 'conflict')),
      on_limit boolean not null default false,
      doubt_kept boolean not null default false,
      by uuid not null references people (id),
      at timestamptz not null default now(),
      supersedes uuid unique references readings (id),
      superseded boolean not null default false,
      reason text not null default '',
      foreign key (round_id, revision_id) references rounds (id, revision_id),
      foreign key (revision_id, point) references lash_points (revision_id, key),
      check ((hi is not null and lo > hi) = (verdict = 'conflict'))
    );
    create unique index readings_current on readings (round_id, point) where not superseded;
    create index readings_round on readings (round_id);
    create table settings (
      id uuid primary key default gen_random_uuid(),
      build_id uuid not null,
      revision_id uuid not null,
      point text not null,
      kind text not null check (kind in ('turned', 'fitted', 'left')),
      degrees numeric(7, 1),
      installed int check (installed > 0),
      fitted int check (fitted > 0),
      mark text not null default '',
      note text not null default '',
      by uuid not null references people (id),
      at timestamptz not null default now(),
      superseded boolean not null default false,
      foreign key (build_id, revision_id) references builds (id, revision_id),
      foreign key (revision_id, point) references lash_points (revision_id, key),
      check (kind <> 'fitted' or (installed is not null and fitted is not null)),
      check (kind <> 'left' or length(trim(note)) > 0)
    );
    create unique index settings_current on settings (build_id, point) where not superseded;

    create function is_append_only() returns trigger language plpgsql as $$
    begin
      if tg_op = 'DELETE' or to_jsonb(new) - 'superseded' <> to_jsonb(old) - 'superseded'
         or (old.superseded and not new.superseded) then
        raise exception 'what was written stays: add a row that supersedes it' using errcode = 'ZL002';
      end if;
      return new;
    end $$;
    create trigger readings_append_only before update or delete on readings
      for each row execute function is_append_only();
    create trigger settings_append_only before update or delete on settings
      for each row execute function is_append_only();
    create function is_final() returns trigger language plpgsql as $$
    begin
      raise exception 'what was written stays' using errcode = 'ZL002';
    end $$;
    create trigger sign_offs_final before update or delete on sign_offs
      for each row execute function is_final();
    create trigger usages_final before update or delete on usages
      for each row execute function is_final();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop trigger usages_final on usages;
    drop table settings, readings, rounds, rechecks, sign_offs, stage_notes, stage_ticks, stage_moves, builds;
    drop function is_append_only();
    drop function is_final();
  `);
}
