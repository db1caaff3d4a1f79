import type { BuildWrite } from '@zero-lash/contract/builds';
import { obstaclesToSignOff, standingOf, stageOf } from '@zero-lash/core/builds';
import type { signOffRequest } from '@zero-lash/contract/signoff';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { takeUp, written } from '../builds/course.ts';
import { readHead, readWhole } from '../builds/read.ts';
import { headChange, refuseFor, refuseStale } from '../builds/store.ts';
import { readRoundRows } from '../measuring/rounds.ts';
import { Refusal } from '../plugins/errors.ts';
import { readRechecks } from '../rechecks/read.ts';
import { planRecheck } from '../rechecks/planning.ts';

/** Signs a build off: every point proved in spec, everything ticked; the first recheck is planned with it. */
export async function signOff(
  db: Knex,
  id: string,
  { version, seq, statement }: z.output<typeof signOffRequest>,
  leadId: string,
): Promise<BuildWrite> {
  const taken = await takeUp(db, id);
  const build = await readWhole(db, id);
  if (build.signOff)
    throw new Refusal('already_signed_off', {
      detail: `${build.signOff.by} has signed this build off already.`,
      current: (await readHead(db, id)).rows,
    });
  await refuseStale(db, taken, version);
  // what is being signed is what was seen: this write itself is the one after it
  if (taken.seq - 1 !== seq)
    throw new Refusal('came_in_since', {
      detail: `${taken.seq - 1 - seq} more ${taken.seq - 1 - seq === 1 ? 'entry has' : 'entries have'} come in since this page was read: ${(await cameInSince(db, id)).join('; ')}. Look at it, then sign.`,
    });
  if (build.stage !== 'close')
    throw new Refusal('not_provable', {
      detail: `This build is at ${stageOf(build.stage).title}. It is signed off at ${stageOf('close').title}.`,
    });
  const standing = standingOf(build);
  refuseFor('not_provable', obstaclesToSignOff(standing));
  const usage = build.engine.running;
  const accepted = [...standing.accepted];
  await db('sign_offs').insert({ build_id: id, by: leadId, usage, statement, accepted, seq });
  const closed = await db('rounds')
    .where({ build_id: id, closed_at: null })
    .update('closed_at', db.fn.now())
    .returning('id');
  await db('stage_moves').insert({ build_id: id, from_stage: 'close', to_stage: 'run-in', by: leadId });
  await db('builds')
    .where({ id })
    .update({ stage: 'run-in', stage_since: db.fn.now(), version: version + 1 });
  await planRecheck(db, taken, {
    sequence: 1,
    usage,
    after: null,
    watched: accepted.length > 0,
  });
  const ended = new Set(closed.map(({ id: round }) => round));
  return written(
    taken,
    await headChange(db, id),
    ...(await readRoundRows(db, id))
      .filter((row) => ended.has(row.id))
      .map((row) => ({ kind: 'round' as const, row })),
    ...(await readRechecks(db, { build_id: id })).map((row) => ({ kind: 'recheck' as const, row })),
  );
}

const NEWEST = 3;

/** What was written in a build last, in words, the newest first: what a signature does not name yet. */
async function cameInSince(db: Knex, id: string): Promise<readonly string[]> {
  const { rows } = await db.raw(
    `select p.name || ': ' || w.what as said from (
       select g.at, g.by, 'a reading at ' || g.point as what from readings g join rounds r on r.id = g.round_id where r.build_id = :id
       union all select s.at, s.by, 'a setting at ' || s.point from settings s where s.build_id = :id
       union all select t.at, t.by, 'a tick at ' || t.stage from stage_ticks t where t.build_id = :id
       union all select n.at, n.by, 'a note at ' || n.stage from stage_notes n where n.build_id = :id
       union all select e.at, e.by, case e.room when 'ledger' then 'the count of parts' when 'wear' then 'the wear sheet'
           when 'headwork' then 'head work' else 'how it ran' end from build_entries e where e.build_id = :id
       union all select f.at, f.by, 'a photograph' from photographs f where f.build_id = :id
     ) w join people p on p.id = w.by order by w.at desc limit ${NEWEST}`,
    { id },
  );
  return (rows as { said: string }[]).map(({ said }) => said);
}
