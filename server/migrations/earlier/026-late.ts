import type { Knex } from 'knex';

const KINDS = `('moved', 'held', 'released', 'dropped', 'bench', 'replanned'`;

/**
 * What was done before a build was signed off and came in after it is kept beside the signature: when each thing came in; and, where it
 * says otherwise than what was signed, the recheck that was planned knows by which round, until it is set again or a lead leaves it
 * as it is.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table rechecks add column late_round uuid references rounds (id);
    alter table recheck_changes drop constraint recheck_changes_kind_check;
    alter table recheck_changes add constraint recheck_changes_kind_check check (kind in ${KINDS}, 'let-stand'));
    alter table settings disable trigger user;
    alter table settings add column came_at timestamptz;
    update settings set came_at = at;
    alter table settings alter column came_at set not null, alter column came_at set default now();
    alter table settings enable trigger user;
    alter table build_entries disable trigger user;
    alter table build_entries add column came_at timestamptz;
    update build_entries set came_at = at;
    alter table build_entries alter column came_at set not null, alter column came_at set default now();
    alter table build_entries enable trigger user;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table build_entries drop column came_at;
    alter table settings drop column came_at;
    alter table recheck_changes disable trigger user;
    delete from recheck_changes where kind = 'let-stand';
    alter table recheck_changes enable trigger user;
    alter table recheck_changes drop constraint recheck_changes_kind_check;
    alter table recheck_changes add constraint recheck_changes_kind_check check (kind in ${KINDS}));
    alter table rechecks drop column late_round;
  `);
}
