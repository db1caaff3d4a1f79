import type { BuildRowChange, BuildWrite, stageMoveRequest } from '@zero-lash/contract/builds';
import {
  mayMove,
  roundsBegun,
  roundsEnded,
  stageIn,
  obstaclesToMove,
  stagesOn,
  stageOf,
  statusOf,
  undoneBy,
  type Obstacle,
  type RoundKind,
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
  const status = statusOf(build);
  const on = stagesOn(status);
  if (!mayMove(build.job, build.stage, to) && !on.includes(to))
    throw new Refusal('stage_skipped', {
      detail: `From ${stageIn(build.job, build.stage).title} the build cannot go to ${stageIn(build.job, to).title}.`,
    });
  if (build.signOff && to !== RUNNING) throw new Refusal('already_signed_off');
  if (to === RUNNING && !build.signOff)
    throw new Refusal('stage_not_ready', { detail: 'A lead signs the build off first.' });
  refuseFor('stage_not_ready', obstaclesToMove(status, to));
  await db('builds')
    .where({ id })
    .update({ stage: to, stage_since: db.fn.now(), version: version + 1 });
  const followed: BuildRowChange[] = [];
  // a stage in which nothing is to be done is entered and left all the same: what it ends has ended
  const passed = on.includes(to) ? on.slice(0, on.indexOf(to) + 1) : [to];
  let at = build;
  for (const stage of passed) {
    await db('stage_moves').insert({ build_id: id, from_stage: at.stage, to_stage: stage, by: personId });
    followed.push(...(await enter(db, at, stageOf(stage), personId)));
    at = { ...at, stage };
  }
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
  { key }: Stage,
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
  const earlier = (kind: RoundKind) => build.rounds.filter((round) => round.kind === kind).length;
  const begun = roundsBegun(build.job, key).filter(
    ({ kind, begins }) => begins === 'each-time' || earlier(kind) === 0,
  );
  if (begun.length === 0) return changes;
  const closed = await db('rounds')
    .where({ build_id: build.id, closed_at: null })
    .whereIn('kind', [...roundsEnded(build, key)])
    .update('closed_at', db.fn.now())
    .returning('id');
  const touched = closed.map(({ id }) => id);
  for (const { kind } of begun)
    touched.push(
      await openRound(
        db,
        { id: build.id, sheet: build.sheet, running: build.engine.running },
        { kind, number: earlier(kind) + 1 },
        personId,
      ),
    );
  changes.push(
    ...(await readRows(
      db,
      build.id,
      touched.map((id): RowName => ({ kind: 'round', id })),
    )),
  );
  return changes;
}
