import { runningsOf, type RunAt } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { isAhead } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { refreshExpected } from '../rechecks/forecast.ts';

/** A figure of an engine's log as its row has it. */
export interface LogRow {
  readonly id: string;
  readonly usage: number;
  readonly running: number;
  readonly new_meter: boolean;
  readonly old_stopped_at: number | null;
  readonly meter_from: number | null;
  readonly heat_cycles: number | null;
  readonly read_at: Date;
  readonly reason: string;
}

/**
 * The log of an engine as it counts, oldest first: without what was struck out, and without what is said to be from the future,
 * which counts for nothing.
 */
export async function countingLog(db: Knex, engineId: string): Promise<LogRow[]> {
  const rows: LogRow[] = await db('usages')
    .where({ engine_id: engineId, struck_at: null })
    .orderBy(['read_at', 'id'])
    .select(
      'id',
      'usage',
      'running',
      'new_meter',
      'old_stopped_at',
      'meter_from',
      'heat_cycles',
      'read_at',
      'reason',
    );
  return rows.filter(({ read_at: at }) => !isAhead(at));
}

/** A recheck whose due figure moved with the log it was reckoned from. */
export interface MovedRecheck {
  readonly sequence: number;
  readonly from: number;
  readonly to: number;
}

/**
 * Reckons an engine's log again, and what hangs on it: what each figure came to in all, what the engine shows and has run, what its
 * rounds were taken at, and what its planned recheck is due at. Who put something right is told which rechecks moved.
 *
 * @throws Refusal `usage_order` where the figures would run backwards without a word, `usage_last` where none would be left
 */
export async function reckonLog(db: Knex, engineId: string): Promise<MovedRecheck[]> {
  const log = await countingLog(db, engineId);
  const [first] = log;
  if (!first) throw new Refusal('usage_last');
  const reckoned = runningsOf(
    log.map((row) => ({
      usage: row.usage,
      newMeter: row.new_meter ? { lastOfOld: row.old_stopped_at!, startedAt: row.meter_from! } : null,
    })),
    first.new_meter
      ? { running: first.running, meterFrom: first.meter_from! }
      : { running: first.running, meterFrom: await beganAt(db, engineId, first) },
  );
  log.forEach((row, index) => {
    const before = reckoned[index - 1];
    if (before && reckoned[index]!.running < before.running && row.reason === '')
      throw new Refusal('usage_order', {
        detail: `By this ${row.usage} would be less than had been run before it: put that figure right first.`,
      });
  });
  const moved = await moveWith(db, engineId, log, reckoned);
  for (const [index, { id, running }] of log.entries())
    if (reckoned[index]!.running !== running)
      await db('usages').where({ id }).update({ running: reckoned[index]!.running });
  const [last, at] = [log.at(-1)!, reckoned.at(-1)!];
  const cycles = log.findLast((row) => row.heat_cycles !== null)?.heat_cycles ?? null;
  await db('engines')
    .where({ id: engineId })
    .update({
      ...{ usage: last.usage, usage_at: last.read_at, meter_from: at.meterFrom },
      // what it has run in all is made from these
      ran_before: Math.round((at.running - last.usage + at.meterFrom) * 10) / 10,
      ...(cycles === null ? {} : { heat_cycles: cycles }),
    });
  await refreshExpected(db, engineId);
  return moved;
}

/** What the meter of the first figure began at: as the engine has it while it has that meter, and 0 where nobody said. */
async function beganAt(db: Knex, engineId: string, { usage, running }: LogRow): Promise<number> {
  const changed = await db('usages').where({ engine_id: engineId, new_meter: true }).first('id');
  if (changed || usage === running) return 0;
  const { meter_from: from } = (await db('engines').where({ id: engineId }).first('meter_from'))!;
  return from;
}

/** Moves what was written down in all that was run: rounds, and rechecks to come, by what the log then moved by. */
async function moveWith(
  db: Knex,
  engineId: string,
  log: readonly LogRow[],
  reckoned: readonly RunAt[],
): Promise<MovedRecheck[]> {
  const movedBy = (at: Date) => {
    const index = log.findLastIndex((row) => row.read_at <= at);
    return index < 0 ? 0 : Math.round((reckoned[index]!.running - log[index]!.running) * 10) / 10;
  };
  if (log.every((row, index) => row.running === reckoned[index]!.running)) return [];
  const rounds = (await db('rounds as r')
    .join('builds as b', 'b.id', 'r.build_id')
    .where('b.engine_id', engineId)
    .whereNotNull('r.usage')
    .select('r.id', 'r.opened_at as at', 'r.usage')) as { id: string; at: Date; usage: number }[];
  for (const { id, at, usage } of rounds)
    if (movedBy(at) !== 0)
      await db('rounds')
        .where({ id })
        .update({ usage: Math.max(0, usage + movedBy(at)) });
  const rechecks = (await db('rechecks as r')
    .join('builds as b', 'b.id', 'r.build_id')
    .leftJoin('sign_offs as s', 's.build_id', 'b.id')
    .where({ 'r.engine_id': engineId, 'r.status': 'planned' })
    .select('r.id', 'r.sequence', 'r.due_usage', 'r.planned_usage', 'r.plan_usage', {
      // when it was planned: as the one before it was done, or the build signed off
      at: db.raw(
        `coalesce((select max(d.done_at) from rechecks d where d.build_id = r.build_id), s.at, b.last_checked_on::timestamptz, b.opened_at)`,
      ),
    })) as {
    readonly id: string;
    readonly sequence: number;
    readonly due_usage: number | null;
    readonly planned_usage: number;
    readonly plan_usage: number | null;
    readonly at: Date;
  }[];
  const moved: MovedRecheck[] = [];
  for (const { id, sequence, at, due_usage: due, planned_usage: planned, plan_usage: plan } of rechecks) {
    const by = movedBy(at);
    if (by === 0) continue;
    await db('rechecks')
      .where({ id })
      .update({
        ...{ planned_usage: Math.max(0, planned + by), version: db.raw('version + 1') },
        ...(due === null ? {} : { due_usage: due + by }),
        ...(plan === null ? {} : { plan_usage: plan + by }),
      });
    if (due !== null) moved.push({ sequence, from: due, to: due + by });
  }
  return moved;
}

/**
 * Strikes a figure out of an engine's log: it stays, with who and why, and counts for nothing. A change of meter is undone the same
 * way. What follows from the log is reckoned again.
 *
 * @throws Refusal `usage_last` where it is the only one, `not_found` where it is none of this engine's that counts
 */
export async function strikeFigure(
  db: Knex,
  {
    engineId,
    id,
    why,
    by,
  }: { readonly engineId: string; readonly id: string; readonly why: string; readonly by: string },
): Promise<MovedRecheck[]> {
  await db('engines').where({ id: engineId }).forNoKeyUpdate().first('id');
  const struck = await db('usages')
    .where({ id, engine_id: engineId, struck_at: null })
    .update({ struck_at: db.fn.now(), struck_by: by, struck_why: why });
  if (struck === 0)
    throw new Refusal('not_found', {
      detail: 'There is no such figure in its log, or it was struck out already.',
    });
  return reckonLog(db, engineId);
}
