import type { Knex } from 'knex';

/** Running as a sum over the meters an engine had; readings in the order they were taken. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table engines
      add column ran_before numeric(12, 1) not null default 0 check (ran_before >= 0),
      add column meter_from numeric(9, 1) not null default 0 check (meter_from >= 0),
      add check (usage >= meter_from);
    alter table engines
      add column running numeric(12, 1) not null generated always as (ran_before + usage - meter_from) stored;
    drop trigger usages_final on usages;
    alter table usages
      add column running numeric(12, 1),
      add column new_meter boolean not null default false;
    update usages set running = usage;
    alter table usages alter column running set not null;
    create trigger usages_final before update or delete on usages
      for each row execute function is_final();
    alter table rounds alter column usage type numeric(12, 1);
    alter table sign_offs alter column usage type numeric(12, 1);
    alter table rechecks
      alter column planned_usage type numeric(12, 1),
      alter column due_usage type numeric(12, 1);
    create index readings_taken on readings (round_id, point, taken_at desc);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop index readings_taken;
    alter table rechecks
      alter column due_usage type numeric(9, 1),
      alter column planned_usage type numeric(9, 1);
    alter table sign_offs alter column usage type numeric(9, 1);
    alter table rounds alter column usage type numeric(9, 1);
    alter table usages drop column new_meter, drop column running;
    alter table engines drop column running, drop column meter_from, drop column ran_before;
  `);
}
