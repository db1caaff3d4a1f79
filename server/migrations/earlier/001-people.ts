import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    create table shop (
      singleton boolean primary key default true check (singleton),
      name text not null check (length(trim(name)) between 1 and 80),
      unit text not null check (unit in ('mm', 'thou')),
      zone text not null,
      cookie_secret text not null,
      version int not null default 1
    );
    create table people (
      id uuid primary key default gen_random_uuid(),
      name text not null check (length(trim(name)) between 1 and 60),
      role text not null check (role in ('bench', 'lead', 'viewer')),
      passphrase_hash text not null,
      active boolean not null default true,
      version int not null default 1,
      created_at timestamptz not null default now()
    );
    create unique index people_name on people (lower(name));
    create table sessions (
      sid text primary key,
      person_id uuid references people (id) on delete cascade,
      data jsonb not null,
      expires_at timestamptz not null
    );
    create index sessions_expires on sessions (expires_at);
    create index sessions_person on sessions (person_id);
    create table sign_in_failures (
      name text not null,
      address text not null,
      at timestamptz not null default now()
    );
    create index sign_in_failures_lookup on sign_in_failures (name, address, at);
    create table writes (
      key uuid primary key,
      person_id uuid references people (id),
      route text not null,
      fingerprint text not null,
      status int not null,
      answer jsonb,
      at timestamptz not null default now()
    );
    create index writes_at on writes (at);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw('drop table writes, sign_in_failures, sessions, people, shop');
}
