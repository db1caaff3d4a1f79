import type { Knex } from 'knex';

/** A published revision never changes, but that its second reader is said once. */
const FIXED_BUT_READ = `
  create or replace function sheet_revision_is_fixed() returns trigger language plpgsql as $$
    declare
      may text[] := array['read_by', 'read_at'];
    begin
      if old.published_at is not null and (tg_op = 'DELETE' or old.read_by is not null
        or to_jsonb(new) - may <> to_jsonb(old) - may)
      then raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001'; end if;
      if tg_op = 'DELETE' then return old; end if; return new;
    end $$;`;

const FIXED = `
  create or replace function sheet_revision_is_fixed() returns trigger language plpgsql as $$
    begin
      if old.published_at is not null then raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001'; end if;
      if tg_op = 'DELETE' then return old; end if; return new;
    end $$;`;

/** What one person wrote and published alone, because the shop had nobody else, is read against its source by another as soon as there is one. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(
    `alter table sheet_revisions
      add column read_by uuid references people (id),
      add column read_at timestamptz,
      add constraint sheet_revisions_read check
        ((read_by is null) = (read_at is null) and (read_by is null or status = 'published' and read_by <> all(writers)));
    ${FIXED_BUT_READ}`,
  );
}

/** The schema before knows only who published a sheet. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`${FIXED} alter table sheet_revisions drop column read_by, drop column read_at;`);
}
