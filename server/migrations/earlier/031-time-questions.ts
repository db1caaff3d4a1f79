import type { Knex } from 'knex';

/**
 * What a device wrote at a time that cannot be waits on it for an answer. It stands here too, so that whoever looks at Today knows of
 * it; once the same write is taken it is answered.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table time_questions (
      key uuid primary key,
      person_id uuid not null references people (id),
      -- the room of the route, and what it was written to there
      room text not null,
      subject uuid not null,
      said text not null,
      asked_at timestamptz not null default now()
    );
    create function answer_time_question() returns trigger language plpgsql as $$
    begin
      delete from time_questions where key = new.key;
      return null;
    end $$;
    create trigger writes_answer after insert on writes for each row execute function answer_time_question();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop trigger writes_answer on writes;
    drop function answer_time_question();
    drop table time_questions;
  `);
}
