import type { Knex } from 'knex';

/**
 * Points are measured again while they are set, in a round of their own. A build may carry the finding of a recheck over, to set it again; and a planned recheck knows what the one before it came
 * to, so that one that did not hold is seen until it is dealt with.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table builds add column carried_round uuid references rounds (id);
    alter table rechecks
      add column after_outcome text check (after_outcome in ('held', 'undecided', 'out'));
    update rechecks r set after_outcome = d.outcome
      from rechecks d
      where d.build_id = r.build_id and d.sequence = r.sequence - 1 and d.status = 'done';
    alter table rounds
      drop constraint rounds_kind_check,
      add constraint rounds_kind_check check (kind in ('as-found', 'as-set', 'proved', 'recheck'));
    insert into rounds (build_id, revision_id, kind, number, opened_by, opened_at, usage)
      select b.id, b.revision_id, 'as-set', 1, b.opened_by, b.stage_since, e.running
      from builds b join engines e on e.id = b.engine_id
      where b.stage = 'set' and b.closed_at is null;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    delete from rounds r where r.kind = 'as-set' and not exists (
      select 1 from readings g where g.round_id = r.id
      union all select 1 from round_conditions c where c.round_id = r.id);
    update rounds set kind = 'as-found', number = number + 1000 where kind = 'as-set';
    alter table rounds
      drop constraint rounds_kind_check,
      add constraint rounds_kind_check check (kind in ('as-found', 'proved', 'recheck'));
    alter table rechecks drop column after_outcome;
    alter table builds drop column carried_round;
  `);
}
