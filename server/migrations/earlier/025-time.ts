import type { Knex } from 'knex';

/**
 * What a change of meter was: both its figures, so that a log is reckoned anew where one of them is put right. A figure that cannot
 * be is struck out by a lead: who, when and why; it stays, and counts for nothing. Of a meter's feed a line that is none is kept as
 * it came, to be asked about.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table usages
      add column old_stopped_at numeric(9, 1),
      add column meter_from numeric(9, 1),
      add column struck_at timestamptz,
      add column struck_by uuid references people (id),
      add column struck_why text not null default '',
      add constraint usages_struck_said check ((struck_at is null) = (struck_by is null));
    drop trigger usages_final on usages;
    update usages u set
      meter_from = coalesce(substring(u.reason from 'begun at ([0-9]+(?:[.][0-9])?)')::numeric, 0),
      old_stopped_at = coalesce(substring(u.reason from 'old one stopped at ([0-9]+(?:[.][0-9])?)')::numeric,
        (select b.usage from usages b where b.engine_id = u.engine_id and b.read_at < u.read_at
          order by b.read_at desc limit 1), 0)
      where u.new_meter;
    alter table usages add constraint usages_new_meter_said
      check (new_meter = (meter_from is not null) and new_meter = (old_stopped_at is not null));
    create function usage_stays() returns trigger language plpgsql as $$
    declare
      may text[] := array['running', 'struck_at', 'struck_by', 'struck_why'];
    begin
      if tg_op = 'DELETE' or to_jsonb(new) - may <> to_jsonb(old) - may
        or (old.struck_at is not null and new.struck_at is distinct from old.struck_at) then
        raise exception 'what was written stays' using errcode = 'ZL002';
      end if;
      return new;
    end $$;
    create trigger usages_stay before update or delete on usages
      for each row execute function usage_stays();
    alter table meter_lines
      add column line text not null default '' check (length(line) <= 500),
      alter column usage drop not null,
      add constraint meter_lines_read check ((line = '') = (usage is not null));
    create unique index meter_lines_bad_once on meter_lines (md5(line)) where line <> '';
    drop index usages_fed_once;
    create unique index usages_fed_once on usages (engine_id, read_at) where source = 'feed' and struck_at is null;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    delete from meter_lines where usage is null;
    drop index meter_lines_bad_once;
    alter table meter_lines
      drop constraint meter_lines_read,
      alter column usage set not null,
      drop column line;
    drop trigger usages_stay on usages;
    drop function usage_stays();
    drop index usages_fed_once;
    -- what was struck out counted for nothing, and there it would count
    delete from usages where struck_at is not null;
    create unique index usages_fed_once on usages (engine_id, read_at) where source = 'feed';
    alter table usages
      drop constraint usages_struck_said,
      drop constraint usages_new_meter_said,
      drop column struck_why, drop column struck_by, drop column struck_at, drop column meter_from,
      drop column old_stopped_at;
    create trigger usages_final before update or delete on usages
      for each row execute function is_final();
  `);
}
