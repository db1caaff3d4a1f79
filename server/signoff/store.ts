import type { BuildWrite } from '@zero-lash/contract/builds';
import { obstaclesToSignOff, STAGES, statusOf, stageOf, CLOSING, RUNNING } from '@zero-lash/core/builds';
import type { signOffRequest } from '@zero-lash/contract/signoff';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import { headChange, readHead } from '../builds/read.ts';
import { readWhole } from '../builds/readWhole.ts';
import { refuseStale } from '../stages/change.ts';
import { refuseFor } from '../stages/move.ts';
import { readRows, type RowName } from '../builds/registry.ts';
import { Refusal } from '../plugins/errors.ts';
import { recheckChanges } from '../rechecks/read.ts';
import { planRecheck } from '../rechecks/planning.ts';

/** Signs a build off: every point proved in spec, everything ticked; the first recheck is planned with it. */
export async function signOff(
  db: Knex,
  id: string,
  { version, seq, statement }: z.output<typeof signOffRequest>,
  leadId: string,
): Promise<BuildWrite> {
  const taken = await lockBuild(db, id);
  const build = await readWhole(db, id);
  if (build.signOff)
    throw new Refusal('already_signed_off', {
      detail: `${build.signOff.by} has signed this build off already.`,
      current: (await readHead(db, id)).rows,
    });
  await refuseStale(db, taken, version);
  // what is being signed is what was seen: this write itself is the one after it
  const more = taken.seq - 1 - seq;
  if (more < 0) throw new Refusal('came_in_since');
  if (more > 0)
    throw new Refusal('came_in_since', {
      detail: `${more} more ${more === 1 ? 'entry has' : 'entries have'} come in since this page was read: ${(await cameInSince(db, id, more)).join('; ')}. Look at it, then sign.`,
    });
  if (build.stage !== CLOSING)
    throw new Refusal('not_provable', {
      detail: `This build is at ${stageOf(build.stage).title}. It is signed off at ${stageOf(CLOSING).title}.`,
    });
  const status = statusOf(build);
  refuseFor('not_provable', obstaclesToSignOff(status));
  const usage = build.engine.running;
  const accepted = [...status.accepted];
  await db('sign_offs').insert({ build_id: id, by: leadId, usage, statement, accepted, seq });
  const closed = await db('rounds')
    .where({ build_id: id, closed_at: null })
    .update('closed_at', db.fn.now())
    .returning('id');
  await db('stage_moves').insert({ build_id: id, from_stage: CLOSING, to_stage: RUNNING, by: leadId });
  await db('builds')
    .where({ id })
    .update({ stage: RUNNING, stage_since: db.fn.now(), version: version + 1 });
  await planRecheck(db, taken, {
    sequence: 1,
    usage,
    after: null,
    watched: accepted.length > 0,
  });
  const ended = closed.map(({ id: round }): RowName => ({ kind: 'round', id: round }));
  return written(
    taken,
    await headChange(db, id),
    ...(await readRows(db, id, ended)),
    ...(await recheckChanges(db, id)),
  );
}

/** What was written in a build last, by whom and where, as many rows as are asked for: what a signature does not name yet. */
async function cameInSince(db: Knex, id: string, newest: number): Promise<readonly string[]> {
  const { rows } = await db.raw(
    `select p.name as by, w.what, array_remove(array_agg(distinct w.place), null) as places from (
       select * from (
         select g.at, g.by, 'readings' as what, g.point as place from readings g join rounds r on r.id = g.round_id where r.build_id = :id
         union all select s.at, s.by, 'settings', s.point from settings s where s.build_id = :id
         union all select s.taken_back_at, s.taken_back_by, 'settings taken back', s.point from settings s
           where s.build_id = :id and s.taken_back_at is not null
         union all select t.at, t.by, 'ticks', t.stage from stage_ticks t where t.build_id = :id
         union all select n.at, n.by, 'notes', n.stage from stage_notes n where n.build_id = :id
         union all select e.at, e.by, case e.room when 'ledger' then 'the count of parts' when 'wear' then 'the wear sheet'
             when 'headwork' then 'head work' else 'how it ran' end, null from build_entries e where e.build_id = :id
         union all select f.at, f.by, 'photographs', null from photographs f where f.build_id = :id
       ) every order by at desc limit :newest
     ) w join people p on p.id = w.by group by p.name, w.what order by max(w.at) desc`,
    { id, newest },
  );
  return (rows as { by: string; what: string; places: string[] }[]).map(({ by, what, places }) => {
    const named = places.map((place) => STAGES.find(({ key }) => key === place)?.title ?? place);
    return `${by}: ${what}${named.length === 0 ? '' : ` at ${named.join(', ')}`}`;
  });
}
