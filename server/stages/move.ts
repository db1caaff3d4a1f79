import type { BuildRowChange, BuildWrite, stageMoveRequest } from '@zero-lash/contract/builds';
import {
  mayMove,
  obstaclesToMove,
  stageOf,
  statusOf,
  undoneBy,
  type Obstacle,
  type Stage,
  RUNNING,
} from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { readRows, type RowName } from '../builds/registry.ts';
import { Refusal } from '../plugins/errors.ts';
import { written } from '../builds/lock.ts';
import { tickedBefore } from './ticked.ts';
import { headChange, readTicks } from '../builds/read.ts';
import { readWhole, type WholeBuild } from '../builds/readWhole.ts';

import { openRound } from './openRound.ts';
import { lockAtVersion } from './change.ts';

export async function moveStage(
  db: Knex,
  id: string,
  { to, version }: z.infer<typeof stageMoveRequest>,
  personId: string,
): Promise<BuildWrite> {
  const taken = await lockAtVersion(db, id, version);
  const build = await readWhole(db, id);
  if (!mayMove(build.job, build.stage, to))
    throw new Refusal('stage_skipped', {
      detail: `From ${stageOf(build.stage).title} the build cannot go to ${stageOf(to).title}.`,
    });
  if (build.signOff && to !== RUNNING) throw new Refusal('already_signed_off');
  if (to === RUNNING && !build.signOff)
    throw new Refusal('stage_not_ready', { detail: 'A lead signs the build off first.' });
  refuseFor('stage_not_ready', obstaclesToMove(statusOf(build), to));
  await db('stage_moves').insert({
    build_id: id,
    from_stage: build.stage,
    to_stage: to,
    by: personId,
  });
  await db('builds')
    .where({ id })
    .update({ stage: to, stage_since: db.fn.now(), version: version + 1 });
  const followed = await enter(db, build, stageOf(to), personId);
  return written(taken, await headChange(db, id), ...followed);
}

/** Refuses a step for what stands against it, naming the points. */
export function refuseFor(code: 'stage_not_ready' | 'not_provable', obstacles: readonly Obstacle[]): void {
  if (obstacles.length === 0) return;
  throw new Refusal(code, {
    detail: obstacles.map(({ text }) => text).join(' '),
    points: [...new Set(obstacles.flatMap(({ points }) => points))],
  });
}

/** Does what follows from entering a stage, as its own definition says: what is no longer true, and what begins. */
async function enter(
  db: Knex,
  build: WholeBuild,
  { key, begins, ends, measures }: Stage,
  personId: string,
): Promise<BuildRowChange[]> {
  const changes: BuildRowChange[] = [];
  for (const { stage, check } of undoneBy(build, key))
    await db('stage_ticks')
      .where({ build_id: build.id, stage, check_key: check })
      .update({ done: false, by: personId, at: db.fn.now(), ...tickedBefore(db) });
  const undone = new Set(undoneBy(build, key).map(({ stage, check }) => `${stage}:${check}`));
  if (undone.size > 0)
    for (const row of await readTicks(db, build.id))
      if (undone.has(`${row.stage}:${row.check}`)) changes.push({ kind: 'tick', row });
  if (begins === 'never' || measures === null) return changes;
  const earlier = build.rounds.filter(({ kind }) => kind === measures);
  if (begins === 'once' && earlier.length > 0) return changes;
  const closed = await db('rounds')
    .where({ build_id: build.id, closed_at: null })
    .whereIn('kind', ends)
    .update('closed_at', db.fn.now())
    .returning('id');
  const opened = await openRound(
    db,
    { id: build.id, sheet: build.sheet, running: build.engine.running },
    { kind: measures, number: earlier.length + 1 },
    personId,
  );
  const touched = [...closed.map(({ id }) => id), opened];
  changes.push(
    ...(await readRows(
      db,
      build.id,
      touched.map((id): RowName => ({ kind: 'round', id })),
    )),
  );
  return changes;
}
