import type { Knex } from 'knex';

const SOUGHT = (folded: (text: string) => string) => `
  create or replace function engine_is_sought_by() returns trigger language plpgsql as $$
    begin
      new.sought := ${folded(`concat_ws(' ', new.name, new.serial, new.owner, new.duty, new.place,
        (select s.name from sheets s where s.id = new.sheet_id))`)};
      return new;
    end $$;
  update engines set name = name;`;

/** Engines are looked for without accents and capitals, in every script, as the core's \`folded\` says. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.raw(
    `create function folded(said text) returns text language sql immutable strict parallel safe as $$
      select replace(replace(replace(translate(
        regexp_replace(lower(normalize(said, NFKD)), '[\\u0300-\\u036f]', '', 'g'),
        'łøđıς', 'lodiσ'), 'ß', 'ss'), 'æ', 'ae'), 'œ', 'oe')
    $$;
    ${SOUGHT((text) => `folded(${text})`)}`,
  );
}

/** The schema before folds capitals alone. */
export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`${SOUGHT((text) => `lower(${text})`)} drop function folded(text);`);
}
