/**
 * Fills a demo database with many engines, each with a build, rounds of readings and a planned recheck. It is written within the database:
 * no row crosses to it.
 *
 * @param letter what the serials of this lot begin with: another lot has another
 */
export async function addManyEngines(url, engines, roundsEach, letter = 'B') {
  const lot = `'${letter}-%'`;
  const { default: pg } = await import('pg');
  const client = new pg.Client(url);
  await client.connect();
  try {
    await client.query('begin');
    await client.query(
      `insert into engines (sheet_id, name, serial, owner, usage_unit, usage)
       select s.id, '${letter === 'B' ? 'Fan' : `Fan ${letter}`} ' || n, '${letter}-' || n, 'Sellend Orchards', 'hours', 500 + n % 900
       from sheets s, generate_series(1, $1) n where s.name = 'Q4 Orchard'`,
      [engines],
    );
    await client.query(
      `insert into builds (engine_id, revision_id, number, stage, complaint, opened_by)
       select e.id, r.id, 1,
         case when row_number() over (order by e.name) % 5 > 0 then 'run-in'
              else (array['take-in','as-found','set','prove','close'])[1 + (row_number() over (order by e.name) / 5) % 5] end,
         'Rebuild', (select id from people limit 1)
       from engines e join sheet_revisions r on r.sheet_id = e.sheet_id
       where e.serial like ${lot}`,
    );
    await client.query(
      `insert into rechecks (build_id, engine_id, sequence, planned_usage, due_usage, due_date)
       select b.id, b.engine_id, 1, e.usage - 20, e.usage + (random() * 300)::int - 30,
         current_date + (random() * 400)::int - 20
       from builds b join engines e on e.id = b.engine_id where b.stage = 'run-in' and e.serial like ${lot}`,
    );
    await client.query(
      `insert into rounds (build_id, revision_id, kind, number, opened_by, closed_at)
       select b.id, b.revision_id, 'proved', n, b.opened_by, now()
       from builds b join engines e on e.id = b.engine_id, generate_series(1, $1) n where e.serial like ${lot}`,
      [roundsEach],
    );
    await client.query(
      `insert into readings (round_id, revision_id, point, reading, as_typed, lo, hi, min_tenths, max_tenths, verdict, by)
       select r.id, r.revision_id, p.key, '{"kind":"bracket","go":0.24,"noGo":0.26}', '0.24 0.26', 2400, 2600,
         2000, 3000, 'in-spec', r.opened_by
       from rounds r join lash_points p on p.revision_id = r.revision_id
       join builds b on b.id = r.build_id join engines e on e.id = b.engine_id where e.serial like ${lot}`,
    );
    // what two closed rechecks of each said, and when the next is expected
    await client.query(
      `insert into rechecks (build_id, engine_id, sequence, planned_usage, due_usage, status, outcome, done_at, done_by)
       select b.id, b.engine_id, 1 + n, 0, 200, 'done', 'held', now() - n * interval '200 days', b.opened_by
       from builds b join engines e on e.id = b.engine_id, generate_series(1, 2) n
       where b.stage = 'run-in' and e.serial like ${lot}`,
    );
    await client.query(
      `insert into point_checks (recheck_id, point, sheet_id, engine_id, role, since, lo, hi, from_lo, from_hi,
         verdict, per_unit, se, said_mean, said_sd, at, newest)
       select r.id, p.key, e.sheet_id, e.id, p.role, 200 * r.sequence, 2400, 2500, 2450, 2550,
         case when random() < 0.02 then 'tight' else 'in-spec' end, -0.00004 + random() * 0.00002, 0.00003,
         0.245 + random() * 0.01, 0.006, r.done_at, r.sequence = 2
       from rechecks r join engines e on e.id = r.engine_id join builds b on b.id = r.build_id
         join lash_points p on p.revision_id = b.revision_id
       where r.status = 'done' and e.serial like ${lot}`,
    );
    await client.query(
      `update rechecks r set expected_day = due_date, plan_usage = due_usage, plan_date = due_date,
         forecast = (select jsonb_build_object('threshold', 0.2, 'priors', '[]'::jsonb, 'points', jsonb_agg(jsonb_build_object(
           'point', p.key, 'perUnit', 0, 'mean', 0.25, 'sd', 0.01, 'pTight', 0.01, 'pLoose', 0.01, 'outAt', null, 'unlike', null)))
           from lash_points p join builds b on b.revision_id = p.revision_id where b.id = r.build_id)
       where r.status = 'planned' and r.engine_id in (select id from engines where serial like ${lot})`,
    );
    await client.query('commit');
    await client.query('analyze');
    const { rows } = await client.query(
      'select (select count(*) from engines)::int as engines, (select count(*) from readings)::int as readings',
    );
    return rows[0];
  } finally {
    await client.end();
  }
}
