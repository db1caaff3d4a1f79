import type { Knex } from 'knex';

const REFUSED = `raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001';`;
const ONE_THAT_STAYS = `if tg_op = 'DELETE' then return old; end if; return new;`;

/** What keeps a revision, its limits and its points as they are, by what says that it is fixed. */
const fixedWhen = (fixed: string) => `
    create or replace function sheet_revision_is_fixed() returns trigger language plpgsql as $$
    begin
      if old.${fixed} then ${REFUSED} end if;
      ${ONE_THAT_STAYS}
    end $$;
    create or replace function sheet_part_is_fixed() returns trigger language plpgsql as $$
    begin
      if exists (select 1 from sheet_revisions r where r.id = old.revision_id and r.${fixed}) then ${REFUSED} end if;
      ${ONE_THAT_STAYS}
    end $$;
    create or replace function sheet_part_joins_a_draft() returns trigger language plpgsql as $$
    begin
      if exists (select 1 from sheet_revisions r where r.id = new.revision_id and r.${fixed}) then ${REFUSED} end if;
      return new;
    end $$;`;

/**
 * What came from another shop stays another shop's: a spec sheet carries the history of its engines and is fixed, but was not
 * checked here; movements of pieces were in another shop's drawer; and every record that was taken in says of which shop it is,
 * who took it in, and where what it says is not what follows from its rows.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table sheet_revisions
      drop constraint sheet_revisions_status_check,
      drop constraint sheet_revisions_check,
      add constraint sheet_revisions_status_check check (status in ('draft', 'published', 'foreign')),
      -- one from elsewhere is written first, and fixed when its limits and points are in
      add constraint sheet_revisions_published_at_said check (
        (status <> 'draft' or published_at is null) and (status <> 'published' or published_at is not null));
    ${fixedWhen('published_at is not null')}
    -- a gauge of another shop is reached by nobody here
    alter table instruments drop constraint instruments_check2, add constraint instruments_reached_check
      check ((kind = 'digital-gauge' or address is null) and (kind <> 'digital-gauge' or address is not null or not active));
    alter table piece_moves add column of_shop text check (length(of_shop) between 1 and 80);
    create table records_taken (
      id uuid primary key default gen_random_uuid(),
      engine_id uuid not null references engines (id),
      shop text not null check (length(shop) between 1 and 80),
      written_at timestamptz not null,
      differences jsonb not null default '[]',
      by uuid not null references people (id),
      at timestamptz not null default now()
    );
    create index records_taken_of_engine on records_taken (engine_id, at desc);
    create trigger records_taken_final before update or delete on records_taken
      for each row execute function is_final();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    drop trigger records_taken_final on records_taken;
    drop table records_taken;
    alter table piece_moves disable trigger piece_moves_final;
    delete from piece_moves where of_shop is not null;
    alter table piece_moves enable trigger piece_moves_final;
    alter table piece_moves drop column of_shop;
    update instruments set address = '127.0.0.1:1' where kind = 'digital-gauge' and address is null;
    alter table instruments drop constraint instruments_reached_check, add constraint instruments_check2
      check ((kind = 'digital-gauge') = (address is not null));
    alter table sheet_revisions disable trigger user;
    update sheet_revisions set status = 'published' where status = 'foreign';
    alter table sheet_revisions enable trigger user;
    alter table sheet_revisions
      drop constraint sheet_revisions_published_at_said,
      drop constraint sheet_revisions_status_check,
      add constraint sheet_revisions_status_check check (status in ('draft', 'published')),
      add constraint sheet_revisions_check check ((status = 'published') = (published_at is not null));
    ${fixedWhen("status = 'published'")}
  `);
}
