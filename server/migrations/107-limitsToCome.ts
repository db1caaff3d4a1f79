import type { Knex } from 'knex';

/**
 * An engine may be read before its book is here: a sheet may say that its limits are to come, a reading is then held against none, and what
 * was read is judged once, as its build goes over to the revision that has them. What was read stays as it is.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions add column limits_to_come boolean not null default false;
    alter table lash_points drop constraint lash_points_revision_id_role_fkey;
    alter table readings
      alter column min_tenths drop not null,
      alter column max_tenths drop not null,
      add constraint readings_limits check
        ((min_tenths is null) = (max_tenths is null) and (min_tenths is not null or verdict in ('undecided', 'conflict')));
    alter table rounds
      drop constraint rounds_build_id_revision_id_fkey,
      add constraint rounds_build_id_revision_id_fkey foreign key (build_id, revision_id)
        references builds (id, revision_id) on update cascade;
    alter table readings
      drop constraint readings_round_id_revision_id_fkey,
      add constraint readings_round_id_revision_id_fkey foreign key (round_id, revision_id)
        references rounds (id, revision_id) on update cascade;
    create or replace function is_append_only() returns trigger language plpgsql as $$
      declare
        may text[] := array['superseded', 'revision_id'];
      begin
        if tg_op = 'UPDATE' and old.min_tenths is null then
          may := may || array['min_tenths', 'max_tenths', 'allow_over_tenths', 'verdict', 'on_limit'];
        end if;
        if tg_op = 'DELETE' or to_jsonb(new) - may <> to_jsonb(old) - may
           or (old.superseded and not new.superseded) then
          raise exception 'what was written stays: add a row that supersedes it' using errcode = 'ZL002';
        end if;
        return new;
      end $$;
  `);
}

/**
 * In the schema before nothing is without limits: a sheet that has none prints nothing to two millimetres, within which whatever was read lies.
 */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_limits disable trigger user;
    insert into sheet_limits (revision_id, role, min_tenths, max_tenths, as_written)
      select distinct p.revision_id, p.role, 0, 20000, 'limits to come'
        from lash_points p
        where not exists (select 1 from sheet_limits l where l.revision_id = p.revision_id and l.role = p.role);
    alter table sheet_limits enable trigger user;
    alter table readings disable trigger user;
    alter table readings drop constraint readings_limits;
    update readings set min_tenths = 0, max_tenths = 20000 where min_tenths is null;
    alter table readings enable trigger user;
    create or replace function is_append_only() returns trigger language plpgsql as $$
      begin
        if tg_op = 'DELETE' or to_jsonb(new) - 'superseded' <> to_jsonb(old) - 'superseded'
           or (old.superseded and not new.superseded) then
          raise exception 'what was written stays: add a row that supersedes it' using errcode = 'ZL002';
        end if;
        return new;
      end $$;
    alter table readings
      drop constraint readings_round_id_revision_id_fkey,
      add constraint readings_round_id_revision_id_fkey foreign key (round_id, revision_id) references rounds (id, revision_id),
      alter column min_tenths set not null,
      alter column max_tenths set not null;
    alter table rounds
      drop constraint rounds_build_id_revision_id_fkey,
      add constraint rounds_build_id_revision_id_fkey foreign key (build_id, revision_id) references builds (id, revision_id);
    alter table lash_points
      add constraint lash_points_revision_id_role_fkey foreign key (revision_id, role) references sheet_limits (revision_id, role);
    alter table sheet_revisions drop column limits_to_come;
  `);
}
