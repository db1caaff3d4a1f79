import type { Knex } from 'knex';

/**
 * What stands at the doors: sessions by a keyed hash of their id, misses counted by person and by address, devices that
 * somebody signed in from before. What was kept by its plain id or by a hash that could be guessed is let go of, so
 * everybody signs in once more.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    delete from sessions;
    delete from writes;
    drop table sign_in_failures;
    create table sign_in_tries (
      subject text primary key,
      misses int not null check (misses >= 0),
      last_at timestamptz not null default now()
    );
    create index sign_in_tries_last on sign_in_tries (last_at);
    create table known_devices (
      mark text primary key,
      person_id uuid not null references people (id) on delete cascade,
      last_at timestamptz not null default now()
    );
    create index known_devices_person on known_devices (person_id);
    create table people_changes (
      id uuid primary key default gen_random_uuid(),
      person_id uuid not null references people (id),
      before jsonb,
      after jsonb not null,
      passphrase_set boolean not null,
      by uuid references people (id),
      at timestamptz not null default now()
    );
    create index people_changes_at on people_changes (at desc);
    create trigger people_changes_final before update or delete on people_changes
      for each row execute function is_final();
    alter table shop
      drop column cookie_secret,
      add column gauges_on_network boolean not null default false;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table shop
      drop column gauges_on_network,
      add column cookie_secret text not null default md5(random()::text) || md5(random()::text);
    alter table shop alter column cookie_secret drop default;
    drop trigger people_changes_final on people_changes;
    drop table people_changes, known_devices, sign_in_tries;
    create table sign_in_failures (
      name text not null,
      address text not null,
      at timestamptz not null default now()
    );
    create index sign_in_failures_lookup on sign_in_failures (name, address, at);
    delete from sessions;
    delete from writes;
  `);
}
