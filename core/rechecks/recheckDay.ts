import { counted } from '../length/index.ts';
import { dayInWords, daysBetween, type Day } from './calendar.ts';

/** A planned recheck with what its engine has run, as far as the day that stands for it goes. */
export interface DatedRecheck {
  /** the day it is planned on the bench */
  readonly benchDay: Day | null;
  /** the day it is expected on by how the engine is used, or its date where that is earlier */
  readonly expectedDay: Day | null;
  readonly dueDate: Day | null;
  /** running in all, as `running` counts */
  readonly dueUsage: number | null;
  readonly dueCycles: number | null;
  readonly running: number;
  readonly heatCycles: number;
}

/**
 * The one day that stands for a planned recheck, and why that one: planned on the bench, past its date (`late`), past its running or
 * heat cycles (`over`), expected by its use, or expected before today by a meter that nobody has read since (`unread`).
 */
export interface RecheckDay {
  readonly by: 'bench' | 'late' | 'over' | 'expected' | 'unread';
  /** the day itself: of one past its date that date, of what is over or unread today */
  readonly day: Day;
}

/**
 * Says on which day a planned recheck stands: the same in every list, on the calendar and in letters.
 *
 * Rule: a bench day that has not gone by; else a date that has; else today where its running or heat cycles are past; else the
 * day it is expected on, and today where that has gone by, since only its meter can say whether it is past.
 *
 * @param today the shop's day
 * @returns null where no day can be said
 * @example
 * recheckDay({ benchDay: null, expectedDay: '2030-02-01', dueDate: '2030-02-20', dueUsage: 100, dueCycles: null, running: 90, heatCycles: 0 }, '2030-02-03')
 * // { by: 'unread', day: '2030-02-03' }
 */
export function recheckDay(recheck: DatedRecheck, today: Day): RecheckDay | null {
  const { benchDay, expectedDay, dueDate, dueUsage, dueCycles, running, heatCycles } = recheck;
  if (benchDay !== null && benchDay >= today) return { by: 'bench', day: benchDay };
  if (dueDate !== null && dueDate < today) return { by: 'late', day: dueDate };
  if ((dueUsage !== null && running > dueUsage) || (dueCycles !== null && heatCycles > dueCycles))
    return { by: 'over', day: today };
  const expected = expectedDay ?? dueDate;
  if (expected === null) return null;
  return expected < today ? { by: 'unread', day: today } : { by: 'expected', day: expected };
}

/**
 * Says when a planned recheck stands, in a few words.
 *
 * @param unit what its engine's meter counts
 * @returns an empty text where no day can be said
 * @example
 * recheckDayInWords({ benchDay: '2030-02-05', expectedDay: null, dueDate: null, dueUsage: null, dueCycles: null, running: 0, heatCycles: 0 }, '2030-02-03', 'hours')
 * // 'on the bench 5 Feb 2030, in 2 days'
 */
export function recheckDayInWords(recheck: DatedRecheck, today: Day, unit: string): string {
  const stands = recheckDay(recheck, today);
  if (stands === null) return '';
  const inDays = daysInWords(stands.day, today);
  switch (stands.by) {
    case 'bench':
      return `on the bench ${dayInWords(stands.day)}, ${inDays}`;
    case 'late':
    case 'expected':
      return inDays;
    case 'over':
      return overInWords(recheck, unit);
    case 'unread':
      return 'reached by now, as it is used: read its meter';
  }
}

/**
 * Says when a planned recheck stands, as a sentence of a letter or a paper that is read on another day.
 *
 * @returns an empty text where its date or its figure says all
 * @example
 * recheckDayInLetter({ benchDay: '2030-02-05', expectedDay: null, dueDate: null, dueUsage: null, dueCycles: null, running: 0, heatCycles: 0 }, '2030-02-03')
 * // 'It is planned on our bench for 5 Feb 2030.'
 */
export function recheckDayInLetter(recheck: DatedRecheck, today: Day): string {
  const stands = recheckDay(recheck, today);
  switch (stands?.by) {
    case 'bench':
      return `It is planned on our bench for ${dayInWords(stands.day)}.`;
    case 'expected':
      return stands.day === recheck.dueDate
        ? ''
        : `As it is used, that will be about ${dayInWords(stands.day)}.`;
    case 'unread':
      return 'As it is used, it will have reached that by now: please read its meter.';
    default:
      return '';
  }
}

function overInWords({ dueUsage, dueCycles, running, heatCycles }: DatedRecheck, unit: string): string {
  if (dueUsage !== null && running > dueUsage)
    return `${Math.round((running - dueUsage) * 10) / 10} ${unit} over`;
  return `${counted(heatCycles - (dueCycles ?? 0), 'heat cycle')} over`;
}

/** How far off a day is: `in 2 days`, `today`, `3 days late`. */
function daysInWords(day: Day, today: Day): string {
  const left = daysBetween(today, day);
  if (left === 0) return 'today';
  return left > 0 ? `in ${counted(left, 'day')}` : `${counted(-left, 'day')} late`;
}
