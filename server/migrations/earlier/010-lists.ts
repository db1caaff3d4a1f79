import type { Knex } from 'knex';

/** Indices that fit the questions asked of ten thousand engines: any part of any word of one, and what one engine has. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create extension if not exists pg_trgm;
    alter table engines add column sought text not null default '';
    create function engine_is_sought_by() returns trigger language plpgsql as $$
    begin
      new.sought := lower(concat_ws(' ', new.name, new.serial, new.owner, new.duty,
        (select s.name from sheets s where s.id = new.sheet_id)));
      return new;
    end $$;
    update engines e set sought = lower(concat_ws(' ', e.name, e.serial, e.owner, e.duty, s.name))
      from sheets s where s.id = e.sheet_id;
    create trigger engines_sought before insert or update of name, serial, owner, duty, sheet_id on engines
      for each row execute function engine_is_sought_by();
    create index engines_sought_by on engines using gin (sought gin_trgm_ops);
    create index engines_owner on engines (lower(owner), lower(name));
    create index engines_usage on engines (usage, lower(name));
    create index builds_engine on builds (engine_id, number desc);
    create index rechecks_build on rechecks (build_id);
    create index rechecks_of_engine on rechecks (engine_id);
    create index rounds_build on rounds (build_id, opened_at);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop index rounds_build, rechecks_of_engine, rechecks_build, builds_engine, engines_usage, engines_owner, engines_sought_by;
    drop trigger engines_sought on engines;
    drop function engine_is_sought_by();
    alter table engines drop column sought;
  `);
}
