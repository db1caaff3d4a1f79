import type { Knex } from 'knex';

/**
 * Everybody who wrote at a draft, so that none of them is the one who checks it; and no limit or lash point is added to a
 * revision that is published.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions add column writers uuid[] not null default '{}';
    update sheet_revisions set writers = array[entered_by] where status = 'draft';
    create function sheet_part_joins_a_draft() returns trigger language plpgsql as $$
    begin
      if exists (select 1 from sheet_revisions r where r.id = new.revision_id and r.status = 'published') then
        raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001';
      end if;
      return new;
    end $$;
    create trigger sheet_limits_join before insert on sheet_limits
      for each row execute function sheet_part_joins_a_draft();
    create trigger lash_points_join before insert on lash_points
      for each row execute function sheet_part_joins_a_draft();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop trigger lash_points_join on lash_points;
    drop trigger sheet_limits_join on sheet_limits;
    drop function sheet_part_joins_a_draft();
    alter table sheet_revisions drop column writers;
  `);
}
