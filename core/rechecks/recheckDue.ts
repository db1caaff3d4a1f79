import { addDays, daysBetween, type Day } from './calendar.ts';
import { nextOf } from './season.ts';

/** One step of a recheck plan, and what the engine has run. */
export interface RecheckDueInput {
  readonly from: { readonly day: Day; readonly usage: number };
  readonly step: {
    readonly afterUsage: number | null;
    readonly afterDays: number | null;
    /** the day of the year before which it is looked at, `MM-DD`: before the season */
    readonly before?: string | undefined;
  };
  readonly log: readonly { readonly day: Day; readonly usage: number }[];
  /** how far back from the last day of the log it is believed; days */
  readonly windowDays?: number | undefined;
}

/** When a recheck is due, and on which day it will be by how the engine is really used. */
export interface RecheckExpected {
  readonly dueUsage: number | null;
  readonly dueDate: Day | null;
  readonly expectedDay: Day | null;
  /** where it runs as it does on its busiest tenth of days */
  readonly earliestDay: Day | null;
  readonly latestDay: Day | null;
}

const USUAL_WINDOW = 365;
const LEAST_LOGGED = 3;
const ON_BOUNDARY = 1e-9;

/**
 * Works out when a recheck is due by running, calendar or season, whichever is first, and the day that will be.
 *
 * Rule: running is reckoned by the median of all slopes between two days of the log within the window, slow and fast by their
 * 10th and 90th percentile; under three days of it nothing is reckoned, and the date stands.
 *
 * @throws RangeError where the step has neither running nor days nor a season
 * @example recheckDue(given('recheck-due')).dueUsage // 804.8
 */
export function recheckDue({ from, step, log, windowDays = USUAL_WINDOW }: RecheckDueInput): RecheckExpected {
  const { afterUsage, afterDays, before } = step;
  if (afterUsage === null && afterDays === null && before === undefined)
    throw new RangeError('step: a recheck needs running, days or a season');
  const dueUsage = afterUsage === null ? null : Math.round((from.usage + afterUsage) * 1e6) / 1e6;
  const dueDate = earliest([
    afterDays === null ? null : addDays(from.day, afterDays),
    before === undefined ? null : nextOf(before, from.day),
  ]);
  const logged = byDay(log);
  const last = logged.at(-1);
  const rates = last ? ratesWithin(logged, addDays(last.day, -windowDays)) : null;
  const reachedAt = (rate: number): Day | null => {
    if (dueUsage === null || !last || rate <= 0) return null;
    const days = Math.ceil(Math.max(0, dueUsage - last.usage) / rate - ON_BOUNDARY);
    return addDays(last.day, days);
  };
  const on = (rank: number) => (rates ? earliest([reachedAt(quantile(rates, rank)), dueDate]) : dueDate);
  return { dueUsage, dueDate, expectedDay: on(0.5), earliestDay: on(0.9), latestDay: on(0.1) };
}

/** The first of the days that are any. */
function earliest(days: readonly (Day | null)[]): Day | null {
  return days.filter((day) => day !== null).sort()[0] ?? null;
}

/** One figure a day, in order: of two on one day the later listed stands. */
function byDay(log: RecheckDueInput['log']): RecheckDueInput['log'] {
  const days = new Map(log.map((entry) => [entry.day, entry]));
  return [...days.values()].sort((a, b) => (a.day < b.day ? -1 : 1));
}

/** Usage a day between every two days of the log from a day on, in order; null under three such days. */
function ratesWithin(logged: RecheckDueInput['log'], since: Day): number[] | null {
  const days = logged.filter(({ day }) => day >= since);
  if (days.length < LEAST_LOGGED) return null;
  return days
    .flatMap((later, index) =>
      days
        .slice(0, index)
        .map((earlier) => (later.usage - earlier.usage) / daysBetween(earlier.day, later.day)),
    )
    .sort((a, b) => a - b);
}

/** The figure at a rank of figures in order, linear between two. */
function quantile(sorted: readonly number[], rank: number): number {
  const place = rank * (sorted.length - 1);
  const below = Math.floor(place);
  const above = Math.min(below + 1, sorted.length - 1);
  return sorted[below]! + (place - below) * (sorted[above]! - sorted[below]!);
}
