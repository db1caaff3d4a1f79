import type { Knex } from 'knex';

/** What the shop found to be there on a pattern, otherwise than its sheet makes expect: each word of it stands, later ones over earlier. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table pattern_parts (
      id uuid primary key,
      sheet_id uuid not null references sheets (id),
      build_id uuid not null references builds (id),
      lines jsonb not null check (jsonb_typeof(lines) = 'array'),
      by uuid not null references people (id),
      at timestamptz not null
    );
    create index pattern_parts_of_sheet on pattern_parts (sheet_id, at);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('drop table pattern_parts');
}
