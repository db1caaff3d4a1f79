import type { BuildWrite, NewBuild } from '@zero-lash/contract/builds';
import { firstStage, jobAsked, RUNNING } from '@zero-lash/core/builds';
import { allowedBy } from '@zero-lash/core/setting';
import type { Knex } from 'knex';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';
import { recheckChanges } from '../rechecks/read.ts';
import { findRevision } from '../sheets/read.ts';
import { lockBuild, written } from '../builds/lock.ts';
import { headChange } from '../builds/read.ts';

import { openRound } from './openRound.ts';

/**
 * Opens a build. One that only waits for rechecks gives way to it; its planned recheck is dropped. With a recheck, which need not have
 * failed, its finding is carried over, on the revision it was judged by, and the build begins where that is set.
 *
 * @returns the new build, and the one that gave way
 */
export async function openBuild(
  db: Knex,
  engineId: string,
  { revisionId, job: asked, complaint, recheckId }: NewBuild,
  personId: string,
): Promise<[BuildWrite, ...BuildWrite[]]> {
  const engine = await db('engines').where({ id: engineId }).forNoKeyUpdate().first();
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  if (engine.put_away_at) throw new Refusal('engine_put_away');
  const sheet = await findRevision(db, revisionId);
  if (sheet.status !== 'published') throw new Refusal('sheet_not_published');
  if (sheet.sheetId !== engine.sheet_id)
    throw new Refusal('sheet_differs', {
      detail: `${engine.name} is built on another spec sheet than ${sheet.name}.`,
    });
  const open = await db('builds')
    .where({ engine_id: engineId, closed_at: null })
    .first('id', 'stage', 'revision_id');
  if (open && open.stage !== RUNNING) throw new Refusal('build_open');
  const carried = recheckId === undefined ? null : await roundOfRecheck(db, recheckId, open, revisionId);
  const ended = open ? [await endBuild(db, open.id)] : [];
  const job = jobAsked({ job: asked, recheckId });
  const last = await db('builds').where({ engine_id: engineId }).orderBy('number', 'desc').first('number');
  const shop = (await db('shop').first(
    ...(['proves_again', 'locked_stands', 'cold_hours', 'allow_over', 'single_rule'] as const),
  ))!;
  const [row] = await db('builds')
    .insert({
      engine_id: engineId,
      revision_id: revisionId,
      number: (last?.number ?? 0) + 1,
      ...{ job, stage: firstStage(job) },
      complaint,
      opened_by: personId,
      proves_again: shop.proves_again,
      locked_stands: shop.locked_stands,
      cold_hours: shop.cold_hours,
      allow_over: JSON.stringify(allowedBy(sheet.limits, json('shop.allow_over', shop.allow_over))),
      single_rule: shop.single_rule && JSON.stringify(shop.single_rule),
      ...(carried && open ? await aimOf(db, open.id) : {}),
      ...(carried ? { carried_round: carried } : {}),
    })
    .returning(['id', 'seq']);
  if (carried)
    await openRound(
      db,
      { id: row!.id, sheet, running: engine.running },
      { kind: 'as-set', number: 1 },
      personId,
    );
  return [written(row!, await headChange(db, row!.id)), ...ended];
}

/**
 * Finds the round of a recheck that is to be set again.
 *
 * @throws Refusal `nothing_to_set` where it is not judged, or is not the last of the build that the engine runs on;
 * `sheet_differs` where it was judged by other figures
 */
async function roundOfRecheck(
  db: Knex,
  recheckId: string,
  running: { readonly id: string; readonly revision_id: string } | undefined,
  revisionId: string,
): Promise<string> {
  const last =
    running &&
    (await db('rechecks')
      .where({ build_id: running.id, status: 'done' })
      .orderBy('sequence', 'desc')
      .first('id'));
  // what came in late is of the round that proved it, and set again as a recheck that did not hold is
  const late =
    running &&
    (await db('rechecks')
      .where({ id: recheckId, build_id: running.id, status: 'planned' })
      .first('late_round'));
  if (!late?.late_round && (!last || last.id !== recheckId)) throw new Refusal('nothing_to_set');
  if (running!.revision_id !== revisionId)
    throw new Refusal('sheet_differs', {
      detail: 'The recheck was judged by another revision of the spec sheet: set it again by that one.',
    });
  if (late?.late_round) return late.late_round as string;
  const round = (await db('rounds').where({ recheck_id: recheckId }).first('id'))!;
  return round.id;
}

/** Ends a build that a later one takes over from. */
export async function endBuild(db: Knex, id: string): Promise<BuildWrite> {
  const build = await lockBuild(db, id);
  await db('builds').where({ id }).update({ closed_at: db.fn.now() });
  await db('rechecks').where({ build_id: id, status: 'planned' }).update('status', 'dropped');
  return written(build, await headChange(db, id), ...(await recheckChanges(db, id)));
}

/** What an engine that is set again aims at: what it was set to. */
async function aimOf(db: Knex, buildId: string) {
  const {
    aim,
    own_aims: own,
    aim_by,
  } = (await db('builds').where({ id: buildId }).first('aim', 'own_aims', 'aim_by'))!;
  return { aim, own_aims: own && JSON.stringify(own), aim_by };
}
