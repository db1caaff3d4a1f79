import type { EngineView } from '@zero-lash/contract/engines';
import { lashPoints } from '@zero-lash/core/sheets';
import { isUndecided } from '@zero-lash/core/builds';
import { whyNoProof, type KeptReading } from '@zero-lash/core/measuring';
import { dueState, nextRecheck, type RecheckStep } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { shopDay } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { findRevision } from '../sheets/read.ts';

/** Rechecks, newest first; those still planned carry how near they are. */
export async function readRechecks(
  db: Knex,
  narrow: { readonly engine_id: string } | { readonly build_id: string },
): Promise<EngineView['rechecks']> {
  const today = await shopDay(db);
  const rows = await db('rechecks as r')
    .join('engines as e', 'e.id', 'r.engine_id')
    .leftJoin('people as p', 'p.id', 'r.done_by')
    .where(Object.fromEntries(Object.entries(narrow).map(([key, value]) => [`r.${key}`, value])))
    .orderByRaw('coalesce(r.done_at, now()) desc, r.sequence desc')
    .select(
      'r.id',
      'r.build_id as buildId',
      'r.sequence',
      'r.planned_usage as plannedUsage',
      'r.due_usage as dueUsage',
      'r.due_date as dueDate',
      'r.status',
      'r.outcome',
      'r.done_at as doneAt',
      'p.name as doneBy',
      'e.running',
    );
  return rows.map(({ plannedUsage, running, ...row }) => ({
    ...row,
    state: row.status === 'planned' ? dueState(row, plannedUsage, { day: today, usage: running }) : null,
  }));
}

/** Plans the recheck that follows a sign-off or a recheck, by the build's own spec sheet. */
export async function planRecheck(
  db: Knex,
  build: { readonly id: string; readonly engineId: string },
  plan: readonly RecheckStep[],
  sequence: number,
  usage: number,
): Promise<void> {
  const due = nextRecheck(plan, sequence, { day: await shopDay(db), usage });
  await db('rechecks').insert({
    build_id: build.id,
    engine_id: build.engineId,
    sequence,
    planned_usage: usage,
    due_usage: due.dueUsage,
    due_date: due.dueDate,
  });
}

async function lockRecheck(db: Knex, id: string) {
  await db('builds')
    .whereIn('id', db('rechecks').where({ id }).select('build_id'))
    .forNoKeyUpdate()
    .first('id');
  const recheck = await db('rechecks as r')
    .join('builds as b', 'b.id', 'r.build_id')
    .join('engines as e', 'e.id', 'b.engine_id')
    .where('r.id', id)
    .first(
      'r.id',
      'r.status',
      'r.sequence',
      'b.id as buildId',
      'b.engine_id as engineId',
      'b.revision_id as revisionId',
      'b.closed_at as closedAt',
      'e.running',
    );
  if (!recheck) throw new Refusal('not_found', { detail: 'There is no such recheck.' });
  if (recheck.status !== 'planned') throw new Refusal('recheck_done');
  if (recheck.closedAt) throw new Refusal('build_closed');
  return recheck;
}

/** Opens the round of a recheck; opening it again gives the same round. Returns the build's id. */
export async function openRecheckRound(db: Knex, id: string, personId: string): Promise<string> {
  const recheck = await lockRecheck(db, id);
  const existing = await db('rounds').where({ recheck_id: id }).first('id');
  if (!existing)
    await db('rounds').insert({
      build_id: recheck.buildId,
      revision_id: recheck.revisionId,
      recheck_id: id,
      kind: 'recheck',
      number: recheck.sequence,
      opened_by: personId,
      usage: recheck.running,
    });
  return recheck.buildId;
}

/** Judges a recheck once every point is measured, and plans the next. Returns the build's id. */
export async function closeRecheck(db: Knex, id: string, personId: string): Promise<string> {
  const recheck = await lockRecheck(db, id);
  const round = await db('rounds').where({ recheck_id: id }).first('id');
  if (!round) throw new Refusal('recheck_incomplete');
  const sheet = await findRevision(db, recheck.revisionId);
  const taken = (await db('readings')
    .where({ round_id: round.id, superseded: false })
    .select('point', 'verdict', 'off_base as offBase', 'taken_at as takenAt', 'reading')) as (Omit<
    KeptReading,
    'takenAt'
  > & { takenAt: Date })[];
  const readings = taken.filter(
    (row) => whyNoProof({ ...row, takenAt: row.takenAt.toISOString() }, null) === null,
  );
  const measured = new Set(readings.map(({ point }) => point));
  const left = lashPoints(sheet.pattern)
    .map(({ key }) => key)
    .filter((key) => !measured.has(key));
  if (left.length > 0)
    throw new Refusal('recheck_incomplete', {
      detail: `Not measured yet, or only off the base circle, which proves nothing: ${left.join(', ')}.`,
      points: left,
    });
  const out = readings.some(({ verdict }) => verdict === 'tight' || verdict === 'loose');
  const undecided = readings.some(({ verdict }) => isUndecided(verdict));
  await db('rechecks')
    .where({ id })
    .update({
      status: 'done',
      outcome: out ? 'out' : undecided ? 'undecided' : 'held',
      done_at: db.fn.now(),
      done_by: personId,
    });
  await db('rounds').where({ id: round.id }).update({ closed_at: db.fn.now() });
  await planRecheck(
    db,
    { id: recheck.buildId, engineId: recheck.engineId },
    sheet.recheckPlan,
    recheck.sequence + 1,
    recheck.running,
  );
  return recheck.buildId;
}
