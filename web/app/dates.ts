import {
  differenceInCalendarDays,
  differenceInCalendarMonths,
  differenceInCalendarYears,
  differenceInSeconds,
  parseISO,
} from 'date-fns';
import { counted } from '@zero-lash/core/length';
import { dayInWords } from '@zero-lash/core/rechecks';

export { dayInWords };

/** What a clock and a calendar in a zone show; each zone's is made once, for it takes a while. */
const clocks = new Map<string, Intl.DateTimeFormat>();

/** A day of the calendar, `2031-03-12`, and a time of day, `14:05`, as they are in a zone. */
function inZone(moment: Date, zone: string): { readonly day: string; readonly time: string } {
  const clock =
    clocks.get(zone) ??
    new Intl.DateTimeFormat('en-GB', {
      ...{ timeZone: zone, hourCycle: 'h23', year: 'numeric', month: '2-digit', day: '2-digit' },
      ...{ hour: '2-digit', minute: '2-digit' },
    });
  clocks.set(zone, clock);
  const part = Object.fromEntries(clock.formatToParts(moment).map(({ type, value }) => [type, value]));
  return {
    day: `${part['year']}-${part['month']}-${part['day']}`,
    time: `${part['hour']}:${part['minute']}`,
  };
}

/** The day a moment lies on in a zone: `12 Mar 2031`. */
export const dayOfMomentInWords = (moment: string, zone: string) =>
  dayInWords(inZone(new Date(moment), zone).day);

/** Today in a zone, as a day of the calendar: `2031-03-12`. */
export const todayIn = (zone: string) => inZone(new Date(), zone).day;

/** A moment in a zone, with its year where that is not this one: `12 Mar, 14:05`, `12 Mar 2029, 14:05`. */
export function momentInWords(moment: string, zone: string): string {
  const { day, time } = inZone(new Date(moment), zone);
  const written = dayInWords(day);
  const thisYear = day.slice(0, 4) === todayIn(zone).slice(0, 4);
  return `${thisYear ? written.replace(/ \d+$/, '') : written}, ${time}`;
}

/** `3 days ago`; days, months and years as the calendar counts them. The browser's own words for it take 40 ms the first time. */
export const agoInWords = (iso: string) => `${agoOf(parseISO(iso), new Date())} ago`;

function agoOf(then: Date, now: Date): string {
  const days = differenceInCalendarDays(now, then);
  if (days < 1) {
    const seconds = Math.max(0, differenceInSeconds(now, then));
    if (seconds < 60) return counted(seconds, 'second');
    return seconds < 3600
      ? counted(Math.floor(seconds / 60), 'minute')
      : counted(Math.floor(seconds / 3600), 'hour');
  }
  if (days < 7) return counted(days, 'day');
  if (days < 28) return counted(Math.round(days / 7), 'week');
  const months = Math.max(1, differenceInCalendarMonths(now, then));
  return months < 12 ? counted(months, 'month') : counted(differenceInCalendarYears(now, then), 'year');
}
