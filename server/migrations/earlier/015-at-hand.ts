import type { Knex } from 'knex';

/**
 * What has to be at hand: torque wrenches with the range they can be set to, and what a sheet says is wanted before its engine
 * is opened. A photograph may be of damage that was marked.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table instruments
      add column torque_from numeric(6, 2),
      add column torque_to numeric(6, 2),
      drop constraint instruments_kind_check,
      drop constraint instruments_uncertainty_check,
      add constraint instruments_kind_check check
        (kind in ('blade-set', 'indicator', 'micrometer', 'caliper', 'digital-gauge', 'torque-wrench')),
      add constraint instruments_uncertainty_check check
        (uncertainty between 0 and case kind when 'torque-wrench' then 200000 else 10000 end),
      add constraint instruments_torque_check check
        ((kind = 'torque-wrench') = (torque_from is not null and torque_to is not null)
          and (torque_from is null or (torque_from > 0 and torque_from < torque_to)));
    alter table sheet_revisions add column wanted jsonb not null default '[]';
    alter table photographs add column shows text not null default '';
  `);
}

/** A wrench is no instrument before this: those there are stay, put away, as what measures next to nothing here. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table instruments drop constraint instruments_torque_check;
    update instruments set kind = 'caliper', active = false, uncertainty = least(uncertainty, 10000)
      where kind = 'torque-wrench';
    alter table photographs drop column shows;
    alter table sheet_revisions drop column wanted;
    alter table instruments
      drop constraint instruments_kind_check,
      drop constraint instruments_uncertainty_check,
      add constraint instruments_kind_check check
        (kind in ('blade-set', 'indicator', 'micrometer', 'caliper', 'digital-gauge')),
      add constraint instruments_uncertainty_check check (uncertainty between 0 and 10000),
      drop column torque_to,
      drop column torque_from;
  `);
}
