import { addDays, DUE_IN_LAST_OF, DUE_WITHIN_DAYS, type Day } from '@zero-lash/core/rechecks';

/**
 * How pressing a planned recheck `r` of an engine `e` is, as the core's `dueState` says it: -1 not held, 0 overdue, 1 due, 2 coming, 3 held back;
 * null where none is planned. A property test holds the two together.
 */
export const NEARNESS_SQL = `case
    when r.id is null then null
    when r.after_outcome <> 'held' then -1
    when r.held then 3
    when r.due_date < :day or e.running > r.due_usage or e.heat_cycles > r.due_cycles then 0
    when r.due_date <= :soon or (r.due_usage - e.running) * :parts <= r.due_usage - r.planned_usage
      or (r.due_cycles - e.heat_cycles) * :parts <= r.due_cycles - r.planned_cycles then 1
    else 2
  end`;

/**
 * The day that stands for a planned recheck `r` of an engine `e`, as the core's `recheckDay` says it; null where none can be said.
 * A property test holds the two together.
 */
export const RECHECK_DAY_SQL = `case
    when r.bench_day >= :day then r.bench_day
    when r.due_date < :day then r.due_date
    when e.running > r.due_usage or e.heat_cycles > r.due_cycles then cast(:day as date)
    when coalesce(r.expected_day, r.due_date) is not null
      then greatest(coalesce(r.expected_day, r.due_date), cast(:day as date))
  end`;

/** What `NEARNESS_SQL` and `RECHECK_DAY_SQL` are given for a day in the shop. */
export const nearnessOn = (day: Day) => ({
  day,
  soon: addDays(day, DUE_WITHIN_DAYS),
  parts: DUE_IN_LAST_OF,
});
