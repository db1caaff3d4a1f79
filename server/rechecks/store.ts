import { randomUUID } from 'node:crypto';
import type { benchDay, recheckMove } from '@zero-lash/contract/rechecks';
import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import { impossibleDay } from '@zero-lash/core/bounds';
import { isUndecided, unreachedPoints } from '@zero-lash/core/builds';
import { unreachedIn, whyNoProof } from '@zero-lash/core/measuring';
import { leftOfLook, type RecheckOutcome } from '@zero-lash/core/rechecks';
import { lashPoints } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { lockByPart, written, type LockedBuild } from '../builds/lock.ts';
import { readRows } from '../builds/registry.ts';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { readWhole, type WholeBuild } from '../builds/readWhole.ts';
import { shopDay } from '../clock.ts';
import { json } from '../storedJson.ts';
import { Refusal } from '../plugins/errors.ts';
import { refreshExpected } from './forecast.ts';
import { planRecheck, recordChecks, refreshForecast } from './planning.ts';
import { readRechecks, recheckChanges } from './read.ts';

interface LockedRecheck {
  readonly id: string;
  readonly sequence: number;
  readonly running: number;
  /** the points of a short look; null where every point is measured */
  readonly points: readonly string[] | null;
  readonly build: LockedBuild;
}

async function lockRecheck(db: Knex, id: string): Promise<LockedRecheck> {
  const build = await lockByPart(db, 'rechecks', id);
  if (!build) throw new Refusal('not_found', { detail: 'There is no such recheck.' });
  const recheck = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .where('r.id', id)
    .first('r.id', 'r.status', 'r.sequence', 'r.points', 'e.running', 'e.put_away_at as awayAt');
  if (recheck.awayAt) throw new Refusal('engine_put_away');
  if (recheck.status !== 'planned') throw new Refusal('recheck_done');
  if (build.closedAt) throw new Refusal('build_closed');
  return { ...recheck, points: json('rechecks.points', recheck.points), build };
}

/**
 * Opens the round of a recheck; opening it again, from another device perhaps, gives the same round. It has the recheck's
 * own id, so that a device that is not connected knows it before it is opened.
 */
export async function openRecheckRound(
  db: Knex,
  id: string,
  takenAt: string | null,
  context: WriteContext,
): Promise<BuildWrite> {
  const { build, sequence, running } = await lockRecheck(db, id);
  const existing = await db('rounds').where({ recheck_id: id }).first('id');
  if (!existing)
    await db('rounds').insert({
      id,
      build_id: build.id,
      revision_id: build.revisionId,
      recheck_id: id,
      kind: 'recheck',
      number: sequence,
      opened_by: context.personId,
      opened_at: whenTaken(takenAt, context, build.openedAt),
      usage: running,
    });
  return written(build, ...(await readRows(db, build.id, [{ kind: 'round', id: existing?.id ?? id }])));
}

/** What the readings of a recheck's round come to by what is known by now, and the points that are still to be measured. */
function judgeRound(
  { rounds, sheet, settings }: WholeBuild,
  roundId: string,
  look: readonly string[] | null,
): {
  readonly outcome: RecheckOutcome;
  readonly left: readonly string[];
  readonly unreached: readonly string[];
} {
  // what could not be reached at sign-off, and a lead let stand, is not waited for
  const taken = rounds.find(({ id }) => id === roundId)?.readings ?? [];
  const passed = unreachedIn(taken);
  const unreached = [...unreachedPoints({ settings, rounds }), ...passed];
  const points = lashPoints(sheet.pattern)
    .map(({ key }) => key)
    .filter((key) => !unreached.includes(key));
  const readings = taken.filter((row) => whyNoProof(row, null) === null);
  const out = readings.some(({ verdict }) => verdict === 'tight' || verdict === 'loose');
  const undecided = readings.some(({ verdict }) => isUndecided(verdict));
  return {
    outcome: out ? 'out' : undecided ? 'undecided' : 'held',
    left: leftOfLook(points, look?.filter((key) => !passed.includes(key)) ?? null, readings),
    unreached: passed,
  };
}

/** What a recheck's round comes to by the points that were measured in it, whether that is all of them or not. */
export const judgeKnown = async (db: Knex, buildId: string, roundId: string): Promise<RecheckOutcome> =>
  judgeRound(await readWhole(db, buildId), roundId, null).outcome;

/** Judges a recheck once every point it takes is measured, and plans the next. */
export async function closeRecheck(db: Knex, id: string, personId: string): Promise<BuildWrite> {
  const { build, sequence, running, points } = await lockRecheck(db, id);
  const round = await db('rounds').where({ recheck_id: id }).first('id');
  if (!round) throw new Refusal('recheck_incomplete');
  const { outcome, left, unreached } = judgeRound(await readWhole(db, build.id), round.id, points);
  if (left.length > 0)
    throw new Refusal('recheck_incomplete', {
      detail: `Not measured yet, or only off the base circle, which proves nothing: ${left.join(', ')}.`,
      points: [...left],
    });
  await db('rechecks')
    .where({ id })
    .update({ status: 'done', outcome, done_at: db.fn.now(), done_by: personId });
  await db('rounds').where({ id: round.id }).update({ closed_at: db.fn.now() });
  await recordChecks(db, id);
  await planRecheck(db, build, {
    ...{ sequence: sequence + 1, usage: running, after: outcome },
    // what nobody could reach is looked at sooner
    watched: unreached.length > 0,
  });
  return written(build, ...(await recheckAndRound(db, build.id, round.id)));
}

/** Every recheck of a build and the round of one of them, as changes a write brought. */
export async function recheckAndRound(db: Knex, buildId: string, roundId: string): Promise<BuildRowChange[]> {
  return [
    ...(await recheckChanges(db, buildId)),
    ...(await readRows(db, buildId, [{ kind: 'round', id: roundId }])),
  ];
}

/** What a lead does about a planned recheck: moves it to a day, holds it back, lets it go again, or drops it for the next. */
export async function moveRecheck(
  db: Knex,
  id: string,
  { kind, day, why, version }: z.output<typeof recheckMove>,
  context: Pick<WriteContext, 'key' | 'personId'>,
): Promise<BuildWrite> {
  const { build, sequence, running } = await lockRecheck(db, id);
  const [row] = await db('rechecks')
    .where({ id, version })
    .increment('version', 1)
    .returning(['held', 'after_outcome', 'late_round']);
  const [current] = await readRechecks(db, { id });
  if (!row) throw new Refusal('stale', { current });
  const today = await shopDay(db);
  if (kind === 'moved') refuseDay(day!, today);
  if (kind === 'moved' && day! < today)
    throw new Refusal('recheck_move', {
      detail: `${day} is gone already.`,
      fields: [{ path: 'day', message: 'is gone' }],
    });
  if (kind === 'dropped' && row.late_round !== null)
    throw new Refusal('recheck_move', {
      detail:
        'What came in after signing stands against it: set it again, or leave it as it is with a reason, first.',
    });
  if (kind === 'on-hold' && row.held) throw new Refusal('recheck_move', { detail: 'It is on hold already.' });
  if (kind === 'released' && !row.held) throw new Refusal('recheck_move', { detail: 'It is not on hold.' });
  if (kind === 'moved')
    // the day a lead names governs: running and forecast do not bring it back before that
    await db('rechecks')
      .where({ id })
      .update({ due_date: day, due_usage: null, due_cycles: null, by_forecast: false });
  if (kind === 'on-hold' || kind === 'released')
    await db('rechecks')
      .where({ id })
      .update({ held: kind === 'on-hold' });
  await db('recheck_changes').insert({
    id: context.key,
    recheck_id: id,
    kind: kind === 'on-hold' ? 'held' : kind,
    day,
    why,
    by: context.personId,
  });
  if (kind === 'dropped') {
    await db('rechecks').where({ id }).update({ status: 'dropped' });
    await planRecheck(db, build, { sequence: sequence + 1, usage: running, after: row.after_outcome });
  } else await refreshExpected(db, build.engineId);
  return written(build, ...(await recheckChanges(db, build.id)));
}

/** Plans the day on which an engine stands on the bench for its recheck, no later than it is due; or takes it off the calendar. */
export async function planBenchDay(
  db: Knex,
  id: string,
  { day, version }: z.output<typeof benchDay>,
  context: Pick<WriteContext, 'key' | 'personId'>,
): Promise<BuildWrite> {
  const { build } = await lockRecheck(db, id);
  const [row] = await db('rechecks')
    .where({ id, version })
    .increment('version', 1)
    .returning(['due_date', 'held']);
  const [current] = await readRechecks(db, { id });
  if (!row) throw new Refusal('stale', { current });
  const last = row.due_date as string | null;
  const today = await shopDay(db);
  if (day !== null) refuseDay(day, today);
  const refused =
    day === null
      ? null
      : day < today
        ? `${day} is gone already.`
        : // what is overdue is done as soon as it can be
          last !== null && day > last && last >= today
          ? `It is due by ${last}. Only a lead moves it past that, and says why.`
          : null;
  if (refused)
    throw new Refusal('recheck_move', {
      detail: refused,
      fields: [{ path: 'day', message: 'is not allowed' }],
    });
  await db('rechecks').where({ id }).update({ bench_day: day });
  await db('recheck_changes').insert({
    id: context.key,
    recheck_id: id,
    kind: 'bench',
    day,
    by: context.personId,
  });
  return written(build, ...(await recheckChanges(db, build.id)));
}

/** Refuses a day that nobody means: in other years. */
function refuseDay(day: string, today: string): void {
  const why = impossibleDay('recheck', day, today);
  if (why)
    throw new Refusal('recheck_move', { detail: `${day}: ${why}.`, fields: [{ path: 'day', message: why }] });
}

/** A head was tightened again: every gap under it is another one, so the planned recheck is due at once, whatever was planned. */
export async function lookAtOnce(
  db: Knex,
  buildId: string,
  { personId }: Pick<WriteContext, 'personId'>,
): Promise<BuildRowChange[]> {
  const today = await shopDay(db);
  const [recheck] = await db('rechecks')
    .where({ build_id: buildId, status: 'planned' })
    // no sample speaks for a head whose every gap is another one
    .update({ due_date: today, held: false, sample: '[]', points: null, version: db.raw('version + 1') })
    .returning(['id', 'engine_id']);
  if (!recheck) return [];
  await db('recheck_changes').insert({
    ...{ id: randomUUID(), recheck_id: recheck.id, kind: 'moved', day: today, by: personId },
    why: 'The head was tightened again, which moves every gap under it',
  });
  await refreshForecast(db, recheck.id);
  await refreshExpected(db, recheck.engine_id);
  return recheckChanges(db, buildId);
}
