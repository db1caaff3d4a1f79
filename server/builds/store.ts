import type {
  buildChange,
  BuildRowChange,
  BuildWrite,
  NewBuild,
  stageMoveRequest,
} from '@zero-lash/contract/builds';
import {
  mayMove,
  obstaclesToMove,
  STAGE_KEYS,
  stageOf,
  statusOf,
  undoneBy,
  type Obstacle,
  type RoundKind,
  type Stage,
  RUNNING,
} from '@zero-lash/core/builds';
import { aimsOutside, allowedBy, type AllowOver, type OwnAim } from '@zero-lash/core/setting';
import { ROLE_WORDS } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { readRoundRows } from '../measuring/rounds.ts';
import { Refusal } from '../plugins/errors.ts';
import { readRechecks } from '../rechecks/read.ts';
import { findRevision } from '../sheets/read.ts';
import { lockBuild, written, type LockedBuild } from './lock.ts';
import { tickedBefore } from './ticked.ts';
import type { WriteContext } from './writeContext.ts';
import { readHead, readTicks, readWhole, type WholeBuild } from './read.ts';

/** The build itself as a change that a write brought. */
export async function headChange(db: Knex, id: string): Promise<BuildRowChange> {
  return { kind: 'head', row: (await readHead(db, id)).rows };
}

/**
 * Opens a build. One that only waits for rechecks gives way to it; its planned recheck is dropped. With a recheck that did
 * not hold, its finding is carried over, on the revision it was judged by, and the build begins where that is set.
 *
 * @returns the new build, and the one that gave way
 */
export async function openBuild(
  db: Knex,
  engineId: string,
  { revisionId, complaint, recheckId }: NewBuild,
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
  const carried = recheckId === undefined ? null : await roundNotHeld(db, recheckId, open, revisionId);
  const ended = open ? [await endBuild(db, open.id)] : [];
  const last = await db('builds').where({ engine_id: engineId }).max('number as number').first();
  const [row] = await db('builds')
    .insert({
      engine_id: engineId,
      revision_id: revisionId,
      number: (last?.number ?? 0) + 1,
      complaint,
      opened_by: personId,
      proves_again: db('shop').select('proves_again'),
      locked_stands: db('shop').select('locked_stands'),
      allow_over: JSON.stringify(allowedBy(sheet.limits, await shopAllows(db))),
      ...(carried && open ? await aimOf(db, open.id) : {}),
      ...(carried ? { carried_round: carried, stage: STAGE_KEYS.find((key) => stageOf(key).sets) } : {}),
    })
    .returning(['id', 'seq']);
  if (carried) await openRound(db, { id: row.id, sheet, engine }, { kind: 'as-set', number: 1 }, personId);
  return [written(row, await headChange(db, row.id)), ...ended];
}

/**
 * Finds the round of a recheck that is to be set again.
 *
 * @throws Refusal `nothing_to_set` where it held, is not judged, or is not the last of the build that the engine runs on;
 * `sheet_differs` where it was judged by other figures
 */
async function roundNotHeld(
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
      .first('id', 'outcome'));
  // what came in late is of the round that proved it, and set again as a recheck that did not hold is
  const late =
    running &&
    (await db('rechecks')
      .where({ id: recheckId, build_id: running.id, status: 'planned' })
      .first('late_round'));
  if (!late?.late_round && (!last || last.id !== recheckId || last.outcome === 'held'))
    throw new Refusal('nothing_to_set');
  if (running!.revision_id !== revisionId)
    throw new Refusal('sheet_differs', {
      detail: 'The recheck was judged by another revision of the spec sheet: set it again by that one.',
    });
  if (late?.late_round) return late.late_round as string;
  const round = await db('rounds').where({ recheck_id: recheckId }).first('id');
  return round.id;
}

/** Ends a build that a later one takes over from. */
export async function endBuild(db: Knex, id: string): Promise<BuildWrite> {
  const build = await lockBuild(db, id);
  await db('builds').where({ id }).update({ closed_at: db.fn.now() });
  await db('rechecks').where({ build_id: id, status: 'planned' }).update('status', 'dropped');
  const rechecks = await readRechecks(db, { build_id: id });
  return written(
    build,
    await headChange(db, id),
    ...rechecks.map((row) => ({ kind: 'recheck' as const, row })),
  );
}

/**
 * Takes a build up for a write that is made on what somebody saw of it.
 *
 * @throws Refusal `stale` where somebody changed it since
 */
export async function lockAtVersion(db: Knex, id: string, version: number): Promise<LockedBuild> {
  const build = await lockBuild(db, id);
  await refuseStale(db, build, version);
  return build;
}

/** Refuses what was done on an older version of a build than there is. */
export async function refuseStale(
  db: Knex,
  { id, version }: Pick<LockedBuild, 'id' | 'version'>,
  seen: number,
): Promise<void> {
  if (version !== seen) throw new Refusal('stale', { current: (await readHead(db, id)).rows });
}

/** What the shop takes over the greatest where a sheet says nothing of it. */
async function shopAllows(db: Knex): Promise<readonly AllowOver[]> {
  const shop = await db('shop').first('allow_over as allowOver');
  return shop?.allowOver ?? [];
}

/** What an engine that is set again aims at: what it was set to. */
async function aimOf(db: Knex, buildId: string) {
  const {
    aim,
    own_aims: own,
    aim_by,
  } = await db('builds').where({ id: buildId }).first('aim', 'own_aims', 'aim_by');
  return { aim, own_aims: own && JSON.stringify(own), aim_by };
}

/**
 * Changes what a build is here for, or what it aims at.
 *
 * @throws Refusal `forbidden` or `invalid` where it would aim outside the maker's band without a lead, or without a reason
 */
export async function changeBuild(
  db: Knex,
  id: string,
  { version, complaint, aim, ownAims, aimReason }: z.output<typeof buildChange>,
  person: Pick<WriteContext, 'personId' | 'leads'>,
): Promise<BuildWrite> {
  const build = await lockAtVersion(db, id, version);
  if (aim === 'own') await refuseOutside(db, build.revisionId, ownAims!, aimReason, person);
  await db('builds')
    .where({ id })
    .update({
      ...{ complaint, aim, version: version + 1 },
      ...(aim === 'own'
        ? { own_aims: JSON.stringify({ figures: ownAims, reason: aimReason }), aim_by: person.personId }
        : {}),
    });
  return written(build, await headChange(db, id));
}

/** Refuses an aim outside the maker's band that no lead stands for, or that nobody says why. */
async function refuseOutside(
  db: Knex,
  revisionId: string,
  own: readonly OwnAim[],
  reason: string,
  { leads }: Pick<WriteContext, 'leads'>,
): Promise<void> {
  const { limits } = await findRevision(db, revisionId);
  own.forEach((aimed, index) => {
    if (limits.every((each) => each.role !== aimed.role))
      throw new Refusal('invalid', {
        detail: `This sheet has no ${ROLE_WORDS[aimed.role]}.`,
        fields: [{ path: `ownAims.${index}.role`, message: 'is not on this engine' }],
      });
  });
  const outside = aimsOutside(limits, own);
  if (outside.length === 0) return;
  if (!leads)
    throw new Refusal('forbidden', {
      detail: `Only a lead aims outside the maker’s band: ${outside.map((each) => ROLE_WORDS[each.role]).join(', ')}.`,
    });
  if (reason === '')
    throw new Refusal('invalid', {
      detail: 'Say why it is aimed outside the maker’s band.',
      fields: [{ path: 'aimReason', message: 'say why' }],
    });
}

export async function moveStage(
  db: Knex,
  id: string,
  { to, version }: z.infer<typeof stageMoveRequest>,
  personId: string,
): Promise<BuildWrite> {
  const taken = await lockAtVersion(db, id, version);
  const build = await readWhole(db, id);
  if (!mayMove(build.stage, to))
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
      .update({ done: false, by: personId, at: db.fn.now(), earlier: tickedBefore(db) });
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
  const opened = await openRound(db, build, { kind: measures, number: earlier.length + 1 }, personId);
  const touched = new Set([...closed.map(({ id }) => id), opened]);
  for (const row of await readRoundRows(db, build.id))
    if (touched.has(row.id)) changes.push({ kind: 'round', row });
  return changes;
}

/** Begins a round of a build; gives its id. */
async function openRound(
  db: Knex,
  {
    id,
    sheet,
    engine,
  }: Pick<WholeBuild, 'id' | 'engine'> & { readonly sheet: Pick<WholeBuild['sheet'], 'id'> },
  round: { readonly kind: RoundKind; readonly number: number },
  personId: string,
): Promise<string> {
  const [opened] = await db('rounds')
    .insert({
      build_id: id,
      revision_id: sheet.id,
      ...round,
      opened_by: personId,
      usage: engine.running,
    })
    .returning('id');
  return opened.id;
}
