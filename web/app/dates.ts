import { TZDate } from '@date-fns/tz';
import { differenceInCalendarDays, format, formatDistanceToNowStrict, parseISO } from 'date-fns';

/** A day of the calendar, `2031-03-12`, as `12 Mar 2031`. */
export const dayInWords = (day: string) => format(parseISO(day), 'd MMM yyyy');

/** The day a moment lies on in a zone: `12 Mar 2031`. */
export const dayOfMomentInWords = (moment: string, zone: string) =>
  format(new TZDate(moment, zone), 'd MMM yyyy');

/** Today in a zone, as a day of the calendar: `2031-03-12`. */
export const todayIn = (zone: string) => format(TZDate.tz(zone), 'yyyy-MM-dd');

/** A moment in a zone: `12 Mar, 14:05`. */
export const momentInWords = (moment: string, zone: string) =>
  format(new TZDate(moment, zone), 'd MMM, HH:mm');

/** `3 days ago` */
export const agoInWords = (iso: string) => formatDistanceToNowStrict(parseISO(iso), { addSuffix: true });

/** `in 4 days`, `today`, `3 days late` */
export function daysLeftInWords(day: string, today: string): string {
  const left = differenceInCalendarDays(parseISO(day), parseISO(today));
  if (left === 0) return 'today';
  const days = Math.abs(left) === 1 ? '1 day' : `${Math.abs(left)} days`;
  return left > 0 ? `in ${days}` : `${days} late`;
}
