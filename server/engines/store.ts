import { RUNNING } from '@zero-lash/core/builds';
import type {
  EngineChange,
  EngineRow,
  NewEngine,
  newUsage,
  PutAwayRequest,
} from '@zero-lash/contract/engines';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { whenTaken, type WriteContext } from '../plugins/writeContext.ts';
import { Refusal } from '../plugins/errors.ts';
import { newestPublished } from '../sheets/read.ts';
import { logFigure, readOn, refuseImpossible } from '../usage/store.ts';
import { findEngine } from './read.ts';

export async function addEngine(db: Knex, engine: NewEngine, personId: string): Promise<EngineRow> {
  await refuseTakenName(db, engine.name);
  const newest = await newestPublished(db, engine.sheetId);
  if (!newest) throw new Refusal('sheet_not_published');
  refuseImpossible(newest.usageUnit, { usage: engine.usage, newMeter: null });
  const [row] = await db('engines')
    .insert({
      sheet_id: engine.sheetId,
      name: engine.name,
      serial: engine.serial,
      owner: engine.owner,
      duty: engine.duty,
      place: engine.place ?? '',
      usage_unit: newest.usageUnit,
      usage: engine.usage,
    })
    .returning('id');
  await db('usages').insert({
    engine_id: row!.id,
    usage: engine.usage,
    running: engine.usage,
    by: personId,
  });
  return findEngine(db, row!.id);
}

async function refuseTakenName(db: Knex, name: string, but?: string): Promise<void> {
  const taken = await db('engines').whereRaw('lower(name) = lower(?)', [name]).first('id', 'put_away_at');
  if (taken && taken.id !== but)
    throw new Refusal('name_taken', {
      detail: taken.put_away_at
        ? `An engine called ${name} was retired: bring it back, or take another name.`
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
    .whereNot({ stage: RUNNING })
    .first('number');
  if (onBench) throw new Refusal('engine_on_bench');
  return changeAt(db, id, version, { put_away_at: db.fn.now(), put_away_by: personId, put_away_why: why });
}

/** Brings an engine back that was retired. */
export function bringBack(db: Knex, id: string, version: number): Promise<EngineRow> {
  return changeAt(db, id, version, { put_away_at: null, put_away_by: null, put_away_why: null });
}

/** Changes an engine as somebody saw it. */
export async function changeAt(db: Knex, id: string, version: number, fields: object): Promise<EngineRow> {
  const updated = await db('engines')
    .where({ id, version })
    .update({ ...fields, version: version + 1 });
  const current = await findEngine(db, id);
  if (updated === 0) throw new Refusal('stale', { current });
  return current;
}

/** Logs a running figure as it was read off the engine: when it was written down, or on the day that is named. */
export async function logUsage(
  db: Knex,
  engineId: string,
  { day, takenAt, ...figure }: z.output<typeof newUsage>,
  context: WriteContext,
): Promise<EngineRow> {
  const at = await readOn(db, day, whenTaken(takenAt, context, new Date(0)));
  await logFigure(db, { ...figure, engineId, at, source: 'hand' }, context.personId);
  return findEngine(db, engineId);
}
