import type { Knex } from 'knex';

/**
 * The drawer of graded pieces: a ledger of what came and went, never a bare count; what a piece of each system costs and how
 * many of a size are to be there; and where the piece fitted at a point came from, and where the one taken out went.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table piece_moves (
      id uuid primary key default gen_random_uuid(),
      system text not null check (length(system) between 1 and 40),
      thickness int not null check (thickness > 0),
      count int not null check (count <> 0),
      why text not null
        check (why in ('bought', 'kit', 'scrapped', 'counted', 'fitted', 'taken-out', 'found')),
      build_id uuid references builds (id),
      point text,
      note text not null default '',
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index piece_moves_of_system on piece_moves (system, thickness);
    create trigger piece_moves_final before update or delete on piece_moves
      for each row execute function is_final();
    create table piece_systems (
      system text primary key,
      price numeric(9, 2) not null default 0 check (price >= 0),
      reorder int not null default 0 check (reorder between 0 and 99),
      version int not null default 1
    );
    alter table settings
      add column piece_from text not null default 'unsaid'
        check (piece_from in ('unsaid', 'drawer', 'engine', 'bought')),
      add column piece_to text not null default 'unsaid'
        check (piece_to in ('unsaid', 'drawer', 'engine', 'scrapped')),
      add column piece_giver text;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table settings drop column piece_giver, drop column piece_to, drop column piece_from;
    drop table piece_systems;
    drop trigger piece_moves_final on piece_moves;
    drop table piece_moves;
  `);
}
