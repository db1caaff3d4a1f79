import type { Knex } from 'knex';

/**
 * What a reading was judged by, whole: the allowance over the greatest with it, filled from the build where it was taken before
 * that was kept. Where a blade narrower than a hollow was used. The allowance as a matter of the sheet, with its reason. When a
 * check was ticked before, what a signature signed, and whether a reading after locking may stand.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_limits
      -- null: the sheet says nothing of it, and the shop's own rule stands
      add column allow_over_tenths int check (allow_over_tenths between 0 and 1000),
      add column allow_over_why text not null default '',
      add check (coalesce(allow_over_tenths, 0) = 0 or length(trim(allow_over_why)) between 1 and 120);

    alter table readings
      add column allow_over_tenths int not null default 0 check (allow_over_tenths >= 0),
      add column narrow_blade boolean not null default false;
    alter table readings disable trigger user;
    update readings g
       set allow_over_tenths = round((a.allowed ->> 'over')::numeric * 10000)
      from rounds r
        join builds b on b.id = r.build_id
        join lateral jsonb_array_elements(b.allow_over) a (allowed) on true
        join lash_points p on p.revision_id = b.revision_id
     where r.id = g.round_id and p.key = g.point and p.role = a.allowed ->> 'role';
    alter table readings enable trigger user;

    -- when a check was ticked before, and taken back since: what was read after those two turns stays proved
    alter table stage_ticks add column earlier timestamptz[] not null default '{}';
    alter table shop add column locked_stands boolean not null default false;
    alter table builds add column locked_stands boolean not null default false;
    alter table sign_offs add column seq int;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sign_offs drop column seq;
    alter table builds drop column locked_stands;
    alter table shop drop column locked_stands;
    alter table stage_ticks drop column earlier;
    alter table readings drop column narrow_blade, drop column allow_over_tenths;
    alter table sheet_limits drop column allow_over_why, drop column allow_over_tenths;
  `);
}
