import type { BuildRowChange } from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import type { LockedBuild } from '../builds/lock.ts';
import { Refusal } from '../plugins/errors.ts';
import { forgetChecks } from './planning.ts';
import { recheckAndRound } from './store.ts';

/**
 * Opens a judged recheck again, because a reading that was taken before it was judged came in after: what it was judged
 * by was not all there was. What was planned to follow is dropped until it is judged again.
 *
 * @throws Refusal `round_closed` where the next recheck has begun already
 */
export async function reopenRecheck(
  db: Knex,
  {
    id,
    recheckId,
    build,
  }: { readonly id: string; readonly recheckId: string | null; readonly build: Pick<LockedBuild, 'id'> },
): Promise<BuildRowChange[]> {
  const next = await db('rechecks').where({ build_id: build.id, status: 'planned' }).first('id');
  if (next && (await db('rounds').where({ recheck_id: next.id }).first('id')))
    throw new Refusal('round_closed', {
      detail: 'This recheck was judged, and the next one has begun. Measure the point again in that one.',
    });
  if (next) await db('rechecks').where({ id: next.id }).update({ status: 'dropped' });
  await db('rechecks')
    .where({ id: recheckId! })
    .update({ status: 'planned', outcome: null, done_at: null, done_by: null });
  await forgetChecks(db, recheckId!);
  await db('rounds').where({ id }).update({ closed_at: null });
  return recheckAndRound(db, build.id, id);
}
