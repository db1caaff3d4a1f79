import type { BuildRowChange, BuildWrite } from '@zero-lash/contract/builds';
import { isUndecided } from '@zero-lash/core/builds';
import { whyNoProof, type KeptReading } from '@zero-lash/core/measuring';
import { nextRecheck, type RecheckOutcome, type RecheckStep } from '@zero-lash/core/rechecks';
import { lashPoints } from '@zero-lash/core/sheets';
import type { Knex } from 'knex';
import { takeUpByPart, written, type TakenUp } from '../builds/course.ts';
import { whenTaken, type Hand } from '../builds/hand.ts';
import { shopDay } from '../clock.ts';
import { readRoundRows } from '../measuring/rounds.ts';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';
import { readRechecks } from './read.ts';

interface PlannedAfter {
  readonly sequence: number;
  /** what the engine has run when it is planned */
  readonly usage: number;
  /** what the recheck before it came to; null for the first */
  readonly after: RecheckOutcome | null;
  /** a point was let stand as it is: it is looked at sooner */
  readonly watched?: boolean;
}

/**
 * Plans the recheck that follows a sign-off or a recheck, by the build's own spec sheet. One that was planned before, and
 * dropped because what it followed was opened again, is planned anew.
 */
export async function planRecheck(
  db: Knex,
  build: Pick<TakenUp, 'id' | 'engineId'>,
  plan: readonly RecheckStep[],
  { sequence, usage, after, watched = false }: PlannedAfter,
): Promise<void> {
  const due = nextRecheck(plan, sequence, { day: await shopDay(db), usage }, watched);
  await db('rechecks')
    .insert({
      build_id: build.id,
      engine_id: build.engineId,
      sequence,
      planned_usage: usage,
      due_usage: due.dueUsage,
      due_date: due.dueDate,
      after_outcome: after,
      status: 'planned',
    })
    .onConflict(['build_id', 'sequence'])
    .merge();
}

interface RecheckTakenUp {
  readonly id: string;
  readonly sequence: number;
  readonly running: number;
  readonly build: TakenUp;
}

async function takeUpRecheck(db: Knex, id: string): Promise<RecheckTakenUp> {
  const build = await takeUpByPart(db, 'rechecks', id);
  if (!build) throw new Refusal('not_found', { detail: 'There is no such recheck.' });
  const recheck = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .where('r.id', id)
    .first('r.id', 'r.status', 'r.sequence', 'e.running');
  if (recheck.status !== 'planned') throw new Refusal('recheck_done');
  if (build.closedAt) throw new Refusal('build_closed');
  return { ...recheck, build };
}

/**
 * Opens the round of a recheck; opening it again, from another device perhaps, gives the same round. It has the recheck's
 * own id, so that a device that is not connected knows it before it is opened.
 */
export async function openRecheckRound(
  db: Knex,
  id: string,
  takenAt: string | null,
  hand: Hand,
): Promise<BuildWrite> {
  const { build, sequence, running } = await takeUpRecheck(db, id);
  const existing = await db('rounds').where({ recheck_id: id }).first('id');
  if (!existing)
    await db('rounds').insert({
      id,
      build_id: build.id,
      revision_id: build.revisionId,
      recheck_id: id,
      kind: 'recheck',
      number: sequence,
      opened_by: hand.personId,
      opened_at: whenTaken(takenAt, hand, build.openedAt),
      usage: running,
    });
  const [row] = await readRoundRows(db, build.id, existing?.id ?? id);
  return written(build, { kind: 'round', row: row! });
}

/** What the readings of a recheck's round come to, and the points that are not proved either way. */
async function judgeRound(
  db: Knex,
  roundId: string,
  points: readonly string[],
): Promise<{ readonly outcome: RecheckOutcome; readonly left: readonly string[] }> {
  const taken = (await db('readings')
    .where({ round_id: roundId, superseded: false })
    .select('point', 'verdict', 'off_base as offBase', 'taken_at as takenAt', 'reading')) as (Omit<
    KeptReading,
    'takenAt'
  > & { takenAt: Date })[];
  const readings = taken.filter(
    (row) => whyNoProof({ ...row, takenAt: row.takenAt.toISOString() }, null) === null,
  );
  const measured = new Set(readings.map(({ point }) => point));
  const out = readings.some(({ verdict }) => verdict === 'tight' || verdict === 'loose');
  const undecided = readings.some(({ verdict }) => isUndecided(verdict));
  return {
    outcome: out ? 'out' : undecided ? 'undecided' : 'held',
    left: points.filter((key) => !measured.has(key)),
  };
}

/** Judges a recheck once every point is measured, and plans the next. */
export async function closeRecheck(db: Knex, id: string, personId: string): Promise<BuildWrite> {
  const { build, sequence, running } = await takeUpRecheck(db, id);
  const round = await db('rounds').where({ recheck_id: id }).first('id');
  if (!round) throw new Refusal('recheck_incomplete');
  const sheet = await findRevision(db, build.revisionId);
  const { outcome, left } = await judgeRound(
    db,
    round.id,
    lashPoints(sheet.pattern).map(({ key }) => key),
  );
  if (left.length > 0)
    throw new Refusal('recheck_incomplete', {
      detail: `Not measured yet, or only off the base circle, which proves nothing: ${left.join(', ')}.`,
      points: [...left],
    });
  await db('rechecks')
    .where({ id })
    .update({ status: 'done', outcome, done_at: db.fn.now(), done_by: personId });
  await db('rounds').where({ id: round.id }).update({ closed_at: db.fn.now() });
  await planRecheck(db, build, sheet.recheckPlan, { sequence: sequence + 1, usage: running, after: outcome });
  return written(build, ...(await recheckChanges(db, build.id, round.id)));
}

/** Every recheck of a build and the round of one of them, as changes a write brought. */
export async function recheckChanges(db: Knex, buildId: string, roundId: string): Promise<BuildRowChange[]> {
  const [round] = await readRoundRows(db, buildId, roundId);
  const rechecks = await readRechecks(db, { build_id: buildId });
  return [
    ...rechecks.map((row) => ({ kind: 'recheck' as const, row })),
    { kind: 'round' as const, row: round! },
  ];
}
