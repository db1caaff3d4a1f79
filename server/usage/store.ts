import type { usageLine, usageRound, UsageRoundTaken } from '@zero-lash/contract/usage';
import type { UsageUnit } from '@zero-lash/contract/values';
import { impossible, impossibleDay } from '@zero-lash/core/bounds';
import { runningWarning } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { clock, dayIn, isAhead, shopZone } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';
import { refreshExpected } from '../rechecks/forecast.ts';
import { reckonLog } from './log.ts';

/** A figure off a meter as it is written down: at a moment, and from where. */
export interface MeterFigure extends Omit<z.output<typeof usageLine>, 'day'> {
  readonly at: Date;
  /** it was read before what was logged last: it goes into the log where it belongs */
  readonly source: 'hand' | 'csv' | 'feed';
}

interface Logged {
  readonly usage: number;
  readonly running: number;
  readonly new_meter: boolean;
  readonly read_at: Date;
}

interface EngineMeter {
  readonly name: string;
  readonly usage: number;
  readonly running: number;
  readonly meter_from: number;
  readonly usage_at: Date;
  readonly heat_cycles: number;
  readonly usage_unit: UsageUnit;
  readonly put_away_at: Date | null;
}

const tenth = (figure: number) => Math.round(figure * 10) / 10;

/**
 * Writes a running figure down. One below the last needs a reason, where a slip is put right; or it is the first of a new
 * meter, and what the engine has run goes on from where the old one stopped. One read before the last goes into the log where
 * it belongs, if it fits between its neighbours. Nothing is ever written over: a correction is a row of its own.
 *
 * @returns `already` where the very same figure of that moment is there
 * @throws Refusal `usage_back` where it runs backwards, `usage_far` where it is more than can have been run, `usage_order` where it does not fit where it belongs
 */
export async function logFigure(
  db: Knex,
  figure: MeterFigure,
  personId: string,
): Promise<'taken' | 'already'> {
  const engine = await db('engines')
    .where({ id: figure.engineId })
    .forNoKeyUpdate()
    .first<EngineMeter | undefined>(
      'name',
      'usage',
      'running',
      'meter_from',
      'usage_at',
      'heat_cycles',
      'usage_unit',
      'put_away_at',
    );
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  if (engine.put_away_at) throw new Refusal('engine_put_away');
  refuseImpossible(engine.usage_unit, figure);
  const same = await db('usages')
    .where({ engine_id: figure.engineId, read_at: figure.at, usage: figure.usage, struck_at: null })
    .first('id');
  if (same) return 'already';
  if (isAhead(figure.at))
    throw new Refusal('usage_order', { detail: `${figure.at.toISOString().slice(0, 10)} has not come yet.` });
  // a figure from the future counts for nothing: what the engine shows is what was read before it
  if (isAhead(engine.usage_at)) {
    await reckonLog(db, figure.engineId);
    return logFigure(db, figure, personId);
  }
  const past = figure.at.getTime() < engine.usage_at.getTime();
  // a change of meter before what is logged already: what came after it is reckoned again
  const changed = past && figure.newMeter !== null;
  const running = changed ? 0 : past ? await runningThen(db, figure) : await moveOn(db, engine, figure);
  const reason = figure.reason || (figure.sure ? 'asked about, and right' : '');
  await db('usages').insert({
    ...{ engine_id: figure.engineId, usage: figure.usage, running, read_at: figure.at },
    ...{
      new_meter: figure.newMeter !== null,
      old_stopped_at: figure.newMeter?.lastOfOld ?? null,
      meter_from: figure.newMeter?.startedAt ?? null,
      heat_cycles: figure.heatCycles,
      source: figure.source,
      by: personId,
    },
    reason: figure.newMeter ? meterInWords(figure.newMeter, reason) : reason,
  });
  if (changed) await reckonLog(db, figure.engineId);
  else await refreshExpected(db, figure.engineId);
  return 'taken';
}

/** Brings an engine's own figures on, and gives what it has run in all. */
async function moveOn(db: Knex, engine: EngineMeter, figure: MeterFigure): Promise<number> {
  const { engineId, usage, newMeter, reason, heatCycles, at } = figure;
  if (heatCycles !== null && heatCycles < engine.heat_cycles && reason === '')
    throw new Refusal('usage_back', {
      detail: `${engine.heat_cycles} heat cycles were counted already. Fewer need a reason.`,
      fields: [{ path: 'heatCycles', message: `below the last count, ${engine.heat_cycles}` }],
    });
  if (newMeter && newMeter.lastOfOld < engine.usage)
    throw new Refusal('usage_back', {
      detail: `The old meter was last read at ${engine.usage}: it cannot have stopped below that.`,
      fields: [{ path: 'newMeter.lastOfOld', message: `below the last figure, ${engine.usage}` }],
    });
  if (!newMeter) refuseBack(engine, usage, reason);
  await refuseFar(db, engine, figure);
  const [moved] = await db('engines')
    .where({ id: engineId })
    .update({
      ...{ usage, usage_at: at },
      ...(heatCycles === null ? {} : { heat_cycles: heatCycles }),
      ...(newMeter
        ? {
            ran_before: tenth(engine.running + (newMeter.lastOfOld - engine.usage)),
            meter_from: newMeter.startedAt,
          }
        : {}),
    })
    .returning('running');
  return moved!.running;
}

/** What an engine had run in all at a moment that was passed over, if the figure fits between those round it. */
async function runningThen(db: Knex, { engineId, usage, at }: MeterFigure): Promise<number> {
  const log = () =>
    db('usages')
      .where({ engine_id: engineId, struck_at: null })
      .select<Logged[]>('usage', 'running', 'new_meter', 'read_at');
  const [before] = await log().where('read_at', '<=', at).orderBy('read_at', 'desc').limit(1);
  const [after] = await log().where('read_at', '>', at).orderBy('read_at').limit(1);
  const same = after && !after.new_meter ? after : before;
  if (!same) throw new Refusal('usage_order');
  const running = tenth(same.running + (usage - same.usage));
  if ((before && running < before.running) || (after && running > after.running))
    throw new Refusal('usage_order', {
      detail: `It does not fit between ${[before?.usage ?? 'the beginning', after?.usage ?? 'now'].join(' and ')}, which were logged round that day.`,
      fields: [{ path: 'usage', message: 'out of order' }],
    });
  return running;
}

/** Refuses a figure that no engine of its unit has run. */
export function refuseImpossible(
  unit: UsageUnit,
  { usage, newMeter }: Pick<MeterFigure, 'usage' | 'newMeter'>,
): void {
  const figures = {
    usage,
    'newMeter.lastOfOld': newMeter?.lastOfOld,
    'newMeter.startedAt': newMeter?.startedAt,
  };
  for (const [path, figure] of Object.entries(figures)) {
    const message = figure === undefined ? null : impossible(unit, figure);
    if (message)
      throw new Refusal('invalid', { detail: `${figure}: ${message}.`, fields: [{ path, message }] });
  }
}

/** Asks about a figure that is more than can have been run, until somebody says that it is right, or why. */
async function refuseFar(db: Knex, engine: EngineMeter, figure: MeterFigure): Promise<void> {
  const { usage, newMeter, sure, reason, at } = figure;
  if (sure || reason !== '') return;
  const zone = await shopZone(db);
  const last = { usage: engine.usage, on: dayIn(zone, engine.usage_at) };
  const now = newMeter?.lastOfOld ?? usage;
  if (runningWarning(now, last, dayIn(zone, at), engine.usage_unit))
    throw new Refusal('usage_far', {
      detail: `${now} is more than can have been run since ${engine.usage} was logged. If it is right, say so.`,
      fields: [{ path: newMeter ? 'newMeter.lastOfOld' : 'usage', message: 'more than can have been run' }],
    });
}

function refuseBack(
  { usage: last, meter_from: meterFrom }: Pick<EngineMeter, 'usage' | 'meter_from'>,
  usage: number,
  reason: string,
): void {
  if (usage < meterFrom)
    throw new Refusal('usage_back', {
      detail: `This meter read ${meterFrom} when it was fitted. A lower figure is another meter’s: say that a new one was fitted.`,
      fields: [{ path: 'usage', message: `below what this meter began at, ${meterFrom}` }],
    });
  if (usage < last && reason === '')
    throw new Refusal('usage_back', {
      detail: `The last figure was ${last}. A lower one needs a reason, or a new meter.`,
      fields: [{ path: 'usage', message: `below the last figure, ${last}` }],
    });
}

function meterInWords(
  { lastOfOld, startedAt }: { readonly lastOfOld: number; readonly startedAt: number },
  reason: string,
): string {
  const fitted = `new meter, begun at ${startedAt}; the old one stopped at ${lastOfOld}`;
  return reason === '' ? fitted : `${fitted}: ${reason}`;
}

/** Writes a round of meters down, each line by itself: what cannot be is said of its line, and keeps no other back. */
export async function logRound(
  db: Knex.Transaction,
  { source, lines }: z.output<typeof usageRound>,
  personId: string,
): Promise<UsageRoundTaken> {
  const answers: UsageRoundTaken['lines'] = [];
  for (const { day, ...line } of lines) {
    try {
      const at = await readOn(db, day);
      // a line that is refused takes back what it wrote itself, and nothing else
      const state = await db.transaction((own) => logFigure(own, { ...line, at, source }, personId));
      answers.push({
        ...{ engineId: line.engineId, state, code: null },
        detail: state === 'already' ? 'is in the log already' : '',
      });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      answers.push({
        ...{ engineId: line.engineId, state: 'refused', code: error.code, detail: error.message },
      });
    }
  }
  return { lines: answers };
}

/**
 * The moment a figure was read: when it was written down, or on the day that is named. A day's figure stands at noon,
 * wherever the shop is, for the hour was not said.
 *
 * @throws Refusal `usage_order` where the day has not come yet, or is of another age
 */
export async function readOn(db: Knex, day: string | null, writtenAt = clock.now()): Promise<Date> {
  if (day === null) return writtenAt;
  const zone = await shopZone(db);
  const why = impossibleDay('meter', day, dayIn(zone));
  if (why) throw new Refusal('usage_order', { detail: `${day}: ${why}.` });
  return day === dayIn(zone, writtenAt) ? writtenAt : new Date(`${day}T12:00:00Z`);
}
