import { RUNNING } from '@zero-lash/core/builds';
import type { AbandonRequest, BuildWrite } from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { headChange } from '../builds/read.ts';
import { Refusal } from '../plugins/errors.ts';
import { recheckChanges } from '../rechecks/read.ts';
import { lockEvenClosed, written } from '../builds/lock.ts';
import { lockAtVersion, refuseStale } from './change.ts';
import { endBuild } from './open.ts';

/**
 * Puts a build that was opened by mistake out of the way: it is kept as it is, and counts for nothing. The build that it took
 * over from goes on as before, and the recheck that was planned for it is planned again.
 *
 * @throws Refusal `already_signed_off` where it is: a signed record is never put aside
 */
export async function abandonBuild(
  db: Knex,
  id: string,
  { version, why }: AbandonRequest,
  personId: string,
): Promise<[BuildWrite, ...BuildWrite[]]> {
  const build = await lockAtVersion(db, id, version);
  if (await db('sign_offs').where({ build_id: id }).first('build_id'))
    throw new Refusal('already_signed_off');
  await db('builds')
    .where({ id })
    .update({
      closed_at: db.fn.now(),
      abandoned_at: db.fn.now(),
      abandoned_by: personId,
      abandoned_why: why,
      version: version + 1,
    });
  return [written(build, await headChange(db, id)), ...(await goOnWithTheOneBefore(db, build.engineId, id))];
}

/** Opens the build again that the engine ran on before, with its planned recheck. */
async function goOnWithTheOneBefore(db: Knex, engineId: string, than: string): Promise<BuildWrite[]> {
  const former = await db('builds')
    .where({ engine_id: engineId, abandoned_at: null, stage: RUNNING })
    .where('number', '<', db('builds').where({ id: than }).select('number'))
    .orderBy('number', 'desc')
    .first('id');
  const newer = await db('builds')
    .where({ engine_id: engineId, abandoned_at: null })
    .where('number', '>', db('builds').where({ id: than }).select('number'))
    .first('id');
  if (!former || newer) return [];
  const build = await lockEvenClosed(db, former.id);
  await db('builds').where({ id: former.id }).update({ closed_at: null });
  // the next after the last that was done: what was to follow a recheck that was opened again is dropped as well
  await db('rechecks')
    .where({ build_id: former.id, status: 'dropped' })
    .where(
      'sequence',
      db('rechecks')
        .where({ build_id: former.id, status: 'done' })
        .select(db.raw('coalesce(max(sequence), 0) + 1')),
    )
    .update('status', 'planned');
  return [written(build, await headChange(db, former.id), ...(await recheckChanges(db, former.id)))];
}

/**
 * Brings an abandoned build back where it was; the one that went on in its place gives way again.
 *
 * @throws Refusal `build_open` where another build is on the bench, `not_abandoned` where it is not away
 */
export async function restoreBuild(
  db: Knex,
  id: string,
  version: number,
): Promise<[BuildWrite, ...BuildWrite[]]> {
  const build = await lockEvenClosed(db, id);
  await refuseStale(db, build, version);
  const row = (await db('builds').where({ id }).first('abandoned_at'))!;
  if (!row.abandoned_at) throw new Refusal('not_abandoned');
  const engine = (await db('engines').where({ id: build.engineId }).forNoKeyUpdate().first('put_away_at'))!;
  if (engine.put_away_at) throw new Refusal('engine_put_away');
  const open = await db('builds').where({ engine_id: build.engineId, closed_at: null }).first('id', 'stage');
  if (open && open.stage !== RUNNING) throw new Refusal('build_open');
  const ended = open ? [await endBuild(db, open.id)] : [];
  await db('builds')
    .where({ id })
    .update({
      closed_at: null,
      abandoned_at: null,
      abandoned_by: null,
      abandoned_why: null,
      version: version + 1,
    });
  return [written(build, await headChange(db, id)), ...ended];
}
