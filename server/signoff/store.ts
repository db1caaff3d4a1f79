import type { BuildView } from '@zero-lash/contract/builds';
import { obstaclesToSignOff, standingOf, stageOf } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import { lockBuild, refuseFor } from '../builds/store.ts';
import { viewBuild } from '../builds/view.ts';
import { Refusal } from '../plugins/errors.ts';
import { planRecheck } from '../rechecks/store.ts';

/** Signs a build off: every point proved in spec, everything ticked; the first recheck is planned with it. */
export async function signOff(
  db: Knex,
  id: string,
  { version, statement }: { readonly version: number; readonly statement: string },
  leadId: string,
): Promise<BuildView> {
  const build = await lockBuild(db, id);
  if (build.signOff)
    throw new Refusal('already_signed_off', {
      detail: `${build.signOff.by} has signed this build off already.`,
      current: build,
    });
  if (build.version !== version) throw new Refusal('stale', { current: build });
  if (build.stage !== 'close')
    throw new Refusal('not_provable', {
      detail: `This build is at ${stageOf(build.stage).title}. It is signed off at ${stageOf('close').title}.`,
    });
  refuseFor('not_provable', obstaclesToSignOff(standingOf(build)));
  const usage = build.engine.running;
  await db('sign_offs').insert({ build_id: id, by: leadId, usage, statement });
  await db('rounds').where({ build_id: id, closed_at: null }).update('closed_at', db.fn.now());
  await db('stage_moves').insert({
    build_id: id,
    from_stage: 'close',
    to_stage: 'run-in',
    by: leadId,
  });
  await db('builds')
    .where({ id })
    .update({ stage: 'run-in', stage_since: db.fn.now(), version: version + 1 });
  await planRecheck(db, { id, engineId: build.engine.id }, build.sheet.recheckPlan, 1, usage);
  return viewBuild(db, id);
}
