import { SETTING } from '@zero-lash/core/builds';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { settingTakenBack } from '@zero-lash/contract/setting';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockBuild, written } from '../builds/lock.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { moveBack } from '../pieces/store.ts';
import { Refusal } from '../plugins/errors.ts';
import { readSettings } from './read.ts';

interface Kept {
  readonly id: string;
  readonly point: string;
  readonly kind: string;
  readonly at: Date;
  readonly superseded: boolean;
}

/**
 * Takes back a setting that was written down wrongly: what stood at the point before stands again, and the ledger of the drawer
 * says that its pieces went back. What was really changed, and changed again, is a setting of its own.
 *
 * @throws Refusal `not_found`; `wrong_stage` but at Set; `set_since` where it does not stand any more, or what it took out is in
 * elsewhere by now; `not_there` where that has gone out of the drawer
 */
export async function takeBackSetting(
  db: Knex,
  buildId: string,
  settingId: string,
  { reason, takenAt }: z.output<typeof settingTakenBack>,
  context: WriteContext,
): Promise<BuildWrite> {
  const build = await lockBuild(db, buildId);
  if (build.stage !== SETTING)
    throw new Refusal('wrong_stage', { detail: 'A setting is taken back at Set: go back to it first.' });
  const row = (await db('settings').where({ id: settingId, build_id: buildId }).first()) as Kept | undefined;
  if (!row) throw new Refusal('not_found', { detail: 'There is no such setting in this build.' });
  if (row.superseded)
    throw new Refusal('set_since', {
      detail: `Something else was written down at ${row.point} since: what stands there now is taken back first.`,
    });
  await refuseGiven(db, buildId, row);
  await moveBack(db, { build_id: buildId, point: row.point, at: row.at }, context.personId, reason);
  await db('settings')
    .where({ id: row.id })
    .update({
      superseded: true,
      taken_back_at: whenTaken(takenAt, context, row.at),
      taken_back_by: context.personId,
      taken_back_why: reason,
    });
  const before = (await db('settings')
    .where({ build_id: buildId, point: row.point, taken_back_at: null })
    .whereRaw(`(kind = 'left') = ?`, [row.kind === 'left'])
    .whereNot({ id: row.id })
    .orderBy('at', 'desc')
    .first('id')) as { id: string } | undefined;
  if (before) await db('settings').where({ id: before.id }).update('superseded', false);
  const rows = await Promise.all(
    [row.id, ...(before ? [before.id] : [])].map((id) => readSettings(db, buildId, id)),
  );
  return written(build, ...rows.map(([each]) => ({ kind: 'setting' as const, row: each! })));
}

/** Refuses to put back what is in at another point by now. */
async function refuseGiven(db: Knex, buildId: string, { point, at, kind }: Kept): Promise<void> {
  if (kind === 'left') return;
  const given = (await db('settings')
    .where({ build_id: buildId, superseded: false, piece_giver: point, piece_from: 'engine' })
    .where('at', '>', at)
    .whereNot({ point })
    .first('point')) as { point: string } | undefined;
  if (!given) return;
  throw new Refusal('set_since', {
    detail: `What came out of ${point} is in at ${given.point} by now: take that back first.`,
  });
}
