import type {
  EngineChange,
  EngineRow,
  NewEngine,
  newUsage,
  PutAwayRequest,
} from '@zero-lash/contract/engines';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { Refusal } from '../plugins/errors.ts';
import { newestPublished } from '../sheets/read.ts';
import { findEngine } from './read.ts';

export async function addEngine(db: Knex, engine: NewEngine, personId: string): Promise<EngineRow> {
  await refuseTakenName(db, engine.name);
  const newest = await newestPublished(db, engine.sheetId);
  if (!newest) throw new Refusal('sheet_not_published');
  const [row] = await db('engines')
    .insert({
      sheet_id: engine.sheetId,
      name: engine.name,
      serial: engine.serial,
      owner: engine.owner,
      duty: engine.duty,
      usage_unit: newest.usageUnit,
      usage: engine.usage,
    })
    .returning('id');
  await db('usages').insert({
    engine_id: row.id,
    usage: engine.usage,
    running: engine.usage,
    by: personId,
  });
  return findEngine(db, row.id);
}

async function refuseTakenName(db: Knex, name: string, but?: string): Promise<void> {
  const taken = await db('engines').whereRaw('lower(name) = lower(?)', [name]).first('id', 'put_away_at');
  if (taken && taken.id !== but)
    throw new Refusal('name_taken', {
      detail: taken.put_away_at
        ? `An engine called ${name} was put away: bring it back, or take another name.`
        : `There is an engine called ${name} already.`,
      fields: [{ path: 'name', message: 'is taken' }],
    });
}

export async function changeEngine(db: Knex, id: string, change: EngineChange): Promise<EngineRow> {
  const { version, ...fields } = change;
  await refuseTakenName(db, change.name, id);
  return changeAt(db, id, version, fields);
}

/**
 * Puts an engine out of the way, with its whole record: it is in no list and nothing of it is due, until it is brought back.
 *
 * @throws Refusal `engine_on_bench` while a build of it is worked on
 */
export async function putAway(
  db: Knex,
  id: string,
  { version, why }: PutAwayRequest,
  personId: string,
): Promise<EngineRow> {
  const engine = await db('engines').where({ id }).forNoKeyUpdate().first('id');
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  const onBench = await db('builds')
    .where({ engine_id: id, closed_at: null })
    .whereNot({ stage: 'run-in' })
    .first('number');
  if (onBench) throw new Refusal('engine_on_bench');
  return changeAt(db, id, version, { put_away_at: db.fn.now(), put_away_by: personId, put_away_why: why });
}

/** Brings an engine back that was put away. */
export function bringBack(db: Knex, id: string, version: number): Promise<EngineRow> {
  return changeAt(db, id, version, { put_away_at: null, put_away_by: null, put_away_why: null });
}

/** Changes an engine as somebody saw it. */
async function changeAt(db: Knex, id: string, version: number, fields: object): Promise<EngineRow> {
  const updated = await db('engines')
    .where({ id, version })
    .update({ ...fields, version: version + 1 });
  const current = await findEngine(db, id);
  if (updated === 0) throw new Refusal('stale', { current });
  return current;
}

/**
 * Logs a running figure. One below the last needs a reason, where a slip is put right; or it is the first of a new
 * meter, and what the engine has run goes on from where the old one stopped.
 */
export async function logUsage(
  db: Knex,
  engineId: string,
  { usage, reason, newMeter }: z.output<typeof newUsage>,
  personId: string,
): Promise<EngineRow> {
  const engine = await db('engines')
    .where({ id: engineId })
    .forNoKeyUpdate()
    .first<{ usage: number; running: number; meter_from: number } | undefined>(
      'usage',
      'running',
      'meter_from',
    );
  if (!engine) throw new Refusal('not_found', { detail: 'There is no such engine.' });
  if (newMeter) {
    if (newMeter.lastOfOld < engine.usage)
      throw new Refusal('usage_back', {
        detail: `The old meter was last read at ${engine.usage}: it cannot have stopped below that.`,
        fields: [{ path: 'newMeter.lastOfOld', message: `below the last figure, ${engine.usage}` }],
      });
    await db('engines')
      .where({ id: engineId })
      .update({
        usage,
        usage_at: db.fn.now(),
        ran_before: engine.running + (newMeter.lastOfOld - engine.usage),
        meter_from: newMeter.startedAt,
      });
  } else {
    refuseBack(engine, usage, reason);
    await db('engines').where({ id: engineId }).update({ usage, usage_at: db.fn.now() });
  }
  const [logged] = await db('engines').where({ id: engineId }).select('running');
  await db('usages').insert({
    engine_id: engineId,
    usage,
    running: logged.running,
    new_meter: newMeter !== null,
    reason: newMeter ? meterInWords(newMeter, reason) : reason,
    by: personId,
  });
  return findEngine(db, engineId);
}

function refuseBack(
  { usage: last, meter_from: meterFrom }: { readonly usage: number; readonly meter_from: number },
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
