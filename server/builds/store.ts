import type {
  BuildChange,
  BuildView,
  NewBuild,
  noteRequest,
  stageMoveRequest,
  tickRequest,
} from '@zero-lash/contract/builds';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { LiveEvent } from '@zero-lash/contract/live';
import {
  goesOn,
  mayMove,
  obstaclesTo,
  stageOf,
  standingOf,
  type Obstacle,
  type Stage,
} from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';
import { viewBuild } from './view.ts';

/** What PostgreSQL passes on in one notification, less some room. */
const MOST_TOLD = 7000;

/** What everybody looking at a build hears of a write: the reading itself where it is one, else that it changed. */
export async function changedBuild(db: Knex, answer: BuildView | ReadingRow): Promise<LiveEvent> {
  if (!('roundId' in answer)) return { kind: 'build', build: answer.id };
  const { build_id: build } = await db('rounds').where({ id: answer.roundId }).first('build_id');
  const told: LiveEvent = { kind: 'reading', build, reading: answer };
  return JSON.stringify(told).length < MOST_TOLD ? told : { kind: 'build', build };
}

/** Opens a build. One that only waits for rechecks gives way to it; its planned recheck is dropped. */
export async function openBuild(
  db: Knex,
  engineId: string,
  { revisionId, complaint }: NewBuild,
  personId: string,
): Promise<BuildView> {
  const engine = await db('engines').where({ id: engineId }).forNoKeyUpdate().first();
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  const sheet = await findRevision(db, revisionId);
  if (sheet.status !== 'published') throw new Refusal('sheet_not_published');
  if (sheet.sheetId !== engine.sheet_id)
    throw new Refusal('sheet_differs', {
      detail: `${engine.name} is built on another spec sheet than ${sheet.name}.`,
    });
  const open = await db('builds').where({ engine_id: engineId, closed_at: null }).first();
  if (open && open.stage !== 'run-in') throw new Refusal('build_open');
  if (open) {
    await db('builds').where({ id: open.id }).update({ closed_at: db.fn.now() });
    await db('rechecks').where({ build_id: open.id, status: 'planned' }).update('status', 'dropped');
  }
  const last = await db('builds').where({ engine_id: engineId }).max('number as number').first();
  const [row] = await db('builds')
    .insert({
      engine_id: engineId,
      revision_id: revisionId,
      number: (last?.number ?? 0) + 1,
      complaint,
      opened_by: personId,
    })
    .returning('id');
  return viewBuild(db, row.id);
}

/** Locks a build for a write, and refuses one that is closed. */
export async function lockBuild(db: Knex, id: string): Promise<BuildView> {
  const locked = await db('builds').where({ id }).forNoKeyUpdate().first('closed_at');
  if (!locked) throw new Refusal('not_found', { detail: 'There is no such build.' });
  if (locked.closed_at) throw new Refusal('build_closed');
  return viewBuild(db, id);
}

async function lockVersion(db: Knex, id: string, version: number): Promise<BuildView> {
  const build = await lockBuild(db, id);
  if (build.version !== version) throw new Refusal('stale', { current: build });
  return build;
}

export async function changeBuild(db: Knex, id: string, change: BuildChange): Promise<BuildView> {
  await lockVersion(db, id, change.version);
  await db('builds')
    .where({ id })
    .update({ complaint: change.complaint, aim: change.aim, version: change.version + 1 });
  return viewBuild(db, id);
}

export async function moveStage(
  db: Knex,
  id: string,
  { to, version }: z.infer<typeof stageMoveRequest>,
  personId: string,
): Promise<BuildView> {
  const build = await lockVersion(db, id, version);
  if (!mayMove(build.stage, to))
    throw new Refusal('stage_skipped', {
      detail: `From ${stageOf(build.stage).title} the build cannot go to ${stageOf(to).title}.`,
    });
  if (build.signOff && to !== 'run-in') throw new Refusal('already_signed_off');
  if (to === 'run-in' && !build.signOff)
    throw new Refusal('stage_not_ready', { detail: 'A lead signs the build off first.' });
  if (goesOn(build.stage, to)) refuseFor('stage_not_ready', obstaclesTo(standingOf(build)));
  await db('stage_moves').insert({
    build_id: id,
    from_stage: build.stage,
    to_stage: to,
    by: personId,
  });
  await db('builds')
    .where({ id })
    .update({ stage: to, stage_since: db.fn.now(), version: version + 1 });
  await enter(db, build, stageOf(to), personId);
  return viewBuild(db, id);
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
  build: BuildView,
  { key, begins, measures, unticks }: Stage,
  personId: string,
) {
  if (!goesOn(build.stage, key) || begins === 'each-time')
    await db('stage_ticks').where({ build_id: build.id }).whereIn('stage', unticks).delete();
  if (begins === 'never' || measures === null) return;
  const earlier = build.rounds.filter(({ kind }) => kind === measures);
  if (begins === 'once' && earlier.length > 0) return;
  await db('rounds').where({ build_id: build.id, closed_at: null }).update('closed_at', db.fn.now());
  await db('rounds').insert({
    build_id: build.id,
    revision_id: build.sheet.id,
    kind: measures,
    number: earlier.length + 1,
    opened_by: personId,
    usage: build.engine.running,
  });
}

export async function tick(
  db: Knex,
  id: string,
  { stage, check, done }: z.infer<typeof tickRequest>,
  personId: string,
): Promise<BuildView> {
  const build = await lockBuild(db, id);
  if (!stageOf(stage).checks.some(({ key }) => key === check)) throw new Refusal('unknown_check');
  if (build.stage !== stage) throw new Refusal('wrong_stage');
  const row = { build_id: id, stage, check_key: check };
  if (done)
    await db('stage_ticks')
      .insert({ ...row, by: personId })
      .onConflict()
      .ignore();
  else await db('stage_ticks').where(row).delete();
  return viewBuild(db, id);
}

export async function addNote(
  db: Knex,
  id: string,
  { stage, text }: z.infer<typeof noteRequest>,
  personId: string,
): Promise<BuildView> {
  await lockBuild(db, id);
  await db('stage_notes').insert({ build_id: id, stage, text, by: personId });
  return viewBuild(db, id);
}
