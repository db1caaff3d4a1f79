import type { BuildWrite } from '@zero-lash/contract/builds';
import { obstaclesToSignOff, standingOf, stageOf } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
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
  { version, statement }: { readonly version: number; readonly statement: string },
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
  if (build.stage !== 'close')
    throw new Refusal('not_provable', {
      detail: `This build is at ${stageOf(build.stage).title}. It is signed off at ${stageOf('close').title}.`,
    });
  const standing = standingOf(build);
  refuseFor('not_provable', obstaclesToSignOff(standing));
  const usage = build.engine.running;
  const accepted = [...standing.accepted];
  await db('sign_offs').insert({ build_id: id, by: leadId, usage, statement, accepted });
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
