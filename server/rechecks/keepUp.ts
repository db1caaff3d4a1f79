import { setTimeout as pause } from 'node:timers/promises';
import type { Knex } from 'knex';
import { lockByPart, written } from '../builds/lock.ts';
import { toldOf } from '../builds/write.ts';
import { announce, announceChange } from '../plugins/bus.ts';
import { refreshExpected } from './forecast.ts';
import { refreshForecast } from './planning.ts';
import { recheckChanges } from './read.ts';

/** So many at a time, those that were forecast longest ago first; the rest wait for the next time. */
const MOST = 100;
/** Between one and the next, so that whoever works meanwhile is not kept waiting. */
const PAUSE_MS = 50;

/**
 * Forecasts planned rechecks again of whose pattern the shop has learned something since, and tells whoever looks at one that
 * comes sooner for it.
 *
 * @returns how many were forecast again
 * @example await keepForecastsUp(db) // 12
 */
export async function keepForecastsUp(db: Knex): Promise<number> {
  const { rows } = await db.raw(
    `with learned as (
       select s.id, (select max(c.at) from point_checks c where c.sheet_id = s.id) as at from sheets s
     )
     select r.id from rechecks r
       join engines e on e.id = r.engine_id
       join builds b on b.id = r.build_id
       join sheet_revisions v on v.id = b.revision_id
       join learned l on l.id = v.sheet_id
      where r.status = 'planned' and e.put_away_at is null
        -- what was written while this was forecast may have been missed
        and (r.forecast_at is null or l.at > r.forecast_at - interval '1 minute')
      order by r.forecast_at nulls first limit :most`,
    { most: MOST },
  );
  for (const { id } of rows as { id: string }[]) {
    await pause(PAUSE_MS);
    await db.transaction(async (transaction) => {
      // as every write in a build does, it waits for the one before it
      await transaction('builds')
        .whereIn('id', transaction('rechecks').where({ id }).select('build_id'))
        .forNoKeyUpdate()
        .first('id');
      const before = await dueOf(transaction, id);
      if (before?.status !== 'planned') return;
      await refreshForecast(transaction, id);
      await refreshExpected(transaction, before.engine_id);
      const after = (await dueOf(transaction, id))!;
      if (after.due_usage === before.due_usage && after.by_forecast === before.by_forecast) return;
      const build = (await lockByPart(transaction, 'rechecks', id))!;
      await transaction('rechecks').where({ id }).increment('version', 1);
      await announce(transaction, toldOf(written(build, ...(await recheckChanges(transaction, build.id)))));
      await announceChange(transaction, ['rechecks']);
    });
  }
  return rows.length;
}

const dueOf = (db: Knex, id: string) =>
  db('rechecks').where({ id }).first('status', 'engine_id', 'due_usage', 'by_forecast');
