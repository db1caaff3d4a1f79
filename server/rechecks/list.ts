import type { RecheckFilters, RecheckList, recheckSearch, RecheckRow } from '@zero-lash/contract/rechecks';
import type { DueState } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { shopDay } from '../clock.ts';
import { NEARNESS_SQL, nearnessOn, RECHECK_DAY_SQL } from './nearness.ts';

/** The states in the order of `NEARNESS_SQL`, which begins at -1. */
const STATES: readonly DueState[] = ['not-held', 'overdue', 'due', 'coming', 'waiting'];

/** Planned rechecks, the most pressing first: one page of them, how many there are, and of which state. */
export async function listRechecks(
  db: Knex,
  { state, owner, place, sheet, from, to, limit, offset }: z.output<typeof recheckSearch>,
): Promise<RecheckList> {
  const today = await shopDay(db);
  const narrowed = [
    ...(owner ? ['e.owner_id = :owner'] : []),
    ...(place === undefined ? [] : ['e.place = :place']),
    ...(sheet ? ['e.sheet_id = :sheet'] : []),
    ...(from ? [`(${RECHECK_DAY_SQL}) >= :from`] : []),
    ...(to ? [`(${RECHECK_DAY_SQL}) <= :to`] : []),
  ].map((term) => `and ${term}`);
  const wanted = state === 'open' ? null : STATES.indexOf(state) - 1;
  const { rows } = await db.raw(
    `with planned as materialized (
       select r.id, e.name, ${NEARNESS_SQL} as nearness, ${RECHECK_DAY_SQL} as on_day
         from rechecks r join engines e on e.id = r.engine_id
        where r.status = 'planned' and e.put_away_at is null ${narrowed.join(' ')}
     ), page as (
       select * from planned ${wanted === null ? '' : 'where nearness = :wanted'}
        order by nearness, on_day nulls last, name, id limit :limit offset :offset
     )
     select
       (select json_object_agg(nearness, count) from (select nearness, count(*)::int from planned group by 1) c) as counts,
       (select coalesce(json_agg(json_build_object(
          'id', r.id, 'sequence', r.sequence, 'dueUsage', r.due_usage, 'dueDate', r.due_date, 'dueCycles', r.due_cycles,
          'nearness', p.nearness, 'buildId', r.build_id, 'engineId', e.id, 'engine', e.name, 'owner', e.owner,
          'place', e.place, 'sheetName', s.name, 'usageUnit', e.usage_unit, 'usage', e.usage, 'running', e.running,
          'heatCycles', e.heat_cycles, 'season', r.season, 'seasonFrom', r.season_from,
          'seasonUntil', r.season_until, 'points', r.points, 'byForecast', r.by_forecast, 'onHold', r.held, 'late', r.late_round is not null,
          'benchDay', r.bench_day, 'expectedDay', r.expected_day, 'earliestDay', r.earliest_day,
          'latestDay', r.latest_day, 'version', r.version,
          'unlike', coalesce((select json_agg(json_build_object('point', f->>'point', 'way', f->>'unlike'))
             from jsonb_array_elements(r.forecast->'points') f where f->>'unlike' is not null), '[]'))
          order by p.nearness, p.on_day nulls last, p.name, p.id), '[]')
        from page p join rechecks r on r.id = p.id join engines e on e.id = r.engine_id join sheets s on s.id = e.sheet_id) as list`,
    {
      ...nearnessOn(today),
      ...given({ owner, place, sheet, from, to }),
      ...given({ wanted }),
      limit,
      offset,
    },
  );
  const found = rows[0] as {
    counts: Partial<Record<string, number>> | null;
    list: (Omit<RecheckRow, 'state'> & { nearness: number })[];
  };
  const count = (of: DueState) => found.counts?.[String(STATES.indexOf(of) - 1)] ?? 0;
  const counts = Object.fromEntries(STATES.map((each) => [each, count(each)])) as RecheckList['counts'];
  return {
    day: today,
    counts,
    total: state === 'open' ? Object.values(counts).reduce((sum, one) => sum + one, 0) : counts[state],
    rechecks: found.list.map(({ nearness, ...row }) => ({ ...row, state: STATES[nearness + 1]! })),
  };
}

/** Only what is given: knex refuses a name that it does not find in the query. */
function given<Value>(all: Readonly<Record<string, Value | null | undefined>>): Record<string, Value> {
  return Object.fromEntries(
    Object.entries(all).filter(
      (entry): entry is [string, Value] => entry[1] !== undefined && entry[1] !== null,
    ),
  );
}

/** Everything the list may be narrowed by: owners, places and patterns of engines that a recheck is planned for. */
export async function readFilters(db: Knex): Promise<RecheckFilters> {
  const { rows } = await db.raw(
    `with planned as (
       select e.* from rechecks r join engines e on e.id = r.engine_id where r.status = 'planned' and e.put_away_at is null
     )
     select
       (select coalesce(json_agg(json_build_object('id', id, 'name', name) order by lower(name)), '[]')
         from owners where id in (select owner_id from planned)) as owners,
       (select coalesce(json_agg(place order by lower(place)), '[]')
         from (select distinct place from planned where place <> '') p) as places,
       (select coalesce(json_agg(json_build_object('id', id, 'name', maker || ' ' || name) order by maker, name), '[]')
         from sheets where id in (select sheet_id from planned)) as sheets`,
  );
  return rows[0] as RecheckFilters;
}
