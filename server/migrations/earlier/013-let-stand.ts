import type { Knex } from 'knex';

/**
 * What is kept of decisions that are not measurements: how much a shop has proved again, which points a lead let stand, by
 * which school the crank is turned, and what was opened by mistake, put out of the way and may be brought back.
 */
export async function up(knex: Knex): Promise<void> {
  const proves = `proves_again text not null default 'disturbed'
      check (proves_again in ('disturbed', 'cylinder', 'head', 'every-point'))`;
  await knex.schema.raw(`
    alter table shop add column ${proves};
    alter table builds add column ${proves},
      add column abandoned_at timestamptz,
      add column abandoned_by uuid references people (id),
      add column abandoned_why text,
      add check ((abandoned_at is null) = (abandoned_by is null) and (abandoned_at is null) = (abandoned_why is null)),
      add check (abandoned_at is null or closed_at is not null);
    alter table engines
      add column put_away_at timestamptz,
      add column put_away_by uuid references people (id),
      add column put_away_why text,
      add check ((put_away_at is null) = (put_away_by is null) and (put_away_at is null) = (put_away_why is null));
    create index engines_put_away on engines (put_away_at) where put_away_at is not null;
    alter table rounds drop constraint rounds_turn_school_check,
      add constraint rounds_turn_school_check
        check (turn_school in ('maker', 'fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away'));
    alter table instruments
      add column worn int[] not null default '{}',
      add column measured jsonb not null default '[]',
      add check (worn <@ thicknesses);
    alter table sign_offs add column accepted text[] not null default '{}';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.raw(`
    alter table instruments drop column measured, drop column worn;
    update rounds set turn_school = null where turn_school = 'maker';
    alter table rounds drop constraint rounds_turn_school_check,
      add constraint rounds_turn_school_check
        check (turn_school in ('fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away'));
    alter table sign_offs drop column accepted;
    alter table engines drop column put_away_why, drop column put_away_by, drop column put_away_at;
    alter table builds drop column abandoned_why, drop column abandoned_by, drop column abandoned_at,
      drop column proves_again;
    alter table shop drop column proves_again;
  `);
}
