import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import type { lateLeft } from '@zero-lash/contract/rechecks';
import { newestRound, obstaclesToSignOff, statusOf, RUNNING } from '@zero-lash/core/builds';
import type { RecheckOutcome } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockByPart, written, type LockedBuild } from '../builds/lock.ts';
import type { WriteContext } from '../plugins/writeContext.ts';
import { headChange } from '../builds/read.ts';
import { readWhole } from '../builds/readWhole.ts';
import { Refusal } from '../plugins/errors.ts';
import { readRechecks, recheckChanges } from './read.ts';

/**
 * Holds what came in late against a signature: what would stand against signing now, by all that is known, stands against it. The
 * recheck that was planned then is one of an engine that did not hold, until it is set again, or a lead leaves it as it is. Where
 * what came last says nothing against it any more, it is as it was.
 *
 * Rule: late evidence counts as it would have counted in time. Once the next look has begun, that one says how the engine is.
 *
 * @returns what changed: the build itself, and its rechecks
 */
export async function holdAgainstSignature(
  db: Knex,
  { id, stage }: Pick<LockedBuild, 'id' | 'stage'>,
): Promise<BuildRowChange[]> {
  if (stage !== RUNNING) return [];
  const planned = await db('rechecks as r')
    .where({ 'r.build_id': id, 'r.status': 'planned', 'r.sequence': 1 })
    .whereNotExists(db('rounds as c').whereRaw('c.recheck_id = r.id'))
    .first('r.id', 'r.late_round');
  if (!planned) return [await headChange(db, id)];
  const build = await readWhole(db, id);
  const status = statusOf(build);
  const against = obstaclesToSignOff(status).length > 0;
  if (!against && planned.late_round === null) return [await headChange(db, id)];
  const out = [...status.proved.values()].some((verdict) => verdict === 'tight' || verdict === 'loose');
  const outcome: RecheckOutcome = out ? 'out' : 'undecided';
  await db('rechecks')
    .where({ id: planned.id })
    .update({
      ...(against
        ? // no sample speaks for an engine that is not as it was signed
          {
            after_outcome: outcome,
            late_round: newestRound(build.rounds, 'proved')!.id,
            sample: '[]',
            points: null,
          }
        : { after_outcome: null, late_round: null }),
      version: db.raw('version + 1'),
    });
  return [await headChange(db, id), ...(await recheckChanges(db, id))];
}

/** Leaves an engine as it is, against what came in late: a lead, with a reason. */
export async function leaveLate(
  db: Knex,
  recheckId: string,
  { why, version }: z.output<typeof lateLeft>,
  context: Pick<WriteContext, 'key' | 'personId'>,
): Promise<BuildWrite> {
  const build = await lockByPart(db, 'rechecks', recheckId);
  if (!build) throw new Refusal('not_found', { detail: 'There is no such recheck.' });
  const left = await db('rechecks')
    .where({ id: recheckId, version, status: 'planned' })
    .whereNotNull('late_round')
    .update({ after_outcome: null, late_round: null, version: version + 1 });
  if (left === 0) throw new Refusal('stale', { current: (await readRechecks(db, { id: recheckId }))[0] });
  await db('recheck_changes').insert({
    ...{ id: context.key, recheck_id: recheckId, kind: 'let-stand', day: null, why, by: context.personId },
  });
  return written(build, ...(await recheckChanges(db, build.id)));
}
