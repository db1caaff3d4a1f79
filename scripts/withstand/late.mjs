import { ask } from '../database.mjs';

const TIGHT_MM = 0.01;

/**
 * What a tablet measured at proving comes in after the engines were signed off, and says tight at every point: each is kept beside its
 * signature, and its engine is not to be run until somebody has dealt with it. A lead leaves every second engine as it is.
 */
export async function lateEvidence({ url, bench, lead }) {
  const signed = await ask(
    url,
    `select b.id as build, r.id as round, s.at as signed, next.id as recheck,
        (select array_agg(distinct g.point) from readings g where g.round_id = r.id) as points,
        least(r.closed_at, (select max(m.at) from stage_moves m where m.build_id = b.id and m.from_stage = 'prove'))
          - interval '1 second' as taken
       from sign_offs s join builds b on b.id = s.build_id
         join rounds r on r.build_id = b.id and r.kind = 'proved'
         join rechecks next on next.build_id = b.id and next.status = 'planned' and not next.held and next.sequence = 1
         join engines e on e.id = b.engine_id and e.put_away_at is null
       where not exists (select 1 from rounds c where c.recheck_id = next.id)
       order by b.id`,
  );
  const came = { engines: signed.length, sent: 0, kept: 0, shown: 0, signatures: 0 };
  for (const { build, round, points, taken, signed: at } of signed) {
    for (const point of points) {
      const { status } = await bench('POST', `rounds/${round}/readings`, {
        ...{
          point,
          reading: { kind: 'value', value: TIGHT_MM, uncertainty: 0.002 },
          asTyped: `late ${point}`,
        },
        takenAt: taken.toISOString(),
      });
      came.sent += 1;
      if (status === 201) came.kept += 1;
    }
    const head = (await lead('GET', `builds/${build}`)).body.rows;
    came.shown += points.filter((point) =>
      head.late.some(({ said }) => said === `late ${point}, tight`),
    ).length;
    if (head.signOff && Date.parse(head.signOff.at) === at.getTime()) came.signatures += 1;
  }
  const stopped = async () =>
    (await ask(url, 'select build_id as build from rechecks where late_round is not null')).map(
      ({ build }) => build,
    );
  const before = await stopped();
  const dealtWith = signed.filter((_, index) => index % 2);
  for (const { recheck } of dealtWith) {
    const [{ version }] = await ask(url, 'select version from rechecks where id = $1', [recheck]);
    await lead('POST', `rechecks/${recheck}/late-left`, { why: 'typed for another engine', version });
  }
  const after = await stopped();
  return {
    ...came,
    told: signed.filter(({ build }) => before.includes(build)).length,
    dealtWith: dealtWith.length,
    quiet: dealtWith.filter(({ build }) => !after.includes(build)).length,
    still: signed.filter(({ build }) => after.includes(build)).length,
  };
}
