import type { Knex } from 'knex';

/** Tables of which nothing is kept that was read: what was written once, where it was tried, what servers tell each other. */
export const UNNOTED = [
  ...['knex_migrations', 'knex_migrations_lock', 'known_devices', 'sign_in_tries', 'writes', 'write_tries'],
  ...['gauge_holds', 'table_changes', 'table_counts'],
];

/** A build's own count of what was written in it, noted apart: it is raised with every reading, and few answers have it in them. */
const SEQ = 'seq';

/**
 * How often each table was written to. Every statement that writes leaves one line, in its own transaction: nobody waits for anybody, and
 * whoever sees what was written sees that it was. The lines are added up now and then.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table table_changes (n bigint generated always as identity primary key, name text not null);
    create table table_counts (name text primary key, n bigint not null);
    alter table table_changes set (autovacuum_vacuum_scale_factor = 0, autovacuum_vacuum_threshold = 500);
    create function note_table_change() returns trigger language plpgsql as $$
      begin
        insert into table_changes (name) values (coalesce(tg_argv[0], tg_table_name));
        return null;
      end $$;
    create procedure note_changes_of(tables text[]) language plpgsql as $$
      declare each text;
      begin
        foreach each in array tables loop
          execute format('create trigger changes_noted after insert or update or delete or truncate on %I
            for each statement execute function note_table_change()', each);
        end loop;
      end $$;`);
  const { rows } = await knex.raw(
    `select relname as name from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace and relname <> all (?)`,
    [[...UNNOTED, 'builds']],
  );
  await knex.raw('call note_changes_of(?)', [(rows as { name: string }[]).map(({ name }) => name)]);
  const columns = Object.keys(await knex('builds').columnInfo()).filter((name) => name !== SEQ);
  await knex.schema.raw(`
    create trigger changes_noted after insert or delete or truncate or update of ${columns.join(', ')} on builds
      for each statement execute function note_table_change();
    create trigger seq_noted after insert or delete or truncate or update of ${SEQ} on builds
      for each statement execute function note_table_change('${SEQ}');`);
}

/** The schema before keeps nothing by table. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`drop function note_table_change() cascade;
    drop procedure note_changes_of;
    drop table table_changes, table_counts;`);
}
