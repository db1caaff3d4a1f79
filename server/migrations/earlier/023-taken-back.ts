import type { Knex } from 'knex';

/**
 * A setting that was written down wrongly is taken back: who, when and why; what stood before stands again, and the drawer's
 * ledger says what went back. Nothing is lost: what was taken back stays, once and for all.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table settings
      add column taken_back_at timestamptz,
      add column taken_back_by uuid references people (id),
      add column taken_back_why text not null default '',
      add constraint settings_taken_back_said
        check ((taken_back_at is null) = (taken_back_by is null) and (taken_back_at is null or superseded));
    create function setting_stays() returns trigger language plpgsql as $$
    declare
      may text[] := array['superseded', 'taken_back_at', 'taken_back_by', 'taken_back_why'];
    begin
      if tg_op = 'DELETE' or to_jsonb(new) - may <> to_jsonb(old) - may or old.taken_back_at is not null then
        raise exception 'what was written stays: add a row that supersedes it' using errcode = 'ZL002';
      end if;
      return new;
    end $$;
    drop trigger settings_append_only on settings;
    create trigger settings_append_only before update or delete on settings
      for each row execute function setting_stays();
    alter table piece_moves drop constraint piece_moves_why_check;
    alter table piece_moves add constraint piece_moves_why_check
      check (why in ('bought', 'kit', 'scrapped', 'counted', 'fitted', 'taken-out', 'found', 'taken-back'));
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table piece_moves disable trigger piece_moves_final;
    update piece_moves set why = 'counted' where why = 'taken-back';
    alter table piece_moves enable trigger piece_moves_final;
    alter table piece_moves drop constraint piece_moves_why_check;
    alter table piece_moves add constraint piece_moves_why_check
      check (why in ('bought', 'kit', 'scrapped', 'counted', 'fitted', 'taken-out', 'found'));
    drop trigger settings_append_only on settings;
    create trigger settings_append_only before update or delete on settings
      for each row execute function is_append_only();
    drop function setting_stays();
    alter table settings
      drop column taken_back_at, drop column taken_back_by, drop column taken_back_why;
  `);
}
